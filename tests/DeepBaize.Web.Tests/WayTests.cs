using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class WayTests(Application app)
{
    private static JsonObject Ask(JsonObject? goal = null) =>
        new()
        {
            ["content"] = Sample.Content(),
            ["goal"] =
                goal
                ?? new JsonObject
                {
                    ["x"] = 2.3,
                    ["y"] = 0.7,
                    ["radius"] = 0.2,
                },
        };

    private IAsyncEnumerable<JsonNode> Stream(JsonObject ask) => app.Stream("/api/ways", ask);

    [Fact]
    public async Task Ways_come_as_a_stream_that_ends_with_all_of_them_ranked()
    {
        var events = new List<JsonNode>();
        await foreach (var e in Stream(Ask()))
            events.Add(e);
        Assert.True(events.Count >= 3);
        Assert.Contains(events, e => e["asSet"] is not null);
        var shares = events.Select(e => e["share"]!.GetValue<double>()).ToList();
        Assert.Equal(shares.Order(), shares);
        Assert.Equal(1, shares[^1]);
        var ways = events[^1]["ways"]!.AsArray();
        // Each way has a name of its own, and keeps it while the search goes on.
        var named = new Dictionary<string, string>();
        foreach (var e in events)
        {
            var ids = e["ways"]!.AsArray().Select(w => w!["id"]!.GetValue<string>()).ToList();
            Assert.Equal(ids.Distinct(), ids);
            foreach (var (way, id) in e["ways"]!.AsArray().Zip(ids))
                Assert.Equal(id, named.TryAdd(way!["stroke"]!.ToJsonString(), id) ? id : named[way["stroke"]!.ToJsonString()]);
        }
        var chances = ways.Select(w => w!["both"]!["value"]!.GetValue<double>()).ToList();
        Assert.NotEmpty(chances);
        Assert.Equal(chances.OrderDescending(), chances);

        // Laid on the table, a way does what it says, to the rounding of its figures.
        var content = Sample.Content();
        content["stroke"] = ways[0]!["stroke"]!.DeepClone();
        var (status, shot) = await app.Post("/api/shot", Sample.Shot(content));
        Assert.Equal(200, status);
        var white = shot["simulation"]!["finals"]![0]!;
        Assert.Equal(ways[0]!["exact"]!["x"]!.GetValue<double>(), white["x"]!.GetValue<double>(), 0.02);
        Assert.Equal(ways[0]!["exact"]!["y"]!.GetValue<double>(), white["y"]!.GetValue<double>(), 0.02);
    }

    [Fact]
    public async Task A_request_that_is_dropped_frees_the_cores()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/ways") { Content = JsonContent.Create(Ask()) };
        var response = await app.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        response.Dispose();
        // Three more, dropped too, must not make a fourth wait for them: each search stops when its request does.
        for (var i = 0; i < 3; i++)
        {
            using var again = new HttpRequestMessage(HttpMethod.Post, "/api/ways") { Content = JsonContent.Create(Ask()) };
            (await app.Client.SendAsync(again, HttpCompletionOption.ResponseHeadersRead)).Dispose();
        }
        var share = 0.0;
        await foreach (var e in Stream(Ask()))
            share = e["share"]!.GetValue<double>();
        Assert.Equal(1, share);
    }

    [Theory]
    [InlineData("""{ "x": 2.3, "y": 0.7 }""", "goal.radius")]
    [InlineData("""{ "x": 9, "y": 0.7, "radius": 0.1 }""", "goal.x")]
    [InlineData("""{ "ball": "red-1" }""", "goal.ball")]
    [InlineData("""{ "ball": "blue" }""", "goal.ball")]
    public async Task A_goal_that_cannot_be_is_refused_before_the_stream_begins(string goal, string field)
    {
        var (status, problem) = await app.Post("/api/ways", Ask(JsonNode.Parse(goal)!.AsObject()));
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
    }

    [Fact]
    public async Task Freedom_out_of_range_and_a_missing_pot_are_refused()
    {
        var ask = Ask();
        ask["freedom"] = new JsonObject { ["softest"] = 8, ["hardest"] = 3 };
        Assert.Equal(["freedom.hardest"], (await app.Post("/api/ways", ask)).Body.Fields());
        ask = Ask();
        ask["content"]!["stroke"]!["pot"] = null;
        Assert.Equal(["content.stroke.pot"], (await app.Post("/api/ways", ask)).Body.Fields());
    }

    [Fact]
    public async Task A_spread_with_a_goal_tells_how_often_it_is_met()
    {
        var (status, spread) = await app.Post("/api/spread", Ask());
        Assert.Equal(200, status);
        Assert.InRange(spread["both"]!["value"]!.GetValue<double>(), 0, spread["wanted"]!["value"]!.GetValue<double>());
        var (_, plain) = await app.Post("/api/spread", new JsonObject { ["content"] = Sample.Content() });
        Assert.Null(plain["wanted"]);
    }

    [Fact]
    public async Task Side_is_weighed_against_plain_ball()
    {
        var (status, sides) = await app.Post("/api/sides", new JsonObject { ["content"] = Sample.Content() });
        // Plain, and a touch, half a tip and a tip of either side.
        Assert.Equal((200, 7), (status, sides.AsArray().Count));
        Assert.Equal(0, sides[0]!["sideTips"]!.GetValue<double>());
        Assert.Equal(3, sides.AsArray().Count(s => s!["isHelping"]!.GetValue<bool>()));
    }
}
