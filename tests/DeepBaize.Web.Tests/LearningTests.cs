using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>
/// What is learnt from strokes, over HTTP: one stroke, tables, players, trials that are kept, figures that are taken over.
/// </summary>
[Collection("application")]
public class LearningTests(Application app)
{
    private static JsonObject Strike(double aim = 0, double speed = 1.6) =>
        new()
        {
            ["aim"] = aim,
            ["cueSpeed"] = speed,
            ["side"] = 0,
            ["height"] = 0,
            ["elevation"] = 3,
        };

    private static JsonArray Balls(double x = 0.737, double y = 0.889) =>
        [
            new JsonObject
            {
                ["id"] = "white",
                ["x"] = x,
                ["y"] = y,
            },
        ];

    private static JsonObject Seen(double x, double y, double doubt = 0.01) =>
        new()
        {
            ["finals"] = new JsonArray(
                new JsonObject
                {
                    ["id"] = "white",
                    ["x"] = x,
                    ["y"] = y,
                    ["pocket"] = null,
                }
            ),
            ["doubt"] = doubt,
        };

    /// <summary>Where a white that is struck so ends on a table.</summary>
    private async Task<(double X, double Y)> End(JsonObject strike, JsonObject conditions)
    {
        var (_, told) = await app.Post(
            "/api/simulate",
            new JsonObject
            {
                ["balls"] = Balls(),
                ["strike"] = strike.DeepClone(),
                ["conditions"] = conditions.DeepClone(),
            }
        );
        var white = told["finals"]![0]!;
        return (white["x"]!.GetValue<double>(), white["y"]!.GetValue<double>());
    }

    [Fact]
    public async Task A_stroke_that_was_too_hard_is_explained_and_drawn()
    {
        var (x, y) = await End(Strike(20, 1.6 * 1.15), []);
        var (status, told) = await app.Post(
            "/api/learn/stroke",
            new JsonObject
            {
                ["balls"] = Balls(),
                ["strike"] = Strike(20),
                ["player"] = new JsonObject { ["skill"] = "county" },
                ["seen"] = Seen(x, y),
            }
        );
        Assert.Equal(200, status);
        var first = told["causes"]![0]!;
        Assert.Equal(("pace", "hard", "share"), (first.Text("cause"), first.Text("direction"), first.Text("unit")));
        Assert.Equal(0.15, first["amount"]!.GetValue<double>(), 0.03);
        Assert.Contains(first["paths"]!.AsArray(), p => p!.Text("id") == "white");
        var pace = told["error"]!["pace"]!;
        Assert.InRange(pace["value"]!.GetValue<double>(), pace["low"]!.GetValue<double>(), pace["high"]!.GetValue<double>());
        Assert.InRange(told["explains"]!.GetValue<double>(), 0.5, 1);
    }

    [Fact]
    public async Task Attempts_at_one_stroke_that_are_all_too_hard_have_that_in_common_and_a_bad_one_is_named()
    {
        var seen = new JsonArray();
        foreach (var share in new[] { 1.17, 1.2, 1.18, 1.22, 1.19 })
        {
            var (x, y) = await End(Strike(20, 1.6 * share), []);
            seen.Add(Seen(x, y));
        }
        var body = new JsonObject
        {
            ["balls"] = Balls(),
            ["strike"] = Strike(20),
            ["player"] = new JsonObject { ["skill"] = "county" },
            ["seen"] = seen,
        };
        var (status, told) = await app.Post("/api/learn/shot", body);
        Assert.Equal((200, 5), (status, told["attempts"]!.GetValue<int>()));
        var pace = told["parts"]!.AsArray().Single(p => p!.Text("cause") == "pace")!;
        Assert.Equal(("hard", true), (pace.Text("direction"), pace["eachTime"]!.GetValue<bool>()));
        Assert.InRange(pace["error"]!["value"]!.GetValue<double>(), 0.08, 0.25);
        seen[3]!["doubt"] = 3;
        (status, var problem) = await app.Post("/api/learn/shot", body);
        Assert.Equal((400, true), (status, problem.Fields().Contains("seen[3].doubt")));
        body["seen"] = new JsonArray(Seen(1, 1));
        (status, problem) = await app.Post("/api/learn/shot", body);
        Assert.Equal((400, true), (status, problem.Fields().Contains("seen")));
    }

