using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>
/// Looks for safeties. A pipeline: every ball on, at fullnesses either side × heights, sides and paces, played without error → the
/// distinct ones screened with errors → bettered by small changes → ranked against one another → told by strokes that had no part in
/// the choice. See docs/safety.md.
/// </summary>
public sealed class SafetySearch(SearchContext context)
{
    private const int Screened = 40,
        ScreenStrokes = 16,
        FirstStrokes = 32,
        Refined = 10,
        RefineStrokes = 16,
        FirstAnswers = 3,
        PlainOfEach = 3,
        FewestReportStrokes = 64,
        MostReported = 10,
        Reported = 6,
        ReportStrokes = 256,
        RankStrokes = 64;
    private const double SameZone = 0.35;

    /// <summary>Difference between two safeties that does not matter, points.</summary>
    private const double Matters = 0.1;

    private static readonly ErrorStream Screening = ErrorStream.Named("safeties: sift"),
        Refining = ErrorStream.Named("safeties: refine"),
        FirstErrors = ErrorStream.Named("safeties: tell first"),
        RankingErrors = ErrorStream.Named("safeties: rank"),
        Reporting = ErrorStream.Named("safeties: tell");

    private readonly SafetyStrokes _strokes = new(context);
    private readonly SafetyReport _report = new(context);

    /// <summary>The distinct safeties, best first; empty if no ball on can be struck straight.</summary>
    public IReadOnlyList<SafetyOption> Find(Situation from, Action<IReadOnlyList<SafetyOption>>? first = null)
    {
        if (BreakOffs.IsOn(from))
            return BreakOff(from, first);
        var screened = ScreenedOf(from, DistinctOf(OnGrid(from)));
        if (first is not null)
        {
            List<Placed<TriedSafety>> best = [.. screened.Take(FirstAnswers).Select(v => new Placed<TriedSafety>(v.Tried, default, false))];
            first([.. _report.Of(from, best, FirstStrokes, FirstErrors).Select(r => r.Option)]);
        }
        var refined = RefinedOf(from, screened);
        var ranked = RankedOf(from, refined, RankStrokes);
        // The contest selects them; they are listed in the order of the reported figures. The pots that are left are looked for by strokes,
        // which takes longest, for those only that are listed.
        var strokes = context.Bounded(ReportStrokes, FewestReportStrokes);
        var quick = _report.Of(from, [.. ranked.Take(MostReported)], strokes, Reporting);
        List<ReportedSafety> listed = [.. Ideas(quick.OrderByDescending(r => r.Option.Value.Value)).Take(Reported)];
        return Preferred(_report.Closely(from, listed, Reporting).Select(r => r.Option));
    }

    /// <summary>To open a frame nobody plays anything else.</summary>
    private IReadOnlyList<SafetyOption> BreakOff(Situation from, Action<IReadOnlyList<SafetyOption>>? first)
    {
        void Tell(List<TriedSafety> tried) =>
            first?.Invoke([
                .. _report
                    .Of(from, [.. tried.Take(1).Select(t => new Placed<TriedSafety>(t, default, false))], FirstStrokes, FirstErrors)
                    .Select(r => r.Option),
            ]);
        var ranked = RankedOf(from, new BreakOffs(context, _strokes).Find(from, Tell), ReportStrokes);
        var strokes = context.Bounded(ReportStrokes, FewestReportStrokes);
        return Preferred(_report.Closely(from, _report.Of(from, ranked, strokes, Reporting), Reporting).Select(r => r.Option));
    }

    private static List<SafetyOption> Preferred(IEnumerable<SafetyOption> options) =>
        Simplicity.Order(
            options,
            s => s.Value,
            s => Simplicity.Penalty(s.Aim.Stroke, cushions: s.Route.Cushions.Count, runsIntoBall: s.Route.Balls.Count > 0)
        );

    // ---- Stages ----------------------------------------------------------------------------------------------------

    private List<TriedSafety> OnGrid(Situation from)
    {
        var jobs = _strokes.Ways(from).ToList();
        return
        [
            .. context
                .InParallel(jobs.Count, (workspace, i) => _strokes.Play(workspace, from, jobs[i].Slot, jobs[i].Offset))
                .SelectMany(t => t),
        ];
    }

    /// <summary>Strokes that pot a ball are few of the safeties: most of the room is for those that do not.</summary>
    private List<TriedSafety> DistinctOf(List<TriedSafety> tried)
    {
        List<TriedSafety> Of(bool pots, int most) =>
            Distinctness.Distinct(
                tried.Where(t => t.Played.Ruling.Points > 0 == pots).OrderByDescending(t => t.Value),
                IsSame,
                context.Bounded(most, 8)
            );
        // What anybody would think of first is among them, however it looks without error.
        var plain = tried
            .Where(t => t.Played.Ruling.Points == 0)
            .Select(t => (Idea: PlainIdeas.Of(t), Tried: t))
            .Where(t => t.Idea is not null)
            .GroupBy(t => t.Idea)
            .SelectMany(g => Distinctness.Distinct(g.OrderByDescending(t => t.Tried.Value).Select(t => t.Tried), IsSame, PlainOfEach));
        return [.. Of(false, Screened).Concat(plain).Distinct(), .. Of(true, Screened / 4)];
    }

    /// <summary>A safety with its mean over the errors that choose.</summary>
    private sealed record Valued(TriedSafety Tried, double Value);

