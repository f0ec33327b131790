using DeepBaize.Core.Advice.Compare;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Safety;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Comparing;

/// <summary>What a small mistake in one of the knobs does to a stroke.</summary>
/// <param name="Scores">Whether the stroke still scores, played with this mistake and no other.</param>
/// <param name="White">Where the white then stops, m; null if it goes in.</param>
/// <param name="Change">By how much the value changes, in the measure of the answer.</param>
public sealed record NudgeResult(Nudge Nudge, bool Scores, PlaceResult? White, Estimate Change);

/// <summary>A stroke that is compared. Shares 0–1, lengths m.</summary>
/// <param name="Id">choice-1 to choice-4 in the order of the question, or advice.</param>
/// <param name="White">Where the white is placed for it, m: it differs only with the white in hand.</param>
/// <param name="Cushions">That the white meets.</param>
/// <param name="Balls">That the white meets after its first contact.</param>
/// <param name="Scores">Share of the strokes that score.</param>
/// <param name="Holds">Of those that score, the share after which the next pot is better than even.</param>
/// <param name="LeavesPot">Share after which the other player has a pot better than even.</param>
/// <param name="Snookers">Share after which the other player is snookered.</param>
/// <param name="Value">Expected value, in the measure of the answer.</param>
/// <param name="Points">
/// Points made, less those given away and those that the other player may expect: beside the measure, not in it.
/// </param>
/// <param name="IfScores">Mean value of the outcomes that score; null if none does.</param>
/// <param name="IfNot">Mean value of the others; null if all score.</param>
/// <param name="StaysIn">Whether the player stays at the table if the stroke is played without error.</param>
/// <param name="Next">The table after the stroke played without error, as whoever comes to it finds it.</param>
/// <param name="Long">If the stroke is a usual error of pace too hard; null of a stroke without a pot.</param>
/// <param name="Short">If the stroke is a usual error of pace too soft; null of a stroke without a pot.</param>
/// <param name="Path">The white's way without error.</param>
/// <param name="Stop">Where the white stops without error; null if it goes in.</param>
/// <param name="Spread">Outlines of the smallest area that holds 68 % of the places where the white stops.</param>
/// <param name="Nudges">Small mistakes; empty until they have been played.</param>
public sealed record CompareColumnResult(
    string Id,
    StrokeEntry Stroke,
    PlaceResult White,
    ReachResult Reach,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> Balls,
    Estimate Scores,
    Estimate Foul,
    Estimate Holds,
    Estimate LeavesPot,
    Estimate Snookers,
    Estimate Value,
    Estimate Points,
    Estimate? IfScores,
    Estimate? IfNot,
    bool StaysIn,
    LeaveResult Next,
    CoverResult? Long,
    CoverResult? Short,
    IReadOnlyList<PointEntry> Path,
    PlaceResult? Stop,
    IReadOnlyList<IReadOnlyList<PlaceResult>> Spread,
    IReadOnlyList<NudgeResult> Nudges
)
{
    public static CompareColumnResult Of(ComparedColumn c)
    {
        var (from, odds, leaves) = (c.Stroke.From, c.Odds, c.Leaves.Leaves);
        return new(
            Id: c.Stroke.Id,
            Stroke: c.Stroke.Pot is { } pot ? StrokeEntries.Of(c.Stroke.Stroke, pot, from.Layout) : StrokeEntries.Free(c.Stroke.Stroke),
            White: PlaceResult.Of(from.Layout.White.At),
            Reach: ReachResult.Of(c.Reach),
            Cushions: [.. c.Route.Cushions.Select(x => x.Name())],
            Balls: [.. c.Route.Balls.Select(b => from.Layout.Balls[b].Ball.Id)],
            Scores: odds.Scores,
            Foul: odds.Foul,
            Holds: odds.Holds,
            LeavesPot: odds.LeavesPot,
            Snookers: odds.Snookers,
            Value: c.Value,
            Points: c.Points,
            IfScores: c.IfScores,
            IfNot: c.IfNot,
            StaysIn: leaves.Frame.Turn == from.Frame.Turn,
            Next: LeaveResult.Of(c.Outlook, leaves.Layout),
            Long: c.Cover is { } cover ? CoverResult.Of(cover.Long) : null,
            Short: c.Cover is { } also ? CoverResult.Of(also.Short) : null,
            Path: [.. c.Drawing.WhitePath.Select(PointEntry.Of)],
            Stop: c.Drawing.White is { } stop ? PlaceResult.Rounded(stop) : null,
            Spread: [.. c.Drawing.Spread.Select(o => o.Select(PlaceResult.Rounded).ToList())],
            Nudges:
            [
                .. c.Nudges.Select(n => new NudgeResult(
                    n.Nudge,
                    n.Scores,
                    n.White is { } white ? PlaceResult.Rounded(white) : null,
                    n.Change
                )),
            ]
        );
    }
}

