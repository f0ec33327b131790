using System.ComponentModel;
using DeepBaize.Core.Practice;
using DeepBaize.Data.Practice;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Practice;

/// <summary>A session to begin.</summary>
public sealed record SessionEntry
{
    [Description("Chosen by whoever begins it; begun again with the same one, it is the same session.")]
    public Guid? Id { get; init; }

    [Description("Those in hand, unless said.")]
    public PlayedWith? With { get; init; }

    [Description("Now, unless said.")]
    public DateTimeOffset? StartedAt { get; init; }
    public IReadOnlyList<PlannedRoutine> Plan { get; init; } = [];
    public TaskNow? Now { get; init; }
}

/// <summary>What is played now, to be changed by whoever is at the session.</summary>
public sealed record TaskEntry
{
    public required TaskNow Now { get; init; }
}

/// <summary>What is written about a session, when it ended.</summary>
public sealed record SessionSave
{
    public string Note { get; init; } = "";
    public DateTimeOffset? EndedAt { get; init; }
    public IReadOnlyList<PlannedRoutine> Plan { get; init; } = [];
    public required uint Version { get; init; }
}

/// <summary>A coach's word on an attempt.</summary>
public sealed record NoteEntry
{
    public string Note { get; init; } = "";
}

/// <summary>An attempt, as it was counted on the device.</summary>
public sealed record AttemptEntry
{
    [Description("Chosen on the device: sent twice, it is counted once.")]
    public required Guid Id { get; init; }

    [Description("Counted up with each correction; one that is not newer than what is there changes nothing.")]
    public int Revision { get; init; } = 1;

    [Description("The device that it was counted or corrected on: of two that correct one attempt the second is told.")]
    public string? Device { get; init; }

    [Description("The revision that the server was known to have when this correction was made; null if that is not known.")]
    public int? Base { get; init; }
    public required DateTimeOffset At { get; init; }
    public required string Routine { get; init; }
    public int Step { get; init; }
    public bool Mirrored { get; init; }

    [Description("Whoever played says that it did what was asked, places apart.")]
    public bool? Said { get; init; }

    [Description("Why not: thick, thin, hard, soft, high, low, left, right, wrongBall, other.")]
    public IReadOnlyList<string> Reasons { get; init; } = [];

    [Description("What the body did, in the player's own words.")]
    public IReadOnlyList<string> Body { get; init; } = [];

    [Description("Where the white stopped, m.")]
    public PlaceResult? White { get; init; }

    [Description("Where the struck ball stopped, m.")]
    public PlaceResult? Ball { get; init; }

    [Description("Points of a run.")]
    public int? Score { get; init; }

    [Description("How many strokes of each kind a run had: stun, follow, screw, side, cannon, rest.")]
    public IReadOnlyDictionary<string, int> Kinds { get; init; } = new Dictionary<string, int>();

    [Description("The stroke as it was meant, if not as the routine says.")]
    public MeantStroke? Stroke { get; init; }

    [Description("What was changed, in a word or two.")]
    public string Group { get; init; } = "";

    [Description("Taken back: it does not count.")]
    public bool Withdrawn { get; init; }
}

/// <summary>One attempt or many, in the order in which they were made.</summary>
public sealed record AttemptsEntry
{
    public required IReadOnlyList<AttemptEntry> Attempts { get; init; }
}

/// <summary>An attempt as it is kept.</summary>
/// <param name="Done">What the rule says, or what was said where it cannot tell.</param>
/// <param name="Note">A coach's word on it.</param>
/// <param name="ChangedIn">Which of the session's changes was its last.</param>
public sealed record AttemptResult(
    Guid Id,
    int Revision,
    DateTimeOffset At,
    string Routine,
    int Step,
    bool Mirrored,
    bool? Said,
    bool Done,
    IReadOnlyList<string> Reasons,
    IReadOnlyList<string> Body,
    PlaceResult? White,
    PlaceResult? Ball,
    int? Score,
    IReadOnlyDictionary<string, int> Kinds,
    MeantStroke? Stroke,
    string Group,
    bool Withdrawn,
    string Note,
    long ChangedIn,
    [property: Description("What was laid and asked at the time: its name in /api/practice/laid.")] string? Laid
)
{
    public static AttemptResult Of(Attempt a) =>
        new(
            Id: a.Id,
            Revision: a.Revision,
            At: a.At,
            Routine: a.Routine,
            Step: a.Step,
            Mirrored: a.IsMirrored,
            Said: a.Said,
            Done: a.IsDone,
            Reasons: a.Reasons,
            Body: a.Body,
            White: a is { WhiteX: { } wx, WhiteY: { } wy } ? new(wx, wy) : null,
            Ball: a is { BallX: { } bx, BallY: { } by } ? new(bx, by) : null,
            Score: a.Score,
            Kinds: a.Kinds,
            Stroke: a.Stroke,
            Group: a.Group,
            Withdrawn: a.IsWithdrawn,
            Note: a.Note,
            ChangedIn: a.ChangedIn,
            Laid: a.LaidHash
        );
}

/// <summary>A session, without its attempts.</summary>
/// <param name="Changes">How often it, or an attempt in it, has changed.</param>
public sealed record SessionResult(
    Guid Id,
    PlayedWith With,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    IReadOnlyList<PlannedRoutine> Plan,
    TaskNow? Now,
    string Note,
    long Changes,
    uint Version
)
{
    public static SessionResult Of(PracticeSession s) =>
        new(s.Id, PlayedWith.Of(s), s.StartedAt, s.EndedAt, s.Plan, s.Now, s.Note, s.Changes, s.Version);
}

/// <summary>A session in a list.</summary>
public sealed record SessionItem(
    Guid Id,
    PlayedWith With,
    DateTimeOffset StartedAt,
    DateTimeOffset? EndedAt,
    int Attempts,
    int Done,
    IReadOnlyList<string> Routines,
    uint Version
);

/// <summary>A session, or what has changed in it since it was read.</summary>
/// <param name="Attempts">In the order in which they were made; those that were taken back too.</param>
/// <param name="Conflicts">Attempts whose correction was not taken, because another device had corrected them first.</param>
public sealed record SessionState(SessionResult Session, IReadOnlyList<AttemptResult> Attempts, IReadOnlyList<Guid> Conflicts);
