using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Positions;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Records;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Safety;

/// <summary>A position, and the ball that is to be hit.</summary>
public sealed record EscapesRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public string Rival { get; init; } = RivalSkill.Usual;

    [Description("The ball that is to be hit, though another may be visible; null for any, out of a snooker.")]
    public string? Ball { get; init; }
}

/// <summary>A position whose stroke is an escape off a cushion.</summary>
public sealed record FamilyRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
}

/// <summary>An escape as players keep it: from anywhere in a band of places, off one point of a cushion; m.</summary>
/// <param name="Point">Where the white's centre meets the first cushion.</param>
/// <param name="Places">Centres of square cells; from each the ball is hit off the same cushions.</param>
/// <param name="Cell">Side of a cell.</param>
/// <param name="Left">How far to the left of where it lies the white may lie, across the line of aim.</param>
/// <param name="Right">How far to the right.</param>
public sealed record FamilyResult(
    PlaceResult Point,
    double? FromPocket,
    string? Pocket,
    IReadOnlyList<string> Cushions,
    IReadOnlyList<PlaceResult> Places,
    double Cell,
    double Left,
    double Right
);

/// <summary>The stroke that is set up, and what its family is to be called.</summary>
public sealed record KeepFamilyRequest
{
    public required string Name { get; init; }
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();
}

/// <summary>A family of escapes that is kept.</summary>
/// <param name="Route">The cushions in order, by name, joined by dots.</param>
public sealed record KeptFamilyResult(Guid Id, string Name, string Route, uint Version)
{
    public static KeptFamilyResult Of(KeptFamily f) => new(f.Id, f.Name, f.Route, f.Version);
}

/// <summary>A kept family that works from where the white lies now.</summary>
/// <param name="Stroke">Its stroke from here.</param>
public sealed record FamilyHereResult(Guid Id, string Name, StrokeEntry Stroke, FamilyResult Family);

/// <summary>Ways to a chosen ball, and escapes by family.</summary>
public static class EscapeEndpoints
{
    public static void MapEscapes(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/escapes").WithTags("Safety").ProducesProblem(400);
        group.MapPost("", Escapes).WithName("escapes").WithSummary("Ways to a ball that do not go straight, best first");
        group
            .MapPost("/family", Family)
            .WithName("escapeFamily")
            .WithSummary("From where else the stroke that is set up hits the same ball off the same point of the cushion");
        group
            .MapGet("/families", (HttpContext http, DeepBaizeContext db, [AsParameters] PageQuery page) => page.OfAsync(All(db), http))
            .WithName("listFamilies")
            .WithSummary("Families of escapes that are kept for the table in hand; in parts")
            .ProducesProblem(503);
        group
            .MapPost("/families", Keep)
            .Creates(Kind.Name)
            .WithName("keepFamily")
            .WithSummary("Keeps the family of the stroke that is set up, with a name")
            .ProducesProblem(503);
        group
            .MapDelete(
                "/families/{id:guid}",
                (Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                    db.DeleteAsync(Kind, Own(db), (id, version), KeptFamilyResult.Of, cancel)
            )
            .Saves(Kind.Name)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("forgetFamily")
            .WithSummary("Deletes a kept family")
            .ProducesProblem(503);
        group
            .MapPost("/families/here", Here)
            .WithName("familiesHere")
            .WithSummary("Kept families that work from where the white lies now, with the stroke of each")
            .ProducesProblem(503);
    }

    private static readonly RecordKind Kind = new("family", "It may have been deleted already.", "Look at it again.");

    /// <summary>Those of the table in hand.</summary>
    private static IQueryable<KeptFamily> Own(DeepBaizeContext db) =>
        db.Families.Where(f => db.Users.Any(u => u.Id == User.LocalId && u.Id == f.OwnerId && u.TableId == f.TableId));

    private static IQueryable<KeptFamilyResult> All(DeepBaizeContext db) =>
        Own(db).AsNoTracking().OrderBy(f => f.KeptAt).Select(f => new KeptFamilyResult(f.Id, f.Name, f.Route, f.Version));

    private static async Task<Created<KeptFamilyResult>> Keep(
        KeepFamilyRequest request,
        HttpContext http,
        SearchDesk desk,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var checks = new Checks();
        checks.That(
            !string.IsNullOrWhiteSpace(request.Name) && request.Name.Length <= KeptFamily.MaxName,
            "name",
            "The name is missing or too long.",
            $"1 to {KeptFamily.MaxName} letters"
        );
        checks.ThrowIfAny();
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, stroke) = (content.ToSituation(), content.Aimed()?.Stroke ?? content.Stroke);
        var family = await FamilyOf(situation, stroke, content.Shape, http, desk);
        var (simulator, record) = (new Simulator(content.Shape), new ShotRecord());
        stroke.Play(simulator, situation.Layout, record);
        var ball = situation.Layout.Balls[Contacts.FirstSlot(record)].At;
        var kept = new KeptFamily
        {
            OwnerId = User.LocalId,
            TableId =
                (await db.InHandAsync(cancel)).TableId
                ?? throw new InputException("table", "No table is in hand.", "a table chosen in Settings"),
            Name = request.Name.Trim(),
            Route = string.Join('.', family.Cushions.Select(c => c.Name())),
            PointX = family.Point.X,
            PointY = family.Point.Y,
            BallX = ball.X,
            BallY = ball.Y,
            Side = stroke.SideTips,
            Height = stroke.HeightTips,
            CueSpeed = Pace.CueSpeed(stroke.Pace),
            Elevation = request.Content.Stroke.Elevation,
            Places = [.. family.Places.SelectMany(p => new[] { Math.Round(p.X, 4), Math.Round(p.Y, 4) })],
            KeptAt = time.GetUtcNow(),
        };
        return await db.CreateAsync(kept, f => $"/api/escapes/families/{f.Id}", KeptFamilyResult.Of, cancel);
    }

