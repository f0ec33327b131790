using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using DeepBaize.Web.Drawing;

namespace DeepBaize.Web.Tests;

/// <summary>Balls laid together, mirrors, lines of strokes, guesses, and a position in a link.</summary>
[Collection("application")]
public class LayingTests(Application app)
{
    private static JsonArray Balls(params (string Id, double X, double Y)[] balls) =>
        [
            .. balls.Select(b => new JsonObject
            {
                ["id"] = b.Id,
                ["x"] = b.X,
                ["y"] = b.Y,
            }),
        ];

    private static string FieldOf(JsonNode problem) => problem["errors"]![0]!["field"]!.GetValue<string>();

    [Fact]
    public async Task Balls_taken_together_are_laid_in_a_row_and_what_cannot_be_is_refused_by_its_field()
    {
        var ask = new JsonObject
        {
            ["balls"] = Balls(("white", 0.5, 0.5), ("red-1", 1.0, 0.5), ("red-2", 1.31, 0.6), ("red-3", 1.6, 0.5)),
            ["together"] = new JsonArray("red-1", "red-2", "red-3"),
            ["how"] = "row",
        };
        var (status, laid) = await app.Post("/api/arrange", ask);
        Assert.Equal(200, status);
        Assert.Equal(1.3, laid[1]!["x"]!.GetValue<double>(), 9);
        Assert.Equal(0.5, laid[1]!["y"]!.GetValue<double>(), 9);

        ask["together"] = new JsonArray("red-1", "red-9");
        var (missing, problem) = await app.Post("/api/arrange", ask);
        Assert.Equal((400, "together[1]"), (missing, FieldOf(problem)));
        ask["together"] = new JsonArray("red-1", "red-1");
        Assert.Equal("together", FieldOf((await app.Post("/api/arrange", ask)).Body));
        (ask["together"], ask["how"]) = (new JsonArray("red-1", "red-2"), "arc");
        Assert.Equal("together.length", FieldOf((await app.Post("/api/arrange", ask)).Body));
        (ask["how"], ask["x"]) = ("move", 99);
        Assert.Equal("x", FieldOf((await app.Post("/api/arrange", ask)).Body));
    }

    [Theory]
    [InlineData("along")]
    [InlineData("across")]
    public async Task A_position_in_the_mirror_pots_the_mirrored_ball_and_mirrored_twice_is_itself(string axis)
    {
        var content = Sample.Content();
        var (_, shot) = await app.Post("/api/shot", Sample.Shot((JsonObject)content.DeepClone()));
        content["stroke"]!["aim"] = shot["strike"]!["aim"]!.GetValue<double>();
        var (status, mirrored) = await app.Post("/api/mirror", new JsonObject { ["content"] = content.DeepClone(), ["axis"] = axis });
        Assert.Equal(200, status);
        Assert.Equal(axis == "along" ? "yellow-top" : "green", mirrored["stroke"]!["pot"]!["pocket"]!.GetValue<string>());
        var (_, played) = await app.Post("/api/shot", Sample.Shot(mirrored.AsObject().DeepClone().AsObject()));
        Assert.Equal(
            mirrored["stroke"]!["pot"]!["pocket"]!.GetValue<string>(),
            played["simulation"]!["finals"]![1]!["pocket"]!.GetValue<string>()
        );
        var (_, twice) = await app.Post("/api/mirror", new JsonObject { ["content"] = mirrored.DeepClone(), ["axis"] = axis });
        for (var i = 0; i < content["balls"]!.AsArray().Count; i++)
            Assert.Equal(content["balls"]![i]!["x"]!.GetValue<double>(), twice["balls"]![i]!["x"]!.GetValue<double>(), 9);
        Assert.Equal(content["stroke"]!["aim"]!.GetValue<double>(), twice["stroke"]!["aim"]!.GetValue<double>(), 9);
    }

