using Npgsql;

namespace DeepBaize.Tests.Shared;

/// <summary>
/// A database of its own on the PostgreSQL that ./test runs. The application creates it; this takes it away, for a while or for good.
/// </summary>
public sealed class TestDatabase
{
    private readonly string _server = Environment.GetEnvironmentVariable("DEEPBAIZE_TEST_DATABASE")
        ?? throw new InvalidOperationException(
            "Set DEEPBAIZE_TEST_DATABASE to a PostgreSQL server's connection string, without a database; ./test does."
        );

    private readonly string _name = $"test_{Guid.NewGuid():N}";

    public string Connection => $"{_server};Database={_name}";

    /// <summary>Shuts it to new connections and ends those there are, or opens it again.</summary>
    public async Task SetAway(bool away)
    {
        await ExecuteAsync($"ALTER DATABASE {_name} ALLOW_CONNECTIONS {(away ? "false" : "true")}");
        if (away)
            await ExecuteAsync($"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{_name}'");
    }

    public Task DropAsync() => ExecuteAsync($"DROP DATABASE IF EXISTS {_name} WITH (FORCE)");

    private async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection($"{_server};Database=postgres;Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
