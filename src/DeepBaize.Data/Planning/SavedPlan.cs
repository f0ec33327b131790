using DeepBaize.Data.Positions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Planning;

/// <summary>A plan kept with its position: the table it was made for, and the whole answer, so that it opens just as it was.</summary>
public sealed class SavedPlan : IKeptWithPosition
{
    public const int MaxName = 120;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid PositionId { get; init; }
    public required string Name { get; set; }
    public required PositionContent Content { get; init; }

    /// <summary>Player, preferences and plans, as JSON.</summary>
    public required string Body { get; init; }
    public required DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }
}

internal sealed class SavedPlanConfiguration : IEntityTypeConfiguration<SavedPlan>
{
    public void Configure(EntityTypeBuilder<SavedPlan> plan)
    {
        plan.Property(p => p.Name).HasMaxLength(SavedPlan.MaxName);
        plan.Property(p => p.Content).IsPositionContent();
        plan.Property(p => p.Body).HasColumnType("jsonb");
        plan.Property(p => p.Version).IsRowVersion();
        plan.HasIndex(p => new { p.PositionId, p.CreatedAt });
        plan.HasOne<User>().WithMany().HasForeignKey(p => p.OwnerId).OnDelete(DeleteBehavior.Cascade);
        plan.HasOne<Position>().WithMany().HasForeignKey(p => p.PositionId).OnDelete(DeleteBehavior.Cascade);
    }
}
