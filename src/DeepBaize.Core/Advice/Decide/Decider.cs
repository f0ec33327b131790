using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Decide;

/// <summary>Pots, safeties and escapes in one list, in one measure. See docs/safety.md.</summary>
public sealed class Decider
{
    private const int MostAttacks = 3,
        AttackStrokes = 128;

    /// <summary>Number of misses whose best pot left is looked for by strokes, as a correction of the quick estimate.</summary>
    private const int LookedAt = 16;

    /// <summary>Least difference between the leaves of the two misses that makes one worth steering for, points.</summary>
    private const double WorthSteering = 0.5;

    // Shares of the work that are done after the stages.
    private const double AtFirstPots = 0.1,
        AtPots = 0.4,
        AtSafeties = 0.5,
        AtReplies = 0.6;

    /// <summary>Stages of a decision.</summary>
    public static IReadOnlyList<SearchStage> StagesOf(Situation from) =>
        [
            .. BreakOffs.IsOn(from) ? [] : (SearchStage[])[new("pots", AtPots)],
            new("safeties", AtSafeties),
            .. from.IsSnookered ? (SearchStage[])[new("replies", AtReplies), new("escapes", 1)] : [new("replies", 1)],
        ];

    private static readonly ErrorStream Telling = ErrorStream.Named("attacks: tell");

    private readonly SearchContext _context;
    private readonly Situation _from,
        _safeFrom;

    private Decider(SearchContext context, Situation from)
    {
        _context = context;
        _from = InHand.Placed(context, from);
        var strokes = new SafetyStrokes(context);
        _safeFrom = BreakOffs.IsOn(from) ? new BreakOffs(context, strokes).Placed(from) : InHand.PlacedForSafety(context, from, strokes);
    }

