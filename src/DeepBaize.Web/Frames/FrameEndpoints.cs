using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;
using CsvHelper;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Frames;
using DeepBaize.Web.Positions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Frames;

public record FrameDraft
{
    public required string Title { get; init; }
    public string First { get; init; } = "";
    public string Second { get; init; } = "";
    public IReadOnlyList<RecordedShot> Shots { get; init; } = [];
}

public sealed record FrameSave : FrameDraft
{
    public required uint Version { get; init; }
}

public sealed record FrameItem(
    Guid Id,
    string Title,
    string First,
    string Second,
    int FirstScore,
    int SecondScore,
    bool IsOver,
    int HighestBreak,
    DateTimeOffset UpdatedAt
);

/// <summary>A shot with what it was played at and what it made; the score after it.</summary>
public sealed record StoryShotResult(RecordedShot Shot, int Player, string On, int Points, int Penalty, int First, int Second);

public sealed record StoryBreakResult(int Player, int Points, int Pots, RecordedShot? End, string? EndOn);

public sealed record EndTallyResult(string On, ShotKind Kind, EndReason? Why, int Count);

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
    bool MissMayBeCalled,
    IReadOnlyList<int> Penalties,
    bool IsOver,
    int Winner
);

public sealed record FrameStoryResult(
    FrameStateResult State,
    IReadOnlyList<StoryShotResult> Shots,
    IReadOnlyList<StoryBreakResult> Breaks,
    IReadOnlyList<PlayerTallyResult> Players
)
{
    public static FrameStoryResult Of(FrameStory story)
    {
        var f = story.Now;
        List<string> mayPot =
            f.IsOver ? []
            : f.FreeBall ? [.. f.Reds > 0 ? ["red"] : Array.Empty<string>(), .. f.Colours.Select(c => c.Id)]
            : f.On switch
            {
                BallOn.Red => ["red"],
                BallOn.Colour => [.. f.Colours.Select(c => c.Id)],
                _ => [f.On.Name()],
            };
        var least = Math.Max(Values.LeastPenalty, f.On.AsColour() is { } due ? Values.Of(due) : 0);
        var state = new FrameStateResult(
            f.On.Name(),
            mayPot,
            f.Reds,
            f.Scores.First,
            f.Scores.Second,
            f.Turn,
            f.Break,
            f.FreeBall,
            f.InHand,
            f.PointsLeft,
            f.Lead,
            f.PointsToWin,
            f.SnookersRequired,
            f.MissMayBeCalled,
            [.. Enumerable.Range(least, Values.Black - least + 1)],
            f.IsOver,
            f.Winner
        );
        return new(
            state,
            [
                .. story.Shots.Select(s => new StoryShotResult(
                    s.Shot,
                    s.Player,
                    s.On.Name(),
                    s.Points,
                    s.Penalty,
                    s.After.Scores.First,
                    s.After.Scores.Second
                )),
            ],
            [.. story.Breaks.Select(b => new StoryBreakResult(b.Player, b.Points, b.Pots, b.End, b.EndOn?.Name()))],
            [
                .. story.Players.Select(p => new PlayerTallyResult(
                    p.Points,
                    p.Pots,
                    p.Misses,
                    p.PotShare,
                    p.Safeties,
                    p.Fouls,
                    p.PointsGivenAway,
                    p.HighestBreak,
                    p.Tags,
                    [.. p.Ends.Select(e => new EndTallyResult(e.On.Name(), e.Kind, e.Why, e.Count))]
                )),
            ]
        );
    }
}

public sealed record FrameRecordResult(
    Guid Id,
    string Title,
    string First,
    string Second,
    DateTimeOffset CreatedAt,
    DateTimeOffset UpdatedAt,
    uint Version,
    FrameStoryResult Story
)
{
    public static FrameRecordResult Of(FrameRecord f) =>
        new(f.Id, f.Title, f.First, f.Second, f.CreatedAt, f.UpdatedAt, f.Version, FrameStoryResult.Of(FrameStory.Of(f.Shots)));
}

/// <summary>A frame as a file: docs/formats.md and docs/frame.schema.json.</summary>
public sealed record FrameFile
{
    public const string FormatName = "deep-baize-frame";
    public const int CurrentVersion = 1;

