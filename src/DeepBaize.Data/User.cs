using DeepBaize.Core.Players;
using DeepBaize.Data.Players;

namespace DeepBaize.Data;

/// <summary>Who owns rows. Until there are accounts, the application runs as one local user.</summary>
public sealed class User : IVersioned
{
    /// <summary>The local user's.</summary>
    public static readonly Guid LocalId = new("0196b0a0-0000-7000-8000-000000000001");

    public required Guid Id { get; init; }
    public required string Name { get; set; }
    public required DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }

    /// <summary>right or left.</summary>
    public string Hand { get; set; } = "right";

    /// <summary>How tall, m.</summary>
    public double Height { get; set; } = 1.75;

    /// <summary>tour, county, club, learner, or own for the parts of <see cref="OwnSkill"/>.</summary>
    public string Skill { get; set; } = "county";

    /// <summary>Set by hand; kept while another skill is chosen. Null until then.</summary>
    public SkillEntry? OwnSkill { get; set; }

    /// <summary>Of the butt above level where nothing asks for more, degrees.</summary>
    public double NaturalElevation { get; set; } = 3;

    /// <summary>On cuts: plain, or helping for a touch of helping side.</summary>
    public string SideHabit { get; set; } = "plain";
}
