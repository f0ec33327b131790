using DeepBaize.Core.Escapes;
using DeepBaize.Core.Planning;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Safety;

/// <summary>A pot on the same scale as the safeties: by both its misses.</summary>
/// <param name="Gain">What is made of it if it goes in: its points and what follows, points.</param>
/// <param name="Thick">Share of all strokes that miss thick.</param>
/// <param name="ThickLeave">Mean worth to the other player of what such a miss leaves, points.</param>
/// <param name="Thin">Share that misses thin, or does not hit.</param>
/// <param name="ThinLeave">The same for a thin miss.</param>
/// <param name="Value">What may be expected of it: points made, less what the misses leave.</param>
/// <param name="BreakEven">The chance of the pot at which it is worth as much as the best safety; null without one. Above 1: never, below 0: always.</param>
/// <param name="Part">The part of the pocket to aim at so that the likelier miss is the safer one: −1 thick, +1 thin, 0 as it is.</param>
public sealed record Attack(Choice Choice, double Gain, double Thick, double ThickLeave, double Thin, double ThinLeave, double Value, double? BreakEven, double Part);

/// <summary>Attack or defend, and how near the call is.</summary>
/// <param name="IsSnookered">Then the escapes stand for the safeties.</param>
/// <param name="Margin">Value of the best pot less that of the best safety or escape, points; null if one of them is missing.</param>
/// <param name="WinWithPot">Chance to win the frame by the best pot; null without one.</param>
/// <param name="WinWithSafety">By the best safety or escape.</param>
/// <param name="SnookersRequired">Penalties without which the frame is lost: then a snooker counts for more than what is left.</param>
/// <param name="Touching">A ball that the white touches: it must be played away from, and counts as struck if it is on; null if there is none.</param>
public sealed record Decision(
    IReadOnlyList<Attack> Attacks, IReadOnlyList<Safety> Safeties, IReadOnlyList<Escape> Escapes, bool IsSnookered, double? Margin, double? WinWithPot, double? WinWithSafety, int SnookersRequired, Ball? Touching);

/// <summary>How far a decision is.</summary>
public sealed record DecisionProgress(long Examined, double Share, Decision Decision);

/// <summary>Pots, safeties and escapes in one ranked list. See docs/safety.md.</summary>
public sealed class Decider
{
    private const int MostAttacks = 3, MissSamples = 150;

    /// <summary>A miss is worth steering for if the other one leaves so much more, points.</summary>
    private const double WorthSteering = 0.5;

    private readonly PlanContext _context;
    private readonly LeaveJudge _judge;

    private Decider(PlanContext context, Skill rival) => (_context, _judge) = (context, new(rival, context.Player));

