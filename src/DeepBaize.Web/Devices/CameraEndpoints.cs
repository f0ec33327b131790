using System.Globalization;
using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using DeepBaize.Core;
using DeepBaize.Core.Camera;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Devices;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using DeepBaize.Web.Searches;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Server.Kestrel.Core.Features;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Devices;

/// <summary>What a stream of a camera came to.</summary>
public sealed record StreamResult(int Strokes, CameraTold Told);

/// <summary>Cameras over the table: what they send, what is made of it, and who looks on.</summary>
public static class CameraEndpoints
{
    private const int MostCameras = 20,
        StrokesShown = 100,
        MostFileStrokes = 500;

    /// <summary>A request with a camera's stream: it may go on for hours, and is not kept.</summary>
    private const long StreamBytes = 1L << 34;

    internal static readonly RecordKind Kind = new("camera", "It may have been taken away.", "Look at it again.");
    private static readonly RecordKind StrokeKind = new("stroke", "It may have gone with its camera.", "Look at it again.");

    public static void MapCameras(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/camera").WithTags("Devices").ProducesProblem(400).ProducesProblem(503);
        group
            .MapPost("/read", ReadFile)
            .WithName("readCameraFile")
            .WithSummary("The strokes in a file of a camera; nothing is kept")
            .Accepts<string>("application/x-ndjson")
            .WithMetadata(new RequestSizeLimitAttribute(Limits.CameraFileBytes))
            .ProducesProblem(429);
        group.MapGet("", List).WithName("listCameras").WithSummary("Cameras that are known, the newest first");
        group.MapPost("", Create).Creates(Kind.Name).WithName("createCamera").WithSummary("Makes a camera known");
        group
            .MapPut("/{id:guid}", Save)
            .Saves(Kind.Name)
            .WithName("saveCamera")
            .WithSummary("Its name, and where its strokes go")
            .ProducesProblem(404);
        group
            .MapDelete("/{id:guid}", Delete)
            .Saves(Kind.Name)
            .WithName("deleteCamera")
            .WithSummary("Forgets a camera and its strokes; what was made of them stays")
            .ProducesProblem(404);
        group
            .MapPost("/{id:guid}/stream", Stream)
            .WithName("streamCamera")
            .WithSummary("What a camera sees, line by line, for as long as it goes on (docs/devices.md)")
            .Accepts<string>("application/x-ndjson")
            .WithMetadata(new RequestSizeLimitAttribute(StreamBytes), new StreamedBody())
            .ProducesProblem(404);
        group
            .MapGet(
                "/{id:guid}",
                async Task<Results<Ok<CameraState>, ProblemHttpResult>> (
                    Guid id,
                    DeepBaizeContext db,
                    TimeProvider time,
                    CancellationToken cancel
                ) => await StateAsync(db, id, -1, time, cancel) is { } state ? TypedResults.Ok(state) : Kind.Missing()
            )
            .WithName("readCamera")
            .WithSummary("A camera with its newest strokes")
            .ProducesProblem(404);
        group
            .MapGet("/{id:guid}/live", Live)
            .WithName("liveCamera")
            .WithSummary("A stream of where the balls are and what strokes were seen, until it is closed")
            .Produces<CameraState>(200, "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(429);
        group
            .MapPost("/{id:guid}/strokes/{stroke:guid}/drop", Drop)
            .Saves("stroke")
            .WithName("dropCameraStroke")
            .WithSummary("That was no stroke: what was made of it is taken back")
            .ProducesProblem(404);
        group
            .MapPut("/{id:guid}/strokes/{stroke:guid}", Correct)
            .Saves("stroke")
            .WithName("correctCameraStroke")
            .WithSummary("Puts right what a stroke met first and what went in, and what was made of it")
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static IQueryable<Camera> Own(DeepBaizeContext db) => db.Cameras.Where(c => c.OwnerId == User.LocalId);

    private static IQueryable<CameraStroke> OwnStrokes(DeepBaizeContext db, Guid camera) =>
        db.CameraStrokes.Where(s => s.OwnerId == User.LocalId && s.CameraId == camera);

    private static async Task<List<CameraResult>> List(DeepBaizeContext db, TimeProvider time, CancellationToken cancel)
    {
        var rows = await Own(db).AsNoTracking().OrderByDescending(c => c.CreatedAt).Take(MostCameras).ToListAsync(cancel);
        return [.. rows.Select(c => CameraResult.Of(c, time.GetUtcNow()))];
    }

    internal static async Task<CameraGoal> CheckedGoalAsync(DeepBaizeContext db, CameraGoalEntry goal, CancellationToken cancel)
    {
        var isThere = goal switch
        {
            { Kind: CameraGoalKind.None } => true,
            { Id: null } => false,
            { Kind: CameraGoalKind.Session } => await db.Sessions.AnyAsync(
                s => s.OwnerId == User.LocalId && s.Id == goal.Id && s.DeletedAt == null,
                cancel
            ),
            _ => await db.Frames.AnyAsync(f => f.OwnerId == User.LocalId && f.Id == goal.Id, cancel),
        };
        if (!isThere)
            throw new InputException("goal.id", $"There is no such {$"{goal.Kind}".ToLowerInvariant()}.", "one that is kept");
        return new($"{goal.Kind}".ToLowerInvariant(), goal.Kind == CameraGoalKind.None ? null : goal.Id);
    }

    internal static async Task<Camera> NewAsync(
        DeepBaizeContext db,
        string name,
        CameraGoal goal,
        bool isStandIn,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await Own(db).CountAsync(cancel) >= MostCameras)
            throw new InputException("name", $"There are {MostCameras} cameras already.", "delete one that is not used");
        return new()
        {
            OwnerId = User.LocalId,
            Name = name,
            IsStandIn = isStandIn,
            IsWanted = true,
            Goal = goal,
            Balls = [],
            Told = new("empty", new Dictionary<string, int>()),
            CreatedAt = time.GetUtcNow(),
        };
    }

    private static async Task<Created<CameraResult>> Create(
        CameraEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var name = Texts.Checked("name", entry.Name, Camera.MaxName, required: true);
        var camera = await NewAsync(db, name, await CheckedGoalAsync(db, entry.Goal, cancel), false, time, cancel);
        return await db.CreateAsync(camera, c => $"/api/camera/{c.Id}", c => CameraResult.Of(c, time.GetUtcNow()), cancel);
    }

    private static async Task<Results<Ok<CameraResult>, ProblemHttpResult>> Save(
        Guid id,
        CameraSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var name = Texts.Checked("name", save.Name, Camera.MaxName, required: true);
        var goal = await CheckedGoalAsync(db, save.Goal, cancel);
        // What comes from the camera changes its row twice a second: its name and goal are laid over whatever it is by now.
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await db.HoldCameraAsync(id, cancel) is not { } camera)
            return Kind.Missing();
        (camera.Name, camera.Goal) = (name, goal);
        camera.Changes++;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        return TypedResults.Ok(CameraResult.Of(camera, time.GetUtcNow()));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Delete(Guid id, DeepBaizeContext db, CancellationToken cancel) =>
        await Own(db).Where(c => c.Id == id).ExecuteDeleteAsync(cancel) > 0 ? TypedResults.NoContent() : Kind.Missing();

    // ---- What it sees ----------------------------------------------------------------------------------------------

    private static async Task<Ok<CameraReading>> ReadFile(HttpRequest request, SearchDesk desk, CancellationToken cancel)
    {
        var sightings = new List<Sighting>();
        await foreach (var sighting in CameraLines.ReadAsync(request.Body, cancel))
            sightings.Add(sighting);
        return TypedResults.Ok(
            await desk.JudgeAsync(
                request.HttpContext,
                workers =>
                {
                    var watch = new TableWatch(new(Conditions.Default));
                    var strokes = new List<WatchedStroke>();
                    void Take(WatchedStroke? stroke)
                    {
                        if (stroke is not null && strokes.Count < MostFileStrokes)
                            strokes.Add(stroke);
                    }
                    foreach (var sighting in sightings)
                    {
                        workers.Cancel.ThrowIfCancellationRequested();
                        Take(watch.See(sighting));
                    }
                    Take(watch.End());
                    return new CameraReading(
                        [.. strokes.Select(CameraWire.Of)],
                        [.. watch.Balls.Select(CameraWire.Of)],
                        CameraWire.Told(watch)
                    );
                }
            )
        );
    }

    private static async Task<Results<Ok<StreamResult>, ProblemHttpResult>> Stream(
        Guid id,
        HttpContext http,
        DeepBaizeContext db,
        IServiceScopeFactory scopes,
        TimeProvider time,
        IHostApplicationLifetime application
    )
    {
        using var end = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, application.ApplicationStopping);
        if (!await Own(db).AnyAsync(c => c.Id == id && !c.IsStandIn, end.Token))
            return Kind.Missing();
        // Nothing may come for a while: the table lies still, and a camera that says so only now and then is no fault.
        if (http.Features.Get<IHttpMinRequestBodyDataRateFeature>() is { } rate)
            rate.MinDataRate = null;
        if (http.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } size)
            size.MaxRequestBodySize = null;
        var feed = new CameraFeed(scopes, time, id);
        try
        {
            await foreach (var sighting in CameraLines.ReadAsync(http.Request.Body, end.Token))
                await feed.SeeAsync(sighting, end.Token);
        }
        finally
        {
            // Whatever cut it off: what was seen is kept.
            await feed.EndAsync(CancellationToken.None);
        }
        return TypedResults.Ok(new StreamResult(feed.Strokes, feed.Told));
    }

    // ---- Who looks on ----------------------------------------------------------------------------------------------

    private static async Task<CameraState?> StateAsync(
        DeepBaizeContext db,
        Guid id,
        long since,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await Own(db).AsNoTracking().SingleOrDefaultAsync(c => c.Id == id, cancel) is not { } camera)
            return null;
        var strokes = await OwnStrokes(db, id)
            .AsNoTracking()
            .Where(s => s.ChangedIn > since)
            .OrderByDescending(s => s.At)
            .Take(StrokesShown)
            .ToListAsync(cancel);
        return new(CameraResult.Of(camera, time.GetUtcNow()), [.. strokes.Select(CameraStrokeResult.Of)]);
    }

    private static readonly TimeSpan LookEvery = TimeSpan.FromSeconds(0.4),
        LongestSilence = TimeSpan.FromSeconds(5);
    private const int MostListeners = 200;
    private static int _listeners;

    private static async Task<Results<ServerSentEventsResult<CameraState>, ProblemHttpResult>> Live(
        Guid id,
        HttpContext http,
        DeepBaizeContext db,
        IServiceScopeFactory scopes,
        IHostApplicationLifetime application,
        long since = -1
    )
    {
        if (!await Own(db).AnyAsync(s => s.Id == id, http.RequestAborted))
            return Kind.Missing();
        if (long.TryParse(http.Request.Headers["Last-Event-ID"], out var last))
            since = Math.Max(since, last);
        if (Interlocked.Increment(ref _listeners) > MostListeners)
        {
            Interlocked.Decrement(ref _listeners);
            return TypedResults.Problem(
                statusCode: StatusCodes.Status429TooManyRequests,
                title: "Too many people are watching already.",
                detail: "Close a window that follows a camera, and open this one again."
            );
        }
        var end = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, application.ApplicationStopping);
        http.Response.OnCompleted(() =>
        {
            Interlocked.Decrement(ref _listeners);
            end.Dispose();
            return Task.CompletedTask;
        });
        return TypedResults.ServerSentEvents(ChangesAsync(scopes, id, since, end.Token));
    }

    private static async IAsyncEnumerable<SseItem<CameraState>> ChangesAsync(
        IServiceScopeFactory scopes,
        Guid id,
        long since,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var silent = TimeSpan.Zero;
        while (!cancel.IsCancellationRequested)
        {
            CameraState? state = null;
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<DeepBaizeContext>();
                var time = scope.ServiceProvider.GetRequiredService<TimeProvider>();
                var changes = await Own(db).Where(s => s.Id == id).Select(s => (long?)s.Changes).SingleOrDefaultAsync(cancel);
                if (changes is null)
                    yield break;
                if (changes > since || silent >= LongestSilence)
                    state = await StateAsync(db, id, since, time, cancel);
            }
            catch (OperationCanceledException)
            {
                yield break;
            }
            if (state is not null)
            {
                (since, silent) = (state.Camera.Changes, TimeSpan.Zero);
                yield return new(state, "camera") { EventId = since.ToString(CultureInfo.InvariantCulture) };
            }
            try
            {
                await Task.Delay(LookEvery, cancel);
            }
            catch (OperationCanceledException)
            {
                yield break;
            }
            silent += LookEvery;
        }
    }

    // ---- That was wrong --------------------------------------------------------------------------------------------

    private static async Task<Results<Ok<CameraStrokeResult>, ProblemHttpResult>> Drop(
        Guid id,
        Guid stroke,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await OwnStrokes(db, id).AsNoTracking().SingleOrDefaultAsync(s => s.Id == stroke, cancel) is not { } kept)
            return StrokeKind.Missing();
        if (!kept.IsDropped)
            await StrokeTaking.TakeBackAsync(db, kept, time, cancel);
        var dropped = await db.ChangeStrokeAsync(stroke, s => s.IsDropped = true, cancel);
        return dropped is null ? StrokeKind.Missing() : TypedResults.Ok(CameraStrokeResult.Of(dropped));
    }

    private static async Task<Results<Ok<CameraStrokeResult>, ProblemHttpResult>> Correct(
        Guid id,
        Guid stroke,
        StrokeCorrection correction,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await OwnStrokes(db, id).AsNoTracking().SingleOrDefaultAsync(s => s.Id == stroke, cancel) is not { } kept)
            return StrokeKind.Missing();
        var right = Checked(correction, kept.Content);
        if (kept.IsDropped)
            throw new InputException("stroke", "It was dropped.", "one that stands");
        var became = await StrokeTaking.TakeAgainAsync(db, kept, right, time, cancel);
        var corrected = await db.ChangeStrokeAsync(stroke, s => (s.Content, s.Became, s.IsCorrected) = (right, became, true), cancel);
        return corrected is null ? StrokeKind.Missing() : TypedResults.Ok(CameraStrokeResult.Of(corrected));
    }

    private static CameraStrokeContent Checked(StrokeCorrection correction, CameraStrokeContent seen)
    {
        var checks = new Checks();
        bool WasThere(string? ball) => seen.Before.Any(b => b.Id == ball);
        checks.That(
            correction.First is null || (WasThere(correction.First) && correction.First != "white"),
            "first",
            "This ball was not there to be met.",
            "a ball that lay on the table, or null"
        );
        checks.That(correction.Gone.Count <= Ball.Count, "gone", $"{correction.Gone.Count} balls cannot go.", $"at most {Ball.Count}");
        foreach (var (gone, i) in correction.Gone.Select((g, i) => (g, i)))
        {
            checks.That(WasThere(gone.Ball), $"gone[{i}].ball", "This ball was not there.", "a ball that lay on the table");
            checks.That(
                gone.Pocket is null || Pockets.TryParse(gone.Pocket, out _),
                $"gone[{i}].pocket",
                "There is no such pocket.",
                Pockets.AllowedNames
            );
            checks.That(correction.Gone.Count(g => g.Ball == gone.Ball) == 1, $"gone[{i}].ball", "It is named twice.", "each ball once");
        }
        checks.ThrowIfAny();
        return seen with { First = correction.First, Gone = [.. correction.Gone.Select(g => new StrokeGone(g.Ball, g.Pocket))] };
    }
}
