using System.Linq.Expressions;
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

    /// <summary>In the order in which they were kept; there is a most of them, so the list needs no pages.</summary>
    /// <param name="result">Read off the columns it needs alone.</param>
    public static async Task<Results<Ok<List<TResult>>, ProblemHttpResult>> ListKeptAsync<T, TResult>(
        this DeepBaizeContext db,
        Guid positionId,
        Expression<Func<T, TResult>> result,
        CancellationToken cancel
    )
        where T : class, IKeptWithPosition
    {
        if (!await db.HasPositionAsync(positionId, cancel))
            return PositionEndpoints.Kind.Missing();
        var kept = db.KeptWith<T>(positionId).AsNoTracking().OrderBy(k => k.CreatedAt).ThenBy(k => k.Id);
        return TypedResults.Ok(await kept.Select(result).ToListAsync(cancel));
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
        // The position is held until the one is in: of two that come at once, the second counts the first.
        await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(cancel) : null;
        await db.Database.ExecuteSqlAsync($"SELECT 1 FROM positions WHERE id = {item.PositionId} FOR NO KEY UPDATE", cancel);
        if (!await db.HasPositionAsync(item.PositionId, cancel))
            return PositionEndpoints.Kind.Missing();
        if (await db.KeptWith<T>(item.PositionId).CountAsync(cancel) >= limit.Most)
            throw new InputException(
                "positionId",
                $"The position has as many {limit.Folder} as it can keep.",
                $"at most {limit.Most}: delete one first"
            );
        var created = await db.CreateAsync(item, k => $"/api/positions/{k.PositionId}/{limit.Folder}/{k.Id}", result, cancel);
        if (transaction is not null)
            await transaction.CommitAsync(CancellationToken.None);
        return created;
    }
}
