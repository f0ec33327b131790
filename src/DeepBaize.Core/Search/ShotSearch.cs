using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>
/// Chooses the stroke to play from a situation. Named stages, a file each: candidates → trial strokes on a grid → screening with
/// errors → refinement → re-evaluation → two-ply → report. See docs/planning.md.
/// </summary>
public sealed class ShotSearch
{
    private const int FirstAnswers = 3,
        BestOfEachPot = 3;

    private static readonly ErrorStream ScreeningErrors = ErrorStream.Named("shots: sift");

    private readonly SearchContext _context;
    private readonly PotCandidates _candidates;
    private readonly TrialStrokes _trials;
    private readonly StrokeSampler _sampler;
    private readonly PotRefinement _refinement;
    private readonly Reevaluation _reevaluation;
    private readonly TwoPly _twoPly;
    private readonly ShallowSearch _shallow;
    private readonly ChoiceReport _report;

    /// <summary>Creates the stages for one search.</summary>
    public ShotSearch(SearchContext context)
    {
        _context = context;
        _candidates = new(context);
        _trials = new(context);
        _sampler = new(context);
        _refinement = new(context, _trials, _sampler);
        _reevaluation = new(context, _sampler);
        _shallow = new(context, _candidates, _trials, _sampler);
        _twoPly = new(context, _sampler, _shallow);
        _report = new(context, _sampler, _twoPly);
    }

    /// <summary>Returns the best strokes, best first, none twice; empty if no pot is on.</summary>
    /// <param name="first">Receives the best of the screened strokes, before the long work.</param>
    public IReadOnlyList<Choice> Choose(Situation from, Effort effort, Action<IReadOnlyList<Choice>>? first = null)
    {
        var draws = ScreeningErrors.Set(effort.Samples);
        var trials = _trials.OnGrid(from, _candidates.Find(from, effort, allKinds: true), effort);
        var ranked = Screen(from, trials, draws, effort);
        if (ranked.Count == 0)
            return [];
        first?.Invoke(_report.ReportFirst(from, [.. ranked.Take(FirstAnswers)]));
        ranked = _refinement.Improve(from, ranked, draws, effort);
        ranked = _reevaluation.Run(from, ranked, effort);
        ranked = _twoPly.Run(from, ranked, effort);
        return _report.Report(from, [.. Reported(ranked, effort).Take(effort.Reported)], effort);
    }

    /// <summary>Returns the stroke that a small search in one thread chooses; null if no pot is on.</summary>
    /// <param name="isReported">Whether its value comes from samples that did not select it.</param>
    public Choice? Shallow(Workspace workspace, Situation from, bool isReported = false) => _shallow.Find(workspace, from, isReported);

    /// <summary>Third stage: samples the best distinct trial strokes, all with the same errors, and ranks them.</summary>
    private List<RankedStroke> Screen(Situation from, List<TrialStroke> trials, Players.StandardDraws[] draws, Effort effort)
    {
        var distinct = TrialStrokes.Distinct(trials, effort.Screened, perPot: Math.Max(6, effort.Screened / 4));
        var ranked = _context.InParallel(distinct.Count, (workspace, i) => _sampler.Sample(workspace, from, distinct[i], draws));
        return [.. ranked.OrderByDescending(r => r.Value)];
    }

    /// <summary>If several strokes are reported, no pot takes more than a few places.</summary>
    private static IEnumerable<RankedStroke> Reported(List<RankedStroke> ranked, Effort effort) =>
        effort.Reported == 1
            ? ranked
            : ranked.GroupBy(r => r.Trial.Of.Pot).SelectMany(g => g.Take(BestOfEachPot)).OrderByDescending(r => r.Value);
}
