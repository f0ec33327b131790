using System.ComponentModel;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Players;

/// <summary>One of the strokes of a picture; m.</summary>
public sealed record PicturedStroke(
    [property: Description("The way of the ball, until it is potted, meets a cushion or stops.")] IReadOnlyList<PlaceResult> Ball,
    bool IsPotted,
    [property: Description("Where the white stops; null if it goes in.")] PlaceResult? White,
    bool IsMiscue
);

/// <summary>Where ten strokes at one shot go; m.</summary>
public sealed record PicturedShot(
    PicturedShotKind Kind,
    PlaceResult White,
    PlaceResult Ball,
    [property: Description("Ten that are most like all that were played.")] IReadOnlyList<PicturedStroke> Strokes,
    [property: Description("The share of all that went in.")] Estimate Potted
);

/// <summary>What a player's errors mean at the table.</summary>
public static class SkillEndpoints
{
    public static void MapSkills(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/player").WithTags("Player").ProducesProblem(400);
        group
            .MapPost("/picture", async (PlayerEntry player, HttpContext http, SearchDesk desk) =>
            {
                var skill = player.Checked().Skill;
                return (await desk.JudgeAsync(http, _ => SkillPicture.Of(skill, Shape))).Select(ResultOf).ToList();
            })
            .WithName("skillPicture")
            .WithSummary("Where ten balls of this player go: a long straight pot, and a half-ball black with the white to run 1.5 m");
        group
            .MapPost("/curves", (PlayerEntry player, HttpContext http, SearchDesk desk) =>
            {
                var skill = player.Checked().Skill;
                return desk.JudgeAsync(http, workers => SkillCurves.Of(skill, Shape, workers));
            })
            .WithName("skillCurves")
            .WithSummary("How this player's chances fall with distance, cut, power, side, height, run of the white and reach");
    }

    private static readonly TableShape Shape = new(Conditions.Default);

    private static PicturedShot ResultOf(SkillPicture picture) =>
        new(
            picture.Kind,
            PlaceResult.Of(picture.Shot.Layout.White.At),
            PlaceResult.Of(picture.Shot.Layout.Balls[1].At),
            [
                .. picture.Strokes.Select(s => new PicturedStroke(
                    [.. s.Ball.Select(PlaceResult.Of)],
                    s.IsPotted,
                    s.White is { } white ? PlaceResult.Of(white) : null,
                    s.IsMiscue
                )),
            ],
            picture.Potted
        );
}
