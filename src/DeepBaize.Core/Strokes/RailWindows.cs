using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// What goes into a corner pocket along a cushion, where the near jaw closes the straight way and lets the ball in all the same. Such a
/// ball goes in if its line would cross the end of the table within a window beside the line of balls tight on the cushion; how wide that
/// is depends on the jaws, so it is played out once for each table. docs/model.md, "Along a cushion".
/// </summary>
public sealed class RailWindows
{
    /// <summary>Ways at less than this angle to the cushion are judged so, degrees.</summary>
    public const double Shallow = 13;

    /// <summary>Nearer to the corner than this a ball is among the jaws, m: there they are looked at themselves.</summary>
    public const double Nearest = 0.16;

    // From so far away, at a medium speed: the windows hardly depend on either.
    private const double From = 0.9,
        Speed = 1.6,
        StepDegrees = 1;

    private const int MostKept = 32;
    private static readonly ConcurrentDictionary<Conditions, RailWindows> Known = new();

    /// <summary>
    /// Beyond the line of balls tight on the cushion, towards the cushion (negative) and off it, m; a row for each step of angle.
    /// </summary>
    private readonly (double Low, double High)[] _edges;

    /// <summary>Returns the windows of a table; they are kept by its conditions.</summary>
    public static RailWindows Of(TableShape shape)
    {
        if (Known.TryGetValue(shape.Conditions, out var windows))
            return windows;
        // Whoever tries one table after the other must not fill the memory.
        if (Known.Count >= MostKept)
            Known.Clear();
        return Known.GetOrAdd(shape.Conditions, _ => new(shape));
    }

    private RailWindows(TableShape shape)
    {
        var simulator = new Simulator(shape, Simulator.Coarse);
        _edges = [.. Enumerable.Range(0, (int)(Shallow / StepDegrees) + 1).Select(i => EdgesAt(simulator, Math.Max(0.1, i * StepDegrees)))];
    }

    /// <summary>Returns where the lines of balls that go in cross the end of the table, m; an empty window has equal edges.</summary>
    /// <param name="degrees">Angle of the way to the cushion, 0 to <see cref="Shallow"/>.</param>
    public (double Low, double High) At(double degrees)
    {
        var x = Math.Clamp(degrees / StepDegrees, 0, _edges.Length - 1);
        var i = Math.Min((int)x, _edges.Length - 2);
        var (a, b, share) = (_edges[i], _edges[i + 1], x - i);
        return (a.Low + share * (b.Low - a.Low), a.High + share * (b.High - a.High));
    }

    private static (double Low, double High) EdgesAt(Simulator simulator, double degrees)
    {
        const double step = 0.001,
            farthest = 0.04;
        var at = new Vec2(From, BallRadius + From * Math.Tan(degrees * Math.PI / 180));
        bool Pots(double across)
        {
            var v = Speed * (new Vec2(0, BallRadius + across) - at).Unit;
            simulator.Place([new PlacedBall(Ball.Red(1), at)]);
            simulator.Release([(0, new(v.X, v.Y, -v.Y / BallRadius, v.X / BallRadius, 0))]);
            return simulator.PocketOf(0) == Pocket.Yellow;
        }
        // Nearest to a ball that comes along the cushion itself.
        var inside = Enumerable
            .Range(0, 20)
            .SelectMany(i => (double[])[-i * step, i * step])
            .Cast<double?>()
            .FirstOrDefault(y => Pots(y!.Value));
        if (inside is not { } first)
            return default;
        double Edge(int side)
        {
            var reach = first;
            while (Math.Abs(reach) < farthest && Pots(reach + side * step))
                reach += side * step;
            var (good, bad) = (reach, reach + side * step);
            for (var i = 0; i < 6; i++)
                (good, bad) = Pots((good + bad) / 2) ? ((good + bad) / 2, bad) : (good, (good + bad) / 2);
            return good;
        }
        return (Edge(-1), Edge(1));
    }
}
