using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>The line that a table is mirrored in.</summary>
public enum MirrorAxis
{
    /// <summary>The middle line from baulk to top: the two sides change places.</summary>
    Along,

    /// <summary>The line through both middle pockets: the two ends change places.</summary>
    Across,
}

/// <summary>
/// A table in the mirror. Cushions, pockets and cloth are alike on both sides, so a mirrored stroke ends in a mirrored table.
/// </summary>
/// <param name="Axis">What it is mirrored in.</param>
public sealed record TableMirror(MirrorAxis Axis)
{
    /// <summary>The sides changed: what practice from the other side means.</summary>
    public static TableMirror OtherSide { get; } = new(MirrorAxis.Along);

    /// <summary>Returns a place mirrored, m.</summary>
    public Vec2 Place(Vec2 at) => Axis == MirrorAxis.Along ? at with { Y = Width - at.Y } : at with { X = Length - at.X };

    /// <summary>Returns a direction mirrored, degrees from −180 to 180.</summary>
    public double Degrees(double degrees) => Axis == MirrorAxis.Along ? -degrees : Math.IEEERemainder(180 - degrees, 360);

    /// <summary>
    /// Returns what a ball is called then: with the sides changed, yellow and green change names, so that they stand on their spots again.
    /// </summary>
    public string? Ball(string? id) => Axis == MirrorAxis.Along ? Swapped(id) : id;

    /// <summary>Returns the pocket or cushion, by name, on the other side or at the other end.</summary>
    public string? Name(string? name) =>
        (Axis, name) switch
        {
            (_, null) => null,
            (MirrorAxis.Along, _) => Swapped(name),
            (_, "baulk") => "top",
            (_, "top") => "baulk",
            (_, "yellow" or "green") => $"{name}-top",
            (_, "yellow-top" or "green-top") => name[..^4],
            _ => name,
        };

    private static string? Swapped(string? name) =>
        name is null ? null
        : name.StartsWith("yellow", StringComparison.Ordinal) ? $"green{name[6..]}"
        : name.StartsWith("green", StringComparison.Ordinal) ? $"yellow{name[5..]}"
        : name;
}
