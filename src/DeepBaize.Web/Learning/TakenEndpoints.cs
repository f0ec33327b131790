using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Learning;
using DeepBaize.Data.Players;
using DeepBaize.Data.Tables;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Learning;

/// <summary>What learnt figures are of.</summary>
public enum TakenKind
{
    /// <summary>The table in hand.</summary>
    Table,

    /// <summary>The player in hand.</summary>
    Player,
}

/// <summary>Figures to take over.</summary>
public sealed record TakeRequest
{
    public required TakenKind Kind { get; init; }

    [Description("1 to 80 letters.")]
    public required string Name { get; init; }

    [Description("By name: conditions of a table, or parts of a skill, paceOfFive and naturalElevation.")]
    public required IReadOnlyDictionary<string, double> Figures { get; init; }
}

/// <summary>Figures that were taken over.</summary>
public sealed record TakenResult(
    Guid Id,
    TakenKind Kind,
    string Name,
    DateTimeOffset TakenAt,
    IReadOnlyDictionary<string, double> Before,
    IReadOnlyDictionary<string, double> After,
    DateTimeOffset? UndoneAt,
    uint Version
)
{
    public static TakenResult Of(TakenFigures t)
    {
        // A table stores only what differs from the defaults: those held before where nothing was stored.
        var before = t.After.Keys.ToDictionary(name => name, name => t.Before.TryGetValue(name, out var was) ? was : Usual(name));
        return new(t.Id, Enum.Parse<TakenKind>(t.Kind), t.Name, t.TakenAt, before, t.After, t.UndoneAt, t.Version);
    }

    private static double Usual(string name) => Conditions.Fields.FirstOrDefault(f => f.Name == name)?.Get(Conditions.Default) ?? 0;
}

/// <summary>What was learnt and holds: taken over by a press, kept by name and date, and given back.</summary>
public static class TakenEndpoints
{
    private const string PaceOfFive = "paceOfFive",
        NaturalElevation = "naturalElevation";

    private static readonly RecordKind Kind = new("taken figures", "They may be of another table or player.", "Look at them again.");

    public static void MapTaken(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/learn/taken").WithTags("Learning").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("", (HttpContext http, DeepBaizeContext db, [AsParameters] PageQuery page) => page.OfAsync(All(db), http))
            .WithName("listTaken")
            .WithSummary("Figures that were taken over for the table and the player in hand, the newest first; in parts");
        group
            .MapPost("", Take)
            .Creates("taken figures")
            .WithName("takeFigures")
            .WithSummary("Takes learnt figures over for the table or the player in hand");
        group
            .MapPost("/{id:guid}/undo", Undo)
            .WithName("undoTaken")
            .WithSummary("Gives figures that were taken over back: those from before hold again")
            .ProducesProblem(404);
    }

    private static IQueryable<TakenFigures> Own(DeepBaizeContext db) =>
        db.Taken.Where(t =>
            db.Users.Any(u => u.Id == User.LocalId && u.Id == t.OwnerId && (u.TableId == t.ThingId || u.PlayerId == t.ThingId))
        );

    private static IQueryable<TakenResult> All(DeepBaizeContext db) =>
        Own(db).AsNoTracking().OrderByDescending(t => t.TakenAt).Select(t => TakenResult.Of(t));

    private static async Task<Created<TakenResult>> Take(
        TakeRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var name = Texts.Checked("name", request.Name, TakenFigures.MaxName, required: true)!;
        if (request.Figures is not { Count: > 0 })
            throw new InputException("figures", "There are no figures.", "one figure at least");
        var (inHand, now) = (await db.InHandAsync(cancel), time.GetUtcNow());
        TakenFigures Taken(Guid? thing, IReadOnlyDictionary<string, double> before, string? skill) =>
            new()
            {
                OwnerId = User.LocalId,
                Kind = request.Kind.ToString(),
                ThingId = thing ?? throw new InputException("kind", "There is none in hand.", "one chosen in Settings"),
                Name = name,
                TakenAt = now,
                Before = before,
                After = request.Figures,
                SkillBefore = skill,
            };
        TakenFigures taken;
        if (request.Kind == TakenKind.Table)
        {
            var table = await db.AtHand<ClubTable>().SingleOrDefaultAsync(t => t.Id == inHand.TableId, cancel);
            taken = Taken(table?.Id, table?.Conditions ?? new Dictionary<string, double>(), null);
            table!.Conditions = ClubThings.CheckedFigures(Merged(table.Conditions, request.Figures), ofCue: false);
            table.UpdatedAt = now;
        }
        else
        {
            var player = await db.AtHand<ClubPlayer>().SingleOrDefaultAsync(p => p.Id == inHand.PlayerId, cancel);
            taken = Taken(player?.Id, player is null ? new Dictionary<string, double>() : FiguresOf(player), player?.Skill);
            Write(player!, request.Figures, Core.Players.Skill.Own);
            player!.UpdatedAt = now;
        }
        // Both or neither: they are saved together.
        return await db.CreateAsync(taken, t => $"/api/learn/taken/{t.Id}", TakenResult.Of, cancel);
    }

