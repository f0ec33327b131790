using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>How an escape is played.</summary>
/// <param name="Ball">The ball that the escape hits.</param>
/// <param name="Seen">Share of the ball that can be hit straight, 0–1.</param>
/// <param name="WindowDegrees">Of aim that still hits: twice as far as it may turn, whichever way.</param>
/// <param name="SoftestPace">At this aim it still hits from here.</param>
/// <param name="HardestPace">To here.</param>
public sealed record EscapeAim(
    Ball Ball,
    double Seen,
    Stroke Stroke,
    Reach Reach,
    double WindowDegrees,
    double SoftestPace,
    double HardestPace
);

/// <summary>The way of the white to the ball.</summary>
/// <param name="Cushions">
/// It meets before it, in order; a jaw counts as the cushion it ends. None: it goes round what is in the way.
/// </param>
/// <param name="OffJaw">A jaw is among them.</param>
/// <param name="Path">m and seconds.</param>
/// <param name="Contact">Where the white meets the first cushion, m; null without one.</param>
public sealed record EscapeWay(IReadOnlyList<Cushion> Cushions, bool OffJaw, IReadOnlyList<PathPoint> Path, Vec2? Contact)
{
    /// <summary>Whether the white meets no cushion: it swerves round what is in the way.</summary>
    public bool Swerves => Cushions.Count == 0;

    /// <summary>
    /// How far beside the mirror's point on the first cushion the true one lies, m; towards the yellow's side or baulk is negative.
    /// </summary>
    public double? CorrectionOf(MirrorAim? mirror) =>
        mirror is null || Contact is not { } contact ? null : Cushions[0].Along(contact) - Cushions[0].Along(mirror.Points[1]);
}

/// <summary>How an escape is likely to come out, 0–1.</summary>
/// <param name="Hit">That a ball on is hit first, at the player's skill.</param>
/// <param name="Fair">That it is hit and nothing else goes wrong.</param>
/// <param name="PotLeft">Of the hits, the share that leaves a pot better than even.</param>
/// <param name="FreeBall">Of the misses, the share after which the rival has a free ball.</param>
public readonly record struct EscapeOdds(Estimate Hit, Estimate Fair, Estimate PotLeft, Estimate FreeBall);

/// <summary>What an escape costs, points.</summary>
/// <param name="LeaveIfHit">Mean worth to the rival after a hit.</param>
/// <param name="Penalty">Of a miss.</param>
/// <param name="GivenAway">To the rival before it is hit, if every miss is called and played again.</param>
public readonly record struct EscapeCost(Estimate LeaveIfHit, int Penalty, Estimate GivenAway);

/// <summary>A way out of a snooker.</summary>
/// <param name="Value">Expected value, in the measure of the answer.</param>
/// <param name="Points">Points made, less those given and what the other player may expect.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell it from the best.</param>
/// <param name="Mirror">The plain aim for the same cushions, and its construction; null if there is none.</param>
public sealed record EscapeOption(
    EscapeAim Aim,
    EscapeWay Way,
    EscapeOdds Odds,
    EscapeCost Cost,
    Estimate Value,
    Estimate Points,
    bool IsLevel,
    MirrorAim? Mirror
);

/// <summary>How far a search for escapes is.</summary>
public sealed record EscapeProgress(long Examined, double Share, IReadOnlyList<EscapeOption> Escapes);
