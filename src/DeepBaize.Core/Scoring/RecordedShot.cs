namespace DeepBaize.Core.Scoring;

/// <summary>How a shot of a recorded frame came out.</summary>
public enum ShotKind
{
    /// <summary>A pot.</summary>
    Pot,

    /// <summary>Played at a pot, and missed.</summary>
    Miss,

    /// <summary>A safety.</summary>
    Safety,

    /// <summary>A foul.</summary>
    Foul,

    /// <summary>The player at the table gives the frame up.</summary>
    Concede,

    /// <summary>The referee gives the frame to a player.</summary>
    Award,

    /// <summary>The black is on its spot again with level scores: it was drawn by lot who plays first.</summary>
    Lot,
}

/// <summary>Kinds of stroke, as players count them.</summary>
public enum StrokeTag
{
    /// <summary>With follow.</summary>
    Follow,

    /// <summary>With screw.</summary>
    Screw,

    /// <summary>With stun.</summary>
    Stun,

    /// <summary>With side.</summary>
    Side,

    /// <summary>With a cannon.</summary>
    Cannon,

    /// <summary>With the rest.</summary>
    Rest,
}

/// <summary>Why a break ended: the error, as players name it.</summary>
public enum EndReason
{
    /// <summary>Missed thick.</summary>
    Thick,

    /// <summary>Missed thin.</summary>
    Thin,

    /// <summary>Too hard.</summary>
    TooHard,

    /// <summary>Too soft.</summary>
    TooSoft,

    /// <summary>With side that was not meant.</summary>
    UnmeantSide,

    /// <summary>Out of position.</summary>
    OutOfPosition,

    /// <summary>Nothing was on.</summary>
    NothingOn,

    /// <summary>The wrong shot was chosen.</summary>
    WrongShot,
}

/// <summary>A place on the table, m.</summary>
public sealed record Place(double X, double Y);

/// <summary>A shot as it is written down. Balls by name: red, yellow … black.</summary>
public sealed record RecordedShot
{
    /// <summary>What the shot was.</summary>
    public required ShotKind Kind { get; init; }

    /// <summary>Of a pot, the balls that went in.</summary>
    public IReadOnlyList<string> Potted { get; init; } = [];

    /// <summary>Of a foul, what it is worth: 4 to 7.</summary>
    public int Penalty { get; init; }

    /// <summary>Of a foul: how many reds went in or off the table with it.</summary>
    public int RedsLost { get; init; }

    /// <summary>Of a foul: the white went in, and is played from the D.</summary>
    public bool InOff { get; init; }

    /// <summary>Of a foul: a miss was called, for no ball on was struck first.</summary>
    public bool MissCalled { get; init; }

    /// <summary>
    /// Of a miss: a ball on lay open to be struck full in the face. Then it counts towards the three that lose the frame.
    /// </summary>
    public bool FullBall { get; init; } = true;

    /// <summary>Of a foul: the next striker is snookered, and has a free ball.</summary>
    public bool FreeBall { get; init; }

    /// <summary>Of a foul: the offender is asked to play again, from where the balls stopped.</summary>
    public bool PlayAgain { get; init; }

    /// <summary>Of a miss: the balls are put back, and the offender plays again from there.</summary>
    public bool Replaced { get; init; }

    /// <summary>Of a frame awarded, or of the lot for a re-spotted black: which player, 0 or 1.</summary>
    public int Player { get; init; }

    /// <summary>Kinds of stroke.</summary>
    public IReadOnlyList<StrokeTag> Tags { get; init; } = [];

    /// <summary>Why the visit ended, if that was said.</summary>
    public EndReason? Why { get; init; }

    /// <summary>Where the white came to rest, if it was noted.</summary>
    public Place? White { get; init; }
}
