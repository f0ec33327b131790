using System.ComponentModel;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Shots;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Shots;

/// <summary>A shot to keep with its position.</summary>
public sealed record SavedShotDraft
{
    public required string Name { get; init; }

    /// <summary>The one line to take down on the shot.</summary>
    public string Note { get; init; } = "";
    public required PositionContent Content { get; init; }
}

/// <summary>Another name for a kept shot, or another line on it.</summary>
public sealed record SavedShotEdit
{
    public required string Name { get; init; }

    /// <summary>The one line to take down on the shot.</summary>
    public string Note { get; init; } = "";

    [Description("As read: a save over somebody else's newer one is refused with 409.")]
    public required uint Version { get; init; }
}

/// <summary>A kept shot in a list.</summary>
public sealed record SavedShotItem(Guid Id, string Name, string Note, StrokeEntry Stroke, DateTimeOffset CreatedAt, uint Version)
{
    public static SavedShotItem Of(SavedShot s) => new(s.Id, s.Name, s.Note, s.Content.Stroke, s.CreatedAt, s.Version);
}

/// <summary>A kept shot, whole.</summary>
public sealed record SavedShotResult(Guid Id, string Name, string Note, PositionContent Content, DateTimeOffset CreatedAt, uint Version)
{
    public static SavedShotResult Of(SavedShot s) => new(s.Id, s.Name, s.Note, s.Content, s.CreatedAt, s.Version);
}

/// <summary>The shots kept with a position, in the order in which they were kept.</summary>
public static class SavedShotEndpoints
{
    private static readonly RecordKind Kind = new("shot", "It, or its position, may have been deleted.", "Open it again.");

    public static void MapSavedShots(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions/{positionId:guid}/shots")
            .WithTags("Shots")
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503);
        group
            .MapGet("", (Guid positionId, DeepBaizeContext db, CancellationToken cancel) =>
                db.ListKeptAsync<SavedShot, SavedShotItem>(positionId, s => SavedShotItem.Of(s), cancel)
            )
            .WithName("listShots")
            .WithSummary("The shots kept with a position, in the order in which they were kept");
        group.MapGet("{id:guid}", Read).WithName("readShot").WithSummary("A kept shot with its balls and its stroke");
        group.MapPost("", Create).Creates(Kind.Name).WithName("createShot").WithSummary("Keeps a shot with its position");
        group
            .MapPut("{id:guid}", Edit)
            .Saves(Kind.Name)
            .WithName("editShot")
            .WithSummary("Another name or another line on it")
            .ProducesProblem(409);
        group
            .MapDelete("{id:guid}", (Guid positionId, Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                db.DeleteAsync(Kind, db.KeptWith<SavedShot>(positionId), (id, version), SavedShotResult.Of, cancel)
            )
            .Saves(Kind.Name)
            .WithName("deleteShot")
            .WithSummary("Deletes a kept shot")
            .ProducesProblem(409);
    }

    private static async Task<Results<Ok<SavedShotResult>, ProblemHttpResult>> Read(
        Guid positionId,
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.KeptWith<SavedShot>(positionId).AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is { } shot
            ? TypedResults.Ok(SavedShotResult.Of(shot))
            : Kind.Missing();

    private static Task<Results<Created<SavedShotResult>, ProblemHttpResult>> Create(
        Guid positionId,
        SavedShotDraft draft,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        CheckedContent.Of(draft.Content);
        var shot = new SavedShot
        {
            OwnerId = User.LocalId,
            PositionId = positionId,
            Content = draft.Content,
            CreatedAt = time.GetUtcNow(),
            Name = Texts.Checked("name", draft.Name, SavedShot.MaxName, required: true),
            Note = Texts.Checked("note", draft.Note, SavedShot.MaxNote, required: false),
        };
        return db.KeepAsync(shot, ("shots", Limits.ShotsOfPosition), SavedShotResult.Of, cancel);
    }

    private static Task<Results<Ok<SavedShotResult>, ProblemHttpResult>> Edit(
        Guid positionId,
        Guid id,
        SavedShotEdit edit,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var name = Texts.Checked("name", edit.Name, SavedShot.MaxName, required: true);
        var note = Texts.Checked("note", edit.Note, SavedShot.MaxNote, required: false);
        return db.ChangeAsync(
            Kind,
            db.KeptWith<SavedShot>(positionId),
            (id, edit.Version, edit),
            shot => (shot.Name, shot.Note) = (name, note),
            SavedShotResult.Of,
            cancel
        );
    }
}
