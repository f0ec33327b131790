using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Learning;
using DeepBaize.Data.Positions;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Players;
using DeepBaize.Web.Records;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Simulation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Learning;

/// <summary>A trial to keep for the table in hand.</summary>
public sealed record KeepTrialRequest : ObservedEntry
{
    [Description("The teaching line it was played on; null of any other stroke.")]
    public TeachingLine? Line { get; init; }
}

/// <summary>A trial that is kept.</summary>
public sealed record KeptTrialResult(
    Guid Id,
    DateTimeOffset PlayedAt,
    TeachingLine? Line,
    IReadOnlyList<BallEntry> Balls,
    StrikeRequest Strike,
    SeenEntry Seen,
    uint Version
)
{
    public static KeptTrialResult Of(LearningTrial t) =>
        new(
            t.Id,
            t.PlayedAt,
            Enum.TryParse<TeachingLine>(t.Content.Line, ignoreCase: true, out var line) ? line : null,
            t.Content.Balls,
            new()
            {
                Aim = t.Content.Aim,
                CueSpeed = t.Content.CueSpeed,
                Side = t.Content.Side,
                Height = t.Content.Height,
                Elevation = t.Content.Elevation,
            },
            new()
            {
                Finals =
                [
                    .. t.Content.Finals.Select(f => new SeenBallEntry
                    {
                        Id = f.Id,
                        X = f.X,
                        Y = f.Y,
                        Pocket = f.Pocket,
                    }),
                ],
                Doubt = t.Content.Doubt,
            },
            t.Version
        );
}

/// <summary>What the trials of the table in hand tell, and which stroke would tell most now.</summary>
public sealed record TableKnowledge(
    IReadOnlyList<KeptTrialResult> Trials,
    IReadOnlyList<EstimateResult> Estimates,
    [property: Description("How far off a typical shot's ends are predicted now, m.")] double Knowledge,
    [property: Description("With nothing seen, m.")] double KnowledgeBefore,
    double MissBefore,
    double MissAfter,
    [property: Description("Of each trial, whether its white stopped in the 90 % area that the others predict.")] IReadOnlyList<bool> Held,
    [property: Description("Trials that do not fit, by their place in the list.")] IReadOnlyList<int> Strange,
    IReadOnlyList<TeachingStrokeResult> Next
);

/// <summary>Strokes played to learn of the table in hand.</summary>
public static class TrialEndpoints
{
    /// <summary>Figures that are learnt of a table: those that its strokes can tell apart.</summary>
    private static readonly IReadOnlyList<Parameter> Learnt = Parameter.Named(
        [
            "rollingFriction",
            "slidingFriction",
            "cushionRestitution",
            "cushionFriction",
            "driftAlong",
            "driftAcross",
            "ballRestitution",
            "spinDeceleration",
        ]
    );

    /// <summary>
    /// Trials that are learnt from: the newest; and the age at which a trial counts half, days, for cloth and balls change.
    /// </summary>
    private const int Newest = 40;
    private const double HalfLife = 90;

    private static readonly RecordKind Kind = new("trial", "It may have been deleted already.", "Look at it again.");

    public static void MapTrials(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/learn/trials").WithTags("Learning").ProducesProblem(400).ProducesProblem(503);
        group
            .MapPost("", Keep)
            .Creates(Kind.Name)
            .WithName("keepTrial")
            .WithSummary("Keeps a stroke that was played on the table in hand, and where its balls were seen");
        group
            .MapDelete(
                "/{id:guid}",
                (Guid id, uint version, DeepBaizeContext db, CancellationToken cancel) =>
                    db.DeleteAsync(Kind, Own(db), (id, version), KeptTrialResult.Of, cancel)
            )
            .Saves(Kind.Name)
            .ProducesProblem(404)
            .ProducesProblem(409)
            .WithName("deleteTrial")
            .WithSummary("Deletes a trial that was wrong");
        group
            .MapPost("/learnt", LearntOf)
            .WithName("learntOfTrials")
            .WithSummary("What the trials of the table in hand tell of it, and the strokes that would tell most now");
    }

