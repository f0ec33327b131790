using DeepBaize.Core.Physics;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Shots;

public class ShotWarningsTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static IReadOnlyList<ShotWarning> Warn(Stroke stroke, params (string?, double, double)[] balls) => Warn(stroke, null, balls);

    private static IReadOnlyList<ShotWarning> Warn(Stroke stroke, Pot? pot, params (string?, double, double)[] balls)
    {
        var layout = Layout.Create(balls, Shape);
        var simulator = new Simulator(Shape);
        var record = new ShotRecord();
        simulator.Place(layout.AsSpan());
        simulator.Play(stroke.ToStrike(), record);
        return ShotWarnings.Of(record, layout, stroke, simulator, Shape, pot);
    }

    [Fact]
    public void An_in_off_is_seen() =>
        Assert.Contains(Warn(new(-135, 0, 0, 6, 0), ("white", 0.5, 0.5)), w => w.Kind == WarningKind.InOff);

    [Fact]
    public void A_close_pass_is_measured()
    {
        // Straight up the table; the blue's edge 4 mm from the white's way.
        var warning = Assert.Single(Warn(new(0, 0, 0, 5, 0), ("white", 0.5, 0.8), ("blue", 1.2, 0.8 + 0.0525 + 0.004)));
        Assert.Equal((WarningKind.ClosePass, Ball.Blue), (warning.Kind, warning.Ball));
        Assert.Equal(0.004, warning.Amount, 1e-6);
        Assert.Empty(Warn(new(0, 0, 0, 5, 0), ("white", 0.5, 0.8), ("blue", 1.2, 0.8 + 0.0525 + 0.02)));
    }

    [Fact]
    public void A_kiss_and_a_double_kiss_are_told_apart()
    {
        // Full on a red with another behind it; and full on a ball tight on the top cushion, which sends the white back (common practice, no source).
        Assert.Contains(Warn(new(0, 0, 0, 5, 0), new Pot(1, Pocket.GreenTop), ("white", 1, 0.9), ("red-1", 1.5, 0.9), ("red-2", 1.7, 0.9)), w => w.Kind == WarningKind.Kiss && w.Ball == Ball.Red(2));
        Assert.Contains(Warn(new(0, 0, -0.6, 7, 0), ("white", 2.4, 0.9), ("black", Dimensions.Length - Dimensions.BallRadius, 0.9)), w => w.Kind == WarningKind.DoubleKiss && w.Ball == Ball.Black);
    }

    [Fact]
    public void A_tip_near_the_limit_and_a_raised_butt_under_screw_are_seen()
    {
        Assert.Contains(Warn(new(0, 0, -1.5, 4, 0), ("white", 1, 0.9)), w => w.Kind == WarningKind.NearMiscue);
        Assert.Contains(Warn(new(0, 0, -0.5, 4, 12), ("white", 1, 0.9)), w => w is { Kind: WarningKind.RaisedButt, Amount: 12 });
        Assert.DoesNotContain(Warn(new(0, 0, 0.5, 4, 12), ("white", 1, 0.9)), w => w.Kind == WarningKind.RaisedButt);
    }
}
