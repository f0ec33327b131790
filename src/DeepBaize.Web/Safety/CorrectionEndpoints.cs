using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Safety;

/// <summary>An escape that was tried and missed, and what was seen of it.</summary>
public sealed record CorrectRequest
{
    public required PositionContent Content { get; init; }

    [Description("The ball that was meant.")]
    public required string Ball { get; init; }

    [Description("How far to the left of its middle the white passed, as it came, m.")]
    public double? Passed { get; init; }

    [Description(
        "Instead: how far beside the expected place the white met the first cushion, towards the top or the green's side positive, m."
    )]
    public double? Along { get; init; }
}

/// <summary>What one trial taught.</summary>
public sealed record CorrectionEntry
{
    [Description("The cushions in order, by name, joined by dots.")]
    public required string Route { get; init; }

    [Description("Along the first cushion, towards the top or the green's side positive, m.")]
    public required double Along { get; init; }
}

/// <summary>What trials have taught for these cushions: the mean.</summary>
public sealed record CorrectionResult(string Route, double Along, int Trials, uint Version)
{
    public static CorrectionResult Of(EscapeCorrection c) => new(c.Route, c.Along, c.Trials, c.Version);
}

/// <summary>What trials of escapes teach.</summary>
internal static class CorrectionEndpoints
{
    private static readonly RecordKind Kind = new("correction", "It may have been forgotten already.", "Look at it again.");

    public static void MapCorrections(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/escape").WithTags("Safety").ProducesProblem(400);
        group
            .MapGet("/corrections", (HttpContext http, DeepBaizeContext db, [AsParameters] PageQuery page) => page.OfAsync(All(db), http))
            .WithName("listCorrections")
            .WithSummary("What trials on this table have taught, by cushions; in parts")
            .ProducesProblem(503);
        group
            .MapPost("/corrections", Keep)
            .Creates(Kind.Name)
            .WithName("keepCorrection")
            .WithSummary("Keeps a correction as this table's")
            .ProducesProblem(503);
        group
            .MapDelete("/corrections/{route}", Forget)
            .Saves(Kind.Name)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("forgetCorrection")
            .WithSummary("Forgets what was learnt for these cushions")
            .ProducesProblem(503);
        group.MapPost("/correct", Correct).WithName("correctEscape").WithSummary("An escape was tried and missed: the next aim");
    }

    /// <summary>Those of the table in hand.</summary>
    private static IQueryable<EscapeCorrection> Own(DeepBaizeContext db) =>
        db.Corrections.Where(c => db.Users.Any(u => u.Id == User.LocalId && u.Id == c.OwnerId && u.TableId == c.TableId));

    private static IQueryable<CorrectionResult> All(DeepBaizeContext db) =>
        Own(db).AsNoTracking().OrderBy(c => c.Route).Select(c => new CorrectionResult(c.Route, c.Along, c.Trials, c.Version));

    public static Task<List<CorrectionResult>> AllAsync(DeepBaizeContext db, CancellationToken cancel) => All(db).ToListAsync(cancel);

    /// <summary>One trial more for these cushions: the mean is kept.</summary>
    private static async Task<CorrectionResult> Keep(
        CorrectionEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        const double most = 0.5;
        CheckedRoute(entry.Route);
        if (!(Math.Abs(entry.Along) <= most))
            throw new InputException("along", $"{entry.Along} m is out of range.", $"-{most} to {most} m");
        // One statement, so that of trials that come at once each is counted.
        var kept = await db
            .Corrections.FromSql(
                $"""
                INSERT INTO corrections AS c (id, owner_id, table_id, route, along, trials, updated_at)
                VALUES ({Guid.CreateVersion7()}, {User.LocalId}, {(
                    await db.InHandAsync(cancel)
                ).TableId}, {entry.Route}, {entry.Along}, 1, {time.GetUtcNow()})
                ON CONFLICT (table_id, route) DO UPDATE SET
                    along = (c.along * c.trials + excluded.along) / (c.trials + 1),
                    trials = c.trials + 1,
                    updated_at = excluded.updated_at
                RETURNING *, xmin
                """
            )
            .AsNoTracking()
            .ToListAsync(cancel);
        return CorrectionResult.Of(kept.Single());
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Forget(
        string route,
        uint version,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var known = CheckedRoute(route);
        var id = await Own(db).Where(c => c.Route == known).Select(c => c.Id).SingleOrDefaultAsync(cancel);
        return await db.DeleteAsync(Kind, Own(db), (id, version), CorrectionResult.Of, cancel);
    }

    private static string CheckedRoute(string route) =>
        route.Length <= EscapeCorrection.MaxRoute && route.Split('.').All(n => Cushions.TryParse(n, out _))
            ? route
            : throw new InputException("route", "There is no such order of cushions.", $"{Cushions.AllowedNames}, joined by dots");

    private static CorrectedAim Correct(CorrectRequest request)
    {
        var content = CheckedContent.Of(request.Content);
        var slot = Ball.TryParse(request.Ball, out var ball) ? content.Layout.SlotOf(ball) : -1;
        return request.Along is { } along
            ? TryAndCorrect.NextByCushion(content.Layout, content.Stroke, along, content.Shape)
            : TryAndCorrect.Next(
                content.Layout,
                content.Stroke,
                slot,
                request.Passed ?? throw new InputException("passed", "The outcome is missing.", "passed, or along"),
                content.Shape
            );
    }
}
