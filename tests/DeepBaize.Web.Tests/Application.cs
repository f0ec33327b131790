using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using DeepBaize.Core.Table;
using DeepBaize.Tests.Shared;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace DeepBaize.Web.Tests;

/// <summary>The application over a fresh database of a real PostgreSQL. ./test sets DEEPBAIZE_TEST_DATABASE.</summary>
public sealed class Application : IAsyncLifetime
{
    private readonly TestDatabase _database = new();
    private WebApplicationFactory<Program> _factory = null!;

    public HttpClient Client { get; private set; } = null!;

    public IServiceProvider Services => _factory.Services;

    public string Connection => _database.Connection;

    public ValueTask InitializeAsync()
    {
        _factory = With();
        Client = _factory.CreateClient();
        return ValueTask.CompletedTask;
    }

    public async ValueTask DisposeAsync()
    {
        await _factory.DisposeAsync();
        await _database.DropAsync();
    }

    /// <summary>The application over the same database with other settings.</summary>
    public WebApplicationFactory<Program> With(params (string Name, string Value)[] settings) =>
        new WebApplicationFactory<Program>().WithWebHostBuilder(host =>
        {
            host.UseSetting("ConnectionStrings:DeepBaize", Connection);
            host.UseSetting("Searches:WorkShare", "0.1");
            foreach (var (name, value) in settings)
                host.UseSetting(name, value);
        });

    public Task SetDatabaseAway(bool away) => _database.SetAway(away);

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body = null)
    {
        using var request = new HttpRequestMessage(method, path);
        if (body is string text)
            request.Content = new StringContent(text, System.Text.Encoding.UTF8, "application/json");
        else if (body is not null)
            request.Content = JsonContent.Create(body);
        using var response = await Client.SendAsync(request);
        var answer = await response.Content.ReadAsStringAsync();
        return ((int)response.StatusCode, answer is "" ? new JsonObject() : JsonNode.Parse(answer)!);
    }

    /// <summary>A stream's events, as they come.</summary>
    public async IAsyncEnumerable<JsonNode> Stream(string path, JsonObject ask)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(ask) };
        using var response = await Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        Assert.Equal("text/event-stream", response.Content.Headers.ContentType!.MediaType);
        using var reader = new StreamReader(await response.Content.ReadAsStreamAsync());
        while (await reader.ReadLineAsync() is { } line)
            if (line.StartsWith("data: ", StringComparison.Ordinal))
                yield return JsonNode.Parse(line[6..])!;
    }

    /// <summary>As somebody does who has just read it.</summary>
    /// <param name="read">Where it is read, or the list that it is in; null if that is where it is deleted.</param>
    public async Task<int> Delete(string path, string? read = null)
    {
        var (status, found) = await Send(HttpMethod.Get, read ?? path);
        if (found is JsonArray list)
            found = list.First(i => path.EndsWith($"/{i!["id"] ?? i["route"]}", StringComparison.Ordinal))!;
        return status == 200 ? (await Send(HttpMethod.Delete, $"{path}?version={found["version"]}")).Status : status;
    }

    /// <summary>Saves the player over what is there.</summary>
    public async Task<(int Status, JsonNode Body)> SavePlayer(JsonObject player)
    {
        player["version"] = (await Send(HttpMethod.Get, "/api/player")).Body["version"]!.DeepClone();
        return await Send(HttpMethod.Put, "/api/player", player);
    }

    public Task<(int Status, JsonNode Body)> Post(string path, object body) => Send(HttpMethod.Post, path, body);
}

[CollectionDefinition("application")]
public sealed class ApplicationCollection : ICollectionFixture<Application>;

internal static class Sample
{
    public static JsonObject Content(double whiteX = 1) =>
        JsonNode
            .Parse(
                $$"""
                {
                  "balls": [{ "id": "white", "x": {{whiteX}}, "y": 0.6 }, { "id": "red-1", "x": 2.9, "y": 1.1 }],
                  "stroke": { "side": 0.2, "height": -0.4, "pace": 5.5, "pot": { "ball": "red-1", "pocket": "green-top" } },
                  "conditions": { "rollingFriction": 0.011 }
                }
                """
            )!
            .AsObject();

    /// <summary>Balls and frame to plan a break from: colours on their spots, and these reds.</summary>
    public static JsonObject Table(double whiteX, double whiteY, params (double X, double Y)[] reds)
    {
        var balls = new JsonArray(
            Ball("white", whiteX, whiteY),
            Ball("yellow", 0.737, 0.597),
            Ball("green", 0.737, 1.181),
            Ball("brown", 0.737, 0.889),
            Ball("blue", 1.7845, 0.889),
            Ball("pink", 2.67675, 0.889),
            Ball("black", 3.245, 0.889)
        );
        for (var i = 0; i < reds.Length; i++)
            balls.Add(Ball($"red-{i + 1}", reds[i].X, reds[i].Y));
        return new() { ["balls"] = balls };
    }

    private static JsonObject Ball(string id, double x, double y) =>
        new()
        {
            ["id"] = id,
            ["x"] = x,
            ["y"] = y,
        };

    public static JsonObject Shot(JsonNode? content = null) => new() { ["content"] = content ?? Content() };

    public static JsonObject Draft(string name = "A pot", string about = "") =>
        new()
        {
            ["name"] = name,
            ["about"] = about,
            ["content"] = Content(),
        };

    /// <summary>A member that is a text; null if it is not there.</summary>
    public static string? Text(this JsonNode node, string name) => node[name]?.GetValue<string>();

    public static string[] Fields(this JsonNode problem) => [.. problem["errors"]!.AsArray().Select(e => e!["field"]!.GetValue<string>())];

    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);
}
