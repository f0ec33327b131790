using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Decide;

/// <summary>Pots, safeties and escapes in one ranked list. See docs/safety.md.</summary>
public sealed class Decider
{
    private const int MostAttacks = 3,
        AttackStrokes = 256;

    /// <summary>Least difference between the leaves of the two misses that makes one worth steering for, points.</summary>
    private const double WorthSteering = 0.5;

    private static readonly ErrorStream Telling = ErrorStream.Named("attacks: tell"),
        TellingRallies = ErrorStream.Named("decide: tell rallies");

    private readonly SearchContext _context;
    private readonly Situation _from,
        _safeFrom;
    private readonly LeaveJudge _judge;
    private readonly WinChance _win;
    private readonly Player _rival;

    /// <summary>The chances to win are those of rallies: then nothing else ranks.</summary>
    private bool _isByRallies;

    private Decider(SearchContext context, Situation from, Player rival)
    {
        (_context, _rival, _judge) = (context, rival, new(rival, context.Shape));
        _from = InHand.Placed(context, from);
        var strokes = new SafetyStrokes(context, _judge);
        _safeFrom = BreakOffs.IsOn(from) ? new BreakOffs(context, strokes).Placed(from) : InHand.PlacedForSafety(context, from, strokes);
        _win = new(from.Frame, context.Player, rival);
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
        var context = new SearchContext(player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel);
        context.Bound(from.Layout);
        return new Decider(context, from, rival).Run(progress);
    }

    private Decision Run(IProgress<DecisionProgress>? progress)
    {
        IReadOnlyList<Attack> attacks = [];
        IReadOnlyList<SafetyOption> safeties = [];
        IReadOnlyList<EscapeOption> escapes = [];
        using var heart = new Heartbeat<DecisionProgress>(progress, share =>
            new(_context.Examined, share, _context.TableShare, Compared(attacks, safeties, escapes))
        );

        safeties = new SafetySearch(_context, _judge, _win).Find(_safeFrom, first =>
        {
            safeties = first;
            heart.Tell(0.2);
        });
        heart.Tell(0.45);
        attacks = AttacksOf(safeties.FirstOrDefault()?.Value.Value);
        heart.Tell(_from.IsSnookered ? 0.6 : 0.95);
        if (_from.IsSnookered)
            escapes = EscapeSearch.Find(_context, _from, _judge, _win, (share, found) =>
            {
                escapes = found;
                heart.Tell(0.6 + 0.35 * share);
            });
        if (_from.Frame.IsBlackOnly && Math.Abs(_from.Frame.Lead) < Values.Black)
        {
            (attacks, safeties, escapes) = ByRallies(attacks, safeties, escapes);
            _isByRallies = true;
        }
        heart.Tell(1);
        return Compared(attacks, safeties, escapes);
    }

    /// <summary>
    /// At the last black the chance to win is that of the rallies by which the openings are judged too, for the lines that come into
    /// question.
    /// </summary>
    private (List<Attack>, List<SafetyOption>, List<EscapeOption>) ByRallies(
        IReadOnlyList<Attack> attacks,
        IReadOnlyList<SafetyOption> safeties,
        IReadOnlyList<EscapeOption> escapes
    )
    {
        const int attacked = 1,
            defended = 3,
            played = 64;
        var rallies = new Rallies(_context, new(_rival, _context.Shape, PlanPreferences.Default, _context.Gate, _context.Cancel));
        Estimate Wins(Situation from, Stroke stroke) => rallies.Wins(from, stroke, played, TellingRallies);
        return (
            [.. attacks.Take(attacked).Select(a => a with { Win = Wins(_from, a.Choice.Stroke) })],
            [.. safeties.Take(defended).Select(s => s with { Win = Wins(_safeFrom, s.Aim.Stroke) })],
            [.. escapes.Take(defended).Select(e => e with { Win = Wins(_from, e.Aim.Stroke) })]
        );
    }

