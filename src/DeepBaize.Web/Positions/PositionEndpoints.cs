using System.ComponentModel;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Drawing;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Positions;

/// <summary>A position to save.</summary>
public record PositionDraft
{
    public required string Name { get; init; }
    public string About { get; init; } = "";
    public required PositionContent Content { get; init; }

    [Description("Strokes that were tried from there and have left their lines, in the order in which they were played.")]
    public IReadOnlyList<TrialEntry> Trials { get; init; } = [];
}

/// <summary>A position to save over one that is stored.</summary>
public sealed record PositionSave : PositionDraft
{
    [Description("As read: a save over somebody else's newer save is refused with 409.")]
    public required uint Version { get; init; }
}

/// <summary>Another name for a position, or another line about it.</summary>
public sealed record PositionRename
{
    public required string Name { get; init; }
    public string? About { get; init; }
    public required uint Version { get; init; }
}

/// <summary>A stored position.</summary>
public sealed record PositionResult(
    Guid Id,
    string Name,
    string About,
    PositionContent Content,
    IReadOnlyList<TrialEntry> Trials,
    DateTimeOffset CreatedAt,
    DateTimeOffset UpdatedAt,
    DateTimeOffset? DeletedAt,
    [property: Description("Who, on which table and with which cue, when it was saved.")] PlayedWith With,
    uint Version
)
{
    public static PositionResult Of(Position p) =>
        new(p.Id, p.Name, p.About, p.Content, p.Trials, p.CreatedAt, p.UpdatedAt, p.DeletedAt, PlayedWith.Of(p), p.Version);
}

/// <summary>A stored position in a list: its balls and its stroke, as far as a small plan draws them.</summary>
public sealed record PositionItem(
    Guid Id,
    string Name,
    string About,
    IReadOnlyList<BallEntry> Balls,
    [property: Description("The lines of the stroke that is set up.")] SmallPicture Picture,
    [property: Description("Points of the break that is under way there.")] int Break,
    DateTimeOffset CreatedAt,
    DateTimeOffset UpdatedAt,
    DateTimeOffset? DeletedAt,
    uint Version
)
{
    public static PositionItem Of(Position p) =>
        new(
            Id: p.Id,
            Name: p.Name,
            About: p.About,
            Balls: [.. p.Content.Balls.Select(b => b with { X = Math.Round(b.X, 3), Y = Math.Round(b.Y, 3) })],
            Picture: SmallPictures.Of(p),
            Break: p.Content.Frame?.Break ?? 0,
            CreatedAt: p.CreatedAt,
            UpdatedAt: p.UpdatedAt,
            DeletedAt: p.DeletedAt,
            Version: p.Version
        );
}

/// <summary>Positions that are saved, found again, put into the bin, and exchanged as files.</summary>
public static class PositionEndpoints
{
    internal static readonly RecordKind Kind = new(
        "position",
        "It may have been deleted: look in the bin.",
        "Keep both by saving yours under another name, take the newer one, or save over it."
    );

    public static void MapPositions(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions").WithTags("Positions").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("", List)
            .WithName("listPositions")
            .WithSummary("The latest first; search looks in names and lines about them; in parts");
        group.MapGet("{id:guid}", Read).WithName("readPosition").WithSummary("A position that is not in the bin").ProducesProblem(404);
        group.MapPost("", Create).Creates(Kind.Name).WithName("createPosition").WithSummary("Saves a new position");
        group
            .MapPut("{id:guid}", Save)
            .Saves(Kind.Name)
            .WithName("savePosition")
            .WithSummary("Saves over a stored one")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPatch("{id:guid}", Rename)
            .Saves(Kind.Name)
            .WithName("renamePosition")
            .WithSummary("Another name or line about it")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapDelete("{id:guid}", Delete)
            .Saves(Kind.Name)
            .WithName("deletePosition")
            .WithSummary("Puts it in the bin")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost("{id:guid}/restore", Restore)
            .Saves(Kind.Name)
            .WithName("restorePosition")
            .WithSummary("Takes it out of the bin")
            .ProducesProblem(404);
        group
            .MapPost("import", Import)
            .Creates(Kind.Name)
            .WithName("importPosition")
            .WithSummary("Saves a position from a file (docs/formats.md)")
            .Accepts<PositionFile>("application/json")
            .WithMetadata(new BodyOptions(PositionFile.Json), new RequestSizeLimitAttribute(Limits.RecordFileBytes));
        group
            .MapPost("check", Check)
            .WithName("checkPosition")
            .WithSummary("A position from a file or a link, checked and not saved")
            .Accepts<PositionFile>("application/json")
            .WithMetadata(new BodyOptions(PositionFile.Json), new RequestSizeLimitAttribute(Limits.RecordFileBytes));
        group
            .MapPost("export/json", (PositionDraft draft) =>
            {
                TrialChecks.Of(draft.Trials, CheckedContent.Of(draft.Content).Shape);
                return TypedResults.Json(PositionFile.Of(draft), PositionFile.Json);
            })
            .WithName("exportJson")
            .WithSummary("The file of a position (docs/formats.md)");
        group
            .MapPost("export/svg", (PositionDraft draft) => TypedResults.Text(PositionSvg.Draw(draft), "image/svg+xml"))
            .WithName("exportSvg")
            .WithSummary("A drawing of a position with the chosen shot");
    }

