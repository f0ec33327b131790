using DeepBaize.Data.Positions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Shots;

/// <summary>A shot kept with its position: the stroke with the balls as they lay, and one line to take down on it.</summary>
public sealed class SavedShot : IKeptWithPosition
{
    public const int MaxName = 120;
    public const int MaxNote = 300;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid PositionId { get; init; }
    public required string Name { get; set; }

    /// <summary>The one line to take down on the shot.</summary>
    public required string Note { get; set; }
    public required PositionContent Content { get; init; }
    public required DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }
}

internal sealed class SavedShotConfiguration : IEntityTypeConfiguration<SavedShot>
{
    public void Configure(EntityTypeBuilder<SavedShot> shot)
    {
        shot.Property(s => s.Name).HasMaxLength(SavedShot.MaxName);
        shot.Property(s => s.Note).HasMaxLength(SavedShot.MaxNote);
        shot.Property(s => s.Content).IsPositionContent();
        shot.Property(s => s.Version).IsRowVersion();
        shot.HasIndex(s => new { s.PositionId, s.CreatedAt });
        shot.HasOne<User>().WithMany().HasForeignKey(s => s.OwnerId).OnDelete(DeleteBehavior.Cascade);
        shot.HasOne<Position>().WithMany().HasForeignKey(s => s.PositionId).OnDelete(DeleteBehavior.Cascade);
    }
}
