using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Position;

/// <summary>
/// Put it there: the ways to pot a ball and do something with the white. Named stages: trials on a grid → refinement of the nearest of
/// each group → screening → ranking → report. The answer depends on the question alone.
/// </summary>
public sealed class WaySearch
{
    private const int Heights = 7,
        SideHeights = 5;

    /// <summary>Largest number of ways reported.</summary>
    private const int MostWays = 6;

    // Ways that do the same with the white are one if they differ by no more than this in height and side (tips) and in speed (ratio).
    private const double SameHeight = 0.5,
        SameSpeed = 1.33,
        SameSide = 0.3;

    private readonly WayQuestion _question;
    private readonly Freedom _freedom;
    private readonly SearchContext _context;
    private readonly WayTrials _trials;
    private readonly WayRefinement _refinement;
    private readonly WayJudge _judge;

    private WaySearch(WayQuestion question, Freedom freedom, Workers workers)
    {
        (_question, _freedom) = (question, freedom);
        // Ways are ranked by the goal; no frame is asked about.
        var search = new SearchQuestion(Rules.Frame.Start, question.Player, question.Shape, PlanPreferences.Default);
        _context = new(search, workers.Gate, workers.Cancel);
        _trials = new(_context, question, freedom);
        _refinement = new(_context, question, freedom, _trials);
        _judge = new(_context, question, _trials);
    }

