using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Players;

/// <summary>
/// How exactly a player strikes: the parts of a stroke's error, each a standard deviation of an ordinary stroke (docs/model.md, "How people
/// miss"). The presets are fitted to how often players pot and what breaks they make, both common practice, from memory.
/// </summary>
/// <param name="Name">In the API; <see cref="Own"/> for figures set by hand.</param>
/// <param name="DirectionDegrees">Of the direction in which the cue ball leaves; the squirt of an unmeant side is in it.</param>
/// <param name="SightingMillimetres">Across the line of aim at the object ball, on a straight pot.</param>
/// <param name="AllowancePercent">Of what has to be allowed for squirt, swerve and throw from side.</param>
/// <param name="PacePercent">Of the cue's speed.</param>
/// <param name="TipMillimetres">Of the tip's side and of its height; they change the spin only, but may slip off the ball.</param>
/// <param name="Evenness">
/// Degrees of freedom of Student's t, whose factor all parts of one stroke share: the fewer, the more often everything is off at once.
/// </param>
public sealed record Skill(
    string Name,
    double DirectionDegrees,
    double SightingMillimetres,
    double AllowancePercent,
    double PacePercent,
    double TipMillimetres,
    double Evenness = Skill.UsualEvenness
)
{
    /// <summary>The name of a skill whose parts are set by hand.</summary>
    public const string Own = "own";

    /// <summary>Degrees of freedom of the shared factor, ν, unless a player has his own.</summary>
    public const double UsualEvenness = 4;

    /// <summary>Names of the presets.</summary>
    public static IReadOnlyList<Skill> Presets { get; } =
    [
        new("tour", 0.0064, 0.15, 3, 5.2, 0.09),
        new("county", 0.0145, 0.25, 4.5, 8, 0.16),
        new("club", 0.033, 0.375, 7, 13, 0.38),
        new("learner", 0.06, 0.66, 12, 22, 0.75),
    ];

    /// <summary>What a part may be: its name in the API, its range, its unit, and how it is read.</summary>
    public static IReadOnlyList<SkillPart> Parts { get; } =
    [
        new("direction", 0, 1, "°", s => s.DirectionDegrees),
        new("sighting", 0, 10, " mm", s => s.SightingMillimetres),
        new("allowance", 0, 100, " %", s => s.AllowancePercent),
        new("pace", 0, 50, " %", s => s.PacePercent),
        new("tip", 0, 8, " mm", s => s.TipMillimetres),
        new("evenness", 2, 30, "", s => s.Evenness),
    ];

    /// <exception cref="InputException">There is no such preset.</exception>
    public static Skill Named(string? name, string path = "skill") =>
        Presets.FirstOrDefault(s => s.Name == name)
        ?? throw new InputException(path, "There is no such skill.", string.Join(", ", Presets.Select(s => s.Name)));

    /// <summary>Returns this skill if every part is within its range.</summary>
    /// <exception cref="InputException">A part out of range, or not a number.</exception>
    public Skill Checked(string path)
    {
        var checks = new Checks(path);
        foreach (var part in Parts)
            checks.Range(part.Name, part.Of(this), part.Least, part.Most, part.Unit);
        checks.ThrowIfAny();
        return this;
    }

    /// <summary>
    /// Returns this skill with the errors of direction, sighting and tip multiplied by a factor, as for an awkward reach or a hard stroke.
    /// </summary>
    public Skill Times(double factor) =>
        this with
        {
            DirectionDegrees = factor * DirectionDegrees,
            SightingMillimetres = factor * SightingMillimetres,
            TipMillimetres = factor * TipMillimetres,
        };

    // By so much the errors grow for each step of pace beyond the easy.
    /// <summary>Pace up to which power costs nothing.</summary>
    public const double EasyPace = 5;
    private const double GrowthPerStep = 1.0 / 12;

    /// <summary>By how much power makes the errors grow: 1 up to pace 5, 1.4 at 10.</summary>
    public static double GrowthAt(double pace) => 1 + GrowthPerStep * Math.Max(0, pace - EasyPace);

    /// <summary>The error of the contact on the ball, as a fraction of its radius.</summary>
    public double TipError => Tip.Fraction(TipMillimetres / Tip.MillimetresPerTip);

    /// <summary>How far across the line of aim the contact point is misjudged at a cut, m.</summary>
    public double SightingAt(double cutDegrees) => SightingMillimetres / 1000 * (1 + Math.Abs(cutDegrees) / 45);
}

/// <summary>A part of a skill that can be set.</summary>
/// <param name="Unit">As it is told behind the range, with its space.</param>
public sealed record SkillPart(string Name, double Least, double Most, string Unit, Func<Skill, double> Of);
