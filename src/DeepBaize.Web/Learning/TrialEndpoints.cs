using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Learning;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Players;
using DeepBaize.Web.Records;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
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
    StrokeEntry Stroke,
    SeenEntry Seen,
    uint Version
)
{
    public static KeptTrialResult Of(LearningTrial t)
    {
        var strike = new StrikeRequest
        {
            Aim = t.Content.Aim,
            CueSpeed = t.Content.CueSpeed,
            Side = t.Content.Side,
            Height = t.Content.Height,
            Elevation = t.Content.Elevation,
        };
        return new(
            t.Id,
            t.PlayedAt,
            Enum.TryParse<TeachingLine>(t.Content.Line, ignoreCase: true, out var line) ? line : null,
            t.Content.Balls,
            strike,
            StrokeEntries.Free(ObservedEntry.ToStroke(strike, "strike")),
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
    [property: Description("How far a slow ball runs off its line in the table's width, along x and along y, m.")] PlaceResult RunsOff,
    IReadOnlyList<TeachingStrokeResult> Next
);

/// <summary>A player's own scale of paces, by attempts.</summary>
/// <param name="Scale">Points of a scale that rises; empty if nothing was counted.</param>
/// <param name="Paces">What the attempts at each number came to.</param>
public sealed record PaceScaleResult(IReadOnlyList<Core.Players.PacePoint> Scale, IReadOnlyList<PaceEstimate> Paces);

/// <summary>What counted attempts tell of the player in hand.</summary>
/// <param name="Attempts">Number of attempts that say where a single stroke ended.</param>
/// <param name="Learnt">Null if they are too few.</param>
public sealed record AttemptsLearnt(int Attempts, PlayerLearntResult? Learnt);

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
        app.MapGet("/api/learn/paces", (DeepBaizeContext db, CancellationToken cancel) => PacesAsync(db, cancel))
            .WithTags("Learning")
            .ProducesProblem(503)
            .WithName("learnPaces")
            .WithSummary("The own scale of paces of the player in hand, by the attempts at the routine Pace scale");
        app.MapGet("/api/learn/attempts/{id:guid}", OfAttempt)
            .WithTags("Learning")
            .ProducesProblem(400)
            .ProducesProblem(404)
            .ProducesProblem(503)
            .WithName("learnAttempt")
            .WithSummary("What went wrong in a counted attempt that says where the white stopped");
        app.MapPost("/api/learn/attempts", Attempts)
            .WithTags("Learning")
            .ProducesProblem(400)
            .ProducesProblem(503)
            .WithName("learnAttempts")
            .WithSummary("What the counted attempts of the player in hand tell of his errors");
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
                    PlaceResult.Of(belief.Conditions.RunsOff(Dimensions.Width)),
                    LearningEndpoints.NextOf(belief, skill, Seen.UsualDoubt, workers)
                );
            }
        );
    }

    /// <summary>Attempts that are learnt from, the newest; and those that are too few to tell anything.</summary>
    private const int NewestAttempts = 150,
        FewestAttempts = 5;

    /// <summary>How well a thumb shows where a ball stopped, m.</summary>
    private const double ThumbDoubt = 0.03;

    private static async Task<AttemptsLearnt> Attempts(HttpContext http, SearchDesk desk, DeepBaizeContext db, CancellationToken cancel)
    {
        var (observed, shape, player) = await SeenAsync(db, null, cancel);
        if (observed.Count < FewestAttempts)
            return new(observed.Count, null);
        var learnt = await desk.JudgeAsync(http, workers => PlayerFit.Of(observed, player.Skill, shape, workers));
        return new(observed.Count, LearningEndpoints.ResultOf(learnt, player));
    }

    private static readonly RecordKind AttemptKind = new("attempt", "It may have been withdrawn.", "Look at it again.");

    private static async Task<Results<Ok<DiagnosisResult>, ProblemHttpResult>> OfAttempt(
        Guid id,
        HttpContext http,
        SearchDesk desk,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        if (await LaidAttempts(db).SingleOrDefaultAsync(x => x.Attempt.Id == id, cancel) is not { } found)
            return AttemptKind.Missing();
        var row = await db.Players.AsNoTracking().SingleOrDefaultAsync(p => p.Id == found.Attempt.PlayerId, cancel);
        var player = (row is null ? new PlayerEntry() : StoredPlayer.Of(row)).Checked();
        var shape = new TableShape(Conditions.With(found.Laid.Conditions));
        var observed =
            (found.Attempt.WhiteX is null ? null : SeenIn(found.Attempt, found.Laid.Step, shape, player))
            ?? throw new InputException(
                "id",
                "It does not say where a single stroke ended.",
                "an attempt at one stroke, with the place where the white stopped"
            );
        var diagnosis = await desk.JudgeAsync(http, workers => Diagnosis.Of(observed, player.Skill, shape, workers));
        return TypedResults.Ok(DiagnosisResult.Of(diagnosis, observed, shape));
    }

    /// <summary>A counted attempt, and what was laid for it.</summary>
    private sealed class LaidAttempt
    {
        public required Data.Practice.Attempt Attempt { get; init; }
        public required LaidStep Laid { get; init; }
    }

    private static IQueryable<LaidAttempt> LaidAttempts(DeepBaizeContext db) =>
        db
            .Attempts.AsNoTracking()
            .Where(a => a.OwnerId == User.LocalId && !a.IsWithdrawn)
            .Join(
                db.LaidSteps.AsNoTracking(),
                a => new { a.OwnerId, Hash = a.LaidHash },
                l => new { l.OwnerId, Hash = (string?)l.Hash },
                (a, l) => new LaidAttempt { Attempt = a, Laid = l }
            );

    private static async Task<PaceScaleResult> PacesAsync(DeepBaizeContext db, CancellationToken cancel)
    {
        var (seen, shape, _) = await SeenAsync(db, ShippedRoutines.PaceScale, cancel);
        // What the routine asks for is said by its number: whatever the player's five is, he named this one.
        var found = PaceScaleFit.Of(seen.Select(s => (s.Meant.Pace, s)), shape);
        return new(PaceScaleFit.Scale(found), found);
    }

    /// <summary>
    /// Single strokes of the player in hand that say where they ended, the newest first, all on one table: the newest one's.
    /// </summary>
    /// <param name="routine">The only one that is wanted; null for any.</param>
    private static async Task<(List<ObservedStroke> Seen, TableShape Shape, Core.Players.Player Player)> SeenAsync(
        DeepBaizeContext db,
        string? routine,
        CancellationToken cancel
    )
    {
        var inHand = await db.InHandAsync(cancel);
        var row = await db.AtHand<Data.Players.ClubPlayer>().AsNoTracking().SingleOrDefaultAsync(p => p.Id == inHand.PlayerId, cancel);
        var player = (row is null ? new PlayerEntry() : StoredPlayer.Of(row)).Checked();
        var attempts = await LaidAttempts(db)
            .Where(x => x.Attempt.PlayerId == inHand.PlayerId && x.Attempt.WhiteX != null)
            .Where(x => routine == null || x.Attempt.Routine == routine)
            .OrderByDescending(x => x.Attempt.At)
            .Take(NewestAttempts)
            .ToListAsync(cancel);
        var conditions = attempts.FirstOrDefault()?.Laid.Conditions ?? new Dictionary<string, double>();
        var shape = new TableShape(Conditions.With(conditions));
        var observed = attempts
            .Where(x =>
                x.Laid.Conditions.Count == conditions.Count && x.Laid.Conditions.All(c => conditions.GetValueOrDefault(c.Key) == c.Value)
            )
            .Select(x => SeenIn(x.Attempt, x.Laid.Step, shape, player))
            .OfType<ObservedStroke>()
            .ToList();
        return (observed, shape, player);
    }

    /// <summary>Null where the attempt was no single stroke, or can no longer be laid.</summary>
    private static ObservedStroke? SeenIn(Data.Practice.Attempt attempt, Step asked, TableShape shape, Core.Players.Player player)
    {
        var step = attempt.IsMirrored ? asked.Mirrored : asked;
        if (step.IsRun)
            return null;
        try
        {
            var layout = step.LayoutOn(shape);
            var stroke = step.StrokeOn(layout, shape, player, attempt.Stroke);
            var pot = step.PotIn(layout);
            var finals = new List<(string?, double, double, string?)> { ("white", attempt.WhiteX!.Value, attempt.WhiteY!.Value, null) };
            if (pot is { Through: < 0 })
            {
                var ball = layout.Balls[pot.Slot].Ball.Id;
                if (attempt.IsDone && step.Demands.Any(d => d.Kind == DemandKind.Pot))
                    finals.Add((ball, 0, 0, pot.Pocket.Name()));
                else if (attempt is { BallX: { } x, BallY: { } y })
                    finals.Add((ball, x, y, null));
            }
            return ObservedStroke.Create(layout, stroke, finals, new([], ThumbDoubt), pot);
        }
        catch (InputException)
        {
            return null;
        }
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
