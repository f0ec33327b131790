using DeepBaize.Core.Physics;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Advice.BlackBall;

/// <summary>Kinds of first stroke at the re-spotted black.</summary>
public enum OpeningKind
{
    /// <summary>The older one: black and white end at opposite ends of the table, whichever is at which.</summary>
    Lengthwise,

    /// <summary>The newer one: the black to one side cushion, the white across to the other.</summary>
    Across,

    /// <summary>Whatever else the search finds.</summary>
    Other,
}

/// <summary>How an opening is likely to come out, 0–1.</summary>
/// <param name="Safe">That no pot better than even and no double better than one in four is left.</param>
/// <param name="PotLeft">That such a pot is left.</param>
/// <param name="DoubleLeft">That such a double is left.</param>
/// <param name="Tight">That the white is tight on a cushion.</param>
/// <param name="Foul">Of a foul, which loses.</param>
public readonly record struct OpeningOdds(Estimate Safe, Estimate PotLeft, Estimate DoubleLeft, Estimate Tight, Estimate Foul);

/// <summary>What is drawn of an opening; m and seconds.</summary>
public sealed record OpeningDrawing(IReadOnlyList<PathPoint> WhitePath, IReadOnlyList<PathPoint> BlackPath);

/// <summary>An opening, judged on this table at this skill.</summary>
/// <param name="White">Where it is placed in the D, m.</param>
/// <param name="Wins">Share of rallies, played out from it, that the one who opened wins.</param>
/// <param name="IsLevel">Whether the rallies cannot tell it from the best.</param>
public sealed record Opening(
    OpeningKind Kind,
    Vec2 White,
    Stroke Stroke,
    double Fullness,
    Route Route,
    OpeningOdds Odds,
    Estimate Wins,
    bool IsLevel,
    OpeningDrawing Drawing
);

/// <summary>How far the comparison is.</summary>
public sealed record BlackBallProgress(long Examined, double Share, IReadOnlyList<Opening> Openings);
