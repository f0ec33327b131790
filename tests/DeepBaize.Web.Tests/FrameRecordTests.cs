using System.Text.Json.Nodes;
using DeepBaize.Core.Strokes;

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
        Assert.Equal(204, (await app.Send(HttpMethod.Delete, path)).Status);
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

    [Fact]
    public async Task A_frame_without_a_title_is_refused() =>
        Assert.Equal("title", (await app.Post("/api/frames", new JsonObject { ["title"] = " " })).Body.Fields()[0]);
}