    private List<Attack> AttacksOf(double? safety)
    {
        var choices = new ShotSearch(_context)
            .Choose(_from, Effort.Later.Within(_context) with { Reported = 2 * MostAttacks, MostReportStrokes = 1024 })
            .GroupBy(c => c.Pot with { Part = 0 })
            .Select(g => g.First())
            .Take(MostAttacks)
            .ToList();
        var attacks = _context.InParallel(choices.Count, (workspace, i) => AttackOf(workspace, choices[i], safety));
        return [.. attacks.OrderByDescending(a => a.Value.Value)];
    }

    /// <summary>Plays the pot with errors and sees on which side it is missed, and what that leaves.</summary>
    private Attack AttackOf(Workspace workspace, Choice choice, double? safety)
    {
        var scatter = workspace.ScatterOf(_from.Layout, choice.Stroke, _context.Player.Skill.Times(choice.Reach.ErrorFactor), choice.Pot);
        var (thick, thin, thickLeave, thinLeave, miss, given, win) = (
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums()
        );
        var potting = Spread.PottingDegrees(_from.Layout, choice.Stroke, choice.Target.Cut, workspace.Simulator, workspace.Record);
        for (var i = 0; i < _context.Bounded(AttackStrokes, 64); i++)
        {
            var played = workspace.Play(_from, choice.Stroke, scatter.Error(Telling.At(i)), choice.Nominated);
            var scores = played.Ruling.Points > 0;
            var isThick = !scores && Spread.MissedThick(workspace.Record, choice.Target.Cut, potting);
            var lines = workspace.LinesOf(played.Leaves.Layout);
            var leave = scores ? default : _judge.Of(played.Leaves, lines);
            var left = scores ? 0 : played.Ruling.Penalty + (played.Ruling.NextFrame.IsOver ? LeaveJudge.FrameWorth : leave.Worth);
            thick.Add(i, isThick);
            thin.Add(i, !scores && !isThick);
            miss.Add(i, !scores);
            given.Add(i, left);
            thickLeave.Add(i, isThick ? left : 0);
            thinLeave.Add(i, isThick ? 0 : left);
            win.Add(
                i,
                scores ? _win.After(played, workspace.Judge(played.Leaves).Chance) : _win.After(played, leave.Best.Chance, leave.Foul)
            );
        }
        var mean = given.For(miss);
        // The search's value has its own small cost of a miss in it: taken out, and what is really left put in.
        var evaluation = _context.Evaluation;
        var chance = choice.Odds.Chance;
        var gain =
            chance.Value <= 0
                ? 0
                : (choice.Value.Value + (1 - chance.Value) * evaluation.MissCost + choice.Odds.Foul.Value * evaluation.FoulCost)
                    / chance.Value;
        // What it gains is exact here: the error of the choice's own value is kept, beside that of what a miss leaves.
        var value = (choice.Value with { Value = chance.Value * gain }).Minus(chance.Times(-1, 1).Times(mean));
        double? even = safety is { } s && gain + mean.Value > 0 ? (s + mean.Value) / (gain + mean.Value) : null;
        var (thickMean, thinMean) = (thickLeave.For(thick), thinLeave.For(thin));
        var difference = thickMean.Value - thinMean.Value;
        var part =
            Math.Abs(difference) < WorthSteering || thickMean.IsLevelWith(thinMean) ? 0
            : difference < 0 ? -1
            : 1;
        return new(
            choice,
            LeaveJudge.SeenOf(_from, choice.Pot.Struck).Share,
            gain,
            new(thick.Share, thickMean),
            new(thin.Share, thinMean),
            value,
            win.Share,
            IsLevel: false,
            even,
            part
        );
    }

