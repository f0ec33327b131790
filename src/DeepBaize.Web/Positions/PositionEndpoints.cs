using System.ComponentModel;
using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Positions;

public record PositionDraft
{
    public required string Name { get; init; }
    public string About { get; init; } = "";
    public required PositionContent Content { get; init; }
}

public sealed record PositionSave : PositionDraft
{
    [Description("As read: a save over somebody else's newer save is refused with 409.")]
    public required uint Version { get; init; }
}

public sealed record PositionRename
{
    public required string Name { get; init; }
    public string? About { get; init; }
    public required uint Version { get; init; }
}

public sealed record PositionResult(
    Guid Id,
    string Name,
    string About,
    PositionContent Content,
    DateTimeOffset CreatedAt,
    DateTimeOffset UpdatedAt,
    DateTimeOffset? DeletedAt,
    uint Version
)
{
    public static PositionResult Of(Position p) => new(p.Id, p.Name, p.About, p.Content, p.CreatedAt, p.UpdatedAt, p.DeletedAt, p.Version);
}

public static class PositionEndpoints
{
    public static void MapPositions(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions").WithTags("Positions").ProducesProblem(400).ProducesProblem(503);
        group.MapGet("", List).WithName("listPositions").WithSummary("The latest first; search looks in names and lines about them");
        group.MapGet("{id:guid}", Read).WithName("readPosition").ProducesProblem(404);
        group.MapPost("", Create).WithName("createPosition");
        group.MapPut("{id:guid}", Save).WithName("savePosition").ProducesProblem(404).ProducesProblem(409);
        group.MapPatch("{id:guid}", Rename).WithName("renamePosition").ProducesProblem(404).ProducesProblem(409);
        group.MapDelete("{id:guid}", Delete).WithName("deletePosition").WithSummary("Puts it in the bin").ProducesProblem(404);
        group.MapPost("{id:guid}/restore", Restore).WithName("restorePosition").WithSummary("Takes it out of the bin").ProducesProblem(404);
        group
            .MapPost("import", Import)
            .WithName("importPosition")
            .WithSummary("Saves a position from a file (docs/formats.md)")
            .Accepts<PositionFile>("application/json");
        group
            .MapPost(
                "export/json",
                (PositionDraft draft) =>
                {
                    CheckedContent.Of(draft.Content);
                    return TypedResults.Json(PositionFile.Of(draft), PositionFile.Json);
                }
            )
            .WithName("exportJson")
            .WithSummary("The file of a position (docs/formats.md)");
        group
            .MapPost("export/svg", (PositionDraft draft) => TypedResults.Text(PositionSvg.Draw(draft), "image/svg+xml"))
            .WithName("exportSvg")
            .WithSummary("A drawing of a position with the chosen shot");
    }

    private static IQueryable<Position> Mine(this DeepBaizeContext db) => db.Positions.Where(p => p.OwnerId == User.LocalId);

    /// <summary>Those that are not in the bin.</summary>
    private static IQueryable<Position> MineAtHand(this DeepBaizeContext db) => db.Mine().Where(p => p.DeletedAt == null);

    internal static Task<bool> HasPositionAsync(this DeepBaizeContext db, Guid id, CancellationToken cancel) =>
        db.MineAtHand().AnyAsync(p => p.Id == id, cancel);

    /// <summary>What is kept with a position; nothing while that is in the bin.</summary>
    internal static IQueryable<T> KeptWith<T>(this DeepBaizeContext db, Guid positionId)
        where T : class, IKeptWithPosition =>
        db.Set<T>().Where(k => k.OwnerId == User.LocalId && k.PositionId == positionId && db.MineAtHand().Any(p => p.Id == positionId));

    private static async Task<Ok<List<PositionResult>>> List(
        DeepBaizeContext db,
        CancellationToken cancel,
        string search = "",
        bool deleted = false
    )
    {
        var query = db.Mine().AsNoTracking().Where(p => p.DeletedAt != null == deleted);
        foreach (var word in CheckedText("search", search, 200, required: false).Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(8))
        {
            var pattern = $"%{word.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
            query = query.Where(p => EF.Functions.ILike(p.Name, pattern, "\\") || EF.Functions.ILike(p.About, pattern, "\\"));
        }
        var found = await query
            .OrderByDescending(p => deleted ? p.DeletedAt : p.UpdatedAt)
            .Take(Limits.PositionsListed)
            .ToListAsync(cancel);
        return TypedResults.Ok(found.Select(PositionResult.Of).ToList());
    }

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Read(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.MineAtHand().AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, cancel) is { } position
            ? TypedResults.Ok(PositionResult.Of(position))
            : Missing();

