using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Camera;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.StandIns;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Devices;
using DeepBaize.Web.Learning;
using DeepBaize.Web.Simulation;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.StandIns;

/// <summary>What the made-up players in front of a made-up camera do.</summary>
public enum StandInPlays
{
    /// <summary>A frame, from the break-off to its end.</summary>
    Frame,

    /// <summary>One stroke, again and again; the balls are put back each time.</summary>
    Stroke,
}

/// <summary>A made-up camera to start.</summary>
public sealed record StandInCameraRequest
{
    public StandInPlays Plays { get; init; }

    [Description("Of a stroke: the balls as they are laid.")]
    public IReadOnlyList<BallEntry> Balls { get; init; } = [];

    [Description("Of a stroke: how it is meant.")]
    public StrikeRequest? Strike { get; init; }

    [Description("Of a stroke: how often.")]
    public int Times { get; init; } = 5;

    [Description("So many times as fast as a real one.")]
    public double Haste { get; init; } = 1;
    public CameraGoalEntry Goal { get; init; } = new();
}

/// <summary>How a made-up stroke of the cue is timed.</summary>
public enum StandInTiming
{
    /// <summary>Still rising a little when it meets the ball.</summary>
    Well,

    /// <summary>Past its peak: slowing through the ball.</summary>
    Slowing,

    /// <summary>Hardly a pause, and a short backswing.</summary>
    Hurried,

    /// <summary>The speed falls back on the way.</summary>
    Uneven,
}

/// <summary>A made-up stroke of the cue.</summary>
public sealed record StandInCueRequest
{
    public StandInTiming Timing { get; init; }
    public CueMeasure Measure { get; init; }
}

/// <summary>Made-up devices: a camera over a made-up table, and a sensor on a made-up cue.</summary>
public static class StandInDevices
{
    public static void MapStandInDevices(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/stand-in").WithTags("Stand-ins").ProducesProblem(400).ProducesProblem(503);
        group
            .MapPost("/camera", Start)
            .WithName("startStandInCamera")
            .WithSummary("Starts a made-up camera over a made-up table: it goes on by itself until it is stopped")
            .ProducesProblem(429);
        group
            .MapPost("/camera/{id:guid}/stop", Stop)
            .WithName("stopStandInCamera")
            .WithSummary("Stops a made-up camera")
            .ProducesProblem(404);
        group.MapPost("/cue", Cue).WithName("standInCue").WithSummary("A made-up stroke of the cue, as a sensor reads it");
    }

    private static CueMotionEntry Cue(StandInCueRequest request)
    {
        var random = Random.Shared;
        double About(double value, double by) => value + by * (random.NextDouble() - 0.5);
        var script = request.Timing switch
        {
            StandInTiming.Slowing => new CueScript(PeakBefore: About(0.016, 0.008), Speed: About(2.3, 0.3)),
            StandInTiming.Hurried => new(PeakBefore: About(-0.01, 0.01), Backswing: About(0.2, 0.03), Pause: About(0.05, 0.03)),
            StandInTiming.Uneven => new(PeakBefore: About(0.004, 0.02), Jerk: About(0.8, 0.3), Pause: About(0.2, 0.2)),
            _ => new(PeakBefore: About(-0.008, 0.004), Speed: About(2.5, 0.1), Pause: About(0.3, 0.06)),
        };
        var motion = MadeUpCue.Read(script, request.Measure, random);
        return new()
        {
            Measure = motion.Measure,
            Samples = [.. motion.Samples.Select(s => new CueSampleEntry { Time = Math.Round(s.Time, 4), Value = Math.Round(s.Value, 6) })],
        };
    }

