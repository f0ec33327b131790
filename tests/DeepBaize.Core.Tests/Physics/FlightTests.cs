using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Tests.Reference;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>Balls off the bed. docs/model.md, "The bed".</summary>
public class FlightTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static (Simulator Simulator, ShotRecord Record) Play(Strike strike, params PlacedBall[] balls)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        simulator.Place(balls);
        simulator.Play(strike, record);
        return (simulator, record);
    }

    [Theory]
    [InlineData(10, 3)]
    [InlineData(30, 4)]
    [InlineData(45, 2)]
    public void The_first_hop_is_as_high_and_as_long_as_a_throw(double elevation, double speed)
    {
        var strike = Strike.Create(0, speed, 0, 0, elevation);
        var (_, record) = Play(strike, new PlacedBall(Ball.White, 0.5, 0.9));
        // j by docs/model.md, half of its downward part given back; a throw: u²/2g high, 2u/g long (any textbook of mechanics).
        var j = 1.75 * speed / (1 + BallMass / 0.52);
        var up = 0.5 * j * Math.Sin(elevation * Math.PI / 180);
        Assert.Equal(up * up / (2 * 9.81), record.Highest(0), 1e-9);
        var landing = record.Events.First(e => e.Kind == ShotEventKind.Bed);
        Assert.Equal(2 * up / 9.81, landing.Time, 1e-9);
        var launch = strike.Launch(Conditions.Default);
        Assert.Equal(0.5 + launch.Vx * 2 * up / 9.81, landing.X, 1e-9);
        Assert.Equal(up, landing.Speed, 1e-9);
    }

    [Fact]
    public void A_landing_without_spin_keeps_its_direction_and_one_that_rolls_changes_nothing()
    {
        var c = Conditions.Default;
        var plain = Landing.Of(new(2, 1, 0, 0, 0), 1, c);
        Assert.Equal(2.0, plain.Vx / plain.Vy, 1e-12);
        Assert.Equal(0.5, plain.Vz, 1e-12);
        var rolling = new BallMotion(2, 1, -1 / BallRadius, 2 / BallRadius, 30);
        Assert.Equal(rolling with { Vz = 0.5 }, Landing.Of(rolling, 1, c));
        // Slower than 0.05 m/s it gives nothing back.
        Assert.Equal(0, Landing.Of(rolling, 0.049, c).Vz);
    }

    [Fact]
    public void Energy_never_rises_at_a_landing()
    {
        var random = new Random(3);
        double Any(double most) => most * (2 * random.NextDouble() - 1);
        for (var i = 0; i < 10_000; i++)
        {
            var down = 4 * random.NextDouble();
            var before = new BallMotion(Any(6), Any(6), Any(200), Any(200), Any(200), -down);
            Assert.True(Landing.Of(before, down, Conditions.Default).Energy <= before.Energy + 1e-12);
        }
    }

    [Fact]
    public void Dug_down_the_screw_dies_the_more_the_butt_is_raised()
    {
        // A gap of 0.35 m, 2 m/s at the cue, low: common practice, no source.
        double ComesBack(double elevation)
        {
            var (simulator, record) = Play(
                Strike.Create(0, 2, 0, -0.4, elevation),
                new PlacedBall(Ball.White, 1, 0.9),
                new PlacedBall(Ball.Red(1), 1 + 0.35 + 2 * BallRadius, 0.9)
            );
            return record.Events.First(e => e.Kind == ShotEventKind.Ball).X - simulator.X(0);
        }
        var (level, low, high, dug) = (ComesBack(0), ComesBack(15), ComesBack(30), ComesBack(40));
        Assert.True(level > 0.3, $"{level}");
        Assert.True(level > low && low > high && high > dug, $"{level} {low} {high} {dug}");
        Assert.True(dug < 0.06, $"{dug}");
    }

    [Fact]
    public void A_soft_low_stroke_over_a_short_gap_still_screws()
    {
        // At natural elevation. Common practice, no source.
        var (simulator, record) = Play(
            Strike.Create(0, 1.2, 0, -0.4, 3),
            new PlacedBall(Ball.White, 1, 0.9),
            new PlacedBall(Ball.Red(1), 1 + 0.15 + 2 * BallRadius, 0.9)
        );
        Assert.True(record.Events.First(e => e.Kind == ShotEventKind.Ball).X - simulator.X(0) > 0.05);
    }

    [Fact]
    public void A_tip_of_side_goes_nearly_straight_with_the_cue_as_it_lies_and_drifts_when_it_is_level()
    {
        // Over 3 m, a medium stroke: squirt and swerve nearly cancel. Common practice, no source.
        double Beside(double elevation)
        {
            var strike = Strike.Create(0, Pace.CueSpeed(4.5), Tip.Fraction(1), 0, elevation);
            var (_, record) = Play(strike, new PlacedBall(Ball.White, 0.3, 0.889));
            var at = record.Pieces.First(p => p.Ball == 0 && p.To.X > 3.3);
            return at.To.Y - 0.889;
        }
        Assert.True(Math.Abs(Beside(0)) > 0.03, $"{Beside(0)}");
        Assert.True(Math.Abs(Beside(3)) < 0.7 * Math.Abs(Beside(0)), $"{Beside(3)} {Beside(0)}");
    }

    [Fact]
    public void The_white_goes_over_a_ball_and_off_the_table()
    {
        var ball = new PlacedBall(Ball.Red(1), 1.0, 0.9);
        var jump = Play(Strike.Create(0, 6, 0, 0, 45), new PlacedBall(Ball.White, 0.7, 0.9), ball);
        Assert.DoesNotContain(jump.Record.Events, e => e.Kind == ShotEventKind.Ball && e.Time < 0.2);
        Assert.Equal(1, Contacts.JumpedOver(jump.Record, Layout.OfRest([new(Ball.White, 0.7, 0.9), ball])));
        var off = Play(Strike.Create(180, 6, 0, 0, 45), new PlacedBall(Ball.White, 0.35, 0.9));
        Assert.True(off.Simulator.IsOff(0));
        Assert.False(off.Simulator.IsOnTable(0));
        Assert.Null(off.Simulator.PocketOf(0));
        Assert.Contains(off.Record.Events, e => e.Kind == ShotEventKind.Off && e.Ball == 0);
    }

    [Fact]
    public void A_ball_struck_from_above_hops()
    {
        var (_, record) = Play(
            Strike.Create(0, 5, 0, 0, 35),
            new PlacedBall(Ball.White, 0.7, 0.9),
            new PlacedBall(Ball.Red(1), 0.7 + 2 * BallRadius + 0.01, 0.9)
        );
        Assert.True(record.Highest(1) > 0.0005, $"{record.Highest(1)}");
    }

    internal const int RaisedCount = 45;

    /// <summary>A raised stroke at a red that lies near, or over it; null where the red has no room.</summary>
    internal static (Layout Layout, Strike Strike)? Raised(int seed)
    {
        var random = new Random(seed);
        double Between(double min, double max) => min + random.NextDouble() * (max - min);
        var white = new Vec2(Between(0.4, 3), Between(0.3, 1.4));
        var aim = Angle.FromDegrees(Between(0, 360));
        var red = white + Between(0.15, 0.5) * (aim + Angle.FromDegrees(Between(-4, 4))).Unit;
        if (!Shape.CanRest(red))
            return null;
        var layout = Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), red)]);
        return (layout, Strike.Create(aim.Degrees, Between(1, 5), Between(-0.2, 0.2), Between(-0.4, 0.3), Between(5, 50)));
    }

    [Fact]
    public void Raised_strokes_over_and_on_to_balls_agree_with_small_steps()
    {
        var compared = 0;
        foreach (var kept in KeptShot.Of("raised").Where(k => k.Contacts <= 6))
        {
            var (layout, strike) = Raised(kept.Seed)!.Value;
            var simulator = new Simulator(Shape);
            var ends = new[] { 0, 1e-5, -1e-5 }
                .Select(turn =>
                {
                    simulator.Place(layout.AsSpan());
                    simulator.Play(
                        Strike.Create(strike.AimDegrees + turn, strike.CueSpeed, strike.Side, strike.Height, strike.ElevationDegrees)
                    );
                    KeptBall End(int i) => new(simulator.PocketOf(i), simulator.IsOff(i), simulator.At(i));
                    return new[] { End(0), End(1) };
                })
                .ToArray();
            // Where a hair of aim already shows, two programs need not agree.
            if (Enumerable.Range(0, 2).Any(i => ends.Any(e => e[i].At.DistanceTo(ends[0][i].At) > 4e-5)))
                continue;
            compared++;
            for (var i = 0; i < 2; i++)
            {
                var (end, expected) = (ends[0][i], kept.Balls[i]);
                Assert.Equal((expected.Pocket, expected.IsOff), (end.Pocket, end.IsOff));
                if (end.Pocket is null && !end.IsOff)
                    Assert.True(end.At.DistanceTo(expected.At) < 0.002, $"{kept.Seed}: {i} {end.At} {expected.At}");
            }
        }
        Assert.True(compared > 12, $"{compared}");
    }
}
