using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Benchmarks;

/// <summary>
/// The seeded positions from which breaks are played: kinds that players practise, each several times with the balls laid otherwise.
/// </summary>
public static class BreakPositions
{
    public static IReadOnlyList<(string Kind, Situation Situation)> All(TableShape shape)
    {
        var random = new Random(20261124);
        var all = new List<(string, Situation)>();
        for (var i = 0; i < 8; i++)
            all.Add(("open table", Scattered(random, shape, reds: 10, tied: 0)));
        for (var i = 0; i < 8; i++)
            all.Add(("half-open", Scattered(random, shape, reds: 6, tied: 6)));
        for (var i = 0; i < 6; i++)
            all.Add(("line-up", LineUp(random, shape)));
        for (var i = 0; i < 6; i++)
            all.Add(("colours", Colours(random, shape)));
        for (var i = 0; i < 4; i++)
            all.Add(("full pack, high on the black", FullPack(random, shape)));
        return all;
    }

    /// <summary>Open tables as docs/model.md's bands of breaks mean them: eight to fifteen reds, spread out.</summary>
    public static IReadOnlyList<Situation> OpenTables(TableShape shape)
    {
        var random = new Random(20261126);
        return [.. Enumerable.Range(0, 16).Select(i => Scattered(random, shape, reds: 8 + i % 8, tied: 0))];
    }

    /// <summary>The colours on their spots, the white in a good place for the yellow: on its baulk side, at an angle.</summary>
    public static Situation Colours(Random random, TableShape shape)
    {
        var yellow = Spot(Ball.Yellow);
        while (true)
        {
            // Off the yellow towards the middle of the table, at 20° to 40° to its way into the corner, 0.3 to 0.6 m off.
            var (direction, _) = Cut.Opening(yellow, shape.PocketShapes[(int)Pocket.Yellow]);
            var way = direction + Angle.FromDegrees(180 + (random.NextDouble() < 0.5 ? -1 : 1) * (20 + 20 * random.NextDouble()));
            var distance = 0.3 + 0.3 * random.NextDouble();
            if (Lay(yellow + distance * way.Unit, [.. Rack.Colours()], shape) is { } layout)
                return Situation.Create(layout);
        }
    }

    private static Situation Scattered(Random random, TableShape shape, int reds, int tied)
    {
        while (true)
        {
            List<PlacedBall> balls = [.. Rack.Colours(), .. Rack.Pack().Take(tied)];
            while (balls.Count < 6 + tied + reds)
            {
                var (x, y) = (1.9 + 1.5 * random.NextDouble(), 0.15 + (Width - 0.3) * random.NextDouble());
                if (balls.All(b => b.Gap(new Vec2(x, y)) > 0.02))
                    balls.Add(new(Ball.Red(balls.Count - 5), x, y));
            }
            if (
                Lay(new(1.6 + 1.6 * random.NextDouble(), 0.3 + (Width - 0.6) * random.NextDouble()), balls, shape) is { } layout
                && HasPot(layout, shape)
            )
                return Situation.Create(layout);
        }
    }

    private static Situation LineUp(Random random, TableShape shape)
    {
        while (true)
        {
            List<PlacedBall> balls = [.. Rack.Colours()];
            // Reds along the middle line: between blue and pink, pink and black, and above the black.
            double[] places = [1.95, 2.12, 2.29, 2.46, 2.60, 2.80, 2.92, 3.04, 3.16, 3.36];
            foreach (var x in places)
                balls.Add(new(Ball.Red(balls.Count - 5), x, Width / 2));
            if (
                Lay(
                    new(
                        2.2 + 0.9 * random.NextDouble(),
                        random.NextDouble() < 0.5 ? 0.4 + 0.3 * random.NextDouble() : 1.1 + 0.3 * random.NextDouble()
                    ),
                    balls,
                    shape
                )
                    is { } layout
                && HasPot(layout, shape)
            )
                return Situation.Create(layout);
        }
    }

    /// <summary>A red has just been potted; the white is high on the black, at an angle.</summary>
    private static Situation FullPack(Random random, TableShape shape)
    {
        while (true)
        {
            List<PlacedBall> balls = [.. Rack.Colours(), .. Rack.Pack().Take(14)];
            if (
                Lay(
                    new(
                        2.95 + 0.15 * random.NextDouble(),
                        random.NextDouble() < 0.5 ? 0.5 + 0.2 * random.NextDouble() : 1.08 + 0.2 * random.NextDouble()
                    ),
                    balls,
                    shape
                ) is
                { } layout
            )
                return Situation.Create(layout, new() { On = BallOn.Colour });
        }
    }

    private static Layout? Lay(Vec2 white, IReadOnlyList<PlacedBall> balls, TableShape shape) =>
        shape.CanRest(white) && balls.All(b => b.Gap(white) > 0.01) ? Layout.OfRest([new(Ball.White, white), .. balls]) : null;

    /// <summary>Whether a red is on that a fair player would go for.</summary>
    private static bool HasPot(Layout layout, TableShape shape)
    {
        var lines = new PotLines(layout, shape);
        foreach (var line in lines.Lines)
            if (lines.BallIn(line.Slot).IsRed && lines.From(line, layout.White.At, Skill.Named("county")) is { Chance: > 0.6 })
                return true;
        return false;
    }
}
