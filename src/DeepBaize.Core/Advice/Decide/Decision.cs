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

/// <summary>A pot, by both its misses.</summary>
/// <param name="Seen">The share of the ball that can be hit straight, 0–1.</param>
/// <param name="Gain">What is made of it if it goes in: its points and those that may be expected to follow.</param>
/// <param name="Thin">Or not hit.</param>
/// <param name="BreakEven">
/// The chance of the pot at which it is worth as much as the best safety or escape; null without one. Above 1: never, below 0: always.
/// </param>
/// <param name="Part">The part of the pocket to aim at so that the likelier miss is the safer one: −1 thick, +1 thin, 0 as it is.</param>
public sealed record Attack(Choice Choice, double Seen, double Gain, Miss Thick, Miss Thin, double? BreakEven, double Part);

/// <summary>Kinds of what can be played.</summary>
public enum ProspectKind
{
    /// <summary>A ball straight into a pocket.</summary>
    Pot,

    /// <summary>One object ball pots another.</summary>
    Plant,

    /// <summary>A pot off a cushion.</summary>
    Double,

    /// <summary>A safety.</summary>
    Safety,

    /// <summary>A way out of a snooker.</summary>
    Escape,
}

/// <summary>Something that can be played, valued in the measure of the answer. One of attack, safety and escape is there.</summary>
/// <param name="Id">Names the idea (kind, ball, pocket or route): it does not change while a search goes on.</param>
/// <param name="Value">In the measure of the answer, with the error of the strokes played.</param>
/// <param name="Points">Points made, less those given and what the other player may expect: an explanation, not the measure.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell it from the best of all.</param>
public sealed record Prospect(string Id, ProspectKind Kind, Estimate Value, Estimate Points, bool IsLevel)
{
    /// <summary>Of a pot, a plant or a double.</summary>
    public Attack? Attack { get; init; }

    /// <summary>Of a safety.</summary>
    public SafetyOption? Safety { get; init; }

    /// <summary>Of an escape.</summary>
    public EscapeOption? Escape { get; init; }

    /// <summary>Whether it is played to pot a ball.</summary>
    public bool IsAttack => Attack is not null;
}

/// <summary>How near the call is.</summary>
/// <param name="Best">What to play.</param>
/// <param name="Margin">
/// Value of the best pot less that of the best safety or escape, in the measure; null if one of them is missing.
/// </param>
/// <param name="WithPot">Value of the best pot; null without one.</param>
/// <param name="WithSafety">Value of the best safety or escape; null without one.</param>
public sealed record Verdict(Prospect Best, Estimate? Margin, Estimate? WithPot, Estimate? WithSafety)
{
    /// <summary>Whether neither is apart from the other.</summary>
    public bool IsLevel => Margin is { } margin && margin.IsLevelWith(default);
}

/// <summary>Attack or defend: pots, straight safeties and, in a snooker, ways out of it, whatever is hidden.</summary>
/// <param name="Unit">Name of the measure: "win" or "points".</param>
/// <param name="ModelError">Standard error of the measure itself, beside that of the strokes played; from calibration.</param>
/// <param name="White">Where the white is placed, if it is in hand: pots and escapes are played from there; m.</param>
/// <param name="SafetyWhite">Where it is placed for the safeties; m.</param>
/// <param name="Prospects">Best first, in one measure.</param>
/// <param name="Verdict">Null until pots and safeties have both been weighed, or where nothing can be played.</param>
/// <param name="SnookersRequired">Penalties without which the frame is lost.</param>
/// <param name="IsSnookered">By the rules.</param>
/// <param name="Touching">A ball that the white touches; null if there is none.</param>
public sealed record Decision(
    string Unit,
    double ModelError,
    Vec2? White,
    Vec2? SafetyWhite,
    IReadOnlyList<Prospect> Prospects,
    Verdict? Verdict,
    int SnookersRequired,
    bool IsSnookered,
    Ball? Touching
)
{
    /// <summary>The pots, best first.</summary>
    public IReadOnlyList<Prospect> Attacks => [.. Prospects.Where(p => p.Attack is not null)];

    /// <summary>The safeties, best first.</summary>
    public IReadOnlyList<SafetyOption> Safeties => [.. Prospects.Select(p => p.Safety).OfType<SafetyOption>()];

    /// <summary>The escapes, best first.</summary>
    public IReadOnlyList<EscapeOption> Escapes => [.. Prospects.Select(p => p.Escape).OfType<EscapeOption>()];
}

/// <summary>How far a decision is.</summary>
/// <param name="Looked">Share of the strokes examined on an ordinary table that was examined here, 0–1.</param>
public sealed record DecisionProgress(long Examined, double Share, double Looked, Decision Decision);
