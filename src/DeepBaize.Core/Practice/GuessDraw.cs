using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>Draws a pot with a stroke, for guessing where the white goes: equal seeds give equal layouts.</summary>
public static class GuessDraw
{
    private const int Tries = 400;

    /// <summary>Cuts between these leave the white a way worth guessing, degrees.</summary>
    private const double FlattestCut = 8,
        SteepestCut = 52;

    /// <summary>The white goes so far at least after the contact, m.</summary>
    private const double ShortestWay = 0.25;

    /// <summary>Returns balls and a stroke that pots, the white on the table.</summary>
    /// <exception cref="InputException">No layout was found with this seed.</exception>
    public static Step Of(int seed, TableShape shape, CancellationToken cancel = default)
    {
        var random = new Random(seed);
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        for (var i = 0; i < Tries; i++)
        {
            cancel.ThrowIfCancellationRequested();
            if (Lay(random) is { } step && IsWorthIt(step, shape, simulator, record))
                return step;
        }
        throw new InputException("seed", "No layout was found with this seed.", "another seed");
    }

    /// <summary>A red, the white behind it at an angle, and three colours that the white may run into.</summary>
    private static Step? Lay(Random random)
    {
        const double edge = 0.12;
        double Between(double from, double to) => from + random.NextDouble() * (to - from);
        Vec2 Place(double fromX, double toX) => new(Between(fromX, toX), Between(edge, Dimensions.Width - edge));
        var red = Place(1.6, Dimensions.Length - 0.25);
        var pocket = Pockets.All[random.Next(Pockets.All.Count)];
        var drop = new TableShape(Conditions.Default).PocketShapes.First(p => p.Pocket == pocket).Drop.Centre;
        var back = (red - drop).Unit;
        var turn = Between(FlattestCut, SteepestCut) * (random.Next(2) == 0 ? 1 : -1) * Math.PI / 180;
        var from = new Vec2(back.X * Math.Cos(turn) - back.Y * Math.Sin(turn), back.X * Math.Sin(turn) + back.Y * Math.Cos(turn));
        var white = red + Between(0.35, 1.1) * from;
        List<(string Id, Vec2 At)> balls = [("white", white), ("red-1", red)];
        foreach (var colour in new[] { Ball.Blue, Ball.Pink, Ball.Black })
            balls.Add((colour.Id, Dimensions.Spot(colour)));
        var isApart = balls.SelectMany((a, i) => balls.Skip(i + 1).Select(b => a.At.DistanceTo(b.At))).All(d => d > 0.08);
        if (!isApart || Cushions.Clearance(white) < 0.06)
            return null;
        return new()
        {
            Label = "",
            Balls = [.. balls.Select(b => new LaidBall(b.Id, Math.Round(b.At.X, 3), Math.Round(b.At.Y, 3)))],
            Stroke = new(
                Height: Math.Round(Between(-4, 4)) / 4,
                Pace: Math.Round(Between(2.4, 5.2) * 2) / 2,
                Pot: new("red-1", pocket.Name())
            ),
            Demands = [],
        };
    }

    private static bool IsWorthIt(Step step, TableShape shape, Simulator simulator, ShotRecord record)
    {
        var layout = step.LayoutOn(shape);
        if (step.PotIn(layout) is not { } pot || !Cut.Of(layout, pot, shape).CanBeAimed)
            return false;
        step.StrokeOn(layout, shape, Player.Default).Play(simulator, layout, record);
        var met = record.Events.Find(e => e.IsOfWhiteWithBall);
        return simulator.IsOnTable(0)
            && simulator.PocketOf(pot.Slot) is not null
            && met.Kind == ShotEventKind.Ball
            && simulator.At(0).DistanceTo(met.At) > ShortestWay;
    }
}
