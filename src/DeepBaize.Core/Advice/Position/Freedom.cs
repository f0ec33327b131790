using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Advice.Position;

/// <summary>Which knobs a search may turn, and how far.</summary>
/// <param name="LowestTips">Height of the tip.</param>
/// <param name="HighestTips">Height of the tip.</param>
/// <param name="MostSideTips">0: plain only.</param>
/// <param name="Softest">Pace.</param>
/// <param name="Hardest">Pace.</param>
/// <param name="AnyPart">Whether the thick and the thin side of the pocket may be used too.</param>
public sealed record Freedom(double LowestTips, double HighestTips, double MostSideTips, double Softest, double Hardest, bool AnyPart)
{
    /// <summary>All that a careful player would use: a margin is kept to the miscue, and to all there is of pace.</summary>
    public static Freedom Full { get; } = new(-1.25, 1.25, 1, Pace.OfCueSpeed(0.47), Pace.OfCueSpeed(5.1), true);

    /// <exception cref="InputException">A figure out of range.</exception>
    public Freedom Checked(string path = "freedom")
    {
        var checks = new Checks(path);
        checks.Range("lowestTips", LowestTips, -Tip.Limit, Tip.Limit);
        checks.Range("highestTips", HighestTips, LowestTips, Tip.Limit);
        checks.Range("mostSideTips", MostSideTips, 0, Tip.Limit);
        checks.Range("softest", Softest, Pace.Slowest, Pace.Hardest);
        checks.Range("hardest", Hardest, Softest, Pace.Hardest);
        checks.ThrowIfAny();
        return this;
    }
}
