using System.Globalization;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using DeepBaize.Core.Camera;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.StandIns;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Web.Tests;

/// <summary>Devices over HTTP: what a camera's stream becomes, how it is put right, and the timing of the cue.</summary>
[Collection("application")]
public class DeviceTests(Application app)
{
    private static string Line(Sighting s)
    {
        var line = new JsonObject
        {
            ["time"] = Math.Round(s.Time, 3),
            ["ball"] = s.Ball.IsRed ? "red" : s.Ball.Id,
            ["x"] = Math.Round(s.At.X, 4),
            ["y"] = Math.Round(s.At.Y, 4),
            ["doubt"] = s.Doubt,
        };
        return line.ToJsonString() + "\n";
    }

    /// <summary>A table that lies still, a stroke on it, and the table afterwards.</summary>
    private static (List<Sighting> Film, Simulator After) Film(Layout layout, Stroke stroke, MadeUpCamera camera)
    {
        var (simulator, record) = (new Simulator(new(Conditions.Default)), new ShotRecord());
        stroke.Play(simulator, layout, record);
        return ([.. camera.Still(layout.Balls, 2.5), .. camera.Stroke(layout, record), .. camera.Still(simulator.Left(), 2.5)], simulator);
    }

    private static readonly CameraFaults Clear = new(Noise: 0.001, GapsPerSecond: 0, Mistaken: 0);

    /// <summary>Straight into the green's top pocket from the middle of the table: a red, and the white stops where it was met.</summary>
    private static (Layout Layout, Stroke Stroke) Pot()
    {
        var pocket = new Vec2(Dimensions.Length, Dimensions.Width);
        var red = pocket - 0.5 * new Vec2(1, 1).Unit;
        var white = pocket - 1.0 * new Vec2(1, 1).Unit;
        List<PlacedBall> balls =
        [
            new(Ball.White, white),
            .. Rack.Colours(),
            .. Enumerable.Range(1, 15).Select(n => new PlacedBall(Ball.Red(n), n == 1 ? red : new Vec2(0.3 + 0.15 * n, 0.1))),
        ];
        return (Layout.OfRest(balls), new(45, 0, -0.2, 4, 3));
    }

    private async Task<(int Status, JsonNode Body)> Post(string path, IEnumerable<string> lines)
    {
        using var content = new StringContent(string.Concat(lines), Encoding.UTF8, "application/x-ndjson");
        using var answer = await app.Client.PostAsync(path, content, TestContext.Current.CancellationToken);
        return ((int)answer.StatusCode, (await answer.Content.ReadFromJsonAsync<JsonNode>(TestContext.Current.CancellationToken))!);
    }

    private async Task<string> Camera(string kind = "none", string? id = null)
    {
        var (status, camera) = await app.Post(
            "/api/camera",
            new JsonObject
            {
                ["name"] = "Over table 1",
                ["goal"] = new JsonObject { ["kind"] = kind, ["id"] = id },
            }
        );
        Assert.Equal(201, status);
        return camera["id"]!.GetValue<string>();
    }

    private async Task<JsonNode> Get(string path) => (await app.Send(HttpMethod.Get, path)).Body;

