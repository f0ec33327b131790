using System.Text.Json;
using System.Text.Json.Serialization;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Positions;

/// <summary>A saved position.</summary>
public sealed class Position : IBinned, IPlayedWith
{
    public const int MaxName = 120;
    public const int MaxAbout = 2000;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Name { get; set; }

    /// <summary>What the position is about, in a line or two.</summary>
    public required string About { get; set; }
    public required PositionContent Content { get; set; }

    /// <summary>Strokes that were tried from there and have left their lines.</summary>
    public IReadOnlyList<TrialEntry> Trials { get; set; } = [];
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }

    /// <summary>Set while the position lies in the bin.</summary>
    public DateTimeOffset? DeletedAt { get; set; }
    public Guid? PlayerId { get; set; }
    public Guid? TableId { get; set; }
    public Guid? CueId { get; set; }
    public uint Version { get; init; }
}

internal sealed class PositionConfiguration : IEntityTypeConfiguration<Position>
{
    public void Configure(EntityTypeBuilder<Position> position)
    {
        position.Property(p => p.Name).HasMaxLength(Position.MaxName);
        position.Property(p => p.About).HasMaxLength(Position.MaxAbout);
        position.Property(p => p.Content).IsPositionContent();
        position.Property(p => p.Trials).IsTrials();
        position.Property(p => p.Version).IsRowVersion();
        position.KnowsWhatItWasPlayedWith();
        position.HasIndex(p => new { p.OwnerId, p.UpdatedAt });
        position.HasOne<User>().WithMany().HasForeignKey(p => p.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal static class PositionContentColumn
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    /// <summary>As jsonb; the list is replaced as a whole.</summary>
    public static void IsTrials(this PropertyBuilder<IReadOnlyList<TrialEntry>> trials) =>
        trials
            .HasColumnType("jsonb")
            .HasDefaultValueSql("'[]'::jsonb")
            .HasConversion(
                t => JsonSerializer.Serialize(t, Json),
                text => JsonSerializer.Deserialize<IReadOnlyList<TrialEntry>>(text, Json)!,
                new ValueComparer<IReadOnlyList<TrialEntry>>((a, b) => ReferenceEquals(a, b), t => t.GetHashCode(), t => t)
            );

    /// <summary>As jsonb; a content is replaced as a whole, never changed, so the reference tells.</summary>
    public static void IsPositionContent(this PropertyBuilder<PositionContent> content) =>
        content
            .HasColumnType("jsonb")
            .HasConversion(
                c => JsonSerializer.Serialize(c, Json),
                text => JsonSerializer.Deserialize<PositionContent>(text, Json)!,
                new ValueComparer<PositionContent>((a, b) => ReferenceEquals(a, b), c => c.GetHashCode(), c => c)
            );
}
