using DeepBaize.Core.Practice;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Practice;

/// <summary>One attempt at one step of a routine.</summary>
public sealed class Attempt : IVersioned, IPlayedWith
{
    public const int MaxRoutine = 60,
        MaxGroup = 60,
        MaxNote = 300,
        MaxDevice = 40;

    /// <summary>Chosen on the device on which it was counted.</summary>
    public required Guid Id { get; init; }
    public required Guid OwnerId { get; init; }
    public required Guid SessionId { get; init; }

    /// <summary>Counted up each time it is corrected; the higher is the truer.</summary>
    public required int Revision { get; set; }

    /// <summary>The device that made this revision; null if it did not say.</summary>
    public string? Device { get; set; }

    /// <summary>What was laid and asked at the time (<see cref="LaidStep"/>); null of attempts from before that was stored.</summary>
    public string? LaidHash { get; set; }

    /// <summary>Whose it was; as the session's, and kept with it so that it can be counted by it.</summary>
    public Guid? PlayerId { get; set; }
    public Guid? TableId { get; set; }
    public Guid? CueId { get; set; }
    public required DateTimeOffset At { get; set; }
    public required string Routine { get; set; }
    public required int Step { get; set; }
    public required bool IsMirrored { get; set; }

    /// <summary>What whoever played says: it did what was asked, places apart.</summary>
    public bool? Said { get; set; }

    /// <summary>What the rule says; what was said, where it cannot tell.</summary>
    public required bool IsDone { get; set; }

    /// <summary>Why it was not done.</summary>
    public required string[] Reasons { get; set; }

    /// <summary>What the body did, in the player's own words.</summary>
    public required string[] Body { get; set; }

    /// <summary>Where the white and the struck ball stopped, m; as laid out, on the side that was played.</summary>
    public double? WhiteX { get; set; }

    /// <inheritdoc cref="WhiteX"/>
    public double? WhiteY { get; set; }

    /// <inheritdoc cref="WhiteX"/>
    public double? BallX { get; set; }

    /// <inheritdoc cref="WhiteX"/>
    public double? BallY { get; set; }

    /// <summary>Points of a run, and how many strokes of each kind it had.</summary>
    public int? Score { get; set; }

    /// <inheritdoc cref="Score"/>
    public IReadOnlyDictionary<string, int> Kinds { get; set; } = new Dictionary<string, int>();

    /// <summary>The stroke as it was meant.</summary>
    public MeantStroke? Stroke { get; set; }

    /// <summary>What was changed; attempts are told apart by it.</summary>
    public string Group { get; set; } = "";

    /// <summary>Taken back: it does not count.</summary>
    public bool IsWithdrawn { get; set; }

    /// <summary>A coach's word on it, which no correction of the attempt touches.</summary>
    public string Note { get; set; } = "";

    /// <summary>Which of the session's changes was the last of this attempt.</summary>
    public required long ChangedIn { get; set; }
    public uint Version { get; init; }
}

internal sealed class AttemptConfiguration : IEntityTypeConfiguration<Attempt>
{
    public void Configure(EntityTypeBuilder<Attempt> attempt)
    {
        attempt.Property(a => a.Routine).HasMaxLength(Attempt.MaxRoutine);
        attempt.Property(a => a.Group).HasMaxLength(Attempt.MaxGroup);
        attempt.Property(a => a.Device).HasMaxLength(Attempt.MaxDevice);
        attempt.HasOne<LaidStep>().WithMany().HasForeignKey(a => new { a.OwnerId, a.LaidHash }).OnDelete(DeleteBehavior.NoAction);
        attempt.Property(a => a.Note).HasMaxLength(Attempt.MaxNote);
        attempt.Property(a => a.Stroke!).IsJson(RoutineRecord.Json);
        attempt.Property(a => a.Kinds).IsJson(RoutineRecord.Json);
        attempt.Property(a => a.Version).IsRowVersion();
        attempt.HasIndex(a => new { a.SessionId, a.ChangedIn });
        attempt.HasIndex(a => new
        {
            a.OwnerId,
            a.Routine,
            a.At,
        });
        attempt.HasOne<PracticeSession>().WithMany().HasForeignKey(a => a.SessionId).OnDelete(DeleteBehavior.Cascade);
        attempt.HasOne<User>().WithMany().HasForeignKey(a => a.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