    [Fact]
    public async Task Conditions_are_turned_in_the_words_of_players_and_say_what_they_change()
    {
        var (status, slow) = await app.Post("/api/conditions", new JsonObject { ["scale"] = "cloth", ["to"] = -1 });
        Assert.Equal(200, status);
        Assert.Equal(0.018, slow["conditions"]!["rollingFriction"]!.GetValue<double>());
        var cloth = slow["scales"]!.AsArray().Single(s => s!["scale"]!.GetValue<string>() == "cloth")!;
        Assert.Equal(-1, cloth["at"]!.GetValue<double>());
        Assert.True(cloth["value"]!.GetValue<double>() < cloth["standard"]!.GetValue<double>());
        var (refused, problem) = await app.Post("/api/conditions", new JsonObject { ["scale"] = "colour", ["to"] = 1 });
        Assert.Equal((400, "scale"), (refused, FieldOf(problem)));
        Assert.Equal("to", FieldOf((await app.Post("/api/conditions", new JsonObject { ["scale"] = "cloth", ["to"] = 2 })).Body));
    }

    [Fact]
    public async Task One_change_of_a_stroke_is_named_and_another_pot_is_not_one_change()
    {
        var content = Sample.Content();
        var before = content["stroke"]!.DeepClone().AsObject();
        before["height"] = (before["height"]?.GetValue<double>() ?? 0) + 0.5;
        var (status, change) = await app.Post(
            "/api/shot/change",
            new JsonObject { ["content"] = content.DeepClone(), ["before"] = before.DeepClone() }
        );
        Assert.Equal(200, status);
        Assert.Equal("height", change["knob"]!.GetValue<string>());
        Assert.Equal(-0.5, change["by"]!.GetValue<double>(), 9);
        before["pot"]!["pocket"] = "yellow-top";
        var (_, other) = await app.Post(
            "/api/shot/change",
            new JsonObject { ["content"] = content.DeepClone(), ["before"] = before.DeepClone() }
        );
        Assert.Null(other["knob"]);
        before["pace"] = 99;
        var (refused, problem) = await app.Post(
            "/api/shot/change",
            new JsonObject { ["content"] = content.DeepClone(), ["before"] = before }
        );
        Assert.Equal((400, "before.pace"), (refused, FieldOf(problem)));
    }

    [Fact]
    public async Task The_balls_of_a_stroke_turn_from_the_strike_to_the_end()
    {
        var (status, turning) = await app.Post("/api/shot/turning", Sample.Shot());
        Assert.Equal(200, status);
        var white = turning.AsArray().Single(b => b!["ball"]!.GetValue<string>() == "white")!["spans"]!.AsArray();
        Assert.Equal(0, white[0]!["from"]!.GetValue<double>());
        Assert.All(
            white.Skip(1).Zip(white),
            pair => Assert.Equal(pair.Second!["to"]!.GetValue<double>(), pair.First!["from"]!.GetValue<double>(), 4)
        );
        Assert.Contains(turning.AsArray(), b => b!["ball"]!.GetValue<string>() == "red-1");
    }

    private static JsonObject Trial(string id) =>
        new()
        {
            ["id"] = id,
            ["name"] = "½ low, 4",
            ["stroke"] = new JsonObject { ["height"] = -0.5 },
            ["line"] = new JsonArray(new JsonObject { ["x"] = 1, ["y"] = 1 }, new JsonObject { ["x"] = 1.5, ["y"] = 1.1 }),
            ["met"] = 1,
            ["seenWhite"] = new JsonObject { ["x"] = 1.4, ["y"] = 1.2 },
        };

    [Fact]
    public async Task Lines_of_strokes_stay_with_their_position_and_go_with_its_file()
    {
        var draft = Sample.Draft("With lines", "");
        draft["trials"] = new JsonArray(Trial("a"), Trial("b"));
        var (status, created) = await app.Post("/api/positions", draft.DeepClone());
        Assert.Equal(201, status);
        var (_, read) = await app.Send(HttpMethod.Get, $"/api/positions/{created["id"]}");
        Assert.Equal(["a", "b"], read["trials"]!.AsArray().Select(t => t!["id"]!.GetValue<string>()));
        Assert.Equal(1.4, read["trials"]![0]!["seenWhite"]!["x"]!.GetValue<double>());
        var (_, file) = await app.Post("/api/positions/export/json", draft.DeepClone());
        Assert.Equal(2, file["trials"]!.AsArray().Count);
        var (checkedStatus, back) = await app.Post("/api/positions/check", file.DeepClone());
        Assert.Equal(200, checkedStatus);
        Assert.Equal("½ low, 4", back["trials"]![1]!["name"]!.GetValue<string>());
        // A save takes them away again.
        var save = Sample.Draft("With lines", "");
        save["version"] = read["version"]!.GetValue<uint>();
        var (_, saved) = await app.Send(HttpMethod.Put, $"/api/positions/{created["id"]}", save);
        Assert.Empty(saved["trials"]!.AsArray());
    }

