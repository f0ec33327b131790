using System.ComponentModel;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Valuing;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Safety;

/// <summary>A position, and both players.</summary>
public sealed record DecideRequest
{
    public required PositionContent Content { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("How well the other player strikes: tour, county, club or learner.")]
    public string Rival { get; init; } = RivalSkill.Usual;
}

/// <summary>What a chance to win stands on.</summary>
public enum ChanceBasis
{
    /// <summary>The rules alone.</summary>
    Exact,

    /// <summary>The table as it lies, then a game of visits by both skills.</summary>
    Reckoned,
}

/// <summary>The chance to win a frame, 0–1.</summary>
/// <param name="Win">With the error of the strokes by which the best pot was judged.</param>
/// <param name="ModelError">Standard error of what is reckoned, from calibration.</param>
public sealed record FrameChanceResult(Estimate Win, double ModelError, ChanceBasis Basis);

/// <summary>Attack or defend, and what a stroke leaves.</summary>
public static class DecideEndpoints
{
    public static void MapSafety(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api").WithTags("Safety").ProducesProblem(400);
        group
            .MapPost("/decide", Decide)
            .WithName("decide")
            .WithSummary(
                "Pots, safeties and, out of a snooker, escapes on one scale: a stream of DecideProgress, ended by closing the request"
            )
            .Produces<DecideProgress>(200, "text/event-stream");
        group.MapPost("/leave", Leave).WithName("leave").WithSummary("What the stroke that is set up leaves, seen from the other side");
        group
            .MapPost("/frame-chance", Chance)
            .WithName("frameChance")
            .WithSummary("The chance of the player at the table to win the frame, before a stroke is chosen");
        app.MapBlackBall();
        app.MapCorrections();
        app.MapEscapes();
    }

    private static async Task<IResult> Decide(
        DecideRequest request,
        HttpContext http,
        SearchDesk desk,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, rival) = (content.ToSituation(), RivalSkill.Checked(request.Rival, player));
        var kept = (await CorrectionEndpoints.AllAsync(db, cancel)).ToDictionary(c => c.Route);
        return desk.Plan<DecideProgress>(
            http,
            new("decide", Decider.StagesOf(situation)),
            DecideProgress.Waiting,
            (tell, end) =>
            {
                var progress = new Teller<DecisionProgress>(p => tell(DecideProgress.Of(p, situation.Layout, kept)));
                Decider.Solve(situation, player, rival, content.Shape, desk.Gate, progress, end);
            }
        );
    }

    private static async Task<FrameChanceResult> Chance(DecideRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var (situation, rival) = (content.ToSituation(), RivalSkill.Checked(request.Rival, player));
        var chance = await desk.JudgeAsync(http, _ => FrameChance.Of(situation, player, rival, content.Shape));
        return new(chance.Win, chance.ModelError, chance.IsExact ? ChanceBasis.Exact : ChanceBasis.Reckoned);
    }

    private static async Task<RivalViewResult> Leave(DecideRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var content = CheckedContent.Of(request.Content, player);
        var situation = content.ToSituation();
        var leaves = content.PlayedFrom(situation, content.Aimed()?.Stroke ?? content.Stroke).Leaves;
        var rival = RivalSkill.Checked(request.Rival, player);
        var view = await desk.JudgeAsync(http, workers => RivalView.Of(leaves, rival, content.Shape, workers));
        var layout = leaves.Layout;
        return new(
            Leave: LeaveResult.Of(view.Leave, layout),
            RivalAtTable: leaves.Frame.Turn != situation.Frame.Turn,
            Balls: [.. layout.Balls.Select(BallEntry.Of)],
            Lines: [.. view.Lines.Select(l => RivalLineResult.Of(l, layout))],
            Special: [.. view.Special.Select(o => PotOptionResult.Of(o, view.Special[0], layout))]
        );
    }
}
