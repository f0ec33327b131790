using System.Text;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class SavedShotTests(Application app)
{
    private async Task<string> Position() => (await app.Post("/api/positions", Sample.Draft())).Body["id"]!.GetValue<string>();

    private static JsonObject Shot(string name = "Stun across") =>
        new()
        {
            ["name"] = name,
            ["note"] = "Low bridge, through it",
            ["content"] = Sample.Content(),
        };

    [Fact]
    public async Task Shots_are_kept_with_their_position_in_order_and_can_be_changed_and_deleted()
    {
        var path = $"/api/positions/{await Position()}/shots";
        var (status, first) = await app.Post(path, Shot());
        Assert.Equal(201, status);
        await app.Post(path, Shot("Screw back"));
        var id = first["id"]!.GetValue<string>();
        var (_, edited) = await app.Send(
            HttpMethod.Put,
            $"{path}/{id}",
            new JsonObject
            {
                ["name"] = "Stun",
                ["note"] = "",
                ["version"] = first["version"]!.DeepClone(),
            }
        );
        Assert.Equal("Stun", edited["name"]!.GetValue<string>());
        var (_, list) = await app.Send(HttpMethod.Get, path);
        Assert.Equal(["Stun", "Screw back"], list.AsArray().Select(s => s!["name"]!.GetValue<string>()));
        // The list says what there is; the balls come with the one that is opened.
        Assert.Null(list[0]!["content"]);
        var (_, whole) = await app.Send(HttpMethod.Get, $"{path}/{id}");
        Assert.True(JsonNode.DeepEquals(Sample.Content()["balls"], whole["content"]!["balls"]));
        Assert.Equal(204, await app.Delete($"{path}/{id}"));
        Assert.Equal(404, await app.Delete($"{path}/{id}"));
        Assert.Single((await app.Send(HttpMethod.Get, path)).Body.AsArray());
    }

    [Fact]
    public async Task A_shot_without_a_name_of_an_impossible_position_or_of_no_position_is_refused_and_nothing_is_kept()
    {
        var path = $"/api/positions/{await Position()}/shots";
        Assert.Equal(["name"], (await app.Post(path, Shot(" "))).Body.Fields());
        var overlapping = Shot();
        overlapping["content"]!["balls"]![1]!["x"] = 1.01;
        overlapping["content"]!["balls"]![1]!["y"] = 0.6;
        Assert.Equal(400, (await app.Post(path, overlapping)).Status);
        Assert.Empty((await app.Send(HttpMethod.Get, path)).Body.AsArray());
        Assert.Equal(404, (await app.Post($"/api/positions/{Guid.NewGuid()}/shots", Shot())).Status);
    }

    [Fact]
    public async Task Kept_shots_are_found_over_all_positions_by_words_of_their_own_or_of_the_position_but_not_from_the_bin()
    {
        var position = await Position();
        await app.Post($"/api/positions/{position}/shots", Shot("A cannon nobody else kept"));
        async Task<string[]> Found(string search)
        {
            var (_, list) = await app.Send(HttpMethod.Get, $"/api/library/shots?search={Uri.EscapeDataString(search)}");
            return [.. list.AsArray().Select(s => s!["positionId"]!.GetValue<string>())];
        }
        Assert.Equal([position], await Found("cannon nobody"));
        Assert.Equal([position], await Found("bridge nobody"));
        Assert.Empty(await Found("cannon 100%_"));
        Assert.Equal(200, (await app.Send(HttpMethod.Get, "/api/library/plans?search=x")).Status);
        Assert.Equal(204, await app.Delete($"/api/positions/{position}"));
        Assert.Empty(await Found("cannon nobody"));
    }

    [Fact]
    public async Task The_player_is_kept_and_a_wrong_one_refused()
    {
        var player = new JsonObject
        {
            ["hand"] = "left",
            ["height"] = 1.62,
            ["skill"] = "club",
            ["own"] = null,
            ["sideHabit"] = "helping",
            ["naturalElevation"] = 4.5,
            ["paceScale"] = JsonNode.Parse("""[{"own":5,"standard":5.5},{"own":7,"standard":8}]"""),
        };
        async Task<JsonNode> Kept()
        {
            var kept = (await app.Send(HttpMethod.Get, "/api/player")).Body.AsObject();
            foreach (var name in new[] { "version", "id", "name" })
                kept.Remove(name);
            return kept;
        }
        Assert.Equal(200, (await app.SavePlayer(player)).Status);
        player.Remove("version");
        Assert.True(JsonNode.DeepEquals(player, await Kept()));
        var (status, problem) = await app.SavePlayer(new() { ["hand"] = "left", ["height"] = 3 });
        Assert.Equal((400, "player.height"), (status, problem.Fields()[0]));
        Assert.True(JsonNode.DeepEquals(player, await Kept()));
        await app.SavePlayer([]);
    }

    private static JsonObject Own(double tip = 2) =>
        new()
        {
            ["direction"] = 0.04,
            ["sighting"] = 0.5,
            ["allowance"] = 10,
            ["pace"] = 12,
            ["height"] = tip,
            ["side"] = tip / 2,
            ["cushion"] = 1.2,
            ["rest"] = 1.4,
            ["evenness"] = 4,
        };

    /// <summary>As it was sent before height and side were two.</summary>
    private static JsonObject OfOldKind()
    {
        var own = Own();
        foreach (var name in (string[])["height", "side", "cushion", "rest"])
            own.Remove(name);
        own["tip"] = 0.7;
        return own;
    }

    /// <summary>Without what is not said.</summary>
    private static JsonNode Known(JsonNode own)
    {
        var known = own.DeepClone().AsObject();
        if (known["tip"] is null)
            known.Remove("tip");
        return known;
    }

    [Fact]
    public async Task A_skill_set_by_hand_is_kept_judged_by_and_refused_where_a_part_cannot_be()
    {
        var player = new JsonObject { ["skill"] = "own", ["own"] = Own() };
        Assert.Equal(200, (await app.SavePlayer(player)).Status);
        var kept = (await app.Send(HttpMethod.Get, "/api/player")).Body;
        Assert.Equal("own", kept["skill"]!.GetValue<string>());
        Assert.True(JsonNode.DeepEquals(Own(), Known(kept["own"]!)));
        // With another skill the parts stay for later.
        kept["skill"] = "club";
        await app.SavePlayer(kept.AsObject());
        Assert.True(JsonNode.DeepEquals(Own(), Known((await app.Send(HttpMethod.Get, "/api/player")).Body["own"]!)));
        // The tip in one figure is read for both, and cushions and rest as they were then.
        await app.SavePlayer(new() { ["skill"] = "own", ["own"] = OfOldKind() });
        var old = (await app.Send(HttpMethod.Get, "/api/player")).Body["own"]!;
        double Part(string name) => old[name]!.GetValue<double>();
        Assert.Equal((0.7, 0.7, 0, 1.5), (Part("height"), Part("side"), Part("cushion"), Part("rest")));
        Assert.Null(old["tip"]);

        async Task Refused(JsonObject wrong, string field)
        {
            var (status, problem) = await app.SavePlayer(wrong);
            Assert.Equal((400, field), (status, problem.Fields().Single()));
        }
        await Refused(new() { ["skill"] = "own" }, "player.own");
        await Refused(new() { ["skill"] = "champion" }, "player.skill");
        await Refused(new() { ["skill"] = "own", ["own"] = Own(tip: 9) }, "player.own.height");
        var (without, past) = (Own(), OfOldKind());
        without.Remove("side");
        past["tip"] = 9;
        await Refused(new() { ["skill"] = "own", ["own"] = without }, "player.own.side");
        await Refused(new() { ["skill"] = "own", ["own"] = past }, "player.own.tip");
        await app.SavePlayer([]);

        // A tip that wanders misses more, and at the edge of the ball it slips off.
        async Task<(double Pot, double Miscue)> Spread(double tip, double height)
        {
            var content = Sample.Content();
            content["stroke"]!["height"] = height;
            content["stroke"]!["side"] = 0;
            var ask = new JsonObject
            {
                ["content"] = content,
                ["player"] = new JsonObject { ["skill"] = "own", ["own"] = Own(tip) },
            };
            var (status, spread) = await app.Post("/api/spread", ask);
            Assert.Equal(200, status);
            return (spread["pot"]!["value"]!.GetValue<double>(), spread["miscue"]!["value"]!.GetValue<double>());
        }
        Assert.Equal(0, (await Spread(0, -1.5)).Miscue);
        var (safe, edge) = (await Spread(2, -0.4), await Spread(2, -1.5));
        Assert.InRange(edge.Miscue, 0.2, 0.6);
        Assert.True(safe.Miscue < 0.02 && edge.Pot < safe.Pot);
    }

    [Fact]
    public async Task What_a_skill_means_is_pictured_and_plotted()
    {
        var (status, shots) = await app.Post("/api/player/picture", new JsonObject { ["skill"] = "club" });
        Assert.Equal((200, 4), (status, shots.AsArray().Count));
        foreach (var shot in shots.AsArray())
        {
            Assert.Equal(10, shot!["strokes"]!.AsArray().Count);
            // Straight in, or with the cushion of the double between.
            var places = shot["kind"]!.GetValue<string>() == "double" ? 3 : 2;
            Assert.All(
                shot["strokes"]!.AsArray(),
                s => Assert.True(!s!["isPotted"]!.GetValue<bool>() || s["ball"]!.AsArray().Count == places)
            );
        }
        (status, var curves) = await app.Post("/api/player/curves", new JsonObject { ["skill"] = "club" });
        Assert.Equal(200, status);
        List<double> Shares(string kind) =>
            [
                .. curves.AsArray().Single(c => c!["kind"]!.GetValue<string>() == kind)!["points"]!
                    .AsArray()
                    .Select(p => p!["share"]!["value"]!.GetValue<double>()),
            ];
        // Common practice, no source: farther, thinner, harder and out of reach are harder; near the edge of the ball the tip slips.
        foreach (var kind in (string[])["distance", "openRed", "cut", "power", "position", "reach"])
            Assert.True(Shares(kind)[0] > Shares(kind)[^1] + 0.02, kind);
        Assert.True(Shares("miscue")[^1] > Shares("miscue")[0] + 0.05);
        var side = Shares("side");
        Assert.True(side[3] > side[^1] + 0.05 && side[3] > side[0] + 0.05, "much side, either way");
    }

    private static JsonObject Card() =>
        new()
        {
            ["name"] = "Stun across",
            ["content"] = Sample.Content(),
            ["note"] = "Low bridge, through it",
            ["rows"] = new JsonArray(new JsonObject { ["label"] = "Tolerance", ["value"] = "±2.1 mm" }),
            ["lines"] = new JsonArray("half a tip below, pace 5"),
            ["goal"] = new JsonObject
            {
                ["x"] = 2.3,
                ["y"] = 0.7,
                ["radius"] = 0.2,
            },
        };

    [Fact]
    public async Task A_shot_card_is_a_pdf_of_half_a_sheet_with_its_own_fonts()
    {
        using var response = await app.Client.PostAsync(
            "/api/card/pdf",
            new StringContent(Card().ToJsonString(), Encoding.UTF8, "application/json")
        );
        Assert.Equal((200, "application/pdf"), ((int)response.StatusCode, response.Content.Headers.ContentType!.MediaType));
        var text = Encoding.Latin1.GetString(await response.Content.ReadAsByteArrayAsync());
        Assert.StartsWith("%PDF-", text);
        // 210 mm by 148 mm in points; the fonts are embedded.
        Assert.Matches(@"/MediaBox\s*\[\s*0 0 595\.\d+ 419\.\d+", text);
        Assert.Contains("/FontFile2", text);
    }

    [Fact]
    public async Task The_same_card_as_svg_says_the_same()
    {
        using var response = await app.Client.PostAsync(
            "/api/card/svg",
            new StringContent(Card().ToJsonString(), Encoding.UTF8, "application/json")
        );
        var svg = XDocument.Parse(await response.Content.ReadAsStringAsync());
        var texts = svg.Descendants().Where(e => e.Name.LocalName == "text").Select(e => e.Value).ToList();
        Assert.Contains("Stun across", texts);
        Assert.Contains("±2.1 mm", texts);
        Assert.Contains("Low bridge, through it", texts);
        Assert.Equal("0 0 210 148", svg.Root!.Attribute("viewBox")!.Value);
    }

    [Fact]
    public async Task A_card_with_too_much_on_it_is_refused()
    {
        var card = Card();
        card["lines"] = new JsonArray([.. Enumerable.Range(0, 9).Select(i => (JsonNode)$"line {i}")]);
        Assert.Equal(["lines"], (await app.Post("/api/card/svg", card)).Body.Fields());
    }
}
