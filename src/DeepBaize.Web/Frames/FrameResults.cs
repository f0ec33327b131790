using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data.Frames;
using DeepBaize.Web.InHand;

namespace DeepBaize.Web.Frames;

/// <summary>A frame to write down.</summary>
public record FrameDraft
{
    public required string Title { get; init; }
    public string First { get; init; } = "";
    public string Second { get; init; } = "";
    public IReadOnlyList<RecordedShot> Shots { get; init; } = [];
}

/// <summary>A frame that is begun.</summary>
public sealed record NewFrame : FrameDraft
{
    [Description("Its id, if a device has begun it without a connection: a second time it is the same frame. Null: a new one.")]
    public Guid? Id { get; init; }
}

/// <summary>A frame to save over one that is stored.</summary>
public sealed record FrameSave : FrameDraft
{
    public required uint Version { get; init; }
}

/// <summary>A frame in a list.</summary>
public sealed record FrameItem(
    Guid Id,
    string Title,
    string First,
    string Second,
    int FirstScore,
    int SecondScore,
    bool IsOver,
    int HighestBreak,
    DateTimeOffset UpdatedAt,
    uint Version
);

/// <summary>A shot with what it was played at and what it made; the score after it.</summary>
public sealed record StoryShotResult(RecordedShot Shot, int Player, string On, int Points, int Penalty, int First, int Second);

/// <summary>A turn in which something was potted; End is the shot that ended it.</summary>
public sealed record StoryBreakResult(int Player, int Points, int Pots, RecordedShot? End, string? EndOn);

/// <summary>How often breaks ended at a kind of ball for a reason.</summary>
public sealed record EndTallyResult(string On, ShotKind Kind, EndReason? Why, int Count);

/// <summary>One player's figures.</summary>
public sealed record PlayerTallyResult(
    int Points,
    int Pots,
    int Misses,
    double PotShare,
    int Safeties,
    int Fouls,
    int PointsGivenAway,
    int HighestBreak,
    IReadOnlyList<TagTally> Tags,
    IReadOnlyList<EndTallyResult> Ends
);

/// <summary>Where a recorded frame stands. Penalties are those that a foul may have now.</summary>
public sealed record FrameStateResult(
    string On,
    IReadOnlyList<string> MayPot,
    int Reds,
    int First,
    int Second,
    int Turn,
    int Break,
    bool FreeBall,
    bool InHand,
    int PointsLeft,
    int Ahead,
    int ToWin,
    int SnookersRequired,
    [property: Description("Whether a miss may be called as things stand (rule 14).")] bool MissMayBeCalled,
    [property: Description("Misses, with a full ball open, of the player at the table in this turn of unbroken replays.")] int Misses,
    [property: Description("The next failure to hit a ball that lies open gives the frame (rule 14).")] bool IsWarned,
    [property: Description("The black is on its spot again, and it is not yet said who plays first (rule 4).")] bool AwaitsLot,
    IReadOnlyList<int> Penalties,
    bool IsOver,
    int Winner
)
{
    public static FrameStateResult Of(Frame f) =>
        new(
            On: f.On.Name(),
            MayPot: MayPotIn(f),
            Reds: f.Reds,
            First: f.Scores.First,
            Second: f.Scores.Second,
            Turn: f.Turn,
            Break: f.Break,
            FreeBall: f.FreeBall,
            InHand: f.InHand,
            PointsLeft: f.PointsLeft,
            Ahead: f.Lead,
            ToWin: f.PointsToWin,
            SnookersRequired: f.SnookersRequired,
            MissMayBeCalled: f.MissMayBeCalled,
            Misses: f.Misses,
            IsWarned: f.IsWarned,
            AwaitsLot: f.AwaitsLot,
            Penalties: [.. Enumerable.Range(f.LeastPenalty, Values.Black - f.LeastPenalty + 1)],
            IsOver: f.IsOver,
            Winner: f.Winner
        );

    /// <summary>The balls that may go in next: a red, and the colours by name.</summary>
    private static IReadOnlyList<string> MayPotIn(Frame f) =>
        f.IsOver
            ? []
            : [.. f.Reds > 0 && f.MayPlay(Ball.Red(1)) ? ["red"] : Array.Empty<string>(), .. f.Colours.Where(f.MayPlay).Select(c => c.Id)];
}

/// <summary>What is wrong with a shot of a stored frame: it, and what comes after it, is not told.</summary>
public sealed record StoryFault(string Field, string Message, string Allowed);

/// <summary>A frame told shot by shot.</summary>
public sealed record FrameStoryResult(
    FrameStateResult State,
    IReadOnlyList<StoryShotResult> Shots,
    IReadOnlyList<StoryBreakResult> Breaks,
    IReadOnlyList<PlayerTallyResult> Players,
    [property: Description("Of a frame written down before a rule was put right: the shot that could not have been; else null.")]
        StoryFault? Fault
)
{
    public static FrameStoryResult Of(FrameStory story, InputException? fault) =>
        new(
            State: FrameStateResult.Of(story.Now),
            Shots: [.. story.Shots.Select(ShotOf)],
            Breaks: [.. story.Breaks.Select(b => new StoryBreakResult(b.Player, b.Points, b.Pots, b.End, b.EndOn?.Name()))],
            Players: [.. story.Players.Select(TallyOf)],
            Fault: fault?.Errors[0] is { } error ? new(error.Field, error.Message, error.Allowed) : null
        );

    private static StoryShotResult ShotOf(StoryShot s) =>
        new(
            Shot: s.Shot,
            Player: s.Player,
            On: s.On.Name(),
            Points: s.Points,
            Penalty: s.Penalty,
            First: s.After.Scores.First,
            Second: s.After.Scores.Second
        );

    private static PlayerTallyResult TallyOf(PlayerTally p) =>
        new(
            Points: p.Points,
            Pots: p.Pots,
            Misses: p.Misses,
            PotShare: p.PotShare,
            Safeties: p.Safeties,
            Fouls: p.Fouls,
            PointsGivenAway: p.PointsGivenAway,
            HighestBreak: p.HighestBreak,
            Tags: p.Tags,
            Ends: [.. p.Ends.Select(e => new EndTallyResult(e.On.Name(), e.Kind, e.Why, e.Count))]
        );
}

/// <summary>A stored frame with its story.</summary>
public sealed record FrameRecordResult(
    Guid Id,
    string Title,
    string First,
    string Second,
    DateTimeOffset CreatedAt,
    DateTimeOffset UpdatedAt,
    PlayedWith With,
    uint Version,
    FrameStoryResult Story
)
{
    public static FrameRecordResult Of(FrameRecord f)
    {
        var (story, fault) = FrameStory.UpTo(f.Shots);
        return new(
            Id: f.Id,
            Title: f.Title,
            First: f.First,
            Second: f.Second,
            CreatedAt: f.CreatedAt,
            UpdatedAt: f.UpdatedAt,
            With: PlayedWith.Of(f),
            Version: f.Version,
            Story: FrameStoryResult.Of(story, fault)
        );
    }
}
