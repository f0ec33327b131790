using DeepBaize.Core.Players;

namespace DeepBaize.Core.Practice;

/// <summary>An attempt, as far as it is counted.</summary>
/// <param name="Session">Which session it belongs to.</param>
/// <param name="IsMirrored">Whether it was played from the other side of the table.</param>
/// <param name="Reasons">Why it was not done, if it was not.</param>
/// <param name="White">Where the white stopped, m.</param>
/// <param name="Score">Points of a run.</param>
/// <param name="How">How the player gets at it; null where that is not known.</param>
public sealed record CountedAttempt(
    Guid Session,
    DateTimeOffset At,
    int Step,
    bool IsMirrored,
    bool IsDone,
    IReadOnlyList<string> Reasons,
    Vec2? White = null,
    int? Score = null,
    Circumstance? How = null
);

/// <summary>A share of attempts, with where it lies 95 of 100 times.</summary>
public sealed record SuccessRate(int Done, int Of, double Low, double High)
{
    /// <summary>Returns the rate of a count, with its 95 % interval.</summary>
    public static SuccessRate From(SuccessCount tally) => new(tally.Done, tally.Of, tally.Interval.Low, tally.Interval.High);
}

/// <summary>A reason, and in how many of the attempts that were not done it was given.</summary>
public sealed record Cause(string Reason, int Times, int Missed);

/// <summary>What was counted in one week.</summary>
/// <param name="From">Its Monday.</param>
/// <param name="Standard">Over several routines, the share at one mix of them; null of one routine.</param>
public sealed record Week(DateOnly From, SuccessRate Share, int? TypicalScore, int? BestScore, StandardisedShare? Standard = null);

/// <summary>Where the white stopped at one step on one side, of its attempts.</summary>
/// <param name="Ellipse">Holds 68 of 100 places that scatter like these; null of fewer than three.</param>
public sealed record Stops(int Step, bool IsMirrored, IReadOnlyList<Vec2> Places, StopSpread? Spread, Ellipse? Ellipse);

/// <summary>Attempts from one stance.</summary>
public sealed record StanceShare(Stance Stance, SuccessRate Share);

/// <summary>Scores of a run.</summary>
public sealed record Scores(int Best, double Typical, double LastTen, int Of);

