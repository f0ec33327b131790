using DeepBaize.Data.Players;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Devices;

/// <summary>Readings of a stroke of the cue: what was measured is kept, what follows from it is worked out anew.</summary>
/// <param name="Measure">travel (m) or acceleration (m/s²).</param>
/// <param name="Times">s.</param>
/// <param name="Contact">When the tip met the ball, if somebody saw it, s.</param>
public sealed record CueReadings(string Measure, IReadOnlyList<double> Times, IReadOnlyList<double> Values, double? Contact);

/// <summary>A stroke of the cue that a sensor or a film measured.</summary>
public sealed class CueStroke : IVersioned
{
    public const int MaxSource = 20;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public Guid? PlayerId { get; init; }
    public required DateTimeOffset At { get; init; }

    /// <summary>sensor, film or stand-in.</summary>
    public required string Source { get; init; }
    public required CueReadings Readings { get; init; }
    public uint Version { get; init; }
}

internal sealed class CueStrokeConfiguration : IEntityTypeConfiguration<CueStroke>
{
    public void Configure(EntityTypeBuilder<CueStroke> stroke)
    {
        stroke.ToTable("cue_strokes");
        stroke.Property(s => s.Source).HasMaxLength(CueStroke.MaxSource);
        stroke.Property(s => s.Readings).IsJson();
        stroke.Property(s => s.Version).IsRowVersion();
        stroke.HasIndex(s => new { s.PlayerId, s.At });
        stroke.HasOne<ClubPlayer>().WithMany().HasForeignKey(s => s.PlayerId).OnDelete(DeleteBehavior.Cascade);
        stroke.HasOne<User>().WithMany().HasForeignKey(s => s.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
