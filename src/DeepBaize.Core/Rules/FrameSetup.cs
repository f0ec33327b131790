namespace DeepBaize.Core.Rules;

/// <summary>What is said of a frame beside the balls that are left. Everything has a default: a frame that has just begun.</summary>
public sealed record FrameSetup
{
    /// <summary>Null: a red while there is one, else the colour of the least value.</summary>
    public BallOn? On { get; init; }

    /// <summary>Score of the first player.</summary>
    public int First { get; init; }

    /// <summary>Score of the second player.</summary>
    public int Second { get; init; }

    /// <summary>Who is at the table, 0 or 1.</summary>
    public int Turn { get; init; }

    /// <summary>Points of the present break.</summary>
    public int Break { get; init; }

    /// <summary>Whether a free ball was given.</summary>
    public bool FreeBall { get; init; }

    /// <summary>Whether the white is in hand.</summary>
    public bool InHand { get; init; }

    /// <summary>Misses of the player at the table in this turn of unbroken replays from one place.</summary>
    public int Misses { get; init; }

    /// <summary>Whether the black was spotted again after level scores.</summary>
    public bool IsRespotted { get; init; }

    /// <summary>Whether it is still to be drawn by lot who plays first at that black.</summary>
    public bool AwaitsLot { get; init; }

    /// <summary>The winner, 0 or 1, of a frame that is over; null before.</summary>
    public int? Winner { get; init; }

    /// <summary>The foul that the striker may answer; null if the last stroke was none.</summary>
    public Offence? Offence { get; init; }

    /// <summary>An exercise: the single colour that is on comes back each time it is potted.</summary>
    public bool Repeats { get; init; }

    /// <summary>An exercise on any layout in place of a frame; null: a frame.</summary>
    public Exercise? Exercise { get; init; }
}
