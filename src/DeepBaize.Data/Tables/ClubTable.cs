using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Tables;

/// <summary>A table that is played on. What trials of escapes have taught is kept with it.</summary>
public sealed class ClubTable : IClubThing
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Name { get; set; }

    /// <summary>What differs from the default conditions, by name; SI units. Nothing of the cue.</summary>
    public IReadOnlyDictionary<string, double> Conditions { get; set; } = new Dictionary<string, double>();
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }
    public DateTimeOffset? DeletedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class ClubTableConfiguration : IEntityTypeConfiguration<ClubTable>
{
    public void Configure(EntityTypeBuilder<ClubTable> table)
    {
        table.IsClubThing();
        table.Property(t => t.Conditions).IsJson();
    }
}
