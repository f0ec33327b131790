using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Search;

/// <summary>A small change of a stroke.</summary>
/// <param name="Height">Tips.</param>
/// <param name="Side">Tips.</param>
/// <param name="Speed">Of the cue: the logarithm of what it is multiplied by.</param>
/// <param name="Part">Of the pocket.</param>
/// <param name="AimDegrees">Where the stroke is not aimed at a pocket.</param>
public readonly record struct StrokeChange(double Height = 0, double Side = 0, double Speed = 0, double Part = 0, double AimDegrees = 0)
{
    /// <summary>Returns a multiple of a change.</summary>
    public static StrokeChange operator *(double scale, in StrokeChange t) =>
        new(scale * t.Height, scale * t.Side, scale * t.Speed, scale * t.Part, scale * t.AimDegrees);

    /// <summary>Returns this change with side and aim turned the other way if <paramref name="mirror"/> is −1.</summary>
    public StrokeChange Mirrored(int mirror) => this with { Side = mirror * Side, AimDegrees = mirror * AimDegrees };

    /// <summary>The stroke so changed; null if the tip slips off, or the pace is out of range.</summary>
    public Stroke? Of(in Stroke stroke, double softest, double hardest)
    {
        const double leastMargin = 0.1;
        var changed = stroke with
        {
            HeightTips = stroke.HeightTips + Height,
            SideTips = stroke.SideTips + Side,
            Pace = Speed == 0 ? stroke.Pace : Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * Math.Exp(Speed)),
            AimDegrees = stroke.AimDegrees + AimDegrees,
        };
        return Tip.Margin(changed.SideTips, changed.HeightTips) < leastMargin || changed.Pace < softest || changed.Pace > hardest
            ? null
            : changed;
    }
}

/// <summary>Betters what a search has found by small changes of whatever can be changed continuously.</summary>
public static class Refinement
{
    /// <summary>
    /// Pattern search: each change is tried both ways; what helps is kept and gone on from, and where nothing helps the steps are halved.
    /// </summary>
    /// <param name="changes">The changes, at full size.</param>
    /// <param name="halvings">So often the steps are halved before it ends.</param>
    /// <param name="changed">The changed one, judged; null if it cannot be.</param>
    /// <param name="isBetter">Whether the first betters the second.</param>
    /// <param name="mirror">As <see cref="Table.Layout.Mirror"/>: of side and aim the same way is tried first on mirrored tables.</param>
    /// <param name="isSpent">Asked before each round whether the work is used up.</param>
    /// <remarks>Hooke &amp; Jeeves, <i>J. ACM</i> 8 (1961) 212.</remarks>
    public static T Better<T>(
        T seed,
        IReadOnlyList<StrokeChange> changes,
        int halvings,
        Func<T, StrokeChange, T?> changed,
        Func<T, T, bool> isBetter,
        int mirror,
        Func<bool>? isSpent = null
    )
        where T : class
    {
        var best = seed;
        for (var (halved, scale) = (0, 1.0); halved <= halvings && !(isSpent?.Invoke() ?? false);)
        {
            var before = best;
            foreach (var change in changes)
                foreach (var way in (ReadOnlySpan<double>)[scale, -scale])
                    if (changed(best, way * change.Mirrored(mirror)) is { } next && isBetter(next, best))
                    {
                        best = next;
                        break;
                    }
            if (ReferenceEquals(best, before))
                (halved, scale) = (halved + 1, scale / 2);
        }
        return best;
    }
}

/// <summary>Keeps of what is alike only the best.</summary>
public static class Distinctness
{
    /// <param name="ranked">Best first.</param>
    /// <param name="isSame">Whether the second, which ranks behind the first, adds nothing to it.</param>
    public static List<T> Distinct<T>(IEnumerable<T> ranked, Func<T, T, bool> isSame, int most = int.MaxValue)
    {
        var kept = new List<T>();
        foreach (var one in ranked)
        {
            if (kept.Count >= most)
                break;
            if (kept.All(k => !isSame(k, one)))
                kept.Add(one);
        }
        return kept;
    }
}
