using DeepBaize.Core.Table;

namespace DeepBaize.Web.Simulation;

/// <summary>The stroke in the model's own units, played out.</summary>
public static class SimulationEndpoint
{
    public static void MapSimulation(this IEndpointRouteBuilder app) =>
        app.MapPost("/api/simulate", (SimulationRequest request) =>
            {
                var shape = new TableShape(Conditions.With(request.Conditions));
                return SimulationResult.Play(Layout.Create(BallEntries.Of(request.Balls), shape), request.Strike.ToStrike(), shape).Result;
            })
            .WithName("simulate")
            .WithTags("Simulation")
            .WithSummary("Plays a stroke out")
            .ProducesProblem(400)
            .ProducesProblem(413);
}
