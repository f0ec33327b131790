using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>What whole shots do, against the sourced rows of docs/model.md.</summary>
public class MotionTests
{
    private static readonly Conditions Ideal = Conditions.Default with
    {
        BallRestitution = 1,
        BallFrictionFloor = 0,
        BallFrictionRange = 0,
    };

    private static (Simulator Simulator, ShotRecord Record) Release(Conditions c, PlacedBall[] balls, BallMotion motion)
    {
        var simulator = new Simulator(new(c));
        simulator.Place(balls);
        var record = new ShotRecord();
        simulator.Release([(0, motion)], record);
        return (simulator, record);
    }

    /// <summary>Velocity at the start of a ball's first piece of rolling.</summary>
    private static (double Vx, double Vy) FirstRoll(ShotRecord record, int slot, double after = 0)
    {
        var roll = record.Events.First(e => e.Kind == ShotEventKind.Roll && e.Ball == slot && e.Time >= after);
        var piece = record.Pieces.First(p => p.Ball == slot && p.Start >= roll.Time - 1e-12);
        return (piece.Vx, piece.Vy);
    }

    [Theory]
    [InlineData(0.5)]
    [InlineData(1.2)]
    public void A_plain_ball_rolls_at_five_sevenths_of_its_speed(double v)
    {
        // Coriolis 1835, from memory.
        var (_, record) = Release(Conditions.Default, [new(Ball.White, 0.5, 0.9)], new(v, 0, 0, 0, 0));
        var roll = record.Events.First(e => e.Kind == ShotEventKind.Roll);
        Assert.Equal(5.0 / 7 * v, roll.Speed, 1e-9);
        Assert.Equal(12 * v * v / (49 * 0.18 * 9.81), roll.X - 0.5, 1e-9);
    }