    private static IQueryable<LearningTrial> Own(DeepBaizeContext db) =>
        db.Trials.Where(t => db.Users.Any(u => u.Id == User.LocalId && u.Id == t.OwnerId && u.TableId == t.TableId));

    private static async Task<Created<KeptTrialResult>> Keep(
        KeepTrialRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        request.Checked(new(Conditions.Default));
        var inHand = await db.InHandAsync(cancel);
        var (strike, seen) = (request.Strike, request.Seen);
        var trial = new LearningTrial
        {
            OwnerId = User.LocalId,
            TableId = inHand.TableId ?? throw new InputException("table", "No table is in hand.", "a table chosen in Settings"),
            CueId = inHand.CueId,
            PlayerId = inHand.PlayerId,
            PlayedAt = time.GetUtcNow(),
            Content = new(
                request.Balls,
                strike.Aim,
                strike.CueSpeed,
                strike.Side,
                strike.Height,
                strike.Elevation,
                [.. seen.Finals.Select(f => new TrialBall(f.Id, f.X, f.Y, f.Pocket))],
                seen.Doubt,
                request.Line?.ToString()
            ),
        };
        return await db.CreateAsync(trial, t => $"/api/learn/trials/{t.Id}", KeptTrialResult.Of, cancel);
    }

    /// <summary>Who learns, where nobody says: the default player.</summary>
    public sealed record Learner
    {
        public PlayerEntry Player { get; init; } = new();
    }

    private static async Task<TableKnowledge> LearntOf(
        Learner learner,
        HttpContext http,
        SearchDesk desk,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var skill = learner.Player.Checked().Skill;
        var inHand = await db.InHandAsync(cancel);
        var table = await db.AtHand<Data.Tables.ClubTable>().AsNoTracking().SingleOrDefaultAsync(t => t.Id == inHand.TableId, cancel);
        var cue = await db.AtHand<Data.Cues.ClubCue>().AsNoTracking().SingleOrDefaultAsync(c => c.Id == inHand.CueId, cancel);
        var rows = await Own(db).AsNoTracking().OrderByDescending(t => t.PlayedAt).Take(Newest).ToListAsync(cancel);
        rows.Reverse();
        // What is learnt begins with the presets each time: what was taken over came from the same trials.
        var figures = (table?.Conditions ?? new Dictionary<string, double>())
            .Concat(cue?.Conditions ?? new Dictionary<string, double>())
            .Where(f => Learnt.All(p => p.Name != f.Key));
        var before = Belief.Before(Conditions.With(figures), Learnt);
        var shape = new TableShape(before.Conditions);
        var kept = rows.Select(KeptTrialResult.Of).ToList();
        var trials = kept.Select((t, i) => Faded(t, time.GetUtcNow()).Checked(shape, $"trials[{i}]")).ToList();
        return await desk.JudgeAsync(
            http,
            workers =>
            {
                var learnt = trials.Count == 0 ? null : TableFit.Of(trials, before, skill, workers);
                var belief = learnt?.Belief ?? before;
                return new TableKnowledge(
                    kept,
                    LearningEndpoints.EstimatesOf(belief),
                    TeachingStrokes.Knowledge(belief, workers),
                    TeachingStrokes.Knowledge(before, workers),
                    learnt?.MissBefore ?? 0,
                    learnt?.MissAfter ?? 0,
                    learnt?.Held ?? [],
                    learnt?.Strange ?? [],
                    LearningEndpoints.NextOf(belief, skill, Seen.UsualDoubt, workers)
                );
            }
        );
    }

    /// <summary>An old trial is doubted more: its table may have changed since.</summary>
    private static ObservedEntry Faded(KeptTrialResult trial, DateTimeOffset now)
    {
        var days = Math.Max(0, (now - trial.PlayedAt).TotalDays);
        return new()
        {
            Balls = trial.Balls,
            Strike = trial.Strike,
            Seen = trial.Seen with { Doubt = Math.Min(Seen.MostDoubt, trial.Seen.Doubt * Math.Pow(2, days / (2 * HalfLife))) },
        };
    }
}
