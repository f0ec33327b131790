using DeepBaize.Core;
using DeepBaize.Data;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Records;

/// <summary>What is the same for whatever is kept with a position: shots and plans.</summary>
internal static class KeptWithPosition
{
    /// <summary>What is kept with a position; nothing while that is in the bin.</summary>
    public static IQueryable<T> KeptWith<T>(this DeepBaizeContext db, Guid positionId)
        where T : class, IKeptWithPosition =>
        db.Set<T>()
            .Where(k => k.OwnerId == User.LocalId && k.PositionId == positionId && db.PositionsAtHand().Any(p => p.Id == positionId));

    /// <summary>In the order in which they were kept.</summary>
    public static async Task<Results<Ok<List<TResult>>, ProblemHttpResult>> ListKeptAsync<T, TResult>(
        this DeepBaizeContext db,
        Guid positionId,
        Func<T, TResult> result,
        CancellationToken cancel
    )
        where T : class, IKeptWithPosition
    {
        if (!await db.HasPositionAsync(positionId, cancel))
            return PositionEndpoints.Kind.Missing();
        var kept = await db.KeptWith<T>(positionId).AsNoTracking().OrderBy(k => k.CreatedAt).ThenBy(k => k.Id).ToListAsync(cancel);
        return TypedResults.Ok(kept.Select(result).ToList());
    }

    /// <summary>Keeps one more, if there is the position and room with it.</summary>
    /// <param name="limit">How they are spoken of, which is also the last part of the address, and how many there may be.</param>
    /// <exception cref="InputException">The position keeps as many as it can.</exception>
    public static async Task<Results<Created<TResult>, ProblemHttpResult>> KeepAsync<T, TResult>(
        this DeepBaizeContext db,
        T item,
        (string Folder, int Most) limit,
        Func<T, TResult> result,
        CancellationToken cancel
    )
        where T : class, IKeptWithPosition
    {
        if (!await db.HasPositionAsync(item.PositionId, cancel))
            return PositionEndpoints.Kind.Missing();
        if (await db.KeptWith<T>(item.PositionId).CountAsync(cancel) >= limit.Most)
            throw new InputException(
                "positionId",
                $"The position has as many {limit.Folder} as it can keep.",
                $"at most {limit.Most}: delete one first"
            );
        return await db.CreateAsync(item, k => $"/api/positions/{k.PositionId}/{limit.Folder}/{k.Id}", result, cancel);
    }

    public static async Task<Results<NoContent, ProblemHttpResult>> DeleteKeptAsync<T>(
        this DeepBaizeContext db,
        RecordKind kind,
        Guid positionId,
        Guid id,
        CancellationToken cancel
    )
        where T : class, IKeptWithPosition =>
        await db.KeptWith<T>(positionId).Where(k => k.Id == id).ExecuteDeleteAsync(cancel) == 0 ? kind.Missing() : TypedResults.NoContent();
}
