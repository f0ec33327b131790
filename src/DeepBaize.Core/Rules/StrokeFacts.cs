using DeepBaize.Core.Table;

namespace DeepBaize.Core.Rules;

/// <summary>
/// What happened in a stroke, as far as the rules ask. No physics is in it: a referee who saw the stroke could write it down.
/// </summary>
/// <param name="First">The ball that the white struck first; null if none.</param>
/// <param name="Potted">Balls that went in, the white too.</param>
/// <param name="Nominated">The colour, or the free ball, that was named; null if none was.</param>
public sealed record StrokeFacts(Ball? First, IReadOnlyList<Ball> Potted, Ball? Nominated = null)
{
    /// <summary>A ball struck at the same moment as the first; which of the two is written down first makes no difference.</summary>
    public Ball? WithFirst { get; init; }

    /// <summary>Balls that the white touched before the stroke, and was played away from (rule 8).</summary>
    public IReadOnlyList<Ball> Touching { get; init; } = [];

    /// <summary>Balls that were forced off the table, the white too.</summary>
    public IReadOnlyList<Ball> OffTable { get; init; } = [];

    /// <summary>A ball that the white jumped over, as the rules define a jump shot; null if it did not.</summary>
    public Ball? JumpedOver { get; init; }

    /// <summary>
    /// A foul that the balls do not tell, with the ball concerned (the white, if it is none of them); null if there was none.
    /// </summary>
    public Ball? Other { get; init; }

    /// <summary>Whether the white ends snookered by the free ball that was nominated.</summary>
    public bool SnookersBehindFreeBall { get; init; }

    /// <summary>After a foul: whether the next striker is snookered, so that there is a free ball (rule 12).</summary>
    public bool LeavesSnookered { get; init; }

    /// <summary>Whether before the stroke a ball on lay open to be struck full in the face (rule 14).</summary>
    public bool FullBallOpen { get; init; }

    /// <summary>Whether the referee called a miss (rule 14).</summary>
    public bool MissCalled { get; init; }

    /// <summary>Balls that went in or off the table.</summary>
    public IEnumerable<Ball> Gone => Potted.Concat(OffTable);
}
