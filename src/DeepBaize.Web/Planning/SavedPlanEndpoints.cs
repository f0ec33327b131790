using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Data;
using DeepBaize.Data.Planning;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace DeepBaize.Web.Planning;

/// <summary>What a plan was asked, and its answer.</summary>
public sealed record PlanBody
{
    public required PlayerEntry Player { get; init; }
    public required PreferencesEntry Preferences { get; init; }
    public required PlansProgress Answer { get; init; }
}

public sealed record SavedPlanDraft
{
    public required string Name { get; init; }
    public required PositionContent Content { get; init; }
    public required PlanBody Body { get; init; }
}

public sealed record SavedPlanItem(Guid Id, string Name, DateTimeOffset CreatedAt);

public sealed record SavedPlanResult(Guid Id, string Name, PositionContent Content, PlanBody Body, DateTimeOffset CreatedAt);

/// <summary>Plans kept with a position.</summary>
public static class SavedPlanEndpoints
{
    public static void MapSavedPlans(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions/{positionId:guid}/plans")
            .WithTags("Planning")
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503);
        group.MapGet("", List).WithName("listPlans").WithSummary("The plans kept with a position, in the order in which they were kept");
        group.MapGet("{id:guid}", Read).WithName("readPlan").WithSummary("A plan just as it was kept");
        group.MapPost("", Create).WithName("createPlan");
        group.MapDelete("{id:guid}", Delete).WithName("deletePlan");
    }

    private static async Task<Results<Ok<List<SavedPlanItem>>, ProblemHttpResult>> List(
        Guid positionId,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.HasPositionAsync(positionId, cancel)
            ? TypedResults.Ok(
                await db.KeptWith<SavedPlan>(positionId)
                    .OrderBy(p => p.CreatedAt)
                    .ThenBy(p => p.Id)
                    .Select(p => new SavedPlanItem(p.Id, p.Name, p.CreatedAt))
                    .ToListAsync(cancel)
            )
            : PositionEndpoints.Missing();

    private static async Task<Results<Ok<SavedPlanResult>, ProblemHttpResult>> Read(
        Guid positionId,
        Guid id,
        DeepBaizeContext db,
        IOptions<JsonOptions> json,
        CancellationToken cancel
    ) =>
        await db.KeptWith<SavedPlan>(positionId).AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, cancel) is { } plan
            ? TypedResults.Ok(
                new SavedPlanResult(
                    plan.Id,
                    plan.Name,
                    plan.Content,
                    JsonSerializer.Deserialize<PlanBody>(plan.Body, json.Value.SerializerOptions)!,
                    plan.CreatedAt
                )
            )
            : Missing();

    private static async Task<Results<Created<SavedPlanItem>, ProblemHttpResult>> Create(
        Guid positionId,
        SavedPlanDraft draft,
        DeepBaizeContext db,
        IOptions<JsonOptions> json,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        CheckedContent.Of(draft.Content).ToSituation();
        draft.Body.Player.Checked();
        if (draft.Body.Answer.Plans.Count == 0)
            throw new InputException("body.answer.plans", "There is no plan to keep.", "at least one plan");
        var plan = new SavedPlan
        {
            OwnerId = User.LocalId,
            PositionId = positionId,
            Content = draft.Content,
            CreatedAt = time.GetUtcNow(),
            Name = PositionEndpoints.CheckedText("name", draft.Name, SavedPlan.MaxName, required: true),
            Body = JsonSerializer.Serialize(draft.Body, json.Value.SerializerOptions),
        };
        if (!await db.HasPositionAsync(positionId, cancel))
            return PositionEndpoints.Missing();
        if (await db.KeptWith<SavedPlan>(positionId).CountAsync(cancel) >= Limits.PlansOfPosition)
            throw new InputException(
                "positionId",
                "The position has as many plans as it can keep.",
                $"at most {Limits.PlansOfPosition}: delete one first"
            );
        db.Plans.Add(plan);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created($"/api/positions/{positionId}/plans/{plan.Id}", new SavedPlanItem(plan.Id, plan.Name, plan.CreatedAt));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid positionId,
        Guid id,
        DeepBaizeContext db,
        CancellationToken cancel
    ) =>
        await db.KeptWith<SavedPlan>(positionId).Where(p => p.Id == id).ExecuteDeleteAsync(cancel) == 0
            ? Missing()
            : TypedResults.NoContent();

    private static ProblemHttpResult Missing() =>
        TypedResults.Problem(
            statusCode: StatusCodes.Status404NotFound,
            title: "There is no such plan.",
            detail: "It, or its position, may have been deleted."
        );
}