    public static readonly JsonSerializerOptions Json = new(PositionFile.Json)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
    };

    public required string Format { get; init; }
    public required int Version { get; init; }
    public required string Title { get; init; }
    public string First { get; init; } = "";
    public string Second { get; init; } = "";
    public required IReadOnlyList<RecordedShot> Shots { get; init; }

    /// <exception cref="InputException">Another kind of file, or of a later version.</exception>
    public FrameDraft ToDraft()
    {
        if (Format != FormatName)
            throw new InputException("format", "This is not a frame file.", FormatName);
        if (Version != CurrentVersion)
            throw new InputException("version", $"Version {Version} is not known.", $"{CurrentVersion}");
        return new()
        {
            Title = Title,
            First = First,
            Second = Second,
            Shots = Shots,
        };
    }
}

/// <summary>Frames written down shot by shot.</summary>
public static class FrameEndpoints
{
    public static void MapFrames(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/frames").WithTags("Frames").ProducesProblem(400).ProducesProblem(503);
        group.MapGet("", List).WithName("listFrames").WithSummary("The latest first");
        group.MapGet("{id:guid}", Read).WithName("readFrame").WithSummary("A frame with its breaks and figures").ProducesProblem(404);
        group.MapPost("", Create).WithName("createFrame");
        group
            .MapPut("{id:guid}", Save)
            .WithName("saveFrame")
            .WithSummary("All shots anew: one more, or without the last")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group.MapDelete("{id:guid}", Delete).WithName("deleteFrame").ProducesProblem(404);
        group
            .MapPost("import", Import)
            .WithName("importFrame")
            .WithSummary("Saves a frame from a file (docs/formats.md)")
            .Accepts<FrameFile>("application/json");
        group
            .MapGet("{id:guid}/export/json", ExportJson)
            .WithName("exportFrameJson")
            .WithSummary("The file of a frame")
            .ProducesProblem(404);
        group
            .MapGet("{id:guid}/export/csv", ExportCsv)
            .WithName("exportFrameCsv")
            .WithSummary("A line a shot")
            .Produces<string>(200, "text/csv")
            .ProducesProblem(404);
    }

    private static IQueryable<FrameRecord> Own(DeepBaizeContext db) => db.Frames.Where(f => f.OwnerId == User.LocalId);

    private static async Task<Ok<List<FrameItem>>> List(DeepBaizeContext db, CancellationToken cancel)
    {
        var frames = await Own(db).AsNoTracking().OrderByDescending(f => f.UpdatedAt).Take(Limits.FramesListed).ToListAsync(cancel);
        return TypedResults.Ok(
            frames
                .Select(f =>
                {
                    var story = FrameStory.Of(f.Shots);
                    return new FrameItem(
                        f.Id,
                        f.Title,
                        f.First,
                        f.Second,
                        story.Now.Scores.First,
                        story.Now.Scores.Second,
                        story.Now.IsOver,
                        story.Players.Max(p => p.HighestBreak),
                        f.UpdatedAt
                    );
                })
                .ToList()
        );
    }

