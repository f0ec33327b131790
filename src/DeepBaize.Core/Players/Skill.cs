using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Players;

/// <summary>
/// How exactly a player strikes: standard deviations of independent normal errors. The presets are common practice, from memory.
/// </summary>
/// <param name="Name">In the API.</param>
/// <param name="DirectionDegrees">Of the direction in which the cue ball leaves; the squirt of an unmeant side is in it.</param>
/// <param name="TipMillimetres">Of the tip's side and of its height; they change the spin only.</param>
/// <param name="PacePercent">Of the cue's speed.</param>
public sealed record Skill(string Name, double DirectionDegrees, double TipMillimetres, double PacePercent)
{
    public static IReadOnlyList<Skill> Presets { get; } =
    // With the cue as it lies, an unmeant side swerves: so the tip counts for a long pot, and its part of the errors is small.
    [new("tour", 0.011, 0.2, 3), new("county", 0.022, 0.32, 5), new("club", 0.045, 0.6, 9), new("learner", 0.12, 1.2, 15)];

    /// <exception cref="InputException">There is no such preset.</exception>
    public static Skill Named(string? name, string path = "skill") =>
        Presets.FirstOrDefault(s => s.Name == name)
        ?? throw new InputException(path, "There is no such skill.", string.Join(", ", Presets.Select(s => s.Name)));

    /// <summary>The same hand in an awkward place: direction and tip err by so many times as much.</summary>
    public Skill Times(double factor) =>
        this with
        {
            DirectionDegrees = factor * DirectionDegrees,
            TipMillimetres = factor * TipMillimetres,
        };

    /// <summary>The error of the contact on the ball, as a fraction of its radius.</summary>
    public double TipError => Tip.Fraction(TipMillimetres / Tip.MillimetresPerTip);
}
