using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>A small search in one thread: the stroke that would be played next from one of many places.</summary>
internal sealed class ShallowSearch(SearchContext context, PotCandidates candidates, TrialStrokes trials, StrokeSampler sampler)
{
    private static readonly ErrorStream Errors = ErrorStream.Named("shots: glance"),
        Reporting = ErrorStream.Named("shots: tell the next");

    /// <summary>Returns the best stroke; null if no pot is on.</summary>
    /// <param name="isReported">Whether its value comes from samples that did not select it.</param>
    public Choice? Find(Workspace workspace, Situation from, bool isReported = false)
    {
        var effort = Effort.Shallow.Within(context);
        var tried = new List<TrialStroke>();
        foreach (var candidate in candidates.Find(from, effort, allKinds: false, workspace))
            foreach (var tip in trials.Columns(effort))
                tried.AddRange(trials.Column(workspace, from, candidate, tip, effort));
        var draws = Errors.Set(effort.Samples);
        var best = TrialStrokes
            .Distinct(tried, effort.Screened, effort.Screened)
            .Select(t => sampler.Sample(workspace, from, t, draws))
            .MaxBy(r => r.Value);
        if (best is not null && isReported)
            best = sampler.Sample(workspace, from, best.Trial, Reporting.Set(effort.Samples));
        return best is null ? null : ChoiceReport.AsRanked(context, from, best);
    }
}
