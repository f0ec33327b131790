using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Planning;

/// <summary>A ball to play for, with the simplest stroke of those that cannot be told apart. Shares 0–1, lengths m.</summary>
/// <param name="Ball">The ball to be on next.</param>
/// <param name="Cushions">That the white meets after its first contact.</param>
/// <param name="Balls">That the white meets after its first contact.</param>
/// <param name="Pots">Share of the strokes that score.</param>
/// <param name="IsOn">Share that scores and leaves this ball on, with a pot better than even.</param>
/// <param name="AnyOn">Share that scores and leaves any ball on, with a pot better than even.</param>
/// <param name="Value">Of the stroke, in the measure of the answer.</param>
/// <param name="Next">The pot of this ball, if the stroke goes as meant.</param>
/// <param name="Long">If the stroke is a usual error of pace too hard.</param>
/// <param name="Short">If the stroke is a usual error of pace too soft.</param>
/// <param name="Path">The white's way without error.</param>
/// <param name="Area">Outline of the places that are as good for this ball as the one that is meant.</param>
public sealed record NextBallResult(
    string Ball,
    StrokeEntry Stroke,
    ReachResult Reach,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<string> Balls,
    Estimate Pots,
    Estimate IsOn,
    Estimate AnyOn,
    Estimate Value,
    QualityResult Next,
    CoverResult Long,
    CoverResult Short,
    IReadOnlyList<PointEntry> Path,
    IReadOnlyList<PlaceResult> Area
)
{
    /// <param name="layout">The table of the question.</param>
    /// <param name="b">A ball to play for.</param>
    public static NextBallResult Of(NextBall b, Layout layout) =>
        new(
            Ball: b.Ball.Id,
            Stroke: StrokeEntries.Of(b.Stroke, b.Target.Pot, layout),
            Reach: ReachResult.Of(b.Reach),
            Cushions: [.. b.Route.Cushions.Select(c => c.Name())],
            Balls: [.. b.Route.Balls.Select(slot => layout.Balls[slot].Ball.Id)],
            Pots: b.Pots,
            IsOn: b.IsOn,
            AnyOn: b.AnyOn,
            Value: b.Value,
            Next: QualityResult.Of(b.Next, b.After),
            Long: CoverResult.Of(b.Cover.Long),
            Short: CoverResult.Of(b.Cover.Short),
            Path: [.. b.WhitePath.Select(PointEntry.Of)],
            Area: [.. b.Area.Select(PlaceResult.Rounded)]
        );
}

/// <summary>The balls worth playing for, best first.</summary>
/// <param name="Unit">The measure of values: win, points or target.</param>
public sealed record NextBallsResult(string Unit, IReadOnlyList<NextBallResult> Balls);
