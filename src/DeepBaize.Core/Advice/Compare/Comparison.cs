using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Compare;

/// <summary>A stroke that is laid beside others.</summary>
/// <param name="Id">Name by which the answer speaks of it.</param>
/// <param name="From">The table it is played from; with the white in hand, the place of the white may differ from stroke to stroke.</param>
/// <param name="Pot">The pot it is played for; null for a safety or an escape.</param>
/// <param name="Nominated">The colour or free ball that the player names; null if none has to be.</param>
public sealed record ComparedStroke(string Id, Situation From, Stroke Stroke, Pot? Pot, Ball? Nominated);

/// <summary>A small mistake in one of the knobs.</summary>
public enum Nudge
{
    /// <summary>Half a step of pace more.</summary>
    Harder,

    /// <summary>Half a step of pace less.</summary>
    Softer,

    /// <summary>The tip a quarter of a tip higher.</summary>
    Higher,

    /// <summary>The tip a quarter of a tip lower.</summary>
    Lower,

    /// <summary>The tip a quarter of a tip farther to the right.</summary>
    MoreRight,

    /// <summary>The tip a quarter of a tip farther to the left.</summary>
    MoreLeft,
}

/// <summary>What a small mistake does to a stroke.</summary>
/// <param name="Scores">Whether the stroke still scores, played with this mistake and no other.</param>
/// <param name="White">Where the white then stops, m; null if it goes in.</param>
/// <param name="Change">By how much the value changes, in the measure of the answer: the same errors with and without the mistake.</param>
public sealed record Nudged(Nudge Nudge, bool Scores, Vec2? White, Estimate Change);

/// <summary>Shares of the strokes played with errors, 0–1.</summary>
/// <param name="Scores">That score.</param>
/// <param name="Foul">That are fouls.</param>
/// <param name="Holds">Of those that score, the share after which the next pot is better than even, or the frame is over.</param>
/// <param name="LeavesPot">After which the other player has a pot better than even.</param>
/// <param name="Snookers">After which the other player is snookered.</param>
public sealed record ComparedOdds(Estimate Scores, Estimate Foul, Estimate Holds, Estimate LeavesPot, Estimate Snookers);

/// <summary>What is drawn of a stroke: the white's way and where it stops, m.</summary>
/// <param name="White">Where the white stops without error; null if it goes in.</param>
/// <param name="Spread">Outlines of the smallest area that holds 68 % of the places where the white stops.</param>
public sealed record ComparedDrawing(IReadOnlyList<PathPoint> WhitePath, Vec2? White, IReadOnlyList<IReadOnlyList<Vec2>> Spread);

/// <summary>A column of the comparison.</summary>
/// <param name="Value">Expected value, in the measure of the answer.</param>
/// <param name="Points">
/// Points made, less those given away and those that the other player may expect: an explanation, not the measure.
/// </param>
/// <param name="IfScores">Mean value of the outcomes that score; null if none does.</param>
/// <param name="IfNot">Mean value of the others; null if all score.</param>
/// <param name="Leaves">The table after the stroke played without error, as whoever comes to it finds it.</param>
/// <param name="Cover">What a usual error of pace leaves; null of a stroke that is not played for a pot.</param>
/// <param name="Route">What the white does after its first contact.</param>
/// <param name="Nudges">Empty until they have been played.</param>
public sealed record ComparedColumn(
    ComparedStroke Stroke,
    Reach Reach,
    Route Route,
    ComparedOdds Odds,
    Estimate Value,
    Estimate Points,
    Estimate? IfScores,
    Estimate? IfNot,
    PlayedStroke Leaves,
    Outlook Outlook,
    Cover? Cover,
    ComparedDrawing Drawing,
    IReadOnlyList<Nudged> Nudges
);

/// <summary>By how much one stroke is better than another, from the same errors.</summary>
/// <param name="Better">Id of the one that is worth more.</param>
/// <param name="By">Difference of the values; its error is smaller than those of the values added.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell the two apart, or the difference is too small to matter.</param>
/// <param name="ByChance">Part of the difference that comes from how often they score.</param>
/// <param name="ByPosition">Part that comes from what is left if they score.</param>
/// <param name="ByLeave">Part that comes from what is left if they do not: misses, fouls, safeties.</param>
public sealed record ComparedDifference(
    string Better,
    string Other,
    Estimate By,
    bool IsLevel,
    double ByChance,
    double ByPosition,
    double ByLeave
);

/// <summary>Progress of a comparison.</summary>
/// <param name="Unit">Name of the measure: "win" or "points".</param>
/// <param name="ModelError">Standard error of the measure itself, beside that of the strokes played.</param>
/// <param name="Examined">Number of strokes played.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last.</param>
/// <param name="Looked">Share of the strokes of an ordinary table that were played.</param>
/// <param name="Columns">In the order of the question; the advice's own stroke last.</param>
/// <param name="Advice">Id of the column that is the advice's stroke; null until it is known, or if it has none.</param>
/// <param name="Order">Ids, best first; empty until all that is compared has been played on.</param>
/// <param name="Differences">Each pair once, in that order.</param>
public sealed record Comparison(
    string Unit,
    double ModelError,
    long Examined,
    double Share,
    double Looked,
    IReadOnlyList<ComparedColumn> Columns,
    string? Advice,
    IReadOnlyList<string> Order,
    IReadOnlyList<ComparedDifference> Differences
);