    private static async Task<Created<PositionResult>> Create(
        PositionDraft draft,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        CheckedContent.Of(draft.Content);
        var now = time.GetUtcNow();
        var position = new Position
        {
            OwnerId = User.LocalId,
            Name = CheckedText("name", draft.Name, Position.MaxName, required: true),
            About = CheckedText("about", draft.About, Position.MaxAbout, required: false),
            Content = draft.Content,
            CreatedAt = now,
            UpdatedAt = now,
        };
        db.Positions.Add(position);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/positions/{position.Id}", PositionResult.Of(position));
    }

    private static Task<Results<Ok<PositionResult>, ProblemHttpResult>> Save(
        Guid id,
        PositionSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        CheckedContent.Of(save.Content);
        return Change(
            id,
            save.Version,
            db,
            time,
            cancel,
            position =>
            {
                position.Name = CheckedText("name", save.Name, Position.MaxName, required: true);
                position.About = CheckedText("about", save.About, Position.MaxAbout, required: false);
                position.Content = save.Content;
            }
        );
    }

    private static Task<Results<Ok<PositionResult>, ProblemHttpResult>> Rename(
        Guid id,
        PositionRename rename,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    ) =>
        Change(
            id,
            rename.Version,
            db,
            time,
            cancel,
            position =>
            {
                position.Name = CheckedText("name", rename.Name, Position.MaxName, required: true);
                if (rename.About is not null)
                    position.About = CheckedText("about", rename.About, Position.MaxAbout, required: false);
            }
        );

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Change(
        Guid id,
        uint version,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel,
        Action<Position> change
    )
    {
        var position = await db.MineAtHand().SingleOrDefaultAsync(p => p.Id == id, cancel);
        if (position is null)
            return Missing();
        db.Entry(position).Property(p => p.Version).OriginalValue = version;
        change(position);
        position.UpdatedAt = time.GetUtcNow();
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            db.ChangeTracker.Clear();
            var current = await db.MineAtHand().AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, cancel);
            return current is null
                ? Missing()
                : TypedResults.Problem(
                    statusCode: StatusCodes.Status409Conflict,
                    title: "This position has been saved elsewhere since you opened it.",
                    detail: "Keep both by saving yours under another name, take the newer one, or save over it.",
                    extensions: new Dictionary<string, object?> { ["current"] = PositionResult.Of(current) }
                );
        }
        return TypedResults.Ok(PositionResult.Of(position));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid id,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var changed = await db.MineAtHand()
            .Where(p => p.Id == id)
            .ExecuteUpdateAsync(set => set.SetProperty(p => p.DeletedAt, time.GetUtcNow()), cancel);
        return changed == 0 ? Missing() : TypedResults.NoContent();
    }

    private static async Task<Results<Ok<PositionResult>, ProblemHttpResult>> Restore(
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var position = await db.Mine().SingleOrDefaultAsync(p => p.Id == id, cancel);
        if (position is null)
            return Missing();
        position.DeletedAt = null;
        await db.SaveChangesAsync(cancel);
        return TypedResults.Ok(PositionResult.Of(position));
    }

    private static async Task<Created<PositionResult>> Import(
        HttpRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file =
            await JsonSerializer.DeserializeAsync<PositionFile>(request.Body, PositionFile.Json, cancel)
            ?? throw new InputException("body", "The file is empty.", "a position file as in docs/formats.md");
        return await Create(file.ToDraft(), db, time, cancel);
    }

    internal static ProblemHttpResult Missing() =>
        TypedResults.Problem(
            statusCode: StatusCodes.Status404NotFound,
            title: "There is no such position.",
            detail: "It may have been deleted: look in the bin."
        );

    /// <summary>Trimmed, in normal form, and free of what PostgreSQL or a line of text cannot hold.</summary>
    internal static string CheckedText(string field, string? text, int most, bool required)
    {
        var trimmed = (text ?? "").Trim();
        if (required && trimmed.Length == 0)
            throw new InputException(field, $"The {field} is empty.", $"1 to {most} characters");
        if (trimmed.Length > most)
            throw new InputException(field, $"The {field} is {trimmed.Length} characters long.", $"at most {most} characters");
        if (trimmed.Any(c => char.IsControl(c) && c is not ('\n' or '\t')))
            throw new InputException(
                field,
                $"The {field} holds a control character.",
                "letters, figures, signs and spaces of any language"
            );
        return trimmed;
    }
}