/// <summary>Statistics of the attempts at one routine.</summary>
/// <param name="BestTen">The most that were done of ten in a row.</param>
/// <param name="Typical">Median of the sessions' shares: half of them went better.</param>
/// <param name="Better">The newer half of the attempts at each step against the older half; null without two at any step.</param>
/// <param name="Trend">Of the share from attempt to attempt; null of fewer than three.</param>
/// <param name="LongestRun">Of attempts done in a row, among the last hundred.</param>
/// <param name="RunByLuck">The chance that as many done and not, in any order, have as long a run.</param>
/// <param name="Sides">As laid out, and from the other side.</param>
/// <param name="BetterSide">The other side beside the one as laid out.</param>
/// <param name="Stances">By hand and reach, the usual first; empty where it is not known.</param>
/// <param name="Cushion">With the white in the open, and by a cushion; empty where it is not known.</param>
public record RoutineStatistics(
    SuccessRate All,
    SuccessRate LastTen,
    SuccessRate BestTen,
    double? Typical,
    Change? Better,
    Trend? Trend,
    int LongestRun,
    double RunByLuck,
    IReadOnlyList<SuccessRate> Steps,
    IReadOnlyList<SuccessRate> Sides,
    Change? BetterSide,
    IReadOnlyList<StanceShare> Stances,
    IReadOnlyList<SuccessRate> Cushion,
    IReadOnlyList<Cause> Causes,
    Scores? Scores
)
{
    /// <summary>Number of latest attempts in which runs are looked for: older ones say nothing of now.</summary>
    private const int LastForRuns = 100;
    private const int Ten = 10;

    /// <param name="attempts">In the order in which they were made.</param>
    public static RoutineStatistics Of(IReadOnlyList<CountedAttempt> attempts)
    {
        var all = SuccessesOf(attempts);
        var lately = attempts.TakeLast(LastForRuns).ToList();
        var longest = Streaks.Longest(lately.Select(a => a.IsDone));
        var sides = new[] { false, true }.Select(m => SuccessesOf(attempts.Where(a => a.IsMirrored == m))).ToList();
        return new(
            All: SuccessRate.From(all),
            LastTen: SuccessRate.From(SuccessesOf(attempts.TakeLast(Ten))),
            BestTen: SuccessRate.From(BestOf(attempts)),
            Typical: attempts.Count == 0 ? null : StopSpread.Median(attempts.GroupBy(a => a.Session).Select(s => SuccessesOf(s).Share)),
            Better: NewerAgainstOlder(attempts),
            Trend: Trend.Of([.. attempts.Select(a => a.IsDone ? 1.0 : 0)]),
            LongestRun: longest,
            RunByLuck: Streaks.ByLuck(SuccessesOf(lately), longest),
            Steps:
            [
                .. Enumerable
                    .Range(0, attempts.Count == 0 ? 0 : attempts.Max(a => a.Step) + 1)
                    .Select(step => SuccessRate.From(SuccessesOf(attempts.Where(a => a.Step == step)))),
            ],
            Sides: [.. sides.Select(SuccessRate.From)],
            BetterSide: sides.All(s => s.Of > 0) ? Change.Of(sides[0], sides[1]) : null,
            Stances:
            [
                .. attempts
                    .Where(a => a.How is not null)
                    .GroupBy(a => a.How!.Stance)
                    .OrderBy(g => g.Key)
                    .Select(g => new StanceShare(g.Key, SuccessRate.From(SuccessesOf(g)))),
            ],
            Cushion: attempts.Any(a => a.How is not null)
                ? [.. new[] { false, true }.Select(by => SuccessRate.From(SuccessesOf(attempts.Where(a => a.How?.ByCushion == by))))]
                : [],
            Causes: CausesOf(attempts),
            Scores: ScoresOf(attempts)
        );
    }

    /// <summary>
    /// Compares the newer half of the attempts with the older half, halved at each step: the steps of a ladder differ in
    /// difficulty, and later attempts are often at harder ones.
    /// </summary>
    /// <param name="fewest">Fewest attempts that each half may have.</param>
    /// <returns>Null if a half has fewer.</returns>
    internal static Change? NewerAgainstOlder(IReadOnlyList<CountedAttempt> attempts, int fewest = 1)
    {
        var (before, now) = (new SuccessCount(), new SuccessCount());
        foreach (var same in attempts.GroupBy(a => a.Step))
        {
            var all = same.ToList();
            var half = all.Count / 2;
            before += SuccessesOf(all.Take(half));
            // Of an odd number the middle one belongs to neither half.
            now += SuccessesOf(all.Skip(all.Count - half));
        }
        return before.Of < fewest ? null : Change.Of(before, now);
    }

    /// <summary>Counts the attempts that were done, and all of them.</summary>
    public static SuccessCount SuccessesOf(IEnumerable<CountedAttempt> attempts)
    {
        var (done, of) = (0, 0);
        foreach (var attempt in attempts)
            (done, of) = (done + (attempt.IsDone ? 1 : 0), of + 1);
        return new(done, of);
    }

    private static SuccessCount BestOf(IReadOnlyList<CountedAttempt> attempts)
    {
        var size = Math.Min(Ten, attempts.Count);
        var (done, best) = (0, 0);
        for (var i = 0; i < attempts.Count; i++)
        {
            done += (attempts[i].IsDone ? 1 : 0) - (i >= size && attempts[i - size].IsDone ? 1 : 0);
            if (i >= size - 1)
                best = Math.Max(best, done);
        }
        return new(best, size);
    }

    /// <summary>Returns the reasons given for misses, the most frequent first.</summary>
    internal static List<Cause> CausesOf(IReadOnlyList<CountedAttempt> attempts)
    {
        var missed = attempts.Count(a => !a.IsDone);
        return
        [
            .. attempts
                .Where(a => !a.IsDone)
                .SelectMany(a => a.Reasons)
                .GroupBy(r => r)
                .Select(g => new Cause(g.Key, g.Count(), missed))
                .OrderByDescending(c => c.Times)
                .ThenBy(c => c.Reason, StringComparer.Ordinal),
        ];
    }

    /// <summary>The Monday of the week that a time is in, by its own clock.</summary>
    public static DateOnly WeekOf(DateTimeOffset at)
    {
        var day = DateOnly.FromDateTime(at.DateTime);
        return day.AddDays(-(((int)day.DayOfWeek + 6) % 7));
    }

    /// <summary>Returns the attempts week by week, oldest first.</summary>
    public static IReadOnlyList<Week> WeeksOf(IEnumerable<CountedAttempt> attempts) =>
        [
            .. attempts
                .GroupBy(a => WeekOf(a.At))
                .OrderBy(w => w.Key)
                .Select(w =>
                {
                    var scores = w.Where(a => a.Score is not null).Select(a => a.Score!.Value).ToList();
                    return new Week(
                        w.Key,
                        SuccessRate.From(SuccessesOf(w)),
                        scores.Count == 0 ? null : (int)Math.Round(StopSpread.Median(scores.Select(s => (double)s))),
                        scores.Count == 0 ? null : scores.Max()
                    );
                }),
        ];

    /// <summary>Where the white stopped, step by step and side by side.</summary>
    public static IReadOnlyList<Stops> StopsOf(IReadOnlyList<CountedAttempt> attempts) =>
        [
            .. attempts
                .Where(a => a.White is not null)
                .GroupBy(a => (a.Step, a.IsMirrored))
                .OrderBy(g => g.Key)
                .Select(g =>
                {
                    List<Vec2> places = [.. g.Select(a => a.White!.Value)];
                    var spread = StopSpread.Of(places);
                    return new Stops(g.Key.Step, g.Key.IsMirrored, places, spread, spread?.Holding(0.68));
                }),
        ];

    /// <summary>Returns the scores of runs; null if there are none.</summary>
    public static Scores? ScoresOf(IReadOnlyList<CountedAttempt> attempts)
    {
        List<double> scores = [.. attempts.Where(a => a.Score is not null).Select(a => (double)a.Score!.Value)];
        return scores.Count == 0
            ? null
            : new((int)scores.Max(), StopSpread.Median(scores), StopSpread.Median(scores.TakeLast(Ten)), scores.Count);
    }
}