    private static IQueryable<Position> Own(this DeepBaizeContext db) => db.Positions.Where(p => p.OwnerId == User.LocalId);

    /// <summary>Those that are not in the bin.</summary>
    internal static IQueryable<Position> PositionsAtHand(this DeepBaizeContext db) => db.Own().Where(p => p.DeletedAt == null);

    internal static Task<bool> HasPositionAsync(this DeepBaizeContext db, Guid id, CancellationToken cancel) =>
        db.PositionsAtHand().AnyAsync(p => p.Id == id, cancel);

    private static async Task<Ok<List<PositionItem>>> List(
        HttpContext http,
        DeepBaizeContext db,
        [AsParameters] PageQuery page,
        string search = "",
        bool deleted = false
    )
    {
        var query = db.Own().AsNoTracking().Where(p => p.DeletedAt != null == deleted).Having(search, p => p.Name + " " + p.About);
        var found = await page.OfAsync(query.OrderByDescending(p => deleted ? p.DeletedAt : p.UpdatedAt).ThenBy(p => p.Id), http);
        return TypedResults.Ok(found.Select(PositionItem.Of).ToList());
    }

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Read(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.PositionsAtHand().AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, cancel) is { } position
            ? TypedResults.Ok(PositionResult.Of(position))
            : Kind.Missing();

    private static async Task<Created<PositionResult>> Create(
        PositionDraft draft,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var content = CheckedContent.Of(draft.Content);
        var now = time.GetUtcNow();
        var position = new Position
        {
            OwnerId = User.LocalId,
            Name = CheckedName(draft.Name),
            About = CheckedAbout(draft.About),
            Content = draft.Content,
            Trials = TrialChecks.Of(draft.Trials, content.Shape),
            CreatedAt = now,
            UpdatedAt = now,
        };
        (await db.InHandAsync(cancel)).Write(position);
        return await db.CreateAsync(position, p => $"/api/positions/{p.Id}", PositionResult.Of, cancel);
    }

    private static string CheckedName(string name) => Texts.Checked("name", name, Position.MaxName, required: true);

    private static string CheckedAbout(string about) => Texts.Checked("about", about, Position.MaxAbout, required: false);

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Save(
        Guid id,
        PositionSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var trials = TrialChecks.Of(save.Trials, CheckedContent.Of(save.Content).Shape);
        var (name, about) = (CheckedName(save.Name), CheckedAbout(save.About));
        var inHand = await db.InHandAsync(cancel);
        return await db.ChangeAsync(
            Kind,
            db.PositionsAtHand(),
            (id, save.Version, save),
            position =>
            {
                (position.Name, position.About, position.Content, position.Trials) = (name, about, save.Content, trials);
                inHand.Write(position);
                position.UpdatedAt = time.GetUtcNow();
            },
            PositionResult.Of,
            cancel
        );
    }

    private static Task<Results<Ok<PositionResult>, ProblemHttpResult>> Rename(
        Guid id,
        PositionRename rename,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var (name, about) = (CheckedName(rename.Name), rename.About is null ? null : CheckedAbout(rename.About));
        return db.ChangeAsync(
            Kind,
            db.PositionsAtHand(),
            (id, rename.Version, rename),
            position =>
            {
                (position.Name, position.About) = (name, about ?? position.About);
                position.UpdatedAt = time.GetUtcNow();
            },
            PositionResult.Of,
            cancel
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid id,
        uint version,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    ) => db.PositionsAtHand().BinAsync(Kind, (id, version), time, PositionResult.Of, cancel);

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Restore(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        await db.Own().UnbinAsync(id, cancel);
        return await Read(id, db, cancel);
    }

    private static async Task<Ok<PositionDraft>> Check(HttpRequest request, CancellationToken cancel)
    {
        var draft = (await request.ReadFileAsync<PositionFile>(PositionFile.Json, Kind.Name, cancel)).ToDraft();
        var content = CheckedContent.Of(draft.Content);
        return TypedResults.Ok(
            draft with
            {
                Name = CheckedName(draft.Name),
                About = CheckedAbout(draft.About),
                Trials = TrialChecks.Of(draft.Trials, content.Shape),
            }
        );
    }

    private static async Task<Created<PositionResult>> Import(
        HttpRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file = await request.ReadFileAsync<PositionFile>(PositionFile.Json, Kind.Name, cancel);
        return await Create(file.ToDraft(), db, time, cancel);
    }
}
