using System.ComponentModel;
using DeepBaize.Core.Physics;
using DeepBaize.Core.StandIns;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Learning;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.StandIns;

/// <summary>A stroke for the stand-in to play.</summary>
public sealed record StandInRequest
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public required StrikeRequest Strike { get; init; }
}

/// <summary>What the stand-in shows at the end.</summary>
public sealed record StandInResult(
    [property: Description("Where the balls ended, as well as somebody sees it.")] IReadOnlyList<SeenBallEntry> Finals,
    [property: Description("Standard deviation of each coordinate, m.")] double Doubt
);

/// <summary>
/// A made-up table and player whose figures are hidden: it plays a stroke, so that everything about learning can be tried without a table.
/// </summary>
public static class StandInStrokes
{
    private const double Doubt = 0.015;

    public static void MapStandIns(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/stand-in/stroke", Play)
            .WithTags("Stand-ins")
            .ProducesProblem(400)
            .WithName("standInStroke")
            .WithSummary("A made-up player plays the stroke on a made-up table, whose figures nobody tells");

    private static StandInResult Play(StandInRequest request)
    {
        var layout = Layout.Create(BallEntries.Of(request.Balls), HiddenTable.Shape);
        var stroke = ObservedEntry.ToStroke(request.Strike, "strike");
        var random = Random.Shared;
        var simulator = new Simulator(HiddenTable.Shape);
        HiddenTable.Play(simulator, layout, stroke, random);
        SeenBallEntry Seen(int slot)
        {
            var (x, y) = Normal.Pair(random);
            var at = simulator.At(slot) + Doubt * new Vec2(x, y);
            return new()
            {
                Id = layout.Balls[slot].Ball.Id,
                X = Math.Round(Math.Clamp(at.X, 0, Dimensions.Length), 4),
                Y = Math.Round(Math.Clamp(at.Y, 0, Dimensions.Width), 4),
                Pocket = simulator.IsOff(slot) ? "off" : simulator.PocketOf(slot)?.Name(),
            };
        }
        return new([.. Enumerable.Range(0, layout.Balls.Count).Select(Seen)], Doubt);
    }
}
