using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Players;

/// <summary>
/// How exactly a player strikes: the parts of a stroke's error, each a standard deviation of an ordinary stroke (docs/model.md, "How people
/// miss"). The presets are fitted to what breaks players make and to how often they pot, both common practice, from memory.
/// </summary>
/// <param name="Name">In the API; <see cref="Own"/> for figures set by hand.</param>
/// <param name="DirectionDegrees">Of the direction in which the cue ball leaves; the squirt of an unmeant side is in it.</param>
/// <param name="SightingMillimetres">Across the line of aim at the object ball, on a straight pot.</param>
/// <param name="AllowancePercent">Of what has to be allowed for squirt, swerve and throw from side.</param>
/// <param name="PacePercent">Of the cue's speed.</param>
/// <param name="HeightMillimetres">Of the height of the tip; it changes the spin only, but may slip off the ball.</param>
/// <param name="SideMillimetres">Of the tip sideways; it changes the spin only, but may slip off the ball.</param>
public sealed record Skill(
    string Name,
    double DirectionDegrees,
    double SightingMillimetres,
    double AllowancePercent,
    double PacePercent,
    double HeightMillimetres,
    double SideMillimetres
)
{
    /// <summary>
    /// Of the direction in which a white that must meet a cushion first leaves each of them, degrees; a double comes off its cushion within
    /// twice that.
    /// </summary>
    public double CushionDegrees { get; init; }

    /// <summary>By how much direction, sighting and tip err more with the rest or in the other hand.</summary>
    public double RestFactor { get; init; } = UsualRest;

    /// <summary>
    /// Degrees of freedom of Student's t, whose factor all parts of one stroke share: the fewer, the more often everything is off at once.
    /// </summary>
    public double Evenness { get; init; } = UsualEvenness;

    /// <summary>The name of a skill whose parts are set by hand.</summary>
    public const string Own = "own";

    /// <summary>Degrees of freedom of the shared factor, ν, unless a player has his own.</summary>
    public const double UsualEvenness = 4;

    /// <summary><see cref="RestFactor"/> unless a player has his own.</summary>
    public const double UsualRest = 1.5;

    /// <summary>
    /// A double comes off its cushion by so many times <see cref="CushionDegrees"/>: neither its contact nor its rebound can be sighted.
    /// </summary>
    public const double DoubleFactor = 2;

    /// <summary>The presets, the best first.</summary>
    public static IReadOnlyList<Skill> Presets { get; } =
    [
        new("tour", 0.0104, 0.089, 3, 4.2, 0.9, 0.083) { CushionDegrees = 0.32, RestFactor = 1.24 },
        new("county", 0.0195, 0.146, 4.5, 6.5, 1.2, 0.17) { CushionDegrees = 0.6, RestFactor = 1.29 },
        new("club", 0.0401, 0.287, 6.8, 10, 1.2, 0.37) { CushionDegrees = 1.15, RestFactor = 1.41 },
        new("learner", 0.0684, 0.66, 13, 17, 2.0, 1.0) { CushionDegrees = 2.4, RestFactor = 1.47 },
    ];

    /// <summary>What a part may be: its name in the API, its range, its unit, and how it is read.</summary>
    public static IReadOnlyList<SkillPart> Parts { get; } =
    [
        new("direction", 0, 1, "°", s => s.DirectionDegrees),
        new("sighting", 0, 10, " mm", s => s.SightingMillimetres),
        new("allowance", 0, 100, " %", s => s.AllowancePercent),
        new("pace", 0, 50, " %", s => s.PacePercent),
        new("height", 0, 8, " mm", s => s.HeightMillimetres),
        new("side", 0, 8, " mm", s => s.SideMillimetres),
        new("cushion", 0, 10, "°", s => s.CushionDegrees),
        new("rest", 1, 5, " ×", s => s.RestFactor),
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
            HeightMillimetres = factor * HeightMillimetres,
            SideMillimetres = factor * SideMillimetres,
        };

    /// <summary>Pace up to which power costs nothing.</summary>
    public const double EasyPace = 5;

    // For a step of pace beyond the easy, by its square; and for a cut, by the sine of twice the angle and the square of the way.
    private const double GrowthWithPower = 0.1,
        GrowthWithWay = 4;

    /// <summary>By how much power makes the errors grow: 1 up to pace 5, 1.4 at 7, 2.6 at 9.</summary>
    public static double GrowthAt(double pace)
    {
        var beyond = Math.Max(0, pace - EasyPace);
        return 1 + GrowthWithPower * beyond * beyond;
    }

    /// <summary>The error of the contact's height on the ball, as a fraction of its radius.</summary>
    public double HeightError => Tip.Fraction(HeightMillimetres / Tip.MillimetresPerTip);

    /// <summary>The error of the contact's side on the ball, as a fraction of its radius.</summary>
    public double SideError => Tip.Fraction(SideMillimetres / Tip.MillimetresPerTip);

    /// <summary>
    /// How far across the line of aim the contact point is misjudged, m. A full ball is sighted along the cue and a fine one edge to edge;
    /// where to meet one in between is judged, and the worse the farther away it is.
    /// </summary>
    /// <param name="cutDegrees">0–90.</param>
    /// <param name="way">Of the white until it meets the ball, m.</param>
    public double SightingAt(double cutDegrees, double way) =>
        SightingMillimetres / 1000 * (1 + GrowthWithWay * Math.Sin(2 * Math.Abs(cutDegrees) * Math.PI / 180) * way * way);
}

/// <summary>A part of a skill that can be set.</summary>
/// <param name="Unit">As it is told behind the range, with its space.</param>
public sealed record SkillPart(string Name, double Least, double Most, string Unit, Func<Skill, double> Of);
