using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Web.Drawing;
using DeepBaize.Web.Players;
using DeepBaize.Web.Records;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>A routine in a list.</summary>
public sealed record RoutineItem(
    string Id,
    string Name,
    RoutineFamily Family,
    string Task,
    int Steps,
    int Attempts,
    bool BothSides,
    bool IsRun,
    [property: Description("Whether it is the user's own; those that are not come with the application, and are not changed.")] bool IsOwn,
    uint Version,
    [property: Description("The balls of the first step.")] IReadOnlyList<BallEntry> Balls,
    [property: Description("The lines of the first step's stroke; none of a run.")] SmallPicture Picture,
    [property: Description("Areas in which a ball is to stop at the first step.")] IReadOnlyList<Area> Areas
);

/// <summary>A routine whole.</summary>
/// <param name="Expected">Of a shipped run, what each preset skill makes of it, worked out by playing it.</param>
public sealed record RoutineResult(string Id, bool IsOwn, uint Version, Routine Routine, IReadOnlyList<ExpectedRun> Expected)
{
    public static RoutineResult Of(RoutineRecord r) => new(r.Id.ToString(), true, r.Version, r.Content, []);
}

/// <summary>A routine to keep.</summary>
public record RoutineEntry
{
    public required Routine Routine { get; init; }
}

/// <summary>A routine to save over one that is kept.</summary>
public sealed record RoutineSave : RoutineEntry
{
    public required uint Version { get; init; }
}

/// <summary>Of what, for whom and on what table is asked.</summary>
public sealed record OutlookRequest
{
    public required IReadOnlyList<Step> Steps { get; init; }

    [Description("height or pace, if the steps are the rungs of a ladder: then the window of each is worked out.")]
    public string? Knob { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
}

/// <summary>What a player makes of a step, worked out by playing it with the player's errors.</summary>
/// <param name="Done">Share of the attempts that are done; null of a run.</param>
/// <param name="From">Of a ladder's rung, the lowest setting of its knob that does it without an error; null if none does.</param>
/// <param name="To">The highest.</param>
/// <param name="Aim">Degrees, as the stroke is aimed.</param>
/// <param name="Likely">Outlines of the smallest area that holds 68 of 100 places where the white stops, m.</param>
/// <param name="Along">Standard deviation of those places up and down the table, m; and across it.</param>
public sealed record StepOutlook(
    Estimate? Done,
    double? From,
    double? To,
    double Aim,
    double Elevation,
    IReadOnlyList<IReadOnlyList<PlaceResult>> Likely,
    IReadOnlyList<PlaceResult> Way,
    double? Along,
    double? Across
);

/// <summary>A step made easier or harder.</summary>
public sealed record VariantResult(Step Step, double Nearer, double Straighter, double Wider, Estimate Done);

/// <summary>How a step is for a player, and what would be about right.</summary>
/// <param name="AboutSeven">The version at which about seven in ten succeed; null if it cannot be changed.</param>
/// <param name="Other">Half as far the other way.</param>
public sealed record VariantsResult(Estimate AsItIs, VariantResult? AboutSeven, VariantResult? Other);

/// <summary>Which snooker to lay.</summary>
public sealed record SnookerRequest
{
    [Description("The same seed lays the same snooker, 0 to 1,000,000.")]
    public int Seed { get; init; }

    [Description("By how many cushions it can be escaped, 1 to 3.")]
    public int Cushions { get; init; } = 1;
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
}

/// <summary>What can be practised.</summary>
public static class RoutineEndpoints
{
    internal const int MostOwn = 500;

    internal static readonly RecordKind Kind = new(
        "routine",
        "It may have been put away.",
        "Look at the newer one, and make your change there."
    );

