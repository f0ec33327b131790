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

namespace DeepBaize.Core.Advice.Decide;

/// <summary>Pots, safeties and escapes in one ranked list. See docs/safety.md.</summary>
public sealed class Decider
{
    private const int MostAttacks = 3,
        MissSamples = 150;

    /// <summary>A miss is worth steering for if the other one leaves so much more, points.</summary>
    private const double WorthSteering = 0.5;

    private readonly SearchContext _context;
    private readonly LeaveJudge _judge;

    private readonly Player _rival;

    private Decider(SearchContext context, Player rival) => (_context, _rival, _judge) = (context, rival, new(rival));

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
        return new Decider(new(player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel), rival).Run(from, gate, progress);
    }

    private Decision Run(Situation from, FairGate? gate, IProgress<DecisionProgress>? progress)
    {
        var snookered = from.IsSnookered;
        Decision Now(IReadOnlyList<Attack> attacks, IReadOnlyList<SafetyOption> safeties, IReadOnlyList<EscapeOption> escapes) =>
            Weighed(from, attacks, safeties, escapes, snookered);
        void Tell(double share, Decision decision) => progress?.Report(new(_context.Examined, share, decision));

        if (snookered)
        {
            var found = EscapeSearch.Solve(
                from,
                _context.Player,
                _rival,
                _context.Shape,
                gate,
                progress is null
                    ? null
                    : new Teller(p =>
                    {
                        if (p.Share < 1)
                            Tell(p.Share, Now([], [], p.Escapes));
                    }),
                _context.Cancel
            );
            var last = Now([], [], found);
            Tell(1, last);
            return last;
        }
        var safeties = new SafetySearch(_context, _judge).Find(from, first => Tell(0.25, Now([], first, [])));
        Tell(0.5, Now([], safeties, []));
        var choices = new ShotSearch(_context)
            .Choose(from, Effort.Later)
            .GroupBy(c => c.Pot)
            .Select(g => g.First())
            .Take(MostAttacks)
            .ToList();
        var attacks = _context.InParallel(choices.Count, (bench, i) => AttackOf(bench, from, choices[i], safeties.FirstOrDefault()?.Value));
        var decision = Now([.. attacks.OrderByDescending(a => a.Value)], safeties, []);
        Tell(1, decision);
        return decision;
    }

    /// <summary>Plays the pot with errors and sees on which side it is missed, and what that leaves.</summary>
    private Attack AttackOf(Bench bench, Situation from, Choice choice, double? safety)
    {
        var random = new Random(71);
        var skill = _context.Player.Skill.Times(choice.Reach.ErrorFactor);
        var (thick, thin, thickLeave, thinLeave, given) = (0, 0, 0.0, 0.0, 0.0);
        for (var i = 0; i < MissSamples; i++)
        {
            var played = bench.Play(from, choice.Stroke, StrokeError.Draw(random, skill), choice.Nominated);
            if (played.Ruling.Points > 0)
                continue;
            var left =
                played.Ruling.Penalty
                + (
                    played.Ruling.NextFrame.IsOver
                        ? LeaveJudge.FrameWorth
                        : _judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout)).Worth
                );
            given += left;
            if (Spread.MissedThick(bench.Record, choice.Target.Cut))
                (thick, thickLeave) = (thick + 1, thickLeave + left);
            else
                (thin, thinLeave) = (thin + 1, thinLeave + left);
        }
        var misses = thick + thin;
        var mean = misses == 0 ? 0 : given / misses;
        // The search's value has its own small cost of a miss in it: taken out, and what is really left put in.
        var worth = _context.Worth;
        var gain =
            choice.Chance <= 0
                ? 0
                : (choice.Value + (1 - choice.Chance) * worth.MissCost + choice.Odds.Foul * worth.FoulCost) / choice.Chance;
        var (thickMean, thinMean) = (thick == 0 ? mean : thickLeave / thick, thin == 0 ? mean : thinLeave / thin);
        var value = choice.Chance * gain - (1 - choice.Chance) * mean;
        double? even = safety is { } s && gain + mean > 0 ? (s + mean) / (gain + mean) : null;
        var part =
            misses < 5 || Math.Abs(thickMean - thinMean) < WorthSteering ? 0
            : thickMean < thinMean ? -1
            : 1;
        return new(choice, gain, new((double)thick / MissSamples, thickMean), new((double)thin / MissSamples, thinMean), value, even, part);
    }

    private static Decision Weighed(
        Situation from,
        IReadOnlyList<Attack> attacks,
        IReadOnlyList<SafetyOption> safeties,
        IReadOnlyList<EscapeOption> escapes,
        bool snookered
    )
    {
        var required = from.Frame.SnookersRequired;
        // With penalties needed, what lays a snooker comes first.
        if (required > 0)
            safeties = [.. safeties.OrderByDescending(s => s.Value + s.Odds.Snooker * from.Frame.LeastPenalty)];
        double? safe =
            safeties.Count > 0 ? safeties[0].Value
            : escapes.Count > 0 ? escapes[0].Value
            : null;
        double? pot = attacks.Count > 0 ? attacks[0].Value : null;
        var verdict = new Verdict(
            Margin: pot - safe,
            WinWithPot: pot is { } p ? WinChance.Of(from.Frame, p) : null,
            WinWithSafety: safe is { } s ? WinChance.Of(from.Frame, s) : null,
            required
        );
        return new(attacks, safeties, escapes, verdict, snookered, from.Touching);
    }

    private sealed class Teller(Action<EscapeProgress> tell) : IProgress<EscapeProgress>
    {
        public void Report(EscapeProgress value) => tell(value);
    }
}
