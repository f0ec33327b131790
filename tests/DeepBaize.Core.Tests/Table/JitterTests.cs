using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

/// <summary>No pack is laid twice alike. docs/model.md, "Contacts that are not alone".</summary>
public class JitterTests
{
    private static readonly PlacedBall[] Full = [new(Ball.White, 1, 0.9), .. Rack.Colours(), .. Rack.Pack()];

    private static PlacedBall[] Laid(int seed)
    {
        PlacedBall[] balls = [.. Full];
        Jitter.Apply(balls, Jitter.Touching(balls), seed);
        return balls;
    }

    [Fact]
    public void Only_balls_that_touch_are_laid_anew_and_none_overlaps()
    {
        for (var seed = 1; seed <= 200; seed++)
        {
            var balls = Laid(seed);
            for (var i = 0; i < 7; i++)
                Assert.Equal(Full[i], balls[i]);
            for (var i = 7; i < balls.Length; i++)
            {
                Assert.NotEqual(Full[i].At, balls[i].At);
                Assert.True(Full[i].At.DistanceTo(balls[i].At) < 1e-3);
                for (var k = 0; k < i; k++)
                    Assert.True(balls[i].Gap(balls[k].At) > -1e-8, $"{balls[i].Gap(balls[k].At)}");
            }
        }
    }

    [Fact]
    public void The_same_seed_lays_them_the_same_and_another_elsewhere_by_about_a_twentieth_of_a_millimetre()
    {
        Assert.Equal(Laid(5), Laid(5));
        Assert.NotEqual(Laid(5), Laid(6));
        // Each is shifted by 0.04 mm each way, and then they are moved apart: the one in the middle is held by its neighbours.
        var shifts = Enumerable.Range(1, 400).Select(seed => Laid(seed)[12].X - Full[12].X).ToList();
        Assert.InRange(Math.Sqrt(shifts.Average(s => s * s)), 0.01e-3, 0.06e-3);
        Assert.InRange(Math.Abs(shifts.Average()), 0, 0.02e-3);
    }

    [Fact]
    public void A_ball_on_a_cushion_stays_on_the_table()
    {
        PlacedBall[] tight = [new(Ball.Red(1), 1, BallRadius), new(Ball.Red(2), 1 + 2 * BallRadius, BallRadius)];
        for (var seed = 1; seed < 100; seed++)
        {
            PlacedBall[] balls = [.. tight];
            Jitter.Apply(balls, Jitter.Touching(balls), seed);
            Assert.All(balls, b => Assert.True(b.Y >= BallRadius));
        }
    }

    [Fact]
    public void A_pack_hit_the_same_way_twice_opens_otherwise_and_open_balls_do_not()
    {
        var shape = new TableShape(Conditions.Default);
        Vec2Rest[] Rests(PlacedBall[] balls, int jitterSeed)
        {
            var simulator = new Simulator(shape);
            var layout = Layout.OfRest(balls);
            new StrokeError(0, 0, 0, 0, jitterSeed).Play(simulator, layout, new Stroke(0, 0, 0, 6, 3), null);
            return [.. Enumerable.Range(0, simulator.Count).Select(i => new Vec2Rest(simulator.X(i), simulator.Y(i)))];
        }
        PlacedBall[] pack = [new(Ball.White, 2.2, Width / 2 + 0.01), .. Rack.Pack()];
        Assert.NotEqual(Rests(pack, 1), Rests(pack, 2));
        Assert.Equal(Rests(pack, 3), Rests(pack, 3));
        PlacedBall[] open = [new(Ball.White, 2.2, Width / 2 + 0.01), new(Ball.Red(1), 2.8, Width / 2), new(Ball.Red(2), 3.1, 0.6)];
        Assert.Equal(Rests(open, 1), Rests(open, 2));
        // Every stroke of a stream has its own.
        var lays = Enumerable.Range(0, 64).Select(i => ErrorStream.Named("test").At(i).Seed).ToList();
        Assert.Equal(64, lays.Where(l => l > 0).Distinct().Count());
    }

    private readonly record struct Vec2Rest(double X, double Y);
}
