using System.ComponentModel;
using System.Text.Json.Serialization;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Practice;
using DeepBaize.Web.Players;
using DeepBaize.Web.Records;
using DeepBaize.Web.Shots;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>Which attempts are counted: all, unless said.</summary>
public sealed record StatisticsQuery
{
    [Description("Of this routine alone, and then with everything that is told of it.")]
    [FromQuery(Name = "routine")]
    public string? Routine { get; init; }

    [FromQuery(Name = "player")]
    public Guid? Player { get; init; }

    [FromQuery(Name = "table")]
    public Guid? Table { get; init; }

    [FromQuery(Name = "cue")]
    public Guid? Cue { get; init; }

    [Description("Made at this time or later.")]
    [FromQuery(Name = "from")]
    public DateTimeOffset? From { get; init; }

    [Description("Made before this time.")]
    [FromQuery(Name = "to")]
    public DateTimeOffset? To { get; init; }
}

/// <summary>The attempts at one routine, in a few figures.</summary>
public sealed record RoutineTally(
    string Routine,
    string Name,
    RoutineFamily Family,
    SuccessRate All,
    SuccessRate LastTen,
    DateTimeOffset LastAt,
    IReadOnlyList<Week> Weeks,
    [property: Description("Of a run: the best score and the typical one, half of them being higher.")] Scores? Scores
);

/// <summary>How many strokes of a kind were counted in runs and in breaks of frames.</summary>
public sealed record KindCount(string Kind, int InRoutines, int InFrames);

/// <summary>Where the white stopped at one step on one side.</summary>
/// <param name="Places">The latest 200, m.</param>
/// <param name="Along">Standard deviation up and down the table, m; null of fewer than three.</param>
/// <param name="Across">Standard deviation across it, m.</param>
/// <param name="Ellipse">Holds 68 of 100 places that scatter like these.</param>
public sealed record StopsResult(
    int Step,
    bool Mirrored,
    int Of,
    IReadOnlyList<PlaceResult> Places,
    double? Along,
    double? Across,
    EllipseResult? Ellipse
)
{
    private const int MostPlaces = 200;

    public static StopsResult From(Stops stops) =>
        new(
            Step: stops.Step,
            Mirrored: stops.IsMirrored,
            Of: stops.Places.Count,
            Places: [.. stops.Places.TakeLast(MostPlaces).Select(PlaceResult.Rounded)],
            Along: stops.Spread?.Along,
            Across: stops.Spread?.Across,
            Ellipse: stops.Ellipse is { } e ? new(PlaceResult.Rounded(e.Centre), e.Longer, e.Shorter, e.Direction.Degrees) : null
        );
}

/// <summary>An ellipse: its semi-axes, the longer first, m, and how the longer one lies, degrees from straight up the table.</summary>
public sealed record EllipseResult(PlaceResult Centre, double Longer, double Shorter, double Degrees);

/// <summary>Statistics of the attempts at one routine.</summary>
/// <param name="LastScores">Of runs, the latest hundred.</param>
public sealed record RoutineDetail(
    [property: JsonIgnore] RoutineStatistics Figures,
    IReadOnlyList<StopsResult> Stops,
    IReadOnlyList<int> LastScores
) : RoutineStatistics(Figures)
{
    private const int MostScores = 100;

    public static RoutineDetail From(IReadOnlyList<CountedAttempt> attempts) =>
        new(
            Of(attempts),
            [.. StopsOf(attempts).Select(StopsResult.From)],
            [.. attempts.Where(a => a.Score is not null).Select(a => a.Score!.Value).TakeLast(MostScores)]
        );
}

/// <summary>What has been counted.</summary>
/// <param name="Attempts">How many in all.</param>
/// <param name="Routines">Each that was played, the one played last first.</param>
/// <param name="Kinds">Strokes by kind.</param>
/// <param name="Of">Everything that is told of the one routine that was asked for; null if none was, or it was never played.</param>
/// <param name="StepLabels">Names of the steps of the routine that was asked for.</param>
public sealed record StatisticsResult(
    int Attempts,
    int Sessions,
    IReadOnlyList<Week> Weeks,
    IReadOnlyList<RoutineTally> Routines,
    IReadOnlyList<KindCount> Kinds,
    RoutineDetail? Of,
    IReadOnlyList<string> StepLabels
);

/// <summary>What attempts come to.</summary>
public static class StatisticsEndpoints
{
    public static void MapStatistics(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/practice").WithTags("Practice").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("statistics", Read)
            .WithName("practiceStatistics")
            .WithSummary("What counted attempts come to: by routine, week, player, table and cue");
        group
            .MapGet("plan", Plan)
            .WithName("planSession")
            .WithSummary("A session of so many minutes: warm-up, routines by what has gone worst, breaks, a run");
    }

