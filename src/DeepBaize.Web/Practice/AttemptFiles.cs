using System.Globalization;
using System.Text;
using DeepBaize.Core;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Cues;
using DeepBaize.Data.Players;
using DeepBaize.Data.Practice;
using DeepBaize.Data.Tables;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>An attempt as it stands in a file: a line of a CSV file, or an element of a JSON file (docs/formats.md).</summary>
public sealed record AttemptRow
{
    public required Guid Id { get; init; }
    public int Revision { get; init; } = 1;
    public required Guid Session { get; init; }
    public required DateTimeOffset SessionStarted { get; init; }

    /// <summary>Names; one that is not known is made new when the file is read.</summary>
    public string Player { get; init; } = "";

    /// <inheritdoc cref="Player"/>
    public string Table { get; init; } = "";

    /// <inheritdoc cref="Player"/>
    public string Cue { get; init; } = "";
    public required string Routine { get; init; }
    public int Step { get; init; }
    public bool Mirrored { get; init; }
    public required DateTimeOffset At { get; init; }
    public bool? Said { get; init; }

    /// <summary>As the rule judged it; judged anew when the file is read.</summary>
    public bool Done { get; init; }

    /// <summary>Joined by semicolons.</summary>
    public string Reasons { get; init; } = "";

    /// <inheritdoc cref="Reasons"/>
    public string Body { get; init; } = "";

    /// <summary>m.</summary>
    public double? WhiteX { get; init; }

    /// <inheritdoc cref="WhiteX"/>
    public double? WhiteY { get; init; }

    /// <inheritdoc cref="WhiteX"/>
    public double? BallX { get; init; }

    /// <inheritdoc cref="WhiteX"/>
    public double? BallY { get; init; }
    public int? Score { get; init; }

    /// <summary>As "follow 3;stun 1".</summary>
    public string Kinds { get; init; } = "";

    /// <summary>What was changed.</summary>
    public string Group { get; init; } = "";

    /// <summary>Names what was laid and asked at the time, in the file's <c>laid</c>; empty if that is not known.</summary>
    public string Laid { get; init; } = "";
    public string Note { get; init; } = "";
}

/// <summary>A routine of one's own that attempts of a file are at.</summary>
public sealed record FiledRoutine
{
    public required Guid Id { get; init; }
    public required Routine Routine { get; init; }
}

/// <summary>Attempts as a file: docs/formats.md and docs/attempts.schema.json.</summary>
public sealed record AttemptFile
{
    public const string FormatName = "deep-baize-attempts";
    public const int CurrentVersion = 1;

    public required string Format { get; init; }
    public required int Version { get; init; }
    public IReadOnlyList<FiledRoutine> Routines { get; init; } = [];

    /// <summary>What was laid and asked when the attempts were made.</summary>
    public IReadOnlyList<LaidResult> Laid { get; init; } = [];
    public required IReadOnlyList<AttemptRow> Attempts { get; init; }
}

/// <summary>What a file brought.</summary>
public sealed record ImportedAttempts(int Attempts, int New, int Sessions);

/// <summary>Attempts out to a file, and in again.</summary>
public static class AttemptFiles
{
    private const int MostAttempts = 50_000;

