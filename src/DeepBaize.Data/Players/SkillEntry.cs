using DeepBaize.Core.Players;

namespace DeepBaize.Data.Players;

/// <summary>
/// The parts of a player's error, set by hand: each a standard deviation of an ordinary stroke. Stored as it is sent.
/// </summary>
public sealed record SkillEntry
{
    /// <summary>Of the direction in which the cue ball leaves, degrees, 0 to 1.</summary>
    public required double Direction { get; init; }

    /// <summary>Across the line of aim at the object ball, mm, 0 to 10.</summary>
    public required double Sighting { get; init; }

    /// <summary>Of what is allowed for squirt, swerve and throw from side, %, 0 to 100.</summary>
    public required double Allowance { get; init; }

    /// <summary>Of the cue's speed, %, 0 to 50.</summary>
    public required double Pace { get; init; }

    /// <summary>Of the tip's side and height, mm, 0 to 8.</summary>
    public required double Tip { get; init; }

    /// <summary>How even the strokes are: degrees of freedom of Student's t, 2 to 30; the fewer, the more bad strokes.</summary>
    public double Evenness { get; init; } = Skill.UsualEvenness;

    public static SkillEntry Of(Skill skill) =>
        new()
        {
            Direction = skill.DirectionDegrees,
            Sighting = skill.SightingMillimetres,
            Allowance = skill.AllowancePercent,
            Pace = skill.PacePercent,
            Tip = skill.TipMillimetres,
            Evenness = skill.Evenness,
        };

    public Skill ToSkill() => new(Skill.Own, Direction, Sighting, Allowance, Pace, Tip, Evenness);
}
