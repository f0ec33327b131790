using DeepBaize.Core.Practice;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Data;
using DeepBaize.Data.Frames;
using DeepBaize.Data.Players;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>A break in a recorded frame.</summary>
/// <param name="Balls">Balls potted, in order.</param>
public sealed record PageBreak(Guid Frame, string Title, DateTimeOffset At, int Points, IReadOnlyList<string> Balls);

/// <summary>Best and typical score of a routine that is scored in points.</summary>
public sealed record PageRun(string Routine, string Name, Scores Scores);

/// <summary>A routine that goes better or worse than it did.</summary>
/// <param name="Now">Success rate of its latest attempts.</param>
/// <param name="Change">The newer half of the attempts at each step against the older half.</param>
public sealed record PageForm(string Routine, string Name, SuccessRate Now, Change Change);

/// <summary>How often the player's turns in frames ended at a kind of ball for a reason.</summary>
/// <param name="Of">All turns that ended in a miss or a foul.</param>
public sealed record PageEnd(string On, EndReason? Why, int Count, int Of);

/// <summary>A player at a glance.</summary>
/// <param name="Since">Time of the first attempt; null if there is none.</param>
/// <param name="Frames">Number of recorded frames in which the player takes part, by name.</param>
/// <param name="Breaks">Highest breaks in frames, at most three.</param>
/// <param name="Runs">Routines that are scored in points, the best first.</param>
/// <param name="Up">Routines that go better, the clearest first.</param>
/// <param name="Down">Routines that go worse, the clearest first.</param>
/// <param name="Causes">Reasons for misses of the last four weeks, the most frequent first.</param>
/// <param name="Ends">Where turns in frames end, the most frequent first.</param>
public sealed record PlayerPageResult(
    Guid Id,
    string Name,
    int Attempts,
    int Sessions,
    DateTimeOffset? Since,
    int Frames,
    IReadOnlyList<PageBreak> Breaks,
    IReadOnlyList<PageRun> Runs,
    IReadOnlyList<PageForm> Up,
    IReadOnlyList<PageForm> Down,
    IReadOnlyList<Cause> Causes,
    IReadOnlyList<PageEnd> Ends
);

/// <summary>A player's page: best runs, what is up, what to work at.</summary>
public static class PlayerPageEndpoints
{
    private const int MostBreaks = 3;

    public static void MapPlayerPage(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/players/{id:guid}/page", Read)
            .WithTags("Practice")
            .WithName("playerPage")
            .WithSummary("A player at a glance: best breaks and runs, what goes better, what to work at")
            .ProducesProblem(404)
            .ProducesProblem(503);

    private static async Task<Results<Ok<PlayerPageResult>, ProblemHttpResult>> Read(
        Guid id,
        DeepBaizeContext db,
        TimeProvider time,
        CancellationToken cancel
    )
    {
        if (await db.Players.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id && p.OwnerId == User.LocalId, cancel) is not { } player)
            return new RecordKind("player", "It may have been deleted.", "").Missing();
        var rows = await db.Counted(new() { Player = id })
            .OrderBy(a => a.At)
            .ThenBy(a => a.Id)
            .Select(a => new
            {
                a.Routine,
                a.SessionId,
                a.At,
                a.Step,
                a.IsMirrored,
                a.IsDone,
                a.Reasons,
                a.Score,
            })
            .ToListAsync(cancel);
        var byRoutine = rows.GroupBy(r => r.Routine)
            .ToDictionary(
                g => g.Key,
                IReadOnlyList<CountedAttempt> (g) =>
                    [.. g.Select(r => new CountedAttempt(r.SessionId, r.At, r.Step, r.IsMirrored, r.IsDone, r.Reasons, Score: r.Score))]
            );
        var routines = await StatisticsEndpoints.RoutinesAsync(db, byRoutine.Keys, cancel);
        string NameOf(string routine) => StatisticsEndpoints.NameOf(routines.GetValueOrDefault(routine));
        List<PageForm> Named(IReadOnlyList<RoutineForm> forms) =>
            [.. forms.Select(f => new PageForm(f.Routine, NameOf(f.Routine), f.Now, f.Change))];
        var form = PlayerForm.Of(byRoutine, time.GetUtcNow());
        var stories = await StoriesAsync(db, await NamesAsync(db, player, cancel), cancel);
        return TypedResults.Ok(
            new PlayerPageResult(
                Id: id,
                Name: player.Name,
                Attempts: rows.Count,
                Sessions: rows.Select(r => r.SessionId).Distinct().Count(),
                Since: rows.Count > 0 ? rows[0].At : null,
                Frames: stories.Count,
                Breaks:
                [
                    .. stories
                        .SelectMany(s =>
                            s.Story.Breaks.Where(b => b.Player == s.Player)
                                .Select(b => new PageBreak(s.Frame.Id, s.Frame.Title, s.Frame.UpdatedAt, b.Points, b.Balls))
                        )
                        .OrderByDescending(b => b.Points)
                        .Take(MostBreaks),
                ],
                Runs:
                [
                    .. byRoutine
                        .Select(r => (r.Key, RoutineStatistics.Of(r.Value).Scores))
                        .Where(r => r.Scores is not null)
                        .Select(r => new PageRun(r.Key, NameOf(r.Key), r.Scores!))
                        .OrderByDescending(r => r.Scores.Best),
                ],
                Up: Named(form.Up),
                Down: Named(form.Down),
                Causes: form.Causes,
                Ends: EndsOf(stories)
            )
        );
    }

    private sealed record PlayedFrame(FrameRecord Frame, FrameStory Story, int Player);

    /// <summary>
    /// What frames call a player: the whole name, or the first one if nobody else has it. A frame knows its players by what was typed.
    /// </summary>
    private static async Task<List<string>> NamesAsync(DeepBaizeContext db, ClubPlayer player, CancellationToken cancel)
    {
        static string FirstOf(string name) => name.Split(' ')[0];
        var others = await db
            .Players.AsNoTracking()
            .Where(p => p.OwnerId == User.LocalId && p.Id != player.Id)
            .Select(p => p.Name)
            .ToListAsync(cancel);
        var first = FirstOf(player.Name);
        return others.Any(o => FirstOf(o) == first) ? [player.Name] : [player.Name, first];
    }

    private static async Task<List<PlayedFrame>> StoriesAsync(DeepBaizeContext db, List<string> names, CancellationToken cancel)
    {
        var frames = await db
            .Frames.AsNoTracking()
            .Where(f => f.OwnerId == User.LocalId && (names.Contains(f.First) || names.Contains(f.Second)))
            .OrderByDescending(f => f.UpdatedAt)
            .ToListAsync(cancel);
        return [.. frames.Select(f => new PlayedFrame(f, FrameStory.UpTo(f.Shots).Story, names.Contains(f.First) ? 0 : 1))];
    }

    private static List<PageEnd> EndsOf(IEnumerable<PlayedFrame> frames)
    {
        var ends = frames.SelectMany(f => f.Story.Players[f.Player].Ends).ToList();
        var all = ends.Sum(e => e.Count);
        return
        [
            .. ends.GroupBy(e => (e.On, e.Why))
                .Select(g => new PageEnd(g.Key.On.Name(), g.Key.Why, g.Sum(e => e.Count), all))
                .OrderByDescending(e => e.Count)
                .ThenBy(e => e.On, StringComparer.Ordinal),
        ];
    }
}
