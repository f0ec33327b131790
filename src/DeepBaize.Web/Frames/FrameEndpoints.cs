using DeepBaize.Core;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Frames;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Frames;

/// <summary>Frames written down shot by shot.</summary>
public static class FrameEndpoints
{
    private static readonly RecordKind Kind = new("frame", "It may have been deleted.", "Open it again, and enter the shot there.");

    public static void MapFrames(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/frames").WithTags("Frames").ProducesProblem(400).ProducesProblem(503);
        group.MapGet("", List).WithName("listFrames").WithSummary("The latest first; search looks in titles and names; in parts");
        group.MapGet("{id:guid}", Read).WithName("readFrame").WithSummary("A frame with its breaks and figures").ProducesProblem(404);
        group.MapPost("", Create).Creates(Kind.Name).WithName("createFrame").WithSummary("Writes a new frame down");
        group
            .MapPut("{id:guid}", Save)
            .Saves(Kind.Name)
            .WithName("saveFrame")
            .WithSummary("All shots anew: one more, or without the last")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapDelete("{id:guid}", (Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                db.DeleteAsync(Kind, Own(db), (id, version), FrameRecordResult.Of, cancel)
            )
            .Saves(Kind.Name)
            .WithName("deleteFrame")
            .WithSummary("Deletes a frame for good")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost("import", Import)
            .Creates(Kind.Name)
            .WithName("importFrame")
            .WithSummary("Saves a frame from a file (docs/formats.md)")
            .Accepts<FrameFile>("application/json")
            .WithMetadata(new BodyOptions(PositionFile.Json), new RequestSizeLimitAttribute(Limits.RecordFileBytes));
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

    private static Task<FrameRecord?> Find(DeepBaizeContext db, Guid id, CancellationToken cancel) =>
        Own(db).AsNoTracking().SingleOrDefaultAsync(f => f.Id == id, cancel);

    private static async Task<Ok<List<FrameItem>>> List(
        HttpContext http,
        DeepBaizeContext db,
        [AsParameters] PageQuery page,
        string search = ""
    )
    {
        var found = Own(db).AsNoTracking().Having(search, f => f.Title + " " + f.First + " " + f.Second);
        var frames = await page.OfAsync(found.OrderByDescending(f => f.UpdatedAt).ThenBy(f => f.Id), http);
        return TypedResults.Ok(frames.Select(ItemOf).ToList());
    }

    private static FrameItem ItemOf(FrameRecord f)
    {
        var (now, players) = FrameStory.UpTo(f.Shots).Story is var story ? (story.Now, story.Players) : default;
        return new(
            Id: f.Id,
            Title: f.Title,
            First: f.First,
            Second: f.Second,
            FirstScore: now.Scores.First,
            SecondScore: now.Scores.Second,
            IsOver: now.IsOver,
            HighestBreak: players.Max(p => p.HighestBreak),
            UpdatedAt: f.UpdatedAt,
            Version: f.Version
        );
    }

    private static async Task<Results<Ok<FrameRecordResult>, ProblemHttpResult>> Read(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) => await Find(db, id, cancel) is { } frame ? TypedResults.Ok(FrameRecordResult.Of(frame)) : Kind.Missing();

    private static (string Title, string First, string Second) Checked(FrameDraft draft)
    {
        FrameStory.Of(draft.Shots);
        var checks = new Checks("shots");
        foreach (var (shot, i) in draft.Shots.Select((s, i) => (s, i)))
            if (shot.White is { } w)
                checks.That(
                    w.X is >= 0 and <= Dimensions.Length && w.Y is >= 0 and <= Dimensions.Width,
                    $"[{i}].white",
                    "The white is off the table.",
                    $"x 0 to {Dimensions.Length} m, y 0 to {Dimensions.Width} m"
                );
        checks.ThrowIfAny();
        string Player(string field, string? name, string otherwise) =>
            Texts.Checked(field, name, FrameRecord.MaxPlayer, required: false) is { Length: > 0 } given ? given : otherwise;
        var title = Texts.Checked("title", draft.Title, FrameRecord.MaxTitle, required: true);
        return (title, Player("first", draft.First, "First"), Player("second", draft.Second, "Second"));
    }

    private static async Task<Created<FrameRecordResult>> Create(
        NewFrame draft,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (title, first, second) = Checked(draft);
        // Begun on a device without a connection, and perhaps sent twice.
        if (draft.Id is { } known && await Find(db, known, cancel) is { } kept)
            return TypedResults.Created($"/api/frames/{known}", FrameRecordResult.Of(kept));
        var now = time.GetUtcNow();
        var frame = new FrameRecord
        {
            Id = draft.Id ?? Guid.CreateVersion7(),
            OwnerId = User.LocalId,
            Title = title,
            First = first,
            Second = second,
            Shots = draft.Shots,
            CreatedAt = now,
            UpdatedAt = now,
        };
        (await db.InHandAsync(cancel)).Write(frame);
        return await db.CreateAsync(frame, f => $"/api/frames/{f.Id}", FrameRecordResult.Of, cancel);
    }

    private static Task<Results<Ok<FrameRecordResult>, ProblemHttpResult>> Save(
        Guid id,
        FrameSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (title, first, second) = Checked(save);
        return db.ChangeAsync(
            Kind,
            Own(db),
            (id, save.Version, save),
            frame =>
                (frame.Title, frame.First, frame.Second, frame.Shots, frame.UpdatedAt) = (
                    title,
                    first,
                    second,
                    save.Shots,
                    time.GetUtcNow()
                ),
            FrameRecordResult.Of,
            cancel
        );
    }

    private static async Task<Created<FrameRecordResult>> Import(
        HttpRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file = await request.ReadFileAsync<FrameFile>(PositionFile.Json, Kind.Name, cancel);
        return await Create(file.ToDraft(), db, time, cancel);
    }

    private static async Task<Results<JsonHttpResult<FrameFile>, ProblemHttpResult>> ExportJson(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) => await Find(db, id, cancel) is { } frame ? TypedResults.Json(FrameFile.Of(frame), PositionFile.Json) : Kind.Missing();

    private static async Task<Results<ContentHttpResult, ProblemHttpResult>> ExportCsv(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) => await Find(db, id, cancel) is { } frame ? TypedResults.Text(FrameCsv.Of(frame), "text/csv") : Kind.Missing();
}