    private static async Task<List<SessionPart>> Plan(DeepBaizeContext db, CancellationToken cancel, int minutes = 60, Guid? player = null)
    {
        var counted = await db.Counted(new() { Player = player })
            .GroupBy(a => a.Routine)
            .Select(g => new
            {
                g.Key,
                Done = g.Count(a => a.IsDone),
                Of = g.Count(),
                LastAt = g.Max(a => a.At),
            })
            .ToListAsync(cancel);
        var own = await db
            .Routines.AsNoTracking()
            .Where(r => r.OwnerId == User.LocalId && r.DeletedAt == null)
            .ToDictionaryAsync(r => r.Id.ToString(), r => r.Content, cancel);
        foreach (var shipped in ShippedRoutines.All)
            own[shipped.Id] = shipped.Routine;
        return [.. SessionPlan.For(minutes, own, counted.ToDictionary(c => c.Key, c => new RoutineHistory(new(c.Done, c.Of), c.LastAt)))];
    }

    /// <summary>Attempts that count and that are asked for.</summary>
    internal static IQueryable<Attempt> Counted(this DeepBaizeContext db, StatisticsQuery query)
    {
        var (from, to) = (query.From?.ToUniversalTime(), query.To?.ToUniversalTime());
        if (query.Routine is { } name)
            Texts.Checked("routine", name, Attempt.MaxRoutine, required: true);
        return db.Attempts.Where(a =>
            a.OwnerId == User.LocalId
            && !a.IsWithdrawn
            && !db.Sessions.Any(s => s.Id == a.SessionId && s.DeletedAt != null)
            && (query.Player == null || a.PlayerId == query.Player)
            && (query.Table == null || a.TableId == query.Table)
            && (query.Cue == null || a.CueId == query.Cue)
            && (from == null || a.At >= from)
            && (to == null || a.At < to)
            && (query.Routine == null || a.Routine == query.Routine)
        );
    }

    private static async Task<StatisticsResult> Read([AsParameters] StatisticsQuery query, DeepBaizeContext db, CancellationToken cancel)
    {
        if (query.Routine is { } name)
            Texts.Checked("routine", name, Attempt.MaxRoutine, required: true);
        var totals = await AttemptTotals.ReadAsync(db, query, cancel);
        var all = totals.SingleOrDefault(t => t is { Routine: null, Week: null });
        var byRoutine = totals.Where(t => t is { Routine: not null, Week: null }).OrderByDescending(t => t.LastAt).ToList();
        var weeks = totals.Where(t => t.Week is not null).OrderBy(t => t.Week).ToLookup(t => t.Routine ?? "", t => t.ToWeek());
        var routines = await RoutinesAsync(db, byRoutine.Select(r => r.Routine!), cancel);
        return new(
            Attempts: all?.Of ?? 0,
            Sessions: all?.Sessions ?? 0,
            Weeks: [.. Standardised(weeks, byRoutine)],
            Routines: [.. byRoutine.Select(t => TallyOf(t, [.. weeks[t.Routine!]], routines.GetValueOrDefault(t.Routine!)))],
            Kinds: await KindsAsync(db, query, cancel),
            Of: query.Routine is not null && byRoutine.Count > 0 ? await DetailAsync(db, query, cancel) : null,
            StepLabels: [.. query.Routine is { } id && routines.GetValueOrDefault(id) is { } r ? r.Steps.Select(s => s.Label) : []]
        );
    }

    /// <summary>The weeks over all routines, each at the mix of them all.</summary>
    private static IEnumerable<Week> Standardised(ILookup<string, Week> weeks, IReadOnlyList<AttemptTotals> routines)
    {
        static SuccessCount CountOf(SuccessRate rate) => new(rate.Done, rate.Of);
        if (routines.Count < 2)
            return weeks[""];
        var all = routines.ToDictionary(r => r.Routine!, r => CountOf(r.All));
        return weeks[""]
            .Select(week =>
            {
                var its = routines
                    .Select(r => (r.Routine, Week: weeks[r.Routine!].FirstOrDefault(w => w.From == week.From)))
                    .Where(r => r.Week is not null)
                    .ToDictionary(r => r.Routine!, r => CountOf(r.Week!.Share));
                return week with { Standard = StandardisedShare.Of(its, all) };
            });
    }

