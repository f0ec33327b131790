using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Advice.Compare;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Searches;

namespace DeepBaize.Web.Comparing;

/// <summary>Two to four strokes from one table, and both players.</summary>
public sealed record CompareRequest
{
    public required PositionContent Content { get; init; }

    [Description("Two to four strokes from this table: pots, safeties or escapes. The stroke of the content is not used.")]
    public required IReadOnlyList<StrokeEntry> Choices { get; init; }
    public PlayerEntry Player { get; init; } = new();

    [Description("How well the other player strikes: tour, county, club or learner.")]
    public string Rival { get; init; } = RivalSkill.Usual;
}

/// <summary>A player's own strokes beside one another.</summary>
public static class CompareEndpoints
{
    public static void MapComparing(this IEndpointRouteBuilder app) =>
        app.MapGroup("/api")
            .WithTags("Comparing")
            .ProducesProblem(400)
            .MapPost("/compare", Compare)
            .WithName("compare")
            .WithSummary(
                "Two to four strokes side by side, and the advice's best: a stream of CompareProgress, ended by closing the request"
            )
            .Produces<CompareProgress>(200, "text/event-stream");

    private static IResult Compare(CompareRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var rival = RivalSkill.Checked(request.Rival, player);
        var checks = new Checks("choices");
        checks.Range("length", request.Choices.Count, Comparer.Fewest, Comparer.Most);
        checks.ThrowIfAny();
        var content = CheckedContent.Of(request.Content with { Stroke = new() }, player);
        var situation = content.ToSituation();
        List<ComparedStroke> strokes = [.. request.Choices.Select((choice, i) => StrokeOf(choice, i))];
        return desk.Plan<CompareProgress>(http, new("compare", Comparer.Stages), CompareProgress.Waiting, (tell, end) =>
        {
            var progress = new Teller<Comparison>(c => tell(CompareProgress.Of(c)));
            Comparer.Solve(strokes, player, rival, content.Shape, desk.Gate, progress, end);
        });

        ComparedStroke StrokeOf(StrokeEntry choice, int i)
        {
            var one = FieldsUnder.Of("stroke.", $"choices[{i}].", () =>
                CheckedContent.Of(request.Content with { Stroke = choice }, player)
            );
            var nominated = one.Pot is { } pot ? situation.Layout.Balls[pot.Slot].Ball : (Core.Table.Ball?)null;
            return new($"choice-{i + 1}", situation, one.Aimed()?.Stroke ?? one.Stroke, one.Pot, nominated);
        }
    }
}
