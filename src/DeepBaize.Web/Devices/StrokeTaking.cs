using DeepBaize.Core;
using DeepBaize.Core.Camera;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Devices;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Web.Practice;
using DeepBaize.Web.Shots;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Devices;

/// <summary>Makes an attempt or a frame's shot of a stroke that a camera saw, and takes it back.</summary>
internal static class StrokeTaking
{
    /// <summary>A ball within this is where the step has it, m: laid by hand on a mark.</summary>
    private const double Laid = 0.03;

    /// <summary>Whoever writes into a frame at the same time comes first now and then.</summary>
    private const int MostTries = 5;

    public static async Task<CameraBecame> TakeAsync(
        DeepBaizeContext db,
        CameraGoal goal,
        CameraStroke stroke,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        try
        {
            return goal switch
            {
                { Kind: "session", Id: { } id } => await CountAsync(db, id, stroke, time, cancel),
                { Kind: "frame", Id: { } id } => await WriteAsync(db, id, stroke, time, cancel),
                _ => new("none"),
            };
        }
        catch (InputException e)
        {
            return new("none", goal.Id, Why: e.Errors[0].Message);
        }
    }

    /// <summary>As the core takes it, with what was put right.</summary>
    public static WatchedStroke Watched(CameraStrokeContent s)
    {
        static PlacedBall Placed(BallEntry b) => new(BallOf(b.Id), b.X, b.Y);
        return new(
            s.StartedAt,
            s.EndedAt,
            [.. s.Before.Select(Placed)],
            [.. s.After.Select(Placed)],
            s.First is { } first ? BallOf(first) : null,
            [.. s.Gone.Select(g => new GoneBall(BallOf(g.Ball), Pockets.TryParse(g.Pocket, out var pocket) ? pocket : null))],
            [.. s.Paths.Select(p => new SeenPath(BallOf(p.Ball), [.. p.Points.Select(x => (x[0], new Vec2(x[1], x[2])))]))]
        )
        {
            DirectionDegrees = s.Direction,
            Speed = s.Speed,
        };
    }

    private static Ball BallOf(string id) => Ball.TryParse(id, out var ball) ? ball : throw new InvalidOperationException($"No ball {id}.");

    // ---- A session ---------------------------------------------------------------------------------------------

    private static async Task<CameraBecame> CountAsync(
        DeepBaizeContext db,
        Guid id,
        CameraStroke stroke,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var session = await db
            .Sessions.AsNoTracking()
            .SingleOrDefaultAsync(s => s.Id == id && s.OwnerId == User.LocalId && s.DeletedAt == null, cancel);
        if (session is not { EndedAt: null, Now: { } now })
            return new("none", id, Why: session is null ? "noSession" : "sessionOver");
        var step = (await db.RoutineAsync(now.Routine, cancel))?.Steps.ElementAtOrDefault(now.Step);
        if (step is null)
            return new("none", id, Why: "noSession");
        var watched = Watched(stroke.Content);
        var played = now.Mirrored ? step.Mirrored : step;
        if (played.Demands.Any(d => d.Kind == DemandKind.Score))
            return new("none", id, Why: "run");
        if (!IsLaid(played, watched))
            return new("none", id, Why: "otherLayout");
        var entry = AttemptOf(watched, played, now) with { Id = stroke.Id, At = stroke.At };
        await SessionEndpoints.CountAsync(id, new() { Attempts = [entry] }, db, time, cancel);
        return new("attempt", id, stroke.Id);
    }

    private static bool IsLaid(Step step, WatchedStroke watched)
    {
        List<PlacedBall> open = [.. watched.Before];
        foreach (var laid in step.Balls)
        {
            var ball = BallOf(laid.Id);
            var near = open.FindIndex(b => (b.Ball == ball || (b.Ball.IsRed && ball.IsRed)) && b.At.DistanceTo(new(laid.X, laid.Y)) < Laid);
            if (near < 0)
                return false;
            open.RemoveAt(near);
        }
        return open.Count == 0;
    }

    private static AttemptEntry AttemptOf(WatchedStroke watched, Step step, TaskNow now)
    {
        var pot = step.Stroke.Pot;
        var meant = pot is null ? (Ball?)null : BallOf(pot.Ball);
        bool Is(Ball ball) => meant is { } m && (ball == m || (ball.IsRed && m.IsRed));
        var isPotted = watched.Gone.Any(g => Is(g.Ball) && g.Pocket is { } p && Pockets.Name(p) == pot!.Pocket);
        PlaceResult? PlaceOf(Vec2? at) => at is { } a ? new(Math.Round(a.X, 4), Math.Round(a.Y, 4)) : null;
        return new()
        {
            Id = Guid.Empty,
            At = default,
            Routine = now.Routine,
            Step = now.Step,
            Mirrored = now.Mirrored,
            Device = "camera",
            Said = pot is null ? null : isPotted && watched.White is not null,
            White = PlaceOf(watched.White),
            Ball = watched.First is { } first ? PlaceOf(watched.PlaceOf(first)) : null,
            Stroke = now.Stroke,
            Group = now.Group,
        };
    }

    // ---- A frame -----------------------------------------------------------------------------------------------

