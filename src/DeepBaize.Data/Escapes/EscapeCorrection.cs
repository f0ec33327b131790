using DeepBaize.Data.Tables;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Escapes;

/// <summary>What trials on the user's own table have taught of one order of cushions: the mean of the corrections that were kept.</summary>
public sealed class EscapeCorrection : IStoredRecord
{
    public const int MaxRoute = 60;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid TableId { get; init; }

    /// <summary>The cushions in order, by name, joined by dots.</summary>
    public required string Route { get; init; }

    /// <summary>Along the first cushion, towards the top or the green's side positive; m.</summary>
    public required double Along { get; set; }
    public required int Trials { get; set; }
    public required DateTimeOffset UpdatedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class EscapeCorrectionConfiguration : IEntityTypeConfiguration<EscapeCorrection>
{
    public void Configure(EntityTypeBuilder<EscapeCorrection> correction)
    {
        correction.Property(c => c.Route).HasMaxLength(EscapeCorrection.MaxRoute);
        correction.Property(c => c.Version).IsRowVersion();
        correction.HasIndex(c => new { c.TableId, c.Route }).IsUnique();
        correction.HasOne<ClubTable>().WithMany().HasForeignKey(c => c.TableId).OnDelete(DeleteBehavior.Cascade);
        correction.HasOne<User>().WithMany().HasForeignKey(c => c.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
