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

    /// <summary>An exercise: the single colour that is on comes back each time it is potted.</summary>
    public bool Repeats { get; init; }
}
