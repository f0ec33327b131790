using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Learning;

/// <summary>
/// How much higher a player's butt lies than it is taken to: strokes with side curve by it. Each stroke is explained with the butt at
/// several heights, its own error summed over about the best one (Laplace's approximation), and the heights are weighed by that.
/// </summary>
public static class ButtFit
{
    /// <summary>Strokes with less side than this tell nothing of the butt, tips; and the fewest that tell something.</summary>
    private const double LeastSide = 0.3;
    private const int Fewest = 5;

    /// <summary>Strokes that are looked at: the first in the list.</summary>
    private const int Most = 40;

    /// <summary>Standard deviation of how players' butts lie when nothing is in the way, degrees: common practice, no source.</summary>
    private const double Doubt = 1.5;

    /// <summary>Heights that are tried, against the one that is assumed, degrees.</summary>
    private static readonly double[] Raised = [.. Enumerable.Range(-6, 17).Select(i => i / 2.0)];

    /// <summary>A stroke that no height explains counts no more against one of them than this, as a logarithm.</summary>
    private const double MostOfOne = 6;

    /// <summary>Returns degrees by which the butt is higher, with the 90 % interval; null where too few strokes tell of it.</summary>
    public static Range90? Of(IReadOnlyList<ObservedStroke> attempts, Skill skill, TableShape shape, Workers workers)
    {
        var telling = attempts.Where(a => Math.Abs(a.Meant.SideTips) >= LeastSide).Take(Most).ToList();
        if (telling.Count < Fewest)
            return null;
        bool CanLie(double raised) => telling.All(t => t.Meant.ElevationDegrees + raised is >= 0 and <= Strike.MaxElevationDegrees);
        var heights = Raised.Where(CanLie).ToList();
        var deviations = telling.Select(t => t.DeviationsOf(skill, shape)).ToList();
        var evidence = workers.InParallel(
            telling.Count * heights.Count,
            i => EvidenceOf(telling[i / heights.Count], deviations[i / heights.Count], heights[i % heights.Count], shape)
        );
        var sums = new double[heights.Count];
        for (var t = 0; t < telling.Count; t++)
        {
            var best = Enumerable.Range(0, heights.Count).Max(h => evidence[t * heights.Count + h]);
            for (var h = 0; h < heights.Count; h++)
                sums[h] += Math.Max(evidence[t * heights.Count + h], best - MostOfOne);
        }
        return Posterior([.. heights.Zip(sums, (at, sum) => (at, sum - 0.5 * Math.Pow(at / Doubt, 2)))]);
    }

    private static double EvidenceOf(ObservedStroke stroke, double[] deviations, double raised, TableShape shape)
    {
        var meant = stroke.Meant with { ElevationDegrees = stroke.Meant.ElevationDegrees + raised };
        var fit = new ErrorFit(new(stroke with { Meant = meant }, shape), deviations);
        var best = fit.Best(64, 1, spread: 1);
        return best.Value + best.Root.Diagonal().Sum(Math.Log);
    }

    /// <summary>Mean and quantiles of a density that is known at some places, by its logarithm: straight between them.</summary>
    private static Range90 Posterior(List<(double At, double Log)> known)
    {
        const int steps = 30;
        var most = known.Max(k => k.Log);
        var places = new List<(double Value, double Weight)>();
        for (var i = 0; i + 1 < known.Count; i++)
            for (var s = 0; s < steps; s++)
            {
                var share = (s + 0.5) / steps;
                var log = (1 - share) * known[i].Log + share * known[i + 1].Log;
                places.Add((known[i].At + share * (known[i + 1].At - known[i].At), Math.Exp(log - most)));
            }
        return Range90.Of(places);
    }
}