/// <summary>By how much the better of two strokes is better, from the same errors.</summary>
/// <param name="Better">Id of the one that is worth more.</param>
/// <param name="Other">Id of the stroke that it is compared with.</param>
/// <param name="By">Difference of their values; its error is smaller than those of the values added.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell the two apart, or the difference is too small to matter.</param>
/// <param name="ByChance">Part that comes from how often they score.</param>
/// <param name="ByPosition">Part that comes from what is left if they score.</param>
/// <param name="ByLeave">Part that comes from what is left if they do not.</param>
public sealed record CompareDifferenceResult(
    string Better,
    string Other,
    Estimate By,
    bool IsLevel,
    double ByChance,
    double ByPosition,
    double ByLeave
);

/// <summary>An event of the stream: strokes side by side; which is better once all have been played on.</summary>
/// <param name="Wait">Only while it cannot begin yet.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last event.</param>
/// <param name="Looked">Share of the strokes of an ordinary table that were played.</param>
/// <param name="Unit">The measure of values: win, the chance to win the frame, or points.</param>
/// <param name="ModelError">Standard error of the measure itself, beside that of the strokes played.</param>
/// <param name="Columns">In the order of the question; the advice's own stroke last.</param>
/// <param name="Advice">Id of the column that is the advice's stroke; null until it is known.</param>
/// <param name="Order">Ids, best first; empty until all have been played on.</param>
/// <param name="Differences">Each pair once, in that order.</param>
public sealed record CompareProgress(
    SearchWait? Wait,
    long Examined,
    double Share,
    double Looked,
    string Unit,
    double ModelError,
    IReadOnlyList<CompareColumnResult> Columns,
    string? Advice,
    IReadOnlyList<string> Order,
    IReadOnlyList<CompareDifferenceResult> Differences
) : ISearchProgress<CompareProgress>
{
    /// <summary>Where the search is.</summary>
    public SearchStatus? Status { get; init; }

    /// <inheritdoc/>
    public CompareProgress With(SearchStatus status) => this with { Status = status };

    /// <summary>Before there is a place for it, or anything to tell.</summary>
    public static CompareProgress Waiting(SearchWait? wait) => new(wait, 0, 0, 1, "win", 0, [], null, [], []);

    public static CompareProgress Of(Comparison c) =>
        new(
            Wait: null,
            Examined: c.Examined,
            Share: c.Share,
            Looked: c.Looked,
            Unit: c.Unit,
            ModelError: c.ModelError,
            Columns: [.. c.Columns.Select(CompareColumnResult.Of)],
            Advice: c.Advice,
            Order: c.Order,
            Differences:
            [
                .. c.Differences.Select(d => new CompareDifferenceResult(
                    d.Better,
                    d.Other,
                    d.By,
                    d.IsLevel,
                    d.ByChance,
                    d.ByPosition,
                    d.ByLeave
                )),
            ]
        );
}
