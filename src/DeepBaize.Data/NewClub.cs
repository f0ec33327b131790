using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Data;

/// <summary>What a club without demo data begins with: one player, table and cue, to be named and set.</summary>
public static class NewClub
{
    /// <summary>Creates the local user with a player, a table and a cue, if the database has no such user yet.</summary>
    public static async Task SeedAsync(DeepBaizeContext db, DateTimeOffset now, CancellationToken cancel = default)
    {
        if (await db.Users.AnyAsync(u => u.Id == User.LocalId, cancel))
            return;
        var user = new User
        {
            Id = User.LocalId,
            Name = "The club",
            CreatedAt = now,
        };
        db.Users.Add(user);
        var player = db.Players.Add(
            new()
            {
                OwnerId = User.LocalId,
                Name = "First player",
                Hand = "right",
                Height = 1.75,
                Skill = "club",
                CreatedAt = now,
                UpdatedAt = now,
            }
        );
        var table = db.Tables.Add(
            new()
            {
                OwnerId = User.LocalId,
                Name = "Table 1",
                Conditions = new Dictionary<string, double>(),
                CreatedAt = now,
                UpdatedAt = now,
            }
        );
        var cue = db.Cues.Add(
            new()
            {
                OwnerId = User.LocalId,
                Name = "Cue 1",
                Tip = "",
                Conditions = new Dictionary<string, double>(),
                CreatedAt = now,
                UpdatedAt = now,
            }
        );
        await db.SaveChangesAsync(cancel);
        // They refer to one another: only when all are there.
        (user.PlayerId, user.TableId, user.CueId) = (player.Entity.Id, table.Entity.Id, cue.Entity.Id);
        await db.SaveChangesAsync(cancel);
    }
}