    [Theory]
    [InlineData(10)]
    [InlineData(28.1)]
    [InlineData(30)]
    [InlineData(50)]
    [InlineData(70)]
    public void A_rolling_cue_ball_is_turned_by_the_published_angle(double phiDegrees)
    {
        // Wallace & Schroeder, Am. J. Phys. 56 (1988) 815, from memory.
        var phi = phiDegrees * Math.PI / 180;
        var expected = Math.Atan(Math.Sin(phi) * Math.Cos(phi) / (Math.Sin(phi) * Math.Sin(phi) + 0.4));
        const double v = 0.6;
        PlacedBall cue = new(Ball.White, 1.2, 0.9);
        PlacedBall red = new(Ball.Red(1), 1.2 + 0.1 + 2 * BallRadius * Math.Cos(phi), 0.9 - 2 * BallRadius * Math.Sin(phi));
        var (_, record) = Release(Ideal, [cue, red], new(v, 0, 0, v / BallRadius, 0));
        var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball);
        var (vx, vy) = FirstRoll(record, 0, hit.Time);
        Assert.Equal(expected, Math.Atan2(vy, vx), 1e-9);
        if (phiDegrees == 30)
            Assert.Equal(33.67, Math.Atan2(vy, vx) * 180 / Math.PI, 0.005);
        if (phiDegrees == 28.1)
            Assert.Equal(33.75, Math.Atan2(vy, vx) * 180 / Math.PI, 0.005);
    }

    [Fact]
    public void A_rolling_cue_ball_full_on_goes_on_at_two_sevenths_and_the_object_ball_at_five()
    {
        // Follows from Coriolis's 5/7 by momentum.
        const double v = 0.7;
        var (_, record) = Release(Ideal, [new(Ball.White, 1.2, 0.9), new(Ball.Red(1), 1.35, 0.9)], new(v, 0, 0, v / BallRadius, 0));
        var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball);
        Assert.Equal(2.0 / 7 * hit.Speed, FirstRoll(record, 0, hit.Time).Vx, 1e-9);
        Assert.Equal(5.0 / 7 * hit.Speed, FirstRoll(record, 1, hit.Time).Vx, 1e-9);
    }

    [Theory]
    [InlineData(0.5)]
    [InlineData(1)]
    [InlineData(1.6)]
    public void Screw_comes_back_at_two_sevenths_of_its_spin(double k)
    {
        const double v = 1.1;
        // In contact at once, so that no spin is lost on the way.
        var (_, record) = Release(
            Ideal,
            [new(Ball.White, 1.2, 0.9), new(Ball.Red(1), 1.2 + 2 * BallRadius, 0.9)],
            new(v, 0, 0, -k * v / BallRadius, 0)
        );
        Assert.Equal(-2 * k / 7 * v, FirstRoll(record, 0).Vx, 1e-9);
    }

    [Fact]
    public void Full_power_runs_about_five_and_a_half_lengths()
    {
        // Common practice, no source; model.md's check of the whole set of defaults.
        Assert.InRange(Pace.TableLengths(7, new(Conditions.Default)), 5.2, 5.8);
    }

    [Fact]
    public void The_harder_a_top_spin_cut_the_longer_it_keeps_to_the_stun_line()
    {
        // Common practice, no source: how far the white has gone along the stun line when it begins to roll.
        double Along(double speed)
        {
            var phi = Math.PI / 6;
            PlacedBall[] balls =
            [
                new(Ball.White, 1.2, 0.9),
                new(Ball.Red(1), 1.3 + 2 * BallRadius * Math.Cos(phi), 0.9 - 2 * BallRadius * Math.Sin(phi)),
            ];
            var (_, record) = Release(Conditions.Default, balls, new(speed, 0, 0, speed / BallRadius, 0));
            var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball);
            var roll = record.Events.First(e => e.Kind == ShotEventKind.Roll && e.Ball == 0 && e.Time > hit.Time);
            return (roll.X - hit.X) * Math.Sin(phi) + (roll.Y - hit.Y) * Math.Cos(phi);
        }
        Assert.True(Along(1.4) > 1.5 * Along(1));
        Assert.True(Along(1) > 1.5 * Along(0.7));
    }

    [Fact]
    public void A_blow_goes_through_a_row_of_touching_balls_in_a_moment()
    {
        // Newton's cradle, elastic and without friction: nearly all goes to the last of a straight row.
        var balls = Enumerable
            .Range(0, 5)
            .Select(i => new PlacedBall(Ball.FromIndex(i + (i == 0 ? 0 : 6)), 1 + (i == 0 ? -0.2 : 0) + i * 2 * BallRadius, 0.9))
            .ToArray();
        var (simulator, record) = Release(Ideal with { SlidingFriction = 0.01, RollingFriction = 0.002 }, balls, new(0.3, 0, 0, 0, 0));
        var first = record.Events.Where(e => e.Kind == ShotEventKind.Ball).Take(4).ToList();
        // A contact at this speed lasts half a millisecond (Hertz), and they overlap in time.
        Assert.All(first, e => Assert.InRange(e.Time - first[0].Time, 0, 1e-3));
        Assert.Equal((3, 4), (first[3].Ball, first[3].Other));
        Assert.True(simulator.X(4) > 1.5);
        Assert.Equal(1.0 + 2 * BallRadius, simulator.X(1), 0.02);
    }

    [Fact]
    public void A_ball_into_a_pocket_is_potted_at_its_drop()
    {
        var shape = new TableShape(Conditions.Default);
        var (simulator, record) = Release(Conditions.Default, [new(Ball.White, 0.5, 0.5)], new(-1.4, -1.4, 0, 0, 0));
        Assert.Equal(Pocket.Yellow, simulator.PocketOf(0));
        var drop = shape.PocketShapes[0].Drop;
        Assert.Equal(drop.Radius, Math.Sqrt(Math.Pow(simulator.X(0) - drop.X, 2) + Math.Pow(simulator.Y(0) - drop.Y, 2)), 1e-9);
        Assert.Equal(ShotEventKind.Pot, record.Events[^1].Kind);
    }

    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(6)]
    public void A_blow_on_a_row_of_touching_balls_sends_the_last_one_off(int count)
    {
        // Nearly all goes to the last (Newton's cradle, any textbook of mechanics); the others part a little, for they press on one another
        // like springs and not one after the other (Hinch & Saint-Jean 1999, Proc. R. Soc. A 455, 3201, from memory).
        var c = Ideal with { BallRestitution = 1 };
        const double v = 2;
        PlacedBall[] balls =
        [
            new(Ball.White, 0.8, 0.9),
            .. Enumerable.Range(0, count).Select(i => new PlacedBall(Ball.Red(i + 1), 0.8 + 0.01 + (i + 1) * 2 * BallRadius, 0.9)),
        ];
        var (_, record) = Release(c, balls, new(v, 0, 0, 0, 0));
        var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball);
        var last = record.Pieces.First(p => p.Ball == count);
        // A wave goes through the row in a millisecond.
        Assert.InRange(last.Start - hit.Time, -1e-9, 1e-3);
        var apart = hit.Time + 0.002;
        var speeds = Enumerable
            .Range(0, count + 1)
            .Select(i => record.Pieces.FirstOrDefault(p => p.Ball == i && p.Start <= apart && p.End > apart))
            .Select(p => p.Vx)
            .ToArray();
        Assert.InRange(speeds[^1] / hit.Speed, 0.97, 1);
        // Nothing is lost on the way, and nobody still runs into the one ahead.
        var cloth = 1.5 * (count + 1) * c.SlidingFriction * c.Gravity * 0.002;
        Assert.Equal(hit.Speed, speeds.Sum(), cloth);
        Assert.Equal(hit.Speed * hit.Speed, speeds.Sum(v => v * v), 2 * hit.Speed * cloth);
        for (var i = 0; i < count; i++)
            Assert.True(speeds[i] <= speeds[i + 1] + 2e-4, $"{i} runs into {i + 1}");
    }

    [Fact]
    public void A_potted_ball_that_was_touched_is_met_no_more()
    {
        // A red in the jaws pots over the drop's edge when the one behind it is struck on to it; the struck one goes on through where it
        // was.
        PlacedBall[] balls =
        [
            new(Ball.White, 0.6, 0.6),
            new(Ball.Red(1), 0.10, 0.10),
            new(Ball.Red(2), 0.10 - Math.Sqrt(2) * BallRadius, 0.10 - Math.Sqrt(2) * BallRadius),
        ];
        var (simulator, record) = Release(Conditions.Default, balls, new(-1.5, -1.5, 1.5 / BallRadius, -1.5 / BallRadius, 0));
        Assert.Equal(Pocket.Yellow, simulator.PocketOf(2));
        var potted = record.Events.Single(e => e.Kind == ShotEventKind.Pot && e.Ball == 2);
        Assert.DoesNotContain(record.Events, e => e.Time > potted.Time && (e.Ball == 2 || e.Other == 2));
    }
}
