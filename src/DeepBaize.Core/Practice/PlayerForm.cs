namespace DeepBaize.Core.Practice;

/// <summary>One routine's newer attempts against its older ones.</summary>
/// <param name="Routine">Identifier of the routine.</param>
/// <param name="Now">Success rate of the latest attempts.</param>
/// <param name="Change">The newer half of the attempts at each step against the older half.</param>
public sealed record RoutineForm(string Routine, SuccessRate Now, Change Change);

/// <summary>A player's form over all routines: what improves, what slips, and why attempts fail.</summary>
/// <param name="Up">Routines that go better, the clearest first.</param>
/// <param name="Down">Routines that go worse, the clearest first.</param>
/// <param name="Causes">Reasons for recent misses, the most frequent first.</param>
/// <param name="CausesSince">Start of the period that <paramref name="Causes"/> covers.</param>
public sealed record PlayerForm(
    IReadOnlyList<RoutineForm> Up,
    IReadOnlyList<RoutineForm> Down,
    IReadOnlyList<Cause> Causes,
    DateTimeOffset CausesSince
)
{
    /// <summary>Fewest attempts in each half that are compared: fewer say nothing about form.</summary>
    public const int FewestInHalf = 10;

    /// <summary>Number of latest attempts that show how it goes now.</summary>
    private const int Latest = 20;

    /// <summary>Period in which misses count as recent.</summary>
    public static readonly TimeSpan Recent = TimeSpan.FromDays(28);

    /// <summary>Returns the form of a player.</summary>
    /// <param name="byRoutine">Attempts of each routine, in the order in which they were made.</param>
    /// <param name="now">Time at which the form is asked for.</param>
    public static PlayerForm Of(IReadOnlyDictionary<string, IReadOnlyList<CountedAttempt>> byRoutine, DateTimeOffset now)
    {
        var compared = byRoutine
            .Select(r => (Routine: r.Key, Attempts: r.Value, Change: RoutineStatistics.NewerAgainstOlder(r.Value, FewestInHalf)))
            .Where(r => r.Change is not null)
            .Select(r => new RoutineForm(
                r.Routine,
                SuccessRate.From(RoutineStatistics.SuccessesOf(r.Attempts.TakeLast(Latest))),
                r.Change!
            ))
            .ToList();
        var since = now - Recent;
        return new(
            Up: [.. compared.Where(r => r.Change.Difference > 0).OrderByDescending(r => r.Change.Low)],
            Down: [.. compared.Where(r => r.Change.Difference < 0).OrderBy(r => r.Change.High)],
            Causes: RoutineStatistics.CausesOf([.. byRoutine.Values.SelectMany(r => r).Where(a => a.At >= since)]),
            CausesSince: since
        );
    }
}
