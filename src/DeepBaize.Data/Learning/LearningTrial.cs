using DeepBaize.Data.Cues;
using DeepBaize.Data.Players;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Tables;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Learning;

/// <summary>Where a ball was seen at the end of a trial; m.</summary>
/// <param name="Pocket">The pocket it went into, off if it left the table, or null.</param>
public sealed record TrialBall(string Id, double X, double Y, string? Pocket);

/// <summary>A stroke as it was meant, and what was seen of it.</summary>
/// <param name="Aim">Degrees.</param>
/// <param name="CueSpeed">m/s: no scale of paces changes it.</param>
/// <param name="Side">As a fraction of the ball's radius.</param>
/// <param name="Height">As a fraction of the ball's radius.</param>
/// <param name="Elevation">Degrees.</param>
/// <param name="Doubt">Standard deviation of each coordinate, m.</param>
/// <param name="Line">Name of the teaching line it was played on; null of any other stroke.</param>
public sealed record TrialContent(
    IReadOnlyList<BallEntry> Balls,
    double Aim,
    double CueSpeed,
    double Side,
    double Height,
    double Elevation,
    IReadOnlyList<TrialBall> Finals,
    double Doubt,
    string? Line
);

/// <summary>A stroke that was played to learn of a table.</summary>
public sealed class LearningTrial : IVersioned
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid TableId { get; init; }
    public Guid? CueId { get; init; }
    public Guid? PlayerId { get; init; }
    public required DateTimeOffset PlayedAt { get; init; }
    public required TrialContent Content { get; init; }
    public uint Version { get; init; }
}

/// <summary>Figures that were learnt and taken over, with the earlier ones: to compare, and to go back.</summary>
public sealed class TakenFigures : IVersioned
{
    public const int MaxName = 80,
        MaxKind = 10;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }

    /// <summary>table or player.</summary>
    public required string Kind { get; init; }

    /// <summary>The table or the player.</summary>
    public required Guid ThingId { get; init; }
    public required string Name { get; init; }
    public required DateTimeOffset TakenAt { get; init; }

    /// <summary>Figures before and after, by name.</summary>
    public required IReadOnlyDictionary<string, double> Before { get; init; }

    /// <inheritdoc cref="Before"/>
    public required IReadOnlyDictionary<string, double> After { get; init; }

    /// <summary>Of a player, the name of the skill before.</summary>
    public string? SkillBefore { get; init; }

    /// <summary>When they were given back; null while they hold.</summary>
    public DateTimeOffset? UndoneAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class LearningTrialConfiguration : IEntityTypeConfiguration<LearningTrial>
{
    public void Configure(EntityTypeBuilder<LearningTrial> trial)
    {
        trial.ToTable("learning_trials");
        trial.Property(t => t.Content).IsJson();
        trial.Property(t => t.Version).IsRowVersion();
        trial.HasIndex(t => new { t.TableId, t.PlayedAt });
        trial.HasOne<ClubTable>().WithMany().HasForeignKey(t => t.TableId).OnDelete(DeleteBehavior.Cascade);
        trial.HasOne<ClubCue>().WithMany().HasForeignKey(t => t.CueId).OnDelete(DeleteBehavior.SetNull);
        trial.HasOne<ClubPlayer>().WithMany().HasForeignKey(t => t.PlayerId).OnDelete(DeleteBehavior.SetNull);
        trial.HasOne<User>().WithMany().HasForeignKey(t => t.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class TakenFiguresConfiguration : IEntityTypeConfiguration<TakenFigures>
{
    public void Configure(EntityTypeBuilder<TakenFigures> taken)
    {
        taken.ToTable("taken_figures");
        taken.Property(t => t.Name).HasMaxLength(TakenFigures.MaxName);
        taken.Property(t => t.Kind).HasMaxLength(TakenFigures.MaxKind);
        taken.Property(t => t.SkillBefore).HasMaxLength(20);
        taken.Property(t => t.Before).IsJson();
        taken.Property(t => t.After).IsJson();
        taken.Property(t => t.Version).IsRowVersion();
        taken.HasIndex(t => new { t.ThingId, t.TakenAt });
        taken.HasOne<User>().WithMany().HasForeignKey(t => t.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
