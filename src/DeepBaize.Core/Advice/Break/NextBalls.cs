using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Break;

/// <summary>A ball to play for: the simplest stroke of those that cannot be told apart, and what it leads to.</summary>
/// <param name="Ball">The ball to be on next.</param>
/// <param name="Target">The pot that is played first.</param>
/// <param name="Stroke">With the aim that pots it.</param>
/// <param name="Route">What the white does after its first contact.</param>
/// <param name="Pots">Share of the strokes that score.</param>
/// <param name="IsOn">Share that scores and leaves this ball on, with a pot better than even.</param>
/// <param name="AnyOn">Share that scores and leaves any ball on, with a pot better than even.</param>
/// <param name="Value">Of the stroke, in the measure of the answer.</param>
/// <param name="Next">The pot of this ball, if the stroke goes as meant.</param>
/// <param name="Cover">What is on if the stroke is a usual error of pace too hard or too soft.</param>
/// <param name="WhitePath">m and seconds.</param>
/// <param name="Area">Outline of the places that are as good for this ball as the one that is meant, m.</param>
public sealed record NextBall(
    Ball Ball,
    Target Target,
    Stroke Stroke,
    Reach Reach,
    Route Route,
    Estimate Pots,
    Estimate IsOn,
    Estimate AnyOn,
    Estimate Value,
    Quality Next,
    Cover Cover,
    IReadOnlyList<PathPoint> WhitePath,
    IReadOnlyList<Vec2> Area
)
{
    /// <summary>The balls after the stroke as it is meant.</summary>
    public required Layout After { get; init; }
}

/// <summary>The balls worth playing for, best first.</summary>
/// <param name="Unit">Name of the measure: "win", "points" or "target".</param>
public sealed record NextBallsAnswer(string Unit, IReadOnlyList<NextBall> Balls);

/// <summary>
/// Which ball to play for: for every ball that can be on after the first shot, the stroke that most often leaves it on. Which ball first,
/// how second, as coaches ask it (common practice, no source).
/// </summary>
public static class NextBalls
{
    // Strokes kept for each ball by a quick look, and sampled; balls reported.
    private const int KeptForEach = 8,
        Sampled = 32,
        Reported = 256,
        LeastReported = 64,
        MostBalls = 6;

    private const int LookedAt = 160;

    /// <summary>A ball that is left on less often than this is not worth playing for.</summary>
    private const double LeastShare = 0.1;

    private static readonly ErrorStream Choosing = ErrorStream.Named("next balls: choose"),
        Telling = ErrorStream.Named("next balls: tell");

