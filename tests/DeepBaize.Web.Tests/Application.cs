using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Npgsql;

namespace DeepBaize.Web.Tests;

/// <summary>The application over a fresh database of a real PostgreSQL. ./test sets DEEPBAIZE_TEST_DATABASE.</summary>
public sealed class Application : IAsyncLifetime
{
    private readonly string _server = Environment.GetEnvironmentVariable("DEEPBAIZE_TEST_DATABASE")
        ?? throw new InvalidOperationException("Set DEEPBAIZE_TEST_DATABASE to a PostgreSQL server's connection string, without a database; ./test does.");

    private readonly string _database = $"test_{Guid.NewGuid():N}";
    private WebApplicationFactory<Program> _factory = null!;

    public HttpClient Client { get; private set; } = null!;

    public string Connection => $"{_server};Database={_database}";

    public Task InitializeAsync()
    {
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host => host.UseSetting("ConnectionStrings:DeepBaize", Connection));
        Client = _factory.CreateClient();
        return Task.CompletedTask;
    }

    public async Task DisposeAsync()
    {
        await _factory.DisposeAsync();
        await ExecuteAsync($"DROP DATABASE IF EXISTS {_database} WITH (FORCE)");
    }

    /// <summary>Shuts the database to new connections and ends those there are, or opens it again.</summary>
    public async Task SetDatabaseAway(bool away)
    {
        await ExecuteAsync($"ALTER DATABASE {_database} ALLOW_CONNECTIONS {(away ? "false" : "true")}");
        if (away) await ExecuteAsync($"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{_database}'");
    }

    private async Task ExecuteAsync(string sql)
    {
        await using var connection = new NpgsqlConnection($"{_server};Database=postgres;Pooling=false");
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is string text) request.Content = new StringContent(text, System.Text.Encoding.UTF8, "application/json");
        else if (body is not null) request.Content = JsonContent.Create(body);
        using var response = await Client.SendAsync(request);
        var answer = await response.Content.ReadAsStringAsync();
        return ((int)response.StatusCode, answer is "" ? new JsonObject() : JsonNode.Parse(answer)!);
    }

    public Task<(int Status, JsonNode Body)> Post(string path, object body) => Send(HttpMethod.Post, path, body);
}

[CollectionDefinition("application")]
public sealed class ApplicationCollection : ICollectionFixture<Application>;

internal static class Sample
{
    public static JsonObject Content(double whiteX = 1) => JsonNode.Parse($$"""
        {
          "balls": [{ "id": "white", "x": {{whiteX}}, "y": 0.6 }, { "id": "red-1", "x": 2.9, "y": 1.1 }],
          "stroke": { "side": 0.2, "height": -0.4, "pace": 5.5, "pot": { "ball": "red-1", "pocket": "green-top" } },
          "conditions": { "rollingFriction": 0.011 }
        }
        """)!.AsObject();

    public static JsonObject Draft(string name = "A pot", string about = "") => new() { ["name"] = name, ["about"] = about, ["content"] = Content() };

    public static string[] Fields(this JsonNode problem) => [.. problem["errors"]!.AsArray().Select(e => e!["field"]!.GetValue<string>())];

    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);
}
