using DeepBaize.Core.Players;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Players;

/// <summary>Somebody who plays: what reach, chances and advice are judged for.</summary>
public sealed class ClubPlayer : IClubThing
{
    public const int MaxName = ClubThing.MaxName;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Name { get; set; }

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

    /// <summary>The player's own scale of paces; empty for the standard one.</summary>
    public IReadOnlyList<PacePoint> PaceScale { get; set; } = [];
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }
    public DateTimeOffset? DeletedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class ClubPlayerConfiguration : IEntityTypeConfiguration<ClubPlayer>
{
    public void Configure(EntityTypeBuilder<ClubPlayer> player)
    {
        player.IsClubThing();
        player.Property(p => p.Hand).HasMaxLength(10);
        player.Property(p => p.Skill).HasMaxLength(20);
        player.Property(p => p.SideHabit).HasMaxLength(10);
        player.Property(p => p.OwnSkill!).IsJson();
        player.Property(p => p.PaceScale).IsJson();
    }
}
