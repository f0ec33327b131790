using System.Text.Json;
using System.Text.Json.Serialization;
using DeepBaize.Core.Scoring;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Frames;

/// <summary>A frame written down shot by shot. Score and figures follow from the shots, and are not stored.</summary>
public sealed class FrameRecord : IStoredRecord, IPlayedWith
{
    public const int MaxTitle = 120;
    public const int MaxPlayer = 60;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Title { get; set; }
    public required string First { get; set; }
    public required string Second { get; set; }
    public required IReadOnlyList<RecordedShot> Shots { get; set; }

    /// <summary>Who wrote it down, as the first player or beside the table.</summary>
    public Guid? PlayerId { get; set; }
    public Guid? TableId { get; set; }
    public Guid? CueId { get; set; }
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class FrameRecordConfiguration : IEntityTypeConfiguration<FrameRecord>
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public void Configure(EntityTypeBuilder<FrameRecord> frame)
    {
        frame.Property(f => f.Title).HasMaxLength(FrameRecord.MaxTitle);
        frame.Property(f => f.First).HasMaxLength(FrameRecord.MaxPlayer);
        frame.Property(f => f.Second).HasMaxLength(FrameRecord.MaxPlayer);
        // A list is replaced as a whole, never changed, so the reference tells.
        frame
            .Property(f => f.Shots)
            .HasColumnType("jsonb")
            .HasConversion(
                shots => JsonSerializer.Serialize(shots, Json),
                text => JsonSerializer.Deserialize<List<RecordedShot>>(text, Json)!,
                new ValueComparer<IReadOnlyList<RecordedShot>>((a, b) => ReferenceEquals(a, b), s => s.GetHashCode(), s => s)
            );
        frame.Property(f => f.Version).IsRowVersion();
        frame.KnowsWhatItWasPlayedWith();
        frame.HasIndex(f => new { f.OwnerId, f.UpdatedAt });
        frame.HasOne<User>().WithMany().HasForeignKey(f => f.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
