using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Cues;

/// <summary>A cue that is played with.</summary>
public sealed class ClubCue : IClubThing
{
    public const int MaxTip = 80;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Name { get; set; }

    /// <summary>What is on it, in the player's words: "9.5 mm, medium".</summary>
    public string Tip { get; set; } = "";

    /// <summary>What differs from the default conditions, by name, of the cue alone: its mass, the mass of its end, its tip.</summary>
    public IReadOnlyDictionary<string, double> Conditions { get; set; } = new Dictionary<string, double>();
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }
    public DateTimeOffset? DeletedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class ClubCueConfiguration : IEntityTypeConfiguration<ClubCue>
{
    public void Configure(EntityTypeBuilder<ClubCue> cue)
    {
        cue.IsClubThing();
        cue.Property(c => c.Tip).HasMaxLength(ClubCue.MaxTip);
        cue.Property(c => c.Conditions).IsJson();
    }
}
