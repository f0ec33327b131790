using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using DeepBaize.Core;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Practice;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>Sessions at the table, and the attempts counted in them.</summary>
public static class SessionEndpoints
{
    /// <summary>Largest number of attempts in a session: more than anybody plays in a day.</summary>
    internal const int MostAttempts = 3000;

    private const int MostSent = 500,
        MostPlanned = 30;

    /// <summary>Why an attempt was not done.</summary>
    public static IReadOnlyList<string> Reasons { get; } =
    ["thick", "thin", "hard", "soft", "high", "low", "left", "right", "wrongBall", "other"];

    /// <summary>Kinds of strokes that are counted in a run.</summary>
    public static IReadOnlyList<string> StrokeKinds { get; } = ["stun", "follow", "screw", "side", "cannon", "rest"];

    /// <summary>Shots that were put back and played again within a run: those that then worked, and those that did not.</summary>
    public static IReadOnlyList<string> RepeatKinds { get; } = ["againDone", "againNot"];

    /// <summary>Everything that may be counted in a run, beside its points.</summary>
    public static IReadOnlyList<string> RunKinds { get; } = [.. StrokeKinds, .. RepeatKinds];

    private static readonly RecordKind LaidKind = new("layout", "An attempt names it.", "Look at it again.");
    private static readonly RecordKind Kind = new("session", "It may be in the bin.", "Look at it again, and change it there.");
    private static readonly RecordKind AttemptKind = new("attempt", "It may not have been sent yet.", "Look at it again.");

    public static void MapSessions(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/practice/sessions").WithTags("Practice").ProducesProblem(400).ProducesProblem(503);
        group.MapGet("", List).WithName("listSessions").WithSummary("Sessions, the latest first; in parts");
        group.MapPost("", Begin).Saves(Kind.Name).WithName("beginSession").WithSummary("Begins a session; once, by its id");
        group
            .MapGet(
                "{id:guid}",
                async Task<Results<Ok<SessionState>, ProblemHttpResult>> (Guid id, DeepBaizeContext db, CancellationToken cancel) =>
                    await StateAsync(db, id, since: -1, cancel) is { } state ? TypedResults.Ok(state) : Kind.Missing()
            )
            .WithName("readSession")
            .WithSummary("A session with all its attempts")
            .ProducesProblem(404);
        group
            .MapPut("{id:guid}", Save)
            .Saves(Kind.Name)
            .WithName("saveSession")
            .WithSummary("What is written about a session, its plan, and when it ended")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapDelete("{id:guid}", Delete)
            .Saves(Kind.Name)
            .WithName("deleteSession")
            .WithSummary("Puts a session and its attempts in the bin: they do not count there")
            .ProducesProblem(404)
            .ProducesProblem(409);
        group
            .MapPost("{id:guid}/restore", Restore)
            .Saves(Kind.Name)
            .WithName("restoreSession")
            .WithSummary("Takes a session out of the bin")
            .ProducesProblem(404);
        app.MapGet(
                "/api/practice/laid/{hash}",
                async Task<Results<Ok<LaidResult>, ProblemHttpResult>> (string hash, DeepBaizeContext db, CancellationToken cancel) =>
                    await db.LaidSteps.AsNoTracking().SingleOrDefaultAsync(l => l.OwnerId == User.LocalId && l.Hash == hash, cancel)
                        is { } laid
                        ? TypedResults.Ok(LaidResult.Of(laid))
                        : LaidKind.Missing()
            )
            .WithTags("Practice")
            .WithName("readLaid")
            .WithSummary("What was laid and asked at the time of an attempt, and on what table")
            .ProducesProblem(404);
        group
            .MapPut("{id:guid}/now", SetTask)
            .Saves(Kind.Name)
            .WithName("setTask")
            .WithSummary("What is played now; whoever is at the session may change it")
            .ProducesProblem(404);
        group
            .MapPost("{id:guid}/attempts", CountAsync)
            .Saves("attempt")
            .WithName("countAttempts")
            .WithSummary("Counts attempts, corrects them or takes them back; each once, by its id and revision")
            .ProducesProblem(404);
        group
            .MapPut("{id:guid}/attempts/{attempt:guid}/note", SetNote)
            .Saves("attempt")
            .WithName("noteAttempt")
            .WithSummary("A coach's word on an attempt")
            .ProducesProblem(404);
        group
            .MapGet("{id:guid}/live", Live)
            .WithName("liveSession")
            .WithSummary("A stream of what changes in a session, until it is closed")
            .Produces<SessionState>(200, "text/event-stream")
            .ProducesProblem(404)
            .ProducesProblem(429);
    }

