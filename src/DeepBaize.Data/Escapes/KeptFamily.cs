using DeepBaize.Data.Tables;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Escapes;

/// <summary>An escape that is kept by family: a stroke off one point of a cushion, and from where it hits which place. Metres.</summary>
public sealed class KeptFamily : IVersioned
{
    public const int MaxName = 80,
        MaxRoute = 60;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid TableId { get; init; }
    public required string Name { get; set; }

    /// <summary>The cushions in order, by name, joined by dots.</summary>
    public required string Route { get; init; }

    /// <summary>Where the white's centre meets the first cushion.</summary>
    public required double PointX { get; init; }
    public required double PointY { get; init; }

    /// <summary>Where the ball lies that is hit.</summary>
    public required double BallX { get; init; }
    public required double BallY { get; init; }

    /// <summary>Tips.</summary>
    public required double Side { get; init; }

    /// <summary>Tips.</summary>
    public required double Height { get; init; }

    /// <summary>Speed of the cue, m/s: no scale of paces changes it.</summary>
    public required double CueSpeed { get; init; }

    /// <summary>Degrees; null as the cue lies.</summary>
    public required double? Elevation { get; init; }

    /// <summary>Centres of the band's cells, x and y in turn.</summary>
    public required double[] Places { get; init; }
    public required DateTimeOffset KeptAt { get; init; }
    public uint Version { get; init; }
}

internal sealed class KeptFamilyConfiguration : IEntityTypeConfiguration<KeptFamily>
{
    public void Configure(EntityTypeBuilder<KeptFamily> family)
    {
        family.ToTable("escape_families");
        family.Property(f => f.Name).HasMaxLength(KeptFamily.MaxName);
        family.Property(f => f.Route).HasMaxLength(KeptFamily.MaxRoute);
        family.Property(f => f.Version).IsRowVersion();
        family.HasIndex(f => new { f.TableId, f.KeptAt });
        family.HasOne<ClubTable>().WithMany().HasForeignKey(f => f.TableId).OnDelete(DeleteBehavior.Cascade);
        family.HasOne<User>().WithMany().HasForeignKey(f => f.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