    [Theory]
    [InlineData("cueSpeed", "strike.cueSpeed")]
    [InlineData("missed", "seen.missed")]
    [InlineData("doubt", "seen.doubt")]
    [InlineData("ball", "seen.finals[0].id")]
    [InlineData("meant", "meant.pocket")]
    public async Task A_bad_field_is_named(string what, string field)
    {
        var body = new JsonObject
        {
            ["balls"] = Balls(),
            ["strike"] = Strike(),
            ["seen"] = Seen(1, 1),
        };
        switch (what)
        {
            case "cueSpeed":
                body["strike"]!["cueSpeed"] = 9;
                break;
            case "doubt":
                body["seen"]!["doubt"] = 3;
                break;
            case "missed":
                body["seen"]!["missed"] = "thick";
                break;
            case "ball":
                body["seen"]!["finals"]![0]!["id"] = "pink";
                break;
            default:
                body["meant"] = new JsonObject { ["ball"] = "white", ["pocket"] = "bottom" };
                break;
        }
        var (status, problem) = await app.Post("/api/learn/stroke", body);
        Assert.Equal((400, true), (status, problem.Fields().Contains(field)));
    }

    [Fact]
    public async Task A_table_is_learnt_with_intervals_and_the_miss_falls()
    {
        var hidden = new JsonObject { ["rollingFriction"] = 0.0155 };
        var trials = new JsonArray();
        foreach (var (aim, speed) in new[] { (0.0, 1.2), (0.0, 1.9), (180.0, 1.0), (30.0, 1.4) })
        {
            var (x, y) = await End(Strike(aim, speed), hidden);
            trials.Add(
                new JsonObject
                {
                    ["balls"] = Balls(),
                    ["strike"] = Strike(aim, speed),
                    ["seen"] = Seen(x, y),
                }
            );
        }
        var body = new JsonObject
        {
            ["trials"] = trials,
            ["fit"] = new JsonArray("rollingFriction"),
            ["player"] = new JsonObject { ["skill"] = "tour" },
        };
        var (status, told) = await app.Post("/api/learn/table", body);
        Assert.Equal(200, status);
        var rolling = told["estimates"]![0]!;
        Assert.Equal("rollingFriction", rolling.Text("name"));
        Assert.Equal(0.0155, rolling["value"]!.GetValue<double>(), 0.0005);
        Assert.InRange(0.0155, rolling["low"]!.GetValue<double>(), rolling["high"]!.GetValue<double>());
        Assert.InRange(told["missAfter"]!.GetValue<double>(), 0, 0.5 * told["missBefore"]!.GetValue<double>());
        Assert.Equal(4, told["held"]!.AsArray().Count);
        body["fit"] = new JsonArray("luck");
        Assert.Equal(["fit[0]"], (await app.Post("/api/learn/table", body)).Body.Fields());
    }

    [Fact]
    public async Task A_player_is_learnt_in_the_parts_of_a_skill()
    {
        var attempts = new JsonArray();
        foreach (var share in new[] { 0.9, 1.0, 1.08, 0.97, 1.12, 0.93 })
        {
            var (x, y) = await End(Strike(0, 1.4 * share), []);
            attempts.Add(
                new JsonObject
                {
                    ["balls"] = Balls(),
                    ["strike"] = Strike(0, 1.4),
                    ["seen"] = Seen(x, y),
                }
            );
        }
        var (status, told) = await app.Post(
            "/api/learn/player",
            new JsonObject
            {
                ["attempts"] = attempts,
                ["player"] = new JsonObject { ["skill"] = "club" },
            }
        );
        Assert.Equal(200, status);
        var names = told["estimates"]!.AsArray().Select(e => e!.Text("name"));
        Assert.Equal(["direction", "sighting", "allowance", "pace", "height", "side", "cushion", "evenness"], names);
        Assert.InRange(told["paceOfFive"]!.GetValue<double>(), 4, 6);
    }

