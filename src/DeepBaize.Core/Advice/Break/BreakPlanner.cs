using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Break;

/// <summary>
/// Plans a break: the first stroke and what else there was, the shots that follow if all goes as meant, and how it is likely to go. The
/// same question has the same answer, however many cores there are. See docs/planning.md.
/// </summary>
public sealed class BreakPlanner
{
    /// <summary>Number of first shots that are planned on, and number reported.</summary>
    private const int MostPlans = 3,
        MostAlternatives = 4;

    /// <summary>Depth of every plan, and the additional depth of the best one, in shots.</summary>
    private const int Depth = 4,
        BestDepth = 7;

    // Breaks played out: to rank the first shots against one another, and to tell of the plans how they are likely to go.
    private const int FirstToRank = 16,
        MostToRank = 16,
        BreaksOfBest = 16,
        BreaksOfOthers = 8;

    /// <summary>Number of shots that breaks are played to for ranking; the evaluation of the table then stands for the rest.</summary>
    private const int ShotsToRank = 4;

    /// <summary>Plans that make less than this more than another are level, points.</summary>
    private const double Matters = 1.5;

    /// <summary>Stages of a plan.</summary>
    public static IReadOnlyList<SearchStage> Stages { get; } =
    [new("first shot", AtChosen), new("the shots after it", AtAhead), new("breaks played out", AtTold), new("other plans", 1)];

    // Shares of the work that are done after the stages.
    private const double AtFirst = 0.05,
        AtChosen = 0.15,
        AtAhead = 0.35,
        AtRanked = 0.45,
        AtTold = 0.7,
        AtDeep = 0.93;

    private static readonly ErrorStream Ranking = ErrorStream.Named("plans: rank"),
        Telling = ErrorStream.Named("plans: tell");

    private readonly SearchContext _context,
        _first;
    private readonly ShotSearch _search,
        _firstSearch;
    private readonly IProgress<PlanProgress>? _progress;

    /// <param name="context">Context of all shots, without a wish for the next ball.</param>
    /// <param name="first">Context of the first two shots, with that wish; equal to <paramref name="context"/> without one.</param>
    private BreakPlanner(SearchContext context, SearchContext first, IProgress<PlanProgress>? progress)
    {
        (_context, _first, _progress) = (context, first, progress);
        _search = new(context);
        _firstSearch = first == context ? _search : new(first);
    }

