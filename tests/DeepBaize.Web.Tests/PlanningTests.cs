using System.Text;
using System.Text.Json.Nodes;
using DeepBaize.Core.Advice.Break;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Searches;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class PlanningTests(Application app)
{
    private static JsonObject Colours => Sample.Table(1.02, 0.74);

    private static JsonObject OneRed => Sample.Table(2.35, 1.22, (2.92, 1.33));

    private static JsonObject Ask(JsonNode content, JsonObject? preferences = null) =>
        new() { ["content"] = content, ["preferences"] = preferences ?? [] };

    private async Task<List<JsonNode>> Plan(JsonObject ask)
    {
        var events = new List<JsonNode>();
        await foreach (var e in app.Stream("/api/plan", ask))
            events.Add(e);
        return events;
    }

    [Fact]
    public async Task A_plan_comes_as_a_stream_and_each_shot_can_be_laid_on_the_table()
    {
        var events = await Plan(Ask(Colours));
        var shares = events.Select(e => e["share"]!.GetValue<double>()).ToList();
        Assert.Equal(shares.Order(), shares);
        Assert.Equal(1, shares[^1]);
        var shots = events[^1]["plans"]![0]!["shots"]!.AsArray();
        Assert.Equal(
            ["yellow", "green", "brown", "blue", "pink", "black"],
            shots.Select(s => s!["choice"]!["nominated"]!.GetValue<string>())
        );

        // The stroke, sent back with its table, pots the ball and leaves the white where the next shot begins.
        var (status, on) = await app.Post("/api/play-on", new JsonObject { ["content"] = shots[0]!["content"]!.DeepClone() });
        Assert.Equal((200, 2), (status, on["points"]!.GetValue<int>()));
        var (white, next) = (on["content"]!["balls"]![0]!, shots[1]!["content"]!["balls"]![0]!);
        Assert.Equal(next["x"]!.GetValue<double>(), white["x"]!.GetValue<double>(), 0.03);
        Assert.Equal(next["y"]!.GetValue<double>(), white["y"]!.GetValue<double>(), 0.03);
        Assert.Equal("green", on["frame"]!["on"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_plan_that_is_dropped_frees_the_desk()
    {
        for (var i = 0; i < 6; i++)
            await foreach (var _ in app.Stream("/api/plan", Ask(Sample.Table(2.63, 0.62, (2.98, 0.47), (3.05, 1.25), (2.55, 1.20)))))
                break;
        Assert.Equal(1, (await Plan(Ask(Colours)))[^1]["share"]!.GetValue<double>());
    }

    [Fact]
    public async Task More_plans_than_there_is_room_for_wait_in_their_order_and_are_told_how_long()
    {
        Places places = new(most: 4, ofOne: 4, firstGuess: 6, TimeProvider.System);
        List<Places.Place> running = [.. Enumerable.Range(0, 4).Select(_ => places.Ask("one", () => { }))];
        foreach (var place in running)
            await place.TurnAsync(_ => Assert.Fail("there was room"), default);
        SearchWait? told = null;
        Places.Place first = places.Ask("one", () => { }),
            second = places.Ask("one", () => { }),
            third = places.Ask("one", () => { });
        var (firstTurn, secondTurn) = (first.TurnAsync(_ => { }, default), second.TurnAsync(w => told = w, default));
        Assert.Equal(1, told!.Ahead);
        Assert.True(told.Seconds > 0);
        using var cancel = new CancellationTokenSource();
        var thirdTurn = third.TurnAsync(_ => { }, cancel.Token);
        await cancel.CancelAsync();
        await Assert.ThrowsAnyAsync<OperationCanceledException>(() => thirdTurn);
        third.Dispose();
        running[0].Dispose();
        await firstTurn;
        Assert.False(secondTurn.IsCompleted);
        running[1].Dispose();
        await secondTurn;
        Assert.Equal((4, 0), (places.Running, places.Waiting));
    }

    [Fact]
    public async Task No_client_holds_all_places_and_who_holds_fewest_is_next()
    {
        Places places = new(most: 4, ofOne: 3, firstGuess: 6, TimeProvider.System);
        List<Places.Place> greedy = [.. Enumerable.Range(0, 8).Select(_ => places.Ask("greedy", () => { }))];
        Assert.Equal((3, 5), (places.Running, places.Waiting));
        // There is room for somebody else at once; a third comes before those who waited longer but have places.
        await places.Ask("modest", () => { }).TurnAsync(_ => Assert.Fail("there was room"), default);
        var late = places.Ask("late", () => { });
        greedy[0].Dispose();
        await late.TurnAsync(_ => Assert.Fail("the others have places already"), default);
        Assert.Equal((4, 5), (places.Running, places.Waiting));
    }

    [Theory]
    [InlineData("""{ "on": "red" }""", "{}", "frame.on")]
    [InlineData("""{ "on": "puce" }""", "{}", "frame.on")]
    [InlineData("""{ "first": 12, "break": 20 }""", "{}", "frame.break")]
    [InlineData("""{ "second": 1200 }""", "{}", "frame.second")]
    [InlineData("{}", """{ "target": "score", "score": 28 }""", "preferences.score")]
    public async Task A_frame_or_a_wish_that_cannot_be_is_refused_before_the_stream_begins(string frame, string preferences, string field)
    {
        var content = Colours;
        content["frame"] = JsonNode.Parse(frame);
        var (status, problem) = await app.Post("/api/plan", Ask(content, JsonNode.Parse(preferences)!.AsObject()));
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
    }

    [Fact]
    public async Task A_red_without_all_colours_is_no_frame_and_an_exercise_that_is_planned()
    {
        var content = Sample.Content();
        content["frame"] = new JsonObject { ["on"] = "red" };
        var (status, problem) = await app.Post("/api/plan", Ask(content));
        Assert.Equal((400, "frame.colours"), (status, problem.Fields()[0]));
        content = Sample.Content();
        content["frame"] = new JsonObject { ["exercise"] = new JsonObject() };
        var plans = (await Plan(Ask(content)))[^1]["plans"]!;
        Assert.Equal("red-1", plans[0]!["shots"]![0]!["choice"]!["nominated"]!.GetValue<string>());
    }

    [Fact]
    public async Task The_frame_is_told_from_balls_and_score()
    {
        var content = OneRed;
        content["frame"] = new JsonObject
        {
            ["first"] = 30,
            ["second"] = 52,
            ["break"] = 8,
        };
        var (_, frame) = await app.Post("/api/frame", new JsonObject { ["content"] = content });
        // A red, a black and the colours: 35 left, 22 behind.
        Assert.Equal(
            (35, -22, 29, 43),
            (
                frame["pointsLeft"]!.GetValue<int>(),
                frame["ahead"]!.GetValue<int>(),
                frame["toWin"]!.GetValue<int>(),
                frame["highestBreak"]!.GetValue<int>()
            )
        );
        Assert.Equal(["red-1"], frame["onBalls"]!.AsArray().Select(b => b!.GetValue<string>()));
    }

    [Fact]
    public async Task A_pot_missed_on_either_side_stays_out_and_passes_the_turn()
    {
        var content = OneRed;
        content["stroke"] = new JsonObject
        {
            ["pace"] = 5,
            ["pot"] = new JsonObject { ["ball"] = "red-1", ["pocket"] = "green-top" },
        };
        var places = new List<double>();
        foreach (var side in (string[])["thick", "thin"])
        {
            var (_, on) = await app.Post("/api/play-on", new JsonObject { ["content"] = content.DeepClone(), ["missed"] = side });
            Assert.Equal(
                (0, 1, 8),
                (on["points"]!.GetValue<int>(), on["frame"]!["turn"]!.GetValue<int>(), on["content"]!["balls"]!.AsArray().Count)
            );
            places.Add(on["content"]!["balls"]!.AsArray().Single(b => b!["id"]!.GetValue<string>() == "red-1")!["x"]!.GetValue<double>());
        }
        Assert.NotEqual(places[0], places[1]);
        Assert.Equal(400, (await app.Post("/api/play-on", new JsonObject { ["content"] = content, ["missed"] = "sideways" })).Status);
    }

    [Fact]
    public async Task The_map_and_one_place_of_it_agree()
    {
        JsonObject About(string? target) => new() { ["content"] = OneRed, ["target"] = target };
        var (status, map) = await app.Post("/api/position-map", About("blue"));
        Assert.Equal(200, status);
        Assert.Equal(5, map["bands"]!.AsArray().Count);
        var at = About("blue");
        (at["x"], at["y"]) = (map["best"]!["x"]!.GetValue<double>(), map["best"]!["y"]!.GetValue<double>());
        var (_, best) = await app.Post("/api/position-at", at);
        (at["x"], at["y"]) = (0.3, 0.1);
        var (_, poor) = await app.Post("/api/position-at", at);
        Assert.Equal("blue", best["ball"]!.GetValue<string>());
        Assert.True(best["value"]!.GetValue<double>() > poor["value"]!.GetValue<double>());
        Assert.Equal("target", (await app.Post("/api/position-map", About("red-9"))).Body.Fields()[0]);
    }

    [Fact]
    public async Task A_plan_is_kept_with_its_position_and_opens_just_as_it_was()
    {
        var (_, position) = await app.Post("/api/positions", new JsonObject { ["name"] = "Colours", ["content"] = Colours });
        var path = $"/api/positions/{position["id"]!.GetValue<string>()}/plans";
        var answer = (await Plan(Ask(Colours)))[^1];
        var draft = new JsonObject
        {
            ["name"] = "Yellow first",
            ["content"] = Colours,
            ["body"] = new JsonObject
            {
                ["player"] = new JsonObject(),
                ["preferences"] = new JsonObject { ["target"] = "clear" },
                ["answer"] = answer.DeepClone(),
            },
        };
        var (status, kept) = await app.Post(path, draft);
        Assert.Equal(201, status);
        var (_, again) = await app.Send(HttpMethod.Get, $"{path}/{kept["id"]!.GetValue<string>()}");
        // Where its search was is nothing to keep.
        answer["status"] = null;
        Assert.True(JsonNode.DeepEquals(answer, again["body"]!["answer"]));
        Assert.Equal("clear", again["body"]!["preferences"]!["target"]!.GetValue<string>());
        Assert.Single((await app.Send(HttpMethod.Get, path)).Body.AsArray());
        Assert.Equal(204, await app.Delete($"{path}/{kept["id"]!.GetValue<string>()}"));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, $"{path}/{kept["id"]!.GetValue<string>()}")).Status);
        draft["body"]!["answer"]!["plans"] = new JsonArray();
        Assert.Equal("body.answer.plans", (await app.Post(path, draft)).Body.Fields()[0]);
    }

    [Fact]
    public async Task A_position_with_its_frame_goes_out_to_a_file_and_back()
    {
        var content = OneRed;
        content["frame"] = new JsonObject
        {
            ["on"] = "red",
            ["first"] = 30,
            ["second"] = 52,
            ["turn"] = 0,
            ["break"] = 8,
            ["freeBall"] = false,
            ["repeats"] = false,
        };
        var (_, file) = await app.Post("/api/positions/export/json", new JsonObject { ["name"] = "With a frame", ["content"] = content });
        Assert.True(JsonNode.DeepEquals(content["frame"], file["frame"]));
        var (status, back) = await app.Post("/api/positions/import", file);
        Assert.Equal(201, status);
        Assert.True(JsonNode.DeepEquals(content["frame"], back["content"]!["frame"]));
    }

    [Fact]
    public void A_plan_kept_before_figures_knew_their_error_still_opens()
    {
        var kept = JsonNode.Parse(
            """
            {"answer":{"examined":9,"share":1,"plans":[{"shots":[{"alive":1,"choice":{"chance":0.9,"foul":0.01,"holds":0.8,"value":31}}],
            "prospect":{"breaks":32,"points":28.5,"median":24,"target":null,"cleared":0.25,"endsAt":1,"endsShare":0.4,"alive":[1,0.9]}}],
            "alternatives":[{"choice":{"chance":0.9,"foul":0.01,"holds":0.8,"value":31},"below":"none","lacks":0}]}}
            """
        )!;
        var answer = KeptPlanForms.Present(kept)["answer"]!;
        var plan = answer["plans"]![0]!;
        Assert.Equal("""{"value":28.5,"error":0,"strokes":32}""", plan["prospect"]!["points"]!.ToJsonString());
        Assert.Equal("""{"value":0.9,"error":0,"strokes":32}""", plan["prospect"]!["alive"]![1]!.ToJsonString());
        Assert.Equal(0.9, plan["shots"]![0]!["choice"]!["chance"]!["value"]!.GetValue<double>());
        Assert.Equal(31, answer["alternatives"]![0]!["value"]!["value"]!.GetValue<double>());
        Assert.Equal("points", answer["unit"]!.GetValue<string>());
        Assert.Equal("""{"value":28.5,"error":0,"strokes":32}""", plan["prospect"]!["value"]!.ToJsonString());
        Assert.True(plan["prospect"]!["target"] is null && plan["prospect"]!["breaks"] is null);
        // One in the present form stays as it is.
        var again = kept.ToJsonString();
        Assert.Equal(again, KeptPlanForms.Present(JsonNode.Parse(again)!).ToJsonString());
    }

    [Fact]
    public async Task The_cards_of_a_plan_are_a_pdf_with_two_to_a_sheet()
    {
        var cards = new JsonArray([
            .. Enumerable.Range(1, 3).Select(i => (JsonNode)new JsonObject { ["name"] = $"Shot {i}", ["content"] = Sample.Content() }),
        ]);
        using var response = await app.Client.PostAsync(
            "/api/card/sheet/pdf",
            new StringContent(new JsonObject { ["name"] = "Plan", ["cards"] = cards }.ToJsonString(), Encoding.UTF8, "application/json")
        );
        var text = Encoding.Latin1.GetString(await response.Content.ReadAsByteArrayAsync());
        Assert.StartsWith("%PDF", text);
        Assert.Equal(2, System.Text.RegularExpressions.Regex.Count(text, @"/Type\s*/Page\b"));
        Assert.Equal(
            "cards",
            (await app.Post("/api/card/sheet/pdf", new JsonObject { ["name"] = "Plan", ["cards"] = new JsonArray() })).Body.Fields()[0]
        );
    }

    /// <summary>Official Rules of Snooker, Section 3, rules 13 and 14 (from memory).</summary>
    [Fact]
    public async Task After_a_foul_the_balls_are_put_back_or_played_from_where_they_lie()
    {
        // The white runs into the brown instead of the red.
        var content = Sample.Table(0.45, 0.75, (2.2, 0.5));
        content["stroke"] = JsonNode.Parse("""{ "aim": 25.8, "pace": 3 }""");
        async Task<JsonNode> After(string choice)
        {
            var ask = new JsonObject { ["content"] = content.DeepClone(), ["afterFoul"] = choice };
            var (status, answer) = await app.Post("/api/play-on", ask);
            Assert.Equal((200, 4), (status, answer["penalty"]!.GetValue<int>()));
            return answer;
        }
        static (double X, int Turn, int Second) Told(JsonNode answer) =>
            (
                answer["content"]!["balls"]![0]!["x"]!.GetValue<double>(),
                answer["frame"]!["turn"]!.GetValue<int>(),
                answer["frame"]!["second"]!.GetValue<int>()
            );
        Assert.Equal((0.45, 0, 4), Told(await After("putBack")));
        var (asLeft, turn, second) = Told(await After("playAgain"));
        Assert.NotEqual(0.45, asLeft);
        Assert.Equal((0, 4), (turn, second));
        Assert.Equal((asLeft, 1, 4), Told(await After("play")));
        // A fair stroke leaves nothing to choose, and of a stroke that struck the ball on no miss is called.
        content["stroke"] = JsonNode.Parse("""{ "aim": -8.13, "pace": 3 }""");
        foreach (var (choice, field) in new[] { ("playAgain", "afterFoul"), ("putBack", "stroke.missCalled") })
        {
            var ask = new JsonObject { ["content"] = content.DeepClone(), ["afterFoul"] = choice };
            var (status, problem) = await app.Post("/api/play-on", ask);
            Assert.Equal((400, field), (status, problem.Fields()[0]));
        }
    }
}
