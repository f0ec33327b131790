using DeepBaize.Data;
using DeepBaize.Tests.Shared;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Tests;

/// <summary>A club that begins without the demo.</summary>
public class NewClubTests
{
    [Fact]
    public async Task It_has_one_player_table_and_cue_in_hand_and_nothing_else_and_keeps_its_own_data()
    {
        var database = new TestDatabase();
        try
        {
            Task Prepare(bool withDemo) =>
                Preparation.RunAsync(database.Connection, DateTimeOffset.UtcNow, withDemo, TestContext.Current.CancellationToken);
            await Prepare(withDemo: false);
            var options = new DbContextOptionsBuilder<DeepBaizeContext>();
            DeepBaizeContext.Configure(options, database.Connection);
            await using var db = new DeepBaizeContext(options.Options);
            var user = await db.Users.SingleAsync();
            Assert.Equal((await db.Players.SingleAsync()).Id, user.PlayerId);
            Assert.Equal((await db.Tables.SingleAsync()).Id, user.TableId);
            Assert.Equal((await db.Cues.SingleAsync()).Id, user.CueId);
            Assert.Equal((0, 0, 0), (await db.Positions.CountAsync(), await db.Frames.CountAsync(), await db.Attempts.CountAsync()));
            // Started with the demo later, it stays what it is.
            await Prepare(withDemo: true);
            Assert.Equal((1, 0), (await db.Players.CountAsync(), await db.Positions.CountAsync()));
        }
        finally
        {
            await database.DropAsync();
        }
    }
}
