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

    /// <summary>Whether the white strikes another ball than the one that is potted.</summary>
    public bool IsPlant => Through >= 0;

    /// <summary>Whether it is the same ball on the same way into the same pocket, whatever part of it.</summary>
    public bool IsSameAs(Pot other) => this with { Part = other.Part } == other;
}

/// <summary>A pot by its names: which ball goes into which pocket, through which other or off which cushion.</summary>
/// <param name="Part">Where in the pocket's opening: -1 the thick side, 1 the thin side.</param>
public sealed record MeantPot(string Ball, string Pocket, double Part = 0, string? Through = null, string? Off = null)
{
    /// <summary>Returns this pot with the slots of a layout.</summary>
    /// <param name="path">Where it stands in a request.</param>
    /// <exception cref="InputException">There is no such ball, pocket or cushion, or both a ball between and a cushion.</exception>
    public Pot In(Layout layout, string path)
    {
        var checks = new Checks(path);
        int SlotOf(string? id) => Table.Ball.TryParse(id, out var ball) ? layout.SlotOf(ball) : -1;
        var (slot, through) = (SlotOf(Ball), SlotOf(Through));
        checks.That(Pockets.TryParse(Pocket, out var pocket), "pocket", "There is no such pocket.", Pockets.AllowedNames);
        checks.That(slot >= 1, "ball", "There is no such object ball on the table.", "an object ball that is on the table");
        checks.That(Math.Abs(Part) <= 1, "part", $"{Part} is out of range.", "-1 (thick side) to 1 (thin side)");
        checks.That(
            Through is null || (through >= 1 && through != slot),
            "through",
            "There is no such ball between.",
            "another object ball that is on the table"
        );
        Cushion off = default;
        checks.That(Off is null || Cushions.TryParse(Off, out off), "off", "There is no such cushion.", Cushions.AllowedNames);
        checks.That(Off is null || Through is null, "off", "A plant off a cushion is not judged.", "through or off, not both");
        checks.ThrowIfAny();
        return new(slot, pocket, Part, through, Off is null ? null : off);
    }
}
