using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Search;

/// <summary>A safety that was played without error.</summary>
/// <param name="Slot">Of the ball that is struck.</param>
/// <param name="Offset">How far beside its middle the white passes, in ball widths; + to the left.</param>
/// <param name="Value">To the player, in the measure of the answer.</param>
public sealed record TriedSafety(int Slot, double Offset, Stroke Stroke, PlayedStroke Played, Outlook Leave, double Value, Route Route);

/// <summary>
/// Generates strokes to play safe with: every ball on, at fullnesses either side × heights, sides and paces. See docs/safety.md.
/// </summary>
public sealed class SafetyStrokes(SearchContext context)
{
    private const int MostBalls = 7;

    /// <summary>Where the white's centre passes, in ball widths beside the object ball's.</summary>
    private static readonly double[] Offsets = [-0.96, -0.88, -0.75, -0.55, -0.3, 0, 0.3, 0.55, 0.75, 0.88, 0.96];

    private static readonly (double Height, double Side)[] Columns = [(0, 0), (-0.9, 0), (0.9, 0), (0, 0.9), (0, -0.9)];

    // Of the cue, m/s, and how many times as fast each speed that is tried is as the one before.
    private const double SoftestSpeed = 0.47,
        HardestSpeed = 3.75,
        SpeedRatio = 1.23;

    /// <summary>Softest pace that is tried.</summary>
    public static double Softest { get; } = Pace.OfCueSpeed(SoftestSpeed);

    /// <summary>Hardest pace that is tried.</summary>
    public static double Hardest { get; } = Pace.OfCueSpeed(HardestSpeed);

    /// <summary>Every ball on that can be struck straight, with each fullness.</summary>
    public IEnumerable<(int Slot, double Offset)> Ways(Situation from) => Targets(from).SelectMany(slot => Offsets.Select(o => (slot, o)));

    /// <summary>The best by a quick look, in one thread; null if there is none. For long exchanges that are played out.</summary>
    public (Stroke Stroke, Reach Reach)? Shallow(Workspace workspace, Situation from) =>
        BestOf(workspace, from) is { } best ? (best.Stroke, Reach.Of(from.Layout, best.Stroke, context.Player)) : null;

    /// <summary>Returns the safety that is worth most by a quick look, played without error; null if there is none.</summary>
    public TriedSafety? BestOf(Workspace workspace, Situation from)
    {
        TriedSafety? best = null;
        foreach (var slot in Targets(from).Take(2))
            for (var i = 0; i < Offsets.Length; i += 2)
                foreach (var tried in Play(workspace, from, slot, Offsets[i], coarse: true))
                    if (best is null || tried.Value > best.Value)
                        best = tried;
        return best;
    }

    /// <summary>The balls on that can be struck straight, the nearest first.</summary>
    private static IEnumerable<int> Targets(Situation from)
    {
        var (layout, white) = (from.Layout, from.Layout.White);
        return from.OnSlots()
            .Where(slot => Offsets.Any(o => IsOpen(from, slot, o)))
            .OrderBy(s => (layout.Balls[s].At - white.At).SquaredLength)
            .Take(MostBalls);
    }

    private static bool IsOpen(Situation from, int slot, double offset)
    {
        var layout = from.Layout;
        if (from.IsTouching(layout.Balls[slot]))
            return true;
        var way = new Segment(layout.White.At, Ghost(from, slot, offset));
        for (var i = 1; i < layout.Balls.Count; i++)
            if (i != slot && !layout.Balls[i].IsClearOf(way))
                return false;
        return true;
    }

    /// <summary>Where the white's centre is when it meets the ball so far beside its middle.</summary>
    private static Vec2 Ghost(Situation from, int slot, double offset)
    {
        var along = Angle.FromDegrees(AimAt(from, slot, offset)).Unit;
        var back = 2 * BallRadius * Math.Sqrt(1 - offset * offset);
        return from.Layout.Balls[slot].At - back * along + 2 * BallRadius * offset * along.Left;
    }

    /// <summary>
    /// The direction in which the white's centre passes so many ball widths to the left of the ball's middle, degrees; from a ball that it
    /// touches, turned round.
    /// </summary>
    private static double AimAt(Situation from, int slot, double offset)
    {
        var layout = from.Layout;
        var towards = layout.Balls[slot].At - layout.White.At;
        var distance = Math.Max(2 * BallRadius, towards.Length);
        return (
                towards.Direction.Radians
                + (from.IsTouching(layout.Balls[slot]) ? Math.PI : 0)
                + Math.Asin(Math.Clamp(offset * 2 * BallRadius / distance, -1, 1))
            )
            * 180
            / Math.PI;
    }

