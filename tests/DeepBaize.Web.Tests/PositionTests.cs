using System.Text.Json.Nodes;
using System.Xml.Linq;
using DeepBaize.Data.Demo;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class PositionTests(Application app)
{
    private async Task<JsonNode> Create(string name)
    {
        var (status, body) = await app.Post("/api/positions", Sample.Draft(name, "about it"));
        Assert.Equal(201, status);
        return body;
    }

    private Task<(int Status, JsonNode Body)> Find(string search) =>
        app.Send(HttpMethod.Get, $"/api/positions?search={Uri.EscapeDataString(search)}");

    [Fact]
    public async Task A_new_database_has_the_demo_positions()
    {
        var (status, list) = await app.Send(HttpMethod.Get, "/api/positions");
        Assert.Equal(200, status);
        var names = list.AsArray().Select(p => p!["name"]!.GetValue<string>()).ToList();
        Assert.True(DemoPositions.All.Count >= 8);
        Assert.All(DemoPositions.All, d => Assert.Contains(d.Name, names));
        Assert.All(list.AsArray(), p =>
            Assert.True(p!["name"]!.GetValue<string>() != "" && p["createdAt"]!.GetValue<DateTimeOffset>() > DateTimeOffset.UnixEpoch)
        );
    }

    [Fact]
    public async Task What_is_saved_is_read_back_to_the_last_digit_in_any_language()
    {
        var draft = Sample.Draft("Lange Rote — 長い赤 — أحمر 🎯", "Zwei\nZeilen");
        draft["content"]!["balls"]![0]!["x"] = 1.2345678901234567;
        var (status, created) = await app.Post("/api/positions", draft);
        Assert.Equal(201, status);
        var (_, read) = await app.Send(HttpMethod.Get, $"/api/positions/{created["id"]}");
        Assert.Equal("Lange Rote — 長い赤 — أحمر 🎯", read["name"]!.GetValue<string>());
        Assert.Equal(1.2345678901234567, read["content"]!["balls"]![0]!["x"]!.GetValue<double>());
        Assert.Equal("red-1", read["content"]!["stroke"]!["pot"]!["ball"]!.GetValue<string>());
        Assert.Equal(0.011, read["content"]!["conditions"]!["rollingFriction"]!.GetValue<double>());
    }

    [Fact]
    public async Task Search_looks_for_all_words_in_name_and_note_and_takes_signs_literally()
    {
        await Create("Zebra 100% plan_b");
        Assert.Single((await Find("zebra ABOUT")).Body.AsArray());
        Assert.Single((await Find("100% plan_b")).Body.AsArray());
        Assert.Empty((await Find("zebra 1__% missing")).Body.AsArray());
        Assert.Empty((await Find("z%a")).Body.AsArray());
        Assert.Equal(400, (await Find(new string('x', 201))).Status);
    }

    [Fact]
    public async Task Two_pages_that_save_the_same_position_lose_nothing()
    {
        var created = await Create("Shared");
        JsonObject Save(string name, JsonNode version) =>
            new()
            {
                ["name"] = name,
                ["content"] = Sample.Content(1.5),
                ["version"] = version.DeepClone(),
            };
        var path = $"/api/positions/{created["id"]}";

        var (first, saved) = await app.Send(HttpMethod.Put, path, Save("Mine", created["version"]!));
        Assert.Equal(200, first);
        var (second, conflict) = await app.Send(HttpMethod.Put, path, Save("Theirs", created["version"]!));
        Assert.Equal(409, second);
        Assert.Equal("Mine", conflict["current"]!["name"]!.GetValue<string>());
        Assert.Equal("Mine", (await app.Send(HttpMethod.Get, path)).Body["name"]!.GetValue<string>());

        // With the newer one seen, it may be saved over.
        Assert.Equal(200, (await app.Send(HttpMethod.Put, path, Save("Theirs", conflict["current"]!["version"]!))).Status);
        Assert.NotEqual(saved["version"]!.GetValue<uint>(), (await app.Send(HttpMethod.Get, path)).Body["version"]!.GetValue<uint>());
    }

    [Fact]
    public async Task Rename_keeps_the_content_and_a_deleted_position_comes_back()
    {
        var created = await Create("Before");
        var path = $"/api/positions/{created["id"]}";
        var (status, renamed) = await app.Send(
            HttpMethod.Patch,
            path,
            new JsonObject { ["name"] = "After", ["version"] = created["version"]!.DeepClone() }
        );
        Assert.Equal(200, status);
        Assert.True(JsonNode.DeepEquals(created["content"], renamed["content"]));

        Assert.Equal(204, await app.Delete(path));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, path)).Status);
        Assert.Equal(404, (await app.Send(HttpMethod.Delete, $"{path}?version=1")).Status);
        Assert.DoesNotContain((await Find("After")).Body.AsArray(), p => p!["id"]!.ToString() == created["id"]!.ToString());
        Assert.Contains((await app.Send(HttpMethod.Get, "/api/positions?deleted=true")).Body.AsArray(), p =>
            p!["id"]!.ToString() == created["id"]!.ToString()
        );
        Assert.Equal(200, (await app.Send(HttpMethod.Post, $"{path}/restore")).Status);
        Assert.Equal("After", (await app.Send(HttpMethod.Get, path)).Body["name"]!.GetValue<string>());
    }

    [Fact]
    public async Task Bad_positions_are_refused_and_nothing_is_saved()
    {
        async Task Refused(JsonObject draft, string field)
        {
            var before = (await app.Send(HttpMethod.Get, "/api/positions")).Body.AsArray().Count;
            var (status, problem) = await app.Post("/api/positions", draft);
            Assert.Equal(400, status);
            Assert.Contains(field, problem.Fields());
            Assert.Equal(before, (await app.Send(HttpMethod.Get, "/api/positions")).Body.AsArray().Count);
        }
        await Refused(Sample.Draft("   "), "name");
        await Refused(Sample.Draft(new string('n', 121)), "name");
        await Refused(Sample.Draft("null\0byte"), "name");
        await Refused(Sample.Draft("fine", new string('n', 2001)), "about");
        var overlapping = Sample.Draft();
        overlapping["content"]!["balls"]![0]!["x"] = 2.9;
        overlapping["content"]!["balls"]![0]!["y"] = 1.1;
        await Refused(overlapping, "balls[1]");
        var miscue = Sample.Draft();
        miscue["content"]!["stroke"]!["side"] = 1.55;
        await Refused(miscue, "stroke.side");
        var pace = Sample.Draft();
        pace["content"]!["stroke"]!["pace"] = 11;
        await Refused(pace, "stroke.pace");
        await Refused(new JsonObject { ["name"] = "no content" }, "content");
    }

    [Fact]
    public async Task Unknown_positions_are_not_found()
    {
        Assert.Equal(404, (await app.Send(HttpMethod.Get, $"/api/positions/{Guid.NewGuid()}")).Status);
        Assert.Equal(404, (await app.Send(HttpMethod.Post, $"/api/positions/{Guid.NewGuid()}/restore")).Status);
        Assert.Equal(404, (await app.Send(HttpMethod.Get, "/api/positions/no-id")).Status);
    }

    [Fact]
    public async Task An_exported_file_is_imported_as_the_same_position()
    {
        var draft = Sample.Draft("To a file", "and back");
        var (_, file) = await app.Post("/api/positions/export/json", draft);
        Assert.Equal("deep-baize-position", file["format"]!.GetValue<string>());
        Assert.Equal(2, file["version"]!.GetValue<int>());
        var (status, imported) = await app.Post("/api/positions/import", file.ToJsonString());
        Assert.Equal(201, status);
        Assert.Equal("To a file", imported["name"]!.GetValue<string>());
        var (_, again) = await app.Post(
            "/api/positions/export/json",
            new JsonObject
            {
                ["name"] = "To a file",
                ["about"] = "and back",
                ["content"] = imported["content"]!.DeepClone(),
            }
        );
        Assert.True(JsonNode.DeepEquals(file, again));
    }

    [Theory]
    [InlineData(1, 4.5)]
    [InlineData(1, null)]
    [InlineData(2, 4.5)]
    public async Task A_file_of_the_first_version_keeps_its_speed(int version, double? pace)
    {
        var file = new JsonObject
        {
            ["format"] = "deep-baize-position",
            ["version"] = version,
            ["name"] = "Old",
            ["balls"] = new JsonArray(
                new JsonObject
                {
                    ["id"] = "white",
                    ["x"] = 1,
                    ["y"] = 1,
                }
            ),
        };
        if (pace is { } p)
            file["stroke"] = new JsonObject { ["pace"] = p };
        var (status, imported) = await app.Post("/api/positions/import", file.ToJsonString());
        Assert.Equal(201, status);
        var speed = 0.24 * Math.Pow(imported["content"]!["stroke"]!["pace"]!.GetValue<double>(), 1.47);
        Assert.Equal(version == 1 ? 0.40 * Math.Pow(1.375, (pace ?? 4) - 1) : 0.24 * Math.Pow(pace!.Value, 1.47), speed, 1e-6);
    }

    [Theory]
    [InlineData("", "body")]
    [InlineData("{", "body")]
    [InlineData("null", "body")]
    [InlineData("""{"format":"other","version":1,"name":"a","balls":[{"id":"white","x":1,"y":1}]}""", "format")]
    [InlineData("""{"format":"deep-baize-position","version":3,"name":"a","balls":[{"id":"white","x":1,"y":1}]}""", "version")]
    [InlineData("""{"format":"deep-baize-position","version":1,"name":"a"}""", "balls")]
    [InlineData("""{"format":"deep-baize-position","version":1,"name":"a","balls":[{"id":"white","x":1}]}""", "balls[0].y")]
    [InlineData("""{"format":"deep-baize-position","version":1,"name":"a","balls":[{"id":"white","x":1,"y":"1"}]}""", "balls[0].y")]
    [InlineData("""{"format":"deep-baize-position","version":1,"name":"a","balls":[{"id":"white","x":1,"y":9}]}""", "balls[0].y")]
    [InlineData("""{"format":"deep-baize-position","version":1,"name":"a","balls":[{"id":"white","x":1,"y":1}],"colour":1}""", "colour")]
    [InlineData(
        """{"format":"deep-baize-position","version":1,"name":"a","balls":[{"id":"white","x":1,"y":1}],"conditions":{"cornerGap":1}}""",
        "conditions.cornerGap"
    )]
    public async Task A_broken_file_is_refused_by_field(string file, string field)
    {
        var (status, problem) = await app.Post("/api/positions/import", file);
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
    }

    [Fact]
    public async Task A_drawing_is_svg_with_every_ball_in_millimetres()
    {
        using var response = await app.Client.PostAsync(
            "/api/positions/export/svg",
            new StringContent(Sample.Draft("<Black & \"white\">").ToJsonString(), System.Text.Encoding.UTF8, "application/json")
        );
        Assert.Equal("image/svg+xml", response.Content.Headers.ContentType!.MediaType);
        var svg = XDocument.Parse(await response.Content.ReadAsStringAsync()).Root!;
        Assert.Equal("svg", svg.Name.LocalName);
        Assert.Contains(svg.Descendants(), e => e.Name.LocalName == "title" && e.Value == "<Black & \"white\">");
        // The border of 120 mm is left and above; y runs down.
        Assert.Contains(svg.Descendants(), e =>
            e.Attribute("cx")?.Value == "3020" && e.Attribute("cy")?.Value == "798" && e.Attribute("r")?.Value == "26.25"
        );
    }

    [Fact]
    public async Task The_database_may_go_away_and_come_back()
    {
        var created = await Create("Kept");
        await app.SetDatabaseAway(true);
        try
        {
            var (status, problem) = await app.Post("/api/positions", Sample.Draft("lost?"));
            Assert.Equal(503, status);
            Assert.Contains("database", problem["title"]!.GetValue<string>());
            Assert.Equal(503, (int)(await app.Client.GetAsync("/health")).StatusCode);
            // What needs no database goes on.
            Assert.Equal(200, (await app.Post("/api/shot", Sample.Shot())).Status);
        }
        finally
        {
            await app.SetDatabaseAway(false);
        }
        Assert.Equal(201, (await app.Post("/api/positions", Sample.Draft("not lost"))).Status);
        Assert.Equal(200, (await app.Send(HttpMethod.Get, $"/api/positions/{created["id"]}")).Status);
        Assert.Equal(200, (int)(await app.Client.GetAsync("/health")).StatusCode);
    }
}