    /// <exception cref="InputException">No ball is on.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Decision Solve(
        Situation from, Skill skill, Skill rival, Player player, TableShape shape, FairGate? gate = null, IProgress<DecisionProgress>? progress = null, CancellationToken cancel = default)
    {
        if (from.Frame.IsOver || !from.OnSlots().Any()) throw new InputException("content.balls", "There is no ball on.", "at least one ball that is on, and a frame under way");
        return new Decider(new(skill, player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel), rival).Run(from, skill, rival, gate, progress);
    }

    private Decision Run(Situation from, Skill skill, Skill rival, FairGate? gate, IProgress<DecisionProgress>? progress)
    {
        var snookered = EscapeSearch.IsSnookered(from);
        Decision Now(IReadOnlyList<Attack> attacks, IReadOnlyList<Safety> safeties, IReadOnlyList<Escape> escapes) => Weighed(from, attacks, safeties, escapes, snookered);
        void Tell(double share, Decision decision) => progress?.Report(new(_context.Examined, share, decision));

        if (snookered)
        {
            var found = EscapeSearch.Solve(from, skill, rival, _context.Player, _context.Shape, gate, progress is null ? null : new Teller(p => { if (p.Share < 1) Tell(p.Share, Now([], [], p.Escapes)); }), _context.Cancel);
            var last = Now([], [], found);
            Tell(1, last);
            return last;
        }
        var safeties = new SafetySearch(_context, _judge).Find(from, first => Tell(0.25, Now([], first, [])));
        Tell(0.5, Now([], safeties, []));
        var choices = new ShotSearch(_context).Choose(from, Effort.Later).GroupBy(c => c.Pot).Select(g => g.First()).Take(MostAttacks).ToList();
        var attacks = _context.InParallel(choices.Count, (bench, i) => AttackOf(bench, from, choices[i], safeties.FirstOrDefault()?.Value));
        var decision = Now([.. attacks.OrderByDescending(a => a.Value)], safeties, []);
        Tell(1, decision);
        return decision;
    }

    /// <summary>Plays the pot with errors and sees on which side it is missed, and what that leaves.</summary>
    private Attack AttackOf(Bench bench, Situation from, Choice choice, double? safety)
    {
        var random = new Random(71);
        var skill = _context.Skill.Times(choice.Reach.ErrorFactor);
        var (thick, thin, thickLeave, thinLeave, given) = (0, 0, 0.0, 0.0, 0.0);
        for (var i = 0; i < MissSamples; i++)
        {
            var played = bench.Play(from, choice.Stroke, StrokeError.Draw(random, skill), choice.Nominated);
            if (played.Ruling.Points > 0) continue;
            var left = played.Ruling.Penalty + (played.Ruling.After.IsOver ? LeaveJudge.FrameWorth : _judge.Of(played.After, bench.LinesOf(played.After.Layout)).Worth);
            given += left;
            if (Spread.MissedThick(bench.Record, choice.Cut)) (thick, thickLeave) = (thick + 1, thickLeave + left);
            else (thin, thinLeave) = (thin + 1, thinLeave + left);
        }
        var misses = thick + thin;
        var mean = misses == 0 ? 0 : given / misses;
        // The search's value has its own small cost of a miss in it: taken out, and what is really left put in.
        var worth = _context.Worth;
        var gain = choice.Chance <= 0 ? 0 : (choice.Value + (1 - choice.Chance) * worth.MissCost + choice.Foul * worth.FoulCost) / choice.Chance;
        var (thickMean, thinMean) = (thick == 0 ? mean : thickLeave / thick, thin == 0 ? mean : thinLeave / thin);
        var value = choice.Chance * gain - (1 - choice.Chance) * mean;
        double? even = safety is { } s && gain + mean > 0 ? (s + mean) / (gain + mean) : null;
        var part = misses < 5 || Math.Abs(thickMean - thinMean) < WorthSteering ? 0 : thickMean < thinMean ? -1 : 1;
        return new(choice, gain, (double)thick / MissSamples, thickMean, (double)thin / MissSamples, thinMean, value, even, part);
    }

    private static Decision Weighed(Situation from, IReadOnlyList<Attack> attacks, IReadOnlyList<Safety> safeties, IReadOnlyList<Escape> escapes, bool snookered)
    {
        var required = from.Frame.SnookersRequired;
        // With penalties needed, what lays a snooker comes first.
        if (required > 0) safeties = [.. safeties.OrderByDescending(s => s.Value + s.Snooker * Values.LeastPenalty)];
        double? safe = safeties.Count > 0 ? safeties[0].Value : escapes.Count > 0 ? escapes[0].Value : null;
        double? pot = attacks.Count > 0 ? attacks[0].Value : null;
        return new(attacks, safeties, escapes, snookered, pot - safe, pot is { } p ? WinChance(from.Frame, p) : null, safe is { } s ? WinChance(from.Frame, s) : null, required, from.Touching);
    }

    /// <summary>
    /// The chance to win the frame if so many points more are to be expected than the other player makes: the lead against what the balls that are left make it swing by.
    /// A rough normal estimate, common practice, no source.
    /// </summary>
    public static double WinChance(Frame frame, double expected)
    {
        if (frame.IsOver) return frame.Winner == frame.Turn ? 1 : 0;
        const double swing = 3.5;
        var lead = frame.Lead + expected;
        // Behind by more than is left, only penalties help.
        if (frame.SnookersRequired > 0) lead -= 2 * (frame.SnookersRequired - 1) * Values.LeastPenalty;
        var z = lead / (swing * Math.Sqrt(frame.PointsLeft));
        return z >= 0 ? 0.5 + Normal.Within(z) / 2 : 0.5 - Normal.Within(-z) / 2;
    }

    private sealed class Teller(Action<EscapeProgress> tell) : IProgress<EscapeProgress>
    {
        public void Report(EscapeProgress value) => tell(value);
    }
}