    private Decision Compared(IReadOnlyList<Attack> attacks, IReadOnlyList<SafetyOption> safeties, IReadOnlyList<EscapeOption> escapes)
    {
        var required = _from.Frame.SnookersRequired;
        // With penalties needed, what lays a snooker comes first.
        if (required > 0)
            safeties = [.. safeties.OrderByDescending(s => s.Value.Value + s.Odds.Snooker.Value * _from.Frame.LeastPenalty)];
        var isByFrame = _isByRallies || (required == 0 && IsByFrame(attacks, safeties, escapes));
        if (isByFrame)
            (attacks, safeties, escapes) = (
                [.. attacks.OrderByDescending(a => a.Win.Value)],
                [.. safeties.OrderByDescending(s => s.Win.Value)],
                [.. escapes.OrderByDescending(e => e.Win.Value)]
            );
        (attacks, safeties, escapes) = WithLevels(attacks, safeties, escapes, isByFrame);
        var safe = safeties.Select(s => (s.Value, s.Win)).Concat(escapes.Select(e => (e.Value, e.Win))).ToList();
        (Estimate Value, Estimate Win)? best = safe.Count == 0 ? null : safe.MaxBy(o => isByFrame ? o.Win.Value : o.Value.Value);
        if (safeties.Count > 0 && required > 0)
            best = safe[0];
        Estimate? margin = attacks.Count > 0 && best is { } other ? attacks[0].Value.Minus(other.Value) : null;
        var verdict = new Verdict(margin, attacks.Count > 0 ? attacks[0].Win : null, best?.Win, isByFrame, required);
        Vec2? PlaceOf(Situation situation) => situation.Frame.InHand ? situation.Layout.White.At : null;
        return new(PlaceOf(_from), PlaceOf(_safeFrom), attacks, safeties, escapes, verdict, _from.IsSnookered, _from.Touching);
    }

    /// <summary>Each line is held to the best of all, by what they are ranked by.</summary>
    private static (IReadOnlyList<Attack>, IReadOnlyList<SafetyOption>, IReadOnlyList<EscapeOption>) WithLevels(
        IReadOnlyList<Attack> attacks,
        IReadOnlyList<SafetyOption> safeties,
        IReadOnlyList<EscapeOption> escapes,
        bool isByFrame
    )
    {
        Estimate By(Estimate value, Estimate win) => isByFrame ? win : value;
        List<Estimate> all =
        [
            .. attacks.Select(a => By(a.Value, a.Win)),
            .. safeties.Select(s => By(s.Value, s.Win)),
            .. escapes.Select(e => By(e.Value, e.Win)),
        ];
        if (all.Count == 0)
            return (attacks, safeties, escapes);
        var best = all.MaxBy(e => e.Value);
        bool IsLevel(Estimate one) => one != best && one.IsLevelWith(best);
        return (
            [.. attacks.Select(a => a with { IsLevel = IsLevel(By(a.Value, a.Win)) })],
            [.. safeties.Select(s => s with { IsLevel = IsLevel(By(s.Value, s.Win)) })],
            [.. escapes.Select(e => e with { IsLevel = IsLevel(By(e.Value, e.Win)) })]
        );
    }

    /// <summary>
    /// Whether the chance to win the frame parts the lines otherwise than points do: where the one that makes most points is clearly not
    /// the one that wins most.
    /// </summary>
    private bool IsByFrame(IReadOnlyList<Attack> attacks, IReadOnlyList<SafetyOption> safeties, IReadOnlyList<EscapeOption> escapes)
    {
        if (_from.Frame is { Scores: (0, 0), IsBlackOnly: false } or { Exercise: not null })
            return false;
        List<(Estimate Value, Estimate Win)> lines =
        [
            .. attacks.Select(a => (a.Value, a.Win)),
            .. safeties.Select(s => (s.Value, s.Win)),
            .. escapes.Select(e => (e.Value, e.Win)),
        ];
        if (lines.Count < 2)
            return false;
        var (most, wins) = (lines.MaxBy(l => l.Value.Value), lines.MaxBy(l => l.Win.Value));
        return wins.Win.Value > most.Win.Value && !wins.Win.IsLevelWith(most.Win);
    }
}