    private static RoutineTally TallyOf(AttemptTotals totals, IReadOnlyList<Week> weeks, Routine? routine) =>
        new(
            Routine: totals.Routine!,
            Name: NameOf(routine),
            Family: routine?.Family ?? RoutineFamily.Own,
            All: totals.All,
            LastTen: totals.LastTen,
            LastAt: totals.LastAt,
            Weeks: weeks,
            Scores: totals.Scores
        );

    /// <summary>Name of a routine; of one that was deleted, words for it.</summary>
    internal static string NameOf(Routine? routine) => routine?.Name ?? "A deleted routine";

    /// <summary>Everything about the attempts at the one routine that is asked for.</summary>
    private static async Task<RoutineDetail> DetailAsync(DeepBaizeContext db, StatisticsQuery query, CancellationToken cancel)
    {
        var rows = await db.Counted(query)
            .OrderBy(a => a.At)
            .ThenBy(a => a.Id)
            .Select(a => new
            {
                a.SessionId,
                a.PlayerId,
                a.At,
                a.Step,
                a.IsMirrored,
                a.IsDone,
                a.Reasons,
                a.WhiteX,
                a.WhiteY,
                a.Score,
            })
            .ToListAsync(cancel);
        var hows = await HowsAsync(db, query.Routine!, rows.Select(r => r.PlayerId).OfType<Guid>().ToHashSet(), cancel);
        return RoutineDetail.From(
            [
                .. rows.Select(r => new CountedAttempt(
                    r.SessionId,
                    r.At,
                    r.Step,
                    r.IsMirrored,
                    r.IsDone,
                    r.Reasons,
                    r is { WhiteX: { } x, WhiteY: { } y } ? new Vec2(x, y) : null,
                    r.Score,
                    r.PlayerId is { } id ? hows.GetValueOrDefault((id, r.Step, r.IsMirrored)) : null
                )),
            ]
        );
    }

    /// <summary>How each player gets at each step of a routine, from either side.</summary>
    private static async Task<Dictionary<(Guid Player, int Step, bool Mirrored), Circumstance>> HowsAsync(
        DeepBaizeContext db,
        string id,
        HashSet<Guid> players,
        CancellationToken cancel
    )
    {
        var hows = new Dictionary<(Guid, int, bool), Circumstance>();
        if (await db.RoutineAsync(id, cancel) is not { } routine)
            return hows;
        var shape = new TableShape(Conditions.Default);
        foreach (var player in await db.Players.AsNoTracking().Where(p => players.Contains(p.Id)).ToListAsync(cancel))
            for (var step = 0; step < routine.Steps.Count; step++)
                foreach (var mirrored in (bool[])(routine.BothSides ? [false, true] : [false]))
                    if (!routine.Steps[step].IsRun)
                        hows[(player.Id, step, mirrored)] = Circumstance.Of(
                            routine.StepAt(step, mirrored),
                            StoredPlayer.Of(player).Checked(),
                            shape
                        );
        return hows;
    }

    internal static async Task<Dictionary<string, Routine>> RoutinesAsync(
        DeepBaizeContext db,
        IEnumerable<string> ids,
        CancellationToken cancel
    )
    {
        var found = ShippedRoutines.All.ToDictionary(s => s.Id, s => s.Routine);
        var own = ids.Select(i => Guid.TryParse(i, out var id) ? id : (Guid?)null).OfType<Guid>().ToList();
        foreach (var r in await db.Routines.AsNoTracking().Where(r => r.OwnerId == User.LocalId && own.Contains(r.Id)).ToListAsync(cancel))
            found[r.Id.ToString()] = r.Content;
        return found;
    }

    private static async Task<List<KindCount>> KindsAsync(DeepBaizeContext db, StatisticsQuery query, CancellationToken cancel)
    {
        var runs = await db.Counted(query).Where(a => a.Score != null).Select(a => a.Kinds).ToListAsync(cancel);
        var frames = await db
            .Frames.AsNoTracking()
            .Where(f => f.OwnerId == User.LocalId && (query.Player == null || f.PlayerId == query.Player))
            .Where(f => query.Routine == null && query.Table == null && query.Cue == null && query.From == null && query.To == null)
            .Select(f => f.Shots)
            .ToListAsync(cancel);
        var tags = frames.SelectMany(shots => shots).Where(s => s.Kind == ShotKind.Pot).SelectMany(s => s.Tags).ToList();
        return
        [
            .. SessionEndpoints.RunKinds.Select(kind => new KindCount(
                kind,
                runs.Sum(r => r.GetValueOrDefault(kind)),
                tags.Count(t => string.Equals(t.ToString(), kind, StringComparison.OrdinalIgnoreCase))
            )),
        ];
    }
}
