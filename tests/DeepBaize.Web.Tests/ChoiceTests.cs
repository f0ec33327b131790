using System.Text.Json.Nodes;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Web.Tests;

/// <summary>Strokes compared, wishes and balls to play for, and a rally played on, through the API.</summary>
[Collection("application")]
public class ChoiceTests(Application app)
{
    private static JsonObject Open => Sample.Table(2.2, 0.6, (2.98, 0.47), (3.05, 1.25), (2.55, 1.20));

    private static JsonObject Choice(double pace, double height = 0) =>
        new()
        {
            ["pace"] = pace,
            ["height"] = height,
            ["pot"] = new JsonObject { ["ball"] = "red-1", ["pocket"] = "yellow-top" },
        };

    private async Task<List<JsonNode>> Stream(string path, JsonObject ask)
    {
        var events = new List<JsonNode>();
        await foreach (var e in app.Stream(path, ask))
            events.Add(e);
        return events;
    }

    [Fact]
    public async Task Strokes_are_compared_with_the_advice_as_a_further_column()
    {
        var events = await Stream("/api/compare", new() { ["content"] = Open, ["choices"] = new JsonArray(Choice(3), Choice(5, -0.5)) });
        var last = events[^1];
        Assert.Equal(1, last["share"]!.GetValue<double>());
        var columns = last["columns"]!.AsArray();
        var ids = columns.Select(c => c!["id"]!.GetValue<string>()).ToList();
        Assert.Equal(["choice-1", "choice-2"], ids.Take(2));
        Assert.Contains(last["advice"]!.GetValue<string>(), ids);
        Assert.Equal(ids.Order(), last["order"]!.AsArray().Select(i => i!.GetValue<string>()).Order());
        Assert.Equal(ids.Count * (ids.Count - 1) / 2, last["differences"]!.AsArray().Count);
        // Until all have been played on nothing is said to be better.
        Assert.Empty(events.First(e => e["columns"]!.AsArray().Count > 0)["order"]!.AsArray());
        foreach (var column in columns)
        {
            Assert.InRange(column!["scores"]!["value"]!.GetValue<double>(), 0, 1);
            Assert.InRange(column["value"]!["value"]!.GetValue<double>(), 0, 1);
            Assert.NotEmpty(column["nudges"]!.AsArray());
            Assert.NotEmpty(column["path"]!.AsArray());
        }
    }

    [Fact]
    public async Task What_is_wrong_with_a_choice_is_told_by_its_place()
    {
        async Task<string> Field(JsonArray choices)
        {
            var (status, problem) = await app.Post("/api/compare", new JsonObject { ["content"] = Open, ["choices"] = choices });
            Assert.Equal(400, status);
            return problem.Fields()[0];
        }
        Assert.Equal("choices.length", await Field([Choice(3)]));
        Assert.Equal("choices[1].pace", await Field([Choice(3), Choice(30)]));
        var nowhere = Choice(3);
        nowhere["pot"]!["ball"] = "red-9";
        Assert.Equal("choices[0].pot.ball", await Field([nowhere, Choice(3)]));
        var (status, problem) = await app.Post(
            "/api/compare",
            new JsonObject
            {
                ["content"] = Open,
                ["choices"] = new JsonArray(Choice(3), Choice(4)),
                ["rival"] = "champion",
            }
        );
        Assert.Equal((400, "rival"), (status, problem.Fields()[0]));
    }

    [Fact]
    public async Task A_plan_keeps_its_wishes_and_tells_what_small_errors_do()
    {
        var ask = new JsonObject
        {
            ["content"] = Open,
            ["preferences"] = new JsonObject
            {
                ["next"] = "pink",
                ["noCushion"] = true,
                ["softOnly"] = true,
            },
        };
        var plans = (await Stream("/api/plan", ask))[^1]["plans"]!.AsArray();
        Assert.NotEmpty(plans);
        foreach (var plan in plans)
        {
            var first = plan!["shots"]![0]!;
            Assert.Equal("pink", first["choice"]!["next"]!["ball"]!.GetValue<string>());
            Assert.Empty(first["choice"]!["cushions"]!.AsArray());
            Assert.True(first["choice"]!["stroke"]!["pace"]!.GetValue<double>() <= 4);
            Assert.NotNull(first["study"]);
            Assert.Equal(3, Reds(first["redsBefore"]!));
            Assert.Equal(2, Reds(first["redsAfter"]!));
        }
        static int Reds(JsonNode spread) => new[] { "black", "pink", "middle", "baulk" }.Sum(part => spread[part]!["all"]!.GetValue<int>());
    }

    [Theory]
    [InlineData("""{ "next": "red-2" }""", "preferences.next")]
    [InlineData("""{ "next": "red-9" }""", "preferences.next")]
    [InlineData("""{ "next": "purple" }""", "preferences.next")]
    [InlineData("""{ "later": ["red-1", "nobody"] }""", "preferences.later")]
    [InlineData("""{ "keepOff": ["red-14"] }""", "preferences.keepOff")]
    public async Task A_wish_that_cannot_be_had_is_refused(string preferences, string field)
    {
        var ask = new JsonObject { ["content"] = Open, ["preferences"] = JsonNode.Parse(preferences) };
        foreach (var path in new[] { "/api/plan", "/api/next-balls" })
        {
            var (status, problem) = await app.Post(path, ask.DeepClone());
            Assert.Equal((400, field), (status, problem.Fields()[0]));
        }
    }

