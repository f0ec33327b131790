using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>Idea of a safety, named by its outcomes.</summary>
public enum SafetyIdea
{
    /// <summary>The first stroke of a frame: thin off an end red and round the table back to baulk.</summary>
    BreakOff,

    /// <summary>A ball is clipped thin and the white runs back to baulk.</summary>
    ThinClip,

    /// <summary>The other player is most likely snookered.</summary>
    Snooker,

    /// <summary>The object ball ends on a cushion, or nearly.</summary>
    BallToCushion,

    /// <summary>The white runs into another ball and stays there.</summary>
    Cannon,

    /// <summary>The ball that is struck comes back off its cushion and meets the white again.</summary>
    DoubleKiss,

    /// <summary>A pot whose miss is safe as well.</summary>
    ShotToNothing,

    /// <summary>The balls are kept where no pot is on.</summary>
    Containing,
}

/// <summary>How a safety is played.</summary>
/// <param name="Ball">The ball that the safety strikes.</param>
/// <param name="Fullness">How full, 1 full to 0 a miss.</param>
/// <param name="LeftSide">Of the ball as the player sees it.</param>
/// <param name="Seen">Share of the ball that can be hit straight, 0–1.</param>
/// <param name="IsAway">The white touches the ball and is played away from it, which counts as striking it (rule 8).</param>
public sealed record SafetyAim(Ball Ball, double Fullness, bool LeftSide, double Seen, bool IsAway, Stroke Stroke, Reach Reach);

/// <summary>How a safety is likely to come out, 0–1.</summary>
/// <param name="Snooker">That the other player is snookered.</param>
/// <param name="PotLeft">That a pot better than even is left, after a fair stroke or a foul: by strokes at several paces.</param>
/// <param name="Foul">Of a foul.</param>
/// <param name="Pots">That a ball on goes in.</param>
/// <param name="Baulk">That the white ends behind the baulk line.</param>
/// <param name="Tight">That the white ends tight on a cushion.</param>
/// <param name="RivalChance">Mean of the other player's chance at the best ball that is left; 0 where none is.</param>
public readonly record struct SafetyOdds(
    Estimate Snooker,
    Estimate PotLeft,
    Estimate Foul,
    Estimate Pots,
    Estimate Baulk,
    Estimate Tight,
    Estimate RivalChance
);

/// <summary>What a safety leaves.</summary>
/// <param name="Mean">To the other player, points.</param>
/// <param name="WorstTenth">Mean of the worst tenth.</param>
/// <param name="Meant">If it goes as meant.</param>
/// <param name="After">The table then.</param>
public sealed record SafetyLeaves(Estimate Mean, Estimate WorstTenth, Outlook Meant, Situation After);

/// <summary>What is drawn of a safety; m and seconds.</summary>
/// <param name="WhiteRests">Where the white ends, for the spread.</param>
/// <param name="BallRests">Where the ball that is struck ends.</param>
public sealed record SafetyDrawing(
    IReadOnlyList<PathPoint> WhitePath,
    IReadOnlyList<PathPoint> BallPath,
    IReadOnlyList<Vec2> WhiteRests,
    IReadOnlyList<Vec2> BallRests
);

/// <summary>A safety, judged by all that it may leave.</summary>
/// <param name="Value">Expected value, in the measure of the answer.</param>
/// <param name="Points">Points made, less those given and what the other player may expect.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell it from the best.</param>
public sealed record SafetyOption(
    SafetyIdea Idea,
    SafetyAim Aim,
    Route Route,
    SafetyOdds Odds,
    SafetyLeaves Leaves,
    Estimate Value,
    Estimate Points,
    bool IsLevel,
    SafetyDrawing Drawing
)
{
    /// <summary>Of a double kiss, that a pot better than even is left with a touch of side, either way; null of other ideas.</summary>
    public Estimate? PotLeftWithSide { get; init; }
}
