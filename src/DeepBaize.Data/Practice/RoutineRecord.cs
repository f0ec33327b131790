using System.Text.Json;
using System.Text.Json.Serialization;
using DeepBaize.Core.Practice;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Practice;

/// <summary>A routine of the user's own.</summary>
public sealed class RoutineRecord : IBinned
{
    /// <summary>As routines, strokes and plans are stored.</summary>
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }

    /// <summary>The routine's own, to be searched by.</summary>
    public required string Name { get; set; }
    public required Routine Content { get; set; }
    public required DateTimeOffset CreatedAt { get; init; }
    public required DateTimeOffset UpdatedAt { get; set; }

    /// <summary>Set once it is put away: attempts at it stay.</summary>
    public DateTimeOffset? DeletedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class RoutineRecordConfiguration : IEntityTypeConfiguration<RoutineRecord>
{
    public void Configure(EntityTypeBuilder<RoutineRecord> routine)
    {
        routine.Property(r => r.Name).HasMaxLength(Routine.MaxName);
        routine.Property(r => r.Content).IsJson(RoutineRecord.Json);
        routine.Property(r => r.Version).IsRowVersion();
        routine.HasIndex(r => new { r.OwnerId, r.UpdatedAt });
        routine.HasOne<User>().WithMany().HasForeignKey(r => r.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