    [Fact]
    public async Task Trials_are_kept_learnt_from_taken_over_and_given_back()
    {
        async Task<JsonNode> Knowledge() => (await app.Post("/api/learn/trials/learnt", new JsonObject())).Body;
        var before = await Knowledge();
        Assert.Empty(before["trials"]!.AsArray());
        for (var i = 0; i < 3; i++)
        {
            var next = (await Knowledge())["next"]![0]!;
            var asked = new JsonObject { ["balls"] = next["balls"]!.DeepClone(), ["strike"] = next["strike"]!.DeepClone() };
            var (played, seen) = await app.Post("/api/stand-in/stroke", asked);
            Assert.Equal(200, played);
            asked["line"] = next["line"]!.DeepClone();
            asked["seen"] = new JsonObject { ["finals"] = seen["finals"]!.DeepClone(), ["doubt"] = seen["doubt"]!.DeepClone() };
            Assert.Equal(201, (await app.Post("/api/learn/trials", asked)).Status);
        }
        var after = await Knowledge();
        Assert.Equal(3, after["trials"]!.AsArray().Count);
        Assert.InRange(after["knowledge"]!.GetValue<double>(), 0, before["knowledge"]!.GetValue<double>());

        var figures = new JsonObject { ["rollingFriction"] = 0.0151 };
        async Task<double?> Rolling()
        {
            var inHand = JsonNode.Parse(await app.Client.GetStringAsync("/api/in-hand"))!;
            return inHand["table"]!["conditions"]!["rollingFriction"]?.GetValue<double>();
        }
        var was = await Rolling();
        var take = new JsonObject
        {
            ["kind"] = "table",
            ["name"] = "After ten strokes",
            ["figures"] = figures,
        };
        var (made, taken) = await app.Post("/api/learn/taken", take);
        Assert.Equal((201, 0.0151), (made, await Rolling()));
        // What held before is told where the table had nothing of its own.
        Assert.Equal(was ?? 0.0125, taken["before"]!["rollingFriction"]!.GetValue<double>());
        Assert.Equal(200, (await app.Post($"/api/learn/taken/{taken.Text("id")}/undo", new JsonObject())).Status);
        Assert.Equal(was, await Rolling());

        take["figures"] = new JsonObject { ["rollingFriction"] = 7 };
        Assert.Equal(400, (await app.Post("/api/learn/taken", take)).Status);
        Assert.Equal(was, await Rolling());
        var kept = JsonNode.Parse(await app.Client.GetStringAsync("/api/learn/taken"))!.AsArray();
        Assert.Single(kept, t => t!.Text("kind") == "table");

        var trial = after["trials"]![0]!;
        var gone = await app.Client.DeleteAsync($"/api/learn/trials/{trial.Text("id")}?version={trial["version"]}");
        Assert.Equal((204, 2), ((int)gone.StatusCode, (await Knowledge())["trials"]!.AsArray().Count));
    }

    [Fact]
    public async Task A_players_figures_are_taken_over_and_given_back_with_his_skill()
    {
        async Task<JsonNode> Player() => JsonNode.Parse(await app.Client.GetStringAsync("/api/player"))!;
        var was = await Player();
        var take = new JsonObject
        {
            ["kind"] = "player",
            ["name"] = "December",
            ["figures"] = new JsonObject { ["pace"] = 8.5, ["paceOfFive"] = 4.6 },
        };
        var (made, taken) = await app.Post("/api/learn/taken", take);
        Assert.Equal(201, made);
        var now = await Player();
        Assert.Equal(
            ("own", 4.6, 8.5),
            (now.Text("skill"), now["paceScale"]![0]!["standard"]!.GetValue<double>(), now["own"]!["pace"]!.GetValue<double>())
        );
        await app.Post($"/api/learn/taken/{taken.Text("id")}/undo", new JsonObject());
        var back = await Player();
        Assert.Equal(was.Text("skill"), back.Text("skill"));
        Assert.True(JsonNode.DeepEquals(was["paceScale"], back["paceScale"]));
        take["figures"] = new JsonObject { ["luck"] = 1 };
        Assert.Equal(["figures.luck"], (await app.Post("/api/learn/taken", take)).Body.Fields());
    }