    /// <exception cref="InputException">No ball is on.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Decision Solve(
        Situation from,
        Player player,
        Player rival,
        TableShape shape,
        FairGate? gate = null,
        IProgress<DecisionProgress>? progress = null,
        CancellationToken cancel = default
    )
    {
        if (from.Frame.IsOver || !from.OnSlots().Any())
            throw new InputException("content.balls", "There is no ball on.", "at least one ball that is on, and a frame under way");
        var question = new SearchQuestion(from.Frame, player, shape, PlanPreferences.Default, rival);
        var context = new SearchContext(question, gate ?? FairGate.Shared, cancel);
        context.Bound(from.Layout);
        return new Decider(context, from).Run(progress);
    }

    private Decision Run(IProgress<DecisionProgress>? progress)
    {
        List<Prospect> attacks = [],
            safeties = [],
            escapes = [];
        var isWeighed = false;
        using var heart = new Heartbeat<DecisionProgress>(progress, share =>
            new(_context.Examined, share, _context.TableShare, Compared([.. attacks, .. safeties, .. escapes], isWeighed))
        );

        // To open a frame nobody pots.
        if (!BreakOffs.IsOn(_from))
        {
            attacks = AttacksOf(first =>
            {
                attacks = first;
                heart.Tell(AtFirstPots);
            });
            heart.Tell(AtPots);
        }
        safeties = ProspectsOf(new SafetySearch(_context).Find(_safeFrom, first =>
            {
                safeties = ProspectsOf(first);
                heart.Tell(AtSafeties);
            }));
        heart.Tell(_from.IsSnookered ? AtReplies : 0.95);
        if (_from.IsSnookered)
            escapes = ProspectsOf(EscapeSearch.Find(_context, _from, (share, found) =>
                {
                    escapes = ProspectsOf(found);
                    heart.Tell(AtReplies + 0.35 * share);
                }));
        isWeighed = true;
        heart.Tell(1);
        return Compared([.. attacks, .. safeties, .. escapes], isWeighed);
    }

    private List<Prospect> ProspectsOf(IReadOnlyList<SafetyOption> safeties) =>
        [
            .. safeties.Select(s => new Prospect(
                $"safety {s.Idea} {s.Aim.Ball.Id} {(s.Aim.LeftSide ? "left" : "right")} {s.Route.Key}",
                ProspectKind.Safety,
                s.Value,
                s.Points,
                false
            )
            {
                Safety = s,
            }),
        ];

    private static List<Prospect> ProspectsOf(IReadOnlyList<EscapeOption> escapes) =>
        [
            .. escapes.Select(e => new Prospect(
                $"escape {e.Aim.Ball.Id} {WordOf(e.Way)} {Math.Sign(e.Aim.Stroke.SideTips)}",
                ProspectKind.Escape,
                e.Value,
                e.Points,
                false
            )
            {
                Escape = e,
            }),
        ];

    private static string WordOf(EscapeWay way) => string.Join('.', way.Cushions) + (way.OffJaw ? " jaw" : "");

    // ---- Pots ------------------------------------------------------------------------------------------------------

    private List<Prospect> AttacksOf(Action<List<Prospect>> first)
    {
        var effort = Effort.Later.Within(_context) with { Reported = 2 * MostAttacks, MostReportStrokes = 1024 };
        List<Choice> OfEachPot(IEnumerable<Choice> choices) =>
            [.. choices.GroupBy(c => c.Pot with { Part = 0 }).Select(g => g.First()).Take(MostAttacks)];
        var choices = OfEachPot(
            new ShotSearch(_context).Choose(_from, effort, found => first([.. OfEachPot(found).Select(c => AsFound(c))]))
        );
        return _context.InParallel(choices.Count, (workspace, i) => Judged(workspace, choices[i]));
    }

    private static ProspectKind KindOf(Choice choice) =>
        choice.Target.Cut.Kind switch
        {
            PotKind.Direct => ProspectKind.Pot,
            PotKind.Double => ProspectKind.Double,
            _ => ProspectKind.Plant,
        };

    private Prospect ProspectOf(Attack attack, in Estimate value, in Estimate points)
    {
        var (pot, layout) = (attack.Choice.Pot, _from.Layout);
        var way = pot.Struck == pot.Slot ? "" : $" by {layout.Balls[pot.Struck].Ball.Id}";
        var kind = KindOf(attack.Choice);
        return new($"{kind} {layout.Balls[pot.Slot].Ball.Id} {attack.Choice.Target.Cut.Pocket}{way}", kind, value, points, false)
        {
            Attack = attack,
        };
    }

    /// <summary>A pot before its misses have been looked at.</summary>
    private Prospect AsFound(Choice choice) =>
        ProspectOf(
            new(choice, PositionJudge.SeenOf(_from, choice.Pot.Struck).Share, choice.Gain + choice.Next.Value, default, default, null, 0),
            choice.Value,
            choice.Odds.Chance.Times(choice.Gain + choice.Next.Value)
        );

    /// <summary>Plays the pot with errors and sees on which side it is missed, and what that leaves.</summary>
    private Prospect Judged(Workspace workspace, Choice choice)
    {
        var scatter = workspace.ScatterOf(_from.Layout, choice.Stroke, _context.Player.Skill.Times(choice.Reach.ErrorFactor), choice.Pot);
        var (thick, thin, thickLeave, thinLeave) = (new Sums(), new Sums(), new Sums(), new Sums());
        var (scored, gain, points, looked, more) = (new Sums(), new Sums(), new Sums(), new Sums(), new Sums());
        var potting = Spread.PottingDegrees(_from.Layout, choice.Stroke, choice.Target.Cut, workspace.Simulator, workspace.Record);
        for (var i = 0; i < _context.Bounded(AttackStrokes, 64); i++)
        {
            var played = workspace.Play(_from, choice.Stroke, scatter.Error(Telling.At(i)), choice.Nominated);
            var scores = played.Ruling.Points > 0;
            var isThick = !scores && Spread.MissedThick(workspace.Record, choice.Target.Cut, potting);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = _context.Judge.Of(played.Leaves, lines);
            var made = scores ? played.Ruling.Points + leave.Worth : 0;
            var left = scores ? 0 : played.Ruling.Penalty + leave.Worth;
            thick.Add(i, isThick);
            thin.Add(i, !scores && !isThick);
            scored.Add(i, scores);
            gain.Add(i, made);
            points.Add(i, made - left);
            thickLeave.Add(i, isThick ? left : 0);
            thinLeave.Add(i, !scores && !isThick ? left : 0);
            if (scores || looked.Total >= LookedAt)
                continue;
            looked.Add(i, true);
            more.Add(i, ByStrokes(played, lines, leave));
        }
        var value = looked.Total > 0 ? choice.Value.Plus(more.For(looked).Times(1 - choice.Chance)) : choice.Value;
        var missed = choice.IfMissed + (looked.Total > 0 ? more.For(looked).Value : 0);
        var (thickMean, thinMean) = (thickLeave.For(thick), thinLeave.For(thin));
        var difference = thickMean.Value - thinMean.Value;
        var part =
            Math.Abs(difference) < WorthSteering || thickMean.IsLevelWith(thinMean) ? 0
            : difference < 0 ? -1
            : 1;
        var attack = new Attack(
            choice with
            {
                Value = value,
                IfMissed = missed,
            },
            PositionJudge.SeenOf(_from, choice.Pot.Struck).Share,
            gain.For(scored).Value,
            new(thick.Share, thickMean),
            new(thin.Share, thinMean),
            null,
            part
        );
        return ProspectOf(attack, value, points.Mean);
    }

    /// <summary>By how much the value of what a miss leaves changes if the best pot of it is looked for by strokes.</summary>
    private double ByStrokes(PlayedStroke played, Reading.PotLines lines, in Outlook leave)
    {
        var (frame, objective) = (played.Leaves.Frame, _context.Objective);
        if (frame.IsOver)
            return 0;
        return objective.Of(frame, _context.Judge.Closely(played.Leaves, lines, leave)) - objective.Of(frame, leave);
    }

    // ---- One list --------------------------------------------------------------------------------------------------

    private Decision Compared(List<Prospect> prospects, bool isWeighed)
    {
        prospects = [.. prospects.OrderByDescending(p => p.Value.Value)];
        var attack = prospects.Find(p => p.IsAttack);
        var safe = prospects.Find(p => !p.IsAttack);
        if (prospects.Count > 0)
        {
            var best = prospects[0].Value;
            prospects = prospects.ConvertAll(p =>
                p with
                {
                    IsLevel = p.Value != best && p.Value.IsLevelWith(best),
                    Attack = p.Attack is { } a ? a with { BreakEven = BreakEven(a.Choice, safe) } : null,
                }
            );
        }
        Estimate? margin = attack is not null && safe is not null ? attack.Value.Minus(safe.Value) : null;
        var verdict = isWeighed && prospects.Count > 0 ? new Verdict(prospects[0], margin, attack?.Value, safe?.Value) : null;
        Vec2? PlaceOf(Situation situation) => situation.Frame.InHand ? situation.Layout.White.At : null;
        return new(
            _context.Objective.Unit,
            _context.Objective.ModelErrorOf(prospects.Count > 0 ? prospects[0].Value.Value : 0.5),
            PlaceOf(_from),
            PlaceOf(_safeFrom),
            prospects,
            verdict,
            _from.Frame.SnookersRequired,
            _from.IsSnookered,
            _from.Touching
        );
    }

    /// <summary>The chance p of a pot at which p · (if it scores) + (1 − p) · (if it is missed) is worth the best safety.</summary>
    private static double? BreakEven(Choice choice, Prospect? safe) =>
        safe is null || choice.IfScores <= choice.IfMissed
            ? null
            : (safe.Value.Value - choice.IfMissed) / (choice.IfScores - choice.IfMissed);
}
