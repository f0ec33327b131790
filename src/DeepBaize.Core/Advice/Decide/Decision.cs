using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Decide;

/// <summary>A miss on one side.</summary>
/// <param name="Share">Of all strokes.</param>
/// <param name="Leave">Mean worth to the other player of what it leaves, points.</param>
public readonly record struct Miss(double Share, double Leave);

/// <summary>A pot on the same scale as the safeties: by both its misses.</summary>
/// <param name="Gain">What is made of it if it goes in: its points and what follows, points.</param>
/// <param name="Thin">Or not hit.</param>
/// <param name="Value">What may be expected of it: points made, less what the misses leave.</param>
/// <param name="BreakEven">
/// The chance of the pot at which it is worth as much as the best safety; null without one. Above 1: never, below 0: always.
/// </param>
/// <param name="Part">The part of the pocket to aim at so that the likelier miss is the safer one: −1 thick, +1 thin, 0 as it is.</param>
public sealed record Attack(Choice Choice, double Gain, Miss Thick, Miss Thin, double Value, double? BreakEven, double Part);

/// <summary>How near the call is.</summary>
/// <param name="Margin">Value of the best pot less that of the best safety or escape, points; null if one of them is missing.</param>
/// <param name="WinWithPot">Chance to win the frame by the best pot; null without one.</param>
/// <param name="WinWithSafety">By the best safety or escape.</param>
/// <param name="SnookersRequired">Penalties without which the frame is lost: then a snooker counts for more than what is left.</param>
public sealed record Verdict(double? Margin, double? WinWithPot, double? WinWithSafety, int SnookersRequired);

/// <summary>Attack or defend.</summary>
/// <param name="IsSnookered">Then the escapes stand for the safeties.</param>
/// <param name="Touching">
/// A ball that the white touches: it must be played away from, and counts as struck if it is on; null if there is none.
/// </param>
public sealed record Decision(
    IReadOnlyList<Attack> Attacks,
    IReadOnlyList<SafetyOption> Safeties,
    IReadOnlyList<EscapeOption> Escapes,
    Verdict Verdict,
    bool IsSnookered,
    Ball? Touching
);

/// <summary>How far a decision is.</summary>
public sealed record DecisionProgress(long Examined, double Share, Decision Decision);