    /// <summary>Played a fifth harder than the number says, at two steps: his own scale is off the standard by so much.</summary>
    [Fact]
    public async Task A_players_own_scale_of_paces_is_read_off_his_attempts_at_it()
    {
        // What is counted is counted on the table in hand.
        var inHand = (await app.Send(HttpMethod.Get, "/api/in-hand")).Body;
        var conditions = new JsonObject();
        foreach (var thing in new[] { "table", "cue" })
            foreach (var (name, value) in inHand[thing]!["conditions"]!.AsObject())
                conditions[name] = value!.DeepClone();
        async Task<JsonObject> Attempt(int step, double pace)
        {
            var content = new JsonObject
            {
                ["balls"] = new JsonArray(
                    new JsonObject
                    {
                        ["id"] = "white",
                        ["x"] = 0.737,
                        ["y"] = 0.889,
                    }
                ),
                ["stroke"] = new JsonObject
                {
                    ["aim"] = 0,
                    ["height"] = 0.3,
                    ["pace"] = pace,
                },
                ["conditions"] = conditions.DeepClone(),
            };
            var shot = (await app.Post("/api/shot", new JsonObject { ["content"] = content })).Body;
            var white = shot["simulation"]!["finals"]!.AsArray().Single(b => b!.Text("id") == "white")!;
            return new()
            {
                ["id"] = Guid.NewGuid().ToString(),
                ["revision"] = 1,
                ["at"] = $"2026-11-20T10:0{step}:00Z",
                ["routine"] = "pace-scale",
                ["step"] = step,
                ["said"] = true,
                ["white"] = new JsonObject { ["x"] = white["x"]!.DeepClone(), ["y"] = white["y"]!.DeepClone() },
            };
        }
        Assert.Empty((await app.Send(HttpMethod.Get, "/api/learn/paces")).Body["scale"]!.AsArray());
        var session = Guid.NewGuid().ToString();
        await app.Post("/api/practice/sessions", new JsonObject { ["id"] = session });
        var counted = new JsonObject { ["attempts"] = new JsonArray(await Attempt(1, 3.6), await Attempt(2, 4.8)) };
        Assert.Equal(200, (await app.Post($"/api/practice/sessions/{session}/attempts", counted)).Status);
        var (status, learnt) = await app.Send(HttpMethod.Get, "/api/learn/paces");
        Assert.Equal(200, status);
        var scale = learnt["scale"]!.AsArray().Select(p => (p!["own"]!.GetValue<double>(), p["standard"]!.GetValue<double>())).ToList();
        Assert.Equal([3, 4], scale.Select(p => p.Item1));
        Assert.Equal(3.6, scale[0].Item2, 0.1);
        Assert.Equal(4.8, scale[1].Item2, 0.1);
        Assert.Equal(1, learnt["paces"]![0]!["attempts"]!.GetValue<int>());
        // And what went wrong in the first one, for which a standard three was meant.
        var id = counted["attempts"]![0]!.Text("id");
        (status, var why) = await app.Send(HttpMethod.Get, $"/api/learn/attempts/{id}");
        Assert.Equal(200, status);
        Assert.Contains(why["causes"]!.AsArray(), c => c!.Text("direction") == "hard" && c!["chance"]!.GetValue<double>() > 0.2);
        Assert.Equal(404, (await app.Send(HttpMethod.Get, $"/api/learn/attempts/{Guid.NewGuid()}")).Status);
    }

    [Fact]
    public async Task Attempts_of_the_player_in_hand_are_learnt_from_or_said_to_be_too_few()
    {
        var (status, told) = await app.Post("/api/learn/attempts", new JsonObject());
        Assert.Equal(200, status);
        Assert.True(told["learnt"] is null == told["attempts"]!.GetValue<int>() < 5);
    }

    [Fact]
    public async Task What_to_practise_is_ranked_with_errors()
    {
        var (status, told) = await app.Post("/api/learn/gain", new JsonObject { ["player"] = new JsonObject { ["skill"] = "club" } });
        Assert.Equal(200, status);
        var points = told["parts"]!.AsArray().Select(p => p!["points"]!["value"]!.GetValue<double>()).ToList();
        Assert.Equal(9, points.Count);
        Assert.Equal(points.OrderDescending(), points);
        Assert.All(told["parts"]!.AsArray(), p => Assert.NotEmpty(p!["routines"]!.AsArray()));
        Assert.Equal(400, (await app.Post("/api/learn/gain", new JsonObject { ["player"] = new JsonObject { ["skill"] = "god" } })).Status);
    }
}
