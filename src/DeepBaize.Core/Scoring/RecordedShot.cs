using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Scoring;

/// <summary>How a shot of a recorded frame came out.</summary>
public enum ShotKind
{
    Pot,

    /// <summary>Played at a pot, and missed.</summary>
    Miss,
    Safety,
    Foul,
    Concede,
}

/// <summary>Kinds of stroke, as players count them.</summary>
public enum StrokeTag
{
    Follow,
    Screw,
    Stun,
    Side,
    Cannon,
    Rest,
}

/// <summary>Why a break ended: the error, as players name it.</summary>
public enum EndReason
{
    Thick,
    Thin,
    TooHard,
    TooSoft,
    UnmeantSide,
    OutOfPosition,
    NothingOn,
    WrongShot,
}

/// <summary>A place on the table, m.</summary>
public sealed record Place(double X, double Y);

/// <summary>A shot as it is written down. Balls by name: red, yellow … black.</summary>
public sealed record RecordedShot
{
    public required ShotKind Kind { get; init; }

    /// <summary>Of a pot, the balls that went in.</summary>
    public IReadOnlyList<string> Potted { get; init; } = [];

    /// <summary>Of a foul, what it is worth: 4 to 7.</summary>
    public int Penalty { get; init; }

    /// <summary>Of a foul: how many reds went in or off the table with it.</summary>
    public int RedsLost { get; init; }

    /// <summary>Of a foul: the white went in, and is played from the D.</summary>
    public bool InOff { get; init; }

    /// <summary>Of a foul: a miss was called, with a ball on in sight full.</summary>
    public bool MissCalled { get; init; }

    /// <summary>Of a foul: the next striker is snookered, and has a free ball.</summary>
    public bool FreeBall { get; init; }

    /// <summary>Of a foul: the offender is asked to play again.</summary>
    public bool PlayAgain { get; init; }
    public IReadOnlyList<StrokeTag> Tags { get; init; } = [];
    public EndReason? Why { get; init; }

    /// <summary>Where the white came to rest, if it was noted.</summary>
    public Place? White { get; init; }
}
