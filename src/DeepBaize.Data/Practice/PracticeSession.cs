using DeepBaize.Core.Practice;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Practice;

/// <summary>One routine of a session's plan.</summary>
/// <param name="Routine">The id of one that is shipped, or of one's own.</param>
/// <param name="Minutes">So long it may take.</param>
public sealed record PlannedRoutine(string Routine, int Minutes);

/// <summary>What is being played now.</summary>
/// <param name="Stroke">As it is meant now, if that is not as the routine says.</param>
/// <param name="Group">What was changed, in a word or two: attempts are told apart by it.</param>
public sealed record TaskNow(string Routine, int Step = 0, bool Mirrored = false, MeantStroke? Stroke = null, string Group = "");

/// <summary>Some attempts at a table, on one day.</summary>
public sealed class PracticeSession : IBinned, IPlayedWith
{
    public const int MaxNote = 2000;

    /// <summary>Chosen by whoever begins it: it can be begun without a network.</summary>
    public required Guid Id { get; init; }
    public required Guid OwnerId { get; init; }
    public Guid? PlayerId { get; set; }
    public Guid? TableId { get; set; }
    public Guid? CueId { get; set; }
    public required DateTimeOffset StartedAt { get; init; }
    public DateTimeOffset? EndedAt { get; set; }
    public IReadOnlyList<PlannedRoutine> Plan { get; set; } = [];
    public TaskNow? Now { get; set; }
    public string Note { get; set; } = "";

    /// <summary>Counted up with every change of the session or of an attempt in it: who knows the last asks for what came after.</summary>
    public long Changes { get; set; }
    public required DateTimeOffset UpdatedAt { get; set; }

    /// <summary>Set while it is in the bin: its attempts do not count then.</summary>
    public DateTimeOffset? DeletedAt { get; set; }
    public uint Version { get; init; }
}

internal sealed class PracticeSessionConfiguration : IEntityTypeConfiguration<PracticeSession>
{
    public void Configure(EntityTypeBuilder<PracticeSession> session)
    {
        session.Property(s => s.Note).HasMaxLength(PracticeSession.MaxNote);
        session.Property(s => s.Plan).IsJson(RoutineRecord.Json);
        session.Property(s => s.Now!).IsJson(RoutineRecord.Json);
        session.Property(s => s.Version).IsRowVersion();
        session.HasIndex(s => new { s.OwnerId, s.StartedAt });
        session.KnowsWhatItWasPlayedWith();
        session.HasOne<User>().WithMany().HasForeignKey(s => s.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
