namespace DeepBaize.Core.Players;

/// <summary>The hand that holds the cue.</summary>
public enum Hand
{
    /// <summary>Right-handed.</summary>
    Right,

    /// <summary>Left-handed.</summary>
    Left,
}

/// <summary>Who stands at the table.</summary>
/// <param name="Height">m.</param>
/// <param name="Skill">How exactly he strikes.</param>
public sealed record Player(Hand Hand, double Height, Skill Skill)
{
    /// <summary>Bounds of a player's height (m) and of the natural elevation of the cue (degrees).</summary>
    public const double Shortest = 1.2,
        Tallest = 2.2,
        HighestButt = 15;

    /// <summary>
    /// Of the butt above level, degrees, where nothing asks for more: no cue is level, for its butt passes over a cushion or a hand. Common
    /// practice, no source.
    /// </summary>
    public double NaturalElevation { get; init; } = 3;

    /// <summary>The player where none is chosen.</summary>
    public static Player Default { get; } = new(Hand.Right, 1.75, Skill.Named("county"));

    /// <summary>The default player with another skill, by its name.</summary>
    /// <exception cref="InputException">There is no such preset.</exception>
    public static Player OfSkill(string name) => Default with { Skill = Skill.Named(name) };

    /// <param name="own">The skill set by hand, for who is called <see cref="Skill.Own"/>.</param>
    /// <exception cref="InputException">No such hand or skill, or a figure out of range.</exception>
    public static Player Create(
        string? hand,
        double height,
        string? skill = "county",
        double naturalElevation = 3,
        Skill? own = null,
        string path = "player"
    )
    {
        var checks = new Checks(path);
        var isHand = Enum.TryParse<Hand>(hand, ignoreCase: true, out var which) && Enum.IsDefined(which) && !int.TryParse(hand, out _);
        checks.That(isHand, "hand", "There is no such hand.", "right, left");
        checks.Range("height", height, Shortest, Tallest, " m");
        checks.Range("naturalElevation", naturalElevation, 0, HighestButt, "°");
        var names = Skill.Presets.Select(s => s.Name).Append(Skill.Own).ToList();
        checks.That(names.Contains(skill!), "skill", "There is no such skill.", string.Join(", ", names));
        checks.That(
            skill != Skill.Own || own is not null,
            "own",
            "The parts are missing.",
            string.Join(", ", Skill.Parts.Select(p => p.Name))
        );
        checks.ThrowIfAny();
        own?.Checked($"{path}.own");
        return new(which, height, skill == Skill.Own ? own! : Skill.Named(skill)) { NaturalElevation = naturalElevation };
    }
}