    private static async Task<Results<Ok<FrameRecordResult>, ProblemHttpResult>> Read(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await Own(db).AsNoTracking().SingleOrDefaultAsync(f => f.Id == id, cancel) is { } frame
            ? TypedResults.Ok(FrameRecordResult.Of(frame))
            : Missing();

    private static (string Title, string First, string Second) Checked(FrameDraft draft)
    {
        FrameStory.Of(draft.Shots);
        foreach (var (shot, i) in draft.Shots.Select((s, i) => (s, i)))
            if (shot.White is { } w && !(w.X is >= 0 and <= Dimensions.Length && w.Y is >= 0 and <= Dimensions.Width))
                throw new InputException(
                    $"shots[{i}].white",
                    "The white is off the table.",
                    $"x 0 to {Dimensions.Length} m, y 0 to {Dimensions.Width} m"
                );
        string Player(string field, string? name, string otherwise) =>
            PositionEndpoints.CheckedText(field, name, FrameRecord.MaxPlayer, required: false) is { Length: > 0 } given ? given : otherwise;
        return (
            PositionEndpoints.CheckedText("title", draft.Title, FrameRecord.MaxTitle, required: true),
            Player("first", draft.First, "First"),
            Player("second", draft.Second, "Second")
        );
    }

    private static async Task<Created<FrameRecordResult>> Create(
        FrameDraft draft,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (title, first, second) = Checked(draft);
        var now = time.GetUtcNow();
        var frame = new FrameRecord
        {
            OwnerId = User.LocalId,
            Title = title,
            First = first,
            Second = second,
            Shots = draft.Shots,
            CreatedAt = now,
            UpdatedAt = now,
        };
        db.Frames.Add(frame);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/frames/{frame.Id}", FrameRecordResult.Of(frame));
    }

    private static async Task<Results<Ok<FrameRecordResult>, ProblemHttpResult>> Save(
        Guid id,
        FrameSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (title, first, second) = Checked(save);
        if (await Own(db).SingleOrDefaultAsync(f => f.Id == id, cancel) is not { } frame)
            return Missing();
        db.Entry(frame).Property(f => f.Version).OriginalValue = save.Version;
        (frame.Title, frame.First, frame.Second, frame.Shots, frame.UpdatedAt) = (title, first, second, save.Shots, time.GetUtcNow());
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            return TypedResults.Problem(
                statusCode: StatusCodes.Status409Conflict,
                title: "This frame has been written to elsewhere since you opened it.",
                detail: "Open it again, and enter the shot there."
            );
        }
        return TypedResults.Ok(FrameRecordResult.Of(frame));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(Guid id, DeepBaizeContext db, CancellationToken cancel) =>
        await Own(db).Where(f => f.Id == id).ExecuteDeleteAsync(cancel) == 0 ? Missing() : TypedResults.NoContent();

    private static async Task<Created<FrameRecordResult>> Import(
        HttpRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file =
            await JsonSerializer.DeserializeAsync<FrameFile>(request.Body, FrameFile.Json, cancel)
            ?? throw new InputException("body", "The file is empty.", "a frame file as in docs/formats.md");
        return await Create(file.ToDraft(), db, time, cancel);
    }

    private static async Task<Results<JsonHttpResult<FrameFile>, ProblemHttpResult>> ExportJson(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await Own(db).AsNoTracking().SingleOrDefaultAsync(f => f.Id == id, cancel) is { } f
            ? TypedResults.Json(
                new FrameFile
                {
                    Format = FrameFile.FormatName,
                    Version = FrameFile.CurrentVersion,
                    Title = f.Title,
                    First = f.First,
                    Second = f.Second,
                    Shots = f.Shots,
                },
                FrameFile.Json
            )
            : Missing();

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> ExportCsv(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        if (await Own(db).AsNoTracking().SingleOrDefaultAsync(f => f.Id == id, cancel) is not { } frame)
            return Missing();
        using var text = new StringWriter();
        using (var csv = CsvWriter.Create(text, new CsvWriterOptions(), leaveOpen: true))
        {
            csv.WriteRecord(
                (string[])
                    [
                        "shot",
                        "player",
                        "on",
                        "outcome",
                        "potted",
                        "points",
                        "penalty",
                        "break",
                        "score_first",
                        "score_second",
                        "strokes",
                        "why",
                        "white_x_m",
                        "white_y_m",
                    ]
            );
            foreach (var (s, i) in FrameStory.Of(frame.Shots).Shots.Select((s, i) => (s, i)))
            {
                static string Figure(IFormattable? value) => value?.ToString(null, CultureInfo.InvariantCulture) ?? "";
                csv.WriteRecord(
                    (string[])
                        [
                            Figure(i + 1),
                            s.Player == 0 ? frame.First : frame.Second,
                            s.On.Name(),
                            Camel(s.Shot.Kind),
                            string.Join(' ', s.Shot.Potted),
                            Figure(s.Points),
                            Figure(s.Penalty),
                            Figure(s.Points > 0 ? s.After.Break : 0),
                            Figure(s.After.Scores.First),
                            Figure(s.After.Scores.Second),
                            string.Join(' ', s.Shot.Tags.Select(t => Camel(t))),
                            s.Shot.Why is { } why ? Camel(why) : "",
                            Figure(s.Shot.White?.X),
                            Figure(s.Shot.White?.Y),
                        ]
                );
            }
        }
        return TypedResults.Text(text.ToString(), "text/csv");
    }

    private static string Camel(Enum value) => JsonNamingPolicy.CamelCase.ConvertName(value.ToString());

    private static ProblemHttpResult Missing() =>
        TypedResults.Problem(
            statusCode: StatusCodes.Status404NotFound,
            title: "There is no such frame.",
            detail: "It may have been deleted."
        );
}