    /// <summary>The best plans, best first, and the first shots beside one another. Empty if no ball on can be potted.</summary>
    /// <param name="gate">Shares the cores with other plans.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static PlanProgress Solve(
        Situation from,
        PlanPreferences preferences,
        Player player,
        TableShape shape,
        FairGate? gate = null,
        IProgress<PlanProgress>? progress = null,
        CancellationToken cancel = default
    )
    {
        SearchContext With(PlanPreferences wishes) => new(new(from.Frame, player, shape, wishes), gate ?? FairGate.Shared, cancel);
        var context = With(preferences with { Next = null });
        return new BreakPlanner(context, preferences.Next is null ? context : With(preferences), progress).Run(from);
    }

    private PlanProgress Run(Situation given)
    {
        var from = InHand.Placed(_first, given);
        _context.Bound(from.Layout);
        _first.Bound(from.Layout);
        var plans = new List<Plan>();
        IReadOnlyList<Alternative> alternatives = [];
        using var heart = new Heartbeat<PlanProgress>(_progress, share => ProgressOf(share, [.. plans], alternatives));
        void Tell(double share) => heart.Tell(share);

        var choices = _firstSearch.Choose(from, Effort.Full.Within(_context), first =>
        {
            // The first useful answer: the shot to play, before it has been refined.
            plans = [new([Explained(from, Named(first[0], 0))], null, false)];
            Tell(AtFirst);
        });
        plans = [];
        if (choices.Count == 0)
            return ProgressOf(1, [], []);
        var ideas = Ideas(choices);
        plans = [new([Explained(from, ideas[0])], null, false)];
        alternatives =
        [
            .. ideas.Select(c => new Alternative(c, Shortfall.None, c.Value, c.Odds.Chance.Times(c.Gain + c.Next.Value), false)),
        ];
        Tell(AtChosen);

        // The plan that looks best first, so that there is soon something to go by; then all of them by what they make when played out.
        plans[0] = Deep(plans[0], Depth, longer =>
        {
            plans[0] = longer;
            Tell(AtChosen + (AtAhead - AtChosen) * longer.Shots.Count / Depth);
        });
        var playouts = new Playouts(_context, _search, from);
        var ranked = Contest.Run(
            _context,
            ideas,
            new(FirstToRank, _context.Bounded(MostToRank, FirstToRank), Matters * _context.Objective.Point),
            (workspace, choice, i) => playouts.Of(workspace, choice, Ranking, i, ShotsToRank).Controlled
        );
        Tell(AtRanked);
        // What has ranked them does not report on them: each is played out anew, and they stand in the order of that.
        var told = Simplicity.Order(
            ranked.Select(
                (r, i) =>
                    new Told(
                        r.Entrant,
                        PlayedOut(playouts, r.Entrant, _context.Bounded(i == 0 ? BreaksOfBest : BreaksOfOthers, BreaksOfOthers))
                    )
            ),
            t => t.Value,
            t => PenaltyOf(t.Choice),
            t => t.Choice.Odds.Chance
        );
        alternatives = [.. told.Select(t => AlternativeTo(told[0], t))];
        var deep = plans[0];
        plans =
        [
            .. told.Take(MostPlans)
                .Select(t =>
                    WithProspect(t.Choice == deep.Shots[0].Choice ? deep : new Plan([Explained(from, t.Choice)], null, false), t.Playouts)
                ),
        ];
        Tell(AtTold);
        for (var p = 0; p < plans.Count; p++)
        {
            plans[p] = Alive(Deep(plans[p], p == 0 ? BestDepth : Depth));
            Tell(AtTold + (AtDeep - AtTold) * (p + 1) / plans.Count);
        }
        plans = Studied(plans);
        Tell(1);
        return ProgressOf(1, plans, alternatives);
    }

    private PlanProgress ProgressOf(double share, IReadOnlyList<Plan> plans, IReadOnlyList<Alternative> alternatives)
    {
        var value = plans.Count == 0 ? 0.5 : plans[0].Prospect?.Value.Value ?? plans[0].Shots[0].Choice.Value.Value;
        var (objective, examined) = (_context.Objective, _context.Examined);
        return new(objective.Unit, objective.ModelErrorOf(value), examined, share, _context.TableShare, plans, alternatives);
    }

    private static double PenaltyOf(Choice choice) =>
        Simplicity.Penalty(choice.Stroke, choice.Pot.Part, choice.Route.Cushions.Count, choice.Route.Balls.Count > 0);

    /// <summary>A first shot, with the breaks that were played from it.</summary>
    private sealed record Told(Choice Choice, IReadOnlyList<Playout> Playouts)
    {
        /// <summary>In the measure of the answer, a miss at what it leaves: by this they stand.</summary>
        public Estimate Value { get; } = Sums.Of(Playouts, p => p.Controlled).Mean;
    }

    private static Estimate PointsOf(IReadOnlyList<Playout> playouts) => Sums.Of(playouts, p => p.Points).Mean;

    private List<Playout> PlayedOut(Playouts playouts, Choice first, int breaks) =>
        _context.InParallel(breaks, (workspace, i) => playouts.Of(workspace, first, Telling, i));

    /// <summary>Shots added until it is so deep, or complete.</summary>
    private Plan Deep(Plan plan, int depth, Action<Plan>? tell = null)
    {
        while (!plan.IsComplete && plan.Shots.Count < depth)
        {
            plan = Extended(plan);
            tell?.Invoke(plan);
        }
        return plan;
    }

    /// <summary>Another place than this is another idea, m.</summary>
    private const double Elsewhere = 0.3;

    /// <summary>Of the choices those that differ in ball, pocket, what the white does or where it ends; the best of each.</summary>
    private static List<Choice> Ideas(IReadOnlyList<Choice> choices)
    {
        var ideas = new List<Choice>();
        foreach (var choice in choices)
            if (
                ideas.Count < MostAlternatives
                && ideas.All(i => i.Pot != choice.Pot || i.Route.Key != choice.Route.Key || Apart(i, choice) > Elsewhere)
            )
                ideas.Add(choice);
        // Of ideas that differ in nothing but where the white ends, the order found tells them apart.
        ideas = [.. ideas.GroupBy(i => NameOf(i)).SelectMany(same => same.Select(Named))];
        // Another ball or pocket is more of an alternative than another way to play the same.
        return
        [
            .. ideas.Where(i => i.Stroke == choices[0].Stroke),
            .. ideas
                .Where(i => i.Stroke != choices[0].Stroke)
                .OrderBy(i => i.Pot == choices[0].Pot ? 1 : 0)
                .ThenByDescending(i => i.Value.Value),
        ];
    }

    private static string NameOf(Choice choice)
    {
        var (pot, route) = (choice.Pot, choice.Route);
        return $"{choice.Target.Cut.ObjectBall.Id} {pot.Pocket.Name()} {pot.Through} {pot.Off?.Name()} {route.Key}";
    }

    private static Choice Named(Choice choice, int earlier) =>
        choice with
        {
            Id = earlier == 0 ? NameOf(choice) : $"{NameOf(choice)} {earlier + 1}",
        };

    private static double Apart(Choice a, Choice b) => a.Leaves.Layout.White.At.DistanceTo(b.Leaves.Layout.White.At);

    /// <summary>
    /// What it made, and in which part it lacks most: each is put in the best one's place, and what is lost by it counted.
    /// </summary>
    private Alternative AlternativeTo(Told first, Told told)
    {
        var (best, other) = (first.Choice, told.Choice);
        var points = PointsOf(told.Playouts);
        if (ReferenceEquals(best, other))
            return new(other, Shortfall.None, told.Value, points, false);
        var made = (best.Gain - other.Gain) * _context.Objective.Point;
        var parts = new (Shortfall Part, double Loss)[]
        {
            (Shortfall.Chance, (best.Chance - other.Chance) * (best.IfScores - best.IfMissed)),
            (Shortfall.Points, other.Chance * made),
            (Shortfall.Leave, other.Chance * (best.IfScores - other.IfScores - made)),
        };
        var (part, _) = parts.MaxBy(p => p.Loss);
        if (part == Shortfall.Leave && other.Odds.Foul.Value > best.Odds.Foul.Value + 0.05)
            part = Shortfall.Foul;
        return new(other, part, told.Value, points, told.Value.IsLevelWith(first.Value));
    }

    // ---- Shots that follow -----------------------------------------------------------------------------------------

    /// <summary>One shot more; complete if there is none.</summary>
    private Plan Extended(Plan plan)
    {
        var last = plan.Shots[^1];
        var after = last.Choice.Leaves;
        if (after.Frame.IsOver)
            return plan with { IsComplete = true };
        var search = plan.Shots.Count == 1 ? _firstSearch : _search;
        var next = search.Choose(after, Effort.Later.Within(_context)).FirstOrDefault();
        var turn = TurnAt(after, next);
        if (next is null || turn is not null)
            return plan with { IsComplete = true, Turn = turn };
        List<PlanShot> shots = [.. plan.Shots.SkipLast(1), MeantFor(last, next.Nominated), Explained(after, next)];
        return plan with { Shots = shots, IsComplete = next.Outcome.Ruling.NextFrame.IsOver || next.Leaves.Frame.InHand };
    }

    /// <summary>With a pot as likely as this a break is not left.</summary>
    private const double GoesOn = 0.75;

    private const int TurnStrokes = 32;
    private static readonly ErrorStream TurnErrors = ErrorStream.Named("plans: turn");

    /// <summary>The safety that the break turns to if no pot is worth as much; null if it goes on.</summary>
    private SafetyTurn? TurnAt(Situation after, Choice? next)
    {
        if (next?.Chance > GoesOn || after.Frame.Exercise is not null || after.Frame.Repeats || _context.Objective.Unit == "target")
            return null;
        var (workspace, strokes) = (new Workspace(_context), new SafetyStrokes(_context));
        if (strokes.BestOf(workspace, after) is not { } safety)
            return null;
        var ball = after.Layout.Balls[safety.Slot].Ball;
        var value = strokes.MeanOf(workspace, after, safety.Stroke, ball, TurnErrors, _context.Bounded(TurnStrokes, 16));
        return next is null || value > next.Value.Value ? new(after, safety, value, next?.Value.Value) : null;
    }

    private PlanShot Explained(Situation before, Choice choice)
    {
        var workspace = new Workspace(_context);
        workspace.Play(before, choice.Stroke, default, choice.Nominated);
        var path = ShotPath.Points(workspace.Record, before.Layout.Balls.Count, ShotPath.Drawn)[0];
        var arrival = Arrival.Of(workspace.Record, choice.Stroke.ToStrike(), _context.Shape);
        var warnings = ShotWarnings.Of(
            workspace.Record,
            before.Layout,
            choice.Stroke,
            workspace.Simulator,
            _context.Shape,
            choice.Pot,
            mayRunOn: true
        );
        var pace = workspace.ScatterOf(before.Layout, choice.Stroke, _context.Player.Skill).Pace;
        var cover = Cover.Of(workspace, before, choice.Stroke, choice.Nominated, pace);
        var ruling = choice.Outcome.Ruling;
        var points = ruling.NextFrame.IsOver ? before.Frame.Break + ruling.Points : choice.Leaves.Frame.Break;
        var shot = new PlanShot(before, choice, Estimate.Exact(1), points, new(arrival, path, []), cover, warnings, [])
        {
            RedsBefore = RedSpread.Of(before.Layout, workspace.LinesOf(before.Layout)),
            RedsAfter = RedSpread.Of(choice.Leaves.Layout, workspace.LinesOf(choice.Leaves.Layout)),
        };
        return WithReasons(shot, workspace);
    }

    /// <summary>The plans with what small errors do to each of their shots.</summary>
    private List<Plan> Studied(List<Plan> plans)
    {
        List<PlanShot> shots = [.. plans.SelectMany(p => p.Shots)];
        var studies = _context.InParallel(shots.Count, (workspace, i) =>
            ShotStudy.Of(_context, workspace, shots[i].Before, shots[i].Choice)
        );
        var next = 0;
        return plans.ConvertAll(p => p with { Shots = [.. p.Shots.Select(s => s with { Study = studies[next++] })] });
    }

    /// <summary>With the area and the reasons for the ball that is next.</summary>
    private PlanShot WithReasons(PlanShot shot, Workspace workspace)
    {
        var (choice, after) = (shot.Choice, shot.Choice.Leaves);
        var lines = workspace.LinesOf(after.Layout);
        IReadOnlyList<Vec2> area = [];
        if (choice.Next.Pot is { } pot)
        {
            // One red is as good as another, but a colour is chosen.
            var next = lines.BallIn(pot.Line.Slot);
            area = PositionMap.AreaRound(
                after,
                (_context.Evaluation, _context.Objective),
                lines,
                _context.Shape,
                next.IsRed ? null : ball => ball == next,
                _context.Workers
            );
        }
        shot = shot with { Drawing = shot.Drawing with { Area = area } };
        var skill = _context.Player.Skill.Times(choice.Reach.ErrorFactor);
        var opening = PackOpening.Of(shot.Before.Layout, choice.Stroke, skill, _context.Shape, _context.Workers);
        return shot with { Reasons = Reasons.Of(shot, workspace.LinesOf(shot.Before.Layout), lines, opening) };
    }

    /// <summary>
    /// A shot of which it is now known what it is for: not the ball that looked best after it, but the one that is played.
    /// </summary>
    private PlanShot MeantFor(PlanShot shot, Ball ball)
    {
        var (choice, after) = (shot.Choice, shot.Choice.Leaves);
        var workspace = new Workspace(_context);
        var lines = workspace.LinesOf(after.Layout);
        if (choice.Next.Pot is { } pot && lines.BallIn(pot.Line.Slot) == ball)
            return shot;
        var next = _context.Evaluation.At(after, lines, after.Layout.White.At, after.Layout, b => b == ball);
        return next.Pot is null
            ? shot
            : WithReasons(shot with { Choice = choice with { Next = next with { Others = choice.Next.Others } } }, workspace);
    }

    // ---- How it is likely to go ------------------------------------------------------------------------------------

    private Plan WithProspect(Plan plan, IReadOnlyList<Playout> playouts)
    {
        var from = plan.Shots[0].Before;
        var results = playouts.Select(p => p.Result).ToList();
        Estimate Share(Func<BreakResult, bool> which) => Sums.Of(playouts, p => which(p.Result) ? 1 : 0).Share;

        var longest = results.Max(r => r.Shots);
        List<Estimate> alive = [.. Enumerable.Range(0, longest + 1).Select(k => Share(r => r.Shots >= k))];
        // A break that clears the table does not end for want of a shot.
        var ends = Enumerable
            .Range(0, longest + 1)
            .Select(k => (Shot: k, Share: Share(r => r.Shots == k && !r.IsCleared)))
            .MaxBy(e => e.Share.Value);
        var (preferences, soFar) = (_context.Preferences, from.Frame.Break);
        Estimate? target = preferences.Target switch
        {
            PlanTarget.Score => Share(r => soFar + r.Points >= preferences.Score),
            PlanTarget.Clear => Share(r => r.IsCleared),
            _ => null,
        };
        return Alive(
            plan with
            {
                Prospect = new(
                    Value: Sums.Of(playouts, p => p.Controlled).Mean,
                    Points: PointsOf(playouts),
                    Median: results.Select(r => (double)r.Points).Order().ElementAt(playouts.Count / 2),
                    Target: target,
                    Cleared: Share(r => r.IsCleared),
                    EndsAt: ends.Shot,
                    EndsShare: ends.Share,
                    Alive: alive
                ),
            }
        );
    }

    /// <summary>Each shot with the share of breaks that get to it.</summary>
    private static Plan Alive(Plan plan) =>
        plan.Prospect is not { } prospect
            ? plan
            : plan with
            {
                Shots = [.. plan.Shots.Select((s, k) => s with { Alive = k < prospect.Alive.Count ? prospect.Alive[k] : default })],
            };
}