    /// <summary>All strokes at one fullness, played; those that are no foul.</summary>
    public List<TriedSafety> Play(Workspace workspace, Situation from, int slot, double offset, bool coarse = false)
    {
        var tried = new List<TriedSafety>();
        foreach (var stroke in Strokes(from, slot, offset, coarse))
            if (Try(workspace, from, slot, offset, stroke) is { } one)
                tried.Add(one);
        return tried;
    }

    /// <summary>Mean value of a stroke over the first errors of a stream, in the measure of the answer.</summary>
    /// <param name="nominated">The ball that the player names; null if none has to be.</param>
    public double MeanOf(Workspace workspace, Situation from, Stroke stroke, Ball? nominated, ErrorStream stream, int count)
    {
        var scatter = workspace.ScatterOf(from.Layout, stroke);
        return stream.Set(count).Average(draws => ValueOf(workspace, from, stroke, nominated, scatter.Error(draws)));
    }

    /// <summary>Value of a stroke with an error, in the measure of the answer.</summary>
    public double ValueOf(Workspace workspace, Situation from, in Stroke stroke, Ball? nominated, in StrokeError error)
    {
        var played = workspace.Play(from, stroke, error, nominated);
        return workspace.ValueOf(played.Leaves);
    }

    /// <summary>A stroke, played; null if it is a foul.</summary>
    public TriedSafety? Try(Workspace workspace, Situation from, int slot, double offset, in Stroke stroke)
    {
        var played = workspace.Play(from, stroke, default, from.Layout.Balls[slot].Ball);
        if (played.Ruling.IsFoul)
            return null;
        var value = workspace.ValueOf(played.Leaves, out var leave);
        return new(slot, offset, stroke, played, leave, value, Route.Of(workspace.Record));
    }

    /// <summary>Returns the turn of the aim, degrees, that moves the white a number of ball widths farther to the left of a ball.</summary>
    public static double DegreesFor(Situation from, int slot, double widths) =>
        Math.Asin(
            Math.Min(1, widths * 2 * BallRadius / Math.Max(2 * BallRadius, from.Layout.Balls[slot].At.DistanceTo(from.Layout.White.At)))
        )
        * 180
        / Math.PI;

    /// <summary>All strokes that are tried at a ball, with how far beside its middle the white passes.</summary>
    public IEnumerable<(double Offset, Stroke Stroke)> Of(Situation from, int slot) =>
        Offsets.SelectMany(o => Strokes(from, slot, o, coarse: false).Select(s => (o, s)));

    /// <summary>A plain stroke, or one with side, that passes a ball so far beside its middle; null if something is in the way.</summary>
    public Stroke? Aimed(Situation from, int slot, double offset, double sideTips, double pace) =>
        IsOpen(from, slot, offset) ? Towards(from, slot, offset, 0, sideTips) with { Pace = pace } : null;

    private Stroke Towards(Situation from, int slot, double offset, double height, double side)
    {
        // The cue points beside the way that is meant, for squirt.
        var stroke = new Stroke(
            AimAt(from, slot, offset) - Strike.Squirt(Tip.Fraction(side), context.Shape.Conditions).Degrees,
            side,
            height,
            Softest,
            0
        );
        if (height == 0)
            stroke = stroke with { HeightTips = Reach.PlainHeightFor(from.Layout, stroke) };
        return stroke with { ElevationDegrees = Reach.ButtFor(from.Layout, stroke, context.Player) };
    }

    private IEnumerable<Stroke> Strokes(Situation from, int slot, double offset, bool coarse)
    {
        if (!IsOpen(from, slot, offset))
            yield break;
        foreach (var (height, side) in Columns)
        {
            if (coarse && side != 0)
                continue;
            var stroke = Towards(from, slot, offset, height, side);
            foreach (var pace in Pace.Ladder(SoftestSpeed, HardestSpeed, coarse ? SpeedRatio * SpeedRatio : SpeedRatio))
                yield return stroke with
                {
                    Pace = pace,
                };
        }
    }
}
