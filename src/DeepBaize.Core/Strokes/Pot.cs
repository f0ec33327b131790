using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>How a ball goes to its pocket.</summary>
public enum PotKind
{
    /// <summary>Straight from the cue ball into the pocket.</summary>
    Direct,

    /// <summary>Another ball, struck by the cue ball, runs into it.</summary>
    Plant,

    /// <summary>A plant of two balls that touch.</summary>
    Set,

    /// <summary>Off one cushion.</summary>
    Double,
}

/// <summary>A pot that is meant. Slots are those of the layout.</summary>
/// <param name="Slot">Of the ball that is to go in.</param>
/// <param name="Part">Where in the pocket's opening: 0 the middle, −1 the thick side, +1 the thin side.</param>
/// <param name="Through">Of a plant, the slot of the ball that the cue ball strikes; else −1.</param>
/// <param name="Off">Of a double, the cushion.</param>
public sealed record Pot(int Slot, Pocket Pocket, double Part = 0, int Through = -1, Cushion? Off = null)
{
    /// <summary>Slot of the ball that the cue ball is to strike.</summary>
    public int Struck => Through >= 0 ? Through : Slot;

    public bool IsPlant => Through >= 0;

    /// <summary>Whether it is the same ball on the same way into the same pocket, whatever part of it.</summary>
    public bool IsSameAs(Pot other) => this with { Part = other.Part } == other;
}
