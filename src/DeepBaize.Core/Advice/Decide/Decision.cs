using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Safety;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Decide;

/// <summary>A miss on one side.</summary>
/// <param name="Share">Of all strokes.</param>
/// <param name="Leave">Mean worth to the other player of what it leaves, points.</param>
public readonly record struct Miss(Estimate Share, Estimate Leave);

/// <summary>A pot on the same scale as the safeties: by both its misses.</summary>
/// <param name="Seen">The share of the ball that can be hit straight, 0–1.</param>
/// <param name="Gain">What is made of it if it goes in: its points and what follows, points.</param>
/// <param name="Thin">Or not hit.</param>
/// <param name="Value">Expected points: those made, less what the misses leave.</param>
/// <param name="Win">The chance to win the frame with it.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell it from the best line of all.</param>
/// <param name="BreakEven">
/// The chance of the pot at which it is worth as much as the best safety; null without one. Above 1: never, below 0: always.
/// </param>
/// <param name="Part">The part of the pocket to aim at so that the likelier miss is the safer one: −1 thick, +1 thin, 0 as it is.</param>
public sealed record Attack(
    Choice Choice,
    double Seen,
    double Gain,
    Miss Thick,
    Miss Thin,
    Estimate Value,
    Estimate Win,
    bool IsLevel,
    double? BreakEven,
    double Part
);

/// <summary>How near the call is.</summary>
/// <param name="Margin">Value of the best pot less that of the best safety or escape, points; null if one of them is missing.</param>
/// <param name="WinWithPot">Chance to win the frame by the best pot; null without one.</param>
/// <param name="WinWithSafety">By the best safety or escape.</param>
/// <param name="IsByFrame">The score is such that the lines are ranked by the chance to win, not by points.</param>
/// <param name="SnookersRequired">Penalties without which the frame is lost: then a snooker counts for more than what is left.</param>
public sealed record Verdict(Estimate? Margin, Estimate? WinWithPot, Estimate? WinWithSafety, bool IsByFrame, int SnookersRequired)
{
    /// <summary>Whether neither is apart from the other.</summary>
    public bool IsLevel => Margin is { } margin && margin.IsLevelWith(default);
}

/// <summary>Attack or defend: pots, straight safeties and, in a snooker, ways out of it, whatever is hidden.</summary>
/// <param name="White">Where the white is placed, if it is in hand: pots and escapes are played from there; m.</param>
/// <param name="SafetyWhite">Where it is placed for the safeties, which choose a place of their own; m.</param>
/// <param name="IsSnookered">An edge of every ball on is hidden.</param>
/// <param name="Touching">
/// A ball that the white touches: it must be played away from, and counts as struck if it is on; null if there is none.
/// </param>
public sealed record Decision(
    Vec2? White,
    Vec2? SafetyWhite,
    IReadOnlyList<Attack> Attacks,
    IReadOnlyList<SafetyOption> Safeties,
    IReadOnlyList<EscapeOption> Escapes,
    Verdict Verdict,
    bool IsSnookered,
    Ball? Touching
);

/// <summary>How far a decision is.</summary>
/// <param name="Looked">Share of the strokes examined on an ordinary table that was examined here, 0–1.</param>
public sealed record DecisionProgress(long Examined, double Share, double Looked, Decision Decision);
