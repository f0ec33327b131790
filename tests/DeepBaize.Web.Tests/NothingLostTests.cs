using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>Whoever saves is told whether it is saved, and what is saved is there: once, and not under somebody else's.</summary>
[Collection("application")]
public class NothingLostTests(Application app)
{
    private async Task<JsonNode> Position(string name = "Shared")
    {
        var (status, position) = await app.Post("/api/positions", Sample.Draft(name));
        Assert.Equal(201, status);
        return position;
    }

    private static JsonObject Shot(string name = "Stun") => new() { ["name"] = name, ["content"] = Sample.Content() };

    private async Task<(int Status, JsonNode Body, string? Location)> Keyed(string path, JsonNode body, string key)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", key);
        using var response = await app.Client.SendAsync(request);
        var text = await response.Content.ReadAsStringAsync();
        return ((int)response.StatusCode, JsonNode.Parse(text)!, response.Headers.Location?.ToString());
    }

    [Fact]
    public async Task Of_a_hundred_trials_at_once_each_is_counted()
    {
        const string route = "baulk.top.baulk";
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, 100)
                .Select(i =>
                    app.Post("/api/escape/corrections", new JsonObject { ["route"] = route, ["along"] = i % 2 == 0 ? 0.01 : 0.03 })
                )
        );
        Assert.All(answers, a => Assert.Equal(200, a.Status));
        var kept = (await app.Send(HttpMethod.Get, "/api/escape/corrections?take=200"))
            .Body.AsArray()
            .Single(c => c!["route"]!.GetValue<string>() == route)!;
        Assert.Equal(100, kept["trials"]!.GetValue<int>());
        Assert.Equal(0.02, kept["along"]!.GetValue<double>(), 12);
        Assert.Equal(204, await app.Delete($"/api/escape/corrections/{route}", "/api/escape/corrections?take=200"));
    }

    /// <summary>Each kind of row: what is changed or deleted from an older view of it is refused, with both sides in the answer.</summary>
    [Theory]
    [InlineData("position")]
    [InlineData("shot")]
    [InlineData("frame")]
    [InlineData("player")]
    [InlineData("correction")]
    public async Task What_was_changed_since_it_was_read_is_neither_saved_over_nor_deleted(string kind)
    {
        var position = $"/api/positions/{(await Position())["id"]}";
        var made = kind switch
        {
            "position" => (await app.Send(HttpMethod.Get, position)).Body,
            "shot" => (await app.Post($"{position}/shots", Shot())).Body,
            "frame" => (await app.Post("/api/frames", new JsonObject { ["title"] = "Frame", ["shots"] = new JsonArray() })).Body,
            "player" => (await app.Send(HttpMethod.Get, "/api/player")).Body,
            _ => (await app.Post("/api/escape/corrections", new JsonObject { ["route"] = "top.top", ["along"] = 0.01 })).Body,
        };
        var old = made["version"]!.GetValue<uint>();
        var path = kind switch
        {
            "position" => position,
            "shot" => $"{position}/shots/{made["id"]}",
            "frame" => $"/api/frames/{made["id"]}",
            "player" => "/api/player",
            _ => "/api/escape/corrections/top.top",
        };
        JsonObject Save(string name) =>
            kind switch
            {
                "position" => new()
                {
                    ["name"] = name,
                    ["content"] = Sample.Content(),
                    ["version"] = old,
                },
                "shot" => new() { ["name"] = name, ["version"] = old },
                "frame" => new()
                {
                    ["title"] = name,
                    ["shots"] = new JsonArray(),
                    ["version"] = old,
                },
                _ => new() { ["height"] = name == "First" ? 1.8 : 1.7, ["version"] = old },
            };
        if (kind == "correction")
            await app.Post("/api/escape/corrections", new JsonObject { ["route"] = "top.top", ["along"] = 0.02 });
        else
        {
            Assert.Equal(200, (await app.Send(HttpMethod.Put, path, Save("First"))).Status);
            var (status, problem) = await app.Send(HttpMethod.Put, path, Save("Second"));
            Assert.Equal((409, "conflict"), (status, problem["code"]!.GetValue<string>()));
            Assert.NotEqual(old, problem["current"]!["version"]!.GetValue<uint>());
            Assert.Equal(old, problem["sent"]!["version"]!.GetValue<uint>());
        }
        if (kind == "player")
        {
            await app.SavePlayer([]);
            return;
        }
        var (refused, told) = await app.Send(HttpMethod.Delete, $"{path}?version={old}");
        Assert.Equal(409, refused);
        var newest = told["current"]!["version"]!.GetValue<uint>();
        Assert.Equal(400, (await app.Send(HttpMethod.Delete, path)).Status);
        Assert.Equal(204, (await app.Send(HttpMethod.Delete, $"{path}?version={newest}")).Status);
        Assert.Equal(404, (await app.Send(HttpMethod.Delete, $"{path}?version={newest}")).Status);
    }

    [Fact]
    public async Task Asked_again_with_the_same_key_nothing_is_made_twice()
    {
        var position = (await Position("With a key"))["id"]!.GetValue<string>();
        var frame = new JsonObject { ["title"] = "Once", ["shots"] = new JsonArray() };
        var file = (await app.Post("/api/positions/export/json", Sample.Draft("From a file"))).Body;
        foreach (
            var (path, body) in new[]
            {
                ("/api/positions", Sample.Draft("Once")),
                ("/api/positions/import", file),
                ($"/api/positions/{position}/shots", Shot("Once")),
                ("/api/frames", frame),
            }
        )
        {
            var key = Guid.NewGuid().ToString();
            var first = await Keyed(path, body, key);
            var again = await Keyed(path, body, key);
            Assert.Equal((201, 201), (first.Status, again.Status));
            Assert.Equal((first.Body["id"]!.GetValue<string>(), first.Location), (again.Body["id"]!.GetValue<string>(), again.Location));
            Assert.True(JsonNode.DeepEquals(first.Body, again.Body), path);
            // The same contents with another key are another one; the same key for something else is a mistake.
            Assert.NotEqual(first.Body["id"]!.GetValue<string>(), (await Keyed(path, body, $"{key}-2")).Body["id"]!.GetValue<string>());
            var other = body.DeepClone();
            other[path.EndsWith("frames", StringComparison.Ordinal) ? "title" : "name"] = "Something else";
            Assert.Equal((422, "keyReused"), Told(await Keyed(path, other, key)));
        }
        Assert.Equal(2, (await app.Send(HttpMethod.Get, $"/api/positions/{position}/shots")).Body.AsArray().Count);

        static (int, string) Told((int Status, JsonNode Body, string?) answer) => (answer.Status, answer.Body["code"]!.GetValue<string>());
    }

    [Fact]
    public async Task Twenty_at_once_with_the_same_key_get_one_and_the_same()
    {
        var key = Guid.NewGuid().ToString();
        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => Keyed("/api/positions", Sample.Draft("Twenty at once"), key)));
        Assert.All(answers, a => Assert.Equal(201, a.Status));
        Assert.Single(answers.Select(a => a.Body["id"]!.GetValue<string>()).Distinct());
        Assert.Single((await app.Send(HttpMethod.Get, "/api/positions?search=Twenty at once")).Body.AsArray());
    }

    [Fact]
    public async Task A_correction_with_a_key_is_counted_once_and_what_was_refused_may_be_asked_again()
    {
        var correction = new JsonObject { ["route"] = "yellow-side.top", ["along"] = 0.02 };
        var key = Guid.NewGuid().ToString();
        Assert.Equal(1, (await Keyed("/api/escape/corrections", correction, key)).Body["trials"]!.GetValue<int>());
        Assert.Equal(1, (await Keyed("/api/escape/corrections", correction, key)).Body["trials"]!.GetValue<int>());
        Assert.Equal(204, await app.Delete("/api/escape/corrections/yellow-side.top", "/api/escape/corrections?take=200"));

        key = Guid.NewGuid().ToString();
        Assert.Equal(400, (await Keyed("/api/positions", Sample.Draft(" "), key)).Status);
        Assert.Equal(201, (await Keyed("/api/positions", Sample.Draft("Put right"), key)).Status);
        Assert.Equal(400, (await Keyed("/api/positions", Sample.Draft(), new string('k', 101))).Status);
    }

    [Fact]
    public async Task A_position_keeps_as_many_shots_as_it_may_however_many_come_at_once()
    {
        var path = $"/api/positions/{(await Position("Full"))["id"]}/shots";
        var answers = await Task.WhenAll(Enumerable.Range(0, Limits.ShotsOfPosition + 20).Select(_ => app.Post(path, Shot())));
        Assert.Equal(Limits.ShotsOfPosition, answers.Count(a => a.Status == 201));
        Assert.Equal(20, answers.Count(a => a.Status == 400));
        Assert.Equal(Limits.ShotsOfPosition, (await app.Send(HttpMethod.Get, path)).Body.AsArray().Count);
    }

    [Fact]
    public async Task Three_hundred_readers_at_once_are_all_answered()
    {
        var answers = await Task.WhenAll(Enumerable.Range(0, 300).Select(_ => app.Send(HttpMethod.Get, "/api/positions")));
        Assert.All(answers, a => Assert.Equal(200, a.Status));
    }

    [Fact]
    public async Task A_list_comes_in_parts_with_how_many_there_are_and_without_what_is_to_be_played()
    {
        for (var i = 0; i < 5; i++)
            await app.Post("/api/frames", new JsonObject { ["title"] = $"Ladder of parts {i}", ["shots"] = new JsonArray() });
        List<string> seen = [];
        string? next = "/api/frames?search=ladder parts&take=2";
        while (next is not null)
        {
            using var response = await app.Client.GetAsync(next);
            Assert.Equal("5", response.Headers.GetValues("Total-Count").Single());
            seen.AddRange((await response.Content.ReadFromJsonAsync<JsonArray>())!.Select(f => f!["title"]!.GetValue<string>()));
            next = response.Headers.TryGetValues("Link", out var link) ? link.Single().Split('<', '>')[1] : null;
        }
        Assert.Equal(["4", "3", "2", "1", "0"], seen.Select(t => t[^1..]));
        Assert.Equal(["skip", "take"], (await app.Send(HttpMethod.Get, "/api/frames?skip=-1&take=1000")).Body.Fields());
        var (_, positions) = await app.Send(HttpMethod.Get, "/api/positions?take=3");
        Assert.Equal(3, positions.AsArray().Count);
        Assert.All(positions.AsArray(), p => Assert.True(p!["content"] is null && p["balls"]!.AsArray().Count > 0));
    }
}
