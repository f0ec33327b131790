using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

/// <summary>
/// The mirror's aim against the simulation of a table that is a mirror: no friction anywhere, cushions that give all back at the height of
/// the centre.
/// </summary>
public class MirrorAimTests
{
    /// <summary>As good as no friction; with none at all the ball would never stop.</summary>
    private const double None = 1e-9;

    private static readonly TableShape Perfect = new(
        Conditions.Default with
        {
            SlidingFriction = None,
            RollingFriction = None,
            SpinDeceleration = 0,
            CushionFriction = 0,
            CushionRestitution = 1,
            NoseSine = 0,
        }
    );

    private static readonly TableShape Shape = new(Conditions.Default);

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void On_a_perfect_table_the_mirrors_way_is_the_balls_way(int cushions)
    {
        var random = new Random(cushions);
        var tried = 0;
        while (tried < 25)
        {
            var (white, target) = (Place(random), Place(random));
            if (new PlacedBall(Ball.Red(1), target).Gap(white) < 0.1)
                continue;
            foreach (var order in MirrorAim.Orders(4).Where(o => o.Count == cushions))
            {
                if (MirrorAim.Of(white, target, order, Perfect) is not { } aim)
                    continue;
                var (simulator, record) = (new Simulator(Perfect), new ShotRecord());
                simulator.Place([new(Ball.White, white.X, white.Y), new(Ball.Red(1), target.X, target.Y)]);
                simulator.Release([(0, Strike.Create(aim.AimDegrees, 3, 0, 0, 0).Launch(Perfect.Conditions))], record, () =>
                    record.Events is [.., { Kind: ShotEventKind.Ball }]
                );
                var met = record.Events.Where(e => e.Kind == ShotEventKind.Cushion).Select(e => Cushions.Nearest(e.At)).ToList();
                // A ball that lies on the way before the last cushion is met there; else all cushions come first, and the ball is met full.
                if (
                    met.Count < cushions
                    && Enumerable
                        .Range(0, cushions)
                        .Any(i => new Segment(aim.Points[i], aim.Points[i + 1]).DistanceTo(target) < 2 * BallRadius)
                )
                    continue;
                Assert.Equal(order, met);
                var hit = record.Events[^1];
                Assert.Equal(ShotEventKind.Ball, hit.Kind);
                var (last, before) = (aim.Points[^1], aim.Points[^2]);
                Assert.InRange(new Segment(before, last).DistanceTo(hit.At), 0, 1e-5);
                tried++;
            }
        }
    }

    [Fact]
    public void Off_two_cushions_at_a_corner_the_way_is_parallel_to_the_line_from_half_way_to_the_corner()
    {
        var aim = MirrorAim.Of(new(0.55, 0.889), new(2.95, 0.93), [Cushion.GreenSide, Cushion.Top], Shape)!;
        var (from, to) = aim.Known!.Value;
        Assert.Equal(new Vec2((0.55 + 2.95) / 2, (0.889 + 0.93) / 2), from);
        Assert.Equal(aim.AimDegrees, Math.Atan2(to.Y - from.Y, to.X - from.X) * 180 / Math.PI, 1e-9);
        Assert.Null(MirrorAim.Of(new(0.8, 0.4), new(2.6, 0.5), [Cushion.YellowSide], Shape)?.Known);
    }

    [Fact]
    public void A_way_that_would_end_in_a_pocket_is_none() =>
        // Half-way up the table off the side cushion lies the middle pocket.
        Assert.Null(MirrorAim.Of(new(Length / 2 - 1, 0.5), new(Length / 2 + 1, 0.5), [Cushion.YellowSide], Shape));

    [Fact]
    public void There_are_4_12_36_and_108_orders_of_cushions() =>
        Assert.Equal([4, 12, 36, 108], MirrorAim.Orders(4).GroupBy(o => o.Count).Select(g => g.Count()));

    private static Vec2 Place(Random random) => new(0.2 + (Length - 0.4) * random.NextDouble(), 0.2 + (Width - 0.4) * random.NextDouble());
}
