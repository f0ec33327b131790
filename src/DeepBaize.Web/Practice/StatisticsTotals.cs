using DeepBaize.Core.Practice;
using DeepBaize.Data;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>Attempts of one routine, one week, both, or neither (all), added up by the database.</summary>
/// <param name="Routine">Null over all routines.</param>
/// <param name="Week">The Monday, UTC; null over all weeks.</param>
/// <param name="LastOf">Attempts among the last ten of the routine.</param>
/// <param name="Scored">Attempts with a score.</param>
/// <param name="Typical">Median score.</param>
/// <param name="LastTypical">Median of the last ten scores of the routine.</param>
internal sealed record AttemptTotals(
    string? Routine,
    DateOnly? Week,
    int Of,
    int Done,
    int Sessions,
    DateTimeOffset LastAt,
    int LastOf,
    int LastDone,
    int Scored,
    int? Best,
    double? Typical,
    double? LastTypical
)
{
    private const int Ten = 10;

    /// <summary>Adds up the attempts that a query asks for: for each routine and week, each routine, each week, and in all.</summary>
    public static async Task<List<AttemptTotals>> ReadAsync(DeepBaizeContext db, StatisticsQuery query, CancellationToken cancel)
    {
        var (from, to) = (query.From?.ToUniversalTime(), query.To?.ToUniversalTime());
        return await db
            .Database.SqlQuery<AttemptTotals>(
                $"""
                WITH counted AS (
                  SELECT routine, session_id, at, is_done, score, date_trunc('week', at AT TIME ZONE 'UTC')::date AS week,
                    row_number() OVER (PARTITION BY routine ORDER BY at DESC, id DESC) AS nth,
                    row_number() OVER (PARTITION BY routine, score IS NULL ORDER BY at DESC, id DESC) AS nth_score
                  FROM attempts
                  WHERE owner_id = {User.LocalId} AND NOT is_withdrawn
                    AND session_id NOT IN (SELECT id FROM sessions WHERE owner_id = {User.LocalId} AND deleted_at IS NOT NULL)
                    AND ({query.Player}::uuid IS NULL OR player_id = {query.Player}::uuid)
                    AND ({query.Table}::uuid IS NULL OR table_id = {query.Table}::uuid)
                    AND ({query.Cue}::uuid IS NULL OR cue_id = {query.Cue}::uuid)
                    AND ({from}::timestamptz IS NULL OR at >= {from}::timestamptz)
                    AND ({to}::timestamptz IS NULL OR at < {to}::timestamptz)
                    AND ({query.Routine}::text IS NULL OR routine = {query.Routine}::text)
                )
                SELECT routine, week, count(*)::int AS of, (count(*) FILTER (WHERE is_done))::int AS done,
                  count(DISTINCT session_id)::int AS sessions, max(at) AS last_at,
                  (count(*) FILTER (WHERE nth <= {Ten}))::int AS last_of,
                  (count(*) FILTER (WHERE nth <= {Ten} AND is_done))::int AS last_done,
                  count(score)::int AS scored, max(score) AS best,
                  percentile_cont(0.5) WITHIN GROUP (ORDER BY score::float8) AS typical,
                  percentile_cont(0.5) WITHIN GROUP (ORDER BY score::float8) FILTER (WHERE nth_score <= {Ten}) AS last_typical
                FROM counted GROUP BY GROUPING SETS ((routine, week), (routine), (week), ()) HAVING count(*) > 0
                """
            )
            .ToListAsync(cancel);
    }

    public Week ToWeek() => new(Week!.Value, RateOf(Done, Of), Typical is { } t ? (int)Math.Round(t) : null, Best);

    public SuccessRate All => RateOf(Done, Of);

    public SuccessRate LastTen => RateOf(LastDone, LastOf);

    /// <summary>Scores of a run; null if there are none.</summary>
    public Scores? Scores => Scored == 0 ? null : new(Best!.Value, Typical!.Value, LastTypical!.Value, Scored);

    private static SuccessRate RateOf(int done, int of) => SuccessRate.From(new(done, of));
}