    public static void MapRoutines(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/routines").WithTags("Practice").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("", List)
            .WithName("listRoutines")
            .WithSummary("All that can be practised: one's own, the latest first, and those that come with the application");
        group.MapGet("{id}", Read).WithName("readRoutine").WithSummary("One routine, with its layouts").ProducesProblem(404);
        group.MapPost("", Create).Creates(Kind.Name).WithName("createRoutine").WithSummary("Keeps a routine of one's own");
        group
            .MapPut("{id:guid}", Save)
            .Saves(Kind.Name)
            .WithName("saveRoutine")
            .WithSummary("Saves over a routine of one's own")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapDelete("{id:guid}", PutAway)
            .Saves(Kind.Name)
            .WithName("putAwayRoutine")
            .WithSummary("Puts a routine of one's own away; attempts at it stay")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost("{id:guid}/restore", Restore)
            .Saves(Kind.Name)
            .WithName("restoreRoutine")
            .WithSummary("Takes it out again")
            .ProducesProblem(404);
        group
            .MapPost("outlook", Outlook)
            .WithName("outlook")
            .WithSummary("What a player makes of the steps of a routine, and the windows of a ladder's rungs");
        group.MapPost("variants", Variants).WithName("variants").WithSummary("A step as it is, and made easier or harder for a player");
        group
            .MapPost("snooker", (SnookerRequest request, HttpContext http, SearchDesk desk) =>
            {
                var checks = new Checks();
                checks.Range("seed", request.Seed, 0, 1_000_000);
                checks.ThrowIfAny();
                var shape = new TableShape(Conditions.With(request.Conditions));
                return desk.JudgeAsync(http, w => SnookerDraw.Of(request.Seed, request.Cushions, shape, w.Cancel));
            })
            .WithName("drawSnooker")
            .WithSummary("Lays a snooker that can be escaped by so many cushions");
    }

    private static IQueryable<RoutineRecord> AtHand(DeepBaizeContext db) =>
        db.Routines.Where(r => r.OwnerId == User.LocalId && r.DeletedAt == null);

    private static async Task<List<RoutineItem>> List(DeepBaizeContext db, CancellationToken cancel, string search = "")
    {
        var own = AtHand(db).AsNoTracking().Having(search, r => r.Name);
        var words = Texts.Checked("search", search, 200, required: false).Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var kept = await own.OrderByDescending(r => r.UpdatedAt).ThenBy(r => r.Id).Take(MostOwn).ToListAsync(cancel);
        return
        [
            .. kept.Select(r => ItemOf(r.Id.ToString(), r.Content, r.Version)),
            .. ShippedRoutines
                .All.Where(s => words.All(w => s.Routine.Name.Contains(w, StringComparison.OrdinalIgnoreCase)))
                .Select(s => ItemOf(s.Id, s.Routine, null)),
        ];
    }

    private static RoutineItem ItemOf(string id, Routine routine, uint? version) =>
        new(
            Id: id,
            Name: routine.Name,
            Family: routine.Family,
            Task: routine.Task,
            Steps: routine.Steps.Count,
            Attempts: routine.Attempts,
            BothSides: routine.BothSides,
            IsRun: routine.Steps.All(s => s.IsRun),
            IsOwn: version is not null,
            Version: version ?? 0,
            Balls:
            [
                .. routine.Steps[0].Balls.Select(b => new BallEntry
                {
                    Id = b.Id,
                    X = Math.Round(b.X, 3),
                    Y = Math.Round(b.Y, 3),
                }),
            ],
            Picture: SmallPictures.Of(id, version, routine.Steps[0]),
            Areas: [.. routine.Steps[0].Demands.Where(d => d.Area is not null).Select(d => d.Area!)]
        );

    private static async Task<Results<Ok<RoutineResult>, ProblemHttpResult>> Read(string id, DeepBaizeContext db, CancellationToken cancel)
    {
        if (ShippedRoutines.Find(id) is { } shipped)
            return TypedResults.Ok(new RoutineResult(id, false, 0, shipped, ExpectedRun.Of(id)));
        return Guid.TryParse(id, out var own) && await AtHand(db).AsNoTracking().SingleOrDefaultAsync(r => r.Id == own, cancel) is { } found
            ? TypedResults.Ok(RoutineResult.Of(found))
            : Kind.Missing();
    }

    /// <summary>Any routine that attempts may be at, put away or not; null if there is none of this id.</summary>
    internal static async Task<Routine?> RoutineAsync(this DeepBaizeContext db, string id, CancellationToken cancel) =>
        ShippedRoutines.Find(id)
        ?? (
            Guid.TryParse(id, out var own)
                ? (await db.Routines.AsNoTracking().SingleOrDefaultAsync(r => r.OwnerId == User.LocalId && r.Id == own, cancel))?.Content
                : null
        );

