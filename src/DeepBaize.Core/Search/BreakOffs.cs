using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Search;

/// <summary>
/// The break-off: thin off an end red, round the table off the side cushion and back to baulk. Nobody opens a frame with anything else
/// (common practice), so on the opening table it is all that is looked for, at its best: place in the D, thickness, side and pace. What the
/// pack does is never twice the same, so every candidate is judged by several strokes with errors.
/// </summary>
public sealed class BreakOffs(SearchContext context, SafetyStrokes strokes)
{
    // How far beside the end red's middle the white passes, ball widths; side with the way the white runs, tips; speed of the cue, m/s.
    private static readonly double[] Offsets = [0.86, 0.78, 0.68, 0.55],
        Sides = [0, 0.4, 0.8],
        Speeds = [2.2, 2.6, 3.0, 3.4];

    /// <summary>How far from the brown the white is placed, m.</summary>
    private static readonly double[] Places = [0.1, 0.16, 0.22];

    private const double Anywhere = 0.001;

    private const int Screened = 8,
        Kept = 4,
        SecondStrokes = 32,
        Refined = 2,
        RefineStrokes = 32;

    private static readonly ErrorStream Screening = ErrorStream.Named("break-off: sift"),
        Again = ErrorStream.Named("break-off: sift again"),
        Refining = ErrorStream.Named("break-off: refine");

    /// <summary>Whether a frame is to be opened: every ball where it is set up, the white in the D.</summary>
    public static bool IsOn(Situation from)
    {
        var layout = from.Layout;
        if (from.Frame.IsOver || layout.Balls.Count != Ball.Count || !InD(layout.White.At) || from.Frame.Exercise is not null)
            return false;
        var reds = Rack.Pack();
        return layout.Balls.Skip(1).All(b => b.Ball.IsRed ? reds.Any(r => Near(r.At, b.At)) : Near(Spot(b.Ball), b.At));
    }

    private static bool Near(Vec2 a, Vec2 b) => a.DistanceTo(b) < Anywhere;

    /// <summary>The situation with the white where the best break-off is played from, if it is in hand.</summary>
    public Situation Placed(Situation from)
    {
        if (!from.Frame.InHand)
            return from;
        // One side of the table is as good as the other: the one on which the white lies.
        var side = SideOf(from);
        List<Situation> places = [from, .. Places.Select(p => from.WithWhiteAt(new(BaulkLineX - 0.005, Width / 2 + side * p)))];
        var tried = context.InParallel(
            places.Count,
            (workspace, i) =>
                // A baulk colour may be in the way from one of them.
                Grid(places[i], [0.86, 0.76], [0], [2.3, 2.7])
                    .Select(s => Mean(workspace, places[i], s, Screening, 2 * Screened))
                    .DefaultIfEmpty(double.NegativeInfinity)
                    .Max()
        );
        return places[tried.IndexOf(tried.Max())];
    }

    /// <summary>The best break-offs from where the white lies, best first.</summary>
    /// <param name="first">Receives the best of those that have been screened, before the long work.</param>
    public List<TriedSafety> Find(Situation from, Action<List<TriedSafety>>? first = null)
    {
        var grid = Grid(from, Offsets, Sides, Speeds);
        var best = Best(from, grid, Screening, Screened).Take(Kept).ToList();
        first?.Invoke(best);
        var again = Best(from, best, Again, SecondStrokes);
        var refined = context.InParallel(Math.Min(Refined, again.Count), (workspace, i) => Refine(workspace, from, again[i]));
        return [.. Best(from, [.. refined, .. again.Skip(Refined)], Refining, RefineStrokes)];
    }

    /// <summary>−1 for the yellow's side, 1 for the green's.</summary>
    private static int SideOf(Situation from) => from.Layout.White.Y < Width / 2 ? -1 : 1;

    private List<TriedSafety> Grid(Situation from, double[] offsets, double[] sides, double[] speeds)
    {
        var side = SideOf(from);
        // Of the reds farthest up the table the outermost one.
        var reds = Enumerable.Range(1, from.Layout.Balls.Count - 1).Where(i => from.Layout.Balls[i].Ball.IsRed).ToList();
        var farthest = reds.Max(i => from.Layout.Balls[i].X);
        var end = reds.Where(i => from.Layout.Balls[i].X > farthest - BallRadius).MaxBy(i => side * from.Layout.Balls[i].Y);
        var workspace = new Workspace(context);
        var found = new List<TriedSafety>();
        foreach (var offset in offsets)
            foreach (var tips in sides)
                foreach (var speed in speeds)
                    // Round the table to the right, left-hand side runs on off the top cushion; and the other way about.
                    if (strokes.Aimed(from, end, side * offset, side * tips, Pace.OfCueSpeed(speed)) is { } stroke)
                        if (strokes.Try(workspace, from, end, side * offset, stroke) is { Played.Ruling.Points: 0 } tried)
                            found.Add(tried);
        return found;
    }

    private List<TriedSafety> Best(Situation from, IReadOnlyList<TriedSafety> candidates, ErrorStream stream, int played)
    {
        var values = context.InParallel(candidates.Count, (workspace, i) => Mean(workspace, from, candidates[i], stream, played));
        return [.. candidates.Zip(values).OrderByDescending(c => c.Second).Select(c => c.First)];
    }

    private TriedSafety Refine(Workspace workspace, Situation from, TriedSafety seed)
    {
        const double widths = 0.05;
        var beside = SafetyStrokes.DegreesFor(from, seed.Slot, widths);
        var best = Refinement.Better<Valued>(
            new(seed, Mean(workspace, from, seed, Refining, RefineStrokes)),
            [new(AimDegrees: beside), new(Speed: 0.1), new(Side: 0.3)],
            halvings: 1,
            (now, change) =>
            {
                var (tried, moved) = (now.Tried, now.Tried.Offset + widths * change.AimDegrees / beside);
                if (change.Of(tried.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is not { } stroke)
                    return null;
                return strokes.Try(workspace, from, tried.Slot, moved, stroke) is { } next
                    ? new(next, Mean(workspace, from, next, Refining, RefineStrokes))
                    : null;
            },
            (a, b) => a.Value > b.Value,
            from.Layout.Mirror
        );
        return best.Tried;
    }

    private sealed record Valued(TriedSafety Tried, double Value);

    private double Mean(Workspace workspace, Situation from, TriedSafety tried, ErrorStream stream, int played) =>
        strokes.MeanOf(workspace, from, tried.Stroke, null, stream, context.Bounded(played, 4));
}
