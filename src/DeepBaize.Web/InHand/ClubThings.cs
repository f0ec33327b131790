using DeepBaize.Core;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.InHand;

/// <summary>How a kind of what is played with is read and written.</summary>
/// <param name="Record">How it is spoken of.</param>
/// <param name="Folder">players, tables, cues.</param>
/// <param name="Make">A new one, as nothing is said of it yet.</param>
/// <param name="Write">Checks what was sent and writes it down; a name that is not said stays.</param>
internal sealed record ThingKind<TThing, TEntry, TStored>(
    RecordKind Record,
    string Folder,
    Func<DateTimeOffset, TThing> Make,
    Action<TThing, TEntry> Write,
    Func<TThing, TStored> Result,
    Func<TEntry, (string? Name, uint Version)> Of
)
    where TThing : class, IClubThing
    where TStored : notnull
    where TEntry : class;

/// <summary>What is the same for players, tables and cues: a list, one of them, a new one, changing it, putting it away.</summary>
internal static class ClubThings
{
    /// <summary>More than a club has; and few enough to be listed whole in a menu.</summary>
    public const int Most = 200;

    public static RouteGroupBuilder MapThings<TThing, TEntry, TStored>(
        this IEndpointRouteBuilder app,
        ThingKind<TThing, TEntry, TStored> kind
    )
        where TThing : class, IClubThing
        where TStored : notnull
        where TEntry : class
    {
        var (record, folder, name) = (kind.Record, kind.Folder, kind.Record.Name);
        var named = char.ToUpperInvariant(name[0]) + name[1..];
        var group = app.MapGroup($"/api/{folder}").WithTags(named).ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("", async (DeepBaizeContext db, CancellationToken cancel) =>
                (await db.AtHand<TThing>().AsNoTracking().OrderBy(t => t.Name).ThenBy(t => t.Id).ToListAsync(cancel))
                    .Select(kind.Result)
                    .ToList()
            )
            .WithName($"list{named}s")
            .WithSummary($"All {folder}, by name");
        group
            .MapGet(
                "{id:guid}",
                async Task<Results<Ok<TStored>, ProblemHttpResult>> (Guid id, DeepBaizeContext db, CancellationToken cancel) =>
                    await db.AtHand<TThing>().AsNoTracking().SingleOrDefaultAsync(t => t.Id == id, cancel) is { } thing
                        ? TypedResults.Ok(kind.Result(thing))
                        : record.Missing()
            )
            .WithName($"one{named}")
            .WithSummary($"One {name}")
            .ProducesProblem(404);
        // As variables: the compiler's analyzer of routes stumbles over a body whose type is a parameter.
        Delegate create = async (TEntry entry, DeepBaizeContext db, TimeProvider time, CancellationToken cancel) =>
        {
            var thing = kind.Make(time.GetUtcNow());
            thing.Name = CheckedName(kind.Of(entry).Name, required: true);
            kind.Write(thing, entry);
            if (await db.AtHand<TThing>().CountAsync(cancel) >= Most)
                throw new InputException("name", $"The limit of {folder} is reached.", $"at most {Most}: put one away first");
            return await db.CreateAsync(thing, t => $"/api/{folder}/{t.Id}", kind.Result, cancel);
        };
        group.MapPost("", create).Creates(name).WithName($"create{named}").WithSummary($"A new {name}");
        Delegate save = (Guid id, TEntry entry, DeepBaizeContext db, TimeProvider time, CancellationToken cancel) =>
            db.SaveAsync(kind, (id, entry), time, cancel);
        group
            .MapPut("{id:guid}", save)
            .Saves(name)
            .WithName($"change{named}")
            .WithSummary($"Saves over a {name} as it was read")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapDelete(
                "{id:guid}",
                async Task<Results<NoContent, ProblemHttpResult>> (
                    Guid id,
                    uint version,
                    DeepBaizeContext db,
                    TimeProvider time,
                    CancellationToken cancel
                ) =>
                {
                    if (await db.Users.AnyAsync(u => u.PlayerId == id || u.TableId == id || u.CueId == id, cancel))
                        throw new InputException("id", $"This {name} is in hand.", $"a {name} that is not: take another first");
                    return await db.AtHand<TThing>().BinAsync(record, (id, version), time, kind.Result, cancel);
                }
            )
            .Saves(name)
            .WithName($"putAway{named}")
            .WithSummary($"Puts a {name} away; what was played with it stays")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost(
                "{id:guid}/restore",
                async Task<Results<Ok<TStored>, ProblemHttpResult>> (Guid id, DeepBaizeContext db, CancellationToken cancel) =>
                {
                    await db.Own<TThing>().UnbinAsync(id, cancel);
                    return await db.AtHand<TThing>().AsNoTracking().SingleOrDefaultAsync(t => t.Id == id, cancel) is { } thing
                        ? TypedResults.Ok(kind.Result(thing))
                        : record.Missing();
                }
            )
            .Saves(name)
            .WithName($"restore{named}")
            .WithSummary($"Takes a {name} out again")
            .ProducesProblem(404);
        return group;
    }

    public static Task<Results<Ok<TStored>, ProblemHttpResult>> SaveAsync<TThing, TEntry, TStored>(
        this DeepBaizeContext db,
        ThingKind<TThing, TEntry, TStored> kind,
        (Guid Id, TEntry Entry) which,
        TimeProvider time,
        CancellationToken cancel
    )
        where TThing : class, IClubThing
        where TStored : notnull
        where TEntry : class
    {
        var (name, version) = kind.Of(which.Entry);
        var known = name is null ? null : CheckedName(name, required: true);
        // Checked before anything is looked up: what is wrong with it is wrong for every row.
        kind.Write(kind.Make(default), which.Entry);
        return db.ChangeAsync(
            kind.Record,
            db.AtHand<TThing>(),
            (which.Id, version, which.Entry),
            thing =>
            {
                thing.Name = known ?? thing.Name;
                kind.Write(thing, which.Entry);
                thing.UpdatedAt = time.GetUtcNow();
            },
            kind.Result,
            cancel
        );
    }

    /// <summary>Those that are put away too.</summary>
    public static IQueryable<T> Own<T>(this DeepBaizeContext db)
        where T : class, IClubThing => db.Set<T>().Where(t => t.OwnerId == User.LocalId);

    /// <summary>Those that are not put away.</summary>
    public static IQueryable<T> AtHand<T>(this DeepBaizeContext db)
        where T : class, IClubThing => db.Own<T>().Where(t => t.DeletedAt == null);

    private static string CheckedName(string? name, bool required) => Texts.Checked("name", name, ClubThing.MaxName, required);

    /// <summary>Figures of one kind of thing: a cue's are in the group "cue", a table's in all others.</summary>
    /// <exception cref="InputException">An unknown name, one of the other kind, or a value out of range.</exception>
    public static IReadOnlyDictionary<string, double> CheckedFigures(IReadOnlyDictionary<string, double> figures, bool ofCue)
    {
        Conditions.With(figures);
        var its = Conditions.Fields.Where(f => f.Group == "cue" == ofCue).Select(f => f.Name).ToHashSet();
        var checks = new Checks("conditions");
        foreach (var name in figures.Keys)
            checks.That(
                its.Contains(name),
                name,
                ofCue ? "This condition belongs to the table." : "This condition belongs to the cue.",
                string.Join(", ", its)
            );
        checks.ThrowIfAny();
        return figures;
    }
}
