using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>Why a stroke was a foul.</summary>
public enum FoulReason
{
    /// <summary>The white went in.</summary>
    InOff,

    /// <summary>The white struck no ball.</summary>
    MissedAll,

    /// <summary>The first ball struck was not on.</summary>
    WrongBallFirst,

    /// <summary>A ball that was not on went in.</summary>
    WrongBallPotted,

    /// <summary>Two balls were struck at once, other than two reds or the free ball and a ball on (rule 6).</summary>
    TwoAtOnce,

    /// <summary>A ball left the table.</summary>
    OffTable,

    /// <summary>The white jumped over a ball, or part of it, before it struck one.</summary>
    JumpShot,

    /// <summary>After a foul the white was left snookered behind the free ball.</summary>
    SnookeredBehindFreeBall,

    /// <summary>
    /// A touching ball was moved, a foot was off the floor, a ball was touched with something other than the tip: whatever the referee sees
    /// and the balls do not tell.
    /// </summary>
    Other,
}

/// <summary>How a stroke is ruled.</summary>
/// <param name="Points">To the striker; 0 after a foul.</param>
/// <param name="Penalty">To the opponent.</param>
/// <param name="Spotted">Colours to be spotted.</param>
/// <param name="NextFrame">The frame after it.</param>
public sealed record Ruling(int Points, int Penalty, IReadOnlyList<FoulReason> Fouls, IReadOnlyList<Ball> Spotted, Frame NextFrame)
{
    /// <summary>Whether the stroke was a foul.</summary>
    public bool IsFoul => Fouls.Count > 0;

    /// <summary>Whether it is a foul and a miss, called or owed (rule 14): then the next player may have the balls put back.</summary>
    public bool IsMiss => NextFrame.Offence is { IsMiss: true };
}
