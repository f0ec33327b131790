using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>
/// No pack is laid twice alike: balls that touch are laid anew, each a little elsewhere, and then moved apart to where they do not overlap.
/// docs/model.md, "Several at once".
/// </summary>
public static class Jitter
{
    /// <summary>Balls nearer than this count as touching, m.</summary>
    public const double Near = 0.2e-3;

    /// <summary>Standard deviation of the shift along and across the table, m. Common practice, no source.</summary>
    private const double Shift = 0.04e-3;

    private const double Settled = 1e-9,
        Loose = 1e-3;

    private const int MostPasses = 200;

    /// <summary>Which balls touch another, a bit each.</summary>
    public static uint Touching(ReadOnlySpan<PlacedBall> balls)
    {
        var touching = 0u;
        for (var i = 0; i < balls.Length; i++)
            for (var k = 0; k < i; k++)
                if (Math.Abs(balls[i].X - balls[k].X) < 2 * BallRadius + Near && balls[i].Gap(balls[k].At) < Near)
                    touching |= 1u << i | 1u << k;
        return touching;
    }

    /// <summary>Lays the balls that touch anew.</summary>
    /// <param name="touching">Which they are, a bit each.</param>
    /// <param name="seed">Seed of the jitter; equal seeds give equal places, and the negative of a seed their mirror images.</param>
    public static void Apply(Span<PlacedBall> balls, uint touching, int seed)
    {
        var random = new SplitMix64((uint)Math.Abs(seed));
        var mirror = seed < 0 ? -1 : 1;
        for (var i = 0; i < balls.Length; i++)
            if ((touching >> i & 1) != 0)
            {
                var (along, across) = random.NormalPair();
                balls[i] = Moved(balls[i], Shift * new Vec2(along, mirror * across));
            }
        Part(balls, touching);
    }

    /// <summary>Moves balls that overlap apart, each of two by half.</summary>
    /// <param name="which">Those that may have to be moved, a bit each.</param>
    public static void Part(Span<PlacedBall> balls, uint which)
    {
        // Whoever is pushed may push the next: until nothing overlaps.
        var overlap = true;
        for (var pass = 0; pass < MostPasses && overlap; pass++)
        {
            overlap = false;
            for (var i = 1; i < balls.Length; i++)
                for (var k = 0; k < i; k++)
                {
                    if (((which >> i | which >> k) & 1) == 0 || Math.Abs(balls[i].X - balls[k].X) > 2 * BallRadius + Loose)
                        continue;
                    var way = balls[i].At - balls[k].At;
                    var square = way.SquaredLength;
                    const double least = 2 * BallRadius - Settled;
                    if (square >= least * least)
                        continue;
                    overlap = true;
                    var push = (2 * BallRadius - Math.Sqrt(square)) / 2 * way.Unit;
                    (balls[i], balls[k]) = (Moved(balls[i], push), Moved(balls[k], -push));
                }
        }
    }

    /// <summary>One that lies between the noses stays there.</summary>
    private static PlacedBall Moved(in PlacedBall ball, Vec2 by)
    {
        static double Within(double from, double to, double far) =>
            from < BallRadius || from > far - BallRadius ? to : Math.Clamp(to, BallRadius, far - BallRadius);
        return new(ball.Ball, Within(ball.X, ball.X + by.X, Length), Within(ball.Y, ball.Y + by.Y, Width));
    }
}
