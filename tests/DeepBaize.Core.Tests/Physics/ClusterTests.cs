using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using DeepBaize.Core.Tests.Reference;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>Packs, plants and sets: contacts that are not alone. docs/model.md, "Several at once".</summary>
public class ClusterTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static readonly IReadOnlyList<PlacedBall> Pack = [.. Rack.Pack()];

    private static Vec2 Middle => new(Pack.Average(b => b.X), Pack.Average(b => b.Y));

    private static (Simulator Simulator, ShotRecord Record) Run(
        IReadOnlyList<PlacedBall> balls,
        Vec2 velocity,
        Conditions? conditions = null,
        double neglected = Simulator.Fine
    )
    {
        var (simulator, record) = (new Simulator(new(conditions ?? Conditions.Default), neglected), new ShotRecord());
        simulator.Place([.. balls]);
        simulator.Release([(0, Rolling(velocity))], record);
        return (simulator, record);
    }

    private static BallMotion Rolling(Vec2 v) => new(v.X, v.Y, -v.Y / BallRadius, v.X / BallRadius, 0);

    private static Vec2 VelocityAt(ShotRecord record, int ball, double time) =>
        record
            .Pieces.Where(p => p.Ball == ball && p.Start <= time && p.End > time)
            .Select(p => new Vec2(p.Vx + p.Ax * (time - p.Start), p.Vy + p.Ay * (time - p.Start)))
            .FirstOrDefault();

    internal const int HitCount = 16;

    /// <summary>Ways to run into the pack: from all round, at its middle or beside it, softly and hard.</summary>
    internal static (IReadOnlyList<PlacedBall> Balls, Vec2 Velocity) Hit(int number)
    {
        var random = new Random(100 + number);
        var round = Angle.FromDegrees(22.5 * number + 5);
        var from = Middle + 0.24 * round.Unit;
        var at = Middle + new Vec2(0.06 * random.NextDouble() - 0.03, 0.06 * random.NextDouble() - 0.03);
        return ([new(Ball.White, from), .. Pack], (1 + 5 * random.NextDouble()) * (at - from).Unit);
    }

    /// <summary>Seconds from the start to when the velocities of the reds are compared: 40 ms after the first contact.</summary>
    internal static double TimeToCompare(IReadOnlyList<PlacedBall> balls, Vec2 velocity) =>
        Contacts.First(Run(balls, velocity).Record)!.Value.Time + 0.04;

    public static TheoryData<int> Hits => [.. Enumerable.Range(0, HitCount)];

    [Theory]
    [MemberData(nameof(Hits))]
    public void A_full_pack_opens_as_it_does_by_small_steps(int number)
    {
        var (balls, velocity) = Hit(number);
        var kept = ReferenceTable.Rows("packs")[number];
        var time = kept[1];
        foreach (var neglected in (double[])[Simulator.Fine, Simulator.Coarse])
        {
            var (_, record) = Run(balls, velocity, neglected: neglected);
            var (off, all) = (0.0, 0.0);
            for (var i = 1; i < balls.Count; i++)
            {
                var expected = new Vec2(kept[2 * i], kept[2 * i + 1]);
                (off, all) = (off + (VelocityAt(record, i, time) - expected).SquaredLength, all + expected.SquaredLength);
            }
            Assert.True(Math.Sqrt(off / all) < 0.03, $"off by {100 * Math.Sqrt(off / all):0.0} % at {neglected}");
        }
    }

    [Fact]
    public void A_gap_of_a_micrometre_changes_little()
    {
        var (balls, velocity) = Hit(3);
        var close = Run(balls, velocity).Record;
        // Each row a micrometre farther back.
        var opened = Run(
            [balls[0], .. Pack.Select(b => new PlacedBall(b.Ball, b.X + 1e-6 * (b.X - Pack[0].X) / 0.045, b.Y))],
            velocity
        ).Record;
        var (off, all) = (0.0, 0.0);
        for (var i = 1; i <= Pack.Count; i++)
        {
            var (a, b) = (VelocityAt(close, i, 0.2), VelocityAt(opened, i, 0.2));
            (off, all) = (off + (a - b).SquaredLength, all + a.SquaredLength);
        }
        Assert.True(Math.Sqrt(off / all) < 0.05, $"{100 * Math.Sqrt(off / all):0.0} %");
    }

    [Fact]
    public void A_pack_struck_along_its_middle_opens_the_same_on_both_sides()
    {
        // White, apex and the middle of each row on one line.
        var (_, record) = Run([new(Ball.White, Pack[0].X - 0.3, Width / 2), .. Pack], new(4, 0));
        for (var i = 0; i < Pack.Count; i++)
        {
            var mirror = Pack.Select((b, k) => (b, k)).First(p => p.b.At.DistanceTo(new(Pack[i].X, Width - Pack[i].Y)) < 1e-6).k;
            var (a, b) = (VelocityAt(record, i + 1, 0.15), VelocityAt(record, mirror + 1, 0.15));
            Assert.Equal(a.X, b.X, 1e-6);
            Assert.Equal(a.Y, -b.Y, 1e-6);
        }
    }

    [Theory]
    [InlineData(0.3)]
    [InlineData(3)]
    public void A_pair_lasts_as_long_as_Hertz_has_it(double speed)
    {
        // Hertz's contact time by quadrature of the energy, and not by the simulator's formula:
        // t = 2 ∫ dδ / √(v² − (4K/(5m′))·δ^(5/2)).
        const double stiffness = 5.0e8;
        var reduced = BallMass / 2;
        var deepest = Math.Pow(5 * reduced * speed * speed / (4 * stiffness), 0.4);
        const int n = 200_000;
        var time = 0.0;
        for (var i = 0; i < n; i++)
        {
            // δ = deepest·(1 − u²) takes the root at the end out of it.
            var u = (i + 0.5) / n;
            var depth = 1 - u * u;
            time += 2 * deepest * 2 * u / n / (speed * Math.Sqrt(1 - Math.Pow(depth, 2.5)));
        }
        Assert.Equal(time, ClusterSolver.ContactTime(speed), time * 1e-3);
    }

    [Theory]
    [InlineData(0.5, 0.5)]
    [InlineData(3, 0.5)]
    [InlineData(3, 0.9)]
    public void A_pair_in_soft_contact_does_what_the_law_of_single_contacts_says(double speed, double offset)
    {
        // A third ball that touches the one struck where it is not driven to makes the pair's contact soft, and hardly takes part in it.
        var nx = Math.Sqrt(1 - offset * offset);
        var struck = new Vec2(1, 0.8);
        var white = struck - 2 * BallRadius * new Vec2(nx, offset) - new Vec2(1e-6, 0);
        var aside = new Vec2(-offset, nx);
        var third = struck + 2 * BallRadius * (aside + 0.02 * new Vec2(nx, offset)).Unit;
        PlacedBall[] balls = [new(Ball.White, white), new(Ball.Red(1), struck), new(Ball.Red(2), third)];
        var alone = Run([.. balls.Take(2)], new(speed, 0)).Record;
        var soft = Run(balls, new(speed, 0)).Record;
        var time = Contacts.First(alone)!.Value.Time + 0.005;
        foreach (var ball in (int[])[0, 1])
        {
            var (a, b) = (VelocityAt(alone, ball, time), VelocityAt(soft, ball, time));
            Assert.True((a - b).Length < 0.03 * speed, $"{a} {b}");
        }
    }

    [Fact]
    public void A_set_goes_thick_of_the_line_by_more_than_one_ball_does()
    {
        // Two touching balls in a line, the first struck from an angle: the second is thrown off the line towards where the white goes.
        // Common practice, no source.
        var first = new Vec2(1, 0.8);
        var line = new Vec2(1, 0);
        var second = first + 2 * BallRadius * line;
        var come = Angle.FromDegrees(40).Unit;
        var ghost = first - 2 * BallRadius * come;
        var white = ghost - 0.4 * Angle.FromDegrees(20).Unit;
        var velocity = 1.5 * (ghost - white).Unit;
        var single = Run([new(Ball.White, white), new(Ball.Red(1), first)], velocity).Record;
        var set = Run([new(Ball.White, white), new(Ball.Red(1), first), new(Ball.Red(2), second)], velocity).Record;
        var thrown = VelocityAt(single, 1, Contacts.First(single)!.Value.Time + 0.01).Direction.Degrees - 40;
        var setOff = VelocityAt(set, 2, Contacts.First(set)!.Value.Time + 0.01).Direction.Degrees;
        Assert.True(Math.Abs(setOff) > 0.3, $"{setOff}");
        Assert.True(Math.Abs(thrown) < 8);
    }

    [Theory]
    [InlineData(2.602151812271169, 1.128648999615991, -72.41020047383914, 6.421429238664651, 4.531397982282284)]
    [InlineData(2.6098316791926424, 1.2054396502751343, -76.89840971859552, 7.778855636240382, 4.409388142828544)]
    [InlineData(2.7399403119788923, 0.6155803218511073, 102.34453899688187, 6.797119769638926, 4.63402113627364)]
    public void Balls_that_come_to_lie_on_others_roll_off_them_in_the_end(double x, double y, double aim, double speed, double elevation)
    {
        // Found by random strokes: one ball driven down on two others was handed between them for ever.
        var simulator = new Simulator(Shape);
        simulator.Place([new(Ball.White, x, y), .. Rack.Colours(), .. Pack]);
        simulator.Play(Strike.Create(aim, speed, 0, 0, elevation));
        Assert.True(simulator.EventCount < 20_000, $"{simulator.EventCount}");
    }

    [Fact]
    public void Random_strokes_into_a_pack_end_and_gain_no_energy()
    {
        var random = new Random(14);
        for (var i = 0; i < Thoroughness.Cases(1000); i++)
        {
            var white = new Vec2(1.9 + 1.6 * random.NextDouble(), 0.1 + (Width - 0.2) * random.NextDouble());
            List<PlacedBall> others = [.. Rack.Colours(), .. Pack];
            if (others.Any(b => b.Gap(white) < 0.01))
                continue;
            var simulator = new Simulator(Shape);
            simulator.Place([new(Ball.White, white), .. others]);
            var aim = (Middle - white).Direction.Degrees + 16 * random.NextDouble() - 8;
            var (energy, highest) = (double.PositiveInfinity, 40 * random.NextDouble());
            simulator.AfterEvent = time =>
            {
                Assert.True(simulator.Energy <= energy * (1 + 2e-6) + 1e-12, $"{i}: {energy} {simulator.Energy} at {time}");
                energy = simulator.Energy;
            };
            simulator.Play(Strike.Create(aim, 0.3 + 7 * random.NextDouble(), 0, 0.3 - 0.6 * random.NextDouble(), highest));
            Assert.True(simulator.EventCount < Simulator.MaxEvents / 4, $"{i}");
            for (var a = 0; a < simulator.Count; a++)
                for (var b = 0; b < a; b++)
                    if (simulator.IsOnTable(a) && simulator.IsOnTable(b))
                        Assert.True(simulator.At(a).DistanceTo(simulator.At(b)) > 2 * BallRadius - 1e-6, $"{i}: {a} {b}");
        }
    }

    [Fact]
    public void Energy_never_rises_and_nothing_stays_overlapped_in_a_pack()
    {
        for (var number = 0; number < HitCount; number++)
        {
            var (balls, velocity) = Hit(number);
            var simulator = new Simulator(Shape);
            simulator.Place([.. balls]);
            var energy = Rolling(velocity).Energy;
            simulator.AfterEvent = _ =>
            {
                Assert.True(simulator.Energy <= energy * (1 + 1e-9), $"{energy} {simulator.Energy}");
                energy = simulator.Energy;
            };
            simulator.Release([(0, Rolling(velocity))]);
            for (var i = 0; i < simulator.Count; i++)
                for (var k = 0; k < i; k++)
                    if (simulator.IsOnTable(i) && simulator.IsOnTable(k))
                        Assert.True(simulator.At(i).DistanceTo(simulator.At(k)) > 2 * BallRadius - 1e-5);
        }
    }
}
