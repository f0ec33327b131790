using DeepBaize.Data.Demo;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace DeepBaize.Data;

/// <summary>Makes the database ready before anything is served: there, of the present form and, if it is new, with first data.</summary>
public static class Preparation
{
    /// <summary>Any number, the same in every instance.</summary>
    private const long LockKey = 0x5EEDBA12E;

    /// <summary>Of several instances that start at once one does it, and the others wait until it is done.</summary>
    /// <param name="withDemo">Whether a new database gets the invented club; else one player, table and cue without names.</param>
    /// <exception cref="NpgsqlException">The database does not answer, or lets nobody in.</exception>
    public static async Task RunAsync(string connection, DateTimeOffset now, bool withDemo, CancellationToken cancel)
    {
        var preparing = Connections.ForPreparing(connection);
        await EnsureExistsAsync(preparing, cancel);
        await using var holder = new NpgsqlConnection(preparing);
        await holder.OpenAsync(cancel);
        // Held by the session: whatever becomes of this process, nobody waits for it in vain.
        await using (var hold = new NpgsqlCommand($"SELECT pg_advisory_lock({LockKey})", holder))
            await hold.ExecuteNonQueryAsync(cancel);
        var options = new DbContextOptionsBuilder<DeepBaizeContext>();
        DeepBaizeContext.Configure(options, preparing);
        await using var db = new DeepBaizeContext(options.Options);
        await db.Database.MigrateAsync(cancel);
        await (withDemo ? DemoPositions.SeedAsync(db, now, cancel) : NewClub.SeedAsync(db, now, cancel));
        // What was answered so long ago nobody asks for again.
        await db.Answers.Where(a => a.CreatedAt < now - KeptAnswersFor).ExecuteDeleteAsync(cancel);
    }

    /// <summary>So long the answer to a request is kept for whoever asks again.</summary>
    public static readonly TimeSpan KeptAnswersFor = TimeSpan.FromDays(30);

    private static async Task EnsureExistsAsync(string connection, CancellationToken cancel)
    {
        var wanted = new NpgsqlConnectionStringBuilder(connection);
        try
        {
            await using var there = new NpgsqlConnection(connection);
            await there.OpenAsync(cancel);
        }
        catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.InvalidCatalogName)
        {
            var name = wanted.Database!;
            wanted.Database = "postgres";
            await using var server = new NpgsqlConnection(wanted.ConnectionString);
            await server.OpenAsync(cancel);
            await using var create = new NpgsqlCommand($"CREATE DATABASE \"{name.Replace("\"", "\"\"")}\"", server);
            try
            {
                await create.ExecuteNonQueryAsync(cancel);
            }
            catch (PostgresException made)
                when (made.SqlState is PostgresErrorCodes.DuplicateDatabase or PostgresErrorCodes.UniqueViolation)
            {
                // Another instance was quicker.
            }
        }
    }
}
