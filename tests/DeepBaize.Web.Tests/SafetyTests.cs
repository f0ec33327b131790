using System.Text.Json.Nodes;
using DeepBaize.Core.Rules;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class SafetyTests(Application app)
{
    private static JsonObject Snookered => Sample.Table(0.55, 0.889, (2.95, 0.93));

    private static JsonObject Open => Sample.Table(1.2, 0.4, (3.2, 0.6), (2.2, 1.5));

    private async Task<List<JsonNode>> Stream(string path, JsonObject ask)
    {
        var events = new List<JsonNode>();
        await foreach (var e in app.Stream(path, ask))
            events.Add(e);
        return events;
    }

    private static IEnumerable<JsonNode> EscapesOf(JsonNode decision) =>
        decision["prospects"]!.AsArray().Select(p => p!["escape"]).OfType<JsonNode>();

    /// <summary>The black alone, 0.2 m off: rule 4 (from memory), and common practice for what it comes to.</summary>
    private static JsonObject LastBlack(int first, int second) =>
        (JsonObject)
            JsonNode.Parse(
                $$"""
                {
                  "balls": [{ "id": "white", "x": 3.1, "y": 0.7 }, { "id": "black", "x": 3.245, "y": 0.889 }],
                  "stroke": { "pace": 4 },
                  "frame": { "first": {{first}}, "second": {{second}} }
                }
                """
            )!;

    [Fact]
    public async Task The_chance_to_win_is_told_with_what_it_stands_on()
    {
        async Task<(double Win, double Model, string Basis)> Chance(JsonObject content, string rival = "county")
        {
            var (status, answer) = await app.Post("/api/frame-chance", new JsonObject { ["content"] = content, ["rival"] = rival });
            Assert.True(status == 200, answer.ToString());
            return (
                answer["win"]!["value"]!.GetValue<double>(),
                answer["modelError"]!.GetValue<double>(),
                answer["basis"]!.GetValue<string>()
            );
        }
        var (behind, model, basis) = await Chance(LastBlack(50, 56));
        Assert.InRange(behind, 0.85, 1);
        Assert.Equal("reckoned", basis);
        Assert.InRange(model, 0.001, 0.1);
        // Eight behind it is over.
        Assert.Equal((0, 0, "exact"), await Chance(LastBlack(50, 58)));
        Assert.Equal((1, 0, "exact"), await Chance(LastBlack(58, 50)));
        Assert.True((await Chance(Open, "tour")).Win < (await Chance(Open, "learner")).Win);
        var exercise = LastBlack(0, 0);
        exercise["frame"]!["repeats"] = true;
        exercise["frame"]!["on"] = "black";
        var (refused, problem) = await app.Post("/api/frame-chance", new JsonObject { ["content"] = exercise });
        Assert.Equal((400, "content.frame"), (refused, problem.Fields()[0]));
    }

    [Fact]
    public async Task Pots_and_safeties_come_on_one_scale_with_the_verdict()
    {
        var events = await Stream("/api/decide", new() { ["content"] = Open });
        var shares = events.Select(e => e["share"]!.GetValue<double>()).ToList();
        Assert.Equal(shares.Order(), shares);
        var last = events[^1];
        Assert.Equal((1.0, false), (last["share"]!.GetValue<double>(), last["isSnookered"]!.GetValue<bool>()));
        var prospects = last["prospects"]!.AsArray();
        var pot = prospects.First(p => p!["attack"] is not null)!;
        var safe = prospects.First(p => p!["safety"] is not null)!;
        var safety = safe["safety"]!;
        static double Value(JsonNode figure) => figure["value"]!.GetValue<double>();
        Assert.Equal(Value(last["verdict"]!["margin"]!), Value(pot["value"]!) - Value(safe["value"]!), 1e-9);
        Assert.Equal(prospects[0]!["id"]!.GetValue<string>(), last["verdict"]!["bestId"]!.GetValue<string>());
        Assert.Equal("win", last["unit"]!.GetValue<string>());
        Assert.All(prospects, p => Assert.InRange(Value(p!["value"]!), 0, 1));
        // No verdict before both have been weighed.
        Assert.All(events.Where(e => e["share"]!.GetValue<double>() < 1), e => Assert.Null(e["verdict"]));
        Assert.InRange(safety["potLeft"]!["error"]!.GetValue<double>(), 1e-4, 0.1);

        // The safety's stroke, laid on the table, ends where it says.
        var content = Open;
        content["stroke"] = safety["stroke"]!.DeepClone();
        var (_, shot) = await app.Post("/api/shot", Sample.Shot(content));
        var (white, end) = (shot["simulation"]!["finals"]![0]!, safety["whitePath"]!.AsArray()[^1]!);
        Assert.Equal(end["x"]!.GetValue<double>(), white["x"]!.GetValue<double>(), 0.03);
        Assert.Equal(end["y"]!.GetValue<double>(), white["y"]!.GetValue<double>(), 0.03);
    }

    [Fact]
    public async Task Snookered_the_escapes_stand_in_the_list_and_hit_a_ball_on_when_laid_on_the_table()
    {
        var last = (await Stream("/api/decide", new() { ["content"] = Snookered }))[^1];
        Assert.True(last["isSnookered"]!.GetValue<bool>());
        Assert.NotEmpty(EscapesOf(last));
        foreach (var escape in EscapesOf(last))
        {
            var content = Snookered;
            content["stroke"] = escape["stroke"]!.DeepClone();
            var (_, shot) = await app.Post("/api/shot", Sample.Shot(content));
            var hit = shot["simulation"]!["events"]!.AsArray().First(e => e!["kind"]!.GetValue<string>() == "ball")!;
            Assert.Equal(("white", "red-1"), (hit["ball"]!.GetValue<string>(), hit["other"]!.GetValue<string>()));
        }
    }

    [Fact]
    public async Task A_correction_is_kept_as_this_tables_and_comes_back_with_the_escape()
    {
        var escape = EscapesOf((await Stream("/api/decide", new() { ["content"] = Snookered }))[^1])
            .First(e => e["cushions"]!.AsArray().Count == 1);
        var content = Snookered;
        content["stroke"] = escape["stroke"]!.DeepClone();
        var (status, next) = await app.Post(
            "/api/escape/correct",
            new JsonObject
            {
                ["content"] = content,
                ["ball"] = "red-1",
                ["passed"] = 0.06,
            }
        );
        Assert.Equal(200, status);
        Assert.InRange(escape["stroke"]!["aim"]!.GetValue<double>(), -180, 180);
        Assert.NotEqual(escape["stroke"]!["aim"]!.GetValue<double>(), next["aimDegrees"]!.GetValue<double>());

        var route = escape["route"]!.GetValue<string>();
        foreach (var along in (double[])[0.02, 0.04])
            await app.Post("/api/escape/corrections", new JsonObject { ["route"] = route, ["along"] = along });
        var again = EscapesOf((await Stream("/api/decide", new() { ["content"] = Snookered }))[^1])
            .First(e => e["route"]!.GetValue<string>() == route);
        Assert.Equal((0.03, 2), (Math.Round(again["kept"]!["along"]!.GetValue<double>(), 9), again["kept"]!["trials"]!.GetValue<int>()));
        Assert.Equal(204, await app.Delete($"/api/escape/corrections/{route}", "/api/escape/corrections"));
        Assert.DoesNotContain((await app.Send(HttpMethod.Get, "/api/escape/corrections?take=200")).Body.AsArray(), c =>
            c!["route"]!.GetValue<string>() == route
        );
        Assert.Equal(
            "route",
            (await app.Post("/api/escape/corrections", new JsonObject { ["route"] = "ceiling", ["along"] = 0 })).Body.Fields()[0]
        );
        Assert.Equal(
            "along",
            (await app.Post("/api/escape/corrections", new JsonObject { ["route"] = "top", ["along"] = 3 })).Body.Fields()[0]
        );
    }

    [Fact]
    public async Task What_a_stroke_leaves_is_seen_from_the_other_side()
    {
        var content = Open;
        content["stroke"] = new JsonObject
        {
            ["aim"] = 180,
            ["pace"] = 1.5,
            ["free"] = true,
        };
        var (status, view) = await app.Post("/api/leave", new JsonObject { ["content"] = content.DeepClone() });
        Assert.Equal((200, true), (status, view["rivalAtTable"]!.GetValue<bool>()));
        Assert.Contains(view["lines"]!.AsArray(), l => l!["chance"]!.GetValue<double>() > 0);
        Assert.Equal(
            "rival",
            (await app.Post("/api/leave", new JsonObject { ["content"] = content.DeepClone(), ["rival"] = "wizard" })).Body.Fields()[0]
        );
    }

    [Fact]
    public async Task The_black_ball_openings_are_compared_and_told_with_how_often_they_win()
    {
        var last = (
            await Stream(
                "/api/black-ball",
                new()
                {
                    ["player"] = new JsonObject { ["skill"] = "county" },
                    ["rival"] = "county",
                }
            )
        )[^1];
        var openings = last["openings"]!.AsArray().ToDictionary(o => o!["kind"]!.GetValue<string>(), o => o!);
        // The newer opening is no harder than the older (common practice, no source): at county skill it leaves no more pots and wins no
        // less, as far as the strokes that are played can tell.
        double Of(string kind, string figure, string part) => openings[kind][figure]![part]!.GetValue<double>();
        double Apart(string figure) => Of("across", figure, "value") - Of("lengthwise", figure, "value");
        double Error(string figure) =>
            Math.Sqrt(Math.Pow(Of("across", figure, "error"), 2) + Math.Pow(Of("lengthwise", figure, "error"), 2));
        Assert.True(Apart("potLeft") < 2 * Error("potLeft"), $"pots left {Apart("potLeft")}");
        Assert.True(Apart("wins") > -2 * Error("wins"), $"wins {Apart("wins")}");
        Assert.All(openings.Values, o => Assert.InRange(o["wins"]!["strokes"]!.GetValue<int>(), 1, 1000));
    }

    [Fact]
    public async Task With_no_ball_on_there_is_nothing_to_decide()
    {
        var (status, problem) = await app.Post(
            "/api/decide",
            new JsonObject
            {
                ["content"] = new JsonObject
                {
                    ["balls"] = new JsonArray(
                        new JsonObject
                        {
                            ["id"] = "white",
                            ["x"] = 1,
                            ["y"] = 1,
                        }
                    ),
                },
            }
        );
        Assert.Equal((400, "frame.colours"), (status, problem.Fields()[0]));
    }
}
