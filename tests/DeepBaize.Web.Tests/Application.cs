using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
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

    public string Connection => _database.Connection;

    public Task InitializeAsync()
    {
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(host => host.UseSetting("ConnectionStrings:DeepBaize", Connection));
        Client = _factory.CreateClient();
        return Task.CompletedTask;
    }

    public async Task DisposeAsync()
    {
        await _factory.DisposeAsync();
        await _database.DropAsync();
    }

    public Task SetDatabaseAway(bool away) => _database.SetAway(away);

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

    public static JsonObject Shot(JsonNode? content = null) => new() { ["content"] = content ?? Content() };

    public static JsonObject Draft(string name = "A pot", string about = "") => new() { ["name"] = name, ["about"] = about, ["content"] = Content() };

    public static string[] Fields(this JsonNode problem) => [.. problem["errors"]!.AsArray().Select(e => e!["field"]!.GetValue<string>())];

    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web);
}
