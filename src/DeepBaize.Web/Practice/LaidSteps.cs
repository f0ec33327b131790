using System.Text.Json;
using DeepBaize.Core.Practice;
using DeepBaize.Data;
using DeepBaize.Data.Practice;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Practice;

/// <summary>What was laid and asked at the time of an attempt.</summary>
/// <param name="Step">Layout, stroke and demands as they were then; not mirrored.</param>
/// <param name="Conditions">What differed from the default conditions, by name; SI units.</param>
public sealed record LaidResult(string Hash, Step Step, IReadOnlyDictionary<string, double> Conditions)
{
    public static LaidResult Of(LaidStep laid) => new(laid.Hash, laid.Step, laid.Conditions);
}

/// <summary>Stores what was laid, once for all attempts that were made alike.</summary>
internal static class LaidSteps
{
    /// <summary>Stores those that are not there yet; two who store the same at once do not meet.</summary>
    public static async Task KeepAsync(this DeepBaizeContext db, IEnumerable<LaidStep> laid, CancellationToken cancel)
    {
        foreach (var one in laid.DistinctBy(l => l.Hash))
        {
            var (step, conditions) = (
                JsonSerializer.Serialize(one.Step, RoutineRecord.Json),
                JsonSerializer.Serialize(one.Conditions, RoutineRecord.Json)
            );
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO laid_steps (owner_id, hash, step, conditions)
                VALUES ({one.OwnerId}, {one.Hash}, {step}::jsonb, {conditions}::jsonb)
                ON CONFLICT DO NOTHING
                """,
                cancel
            );
        }
    }

    /// <summary>Returns what is stored of the layouts that attempts were made at, by attempt; none where nothing was stored.</summary>
    public static async Task<Dictionary<Guid, (string Routine, int Step, LaidStep Laid)>> LaidOfAsync(
        this DeepBaizeContext db,
        IReadOnlyList<Guid> attempts,
        CancellationToken cancel
    ) =>
        await (
            from a in db.Attempts.AsNoTracking()
            join l in db.LaidSteps.AsNoTracking() on new { a.OwnerId, Hash = a.LaidHash! } equals new { l.OwnerId, l.Hash }
            where a.OwnerId == User.LocalId && attempts.Contains(a.Id)
            select new
            {
                a.Id,
                a.Routine,
                a.Step,
                Laid = l,
            }
        ).ToDictionaryAsync(a => a.Id, a => (a.Routine, a.Step, a.Laid), cancel);
}