    [Fact]
    public async Task A_stream_is_written_into_the_frame_and_can_be_put_right_and_taken_back()
    {
        var (_, frame) = await app.Post("/api/frames", new JsonObject { ["title"] = "Seen from above", ["shots"] = new JsonArray() });
        var frameId = frame["id"]!.GetValue<string>();
        var camera = await Camera("frame", frameId);
        var (layout, stroke) = Pot();
        var (film, _) = Film(layout, stroke, new(Clear, new Random(1)));
        var (status, streamed) = await Post($"/api/camera/{camera}/stream", film.Select(Line));
        Assert.Equal((200, 1), (status, streamed["strokes"]!.GetValue<int>()));
        var state = await Get($"/api/camera/{camera}");
        var seen = state["strokes"]![0]!;
        Assert.Equal("red-1", seen["stroke"]!["first"]!.GetValue<string>()[..3] + "-1");
        Assert.Equal("green-top", seen["stroke"]!["gone"]![0]!["pocket"]!.GetValue<string>());
        Assert.Equal("shot", seen["became"]!["kind"]!.GetValue<string>());
        async Task<(int Score, int Shots)> Score()
        {
            var story = (await Get($"/api/frames/{frameId}"))["story"]!;
            return (story["state"]!["first"]!.GetValue<int>(), story["shots"]!.AsArray().Count);
        }
        Assert.Equal((1, 1), await Score());
        // The red did not go in after all, somebody says, and the blue was met first: a foul of five to the other.
        var path = $"/api/camera/{camera}/strokes/{seen["id"]}";
        var (fixedStatus, right) = await app.Send(HttpMethod.Put, path, new JsonObject { ["first"] = "blue", ["gone"] = new JsonArray() });
        Assert.Equal((200, true), (fixedStatus, right["isCorrected"]!.GetValue<bool>()));
        var corrected = (await Get($"/api/frames/{frameId}"))["story"]!;
        Assert.Equal((0, 5), (corrected["state"]!["first"]!.GetValue<int>(), corrected["state"]!["second"]!.GetValue<int>()));
        Assert.Equal(
            400,
            (await app.Send(HttpMethod.Put, path, new JsonObject { ["first"] = "white", ["gone"] = new JsonArray() })).Status
        );
        // And then that it was no stroke at all.
        var (_, dropped) = await app.Post($"{path}/drop", new JsonObject());
        Assert.True(dropped["isDropped"]!.GetValue<bool>());
        Assert.Equal((0, 0), await Score());
        // Sent once more it is told, and goes into no frame that is gone.
        Assert.Equal(204, await app.Delete($"/api/frames/{frameId}"));
        await Post($"/api/camera/{camera}/stream", film.Select(Line));
        Assert.Equal("noFrame", (await Get($"/api/camera/{camera}"))["strokes"]![0]!["became"]!["why"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_stroke_from_the_layout_of_the_session_counts_as_an_attempt_and_one_from_another_does_not()
    {
        var routine = (await Get("/api/routines/stop"))["routine"]!;
        var step = routine["steps"]![0]!;
        var (_, session) = await app.Post(
            "/api/practice/sessions",
            new JsonObject
            {
                ["id"] = Guid.NewGuid().ToString(),
                ["plan"] = new JsonArray(),
                ["now"] = new JsonObject { ["routine"] = "stop", ["step"] = 0 },
            }
        );
        var id = session["id"]!.GetValue<string>();
        var camera = await Camera("session", id);
        var balls = step["balls"]!
            .AsArray()
            .Select(b => (b!["id"]!.GetValue<string>(), b["x"]!.GetValue<double>(), b["y"]!.GetValue<double>()))
            .ToList();
        // As a hand lays them: a centimetre off.
        var layout = Layout.Create([.. balls.Select(b => ((string?)b.Item1, b.Item2 + 0.008, b.Item3))], new(Conditions.Default));
        var other = Layout.Create([.. balls.Select(b => ((string?)b.Item1, b.Item2 - 0.2, b.Item3))], new(Conditions.Default));
        var made = new MadeUpCamera(new(), new Random(2));
        var aim = (layout.Balls[1].At - layout.White.At).Direction.Degrees;
        var (film, after) = Film(layout, new(aim, 0, 0, 4, 3), made);
        var (elsewhere, _) = Film(other, new(aim, 0, 0, 4, 3), made);
        await Post($"/api/camera/{camera}/stream", film.Concat(elsewhere).Select(Line));
        var strokes = (await Get($"/api/camera/{camera}"))["strokes"]!
            .AsArray()
            .OrderBy(s => s!["stroke"]!["startedAt"]!.GetValue<double>())
            .ToList();
        Assert.Equal(["attempt", "none"], strokes.Select(s => s!["became"]!["kind"]!.GetValue<string>()));
        Assert.Equal("otherLayout", strokes[1]!["became"]!["why"]!.GetValue<string>());
        var attempt = Assert.Single((await Get($"/api/practice/sessions/{id}"))["attempts"]!.AsArray())!;
        var white = attempt["white"]!;
        Assert.True(after.At(0).DistanceTo(new(white["x"]!.GetValue<double>(), white["y"]!.GetValue<double>())) < 0.006, $"{white}");
        await app.Post($"/api/camera/{camera}/strokes/{strokes[0]!["id"]}/drop", new JsonObject());
        Assert.True((await Get($"/api/practice/sessions/{id}"))["attempts"]![0]!["withdrawn"]!.GetValue<bool>());
    }

    [Theory]
    [InlineData("""{"time":0,"ball":"mauve","x":1,"y":1}""", "lines[3].ball")]
    [InlineData("""{"time":0,"ball":"white","x":99,"y":1}""", "lines[3].x")]
    [InlineData("""{"time":"soon","ball":"white","x":1,"y":1}""", "lines[3].time")]
    [InlineData("nonsense", "lines[3]")]
    public async Task A_bad_line_is_named_with_its_field(string bad, string field)
    {
        const string good = """{"time":0,"ball":"white","x":1,"y":0.5}""";
        var camera = await Camera();
        foreach (var path in new[] { "/api/camera/read", $"/api/camera/{camera}/stream" })
        {
            var (status, problem) = await Post(path, [good + "\n", good + "\n", bad + "\n", good]);
            Assert.Equal(400, status);
            Assert.Equal(field, problem["errors"]![0]!["field"]!.GetValue<string>());
        }
    }

    [Fact]
    public async Task A_file_is_read_without_keeping_anything()
    {
        var (layout, stroke) = Pot();
        var (film, _) = Film(layout, stroke, new(new(), new Random(3)));
        var (status, read) = await Post("/api/camera/read", film.Select(Line));
        Assert.Equal(200, status);
        Assert.Equal("green-top", Assert.Single(read["strokes"]!.AsArray())!["gone"]![0]!["pocket"]!.GetValue<string>());
        Assert.Equal(21, read["balls"]!.AsArray().Count);
    }

    [Fact]
    public async Task A_made_up_camera_plays_until_it_is_stopped()
    {
        var (status, camera) = await app.Post("/api/stand-in/camera", new JsonObject { ["plays"] = "frame", ["haste"] = 20 });
        Assert.Equal(200, status);
        var path = $"/api/camera/{camera["id"]}";
        JsonNode state;
        do
        {
            await Task.Delay(100, TestContext.Current.CancellationToken);
            state = await Get(path);
        } while (state["strokes"]!.AsArray().Count == 0);
        Assert.True(state["camera"]!["balls"]!.AsArray().Count > 15);
        Assert.Equal(
            204,
            (int)
                (
                    await app.Client.PostAsync($"/api/stand-in/camera/{camera["id"]}/stop", null, TestContext.Current.CancellationToken)
                ).StatusCode
        );
        // It may be in the midst of telling; then nothing more comes.
        long changes;
        do
        {
            changes = (await Get(path))["camera"]!["changes"]!.GetValue<long>();
            await Task.Delay(1200, TestContext.Current.CancellationToken);
        } while ((await Get(path))["camera"]!["changes"]!.GetValue<long>() != changes);
        Assert.Equal(400, (await app.Post("/api/stand-in/camera", new JsonObject { ["plays"] = "stroke" })).Status);
    }

    [Fact]
    public async Task Strokes_of_the_cue_are_kept_with_the_player_week_by_week_and_compared()
    {
        var ids = new JsonArray();
        foreach (var timing in new[] { "well", "slowing", "slowing" })
        {
            var (_, motion) = await app.Post("/api/stand-in/cue", new JsonObject { ["timing"] = timing });
            var (status, kept) = await app.Post(
                "/api/cue/strokes",
                new JsonObject { ["source"] = "standIn", ["motion"] = motion.DeepClone() }
            );
            Assert.Equal(201, status);
            ids.Add(kept["id"]!.DeepClone());
            Assert.Equal(timing == "well" ? "rising" : "pastPeak", kept["timing"]!["atContact"]!.GetValue<string>());
        }
        var list = await Get("/api/cue/strokes");
        var week = Assert.Single(list["weeks"]!.AsArray())!;
        Assert.Equal((3, 2), (week["strokes"]!.GetValue<int>(), week["pastPeak"]!.GetValue<int>()));
        var (_, figures) = await app.Post("/api/cue/compare", new JsonObject { ["ids"] = ids });
        Assert.Contains(figures.AsArray(), f => f!["name"]!.GetValue<string>() == "peakBefore" && f["scatters"]!.GetValue<bool>());
        Assert.Equal(400, (await app.Post("/api/cue/compare", new JsonObject { ["ids"] = new JsonArray(ids[0]!.DeepClone()) })).Status);
        foreach (var stroke in list["strokes"]!.AsArray())
        {
            var path = $"/api/cue/strokes/{stroke!["id"]}?version={stroke["version"]}";
            using var deleted = await app.Client.DeleteAsync(path, TestContext.Current.CancellationToken);
            Assert.Equal(204, (int)deleted.StatusCode);
        }
        Assert.Empty((await Get("/api/cue/strokes"))["strokes"]!.AsArray());
    }

    [Fact]
    public async Task A_file_of_readings_is_read_and_its_bad_lines_are_named()
    {
        async Task<(int Status, JsonNode Body)> Csv(string text)
        {
            using var content = new StringContent(text, Encoding.UTF8, "text/csv");
            using var answer = await app.Client.PostAsync("/api/cue/read/csv", content, TestContext.Current.CancellationToken);
            return ((int)answer.StatusCode, (await answer.Content.ReadFromJsonAsync<JsonNode>(TestContext.Current.CancellationToken))!);
        }
        var rows = Enumerable.Range(0, 40).Select(i => string.Create(CultureInfo.InvariantCulture, $"{i * 0.002},{i * 0.001}")).ToList();
        var (status, read) = await Csv("time,travel\n" + string.Join("\n", rows));
        Assert.Equal((200, 40), (status, read["samples"]!.AsArray().Count));
        rows[4] = "0.008,far";
        var (bad, problem) = await Csv("time,travel\n" + string.Join("\n", rows));
        Assert.Equal((400, "line 6, travel"), (bad, problem["errors"]![0]!["field"]!.GetValue<string>()));
        Assert.Equal("line 1", (await Csv("when,where\n1,2"))!.Body["errors"]![0]!["field"]!.GetValue<string>());
    }
}
