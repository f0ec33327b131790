using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Break;

/// <summary>
/// Plans a break: the first stroke and what else there was, the shots that follow if all goes as meant, and how it is likely to go. The
/// same question has the same answer, however many cores there are. See docs/planning.md.
/// </summary>
public sealed class BreakPlanner
{
    /// <summary>So many first shots are planned on, and so many told.</summary>
    private const int MostPlans = 3,
        MostAlternatives = 6;

    /// <summary>Every plan goes so deep, and the best one so much deeper, if there is anything left.</summary>
    private const int Depth = 4,
        BestDepth = 7;

    private const int BreaksOfBest = 32,
        BreaksOfOthers = 12;

    private readonly SearchContext _context;
    private readonly ShotSearch _search;
    private readonly IProgress<PlanProgress>? _progress;

    private BreakPlanner(SearchContext context, IProgress<PlanProgress>? progress) =>
        (_context, _search, _progress) = (context, new(context), progress);

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
    ) => new BreakPlanner(new(player, shape, preferences, gate ?? FairGate.Shared, cancel), progress).Run(from);

    private PlanProgress Run(Situation from)
    {
        var plans = new List<Plan>();
        IReadOnlyList<Alternative> alternatives = [];
        void Tell(double share) => _progress?.Report(new(_context.Examined, share, [.. plans], alternatives));

        var choices = _search.Choose(
            from,
            Effort.Full,
            first =>
            {
                // The first useful answer: the shot to play, before it has been refined.
                plans = [new([Explained(from, first[0])], null, false)];
                Tell(0.05);
            }
        );
        plans = [];
        if (choices.Count == 0)
            return new(_context.Examined, 1, [], []);
        var first = Ideas(choices);
        alternatives = [.. first.Select(c => AlternativeTo(first[0], c))];
        var ideas = first.Take(MostPlans).ToList();
        plans = [.. ideas.Select(c => new Plan([Explained(from, c)], null, false))];
        Tell(0.2);

        double work = ideas.Count * (Depth - 1) + BestDepth - Depth + 2 * ideas.Count,
            done = 0;
        for (var p = 0; p < plans.Count; p++)
        {
            while (plans[p] is { IsComplete: false } plan && plan.Shots.Count < Depth)
            {
                plans[p] = Extended(plan);
                Tell(0.2 + 0.8 * ++done / work);
            }
            plans[p] = WithProspect(plans[p], p == 0 ? BreaksOfBest : BreaksOfOthers);
            Tell(0.2 + 0.8 * Math.Min(work, done += 2) / work);
        }
        while (plans[0] is { IsComplete: false } best && best.Shots.Count < BestDepth)
        {
            plans[0] = Alive(Extended(best));
            Tell(0.2 + 0.8 * Math.Min(work, ++done) / work);
        }
        var result = new PlanProgress(_context.Examined, 1, plans, alternatives);
        _progress?.Report(result);
        return result;
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
        // Another ball or pocket is more of an alternative than another way to play the same.
        return [ideas[0], .. ideas.Skip(1).OrderBy(i => i.Pot == ideas[0].Pot ? 1 : 0).ThenByDescending(i => i.Value)];
    }

    private static double Apart(Choice a, Choice b) => a.Leaves.Layout.White.At.DistanceTo(b.Leaves.Layout.White.At);

    /// <summary>What it lacks, and in which part most: each is put in the best one's place, and what is lost by it counted.</summary>
    private static Alternative AlternativeTo(Choice best, Choice other)
    {
        if (ReferenceEquals(best, other))
            return new(other, Shortfall.None, 0);
        static double Leave(Choice c) => c.Chance <= 0 ? 0 : c.Value / c.Chance - c.Gain;
        var parts = new (Shortfall Part, double Loss)[]
        {
            (Shortfall.Chance, (best.Chance - other.Chance) * (best.Gain + Leave(best))),
            (Shortfall.Points, other.Chance * (best.Gain - other.Gain)),
            (Shortfall.Leave, other.Chance * (Leave(best) - Leave(other))),
        };
        var (part, _) = parts.MaxBy(p => p.Loss);
        if (part == Shortfall.Leave && other.Odds.Foul > best.Odds.Foul + 0.05)
            part = Shortfall.Foul;
        return new(other, part, best.Value - other.Value);
    }

    // ---- Shots that follow -----------------------------------------------------------------------------------------

    /// <summary>One shot more; complete if there is none.</summary>
    private Plan Extended(Plan plan)
    {
        var last = plan.Shots[^1];
        var after = last.Choice.Leaves;
        var next = after.Frame.IsOver ? null : _search.Choose(after, Effort.Later).FirstOrDefault();
        if (next is null)
            return plan with { IsComplete = true };
        List<PlanShot> shots = [.. plan.Shots.SkipLast(1), MeantFor(last, next.Nominated), Explained(after, next)];
        return plan with { Shots = shots, IsComplete = next.Outcome.Ruling.NextFrame.IsOver || next.Leaves.Frame.InHand };
    }

    private PlanShot Explained(Situation before, Choice choice)
    {
        var bench = new Bench(_context);
        bench.Play(before, choice.Stroke, default, choice.Nominated);
        var path = ShotPath.Points(bench.Record, before.Layout.Balls.Count, ShotPath.Drawn)[0];
        var arrival = Arrival.Of(bench.Record, choice.Stroke.ToStrike(), _context.Shape);
        var warnings = ShotWarnings.Of(bench.Record, before.Layout, choice.Stroke, bench.Simulator, _context.Shape, choice.Pot);
        var pace = _context.Player.Skill.PacePercent / 100;
        var cover = new Cover(Outcome(bench, before, choice, new(0, pace, 0, 0)), Outcome(bench, before, choice, new(0, -pace, 0, 0)));
        var ruling = choice.Outcome.Ruling;
        var points = ruling.NextFrame.IsOver ? before.Frame.Break + ruling.Points : choice.Leaves.Frame.Break;
        return WithReasons(new(before, choice, 1, points, new(arrival, path, []), cover, warnings, []), bench);
    }

    /// <summary>With the area and the reasons for the ball that is next.</summary>
    private PlanShot WithReasons(PlanShot shot, Bench bench)
    {
        var (choice, after) = (shot.Choice, shot.Choice.Leaves);
        var lines = bench.LinesOf(after.Layout);
        IReadOnlyList<Vec2> area = [];
        if (choice.Next.Pot is { } pot)
        {
            // One red is as good as another, but a colour is chosen.
            var next = lines.BallIn(pot.Line.Slot);
            area = PositionMap.AreaRound(
                after,
                _context.Worth,
                lines,
                _context.Shape,
                next.IsRed ? null : ball => ball == next,
                _context.Cancel
            );
        }
        shot = shot with { Drawing = shot.Drawing with { Area = area } };
        return shot with { Reasons = Reasons.Of(shot, bench.LinesOf(shot.Before.Layout), lines) };
    }

    /// <summary>
    /// A shot of which it is now known what it is for: not the ball that looked best after it, but the one that is played.
    /// </summary>
    private PlanShot MeantFor(PlanShot shot, Ball ball)
    {
        var (choice, after) = (shot.Choice, shot.Choice.Leaves);
        var bench = new Bench(_context);
        var lines = bench.LinesOf(after.Layout);
        if (choice.Next.Pot is { } pot && lines.BallIn(pot.Line.Slot) == ball)
            return shot;
        var next = _context.Worth.At(after, lines, after.Layout.White.At, after.Layout, b => b == ball);
        return next.Pot is null
            ? shot
            : WithReasons(shot with { Choice = choice with { Next = next with { Others = choice.Next.Others } } }, bench);
    }

    private static CoverOutcome Outcome(Bench bench, Situation before, Choice choice, in StrokeError error)
    {
        var played = bench.Play(before, choice.Stroke, error, choice.Nominated);
        var (layout, white) = (played.Leaves.Layout, played.Leaves.Layout.White.At);
        if (played.Ruling.Points == 0)
            return new(white, false, null, null, 0);
        var next = bench.Judge(played.Leaves);
        return new(white, true, next.Pot is { } pot ? layout.Balls[pot.Line.Slot].Ball : null, next.Pot?.Line.Pocket, next.Chance);
    }

    // ---- How it is likely to go ------------------------------------------------------------------------------------

    private Plan WithProspect(Plan plan, int breaks)
    {
        var shots = plan.Shots;
        var (skill, shape) = (_context.Player.Skill, _context.Shape);
        var results = _context.InParallel(
            breaks,
            (bench, i) =>
            {
                var isFirst = true;
                return BreakPlay.Play(
                    shots[0].Before,
                    situation =>
                    {
                        // The first shot as planned; after that the balls lie otherwise each time.
                        var choice = isFirst ? shots[0].Choice : _search.Glance(bench, situation);
                        isFirst = false;
                        return choice is null ? null : new(choice.Stroke, choice.Nominated, choice.Reach.ErrorFactor);
                    },
                    skill,
                    shape,
                    new Random(1000 + i)
                );
            }
        );
        var made = results.Select(r => (double)r.Points).Order().ToList();
        var longest = results.Max(r => r.Shots);
        List<double> alive = [.. Enumerable.Range(0, longest + 1).Select(k => (double)results.Count(r => r.Shots >= k) / breaks)];
        // A break that clears the table does not end for want of a shot.
        var ends = Enumerable
            .Range(0, longest + 1)
            .Select(k => (Shot: k, Share: (double)results.Count(r => r.Shots == k && !r.IsCleared) / breaks))
            .MaxBy(e => e.Share);
        var (preferences, soFar) = (_context.Preferences, shots[0].Before.Frame.Break);
        double? target = preferences.Target switch
        {
            PlanTarget.Score => (double)results.Count(r => soFar + r.Points >= preferences.Score) / breaks,
            PlanTarget.Clear => (double)results.Count(r => r.IsCleared) / breaks,
            _ => null,
        };
        return Alive(
            plan with
            {
                Prospect = new(
                    breaks,
                    made.Average(),
                    made[made.Count / 2],
                    target,
                    (double)results.Count(r => r.IsCleared) / breaks,
                    ends.Shot,
                    ends.Share,
                    alive
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
                Shots = [.. plan.Shots.Select((s, k) => s with { Alive = k < prospect.Alive.Count ? prospect.Alive[k] : 0 })],
            };
}