    /// <summary>Those that are not in the bin.</summary>
    private static IQueryable<PracticeSession> Own(DeepBaizeContext db) =>
        db.Sessions.Where(s => s.OwnerId == User.LocalId && s.DeletedAt == null);

    private static IQueryable<PracticeSession> InBin(DeepBaizeContext db) =>
        db.Sessions.Where(s => s.OwnerId == User.LocalId && s.DeletedAt != null);

    private static Task<Results<NoContent, ProblemHttpResult>> Delete(
        Guid id,
        uint version,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    ) => Own(db).BinAsync(Kind, (id, version), time, SessionResult.Of, cancel);

    private static async Task<Results<Ok<SessionResult>, ProblemHttpResult>> Restore(Guid id, DeepBaizeContext db, CancellationToken cancel)
    {
        await InBin(db).UnbinAsync(id, cancel);
        return await Own(db).AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is { } session
            ? TypedResults.Ok(SessionResult.Of(session))
            : Kind.Missing();
    }

    private static async Task<List<SessionItem>> List(
        HttpContext http,
        DeepBaizeContext db,
        [AsParameters] PageQuery page,
        Guid? player = null,
        bool deleted = false
    )
    {
        var sessions = await page.OfAsync(
            (deleted ? InBin(db) : Own(db))
                .AsNoTracking()
                .Where(s => player == null || s.PlayerId == player)
                .OrderByDescending(s => s.StartedAt)
                .ThenBy(s => s.Id),
            http
        );
        var ids = sessions.Select(s => s.Id).ToList();
        var counted = await db
            .Attempts.Where(a => ids.Contains(a.SessionId) && !a.IsWithdrawn)
            .GroupBy(a => new { a.SessionId, a.Routine })
            .Select(g => new
            {
                g.Key.SessionId,
                g.Key.Routine,
                Of = g.Count(),
                Done = g.Count(a => a.IsDone),
            })
            .ToListAsync(http.RequestAborted);
        return
        [
            .. sessions.Select(s =>
            {
                var its = counted.Where(c => c.SessionId == s.Id).ToList();
                return new SessionItem(
                    s.Id,
                    PlayedWith.Of(s),
                    s.StartedAt,
                    s.EndedAt,
                    its.Sum(c => c.Of),
                    its.Sum(c => c.Done),
                    [.. its.Select(c => c.Routine)],
                    s.Version
                );
            }),
        ];
    }

    /// <param name="since">The last change that is known; −1 for all.</param>
    private static async Task<SessionState?> StateAsync(DeepBaizeContext db, Guid id, long since, CancellationToken cancel)
    {
        // The session first: whatever is counted meanwhile is told again with the next change, and never missed.
        if (await Own(db).AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is not { } session)
            return null;
        var attempts = await db
            .Attempts.AsNoTracking()
            .Where(a => a.SessionId == id && a.ChangedIn > since)
            .OrderBy(a => a.At)
            .ThenBy(a => a.Id)
            .ToListAsync(cancel);
        return new(SessionResult.Of(session), [.. attempts.Select(AttemptResult.Of)], []);
    }