    /// <summary>Finds the balls worth playing for.</summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static NextBallsAnswer Find(
        Situation from,
        PlanPreferences preferences,
        Player player,
        TableShape shape,
        Workers workers
    )
    {
        var context = new SearchContext(
            new(from.Frame, player, shape, preferences with { Next = null, Later = [] }),
            workers.Gate,
            workers.Cancel
        );
        context.Bound(from.Layout);
        var trials = TrialsOf(context, from);
        var distinct = TrialStrokes.Distinct(trials, context.Bounded(LookedAt, 40), perPot: context.Bounded(LookedAt, 40) / 3);
        // For each ball that is on after a stroke, how good its pot is from there.
        var leads = context.InParallel(distinct.Count, (workspace, i) => LeadsTo(context, workspace, distinct[i])).SelectMany(l => l);
        List<Lead> kept =
        [
            .. leads.GroupBy(l => l.Ball).SelectMany(g => g.OrderByDescending(l => l.Trial.Chance * l.Next.Chance).Take(KeptForEach)),
        ];
        var sampler = new StrokeSampler(context);
        var sampled = context.InParallel(kept.Count, (workspace, i) =>
            Sample(context, workspace, sampler, from, kept[i], Choosing, Sampled)
        );
        var best = kept.Zip(sampled)
            .GroupBy(l => l.First.Ball)
            .Select(g => Simplicity.Order(g, l => l.Second.IsOn, l => l.First.Trial.Penalty).First())
            .Where(l => l.Second.IsOn.Value >= LeastShare)
            .OrderByDescending(l => l.Second.Value.Value)
            .Take(MostBalls)
            .Select(l => l.First)
            .ToList();
        var told = context.InParallel(best.Count, (workspace, i) =>
            Told(context, workspace, best[i], from, Sample(context, workspace, sampler, from, best[i], Telling, Most(context)))
        );
        return new(context.Objective.Unit, [.. told.OrderByDescending(t => t.Value.Value)]);
    }

    private static int Most(SearchContext context) => context.Bounded(Reported, LeastReported);

    private static List<TrialStroke> TrialsOf(SearchContext context, Situation from)
    {
        var effort = Effort.Later.Within(context) with { OffJaws = true };
        var candidates = new PotCandidates(context).Find(from, effort, allKinds: true);
        return new TrialStrokes(context).OnGrid(from, candidates, effort);
    }

    private sealed record Lead(Ball Ball, TrialStroke Trial, Quality Next);

    private static List<Lead> LeadsTo(SearchContext context, Workspace workspace, TrialStroke trial)
    {
        var (leaves, found) = (trial.Outcome.Leaves, new List<Lead>());
        if (leaves.Frame.IsOver || leaves.Frame.InHand)
            return found;
        var lines = workspace.LinesOf(leaves.Layout);
        foreach (var slot in leaves.OnSlots())
        {
            var ball = leaves.Layout.Balls[slot].Ball;
            var next = context.Evaluation.At(leaves, lines, leaves.Layout.White.At, leaves.Layout, b => b == ball);
            if (next.Chance >= PositionJudge.Even)
                found.Add(new(ball, trial, next));
        }
        return found;
    }

    private readonly record struct Figures(Estimate Pots, Estimate IsOn, Estimate AnyOn, Estimate Value);

    private static Figures Sample(
        SearchContext context,
        Workspace workspace,
        StrokeSampler sampler,
        Situation from,
        Lead lead,
        ErrorStream stream,
        int strokes
    )
    {
        Sums pots = new(),
            isOn = new(),
            anyOn = new(),
            value = new();
        var scatter = sampler.ScatterOf(workspace, from, lead.Trial);
        for (var i = 0; i < strokes; i++)
        {
            var outcome = sampler.Draw(workspace, from, lead.Trial, scatter.Error(stream.At(i)), out var played);
            pots.Add(i, outcome.Scores);
            anyOn.Add(i, outcome.Scores && outcome.Holds);
            value.Add(i, outcome.Value);
            isOn.Add(i, outcome.Scores && outcome.Holds && IsOn(context, workspace, played.Leaves, lead.Ball));
        }
        return new(pots.Share, isOn.Share, anyOn.Share, value.Mean);
    }

    private static bool IsOn(SearchContext context, Workspace workspace, Situation leaves, Ball ball) =>
        !leaves.Frame.IsOver
        && context.Evaluation.At(leaves, workspace.LinesOf(leaves.Layout), leaves.Layout.White.At, leaves.Layout, b => b == ball).Chance
            >= PositionJudge.Even;

    private static NextBall Told(SearchContext context, Workspace workspace, Lead lead, Situation from, Figures figures)
    {
        var (trial, after) = (lead.Trial, lead.Trial.Outcome.Leaves);
        workspace.Play(from, trial.Stroke, default, trial.Of.Nominated);
        var path = ShotPath.Points(workspace.Record, from.Layout.Balls.Count, ShotPath.Drawn)[0];
        var route = Route.Of(workspace.Record);
        var pace = workspace.ScatterOf(from.Layout, trial.Stroke, context.Player.Skill).Pace;
        var area = PositionMap.AreaRound(
            after,
            (context.Evaluation, context.Objective),
            workspace.LinesOf(after.Layout),
            context.Shape,
            ball => ball == lead.Ball,
            context.Workers
        );
        return new(
            lead.Ball,
            trial.Of.Target,
            trial.Stroke,
            trial.Reach,
            route,
            figures.Pots,
            figures.IsOn,
            figures.AnyOn,
            figures.Value,
            lead.Next,
            Cover.Of(workspace, from, trial.Stroke, trial.Of.Nominated, pace),
            path,
            area
        )
        {
            After = after.Layout,
        };
    }
}