    private List<Valued> ScreenedOf(Situation from, List<TriedSafety> tried) =>
        [
            .. context
                .InParallel(tried.Count, (workspace, i) => new Valued(tried[i], Mean(workspace, from, tried[i], Screening, ScreenStrokes)))
                .OrderByDescending(v => v.Value),
        ];

    private List<TriedSafety> RefinedOf(Situation from, List<Valued> screened)
    {
        List<TriedSafety> seeds =
        [
            .. screened.Where(v => v.Tried.Played.Ruling.Points == 0).Take(context.Bounded(Refined, 2)).Select(v => v.Tried),
            .. screened.Where(v => v.Tried.Played.Ruling.Points > 0).Take(Refined / 4).Select(v => v.Tried),
            // Of each plain idea the best.
            .. screened.Where(v => PlainIdeas.Of(v.Tried) is not null).GroupBy(v => PlainIdeas.Of(v.Tried)).Select(g => g.First().Tried),
        ];
        seeds = [.. seeds.Distinct()];
        var refined = context.InParallel(seeds.Count, (workspace, i) => Refine(workspace, from, seeds[i]));
        return Distinctness.Distinct(refined.OrderByDescending(v => v.Value).Select(v => v.Tried), IsSame);
    }

    /// <summary>Height, side, pace and how full the ball is struck.</summary>
    private Raced Refine(Workspace workspace, Situation from, TriedSafety seed)
    {
        const double widths = 0.06;
        var away = from.IsTouching(from.Layout.Balls[seed.Slot]);
        var beside = SafetyStrokes.DegreesFor(from, seed.Slot, widths);
        var tries = 0;
        return Refinement.Better<Raced>(
            new(seed, Race(workspace, from, seed, null)!),
            [new(Speed: 0.11), new(AimDegrees: beside), new(Height: 0.4), new(Side: 0.4)],
            halvings: 2,
            (now, change) =>
                change.Of(now.Tried.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is not { } stroke
                || (away && change.AimDegrees != 0)
                || tries++ > MostTries
                || _strokes.Try(workspace, from, seed.Slot, now.Tried.Offset + widths * change.AimDegrees / beside, stroke) is not { } tried
                || Race(workspace, from, tried, now.Values) is not { } values
                    ? null
                    : new(tried, values),
            (a, b) => a.Value > b.Value,
            from.Layout.Mirror,
            () => tries > MostTries
        );
    }

    /// <summary>Bound on the changes tried for one seed, so that no core is left alone with one that climbs and climbs.</summary>
    private const int MostTries = 56;

    /// <summary>A safety with its values over the errors that refine.</summary>
    private sealed record Raced(TriedSafety Tried, double[] Values)
    {
        public double Value { get; } = Values.Average();
    }

    /// <summary>After as many strokes a stroke that has fallen behind is given up.</summary>
    private const int RaceStrokes = 8;

    /// <summary>
    /// Plays a stroke with the errors that refine; null as soon as it has fallen behind by a standard error of the difference, stroke by
    /// stroke, from the one that it is to better.
    /// </summary>
    private double[]? Race(Workspace workspace, Situation from, TriedSafety tried, double[]? best)
    {
        var draws = Refining.Set(RefineStrokes);
        var (values, scatter) = (new double[draws.Length], workspace.ScatterOf(from.Layout, tried.Stroke));
        var ball = from.Layout.Balls[tried.Slot].Ball;
        var (sum, squares) = (0.0, 0.0);
        for (var i = 0; i < draws.Length; i++)
        {
            values[i] = _strokes.ValueOf(workspace, from, tried.Stroke, ball, scatter.Error(draws[i]));
            if (best is null)
                continue;
            var difference = values[i] - best[i];
            (sum, squares) = (sum + difference, squares + difference * difference);
            var (n, mean) = (i + 1, sum / (i + 1));
            if (n % RaceStrokes == 0 && n < draws.Length && mean < -Math.Sqrt(Math.Max(0, squares / n - mean * mean) / (n - 1)))
                return null;
        }
        return values;
    }

    /// <param name="most">Strokes of each at most.</param>
    private List<Placed<TriedSafety>> RankedOf(Situation from, List<TriedSafety> tried, int most)
    {
        var scatters = tried.ToDictionary(t => t, t => new Workspace(context).ScatterOf(from.Layout, t.Stroke));
        return Contest.Run(context, tried, new(32, most, Matters * context.Objective.Point), (workspace, t, i) =>
            _strokes.ValueOf(workspace, from, t.Stroke, from.Layout.Balls[t.Slot].Ball, scatters[t].Error(RankingErrors.At(i)))
        );
    }

    private double Mean(Workspace workspace, Situation from, TriedSafety tried, ErrorStream stream, int strokes) =>
        _strokes.MeanOf(workspace, from, tried.Stroke, from.Layout.Balls[tried.Slot].Ball, stream, strokes);

    private static bool IsSame(TriedSafety a, TriedSafety b) =>
        a.Slot == b.Slot && a.Route.Key == b.Route.Key && Apart(a.Played.Leaves, b.Played.Leaves) <= SameZone;

    private static List<ReportedSafety> Ideas(IEnumerable<ReportedSafety> ranked) =>
        Distinctness.Distinct(ranked, (a, b) =>
            a.Option.Idea == b.Option.Idea
            && a.Option.Aim.Ball == b.Option.Aim.Ball
            && Apart(a.Option.Leaves.After, b.Option.Leaves.After) < 2 * SameZone
        );

    private static double Apart(Situation a, Situation b) => a.Layout.White.At.DistanceTo(b.Layout.White.At);
}
