using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>
/// Fifth stage of <see cref="ShotSearch"/>: estimates the best strokes anew from another stream. Of many strokes, the best by a few samples
/// are the lucky ones, and refinement follows their errors.
/// </summary>
internal sealed class Reevaluation(SearchContext context, StrokeSampler sampler)
{
    private static readonly ErrorStream Errors = ErrorStream.Named("shots: weigh");

    public List<RankedStroke> Run(Situation from, List<RankedStroke> ranked, Effort effort)
    {
        if (effort.Reevaluated == 0)
            return ranked;
        var best = ranked.Take(Math.Max(1, 2 * effort.TwoPly)).ToList();
        var draws = Errors.Set(effort.Reevaluated);
        var anew = context.InParallel(best.Count, (workspace, i) =>
            WithDoubt(sampler.Sample(workspace, from, best[i].Trial, draws, looksAtMisses: true), draws.Length)
        );
        return [.. anew.OrderByDescending(r => r.Value)];
    }

    /// <summary>
    /// Ranks a stroke with side, or with power beyond the easy, lower by the standard error of its value, so that the plain one comes first
    /// of strokes that cannot be told apart. The less exact the player, the larger the deduction.
    /// </summary>
    private RankedStroke WithDoubt(RankedStroke r, int samples)
    {
        var share = (r.Trial.Stroke.SideTips != 0 ? 1 : 0) + (r.Trial.Stroke.Pace > Skill.EasyPace ? 0.5 : 0);
        var error = Math.Sqrt(r.Chance * (1 - r.Chance) / (StrokeSampler.EstimateWeight + samples));
        return sampler.WithMean(r with { Doubt = share * error * Math.Abs(r.Mean - r.Missed) }, r.Mean);
    }
}
