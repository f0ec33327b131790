namespace DeepBaize.Core.Valuing;

/// <summary>What a break is played for.</summary>
public enum PlanTarget
{
    /// <summary>To win the frame; in an exercise, as many points as can be expected.</summary>
    Frame,

    /// <summary>As many points as can be expected.</summary>
    MostPoints,

    /// <summary>A break of so many points, however it is made.</summary>
    Score,

    /// <summary>All balls.</summary>
    Clear,
}

/// <summary>How much a miss is minded.</summary>
public enum Risk
{
    /// <summary>A miss is minded more than it costs.</summary>
    Careful,

    /// <summary>A miss is minded as much as it costs.</summary>
    Balanced,

    /// <summary>A miss is minded less than it costs.</summary>
    Bold,
}

/// <summary>What a player asks of a plan.</summary>
/// <param name="Score">Points that the break is to reach; counts with <see cref="PlanTarget.Score"/>.</param>
/// <param name="PlainOnly">No side.</param>
/// <param name="AvoidCannons">The white is to run into nothing after the pot.</param>
public sealed record PlanPreferences(
    PlanTarget Target = PlanTarget.Frame,
    int Score = 0,
    Risk Risk = Risk.Balanced,
    bool PlainOnly = false,
    bool AvoidCannons = false
)
{
    /// <summary>The frame, balanced, all strokes allowed.</summary>
    public static PlanPreferences Default { get; } = new();

    /// <exception cref="InputException">A score that no break can reach.</exception>
    public PlanPreferences Checked(int breakSoFar, int highest, string path = "preferences")
    {
        if (!Enum.IsDefined(Target))
            throw new InputException($"{path}.target", "There is no such target.", "frame, mostPoints, score, clear");
        if (!Enum.IsDefined(Risk))
            throw new InputException($"{path}.risk", "There is no such risk.", "careful, balanced, bold");
        if (Target == PlanTarget.Score && !(Score > breakSoFar && Score <= highest))
            throw new InputException(
                $"{path}.score",
                $"A break of {Score} cannot be played for here.",
                highest > breakSoFar ? $"{breakSoFar + 1} to {highest}" : "no score: nothing is left to pot"
            );
        return this;
    }
}
