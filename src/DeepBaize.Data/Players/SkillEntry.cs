using DeepBaize.Core;
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

    /// <summary>Of the tip's height, mm, 0 to 8; needed unless <see cref="Tip"/> says it.</summary>
    public double? Height { get; init; }

    /// <summary>Of the tip sideways, mm, 0 to 8; needed unless <see cref="Tip"/> says it.</summary>
    public double? Side { get; init; }

    /// <summary>Height and side alike, mm, 0 to 8: as it was said before they were two.</summary>
    public double? Tip { get; init; }

    /// <summary>Of the white off a cushion that it must meet before its work is done, degrees, 0 to 10; of a double twice that.</summary>
    public double Cushion { get; init; }

    /// <summary>By how much direction, sighting and tip err more with the rest or in the other hand, 1 to 5.</summary>
    public double Rest { get; init; } = Skill.UsualRest;

    /// <summary>How even the strokes are: degrees of freedom of Student's t, 2 to 30; the fewer, the more bad strokes.</summary>
    public double Evenness { get; init; } = Skill.UsualEvenness;

    public static SkillEntry Of(Skill skill) =>
        new()
        {
            Direction = skill.DirectionDegrees,
            Sighting = skill.SightingMillimetres,
            Allowance = skill.AllowancePercent,
            Pace = skill.PacePercent,
            Height = skill.HeightMillimetres,
            Side = skill.SideMillimetres,
            Cushion = skill.CushionDegrees,
            Rest = skill.RestFactor,
            Evenness = skill.Evenness,
        };

    /// <param name="path">Of this entry in the request.</param>
    /// <exception cref="InputException">Neither height and side nor tip are there.</exception>
    public Skill ToSkill(string path)
    {
        var checks = new Checks(path);
        checks.That((Height ?? Tip) is not null, "height", "It is missing.", "0 to 8 mm");
        checks.That((Side ?? Tip) is not null, "side", "It is missing.", "0 to 8 mm");
        if (Tip is { } tip)
            checks.Range("tip", tip, 0, 8, " mm");
        checks.ThrowIfAny();
        return new(Skill.Own, Direction, Sighting, Allowance, Pace, Height ?? Tip!.Value, Side ?? Tip!.Value)
        {
            CushionDegrees = Cushion,
            RestFactor = Rest,
            Evenness = Evenness,
        };
    }
}