    private static async Task<CameraBecame> WriteAsync(
        DeepBaizeContext db,
        Guid id,
        CameraStroke stroke,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var number = 0;
        var isThere = await ChangeFrameAsync(
            db,
            id,
            shots =>
            {
                number = shots.Count;
                return [.. shots, FrameScribe.Of(FrameStory.Of(shots).Now, Watched(stroke.Content))];
            },
            time,
            cancel
        );
        return isThere ? new("shot", id, Number: number) : new("none", id, Why: "noFrame");
    }

    /// <returns>Whether there is such a frame.</returns>
    /// <exception cref="InputException">The shots could not have been played so.</exception>
    private static async Task<bool> ChangeFrameAsync(
        DeepBaizeContext db,
        Guid id,
        Func<IReadOnlyList<RecordedShot>, IReadOnlyList<RecordedShot>> change,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        for (var tries = 1; ; tries++)
        {
            db.ChangeTracker.Clear();
            if (await db.Frames.SingleOrDefaultAsync(f => f.Id == id && f.OwnerId == User.LocalId, cancel) is not { } frame)
                return false;
            frame.Shots = change(frame.Shots);
            FrameStory.Of(frame.Shots);
            frame.UpdatedAt = time.GetUtcNow();
            try
            {
                await db.SaveChangesAsync(cancel);
                return true;
            }
            catch (DbUpdateConcurrencyException) when (tries < MostTries) { }
        }
    }

    // ---- Taking back and putting right -----------------------------------------------------------------------------

    /// <summary>Takes back what was made of a stroke.</summary>
    /// <exception cref="InputException">Of a frame that could not have gone on without it.</exception>
    public static async Task TakeBackAsync(DeepBaizeContext db, CameraStroke stroke, TimeProvider time, CancellationToken cancel)
    {
        if (stroke.Became is { Kind: "attempt", In: { } session, Id: { } id })
        {
            var attempt = await db.Attempts.AsNoTracking().SingleOrDefaultAsync(a => a.Id == id, cancel);
            if (attempt is null)
                return;
            var entry = Entry(AttemptResult.Of(attempt)) with { Withdrawn = true };
            await SessionEndpoints.CountAsync(session, new() { Attempts = [entry] }, db, time, cancel);
        }
        else if (stroke.Became is { Kind: "shot", In: { } frame, Number: { } number })
        {
            await ChangeFrameAsync(db, frame, shots => [.. shots.Where((_, i) => i != number)], time, cancel);
            // Those that came after it have moved up.
            var later = await db
                .CameraStrokes.Where(s => s.CameraId == stroke.CameraId && s.At > stroke.At && !s.IsDropped)
                .ToListAsync(cancel);
            foreach (var s in later.Where(s => s.Became is { Kind: "shot" } b && b.In == frame && b.Number > number))
                s.Became = s.Became with { Number = s.Became.Number - 1 };
            await db.SaveChangesAsync(cancel);
        }
    }

    /// <summary>Makes of a stroke what it is now that it has been put right.</summary>
    public static async Task<CameraBecame> TakeAgainAsync(
        DeepBaizeContext db,
        CameraStroke stroke,
        CameraStrokeContent right,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (stroke.Became is { Kind: "shot", In: { } frame, Number: { } number })
        {
            await ChangeFrameAsync(
                db,
                frame,
                shots =>
                {
                    var before = FrameStory.Of([.. shots.Take(number)]).Now;
                    return [.. shots.Take(number), FrameScribe.Of(before, Watched(right)), .. shots.Skip(number + 1)];
                },
                time,
                cancel
            );
        }
        else if (stroke.Became is { Kind: "attempt", In: { } session, Id: { } id })
        {
            var attempt = await db.Attempts.AsNoTracking().SingleOrDefaultAsync(a => a.Id == id, cancel);
            var step = attempt is null ? null : (await db.RoutineAsync(attempt.Routine, cancel))?.Steps.ElementAtOrDefault(attempt.Step);
            if (attempt is not null && step is not null)
            {
                var now = new TaskNow(attempt.Routine, attempt.Step, attempt.IsMirrored, attempt.Stroke, attempt.Group);
                var seen = AttemptOf(Watched(right), attempt.IsMirrored ? step.Mirrored : step, now);
                var entry = Entry(AttemptResult.Of(attempt)) with { Said = seen.Said, White = seen.White, Ball = seen.Ball };
                await SessionEndpoints.CountAsync(session, new() { Attempts = [entry] }, db, time, cancel);
            }
        }
        return stroke.Became;
    }

    /// <summary>The next revision of an attempt that is kept.</summary>
    private static AttemptEntry Entry(AttemptResult a) =>
        new()
        {
            Id = a.Id,
            Revision = a.Revision + 1,
            Base = a.Revision,
            Device = "camera",
            At = a.At,
            Routine = a.Routine,
            Step = a.Step,
            Mirrored = a.Mirrored,
            Said = a.Said,
            Reasons = a.Reasons,
            Body = a.Body,
            White = a.White,
            Ball = a.Ball,
            Score = a.Score,
            Kinds = a.Kinds,
            Stroke = a.Stroke,
            Group = a.Group,
            Withdrawn = a.Withdrawn,
        };
}