    private static async Task<Ok<CameraResult>> Start(
        StandInCameraRequest request,
        StandInCameras cameras,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var checks = new Checks();
        checks.Range("times", request.Times, 1, 200);
        checks.Range("haste", request.Haste, 0.5, 20);
        checks.That(
            request.Plays == StandInPlays.Frame || request.Strike is not null,
            "strike",
            "No stroke is set up.",
            "the stroke to play"
        );
        checks.ThrowIfAny();
        var layout = request.Plays == StandInPlays.Stroke ? Layout.Create(BallEntries.Of(request.Balls), HiddenTable.Shape) : null;
        var stroke = request.Strike is { } strike ? ObservedEntry.ToStroke(strike, "strike") : default;
        var goal = await CameraEndpoints.CheckedGoalAsync(db, request.Goal, cancel);
        var camera = await CameraEndpoints.NewAsync(db, "Made-up camera", goal, true, time, cancel);
        // One made-up camera is enough: the one before makes room.
        await db.Cameras.Where(c => c.OwnerId == User.LocalId && c.IsStandIn).ExecuteDeleteAsync(cancel);
        db.Add(camera);
        await db.SaveChangesAsync(cancel);
        var random = new Random();
        cameras.Run(camera.Id, request.Haste, layout is null ? FrameOf(random) : StrokesOf(layout, stroke, request.Times, random));
        return TypedResults.Ok(CameraResult.Of(camera, time.GetUtcNow()));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Stop(Guid id, DeepBaizeContext db, CancellationToken cancel) =>
        await db
            .Cameras.Where(c => c.OwnerId == User.LocalId && c.Id == id && c.IsStandIn)
            .ExecuteUpdateAsync(c => c.SetProperty(x => x.IsWanted, false), cancel) > 0
            ? TypedResults.NoContent()
            : CameraEndpoints.Kind.Missing();

    /// <summary>Seconds that a table lies still before a stroke, after it, and once a hand has put balls back.</summary>
    private const double Before = 2,
        After = 1.5;

    private static IEnumerable<Sighting> FrameOf(Random random)
    {
        var frame = new MadeUpFrame(HiddenTable.Shape, HiddenTable.Skill, random);
        var camera = new MadeUpCamera(new(), random);
        foreach (var s in camera.Still(frame.Situation.Layout.Balls, Before))
            yield return s;
        while (frame.Next() is { } next)
        {
            var left = frame.Simulator.Left();
            foreach (var s in camera.Stroke(next.From.Layout, frame.Record).Concat(camera.Still(left, After)))
                yield return s;
            foreach (var s in camera.Still(frame.Situation.Layout.Balls, Before))
                yield return s;
        }
    }

    private static IEnumerable<Sighting> StrokesOf(Layout layout, Core.Strokes.Stroke stroke, int times, Random random)
    {
        var (simulator, record) = (new Simulator(HiddenTable.Shape), new ShotRecord());
        var camera = new MadeUpCamera(new(), random);
        for (var i = 0; i < times; i++)
        {
            foreach (var s in camera.Still(layout.Balls, Before))
                yield return s;
            HiddenTable.Play(simulator, layout, stroke, random, record);
            foreach (var s in camera.Stroke(layout, record).Concat(camera.Still(simulator.Left(), After)))
                yield return s;
        }
        foreach (var s in camera.Still(layout.Balls, Before))
            yield return s;
    }
}

/// <summary>Runs made-up cameras, each until its script ends, somebody stops it, or the application ends.</summary>
public sealed class StandInCameras(
    IServiceScopeFactory scopes,
    TimeProvider time,
    IHostApplicationLifetime application,
    ILogger<StandInCameras> log
)
{
    private const int MostAtOnce = 4;
    private static readonly TimeSpan Longest = TimeSpan.FromMinutes(40);
    private int _running;

    /// <exception cref="Problems.RefusedException">So many run already.</exception>
    internal void Run(Guid camera, double haste, IEnumerable<Sighting> script)
    {
        if (Interlocked.Increment(ref _running) > MostAtOnce)
        {
            Interlocked.Decrement(ref _running);
            throw new InputException("plays", $"{MostAtOnce} made-up cameras run already.", "stop one of them");
        }
        _ = Task.Run(() => RunAsync(camera, haste, script), CancellationToken.None);
    }

    private async Task RunAsync(Guid camera, double haste, IEnumerable<Sighting> script)
    {
        var feed = new CameraFeed(scopes, time, camera);
        try
        {
            using var end = CancellationTokenSource.CreateLinkedTokenSource(application.ApplicationStopping);
            end.CancelAfter(Longest);
            var (began, first) = (time.GetTimestamp(), double.NaN);
            foreach (var sighting in script)
            {
                first = double.IsNaN(first) ? sighting.Time : first;
                var ahead = (sighting.Time - first) / haste - time.GetElapsedTime(began).TotalSeconds;
                if (ahead > 0.01)
                    await Task.Delay(TimeSpan.FromSeconds(ahead), time, end.Token);
                await feed.SeeAsync(sighting, end.Token);
                if (!feed.IsWanted)
                    return;
            }
            await feed.EndAsync(end.Token);
        }
        catch (OperationCanceledException)
        {
            // It was stopped.
        }
        catch (DbUpdateException e)
        {
            log.LogInformation("A made-up camera was taken away while it was told of: {Why}", e.Message);
        }
        catch (Npgsql.NpgsqlException e)
        {
            log.LogInformation("A made-up camera ended without its database: {Why}", e.Message);
        }
        finally
        {
            Interlocked.Decrement(ref _running);
        }
    }
}
