using System.Text.Json.Nodes;
using Json.Schema;

namespace DeepBaize.Web.Tests;

/// <summary>Attempts out to files and in again, the session's sheet and code, and the table from a photograph.</summary>
[Collection("application")]
public class PracticeFileTests(Application app)
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    /// <summary>A session with three attempts at a routine of its own.</summary>
    private async Task<(string Session, string Routine)> Played()
    {
        var routine = JsonNode.Parse(
            """
            { "name": "Blue to the middle", "steps": [ { "label": "as laid",
              "balls": [ { "id": "white", "x": 1.5, "y": 1.3 }, { "id": "blue", "x": 1.7845, "y": 0.889 } ],
              "stroke": { "pace": 3, "pot": { "ball": "blue", "pocket": "yellow-middle" } }, "demands": [ { "kind": "pot" } ] } ] }
            """
        );
        var made = (await app.Post("/api/routines", new JsonObject { ["routine"] = routine })).Body;
        var session = Guid.NewGuid().ToString();
        await app.Post("/api/practice/sessions", new JsonObject { ["id"] = session });
        JsonObject Attempt(int minute, string more) =>
            JsonNode
                .Parse(
                    $$"""
                    { "id": "{{Guid.NewGuid()}}", "at": "2026-11-21T09:{{minute:00}}:00Z", "routine": "{{made["id"]}}", {{more}} }
                    """
                )!
                .AsObject();
        var (status, _) = await app.Post(
            $"/api/practice/sessions/{session}/attempts",
            new JsonObject
            {
                ["attempts"] = new JsonArray(
                    Attempt(1, "\"said\": true, \"white\": { \"x\": 1.25, \"y\": 0.5 }"),
                    Attempt(2, "\"said\": false, \"reasons\": [\"thick\", \"hard\"], \"body\": [\"head\"], \"group\": \"=lower bridge\""),
                    Attempt(3, "\"said\": true, \"score\": 12, \"kinds\": { \"follow\": 3, \"stun\": 1 }")
                ),
            }
        );
        Assert.Equal(200, status);
        return (session, Text(made["id"]));
    }

    private async Task<string> File(string path) => await app.Client.GetStringAsync(path);

    /// <summary>A file of attempts at the first shipped routine, so many in each of its sessions.</summary>
    private static JsonObject FileOf(IReadOnlyList<string> sessions, int ofEach, string note = "")
    {
        var attempts = new JsonArray();
        foreach (var session in sessions)
            for (var i = 0; i < ofEach; i++)
                attempts.Add(
                    new JsonObject
                    {
                        ["id"] = Guid.NewGuid().ToString(),
                        ["session"] = session,
                        ["sessionStarted"] = "2026-11-01T10:00:00Z",
                        ["routine"] = "stop",
                        ["at"] = $"2026-11-01T10:{i / 60 % 60:00}:{i % 60:00}Z",
                        ["said"] = i % 3 != 0,
                        ["note"] = note,
                    }
                );
        return new()
        {
            ["format"] = "deep-baize-attempts",
            ["version"] = 1,
            ["attempts"] = attempts,
        };
    }

    private static List<string> NewIds(int count) => [.. Enumerable.Range(0, count).Select(_ => Guid.NewGuid().ToString())];

    [Fact]
    public async Task A_season_of_nine_megabytes_is_read_back_and_one_that_is_larger_than_the_limit_is_refused()
    {
        var file = FileOf(NewIds(10), 2000, note: new('n', 150));
        var text = file.ToJsonString();
        Assert.InRange(text.Length, 6_000_000, 12_000_000);
        var (status, told) = await app.Post("/api/practice/attempts/import", text);
        Assert.True(status == 200, $"{told}");
        Assert.Equal((20_000, 10), (told["new"]!.GetValue<int>(), told["sessions"]!.GetValue<int>()));
        // What is not a file of attempts keeps the small limit, and says so.
        var large = $$"""{ "name": "{{new string('n', 300_000)}}", "content": {} }""";
        (status, var refused) = await app.Post("/api/positions", large);
        Assert.Equal((413, "at most 256 kB"), (status, refused["errors"]![0]!["allowed"]!.GetValue<string>()));
    }

    [Fact]
    public async Task A_file_is_read_while_attempts_are_counted_in_the_same_sessions()
    {
        var sessions = NewIds(4);
        Assert.Equal(200, (await app.Post("/api/practice/attempts/import", FileOf(sessions, 3))).Status);
        Task<(int Status, JsonNode Body)> Count(string session) =>
            app.Post(
                $"/api/practice/sessions/{session}/attempts",
                new JsonObject
                {
                    ["attempts"] = new JsonArray(
                        new JsonObject
                        {
                            ["id"] = Guid.NewGuid().ToString(),
                            ["at"] = "2026-11-01T10:10:00Z",
                            ["routine"] = "stop",
                            ["said"] = true,
                        }
                    ),
                }
            );
        // Each file names the sessions in another order.
        var all = Enumerable
            .Range(0, 40)
            .Select(i =>
                i % 2 == 0
                    ? app.Post("/api/practice/attempts/import", FileOf([.. sessions.Skip(i % 4).Concat(sessions.Take(i % 4))], 5))
                    : Count(sessions[i % 4])
            );
        Assert.All(await Task.WhenAll(all), a => Assert.Equal((200, null), (a.Status, a.Body["title"]?.ToString())));
        // Numbers of changes are given once each: a device that looks on misses nothing.
        foreach (var session in sessions)
        {
            var attempts = (await app.Send(HttpMethod.Get, $"/api/practice/sessions/{session}")).Body["attempts"]!.AsArray();
            Assert.Equal(3 + 20 * 5 + 10 * (sessions.IndexOf(session) % 2 == 1 ? 1 : 0), attempts.Count);
            Assert.Equal(attempts.Count, attempts.Select(a => a!["changedIn"]!.GetValue<long>()).Distinct().Count());
        }
    }

    [Fact]
    public async Task A_file_neither_takes_attempts_from_another_session_nor_overfills_one()
    {
        var (mine, other) = (NewIds(1), NewIds(1));
        var file = FileOf(mine, 2);
        Assert.Equal(200, (await app.Post("/api/practice/attempts/import", file)).Status);
        var stolen = file.DeepClone();
        foreach (var attempt in stolen["attempts"]!.AsArray())
            (attempt!["session"], attempt["revision"]) = (other[0], 2);
        var (status, told) = await app.Post("/api/practice/attempts/import", stolen);
        Assert.Equal((400, "attempts.id"), (status, told.Fields()[0]));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, $"/api/practice/sessions/{other[0]}")).Status);
        (status, told) = await app.Post("/api/practice/attempts/import", FileOf(mine, 2999).ToJsonString());
        Assert.Equal((400, "at most 3000 in a session"), (status, told["errors"]![0]!["allowed"]!.GetValue<string>()));
    }

    [Theory]
    [InlineData("json")]
    [InlineData("csv")]
    public async Task Attempts_go_out_to_a_file_and_come_back_the_same_after_their_session_was_deleted(string kind)
    {
        var (session, routine) = await Played();
        var query = $"?routine={routine}";
        var file = await File($"/api/practice/attempts/export/{kind}{query}");
        var before = (await app.Send(HttpMethod.Get, $"/api/practice/sessions/{session}")).Body;
        var version = before["session"]!["version"];
        Assert.Equal(204, (await app.Send(HttpMethod.Delete, $"/api/practice/sessions/{session}?version={version}")).Status);
        Assert.Equal(0, (await app.Send(HttpMethod.Get, $"/api/practice/statistics{query}")).Body["attempts"]!.GetValue<int>());

        Task<(int Status, JsonNode Body)> Import(string text) =>
            kind == "json"
                ? app.Send(HttpMethod.Post, "/api/practice/attempts/import", JsonNode.Parse(text)!)
                : app.Post("/api/practice/attempts/import/csv", new JsonObject { ["csv"] = text });
        async Task IsTheSame(string id, Func<string, string> renamed)
        {
            var after = (await app.Send(HttpMethod.Get, $"/api/practice/sessions/{id}")).Body;
            foreach (var (was, now) in before["attempts"]!.AsArray().Zip(after["attempts"]!.AsArray()))
            {
                was!.AsObject().Remove("changedIn");
                now!.AsObject().Remove("changedIn");
                Assert.True(JsonNode.DeepEquals(JsonNode.Parse(renamed(was.ToJsonString())), now), $"{was} is now {now}");
            }
        }
        // It comes out of the bin with what it held, and nothing is there twice.
        var (status, told) = await Import(file);
        Assert.Equal((200, 0, 0), (status, told["new"]!.GetValue<int>(), told["sessions"]!.GetValue<int>()));
        await IsTheSame(session, text => text);
        Assert.Equal(file, await File($"/api/practice/attempts/export/{kind}{query}"));

        // As at another club, where none of it is known.
        List<string> ids = [session, .. before["attempts"]!.AsArray().Select(a => Text(a!["id"]))];
        var others = ids.ConvertAll(_ => Guid.NewGuid().ToString());
        string Renamed(string text) => ids.Zip(others).Aggregate(text, (all, pair) => all.Replace(pair.First, pair.Second));
        (status, told) = await Import(Renamed(file));
        Assert.Equal((200, 3, 1), (status, told["new"]!.GetValue<int>(), told["sessions"]!.GetValue<int>()));
        await IsTheSame(others[0], Renamed);
    }

    [Fact]
    public async Task The_file_of_attempts_is_as_its_schema_says()
    {
        var (_, routine) = await Played();
        var schema = JsonSchema.FromFile(Path.Combine(SourceRoot, "docs", "attempts.schema.json"));
        var file = JsonNode.Parse(await File($"/api/practice/attempts/export/json?routine={routine}"));
        var result = schema.Evaluate(file, new() { OutputFormat = OutputFormat.List });
        Assert.True(
            result.IsValid,
            string.Join(
                "; ",
                result.Details.Where(d => d.HasErrors).Select(d => $"{d.InstanceLocation} {string.Join(", ", d.Errors!.Values)}")
            )
        );
        // In CSV a text begun like a formula is made harmless.
        Assert.Contains("'=lower bridge", await File($"/api/practice/attempts/export/csv?routine={routine}"));
    }

    private static string SourceRoot
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!System.IO.File.Exists(Path.Combine(folder.FullName, "DeepBaize.slnx")))
                folder = folder.Parent!;
            return folder.FullName;
        }
    }

    [Theory]
    [InlineData("id,session,sessionStarted,at,routine\nx,y,z,w,stop\n")]
    [InlineData("nothing\n")]
    [InlineData("\"id")]
    public async Task A_file_of_CSV_that_cannot_be_read_is_refused_and_nothing_kept(string csv)
    {
        var (status, problem) = await app.Post("/api/practice/attempts/import/csv", new JsonObject { ["csv"] = csv });
        Assert.Equal(400, status);
        Assert.Contains(problem.Fields()[0], new[] { "csv", "attempts" });
    }

    [Fact]
    public async Task A_session_has_a_sheet_to_print_and_a_code_that_leads_to_it()
    {
        var (session, _) = await Played();
        var sheet = await app.Client.GetByteArrayAsync($"/api/practice/sessions/{session}/sheet.pdf");
        Assert.Equal("%PDF", System.Text.Encoding.ASCII.GetString(sheet, 0, 4));
        Assert.Contains("<svg", await File($"/api/practice/sessions/{session}/qr.svg"));
        Assert.Equal(404, (int)(await app.Client.GetAsync($"/api/practice/sessions/{Guid.NewGuid()}/sheet.pdf")).StatusCode);
    }

    private static JsonObject Mark(string name, double u, double v) =>
        new()
        {
            ["name"] = name,
            ["u"] = u,
            ["v"] = v,
        };

    /// <summary>Straight from above, 400 px a metre: the same by hand.</summary>
    [Fact]
    public async Task A_picture_from_above_gives_its_balls_where_they_lie_and_wrong_marks_are_refused_by_field()
    {
        JsonArray marks =
        [
            Mark("baulk-yellow", 86, 955.6),
            Mark("top-yellow", 1513.6, 955.6),
            Mark("top-green", 1513.6, 244.4),
            Mark("baulk-green", 86, 244.4),
        ];
        JsonObject Ask(params JsonObject[] balls) =>
            new()
            {
                ["width"] = 1600,
                ["height"] = 1200,
                ["marks"] = marks.DeepClone(),
                ["balls"] = new JsonArray(balls),
            };
        var (status, body) = await app.Post("/api/photo", Ask(Mark("blue", 799.8, 600), Mark("white", 486, 800)));
        Assert.Equal(200, status);
        JsonNode Of(string id) => body["balls"]!.AsArray().Single(b => Text(b!["id"]) == id)!;
        Assert.Equal(1.7845, Of("blue")["x"]!.GetValue<double>(), 0.002);
        Assert.Equal(0.889, Of("blue")["y"]!.GetValue<double>(), 0.002);
        Assert.Equal(1.0, Of("white")["x"]!.GetValue<double>(), 0.02);
        Assert.InRange(Of("white")["error"]!.GetValue<double>(), 0.003, 0.1);
        foreach (
            var (wrong, field) in new[]
            {
                (Ask(Mark("red-99", 1, 1)), "balls[0].name"),
                (Ask(Mark("blue", 1, 1), Mark("blue", 9, 9)), "balls[1].name"),
                (Ask(Mark("blue", 4000, 1)), "balls[0].u"),
            }
        )
        {
            var refused = await app.Post("/api/photo", wrong);
            Assert.Equal((400, field), (refused.Status, refused.Body.Fields()[0]));
        }
    }
}
