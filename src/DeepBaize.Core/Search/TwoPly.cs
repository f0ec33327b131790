using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>
/// Sixth stage of <see cref="ShotSearch"/>: from each place where the white may stop, searches for the next stroke, and adds by how much
/// that is worth more than the place looks.
/// </summary>
internal sealed class TwoPly(SearchContext context, StrokeSampler sampler, ShallowSearch shallow)
{
    private static readonly ErrorStream Errors = ErrorStream.Named("shots: deepen");

    public List<RankedStroke> Run(Situation from, List<RankedStroke> ranked, Effort effort)
    {
        if (effort.TwoPly == 0)
            return ranked;
        var best = ranked.Take(effort.TwoPly).ToList();
        var draws = Errors.Set(effort.TwoPlySamples);
        // One piece of work for each place where the white may stop, so that the cores are shared evenly.
        var outcomes = context.InParallel(best.Count * draws.Length, (workspace, k) =>
            Draw(workspace, from, best[k / draws.Length].Trial, draws[k % draws.Length])
        );
        var gains = best.Select((_, i) => GainOf([.. outcomes.Skip(i * draws.Length).Take(draws.Length)])).ToList();
        // Shrink towards the common mean: with few places most of the spread between strokes is noise, so count only what exceeds it.
        var mean = gains.Average(g => g.Mean);
        var between = Math.Max(0, gains.Average(g => (g.Mean - mean) * (g.Mean - mean)) - gains.Average(g => g.Variance));
        double Shrunk((double Mean, double Variance) g) => mean + (between == 0 ? 0 : between / (between + g.Variance) * (g.Mean - mean));
        return [.. best.Select((r, i) => sampler.WithMean(r, r.Mean + Shrunk(gains[i]))).OrderByDescending(r => r.Value)];
    }

    /// <summary>Plays the stroke with an error and searches for the next one from where it leaves the table.</summary>
    /// <param name="isReported">Whether the next stroke's value comes from samples that did not select it.</param>
    public Sampled Draw(Workspace workspace, Situation from, TrialStroke trial, in StandardDraws draws, bool isReported = false)
    {
        var outcome = sampler.Draw(workspace, from, trial, sampler.ScatterOf(workspace, from, trial).Error(draws), out var played);
        if (!outcome.Scores || played.Ruling.NextFrame.IsOver)
            return outcome;
        // The player may also turn to safety.
        var safety = workspace.SafetyValueOf(played.Leaves);
        var value = Math.Max(safety, shallow.Find(workspace, played.Leaves, isReported)?.Value.Value ?? safety);
        return outcome with { Value = value, LookAheadGain = value - outcome.Value };
    }

    /// <summary>Mean look-ahead gain of the outcomes that score, and its variance.</summary>
    private static (double Mean, double Variance) GainOf(List<Sampled> outcomes)
    {
        var gains = outcomes.Where(o => o.Scores).Select(o => o.LookAheadGain).ToList();
        if (gains.Count == 0)
            return default;
        var mean = gains.Average();
        return (mean, gains.Sum(g => (g - mean) * (g - mean)) / gains.Count / Math.Max(1, gains.Count - 1));
    }
}