    internal static Routine Checked(RoutineEntry entry) =>
        entry.Routine.Checked(new TableShape(Conditions.Default)) with
        {
            Name = Texts.Checked("name", entry.Routine.Name, Routine.MaxName, required: true),
            Why = Texts.Checked("why", entry.Routine.Why, Routine.MaxText, required: false),
            Task = Texts.Checked("task", entry.Routine.Task, Routine.MaxText, required: false),
            LookFor = Texts.Checked("lookFor", entry.Routine.LookFor, Routine.MaxText, required: false),
            Family = RoutineFamily.Own,
            Steps =
            [
                .. entry.Routine.Steps.Select(s => s with { Label = Texts.Checked("label", s.Label, Step.MaxLabel, required: false) }),
            ],
        };

    private static async Task<Created<RoutineResult>> Create(
        RoutineEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var routine = Checked(entry);
        if (await AtHand(db).CountAsync(cancel) >= MostOwn)
            throw new InputException("routine", "The limit of routines is reached.", $"at most {MostOwn}: put one away first");
        var now = time.GetUtcNow();
        var record = new RoutineRecord
        {
            OwnerId = User.LocalId,
            Name = routine.Name,
            Content = routine,
            CreatedAt = now,
            UpdatedAt = now,
        };
        return await db.CreateAsync(record, r => $"/api/routines/{r.Id}", RoutineResult.Of, cancel);
    }

    private static Task<Results<Ok<RoutineResult>, ProblemHttpResult>> Save(
        Guid id,
        RoutineSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var routine = Checked(save);
        return db.ChangeAsync(
            Kind,
            AtHand(db),
            (id, save.Version, save),
            r => (r.Name, r.Content, r.UpdatedAt) = (routine.Name, routine, time.GetUtcNow()),
            RoutineResult.Of,
            cancel
        );
    }

    private static Task<Results<NoContent, ProblemHttpResult>> PutAway(
        Guid id,
        uint version,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    ) => AtHand(db).BinAsync(Kind, (id, version), time, RoutineResult.Of, cancel);

    private static async Task<Results<Ok<RoutineResult>, ProblemHttpResult>> Restore(Guid id, DeepBaizeContext db, CancellationToken cancel)
    {
        await db.Routines.Where(r => r.OwnerId == User.LocalId).UnbinAsync(id, cancel);
        return await Read(id.ToString(), db, cancel);
    }

    private static Task<List<StepOutlook>> Outlook(OutlookRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var shape = new TableShape(Conditions.With(request.Conditions));
        new Routine
        {
            Name = "",
            Steps = request.Steps,
            Knob = request.Knob,
        }.Checked(shape, "");
        return desk.JudgeAsync(http, workers => request
                .Steps.Select(step =>
                {
                    if (step.IsRun)
                        return new StepOutlook(null, null, null, 0, 0, [], [], null, null);
                    var outlook = Core.Practice.ExpectedResult.Of(step, player, shape, workers);
                    var window = request.Knob is { } knob ? Ladder.WindowOf(step, knob, player, shape) : null;
                    return new StepOutlook(
                        Done: outlook.Done,
                        From: window?.From,
                        To: window?.To,
                        Aim: outlook.Stroke.AimDegrees,
                        Elevation: outlook.Stroke.ElevationDegrees,
                        Likely: [.. outlook.Likely.Select(Places)],
                        Way: Places(outlook.Way),
                        Along: outlook.Spread?.Along,
                        Across: outlook.Spread?.Across
                    );
                })
                .ToList());
    }

    private static List<PlaceResult> Places(IReadOnlyList<Vec2> places) => [.. places.Select(PlaceResult.Of)];

    private static Task<VariantsResult> Variants(OutlookRequest request, HttpContext http, SearchDesk desk)
    {
        var player = request.Player.Checked();
        var shape = new TableShape(Conditions.With(request.Conditions));
        new Routine { Name = "", Steps = request.Steps }.Checked(shape, "");
        var step = request.Steps[0];
        if (step.IsRun)
            throw new InputException("steps", "A run has no easier version.", "a step of one stroke");
        return desk.JudgeAsync(http, workers =>
        {
            VariantResult? ResultOf(Variant? v) => v is null ? null : new(v.Step, v.Nearer, v.Straighter, v.Wider, v.Done);
            var asItIs = Core.Practice.ExpectedResult.Of(step, player, shape, workers).Done;
            var about = Core.Practice.Variants.For(step, player, shape, workers);
            var other = about is null
                ? null
                : Core.Practice.Variants.By(step, asItIs.Value < Core.Practice.Variants.Wanted ? -0.5 : 0.5, player, shape, workers);
            return new VariantsResult(asItIs, ResultOf(about), ResultOf(other));
        });
    }
}
