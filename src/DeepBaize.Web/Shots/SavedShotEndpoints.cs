using DeepBaize.Core;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Shots;
using DeepBaize.Web.Positions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Shots;

public sealed record SavedShotDraft
{
    public required string Name { get; init; }
    public string Note { get; init; } = "";
    public required PositionContent Content { get; init; }
}

public sealed record SavedShotEdit
{
    public required string Name { get; init; }
    public string Note { get; init; } = "";
}

public sealed record SavedShotResult(Guid Id, string Name, string Note, PositionContent Content, DateTimeOffset CreatedAt)
{
    public static SavedShotResult Of(SavedShot s) => new(s.Id, s.Name, s.Note, s.Content, s.CreatedAt);
}

/// <summary>The shots kept with a position, in the order in which they were kept.</summary>
public static class SavedShotEndpoints
{
    public static void MapSavedShots(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions/{positionId:guid}/shots")
            .WithTags("Shots")
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503);
        group.MapGet("", List).WithName("listShots").WithSummary("The shots kept with a position");
        group.MapPost("", Create).WithName("createShot");
        group.MapPut("{id:guid}", Edit).WithName("editShot").WithSummary("Another name or another line on it");
        group.MapDelete("{id:guid}", Delete).WithName("deleteShot");
    }

    private static async Task<Results<Ok<List<SavedShotResult>>, ProblemHttpResult>> List(
        Guid positionId,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.HasPositionAsync(positionId, cancel)
            ? TypedResults.Ok(
                (await db.KeptWith<SavedShot>(positionId).AsNoTracking().OrderBy(s => s.CreatedAt).ThenBy(s => s.Id).ToListAsync(cancel))
                    .Select(SavedShotResult.Of)
                    .ToList()
            )
            : PositionEndpoints.Missing();

    private static async Task<Results<Created<SavedShotResult>, ProblemHttpResult>> Create(
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
            Name = PositionEndpoints.CheckedText("name", draft.Name, SavedShot.MaxName, required: true),
            Note = PositionEndpoints.CheckedText("note", draft.Note, SavedShot.MaxNote, required: false),
        };
        if (!await db.HasPositionAsync(positionId, cancel))
            return PositionEndpoints.Missing();
        if (await db.KeptWith<SavedShot>(positionId).CountAsync(cancel) >= Limits.ShotsOfPosition)
            throw new InputException(
                "positionId",
                "The position has as many shots as it can keep.",
                $"at most {Limits.ShotsOfPosition}: delete one first"
            );
        db.Shots.Add(shot);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/positions/{positionId}/shots/{shot.Id}", SavedShotResult.Of(shot));
    }

    private static async Task<Results<Ok<SavedShotResult>, ProblemHttpResult>> Edit(
        Guid positionId,
        Guid id,
        SavedShotEdit edit,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var (name, note) = (
            PositionEndpoints.CheckedText("name", edit.Name, SavedShot.MaxName, required: true),
            PositionEndpoints.CheckedText("note", edit.Note, SavedShot.MaxNote, required: false)
        );
        if (await db.KeptWith<SavedShot>(positionId).SingleOrDefaultAsync(s => s.Id == id, cancel) is not { } shot)
            return Missing();
        (shot.Name, shot.Note) = (name, note);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Ok(SavedShotResult.Of(shot));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid positionId,
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.KeptWith<SavedShot>(positionId).Where(s => s.Id == id).ExecuteDeleteAsync(cancel) == 0
            ? Missing()
            : TypedResults.NoContent();

    private static ProblemHttpResult Missing() =>
        TypedResults.Problem(
            statusCode: StatusCodes.Status404NotFound,
            title: "There is no such shot.",
            detail: "It, or its position, may have been deleted."
        );
}
