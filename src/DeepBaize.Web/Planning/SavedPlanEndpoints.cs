using System.Text.Json;
using System.Text.Json.Nodes;
using DeepBaize.Data;
using DeepBaize.Data.Planning;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Records;
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

/// <summary>A plan to keep with its position.</summary>
public sealed record SavedPlanDraft
{
    public required string Name { get; init; }
    public required PositionContent Content { get; init; }
    public required PlanBody Body { get; init; }
}

/// <summary>A kept plan in a list.</summary>
public sealed record SavedPlanItem(Guid Id, string Name, DateTimeOffset CreatedAt, uint Version)
{
    public static SavedPlanItem Of(SavedPlan p) => new(p.Id, p.Name, p.CreatedAt, p.Version);
}

/// <summary>A kept plan, whole.</summary>
public sealed record SavedPlanResult(Guid Id, string Name, PositionContent Content, PlanBody Body, DateTimeOffset CreatedAt, uint Version);

/// <summary>Plans kept with a position.</summary>
public static class SavedPlanEndpoints
{
    private static readonly RecordKind Kind = new("plan", "It, or its position, may have been deleted.", "Open it again.");

    public static void MapSavedPlans(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/positions/{positionId:guid}/plans")
            .WithTags("Planning")
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503);
        group
            .MapGet("", (Guid positionId, DeepBaizeContext db, CancellationToken cancel) =>
                db.ListKeptAsync<SavedPlan, SavedPlanItem>(positionId, p => new(p.Id, p.Name, p.CreatedAt, p.Version), cancel)
            )
            .WithName("listPlans")
            .WithSummary("The plans kept with a position, in the order in which they were kept");
        group.MapGet("{id:guid}", Read).WithName("readPlan").WithSummary("A plan just as it was kept");
        group.MapPost("", Create).Creates(Kind.Name).WithName("createPlan").WithSummary("Keeps a plan with its position");
        group
            .MapDelete("{id:guid}", (Guid positionId, Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                db.DeleteAsync(Kind, db.KeptWith<SavedPlan>(positionId), (id, version), SavedPlanItem.Of, cancel)
            )
            .Saves(Kind.Name)
            .WithName("deletePlan")
            .WithSummary("Deletes a kept plan")
            .ProducesProblem(409);
    }

    private static async Task<Results<Ok<SavedPlanResult>, ProblemHttpResult>> Read(
        Guid positionId,
        Guid id,
        DeepBaizeContext db,
        IOptions<JsonOptions> json,
        CancellationToken cancel
    )
    {
        if (await db.KeptWith<SavedPlan>(positionId).AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, cancel) is not { } plan)
            return Kind.Missing();
        var body = KeptPlanForms.Present(JsonNode.Parse(plan.Body)!).Deserialize<PlanBody>(json.Value.SerializerOptions)!;
        return TypedResults.Ok(new SavedPlanResult(plan.Id, plan.Name, plan.Content, body, plan.CreatedAt, plan.Version));
    }

    private static Task<Results<Created<SavedPlanItem>, ProblemHttpResult>> Create(
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
        KeptPlanChecks.Check(draft.Content, draft.Body.Answer);
        var plan = new SavedPlan
        {
            OwnerId = User.LocalId,
            PositionId = positionId,
            Content = draft.Content,
            CreatedAt = time.GetUtcNow(),
            Name = Texts.Checked("name", draft.Name, SavedPlan.MaxName, required: true),
            // Where its search was is nothing to keep.
            Body = JsonSerializer.Serialize(
                draft.Body with
                {
                    Answer = draft.Body.Answer with { Status = null },
                },
                json.Value.SerializerOptions
            ),
        };
        return db.KeepAsync(plan, ("plans", Limits.PlansOfPosition), SavedPlanItem.Of, cancel);
    }
}