    private static async Task<Results<Ok<TakenResult>, ProblemHttpResult>> Undo(
        Guid id,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await Own(db).SingleOrDefaultAsync(t => t.Id == id, cancel) is not { } taken)
            return Kind.Missing();
        var now = time.GetUtcNow();
        if (taken.Kind == nameof(TakenKind.Table))
        {
            if (await db.AtHand<ClubTable>().SingleOrDefaultAsync(t => t.Id == taken.ThingId, cancel) is not { } table)
                return Kind.Missing();
            (table.Conditions, table.UpdatedAt) = (taken.Before, now);
        }
        else
        {
            if (await db.AtHand<ClubPlayer>().SingleOrDefaultAsync(p => p.Id == taken.ThingId, cancel) is not { } player)
                return Kind.Missing();
            Write(player, taken.Before, taken.SkillBefore!);
            player.UpdatedAt = now;
        }
        taken.UndoneAt = now;
        await db.SaveChangesAsync(cancel);
        return TypedResults.Ok(TakenResult.Of(taken));
    }

    private static Dictionary<string, double> Merged(
        IReadOnlyDictionary<string, double> before,
        IReadOnlyDictionary<string, double> figures
    )
    {
        var merged = before.ToDictionary(f => f.Key, f => f.Value);
        foreach (var (name, value) in figures)
            merged[name] = value;
        return merged;
    }

    /// <summary>The parts that hold for a player: his own, or his preset's.</summary>
    private static Dictionary<string, double> FiguresOf(ClubPlayer player)
    {
        var skill = player.Skill == Skill.Own ? player.OwnSkill!.ToSkill("own") : Skill.Named(player.Skill);
        var parts = Skill.Parts.ToDictionary(p => p.Name, p => p.Of(skill));
        parts[PaceOfFive] = PaceScale.Standard(player.PaceScale, 5);
        parts[NaturalElevation] = player.NaturalElevation;
        return parts;
    }

    /// <summary>Writes parts of a skill, and the pace, over those that a player has.</summary>
    private static void Write(ClubPlayer player, IReadOnlyDictionary<string, double> figures, string skill)
    {
        var known = Skill.Parts.Select(p => p.Name).Append(PaceOfFive).Append(NaturalElevation).ToList();
        var checks = new Checks("figures");
        foreach (var name in figures.Keys)
            checks.That(known.Contains(name), name, "There is no such part.", string.Join(", ", known));
        checks.Range(PaceOfFive, figures.GetValueOrDefault(PaceOfFive, 5), 3, 8);
        checks.Range(NaturalElevation, figures.GetValueOrDefault(NaturalElevation, 3), 0, Core.Players.Player.HighestButt, "°");
        checks.ThrowIfAny();
        var all = Merged(FiguresOf(player), figures);
        var entry = new SkillEntry
        {
            Direction = all["direction"],
            Sighting = all["sighting"],
            Allowance = all["allowance"],
            Pace = all["pace"],
            Height = all["height"],
            Side = all["side"],
            Cushion = all["cushion"],
            Rest = all["rest"],
            Evenness = all["evenness"],
        };
        entry.ToSkill("figures").Checked("figures");
        (player.OwnSkill, player.Skill) = (entry, skill);
        if (figures.TryGetValue(PaceOfFive, out var five))
            player.PaceScale = PaceScale.WithFive(player.PaceScale, five);
        if (figures.TryGetValue(NaturalElevation, out var butt))
            player.NaturalElevation = butt;
    }
}
