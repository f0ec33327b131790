using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Players;

/// <summary>A player's own scale of paces: between its points, beyond them, stretched, and found from where plain strokes ended.</summary>
public class PaceScaleTests
{
    private static readonly IReadOnlyList<PacePoint> Hard = [new(2, 3), new(5, 6)];

    [Theory]
    [InlineData(1, 1.5)]
    [InlineData(2, 3)]
    [InlineData(3, 4)]
    [InlineData(5, 6)]
    [InlineData(7, 8)]
    public void A_scale_is_straight_between_its_points_and_goes_on_beyond_them(double own, double standard) =>
        Assert.Equal(standard, PaceScale.Standard(Hard, own), 9);

    [Fact]
    public void One_point_is_a_share_and_none_the_standard_scale()
    {
        Assert.Equal(8.8, PaceScale.Standard([new(5, 4.4)], 10), 9);
        Assert.Equal(7.3, PaceScale.Standard([], 7.3));
        Assert.Equal([new(5, 4.4)], PaceScale.WithFive([], 4.4));
        Assert.Empty(PaceScale.WithFive([], 5));
        Assert.Empty(PaceScale.WithFive([new(5, 4.4)], 5));
    }

    [Fact]
    public void Stretched_it_has_the_five_that_was_asked_for_and_comes_back()
    {
        var longer = PaceScale.WithFive(Hard, 7.2);
        Assert.Equal(7.2, PaceScale.Standard(longer, 5), 9);
        Assert.Equal(3.6, longer[0].Standard, 9);
        Assert.Equal(Hard, PaceScale.WithFive(longer, 6));
    }

    [Fact]
    public void Numbers_that_do_not_rise_are_refused_by_their_field()
    {
        var checks = new Checks("player");
        PaceScale.Check(checks, "paceScale", [new(3, 2), new(2, 4), new(4, 4)]);
        var refused = Assert.Throws<InputException>(checks.ThrowIfAny);
        Assert.Equal(["player.paceScale[1].own", "player.paceScale[2].standard"], refused.Errors.Select(e => e.Field));
    }

    /// <summary>Strokes of a player whose numbers are a fifth harder: seen exactly, found exactly.</summary>
    [Fact]
    public void A_scale_is_found_again_from_where_plain_strokes_ended()
    {
        var shape = new TableShape(Conditions.Default);
        var layout = Layout.OfRest([new(Ball.White, Dimensions.BaulkLineX, Dimensions.Width / 2)]);
        ObservedStroke Played(double named)
        {
            var meant = new Stroke(0, 0, 0.3, named, 0);
            var simulator = new Simulator(shape);
            (meant with { Pace = 1.2 * named }).Play(simulator, layout);
            var end = simulator.At(0);
            return ObservedStroke.Create(layout, meant, [("white", end.X, end.Y, null)], new([], 0.02));
        }
        double[] named = [2, 3, 4, 5, 6];
        var found = PaceScaleFit.Of(named.SelectMany(n => new[] { (n, Played(n)), (n, Played(n)) }), shape);
        Assert.All(found, f => Assert.Equal(1.2 * f.Own, f.Standard, 0.02));
        Assert.All(found, f => Assert.Equal((2, true), (f.Attempts, f.Error < 1e-6)));
        Assert.Equal(named, PaceScaleFit.Scale(found).Select(p => p.Own));
    }

    [Fact]
    public void Where_a_higher_number_was_no_harder_the_two_are_taken_together()
    {
        PaceEstimate Estimate(double own, double standard, int attempts) => new(own, standard, 0.1, attempts);
        var scale = PaceScaleFit.Scale([Estimate(2, 2, 3), Estimate(3, 4, 3), Estimate(4, 3, 1), Estimate(5, 5, 3)]);
        Assert.Equal([new(2, 2), new(3.25, 3.75), new(5, 5)], scale);
    }
}