    /// <summary>Returns the distinct ways, best first. If none does what is wanted, the one that comes nearest.</summary>
    /// <param name="progress">Receives the best so far after each stage, on the calling thread.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<Way> Solve(
        WayQuestion question,
        Freedom freedom,
        Workers workers,
        IProgress<WaySearchProgress>? progress = null
    ) => new WaySearch(question, freedom, workers).Run(progress);

    /// <summary>
    /// Returns the stroke as it is set up, judged like the ways that a search finds; null if the pot has no aim with it.
    /// </summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Way? Judge(WayQuestion question, Workers workers)
    {
        var search = new WaySearch(question, Freedom.Full, workers);
        var workspace = new Workspace(search._context);
        var aiming = WayAim.Of(question, question.Pot.Part);
        return search._trials.Try(workspace, aiming, question.Stroke, null, PotAim.Accuracy) is { } trial
            ? search._judge.Reported(workspace, trial)
            : null;
    }

    /// <summary>Stages of a search with this freedom.</summary>
    public static IReadOnlyList<SearchStage> StagesOf(Freedom freedom)
    {
        List<string> names =
        [
            "plain ball",
            .. freedom.MostSideTips > 0 ? (string[])["with side"] : [],
            .. freedom.AnyPart ? (string[])["edges of the pocket"] : [],
            "how likely",
        ];
        return [.. names.Select((name, i) => new SearchStage(name, (i + 1.0) / names.Count))];
    }

    private readonly Dictionary<(Stroke, double), string> _names = [];

    /// <summary>
    /// The ways with their names: a stroke keeps the one it was first told with; a new one has that of its idea, unless another has it.
    /// </summary>
    private List<Way> Named(IReadOnlyList<Way> ways)
    {
        HashSet<string> taken = [.. ways.Select(w => _names.GetValueOrDefault((w.Stroke, w.Part))).OfType<string>()];
        foreach (var way in ways.Where(w => !_names.ContainsKey((w.Stroke, w.Part))))
        {
            string[] parts =
            [
                way.Run.Route.Key,
                $"{WayRefinement.Spin(way.Run.Arrival.Follow)}",
                $"{Math.Sign(way.Stroke.SideTips)}",
                $"{Math.Sign(way.Part)}",
            ];
            var idea = string.Join(' ', parts);
            var name = Enumerable.Range(1, ways.Count).Select(n => n == 1 ? idea : $"{idea} {n}").First(n => !taken.Contains(n));
            taken.Add(name);
            _names[(way.Stroke, way.Part)] = name;
        }
        return [.. ways.Select(w => w with { Id = _names[(w.Stroke, w.Part)] })];
    }

    private IReadOnlyList<Way> Run(IProgress<WaySearchProgress>? progress)
    {
        var waves = Waves();
        // What is told on the way has strokes of its own: those that screened the ways do not tell how likely they are.
        var (found, told) = (new List<Way>(), new List<Way>());
        using var heart = new Heartbeat<WaySearchProgress>(progress, share => new(_context.Examined, share, [.. told]));
        var nearest = default(WayTrial);
        for (var w = 0; w < waves.Count; w++)
        {
            var tried = _trials.OnGrid(waves[w]);
            var refined = _refinement.Improve(tried);
            nearest = new[] { nearest }.Concat(refined).Concat(tried).Where(t => t is { Pots: true }).MinBy(t => t!.Distance);
            found.AddRange(InParallel([.. Distinct(refined.Where(t => t.IsMet))], _judge.Screened));
            found = Distinct(found);
            if (w + 1 >= waves.Count)
                continue;
            told = Named([.. InParallel([.. found.Take(MostWays).Select(TrialOf)], _judge.ToldSoFar).OrderByDescending(Worth)]);
            heart.Tell((w + 1.0) / (waves.Count + 1));
        }
        var ranked = InParallel([.. found.Take(MostWays).Select(TrialOf)], _judge.Ranked).OrderByDescending(Worth);
        List<WayTrial> best = [.. ranked.Select(TrialOf)];
        if (best.Count == 0 && nearest is not null)
            best.Add(nearest);
        // Reported from samples that did not rank them; what is on next is looked for only for these.
        told = Named([.. InParallel(best, Report).OrderByDescending(Worth)]);
        heart.Tell(1);
        return told;
    }

    /// <summary>
    /// What not being simple costs a way, of the chance that it comes off: the plain one stands first though it be a little less likely.
    /// </summary>
    private const double WeightOfSimplicity = 3;

    private static double Worth(Way way) =>
        way.Odds.Both.Value
        - WeightOfSimplicity * Simplicity.Penalty(way.Stroke, way.Part, way.Run.Route.Cushions.Count, way.Run.Route.Balls.Count > 0);

    /// <summary>
    /// Parts of the grid in the order in which they are searched: plain ball into the middle of the pocket first, so that there is an
    /// answer soon; then with side; then the other parts of the pocket.
    /// </summary>
    private List<(double Side, double Part, int Heights)[]> Waves()
    {
        List<(double Side, double Part, int Heights)[]> waves =
        [
            [(0, 0, Heights)],
        ];
        if (_freedom.MostSideTips > 0)
            waves.Add([.. new[] { -1, -0.5, 0.5, 1 }.Select(s => (s * _freedom.MostSideTips, 0.0, SideHeights))]);
        if (_freedom.AnyPart)
            waves.Add([(0, -1, SideHeights), (0, 1, SideHeights)]);
        return waves;
    }

    private Way Report(Workspace workspace, WayTrial trial) => _judge.WithNext(workspace, _judge.Reported(workspace, trial));

    private static WayTrial TrialOf(Way way) =>
        new(way.Stroke, way.Part, true, way.Ends.IsMet, way.Ends.Off, way.Run.Route, way.Run.Arrival.Follow);

    private static List<WayTrial> Distinct(IEnumerable<WayTrial> trials) =>
        Distinct(trials, t => t.Distance, t => (t.Route.Key, t.Stroke, t.Part), sameSide: true);

    private static List<Way> Distinct(IEnumerable<Way> ways) =>
        Distinct(ways, w => -Worth(w), w => (w.Run.Route.Key, w.Stroke, w.Part), sameSide: false);

    /// <summary>Keeps the best of those that do the same with nearly the same stroke.</summary>
    private static List<T> Distinct<T>(
        IEnumerable<T> all,
        Func<T, double> cost,
        Func<T, (string Route, Stroke Stroke, double Part)> of,
        bool sameSide
    ) => Distinctness.Distinct(all.OrderBy(cost), (kept, one) =>
        {
            var ((route, stroke, part), (otherRoute, other, otherPart)) = (of(one), of(kept));
            return route == otherRoute
                && Math.Abs(stroke.HeightTips - other.HeightTips) <= SameHeight
                && Pace.Ratio(stroke.Pace, other.Pace) <= SameSpeed
                && (!sameSide || (Math.Abs(stroke.SideTips - other.SideTips) <= SameSide && Math.Abs(part - otherPart) <= SameSide));
        });

    private List<Way> InParallel(IReadOnlyList<WayTrial> trials, Func<Workspace, WayTrial, Way> job) =>
        _context.InParallel(trials.Count, (workspace, i) => job(workspace, trials[i]));
}
