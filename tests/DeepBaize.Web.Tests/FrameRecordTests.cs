using System.Text.Json.Nodes;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Strokes;
using DeepBaize.Data;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class FrameRecordTests(Application app)
{
    private static JsonObject Pot(string ball) =>
        new()
        {
            ["kind"] = "pot",
            ["potted"] = new JsonArray(ball),
            ["tags"] = new JsonArray("follow"),
        };

    private static JsonArray Shots =>
        [
            Pot("red"),
            Pot("black"),
            new JsonObject
            {
                ["kind"] = "miss",
                ["why"] = "thick",
                ["white"] = new JsonObject { ["x"] = 1.5, ["y"] = 0.4 },
            },
            new JsonObject { ["kind"] = "foul", ["penalty"] = 5 },
        ];

    private static JsonObject Draft(JsonArray? shots = null) =>
        new()
        {
            ["title"] = "Ladder, frame 2",
            ["first"] = "Tilda",
            ["second"] = "Orrin",
            ["shots"] = shots ?? [],
        };

    [Fact]
    public async Task A_frame_is_written_shot_by_shot_and_the_last_can_be_taken_back()
    {
        var (status, frame) = await app.Post("/api/frames", Draft());
        Assert.Equal(201, status);
        var path = $"/api/frames/{frame["id"]!.GetValue<string>()}";
        var written = new JsonArray();
        foreach (var shot in Shots)
        {
            written.Add(shot!.DeepClone());
            var save = Draft(written.DeepClone().AsArray());
            save["version"] = frame["version"]!.GetValue<uint>();
            (status, frame) = await app.Send(HttpMethod.Put, path, save);
            Assert.Equal(200, status);
        }
        var state = frame["story"]!["state"]!;
        Assert.Equal(
            (8 + 5, 0, "red"),
            (state["first"]!.GetValue<int>(), state["second"]!.GetValue<int>(), state["on"]!.GetValue<string>())
        );
        Assert.Equal(8, frame["story"]!["breaks"]![0]!["points"]!.GetValue<int>());

        written.RemoveAt(3);
        var undo = Draft(written);
        undo["version"] = frame["version"]!.GetValue<uint>();
        (_, frame) = await app.Send(HttpMethod.Put, path, undo);
        Assert.Equal((8, 1), (frame["story"]!["state"]!["first"]!.GetValue<int>(), frame["story"]!["state"]!["turn"]!.GetValue<int>()));
        // Written over from an older page, nothing is lost.
        Assert.Equal(409, (await app.Send(HttpMethod.Put, path, undo)).Status);
        Assert.Contains((await app.Send(HttpMethod.Get, "/api/frames")).Body.AsArray(), f => f!["highestBreak"]!.GetValue<int>() == 8);
        Assert.Equal(204, await app.Delete(path));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, path)).Status);
    }

    [Fact]
    public async Task The_same_file_comes_back_in_as_the_same_frame()
    {
        var (_, frame) = await app.Post("/api/frames", Draft(Shots));
        var (_, file) = await app.Send(HttpMethod.Get, $"/api/frames/{frame["id"]!.GetValue<string>()}/export/json");
        var (status, again) = await app.Post("/api/frames/import", file);
        Assert.Equal(201, status);
        Assert.NotEqual(frame["id"]!.GetValue<string>(), again["id"]!.GetValue<string>());
        Assert.True(JsonNode.DeepEquals(frame["story"], again["story"]));
        file["version"] = 2;
        Assert.Equal("version", (await app.Post("/api/frames/import", file)).Body.Fields()[0]);
        (file["version"], file["colour"]) = (1, "unknown");
        Assert.Equal(400, (await app.Post("/api/frames/import", file)).Status);
    }

    [Fact]
    public async Task The_table_of_shots_has_a_line_each_with_the_score_running()
    {
        var draft = Draft(Shots);
        draft["second"] = "Orrin \"Long\" Marsh, left-hander";
        var (_, frame) = await app.Post("/api/frames", draft);
        var text = await app.Client.GetStringAsync($"/api/frames/{frame["id"]!.GetValue<string>()}/export/csv");
        var lines = text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries);
        Assert.Equal(5, lines.Length);
        Assert.Equal(
            "shot,player,on,outcome,potted,points,penalty,break,score_first,score_second,strokes,why,white_x_m,white_y_m",
            lines[0]
        );
        Assert.Equal("2,Tilda,colour,pot,black,7,0,8,8,0,follow,,,", lines[2]);
        Assert.Equal("3,Tilda,red,miss,,0,0,0,8,0,,thick,1.5,0.4", lines[3]);
        // Quoted as RFC 4180 asks.
        Assert.StartsWith("4,\"Orrin \"\"Long\"\" Marsh, left-hander\",red,foul,,0,5,", lines[4]);
    }

    [Theory]
    [InlineData("""{ "kind": "pot", "potted": ["black"] }""", "shots[0].potted")]
    [InlineData("""{ "kind": "foul", "penalty": 9 }""", "shots[0].penalty")]
    [InlineData("""{ "kind": "miss", "white": { "x": 9, "y": 0 } }""", "shots[0].white")]
    public async Task A_shot_that_cannot_be_is_refused_and_nothing_is_kept(string shot, string field)
    {
        var before = (await app.Send(HttpMethod.Get, "/api/frames")).Body.AsArray().Count;
        var (status, problem) = await app.Post("/api/frames", Draft([JsonNode.Parse(shot)]));
        Assert.Equal((400, field), (status, problem.Fields()[0]));
        Assert.Equal(before, (await app.Send(HttpMethod.Get, "/api/frames")).Body.AsArray().Count);
    }

    private static JsonNode Shot(string json) => JsonNode.Parse(json)!;

    /// <summary>Official Rules of Snooker, Section 3, rule 14 (from memory).</summary>
    [Fact]
    public async Task After_a_miss_the_balls_come_back_or_it_is_played_from_where_they_lie()
    {
        var red = """{ "kind": "pot", "potted": ["red"] }""";
        var missed = """{ "kind": "foul", "penalty": 4, "missCalled": true, "redsLost": 1, "HOW": true }""";
        async Task<JsonNode> StateAfter(string how)
        {
            var (status, frame) = await app.Post("/api/frames", Draft([Shot(red), Shot(missed.Replace("HOW", how))]));
            Assert.Equal(201, status);
            return frame["story"]!["state"]!;
        }
        var replaced = await StateAfter("replaced");
        Assert.Equal(("colour", 14, 0, 1), Told(replaced));
        var again = await StateAfter("playAgain");
        Assert.Equal(("red", 13, 0, 0), Told(again));

        static (string On, int Reds, int Turn, int Misses) Told(JsonNode state)
        {
            int Number(string name) => state[name]!.GetValue<int>();
            return (state["on"]!.GetValue<string>(), Number("reds"), Number("turn"), Number("misses"));
        }
    }

    [Fact]
    public async Task The_third_miss_of_a_turn_gives_the_frame_and_putting_balls_back_needs_a_miss()
    {
        var missed = """{ "kind": "foul", "penalty": 4, "missCalled": true, "replaced": true }""";
        var (_, twice) = await app.Post("/api/frames", Draft([Shot(missed), Shot(missed)]));
        Assert.True(twice["story"]!["state"]!["isWarned"]!.GetValue<bool>());
        var (_, thrice) = await app.Post("/api/frames", Draft([Shot(missed), Shot(missed), Shot(missed)]));
        Assert.Equal(1, thrice["story"]!["state"]!["winner"]!.GetValue<int>());
        var (_, problem) = await app.Post("/api/frames", Draft([Shot("""{ "kind": "foul", "penalty": 4, "replaced": true }""")]));
        Assert.Equal(["shots[0].replaced"], problem.Fields());
    }

    /// <summary>Rule 4: both make the same score, so that the black comes back; who plays first is drawn by lot and written down.</summary>
    [Fact]
    public async Task A_respotted_black_waits_for_the_lot_and_then_for_a_pot_or_a_foul()
    {
        List<JsonNode> shots = [];
        void Add(string json) => shots.Add(Shot(json));
        for (var i = 0; i < 15; i++)
        {
            Add("""{ "kind": "pot", "potted": ["red"] }""");
            Add("""{ "kind": "miss" }""");
        }
        // Eight reds to seven, and the second goes on with yellow to blue: 8 to 21. Pink and black by the first bring them level.
        foreach (var colour in new[] { "yellow", "green", "brown", "blue" })
            Add($$"""{ "kind": "pot", "potted": ["{{colour}}"] }""");
        Add("""{ "kind": "miss" }""");
        Add("""{ "kind": "pot", "potted": ["pink"] }""");
        Add("""{ "kind": "pot", "potted": ["black"] }""");
        async Task<(int Status, JsonNode Body)> Told(params string[] more) =>
            await app.Post("/api/frames", Draft([.. shots.Select(s => s.DeepClone()), .. more.Select(Shot)]));

        var level = (await Told()).Body["story"]!["state"]!;
        Assert.Equal((21, 21), (level["first"]!.GetValue<int>(), level["second"]!.GetValue<int>()));
        Assert.True(level["awaitsLot"]!.GetValue<bool>() && !level["isOver"]!.GetValue<bool>());
        Assert.Empty(level["mayPot"]!.AsArray());
        var potted = """{ "kind": "pot", "potted": ["black"] }""";
        var lot = """{ "kind": "lot", "player": 1 }""";
        Assert.Equal([$"shots[{shots.Count}].kind"], (await Told(potted)).Body.Fields());
        Assert.Equal([$"shots[{shots.Count + 1}].kind"], (await Told(lot, lot)).Body.Fields());
        // Safeties end nothing; the black does, and so does a foul.
        var safety = """{ "kind": "safety" }""";
        Assert.False((await Told(lot, safety, safety)).Body["story"]!["state"]!["isOver"]!.GetValue<bool>());
        Assert.Equal(1, (await Told(lot, potted)).Body["story"]!["state"]!["winner"]!.GetValue<int>());
        Assert.Equal(0, (await Told(lot, """{ "kind": "foul", "penalty": 7 }""")).Body["story"]!["state"]!["winner"]!.GetValue<int>());
    }

    /// <summary>What was written down before a rule was put right is still there: told up to the shot that could not have been.</summary>
    [Fact]
    public async Task A_stored_frame_that_breaks_a_rule_is_told_as_far_as_it_goes()
    {
        var (_, frame) = await app.Post("/api/frames", Draft([Shot("""{ "kind": "pot", "potted": ["red"] }""")]));
        var id = frame["id"]!.GetValue<string>();
        var options = new DbContextOptionsBuilder<DeepBaizeContext>();
        DeepBaizeContext.Configure(options, app.Connection);
        await using (var db = new DeepBaizeContext(options.Options))
        {
            var stored = await db.Frames.SingleAsync(f => f.Id == Guid.Parse(id));
            stored.Shots = [.. stored.Shots, new() { Kind = ShotKind.Pot, Potted = ["red"] }];
            await db.SaveChangesAsync();
        }
        var (status, read) = await app.Send(HttpMethod.Get, $"/api/frames/{id}");
        Assert.Equal((200, 1), (status, read["story"]!["shots"]!.AsArray().Count));
        Assert.Equal("shots[1].potted", read["story"]!["fault"]!["field"]!.GetValue<string>());
        Assert.Equal(200, (await app.Send(HttpMethod.Get, "/api/frames")).Status);
        Assert.Equal(204, await app.Delete($"/api/frames/{id}"));
    }

    [Fact]
    public async Task A_frame_without_a_title_is_refused() =>
        Assert.Equal("title", (await app.Post("/api/frames", new JsonObject { ["title"] = " " })).Body.Fields()[0]);
}
