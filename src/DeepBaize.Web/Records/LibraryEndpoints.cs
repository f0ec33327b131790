using DeepBaize.Data;
using DeepBaize.Web.Positions;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Records;

/// <summary>Something kept with a position, in a list over all positions.</summary>
public sealed record KeptItem
{
    public required Guid Id { get; init; }
    public required Guid PositionId { get; init; }
    public required string PositionName { get; init; }
    public required string Name { get; init; }

    /// <summary>The line on it; empty where there is none.</summary>
    public required string Note { get; init; }
    public required DateTimeOffset CreatedAt { get; init; }
}

/// <summary>The shots and plans kept with all positions that are not in the bin: the latest first.</summary>
internal static class LibraryEndpoints
{
    public static void MapLibrary(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/library").WithTags("Library").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("shots", (HttpContext http, DeepBaizeContext db, [AsParameters] PageQuery page, string search = "") => Found(
                    from shot in db.Shots
                    join position in db.PositionsAtHand() on shot.PositionId equals position.Id
                    select new KeptItem
                    {
                        Id = shot.Id,
                        PositionId = position.Id,
                        PositionName = position.Name,
                        Name = shot.Name,
                        Note = shot.Note,
                        CreatedAt = shot.CreatedAt,
                    },
                    search,
                    page,
                    http
                ))
            .WithName("findShots")
            .WithSummary("Shots kept with any position; search looks in names, lines and the position's name; in parts");
        group
            .MapGet("plans", (HttpContext http, DeepBaizeContext db, [AsParameters] PageQuery page, string search = "") => Found(
                    from plan in db.Plans
                    join position in db.PositionsAtHand() on plan.PositionId equals position.Id
                    select new KeptItem
                    {
                        Id = plan.Id,
                        PositionId = position.Id,
                        PositionName = position.Name,
                        Name = plan.Name,
                        Note = "",
                        CreatedAt = plan.CreatedAt,
                    },
                    search,
                    page,
                    http
                ))
            .WithName("findPlans")
            .WithSummary("Plans kept with any position; search looks in names and the position's name; in parts");
    }

    private static async Task<List<KeptItem>> Found(IQueryable<KeptItem> items, string search, PageQuery page, HttpContext http)
    {
        items = items.Having(search, i => i.Name + " " + i.Note + " " + i.PositionName);
        return await page.OfAsync(items.AsNoTracking().OrderByDescending(i => i.CreatedAt).ThenBy(i => i.Id), http);
    }
}