    private static async Task<Created<SessionResult>> Begin(
        SessionEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var now = time.GetUtcNow();
        CheckPlan(entry.Plan);
        await CheckTaskAsync(db, entry.Now, cancel);
        var id = entry.Id ?? Guid.CreateVersion7();
        var session = new PracticeSession
        {
            Id = id,
            OwnerId = User.LocalId,
            StartedAt = CheckedTime("startedAt", entry.StartedAt ?? now, now),
            Plan = entry.Plan,
            Now = entry.Now,
            UpdatedAt = now,
        };
        if (entry.With is { } said)
            await db.CheckAsync(said, new("with"), isBinAllowed: true, cancel);
        (entry.With ?? await db.InHandAsync(cancel)).Write(session);
        if (await Own(db).AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is { } there)
            return TypedResults.Created($"/api/practice/sessions/{id}", SessionResult.Of(there));
        db.Add(session);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateException) when (!cancel.IsCancellationRequested)
        {
            // Begun twice at the same time: the other was first.
            db.ChangeTracker.Clear();
            if (await Own(db).AsNoTracking().SingleOrDefaultAsync(s => s.Id == id, cancel) is not { } first)
                throw;
            session = first;
        }
        return TypedResults.Created($"/api/practice/sessions/{id}", SessionResult.Of(session));
    }

    private static void CheckPlan(IReadOnlyList<PlannedRoutine> plan)
    {
        var checks = new Checks();
        checks.That(plan.Count <= MostPlanned, "plan", $"There are {plan.Count} routines.", $"at most {MostPlanned}");
        foreach (var (item, i) in plan.Select((p, i) => (p, i)))
        {
            Texts.Checked($"plan[{i}].routine", item.Routine, Attempt.MaxRoutine, required: true);
            checks.Range($"plan[{i}].minutes", item.Minutes, 1, 240);
        }
        checks.ThrowIfAny();
    }

    private static async Task CheckTaskAsync(DeepBaizeContext db, TaskNow? task, CancellationToken cancel)
    {
        if (task is null)
            return;
        Texts.Checked("now.group", task.Group, Attempt.MaxGroup, required: false);
        var routine = await db.RoutineAsync(task.Routine, cancel);
        var checks = new Checks("now");
        checks.That(routine is not null, "routine", "There is no such routine.", "one of the list");
        checks.Range("step", task.Step, 0, (routine?.Steps.Count ?? 1) - 1);
        checks.ThrowIfAny();
        CheckStroke(task.Stroke, "now.stroke");
    }

    internal static void CheckStroke(MeantStroke? stroke, string path)
    {
        if (stroke is null)
            return;
        new Core.Strokes.Stroke(stroke.Aim, stroke.Side, stroke.Height, stroke.Pace, stroke.Elevation ?? 0).ToStrike(path);
        if (stroke.Pot is not { } pot)
            return;
        var checks = new Checks(path);
        foreach (var (field, name) in new[] { ("ball", pot.Ball), ("through", pot.Through) })
            checks.That(name is null || Ball.TryParse(name, out _), $"pot.{field}", "There is no such ball.", Ball.AllowedIds);
        checks.That(Pockets.TryParse(pot.Pocket, out _), "pot.pocket", "There is no such pocket.", Pockets.AllowedNames);
        checks.That(pot.Off is null || Cushions.TryParse(pot.Off, out _), "pot.off", "There is no such cushion.", Cushions.AllowedNames);
        checks.Range("pot.part", pot.Part, -1, 1);
        checks.ThrowIfAny();
    }

    internal static DateTimeOffset CheckedTime(string field, DateTimeOffset time, DateTimeOffset now)
    {
        // Clocks of phones differ; a year before the game was played, or a day ahead, is a mistake.
        var (first, last) = (new DateTimeOffset(2000, 1, 1, 0, 0, 0, TimeSpan.Zero), now.AddDays(1));
        if (time < first || time > last)
            throw new InputException(field, $"{time:yyyy-MM-dd HH:mm} is out of range.", $"{first:yyyy-MM-dd} to a day from now");
        return time.ToUniversalTime();
    }

    private static async Task<Results<Ok<SessionResult>, ProblemHttpResult>> Save(
        Guid id,
        SessionSave save,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var note = Texts.Checked("note", save.Note, PracticeSession.MaxNote, required: false);
        CheckPlan(save.Plan);
        var now = time.GetUtcNow();
        var ended = save.EndedAt is { } end ? CheckedTime("endedAt", end, now) : (DateTimeOffset?)null;
        return await db.ChangeAsync(
            Kind,
            Own(db),
            (id, save.Version, save),
            session =>
            {
                (session.Note, session.EndedAt, session.Plan, session.UpdatedAt) = (note, ended, save.Plan, now);
                session.Changes++;
            },
            SessionResult.Of,
            cancel
        );
    }

    /// <summary>Locks the session for the rest of a transaction, and says how many changes it has had; null if there is none.</summary>
    private static async Task<PracticeSession?> HoldAsync(DeepBaizeContext db, Guid id, CancellationToken cancel) =>
        await db
            .Sessions.FromSql(
                $"""
                SELECT *, xmin FROM sessions
                WHERE id = {id} AND owner_id = {User.LocalId} AND deleted_at IS NULL FOR UPDATE
                """
            )
            .SingleOrDefaultAsync(cancel);

    private static async Task<Results<Ok<SessionResult>, ProblemHttpResult>> SetTask(
        Guid id,
        TaskEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        await CheckTaskAsync(db, entry.Now, cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await HoldAsync(db, id, cancel) is not { } session)
            return Kind.Missing();
        (session.Now, session.UpdatedAt) = (entry.Now, time.GetUtcNow());
        session.Changes++;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        return TypedResults.Ok(SessionResult.Of(session));
    }

    internal static async Task<Results<Ok<SessionState>, ProblemHttpResult>> CountAsync(
        Guid id,
        AttemptsEntry entry,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var now = time.GetUtcNow();
        var sent = await AttemptChecks.CheckedAsync(db, entry.Attempts, MostSent, at => CheckedTime("attempts.at", at, now), cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        // One sender after the other: numbers of changes are given in the order in which they are stored.
        if (await HoldAsync(db, id, cancel) is not { } session)
            return Kind.Missing();
        var ids = sent.Select(a => a.Entry.Id).ToList();
        var there = await db.Attempts.Where(a => ids.Contains(a.Id)).ToDictionaryAsync(a => a.Id, cancel);
        if (there.Values.Any(a => a.SessionId != id))
            throw new InputException("attempts.id", "This attempt belongs to another session.", "an id of its own");
        var fresh = sent.Select(a => a.Entry.Id).Distinct().Count(i => !there.ContainsKey(i));
        if (fresh > 0 && await db.Attempts.CountAsync(a => a.SessionId == id, cancel) + fresh > MostAttempts)
            throw new InputException("attempts", "The session is full.", $"at most {MostAttempts}: begin another");
        var laid = await LaidAsync(db, _ => session.TableId, sent, cancel);
        List<Guid> conflicts = [];
        foreach (var (judged, hash) in sent.Zip(laid))
        {
            var attempt = judged.Entry;
            if (!there.TryGetValue(attempt.Id, out var kept))
            {
                kept = AttemptChecks.New(attempt, session);
                db.Add(kept);
                there[attempt.Id] = kept;
            }
            else if (AttemptChecks.IsConflict(attempt, kept))
            {
                conflicts.Add(kept.Id);
                continue;
            }
            else if (attempt.Revision <= kept.Revision)
                continue;
            kept.ChangedIn = ++session.Changes;
            AttemptChecks.Write(judged, hash, kept);
        }
        session.UpdatedAt = now;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        var results = ids.Distinct().Select(i => AttemptResult.Of(there[i]));
        return TypedResults.Ok(new SessionState(SessionResult.Of(session), [.. results], conflicts));
    }

    /// <summary>Stores what each attempt was made at, on its table as it is now, if that is not stored yet; names it.</summary>
    /// <param name="table">The table of the i-th attempt.</param>
    internal static async Task<List<string>> LaidAsync(
        DeepBaizeContext db,
        Func<int, Guid?> table,
        IReadOnlyList<AttemptChecks.Judged> sent,
        CancellationToken cancel
    )
    {
        var tables = sent.Select((_, i) => table(i)).Distinct().ToList();
        var conditions = await db.Tables.Where(t => tables.Contains(t.Id)).ToDictionaryAsync(t => t.Id, t => t.Conditions, cancel);
        var made = new Dictionary<(Step, Guid?), LaidStep>();
        List<LaidStep> laid =
        [
            .. sent.Select(
                (s, i) =>
                {
                    if (s.Laid is not null)
                        return s.Laid;
                    var on = table(i);
                    if (!made.TryGetValue((s.Asked, on), out var one))
                        made[(s.Asked, on)] = one = LaidStep.Of(
                            User.LocalId,
                            s.Asked,
                            on is { } id && conditions.TryGetValue(id, out var its) ? its : new Dictionary<string, double>()
                        );
                    return one;
                }
            ),
        ];
        await db.KeepAsync(laid, cancel);
        return [.. laid.Select(l => l.Hash)];
    }

    private static async Task<Results<Ok<AttemptResult>, ProblemHttpResult>> SetNote(
        Guid id,
        Guid attempt,
        NoteEntry entry,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        var note = Texts.Checked("note", entry.Note, Attempt.MaxNote, required: false);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (
            await HoldAsync(db, id, cancel) is not { } session
            || await db.Attempts.SingleOrDefaultAsync(a => a.SessionId == id && a.Id == attempt, cancel) is not { } kept
        )
            return AttemptKind.Missing();
        kept.Note = note;
        kept.ChangedIn = ++session.Changes;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        return TypedResults.Ok(AttemptResult.Of(kept));
    }

    // ---- Live ----------------------------------------------------------------------------------------------------

    /// <summary>So often it is looked whether something has changed: the database knows of other instances too.</summary>
    private static readonly TimeSpan LookEvery = TimeSpan.FromSeconds(0.5),
        LongestSilence = TimeSpan.FromSeconds(15);
    private const int MostListeners = 200;
    private static int _listeners;

    private static async Task<Results<ServerSentEventsResult<SessionState>, ProblemHttpResult>> Live(
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
        // A browser that lost the stream says what it knows.
        if (long.TryParse(http.Request.Headers["Last-Event-ID"], out var last))
            since = Math.Max(since, last);
        if (Interlocked.Increment(ref _listeners) > MostListeners)
        {
            Interlocked.Decrement(ref _listeners);
            return TypedResults.Problem(
                statusCode: StatusCodes.Status429TooManyRequests,
                title: "Too many people are watching already.",
                detail: "Close a window that shows a session, and open this one again."
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

    private static async IAsyncEnumerable<SseItem<SessionState>> ChangesAsync(
        IServiceScopeFactory scopes,
        Guid id,
        long since,
        [EnumeratorCancellation] CancellationToken cancel
    )
    {
        var silent = TimeSpan.Zero;
        while (!cancel.IsCancellationRequested)
        {
            SessionState? state = null;
            try
            {
                await using var scope = scopes.CreateAsyncScope();
                var db = scope.ServiceProvider.GetRequiredService<DeepBaizeContext>();
                var changes = await Own(db).Where(s => s.Id == id).Select(s => (long?)s.Changes).SingleOrDefaultAsync(cancel);
                if (changes is null)
                    yield break;
                if (changes > since || silent >= LongestSilence)
                    state = await StateAsync(db, id, since, cancel);
            }
            catch (OperationCanceledException)
            {
                yield break;
            }
            if (state is not null)
            {
                (since, silent) = (state.Session.Changes, TimeSpan.Zero);
                yield return new(state, "session") { EventId = since.ToString(System.Globalization.CultureInfo.InvariantCulture) };
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
}
