using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
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
public sealed record CorrectionResult(string Route, double Along, int Trials);

/// <summary>What trials of escapes teach.</summary>
internal static class CorrectionEndpoints
{
    public static void MapCorrections(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/escape").WithTags("Safety").ProducesProblem(400);
        group
            .MapGet("/corrections", List)
            .WithName("listCorrections")
            .WithSummary("What trials on this table have taught, by cushions")
            .ProducesProblem(503);
        group
            .MapPost("/corrections", Keep)
            .WithName("keepCorrection")
            .WithSummary("Keeps a correction as this table's")
            .ProducesProblem(503);
        group
            .MapDelete("/corrections/{route}", Forget)
            .WithName("forgetCorrection")
            .WithSummary("Forgets what was learnt for these cushions")
            .ProducesProblem(503);
        group.MapPost("/correct", Correct).WithName("correctEscape").WithSummary("An escape was tried and missed: the next aim");
    }

    public static Task<List<CorrectionResult>> List(DeepBaizeContext db, CancellationToken cancel) =>
        db
            .Corrections.Where(c => c.OwnerId == User.LocalId)
            .OrderBy(c => c.Route)
            .Select(c => new CorrectionResult(c.Route, c.Along, c.Trials))
            .ToListAsync(cancel);

    /// <summary>One trial more for these cushions: the mean is kept.</summary>
    private static async Task<CorrectionResult> Keep(
        CorrectionEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        const double most = 0.5;
        var names = entry.Route.Split('.');
        if (entry.Route.Length > EscapeCorrection.MaxRoute || names.Any(n => !Cushions.TryParse(n, out _)))
            throw new InputException("route", "There is no such order of cushions.", $"{Cushions.AllowedNames}, joined by dots");
        if (!(Math.Abs(entry.Along) <= most))
            throw new InputException("along", $"{entry.Along} m is out of range.", $"-{most} to {most} m");
        var kept = await db.Corrections.SingleOrDefaultAsync(c => c.OwnerId == User.LocalId && c.Route == entry.Route, cancel);
        if (kept is null)
            db.Corrections.Add(
                kept = new()
                {
                    OwnerId = User.LocalId,
                    Route = entry.Route,
                    Along = entry.Along,
                    Trials = 1,
                    UpdatedAt = time.GetUtcNow(),
                }
            );
        else
            (kept.Along, kept.Trials, kept.UpdatedAt) = (
                (kept.Along * kept.Trials + entry.Along) / (kept.Trials + 1),
                kept.Trials + 1,
                time.GetUtcNow()
            );
        await db.SaveChangesAsync(cancel);
        return new(kept.Route, kept.Along, kept.Trials);
    }

    private static async Task<NoContent> Forget(string route, DeepBaizeContext db, CancellationToken cancel)
    {
        await db.Corrections.Where(c => c.OwnerId == User.LocalId && c.Route == route).ExecuteDeleteAsync(cancel);
        return TypedResults.NoContent();
    }

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
                request.Passed ?? throw new InputException("passed", "It is not said what happened.", "passed, or along"),
                content.Shape
            );
    }
}
