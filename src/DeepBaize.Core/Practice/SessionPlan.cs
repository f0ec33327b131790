namespace DeepBaize.Core.Practice;

/// <summary>How a routine has gone so far, as far as a plan asks.</summary>
public sealed record RoutineHistory(SuccessCount All, DateTimeOffset LastAt);

/// <summary>A part of a session.</summary>
/// <param name="Routine">Its id, or <see cref="SessionPlan.Break"/>.</param>
public sealed record SessionPart(string Routine, int Minutes);

/// <summary>
/// A session laid out: warm-up first, then one routine of each kind in turn, those first that have gone badly or not been played for long,
/// a run at the end, and breaks to stand up. Common practice, no source.
/// </summary>
public static class SessionPlan
{
    /// <summary>In place of a routine: stand up, walk, stretch.</summary>
    public const string Break = "break";

    /// <summary>Bounds of a session, minutes.</summary>
    public const int Shortest = 15,
        Longest = 240;
    private const int OneWarmUp = 5,
        OneRoutine = 10,
        OneBreak = 3,
        BeforeBreak = 25;

    private static readonly string[] WarmUp = ["straight-tip", "height"];

    private static readonly RoutineFamily[] InTurn =
    [
        RoutineFamily.Spin,
        RoutineFamily.Potting,
        RoutineFamily.Position,
        RoutineFamily.Own,
        RoutineFamily.Safety,
        RoutineFamily.Pace,
        RoutineFamily.Cueing,
    ];

    /// <param name="minutes">For all of it.</param>
    /// <param name="routines">That can be chosen from, by id.</param>
    /// <param name="played">How those went that have been played.</param>
    /// <exception cref="InputException">Too short or too long.</exception>
    public static IReadOnlyList<SessionPart> For(
        int minutes,
        IReadOnlyDictionary<string, Routine> routines,
        IReadOnlyDictionary<string, RoutineHistory> played
    )
    {
        var checks = new Checks();
        checks.Range("minutes", minutes, Shortest, Longest, " minutes");
        checks.ThrowIfAny();
        var run = Next(
            routines,
            played,
            [.. routines.Where(r => r.Value.Family == RoutineFamily.Breaks).Select(r => r.Key)],
            new HashSet<string>()
        );
        var parts = WarmUp.Select(id => new SessionPart(id, OneWarmUp)).ToList();
        // The run takes what a routine takes, and ends it.
        var (left, since) = (minutes - 2 * OneWarmUp - (run is null ? 0 : OneRoutine), 2 * OneWarmUp);
        var used = WarmUp.ToHashSet();
        for (var turn = 0; left >= OneRoutine / 2 && turn < 10 * InTurn.Length; turn++)
        {
            if (since >= BeforeBreak && left >= OneBreak + OneRoutine / 2)
            {
                parts.Add(new(Break, OneBreak));
                (left, since) = (left - OneBreak, 0);
            }
            var family = InTurn[turn % InTurn.Length];
            var chosen = Next(routines, played, [.. routines.Where(r => r.Value.Family == family).Select(r => r.Key)], used);
            if (chosen is null)
                continue;
            used.Add(chosen);
            var length = Math.Min(OneRoutine, left);
            parts.Add(new(chosen, length));
            (left, since) = (left - length, since + length);
        }
        if (run is not null && minutes >= 2 * OneWarmUp + OneRoutine)
            parts.Add(new(run, OneRoutine));
        return parts;
    }

    /// <summary>One that was never played, else the one that goes worst, the longest ago first of those that are level.</summary>
    private static string? Next(
        IReadOnlyDictionary<string, Routine> routines,
        IReadOnlyDictionary<string, RoutineHistory> played,
        IReadOnlyList<string> of,
        IReadOnlySet<string> used
    ) =>
        of.Where(id => !used.Contains(id))
            .OrderBy(id => played.TryGetValue(id, out var p) ? p.All.Interval.High : 0)
            .ThenBy(id => played.TryGetValue(id, out var p) ? p.LastAt : DateTimeOffset.MinValue)
            .ThenBy(id => routines[id].Family)
            .ThenBy(id => id, StringComparer.Ordinal)
            .FirstOrDefault();
}