    private static async Task<IReadOnlyList<FamilyHereResult>> Here(FamilyRequest request, DeepBaizeContext db, CancellationToken cancel)
    {
        const int most = 200;
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var situation = content.ToSituation();
        var kept = await Own(db).AsNoTracking().OrderBy(f => f.KeptAt).Take(most).ToListAsync(cancel);
        return [.. kept.Select(f => HereOf(f, situation, player, content.Shape)).OfType<FamilyHereResult>()];
    }

    private static FamilyHereResult? HereOf(KeptFamily kept, Situation situation, Core.Players.Player player, TableShape shape)
    {
        var cushions = kept.Route.Split('.').Select(n => Cushions.TryParse(n, out var c) ? c : default).ToList();
        var places = kept.Places.Chunk(2).Select(p => new Vec2(p[0], p[1])).ToList();
        var family = new EscapeFamily(new(kept.PointX, kept.PointY), cushions, places, (0, 0));
        var stroke = new Stroke(0, kept.Side, kept.Height, Pace.OfCueSpeed(kept.CueSpeed), kept.Elevation ?? player.NaturalElevation);
        return family.From(situation, stroke, new(kept.BallX, kept.BallY), player, shape) is { } aimed
            ? new(kept.Id, kept.Name, StrokeEntries.Free(aimed), ResultOf(family))
            : null;
    }

    private static async Task<IReadOnlyList<EscapeResult>> Escapes(
        EscapesRequest request,
        HttpContext http,
        SearchDesk desk,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, rival) = (content.ToSituation(), RivalSkill.Checked(request.Rival, player));
        Ball? target = null;
        if (request.Ball is { } id)
            target = Ball.TryParse(id, out var ball) ? ball : throw new InputException("ball", "There is no such ball.", Ball.AllowedIds);
        EscapeSearch.Check(situation, target);
        var kept = (await CorrectionEndpoints.AllAsync(db, cancel)).ToDictionary(c => c.Route);
        var found = await desk.JudgeAsync(
            http,
            workers =>
                target is { } one
                    ? EscapeSearch.SolveFor(situation, one, player, rival, content.Shape, workers)
                    : EscapeSearch.Solve(situation, player, rival, content.Shape, workers.Gate, cancel: workers.Cancel)
        );
        return [.. found.Select(e => DecideProgress.EscapeOf(e, situation.Layout, kept))];
    }

    /// <exception cref="InputException">The stroke does not hit a ball off a cushion.</exception>
    private static async Task<FamilyResult> Family(FamilyRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, stroke) = (content.ToSituation(), content.Aimed()?.Stroke ?? content.Stroke);
        return ResultOf(await FamilyOf(situation, stroke, content.Shape, http, desk));
    }

    /// <exception cref="InputException">The stroke does not hit a ball off a cushion.</exception>
    private static async Task<EscapeFamily> FamilyOf(
        Situation situation,
        Stroke stroke,
        TableShape shape,
        HttpContext http,
        SearchDesk desk
    ) =>
        await desk.JudgeAsync(http, workers => EscapeFamily.Of(situation, stroke, shape, workers))
        ?? throw new InputException("content.stroke", "This stroke hits no ball off a cushion.", "an escape off a cushion and no jaw");

    private static FamilyResult ResultOf(EscapeFamily family)
    {
        var (distance, pocket) = MirrorAim.FromPocketOf(family.Point, family.Cushion);
        return new(
            PlaceResult.Rounded(family.Point),
            distance,
            pocket.Name(),
            [.. family.Cushions.Select(c => c.Name())],
            [.. family.Places.Select(PlaceResult.Rounded)],
            EscapeFamily.Cell,
            family.Across.Left,
            family.Across.Right
        );
    }
}