    [Fact]
    public async Task A_line_that_cannot_be_is_refused_by_its_field_and_nothing_is_saved()
    {
        async Task<string> Refused(Action<JsonObject> spoil)
        {
            var (draft, trial) = (Sample.Draft("Spoiled line", ""), Trial("a"));
            spoil(trial);
            draft["trials"] = new JsonArray(trial);
            var (status, problem) = await app.Post("/api/positions", draft);
            Assert.Equal(400, status);
            return FieldOf(problem);
        }
        Assert.Equal("trials[0].line[0].x", await Refused(t => t["line"]![0]!["x"] = 9));
        Assert.Equal("trials[0].met", await Refused(t => t["met"] = 7));
        Assert.Equal("trials[0].line.length", await Refused(t => (t["line"], t["met"]) = (new JsonArray(), 0)));
        Assert.Equal("trials[0].name", await Refused(t => t["name"] = " "));
        Assert.Equal("trials[0].id", await Refused(t => t["id"] = ""));
        Assert.Equal("trials[0].seenWhite.y", await Refused(t => t["seenWhite"]!["y"] = -5));
        Assert.Equal("trials[0].stroke.pace", await Refused(t => t["stroke"]!["pace"] = 99));
        var twice = Sample.Draft("Spoiled line", "");
        twice["trials"] = new JsonArray(Trial("a"), Trial("a"));
        Assert.Equal("trials[1].id", FieldOf((await app.Post("/api/positions", twice)).Body));
        var many = Sample.Draft("Spoiled line", "");
        many["trials"] = new JsonArray([.. Enumerable.Range(0, 41).Select(i => Trial($"t{i}"))]);
        Assert.Equal("trials.length", FieldOf((await app.Post("/api/positions", many)).Body));
        var (_, found) = await app.Send(HttpMethod.Get, "/api/positions?search=Spoiled");
        Assert.Empty(found.AsArray());
    }

    [Fact]
    public async Task A_position_from_a_link_is_checked_as_a_file_is_and_not_saved()
    {
        var (_, file) = await app.Post("/api/positions/export/json", Sample.Draft("From a link", ""));
        var (status, draft) = await app.Post("/api/positions/check", file.DeepClone());
        Assert.Equal(200, status);
        Assert.Equal("From a link", draft["name"]!.GetValue<string>());
        var (_, found) = await app.Send(HttpMethod.Get, "/api/positions?search=From+a+link");
        Assert.Empty(found.AsArray());
        file["balls"]![0]!["x"] = 77;
        Assert.Equal(400, (await app.Post("/api/positions/check", file.DeepClone())).Status);
        file["colour"] = "blue";
        Assert.Equal(400, (await app.Post("/api/positions/check", file.DeepClone())).Status);
    }

