using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;

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
            workers => EscapeSearch.Solve(situation, player, rival, content.Shape, workers.Gate, cancel: workers.Cancel, target: target)
        );
        return [.. found.Select(e => DecideProgress.EscapeOf(e, situation.Layout, kept))];
    }

    /// <exception cref="InputException">The stroke does not hit a ball off a cushion.</exception>
    private static async Task<FamilyResult> Family(FamilyRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, stroke) = (content.ToSituation(), content.Aimed()?.Stroke ?? content.Stroke);
        var family =
            await desk.JudgeAsync(http, workers => EscapeFamily.Of(situation, stroke, player, content.Shape, workers))
            ?? throw new InputException("content.stroke", "This stroke hits no ball off a cushion.", "an escape off a cushion and no jaw");
        var (distance, pocket) = Core.Strokes.MirrorAim.FromPocketOf(family.Point, family.Cushion);
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
