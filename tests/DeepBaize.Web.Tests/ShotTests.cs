using System.Text.Json.Nodes;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Demo;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class ShotTests(Application app)
{
    [Fact]
    public async Task A_pot_is_aimed_and_goes_in_and_the_same_strike_simulated_alone_does_the_same()
    {
        var (status, shot) = await app.Post("/api/shot", Sample.Shot());
        Assert.Equal(200, status);
        Assert.Equal("green-top", shot["simulation"]!["finals"]![1]!["pocket"]!.GetValue<string>());
        Assert.Equal("none", shot["cut"]!["fault"]!.GetValue<string>());
        var content = Sample.Content();
        var (_, alone) = await app.Post(
            "/api/simulate",
            new JsonObject
            {
                ["balls"] = content["balls"]!.DeepClone(),
                ["strike"] = shot["strike"]!.DeepClone(),
                ["conditions"] = content["conditions"]!.DeepClone(),
            }
        );
        Assert.True(JsonNode.DeepEquals(shot["simulation"], alone));
    }

    [Fact]
    public async Task A_free_aim_is_kept_and_the_pot_only_drawn()
    {
        var content = Sample.Content();
        content["stroke"]!["free"] = true;
        content["stroke"]!["aim"] = 90;
        var (_, shot) = await app.Post("/api/shot", Sample.Shot(content));
        Assert.Equal(90, shot["strike"]!["aim"]!.GetValue<double>());
        Assert.NotNull(shot["cut"]);
    }

    [Fact]
    public async Task Where_the_white_rests_is_told_from_cushions_and_spots_and_every_cushion_it_meets_by_name()
    {
        var content = Sample.Content();
        content["stroke"] = new JsonObject
        {
            ["aim"] = 90,
            ["pace"] = 3,
            ["free"] = true,
        };
        var (_, shot) = await app.Post("/api/shot", Sample.Shot(content));
        var events = shot["simulation"]!["events"]!.AsArray();
        var cushions = shot["cushions"]!.AsArray();
        Assert.Equal(events.Count, cushions.Count);
        Assert.All(events.Zip(cushions), e => Assert.Equal(e.First!["kind"]!.GetValue<string>() == "cushion", e.Second is not null));
        // Straight across from where it lies: the green's side first, as + y is.
        Assert.Equal("green-side", cushions.First(c => c is not null)!.GetValue<string>());
        var (rests, white) = (shot["whiteRests"]!, shot["simulation"]!["finals"]![0]!);
        var (x, y) = (white["x"]!.GetValue<double>(), white["y"]!.GetValue<double>());
        var nearest = new[] { x, Dimensions.Length - x, y, Dimensions.Width - y }.Min() - Dimensions.BallRadius;
        Assert.Equal(Math.Max(0, nearest), rests["fromCushion"]!.GetValue<double>(), 1e-9);
        Assert.Contains(rests["spot"]!.GetValue<string>(), Ball.Colours.Select(c => c.Id));
    }

    [Fact]
    public async Task Tips_and_pace_become_the_models_units()
    {
        var (_, shot) = await app.Post("/api/shot", Sample.Shot());
        // 4 mm of tip on a ball of 26.25 mm with a 5 mm dome; pace 5.5 on the model's scale.
        Assert.Equal(-4.0 / 31.25, shot["strike"]!["height"]!.GetValue<double>(), 1e-12);
        Assert.Equal(0.24 * Math.Pow(5.5, 1.47), shot["strike"]!["cueSpeed"]!.GetValue<double>(), 1e-12);
    }

    [Theory]
    [InlineData("ball", "blue", "stroke.pot.ball")]
    [InlineData("ball", "white", "stroke.pot.ball")]
    [InlineData("pocket", "left", "stroke.pot.pocket")]
    [InlineData("through", "blue", "stroke.pot.through")]
    [InlineData("through", "red-1", "stroke.pot.through")]
    [InlineData("off", "left", "stroke.pot.off")]
    public async Task A_pot_a_plant_or_a_double_of_nothing_is_refused(string what, string value, string field)
    {
        var content = Sample.Content();
        content["stroke"]!["pot"]![what] = value;
        var (status, problem) = await app.Post("/api/shot", Sample.Shot(content));
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
    }

    [Fact]
    public async Task The_allowance_the_reach_and_the_hop_are_told()
    {
        var (_, shot) = await app.Post("/api/shot", Sample.Shot());
        // The net allowance is the aim's shift across the distance: the figures of the same answer.
        var cut = shot["cut"]!;
        var net = Math.Tan(cut["allowanceDegrees"]!.GetValue<double>() * Math.PI / 180) * cut["cueBallDistance"]!.GetValue<double>();
        Assert.Equal(Math.Abs(net), Math.Abs(shot["allowance"]!["net"]!.GetValue<double>()), 1e-9);
        var fromTheD = (await app.Post("/api/shot", Sample.Shot(Sample.Content(whiteX: 0.6)))).Body;
        Assert.Equal("natural", fromTheD["reach"]!["stance"]!.GetValue<string>());
        // As the cue lies it hops by a fraction of a millimetre; level, which must be asked for, not at all.
        Assert.Equal(3, shot["strike"]!["elevation"]!.GetValue<double>());
        Assert.InRange(shot["hop"]!.GetValue<double>(), 1e-5, 1e-3);
        Assert.NotEmpty(shot["flights"]!.AsArray());
        var asked = Sample.Content();
        asked["stroke"]!["elevation"] = 0;
        var level = (await app.Post("/api/shot", Sample.Shot(asked))).Body;
        Assert.Equal(0, level["hop"]!.GetValue<double>());
        Assert.Empty(level["flights"]!.AsArray());
        Assert.True(level["tipAboveBed"]!.GetValue<double>() < shot["tipAboveBed"]!.GetValue<double>());
        var left = Sample.Shot();
        left["player"] = new JsonObject { ["hand"] = "both" };
        Assert.Equal(["player.hand"], (await app.Post("/api/shot", left)).Body.Fields());
    }

    [Fact]
    public async Task A_double_is_aimed_and_drawn_in_two_legs()
    {
        var content = Sample.Content();
        content["balls"] = JsonNode.Parse("""[{ "id": "white", "x": 1.4, "y": 1.0 }, { "id": "red-1", "x": 1.55, "y": 0.6 }]""");
        content["stroke"]!["pot"] = JsonNode.Parse("""{ "ball": "red-1", "pocket": "green-middle", "off": "yellow-side" }""");
        var (_, shot) = await app.Post("/api/shot", Sample.Shot(content));
        Assert.Equal(("double", 2), (shot["cut"]!["kind"]!.GetValue<string>(), shot["cut"]!["legs"]!.AsArray().Count));
        Assert.Equal("green-middle", shot["simulation"]!["finals"]![1]!["pocket"]?.GetValue<string>());
    }

    [Fact]
    public async Task A_ball_set_down_on_another_slides_off_it()
    {
        var content = Sample.Content();
        var (status, place) = await app.Post(
            "/api/place",
            new JsonObject
            {
                ["balls"] = content["balls"]!.DeepClone(),
                ["ball"] = "red-2",
                ["x"] = 2.9,
                ["y"] = 1.12,
            }
        );
        Assert.Equal(200, status);
        var (x, y) = (place["x"]!.GetValue<double>(), place["y"]!.GetValue<double>());
        Assert.Equal(0.0525, Math.Sqrt(Math.Pow(x - 2.9, 2) + Math.Pow(y - 1.1, 2)), 1e-6);
        Assert.Equal(2.9, x, 1e-6);
    }

    [Theory]
    [InlineData("balls[1].x", """{ "id": "red-1", "x": -1e308, "y": 1 }""")]
    [InlineData("balls", """{ "id": "red-1", "x": 2, "y": 1 }, { "id": "red-1", "x": 1, "y": 1 }""")]
    public async Task Where_the_moved_ball_lay_is_checked_though_it_does_not_matter(string field, string moved)
    {
        var body = JsonNode.Parse($$"""{ "balls": [{ "id": "white", "x": 1, "y": 1 }, {{moved}}], "ball": "red-1", "x": 2, "y": 0.5 }""");
        var (status, problem) = await app.Post("/api/place", body!);
        Assert.Equal((400, field), (status, problem.Fields()[0]));
    }

    [Fact]
    public async Task The_cue_ball_from_hand_is_kept_in_the_D()
    {
        var (_, place) = await app.Post(
            "/api/place",
            new JsonObject
            {
                ["balls"] = Sample.Content()["balls"]!.DeepClone(),
                ["ball"] = "white",
                ["x"] = 3.0,
                ["y"] = 0.889,
                ["inD"] = true,
            }
        );
        Assert.Equal(0.737, place["x"]!.GetValue<double>(), 1e-6);
    }

    public static TheoryData<string> Demos() => [.. DemoPositions.All.Select(d => d.Name)];

    [Theory]
    [MemberData(nameof(Demos))]
    public async Task Every_demo_position_plays_and_what_it_means_to_pot_goes_in(string name)
    {
        var content = DemoPositions.All.Single(d => d.Name == name).Content;
        var (status, shot) = await app.Post("/api/shot", new { content });
        Assert.Equal(200, status);
        if (content.Stroke.Pot is { } pot)
            Assert.Equal(
                pot.Pocket,
                shot["simulation"]!["finals"]!
                    .AsArray()
                    .Single(f => f!["id"]!.GetValue<string>() == pot.Ball)!["pocket"]
                    ?.GetValue<string>()
            );
    }
}