    [Fact]
    public async Task Balls_to_play_for_come_with_the_stroke_that_leaves_them_on()
    {
        var (status, answer) = await app.Post("/api/next-balls", new JsonObject { ["content"] = Open });
        Assert.True(status == 200, answer.ToString());
        var balls = answer["balls"]!.AsArray();
        Assert.NotEmpty(balls);
        foreach (var ball in balls)
        {
            // Laid on the table, the stroke pots its ball and leaves the white where the path ends.
            var content = Open;
            content["stroke"] = ball!["stroke"]!.DeepClone();
            var (_, played) = await app.Post("/api/play-on", new JsonObject { ["content"] = content });
            Assert.Equal(1, played["points"]!.GetValue<int>());
            var white = played["content"]!["balls"]!.AsArray().Single(b => b!["id"]!.GetValue<string>() == "white")!;
            var end = ball["path"]!.AsArray()[^1]!;
            Assert.Equal(end["x"]!.GetValue<double>(), white["x"]!.GetValue<double>(), 0.02);
            Assert.Equal(end["y"]!.GetValue<double>(), white["y"]!.GetValue<double>(), 0.02);
        }
        // The frame says which balls may be wished for.
        var (_, frame) = await app.Post("/api/frame", new JsonObject { ["content"] = Open });
        var may = frame["mayFollow"]!.AsArray().Select(b => b!.GetValue<string>()).ToList();
        Assert.Equal(["yellow", "green", "brown", "blue", "pink", "black"], may);
        Assert.All(balls, b => Assert.Contains(b!["ball"]!.GetValue<string>(), may));
    }

    /// <summary>
    /// Six strokes played on through the API, by both players, pots, misses and safeties among them: the frame is then what the referee
    /// makes of the same strokes (Official Rules, Section 3, as Core/Rules has them).
    /// </summary>
    [Fact]
    public async Task A_rally_of_six_strokes_ends_in_the_state_that_the_referee_gives()
    {
        var shape = new TableShape(Conditions.Default);
        var content = Open;
        content["frame"] = new JsonObject { ["first"] = 12, ["second"] = 20 };
        var layout = Layout.OfRest([
            .. content["balls"]!
                .AsArray()
                .Select(b =>
                {
                    Assert.True(Ball.TryParse(b!["id"]!.GetValue<string>(), out var ball));
                    return new PlacedBall(ball, b["x"]!.GetValue<double>(), b["y"]!.GetValue<double>());
                }),
        ]);
        var situation = Situation.Create(layout, new() { First = 12, Second = 20 });
        // A red potted, then full strokes at whatever lies in the way, hard and soft: safeties, misses and fouls as they come.
        (double? Aim, double Pace)[] strokes = [(null, 3), (180, 2.5), (20, 6), (200, 3), (90, 7), (45, 4)];
        var turns = new List<int>();
        foreach (var (aim, pace) in strokes)
        {
            var stroke = aim is { } free
                ? new JsonObject
                {
                    ["aim"] = free,
                    ["pace"] = pace,
                    ["elevation"] = 3,
                    ["free"] = true,
                }
                : Choice(pace);
            content["stroke"] = stroke;
            var (status, answer) = await app.Post("/api/play-on", new JsonObject { ["content"] = content.DeepClone() });
            Assert.True(status == 200, answer.ToString());
            turns.Add(situation.Frame.Turn);
            var (simulator, record) = (new Simulator(shape), new ShotRecord());
            Ball? nominated = null;
            Stroke played;
            if (aim is { } direction)
                played = new(direction, 0, 0, pace, 3);
            else
            {
                var cut = Cut.Of(situation.Layout, new(situation.Layout.SlotOf(Ball.Red(1)), Pocket.YellowTop), shape);
                played = new(cut.AimDegrees, 0, 0, pace, 3);
                played = played with { AimDegrees = PotAim.Find(situation.Layout, cut, played, shape)!.Value };
                nominated = Ball.Red(1);
            }
            played.Play(simulator, situation.Layout, record);
            var ruled = situation.Play(simulator, record, nominated, shape);
            situation = ruled.Leaves;
            Assert.Equal(ruled.Ruling.Points, answer["points"]!.GetValue<int>());
            Assert.Equal(ruled.Ruling.Penalty, answer["penalty"]!.GetValue<int>());
            content = answer["content"]!.AsObject();
        }
        var frame = content["frame"]!;
        Assert.Equal(situation.Frame.Scores.First, frame["first"]!.GetValue<int>());
        Assert.Equal(situation.Frame.Scores.Second, frame["second"]!.GetValue<int>());
        Assert.Equal(situation.Frame.Turn, frame["turn"]?.GetValue<int>() ?? 0);
        var balls = content["balls"]!.AsArray();
        Assert.Equal(situation.Layout.Balls.Count, balls.Count);
        foreach (var ball in situation.Layout.Balls)
        {
            var there = balls.Single(b => b!["id"]!.GetValue<string>() == ball.Ball.Id)!;
            Assert.Equal(ball.X, there["x"]!.GetValue<double>(), 1e-3);
            Assert.Equal(ball.Y, there["y"]!.GetValue<double>(), 1e-3);
        }
        // Both players have been at the table.
        Assert.Contains(0, turns);
        Assert.Contains(1, turns);
    }
}
