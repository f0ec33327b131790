using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>
/// Ways to a ball on that do not go straight. Named stages: windows of aim that hit the same ball off the same cushions → screening of
/// the widest → refinement → ranking in a contest → report. See docs/safety.md.
/// </summary>
public sealed class EscapeSearch
{
    private const int MostScreened = 36,
        MostReported = 8,
        ReportStrokes = 256,
        FewestReportStrokes = 64;

    private const int FirstToRank = 64,
        MostToRank = 256;

    /// <summary>Difference between two escapes that does not matter, points.</summary>
    private const double Matters = 0.1;

    private static readonly ErrorStream FirstErrors = ErrorStream.Named("escapes: tell first"),
        RankingErrors = ErrorStream.Named("escapes: rank"),
        ReportingErrors = ErrorStream.Named("escapes: tell");

    private readonly SearchContext _context;
    private readonly Situation _from;
    private readonly AimWindows _windows;
    private readonly EscapeTrials _trials;
    private readonly EscapeReport _report;

    private EscapeSearch(SearchContext context, Situation from, Ball? target)
    {
        (_context, _from) = (context, from);
        _windows = new(context, from, target);
        _trials = new(context, from, _windows);
        _report = new(context, from, _windows, _trials);
    }

    /// <summary>Returns the ways out, best first.</summary>
    /// <exception cref="InputException">The player is not snookered, or nothing is on.</exception>
    public static IReadOnlyList<EscapeOption> Solve(
        Situation from,
        Player player,
        Player rival,
        TableShape shape,
        FairGate? gate = null,
        IProgress<EscapeProgress>? progress = null,
        CancellationToken cancel = default
    )
    {
        Check(from);
        var context = new SearchContext(new(from.Frame, player, shape, PlanPreferences.Default, rival), gate ?? FairGate.Shared, cancel);
        context.Bound(from.Layout);
        IReadOnlyList<EscapeOption> found = [];
        using var heart = new Heartbeat<EscapeProgress>(progress, share => new(context.Examined, share, found));
        var escapes = Find(
            context,
            from,
            (share, best) =>
            {
                found = best;
                heart.Tell(share);
            }
        );
        found = escapes;
        heart.Tell(1);
        return escapes;
    }

    /// <summary>Returns the ways to one ball, best first, whether or not another can be hit straight.</summary>
    /// <exception cref="InputException">The ball is not on.</exception>
    public static IReadOnlyList<EscapeOption> SolveFor(
        Situation from,
        Ball target,
        Player player,
        Player rival,
        TableShape shape,
        Workers workers
    )
    {
        Check(from, target);
        var question = new SearchQuestion(from.Frame, player, shape, PlanPreferences.Default, rival);
        var context = new SearchContext(question, workers.Gate, workers.Cancel);
        context.Bound(from.Layout);
        return Find(context, from, (_, _) => { }, target);
    }

    /// <summary>Finds the ways out as a part of another search.</summary>
    /// <param name="target">The only ball that counts; null for any that is on.</param>
    /// <param name="tell">Receives the share of the work done, below 1, and the best so far.</param>
    public static IReadOnlyList<EscapeOption> Find(
        SearchContext context,
        Situation from,
        Action<double, IReadOnlyList<EscapeOption>> tell,
        Ball? target = null
    ) => new EscapeSearch(context, from, target).Run(tell);

    /// <summary>Checks that there is something to escape from.</summary>
    /// <param name="target">A ball that is wanted though another may be hit straight: then it need only be on.</param>
    /// <exception cref="InputException">The player is not snookered, or nothing is on, or not the ball that is wanted.</exception>
    public static void Check(Situation from, Ball? target = null, string path = "content.balls")
    {
        if (from.Frame.IsOver || !from.OnSlots().Any())
            throw new InputException(path, "There is no ball on.", "at least one ball that is on");
        if (target is { } wanted && (from.Layout.SlotOf(wanted) < 1 || !from.Frame.MayPlay(wanted)))
            throw new InputException("ball", "This ball is not on.", "a ball that is on");
        if (target is null && !from.IsSnookered)
            throw new InputException(
                path,
                "The white is not snookered: a ball on can be hit straight.",
                "a snooker; else compare pots and safeties"
            );
    }

    private IReadOnlyList<EscapeOption> Run(Action<double, IReadOnlyList<EscapeOption>> tell)
    {
        var found = new List<AimWindow>();
        IReadOnlyList<EscapeOption> first = [];
        for (var column = 0; column < _windows.ColumnCount; column++)
        {
            found.AddRange(_windows.Of(column));
            if (column == 0)
                first = FirstAnswer(found);
            tell(0.2 + 0.3 * column / _windows.ColumnCount, first);
        }
        var screened = _trials.Screen(found, _context.Bounded(MostScreened, 10));
        tell(0.6, first);
        var refined = _context.InParallel(
            Math.Min(_context.Bounded(MostReported, 3), screened.Count),
            (workspace, i) => _trials.Improve(workspace, screened[i])
        );
        tell(0.8, first);
        var ranked = Rank(_trials.Distinct(refined).ConvertAll(v => v.Trial));
        var reported = _report.Of(ranked, _context.Bounded(ReportStrokes, FewestReportStrokes), ReportingErrors, isFinal: true);
        return Simplicity.Order(
            reported,
            e => e.Value,
            e => Simplicity.Penalty(e.Aim.Stroke, cushions: e.Way.Cushions.Count),
            e => e.Odds.Hit
        );
    }

    /// <summary>The best with a plain ball, by strokes that had no part in screening them.</summary>
    private List<EscapeOption> FirstAnswer(List<AimWindow> plain)
    {
        var best = _trials.Screen(plain, MostReported).Take(MostReported / 2).Select(v => new Placed<EscapeTrial>(v.Trial, default, false));
        return _report.Of([.. best], EscapeTrials.ScreenStrokes, FirstErrors, isFinal: false);
    }

    private List<Placed<EscapeTrial>> Rank(List<EscapeTrial> trials)
    {
        var scatters = trials.ToDictionary(t => t, t => new Workspace(_context).ScatterOf(_from.Layout, t.Stroke));
        var effort = new ContestEffort(FirstToRank, _context.Bounded(MostToRank, FirstToRank), Matters * _context.Objective.Point);
        return Contest.Run(
            _context,
            trials,
            effort,
            (workspace, trial, i) => _trials.ValueOf(workspace, trial, scatters[trial].Error(RankingErrors.At(i)))
        );
    }
}
