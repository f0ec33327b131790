using DeepBaize.Core.Geometry;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Shared;

/// <summary>Random strokes as they are met in practice, and what is seen of them, for tests and benchmarks of what is learnt.</summary>
internal static class RandomStrokes
{
    /// <summary>A pot that is on, with the white some way off, at any height of the tip and a pace that gets there.</summary>
    public static (Layout Layout, Stroke Stroke, Pot Pot) Pot(Random random, TableShape shape)
    {
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        while (true)
        {
            Vec2 red = new(Between(0.3, 3.3), Between(0.15, 1.6));
            var white = red + Between(0.4, 1.6) * Angle.FromDegrees(Between(0, 360)).Unit;
            if (!shape.CanRest(red) || !shape.CanRest(white) || white.X is < 0.1 or > 3.47 || white.Y is < 0.1 or > 1.68)
                continue;
            var layout = Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), red)]);
            foreach (var pocket in Pockets.All)
            {
                var pot = new Pot(1, pocket);
                var cut = Cut.Of(layout, pot, shape);
                if (!cut.CanBeAimed || Math.Abs(cut.CutDegrees) is < 5 or > 50 || cut.PotDistance > 1.8)
                    continue;
                var stroke = new Stroke(0, 0, Between(-0.8, 0.8), Between(3.2, 5.5), 3);
                if (PotAim.Find(layout, cut, stroke, shape) is { } aim)
                    return (layout, stroke with { AimDegrees = aim }, pot);
            }
        }
    }

    /// <summary>The white alone, struck anywhere, so that it meets a cushion or two.</summary>
    public static (Layout Layout, Stroke Stroke) Bare(Random random, double softest = 2.5, double hardest = 5.5)
    {
        double Between(double low, double high) => low + (high - low) * random.NextDouble();
        var layout = Layout.OfRest([new(Ball.White, Between(0.2, 3.4), Between(0.2, 1.6))]);
        return (layout, new(Between(0, 360), Between(-0.5, 0.5), Between(-0.5, 0.5), Between(softest, hardest), 3));
    }

    /// <summary>What is seen of a stroke that is played with this error.</summary>
    public static ObservedStroke Seen(
        Layout layout,
        in Stroke stroke,
        in StrokeError error,
        TableShape shape,
        double doubt,
        Random random,
        Pot? pot = null
    )
    {
        var simulator = new Simulator(shape);
        error.Play(simulator, layout, stroke, null);
        var balls = new List<SeenBall>();
        for (var slot = 0; slot < layout.Balls.Count; slot++)
        {
            var (x, y) = Normal.Pair(random);
            var at = simulator.At(slot) + doubt * new Vec2(x, y);
            Vec2 within = new(Math.Clamp(at.X, 0, Dimensions.Length), Math.Clamp(at.Y, 0, Dimensions.Width));
            balls.Add(new(slot, within, simulator.PocketOf(slot), simulator.IsOff(slot)));
        }
        return new(layout, stroke, new(balls, doubt), pot);
    }
}
