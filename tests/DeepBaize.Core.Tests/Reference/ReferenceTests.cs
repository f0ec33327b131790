using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using DeepBaize.Core.Tests.Physics;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reference;

/// <summary>The kept results of the fine-step program are what it computes. In <c>./test long</c> only: it takes minutes.</summary>
[Trait("Speed", "Long")]
public class ReferenceTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    [Fact]
    public void Kept_rebounds_are_those_of_small_steps() =>
        ReferenceTable.WriteOrCompare("rebounds", "vk,vt,wx,wy,wz,steps,after vx,vy,wx,wy,wz", ReferenceTable.Compute(Rebounds(), one =>
            {
                var (before, steps) = one;
                var after = FineStep.Cushion(before, 1, 0, Conditions.Default, steps);
                double[] given = [before.Vx, before.Vy, before.Wx, before.Wy, before.Wz, steps];
                return [.. given, after.Vx, after.Vy, after.Wx, after.Wy, after.Wz];
            }));

    /// <summary>
    /// 300 balls with any spin, 300 that roll with any side, and one whose slip at the nose turns over as it nearly dies.
    /// </summary>
    private static IEnumerable<(BallMotion Before, int Steps)> Rebounds()
    {
        var random = new Random(2010);
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        for (var i = 0; i < 300; i++)
            yield return (new(Between(0.05, 3), Between(-4, 4), Between(-150, 150), Between(-150, 150), Between(-150, 150)), 100_000);
        for (var i = 0; i < 300; i++)
        {
            var (vk, vt) = (Between(0.05, 3), Between(-6, 6));
            yield return (new(vk, vt, -vt / BallRadius, vk / BallRadius, Between(-150, 150)), 100_000);
        }
        yield return (new(2.411764705882353, 0, -58.56712493105675, 82.55175623995589, -22.844810136490594), 1_000_000);
    }

    [Fact]
    public void Kept_packs_are_those_of_small_steps() =>
        ReferenceTable.WriteOrCompare(
            "packs",
            "hit,time,vx and vy of each red",
            ReferenceTable.Compute(Enumerable.Range(0, ClusterTests.HitCount), number =>
            {
                var (balls, velocity) = ClusterTests.Hit(number);
                var time = ClusterTests.TimeToCompare(balls, velocity);
                var bodies = FineStep.Bodies(balls);
                (bodies[0].Vx, bodies[0].Vy) = (velocity.X, velocity.Y);
                (bodies[0].Wx, bodies[0].Wy) = (-velocity.Y / BallRadius, velocity.X / BallRadius);
                new FineStep(Shape).Run(bodies, time);
                return [number, time, .. bodies.Skip(1).SelectMany(b => new[] { b.Vx, b.Vy })];
            })
        );

    [Fact]
    public void Kept_raised_strokes_are_those_of_small_steps() =>
        ReferenceTable.WriteOrCompare(
            "raised",
            KeptShot.Heading,
            ReferenceTable.Compute(Enumerable.Range(0, FlightTests.RaisedCount), seed =>
                FlightTests.Raised(seed) is var (layout, strike) ? KeptShot.RowOf(seed, layout, strike, Shape) : null
            )
        );

    [Fact]
    public void Kept_shots_are_those_of_small_steps() =>
        ReferenceTable.WriteOrCompare(
            "shots",
            KeptShot.Heading,
            ReferenceTable.Compute(Enumerable.Range(0, SimulatorPropertyTests.ScatteredCount), seed =>
                SimulatorPropertyTests.ShortAndWellConditioned(seed) is { } shot
                    ? KeptShot.RowOf(seed, shot.Layout, shot.Strike, Shape)
                    : null
            )
        );
}

/// <summary>Where the fine-step program leaves the balls of one shot.</summary>
/// <param name="Seed">Number of the shot in its series.</param>
/// <param name="Contacts">Number of contacts in it.</param>
internal sealed record KeptShot(int Seed, int Contacts, IReadOnlyList<KeptBall> Balls)
{
    public const string Heading = "seed,contacts,then of each ball: pocket (-1 none; -2 off the table),x,y";

    private const int NoPocket = -1,
        OffTable = -2;

    public static double[] RowOf(int seed, Layout layout, Strike strike, TableShape shape)
    {
        var program = new FineStep(shape);
        var bodies = program.Play(layout, strike);
        return [seed, program.Contacts, .. bodies.SelectMany(b => new[] { b.Off ? OffTable : (int?)b.Pocket ?? NoPocket, b.X, b.Y })];
    }

    public static IEnumerable<KeptShot> Of(string table) =>
        ReferenceTable.Rows(table).Select(row => new KeptShot((int)row[0], (int)row[1], [.. row.Skip(2).Chunk(3).Select(Ball)]));

    private static KeptBall Ball(double[] v) => new(v[0] >= 0 ? (Pocket)(int)v[0] : null, (int)v[0] == OffTable, new(v[1], v[2]));
}

/// <summary>Where the fine-step program leaves one ball.</summary>
internal sealed record KeptBall(Pocket? Pocket, bool IsOff, Vec2 At);
