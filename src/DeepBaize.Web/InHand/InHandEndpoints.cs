using DeepBaize.Core;
using DeepBaize.Data;
using DeepBaize.Data.Cues;
using DeepBaize.Data.Players;
using DeepBaize.Data.Tables;
using DeepBaize.Web.Cues;
using DeepBaize.Web.Players;
using DeepBaize.Web.Records;
using DeepBaize.Web.Tables;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.InHand;

/// <summary>With whom and with what it was played; null where it is not known.</summary>
public sealed record PlayedWith(Guid? PlayerId, Guid? TableId, Guid? CueId)
{
    public static PlayedWith Of(IPlayedWith row) => new(row.PlayerId, row.TableId, row.CueId);

    public void Write(IPlayedWith row) => (row.PlayerId, row.TableId, row.CueId) = (PlayerId, TableId, CueId);
}

/// <summary>Which player, table and cue to take in hand; what is not said stays.</summary>
public sealed record InHandEntry
{
    public Guid? PlayerId { get; init; }
    public Guid? TableId { get; init; }
    public Guid? CueId { get; init; }
}

/// <summary>The player, the table and the cue that are in hand.</summary>
public sealed record InHandResult(StoredPlayer Player, StoredTable Table, StoredCue Cue);

/// <summary>One player, one table and one cue are in hand: everything is judged for them, and what is saved knows them.</summary>
public static class InHandEndpoints
{
    public static void MapInHand(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/in-hand").WithTags("In hand").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet("", (DeepBaizeContext db, CancellationToken cancel) => Read(db, cancel))
            .WithName("inHand")
            .WithSummary("The player, the table and the cue in hand");
        group
            .MapPut("", async (InHandEntry entry, DeepBaizeContext db, CancellationToken cancel) =>
            {
                await db.CheckAsync(new(entry.PlayerId, entry.TableId, entry.CueId), new Checks(), isBinAllowed: false, cancel);
                // Each for itself: who takes a cue does not put the player back that another window has taken.
                await db
                    .Users.Where(u => u.Id == User.LocalId)
                    .ExecuteUpdateAsync(
                        set =>
                            set.SetProperty(u => u.PlayerId, u => entry.PlayerId ?? u.PlayerId)
                                .SetProperty(u => u.TableId, u => entry.TableId ?? u.TableId)
                                .SetProperty(u => u.CueId, u => entry.CueId ?? u.CueId),
                        cancel
                    );
                return await Read(db, cancel);
            })
            .Saves("inHand")
            .WithName("takeInHand")
            .WithSummary("Takes another player, table or cue in hand");
    }

    private static async Task<InHandResult> Read(DeepBaizeContext db, CancellationToken cancel)
    {
        var ids = await db.InHandAsync(cancel);
        return new(
            StoredPlayer.Of(await db.Players.AsNoTracking().SingleAsync(p => p.Id == ids.PlayerId, cancel)),
            StoredTable.Of(await db.Tables.AsNoTracking().SingleAsync(t => t.Id == ids.TableId, cancel)),
            StoredCue.Of(await db.Cues.AsNoTracking().SingleAsync(c => c.Id == ids.CueId, cancel))
        );
    }

    /// <summary>What is in hand now.</summary>
    internal static async Task<PlayedWith> InHandAsync(this DeepBaizeContext db, CancellationToken cancel) =>
        await db.Users.Where(u => u.Id == User.LocalId).Select(u => new PlayedWith(u.PlayerId, u.TableId, u.CueId)).SingleAsync(cancel);

    /// <summary>Refuses players, tables and cues that are not there.</summary>
    /// <param name="checks">Named by where they stand in the request.</param>
    /// <param name="isBinAllowed">A device that was away may still play with what has been put in the bin since.</param>
    internal static async Task CheckAsync(
        this DeepBaizeContext db,
        PlayedWith with,
        Checks checks,
        bool isBinAllowed,
        CancellationToken cancel
    )
    {
        async Task Known<T>(string field, Guid? id)
            where T : class, IClubThing =>
            checks.That(
                id is null || await (isBinAllowed ? db.Own<T>() : db.AtHand<T>()).AnyAsync(t => t.Id == id, cancel),
                field,
                "It is not there.",
                "one of the list"
            );
        await Known<ClubPlayer>("playerId", with.PlayerId);
        await Known<ClubTable>("tableId", with.TableId);
        await Known<ClubCue>("cueId", with.CueId);
        checks.ThrowIfAny();
    }
}
