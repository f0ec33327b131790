using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Search;

/// <summary>
/// Of strokes that come to nearly the same a player takes the simplest: softest, without side, into the middle of the pocket, off no
/// needless cushion. One rule for plans, ways, safeties and escapes; its weights are common practice, no source.
/// </summary>
public static class Simplicity
{
    /// <summary>Pace up to which softer is no simpler.</summary>
    public const double EasyPace = 3;

    private const double OfPace = 0.008,
        OfSide = 0.01,
        OfSidePerTip = 0.02,
        OfPart = 0.004,
        OfCushion = 0.003,
        OfCannon = 0.005;

    /// <summary>Returns by what share of its value a stroke ranks lower for not being simple.</summary>
    /// <param name="part">Of the pocket that is aimed at, −1 to 1.</param>
    /// <param name="cushions">How many the white meets.</param>
    /// <param name="runsIntoBall">Whether the white meets a second ball.</param>
    public static double Penalty(in Stroke stroke, double part = 0, int cushions = 0, bool runsIntoBall = false) =>
        OfPace * Math.Max(0, stroke.Pace - EasyPace)
        + (stroke.SideTips == 0 ? 0 : OfSide + OfSidePerTip * Math.Abs(stroke.SideTips))
        + OfPart * Math.Abs(part)
        + OfCushion * cushions
        + (runsIntoBall ? OfCannon : 0);

    /// <summary>
    /// Orders lines of play: those that the strokes played cannot tell from the best come first, of these the likeliest, and of those that
    /// are equally likely the simplest; then the others by their value.
    /// </summary>
    /// <param name="chance">That the stroke comes off; null where that is no question.</param>
    /// <param name="penalty">For not being simple.</param>
    public static List<T> Order<T>(IEnumerable<T> lines, Func<T, Estimate> value, Func<T, double> penalty, Func<T, Estimate>? chance = null)
    {
        List<T> byValue = [.. lines.OrderByDescending(l => value(l).Value)];
        if (byValue.Count == 0)
            return byValue;
        var best = value(byValue[0]);
        var level = byValue.TakeWhile(l => value(l).IsLevelWith(best)).ToList();
        var rest = byValue.Skip(level.Count);
        if (chance is null)
            return [.. level.OrderBy(penalty), .. rest];
        List<T> ordered = [];
        for (var left = level.OrderByDescending(l => chance(l).Value).ToList(); left.Count > 0;)
        {
            var likeliest = chance(left[0]);
            var alike = left.Where(l => chance(l).IsLevelWith(likeliest)).OrderBy(penalty).ToList();
            ordered.AddRange(alike);
            left.RemoveAll(alike.Contains);
        }
        return [.. ordered, .. rest];
    }
}
