using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Reading;

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
    public void An_in_off_is_seen() => Assert.Contains(Warn(new(-135, 0, 0, 6, 0), ("white", 0.5, 0.5)), w => w.Kind == WarningKind.InOff);

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
    public void A_ball_that_leaves_a_neighbour_does_not_pass_it()
    {
        // Full on red 1, away from red 2 that touches it a little behind its middle; then red 2 is 4 mm off its way, farther on.
        Assert.DoesNotContain(
            Warn(
                new(0, 0, 0, 5, 0),
                ("white", 1, 0.9),
                ("red-1", 1.5, 0.9),
                ("red-2", 1.5 - 0.0525 * Math.Sin(0.2), 0.9 + 0.0525 * Math.Cos(0.2) + 1e-9)
            ),
            w => w.Kind == WarningKind.ClosePass
        );
        Assert.Contains(
            Warn(new(0, 0, 0, 5, 0), ("white", 1, 0.9), ("red-1", 1.5, 0.9), ("red-2", 1.7, 0.9 + 0.0525 + 0.004)),
            w => w.Kind == WarningKind.ClosePass && w.Ball == Ball.Red(2)
        );
    }

    [Fact]
    public void A_kiss_and_a_double_kiss_are_told_apart()
    {
        // Full on a red with another behind it; and full on a ball tight on the top cushion, which sends the white back (common practice,
        // no source).
        Assert.Contains(
            Warn(new(0, 0, 0, 5, 0), new Pot(1, Pocket.GreenTop), ("white", 1, 0.9), ("red-1", 1.5, 0.9), ("red-2", 1.7, 0.9)),
            w => w.Kind == WarningKind.Kiss && w.Ball == Ball.Red(2)
        );
        Assert.Contains(
            Warn(new(0, 0, -0.6, 7, 0), ("white", 2.4, 0.9), ("black", Dimensions.Length - Dimensions.BallRadius, 0.9)),
            w => w.Kind == WarningKind.DoubleKiss && w.Ball == Ball.Black
        );
    }

    [Fact]
    public void A_cannon_that_belongs_to_the_stroke_is_no_danger_and_a_kiss_of_the_object_ball_is()
    {
        // Half-ball and rolling, the white is turned by 33.7° (Wallace & Schroeder 1988): there lies the blue.
        var layout = Layout.Create([("white", 1, 0.9), ("red-1", 1.5, 0.926), ("blue", 1.787, 0.678)], Shape);
        var stroke = new Stroke(0, 0, 0.8, 4, 0);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        var pot = new Pot(layout.SlotOf(Ball.Red(1)), Pocket.GreenTop);
        Assert.NotEmpty(Route.Of(record).Balls);
        IEnumerable<WarningKind> Kinds(bool mayRunOn) =>
            ShotWarnings.Of(record, layout, stroke, simulator, Shape, pot, mayRunOn).Select(w => w.Kind);
        Assert.Contains(WarningKind.Kiss, Kinds(mayRunOn: false));
        Assert.DoesNotContain(WarningKind.Kiss, Kinds(mayRunOn: true));
    }

    [Fact]
    public void What_the_white_meets_after_the_ball_that_it_is_to_run_into_is_no_kiss_and_before_it_is()
    {
        // As above; where the white stops then, the brown lies.
        List<(string?, double, double)> balls = [("white", 1, 0.9), ("red-1", 1.5, 0.926), ("blue", 1.787, 0.678)];
        var (stroke, simulator, record) = (new Stroke(0, 0, 0.8, 4, 0), new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, Layout.Create(balls, Shape));
        balls.Add(("brown", simulator.At(0).X, simulator.At(0).Y));
        var layout = Layout.Create(balls, Shape);
        stroke.Play(simulator, layout, record);
        var met = record.Events.Where(e => e is { Kind: ShotEventKind.Ball, Ball: 0 }).Select(e => layout.Balls[e.Other].Ball).ToList();
        Assert.Equal([Ball.Red(1), Ball.Blue, Ball.Brown], met.Take(3));
        ShotEvent? Kiss(Ball meant) => Kisses.First(record, new(layout.SlotOf(Ball.Red(1)), Pocket.GreenTop), layout.SlotOf(meant));
        Assert.Null(Kiss(Ball.Blue));
        Assert.NotNull(Kiss(Ball.Brown));
    }

    [Fact]
    public void A_tip_near_the_limit_and_a_raised_butt_under_screw_are_seen()
    {
        Assert.Contains(Warn(new(0, 0, -1.5, 4, 0), ("white", 1, 0.9)), w => w.Kind == WarningKind.NearMiscue);
        // What is lost of the screw is read off the stroke itself: the more, the higher the butt; nothing without a ball to screw from.
        double Lost(double elevation) =>
            Warn(new(0, 0, -1.2, 4.2, elevation), ("white", 1, 0.9), ("red-1", 1.4, 0.9))
                .Single(w => w.Kind == WarningKind.RaisedButt)
                .Amount;
        Assert.InRange(Lost(12), 0.05, 0.7);
        Assert.True(Lost(30) > Lost(12) + 0.1, $"{Lost(12)} {Lost(30)}");
        Assert.DoesNotContain(Warn(new(0, 0, 0.5, 4, 12), ("white", 1, 0.9), ("red-1", 1.45, 0.9)), w => w.Kind == WarningKind.RaisedButt);
    }

    [Fact]
    public void A_raised_butt_makes_the_white_hop_by_the_law_of_the_thrown_ball()
    {
        // v²/2g with half of the blow's downward part given back by the bed (the half is common practice, no source).
        var stroke = new Stroke(0, 0, 0, 6, 20);
        var strike = stroke.ToStrike();
        var level = (stroke with { ElevationDegrees = 0 }).ToStrike().Launch(Conditions.Default);
        var blow = Math.Sqrt(level.Vx * level.Vx + level.Vy * level.Vy);
        var height = Math.Pow(0.5 * blow * Math.Sin(20 * Math.PI / 180), 2) / (2 * 9.81);
        var warning = Warn(stroke, ("white", 1, 0.9)).Single(w => w.Kind == WarningKind.Hop);
        Assert.Equal(height, warning.Amount, 1e-9);
        Assert.DoesNotContain(Warn(new(0, 0, 0, 6, 0), ("white", 1, 0.9)), w => w.Kind == WarningKind.Hop);
    }

    [Fact]
    public void A_jump_and_a_ball_off_the_table_are_seen()
    {
        Assert.Contains(
            Warn(new(0, 0, 0, 9.5, 45), ("white", 0.7, 0.9), ("red-1", 1.0, 0.9)),
            w => w is { Kind: WarningKind.Jump, Ball: { IsRed: true } }
        );
        Assert.Contains(
            Warn(new(180, 0, 0, 9.5, 45), ("white", 0.35, 0.9)),
            w => w is { Kind: WarningKind.OffTable, Ball: { IsColour: false } }
        );
    }

    [Fact]
    public void A_jaw_passed_closely_is_named_and_one_that_is_touched_is_not()
    {
        // Along the side cushion past a middle pocket: the jaws lie within the nose line, so straight along it the white clears them by its
        // distance from the nose.
        var near = Warn(new(0, 0, 0, 5, 0), ("white", 1.2, Dimensions.BallRadius + 0.003));
        var warning = near.Single(w => w.Kind == WarningKind.CloseJaw && w.Pocket == Pocket.YellowMiddle);
        Assert.Equal(0.003, warning.Amount, 1e-6);
        Assert.DoesNotContain(
            Warn(new(0, 0, 0, 5, 0), ("white", 1.2, Dimensions.BallRadius + 0.05)),
            w => w.Kind == WarningKind.CloseJaw && w.Pocket == Pocket.YellowMiddle
        );
    }

    [Fact]
    public void A_white_that_ends_snookered_on_what_comes_next_is_seen()
    {
        // After a red any colour is on; here there is only the black.
        (string?, double, double)[] balls = [("white", 3.10, 0.40), ("red-1", 3.30, 0.24), ("black", 2.0, 1.0)];
        var layout = Layout.Create([balls[0], balls[1], balls[^1]], Shape);
        var cut = Cut.Of(layout, new(layout.SlotOf(Ball.Red(1)), Pocket.YellowTop), Shape);
        var stroke = new Stroke(0, 0, -0.25, 4, 0);
        stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
        var open = Warn(stroke, new Pot(layout.SlotOf(Ball.Red(1)), Pocket.YellowTop), balls[0], balls[1], balls[^1]);
        Assert.DoesNotContain(open, w => w.Kind == WarningKind.Snookered);
        // The same shot with a red between the white's resting place and the black.
        var simulator = new Simulator(Shape);
        simulator.Place(layout.AsSpan());
        simulator.Play(stroke.ToStrike());
        var (x, y) = ((simulator.X(0) + 2.0) / 2, (simulator.Y(0) + 1.0) / 2);
        var hidden = Layout.Create([balls[0], balls[1], balls[^1], ("red-2", x, y)], Shape);
        var warnings = Warn(stroke, new Pot(hidden.SlotOf(Ball.Red(1)), Pocket.YellowTop), balls[0], balls[1], balls[^1], ("red-2", x, y));
        Assert.Equal(Ball.Black, Assert.Single(warnings, w => w.Kind == WarningKind.Snookered).Ball);
    }
}