    [Fact]
    public async Task Guesses_are_kept_with_the_player_and_their_means_told()
    {
        var (_, before) = await app.Send(HttpMethod.Get, "/api/guesses");
        var had = before["count"]!.GetValue<int>();
        foreach (var error in new[] { 0.3, 0.1 })
            Assert.Equal(201, (await app.Post("/api/guesses", new JsonObject { ["kind"] = "stop", ["error"] = error })).Status);
        Assert.Equal(201, (await app.Post("/api/guesses", new JsonObject { ["kind"] = "ball", ["isRight"] = true })).Status);
        var (_, after) = await app.Send(HttpMethod.Get, "/api/guesses");
        Assert.Equal(had + 3, after["count"]!.GetValue<int>());
        Assert.Equal("ball", after["last"]![0]!["kind"]!.GetValue<string>());
        // Other tests may have kept guesses: the mean is that of the last twenty with an error, these two among them.
        var errors = after["last"]!.AsArray().Select(g => g!["error"]?.GetValue<double>()).OfType<double>().Take(20).ToList();
        Assert.Equal([0.1, 0.3], errors.Take(2));
        Assert.Equal(errors.Average(), after["lately"]!.GetValue<double>(), 9);
        async Task<string> Refused(JsonObject guess) => FieldOf((await app.Post("/api/guesses", guess)).Body);
        Assert.Equal("error", await Refused(new() { ["kind"] = "stop" }));
        Assert.Equal("error", await Refused(new() { ["kind"] = "routes", ["error"] = -1 }));
        Assert.Equal("isRight", await Refused(new() { ["kind"] = "ball" }));
        Assert.Equal(
            "isRight",
            await Refused(
                new()
                {
                    ["kind"] = "stop",
                    ["error"] = 0.1,
                    ["isRight"] = true,
                }
            )
        );
        // The layout of a seed is what the desk takes.
        var (_, layout) = await app.Send(HttpMethod.Get, "/api/guesses/layout?seed=42");
        var content = new JsonObject { ["balls"] = layout["balls"]!.DeepClone(), ["stroke"] = layout["stroke"]!.DeepClone() };
        var (status, shot) = await app.Post("/api/shot", Sample.Shot(content));
        Assert.Equal(200, status);
        Assert.Equal(
            layout["stroke"]!["pot"]!["pocket"]!.GetValue<string>(),
            shot["simulation"]!["finals"]!.AsArray().Single(f => f!["id"]!.GetValue<string>() == "red-1")!["pocket"]!.GetValue<string>()
        );
    }

    [Fact]
    public async Task Strokes_beside_one_another_go_on_a_sheet_and_lines_on_a_card()
    {
        JsonObject Column(string name) =>
            new()
            {
                ["name"] = name,
                ["stroke"] = "Red 1 into the top pocket",
                ["line"] = new JsonArray(new JsonObject { ["x"] = 1, ["y"] = 1 }, new JsonObject { ["x"] = 2, ["y"] = 1.2 }),
            };
        var sheet = new JsonObject
        {
            ["name"] = "Two choices",
            ["content"] = Sample.Content(),
            ["columns"] = new JsonArray(Column("A"), Column("B")),
            ["rows"] = new JsonArray(new JsonObject { ["label"] = "Scores", ["cells"] = new JsonArray("71 %", "44 %") }),
            ["lines"] = new JsonArray("A is better than B by 3.1 % of frames."),
        };
        var pdf = await Bytes("/api/compare/sheet", sheet);
        Assert.StartsWith("%PDF", Encoding.ASCII.GetString(pdf, 0, 8));
        sheet["rows"]![0]!["cells"] = new JsonArray("71 %");
        Assert.Equal("rows", FieldOf((await app.Post("/api/compare/sheet", sheet.DeepClone())).Body));
        sheet["columns"] = new JsonArray(Column("A"));
        Assert.Equal("columns.length", FieldOf((await app.Post("/api/compare/sheet", sheet.DeepClone())).Body));

        var card = new JsonObject
        {
            ["name"] = "Card",
            ["content"] = Sample.Content(),
            ["traces"] = new JsonArray(new JsonObject { ["name"] = "plain, 4", ["line"] = Column("A")["line"]!.DeepClone() }),
        };
        Assert.Contains("plain, 4", Encoding.UTF8.GetString(await Bytes("/api/card/svg", card)));
        card["traces"]![0]!["line"]![0]!["x"] = 50;
        Assert.Equal("traces[0].line", FieldOf((await app.Post("/api/card/svg", card)).Body));
    }

    private async Task<byte[]> Bytes(string path, JsonObject body)
    {
        using var content = new StringContent(body.ToJsonString(), Encoding.UTF8, "application/json");
        using var response = await app.Client.PostAsync(path, content);
        Assert.Equal(HttpStatusCode.OK, response.StatusCode);
        return await response.Content.ReadAsByteArrayAsync();
    }
}