    public static void MapAttemptFiles(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/practice/attempts").WithTags("Practice").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("export/json", async ([AsParameters] StatisticsQuery query, DeepBaizeContext db, CancellationToken cancel) =>
                TypedResults.Json(await FileAsync(db, query, cancel), PositionFile.Json)
            )
            .WithName("exportAttemptsJson")
            .WithSummary("Attempts as a file of JSON, with the user's own routines they are at");
        group
            .MapGet("export/csv", async ([AsParameters] StatisticsQuery query, DeepBaizeContext db, CancellationToken cancel) =>
            {
                var file = await FileAsync(db, query, cancel);
                return TypedResults.Text(AttemptCsv.Of(file.Attempts), "text/csv", Encoding.UTF8);
            })
            .WithName("exportAttemptsCsv")
            .WithSummary("Attempts as a file of CSV, a line each")
            .Produces<string>(200, "text/csv");
        group
            .MapPost("import", ImportJson)
            .Saves("attempt")
            .WithName("importAttempts")
            .WithSummary("Takes the attempts of a JSON file in: each once, by its id")
            .Accepts<AttemptFile>("application/json")
            .WithMetadata(new BodyOptions(PositionFile.Json), new RequestSizeLimitAttribute(Limits.AttemptFileBytes));
        group
            .MapPost("import/csv", ImportCsv)
            .Saves("attempt")
            .WithName("importAttemptsCsv")
            .WithSummary("Takes the attempts of a CSV file in, which is sent as a text in JSON")
            .WithMetadata(new RequestSizeLimitAttribute(Limits.AttemptFileBytes));
    }

    private static async Task<AttemptFile> FileAsync(DeepBaizeContext db, StatisticsQuery query, CancellationToken cancel)
    {
        var found = await (
            from a in db.Counted(query).AsNoTracking()
            join s in db.Sessions on a.SessionId equals s.Id
            orderby a.At, a.Id
            select new
            {
                Attempt = a,
                s.StartedAt,
                Player = db.Players.Where(p => p.Id == a.PlayerId).Select(p => p.Name).FirstOrDefault(),
                Table = db.Tables.Where(t => t.Id == a.TableId).Select(t => t.Name).FirstOrDefault(),
                Cue = db.Cues.Where(c => c.Id == a.CueId).Select(c => c.Name).FirstOrDefault(),
            }
        ).ToListAsync(cancel);
        var own = found.Select(f => Guid.TryParse(f.Attempt.Routine, out var id) ? id : (Guid?)null).OfType<Guid>().ToHashSet();
        var routines = await db.Routines.AsNoTracking().Where(r => r.OwnerId == User.LocalId && own.Contains(r.Id)).ToListAsync(cancel);
        var hashes = found.Select(f => f.Attempt.LaidHash).OfType<string>().Distinct().ToList();
        var laid = await db
            .LaidSteps.AsNoTracking()
            .Where(l => l.OwnerId == User.LocalId && hashes.Contains(l.Hash))
            .OrderBy(l => l.Hash)
            .ToListAsync(cancel);
        return new()
        {
            Format = AttemptFile.FormatName,
            Version = AttemptFile.CurrentVersion,
            Laid = [.. laid.Select(LaidResult.Of)],
            Routines = [.. routines.Select(r => new FiledRoutine { Id = r.Id, Routine = r.Content })],
            Attempts =
            [
                .. found.Select(f => new AttemptRow
                {
                    Id = f.Attempt.Id,
                    Revision = f.Attempt.Revision,
                    Session = f.Attempt.SessionId,
                    SessionStarted = f.StartedAt,
                    Player = f.Player ?? "",
                    Table = f.Table ?? "",
                    Cue = f.Cue ?? "",
                    Routine = f.Attempt.Routine,
                    Step = f.Attempt.Step,
                    Mirrored = f.Attempt.IsMirrored,
                    At = f.Attempt.At,
                    Said = f.Attempt.Said,
                    Done = f.Attempt.IsDone,
                    Reasons = string.Join(';', f.Attempt.Reasons),
                    Body = string.Join(';', f.Attempt.Body),
                    WhiteX = f.Attempt.WhiteX,
                    WhiteY = f.Attempt.WhiteY,
                    BallX = f.Attempt.BallX,
                    BallY = f.Attempt.BallY,
                    Score = f.Attempt.Score,
                    Kinds = string.Join(';', f.Attempt.Kinds.Select(k => $"{k.Key} {k.Value}")),
                    Group = f.Attempt.Group,
                    Laid = f.Attempt.LaidHash ?? "",
                    Note = f.Attempt.Note,
                }),
            ],
        };
    }

    private static async Task<Ok<ImportedAttempts>> ImportJson(
        HttpRequest request,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file = await request.ReadFileAsync<AttemptFile>(PositionFile.Json, "attempts", cancel);
        RecordStore.CheckFile("attempts", (file.Format, file.Version), (AttemptFile.FormatName, AttemptFile.CurrentVersion));
        return await ImportAsync(file, db, time, cancel);
    }

    /// <summary>A file of CSV as the body's text.</summary>
    public sealed record CsvBody
    {
        public required string Csv { get; init; }
    }

    private static async Task<Ok<ImportedAttempts>> ImportCsv(
        CsvBody body,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var file = new AttemptFile
        {
            Format = AttemptFile.FormatName,
            Version = AttemptFile.CurrentVersion,
            Attempts = AttemptCsv.Read(body.Csv),
        };
        return await ImportAsync(file, db, time, cancel);
    }

    private static async Task<Ok<ImportedAttempts>> ImportAsync(
        AttemptFile file,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        var now = time.GetUtcNow();
        if (file.Attempts.Count is 0 or > MostAttempts)
            throw new InputException("attempts", $"There are {file.Attempts.Count} attempts.", $"1 to {MostAttempts}");
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        await AddRoutinesAsync(file, db, now, cancel);
        var with = await NamesAsync(file.Attempts, db, now, cancel);
        var checkedOnes = await AttemptChecks.CheckedAsync(
            db,
            [.. file.Attempts.Select(EntryOf)],
            MostAttempts,
            at => SessionEndpoints.CheckedTime("attempts.at", at, now),
            cancel,
            LaidOf(file)
        );
        // Held in the order of their ids, like a session that somebody counts in: two imports, or an import and a count, take turns.
        var ids = file.Attempts.Select(a => a.Session).Distinct().Order().ToArray();
        var sessions = await db
            .Sessions.FromSql($"SELECT *, xmin FROM sessions WHERE id = ANY({ids}) ORDER BY id FOR UPDATE")
            .ToDictionaryAsync(s => s.Id, cancel);
        if (sessions.Values.Any(s => s.OwnerId != User.LocalId))
            throw new InputException("attempts.session", "A session is somebody else's.", "one's own");
        var newSessions = 0;
        foreach (var row in file.Attempts.Where(r => !sessions.ContainsKey(r.Session)))
        {
            if (sessions.ContainsKey(row.Session))
                continue;
            var session = new PracticeSession
            {
                Id = row.Session,
                OwnerId = User.LocalId,
                StartedAt = SessionEndpoints.CheckedTime("attempts.sessionStarted", row.SessionStarted, now),
                EndedAt = file.Attempts.Where(r => r.Session == row.Session).Max(r => r.At).ToUniversalTime(),
                UpdatedAt = now,
            };
            with(row).Write(session);
            db.Add(session);
            sessions[row.Session] = session;
            newSessions++;
        }
        var attemptIds = file.Attempts.Select(a => a.Id).ToList();
        var there = await db.Attempts.Where(a => attemptIds.Contains(a.Id)).ToDictionaryAsync(a => a.Id, cancel);
        if (file.Attempts.FirstOrDefault(r => there.TryGetValue(r.Id, out var kept) && kept.SessionId != r.Session) is { } elsewhere)
            throw new InputException(
                "attempts.id",
                $"The attempt {elsewhere.Id} belongs to another session.",
                "attempts of the sessions that the file names"
            );
        // Attempts that come back bring their session out of the bin.
        foreach (var session in sessions.Values)
            session.DeletedAt = null;
        var laid = await SessionEndpoints.LaidAsync(db, row => with(file.Attempts[row]).TableId, checkedOnes, cancel);
        await CheckRoomAsync(db, file, there.Keys.ToHashSet(), cancel);
        var fresh = 0;
        for (var i = 0; i < checkedOnes.Count; i++)
        {
            var (judged, row) = (checkedOnes[i], file.Attempts[i]);
            var entry = judged.Entry;
            var session = sessions[row.Session];
            if (!there.TryGetValue(entry.Id, out var kept))
            {
                there[entry.Id] = kept = AttemptChecks.New(entry, session);
                with(row).Write(kept);
                db.Add(kept);
                fresh++;
            }
            else if (kept.OwnerId != User.LocalId || entry.Revision <= kept.Revision)
                continue;
            AttemptChecks.Write(judged, laid[i], kept);
            kept.Note = Texts.Checked("note", row.Note, Attempt.MaxNote, required: false);
            kept.ChangedIn = ++session.Changes;
        }
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        return TypedResults.Ok(new ImportedAttempts(file.Attempts.Count, fresh, newSessions));
    }

    /// <summary>What the file says each of its attempts was made at, named by what it is and not by what the file calls it.</summary>
    private static List<LaidStep?> LaidOf(AttemptFile file)
    {
        var shape = new TableShape(Conditions.Default);
        var laid = new Dictionary<string, LaidStep>();
        foreach (var filed in file.Laid)
        {
            Conditions.With(filed.Conditions);
            var step = new Routine
            {
                Name = "-",
                Steps = [filed.Step],
            }.Checked(shape).Steps[0];
            laid[filed.Hash] = LaidStep.Of(User.LocalId, step, filed.Conditions);
        }
        return [.. file.Attempts.Select(a => a.Laid == "" ? null : laid.GetValueOrDefault(a.Laid))];
    }

    /// <summary>A session holds no more attempts by a file than by counting.</summary>
    private static async Task CheckRoomAsync(DeepBaizeContext db, AttemptFile file, HashSet<Guid> known, CancellationToken cancel)
    {
        var ids = file.Attempts.Select(a => a.Session).Distinct().ToList();
        var kept = await db
            .Attempts.Where(a => ids.Contains(a.SessionId))
            .GroupBy(a => a.SessionId)
            .Select(g => new { g.Key, Count = g.Count() })
            .ToDictionaryAsync(g => g.Key, g => g.Count, cancel);
        foreach (var session in file.Attempts.Where(a => !known.Contains(a.Id)).GroupBy(a => a.Session))
        {
            var all = kept.GetValueOrDefault(session.Key) + session.Select(a => a.Id).Distinct().Count();
            if (all > SessionEndpoints.MostAttempts)
                throw new InputException(
                    "attempts",
                    $"The session {session.Key} would hold {all} attempts.",
                    $"at most {SessionEndpoints.MostAttempts} in a session"
                );
        }
    }

    private static async Task AddRoutinesAsync(AttemptFile file, DeepBaizeContext db, DateTimeOffset now, CancellationToken cancel)
    {
        var own = db.Routines.Where(r => r.OwnerId == User.LocalId && r.DeletedAt == null);
        var room = RoutineEndpoints.MostOwn - await own.CountAsync(cancel);
        foreach (var filed in file.Routines)
        {
            if (await db.Routines.AnyAsync(r => r.Id == filed.Id, cancel))
                continue;
            if (--room < 0)
                throw new InputException(
                    "routines",
                    "There would be too many routines.",
                    $"at most {RoutineEndpoints.MostOwn} of one's own"
                );
            var routine = RoutineEndpoints.Checked(new() { Routine = filed.Routine });
            db.Add(
                new RoutineRecord
                {
                    Id = filed.Id,
                    OwnerId = User.LocalId,
                    Name = routine.Name,
                    Content = routine,
                    CreatedAt = now,
                    UpdatedAt = now,
                }
            );
        }
        await db.SaveChangesAsync(cancel);
    }

    /// <summary>Whose and with what a row's attempt was, by name; names that are not known are made new.</summary>
    private static async Task<Func<AttemptRow, PlayedWith>> NamesAsync(
        IReadOnlyList<AttemptRow> rows,
        DeepBaizeContext db,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        async Task<Dictionary<string, Guid>> Known<T>(Func<AttemptRow, string> name, Func<string, T> make)
            where T : class, IClubThing
        {
            var known = new Dictionary<string, Guid>();
            foreach (var thing in await db.AtHand<T>().AsNoTracking().ToListAsync(cancel))
                known.TryAdd(thing.Name, thing.Id);
            foreach (var missing in rows.Select(name).Where(n => n != "").Distinct().Where(n => !known.ContainsKey(n)).ToList())
            {
                var made = make(Texts.Checked("name", missing, ClubThing.MaxName, required: true));
                db.Add(made);
                known[missing] = made.Id;
            }
            if (known.Count > ClubThings.Most)
                throw new InputException("attempts", "There are too many names.", $"at most {ClubThings.Most} of a kind");
            return known;
        }
        var players = await Known<ClubPlayer>(
            r => r.Player,
            name =>
                new()
                {
                    OwnerId = User.LocalId,
                    Name = name,
                    CreatedAt = now,
                    UpdatedAt = now,
                }
        );
        var tables = await Known<ClubTable>(
            r => r.Table,
            name =>
                new()
                {
                    OwnerId = User.LocalId,
                    Name = name,
                    CreatedAt = now,
                    UpdatedAt = now,
                }
        );
        var cues = await Known<ClubCue>(
            r => r.Cue,
            name =>
                new()
                {
                    OwnerId = User.LocalId,
                    Name = name,
                    CreatedAt = now,
                    UpdatedAt = now,
                }
        );
        await db.SaveChangesAsync(cancel);
        static Guid? Of(Dictionary<string, Guid> known, string name) => name == "" ? null : known[name];
        return row => new(Of(players, row.Player), Of(tables, row.Table), Of(cues, row.Cue));
    }

    private static AttemptEntry EntryOf(AttemptRow row)
    {
        static string[] Parts(string text) => text.Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        var kinds = new Dictionary<string, int>();
        foreach (var part in Parts(row.Kinds))
        {
            var space = part.LastIndexOf(' ');
            if (space < 0 || !int.TryParse(part[(space + 1)..], CultureInfo.InvariantCulture, out var count))
                throw new InputException("attempts.kinds", $"“{part}” is not a kind with a count.", "as \"follow 3;stun 1\"");
            kinds[part[..space]] = count;
        }
        return new()
        {
            Id = row.Id,
            Revision = row.Revision,
            At = row.At,
            Routine = row.Routine,
            Step = row.Step,
            Mirrored = row.Mirrored,
            Said = row.Said,
            Reasons = Parts(row.Reasons),
            Body = Parts(row.Body),
            White = row is { WhiteX: { } wx, WhiteY: { } wy } ? new(wx, wy) : null,
            Ball = row is { BallX: { } bx, BallY: { } by } ? new(bx, by) : null,
            Score = row.Score,
            Kinds = kinds,
            Group = row.Group,
        };
    }
}
