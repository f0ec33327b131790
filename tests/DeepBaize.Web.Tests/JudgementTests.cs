using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class JudgementTests(Application app)
{
    private static JsonObject Ask(JsonNode? content = null, string skill = "county") =>
        new()
        {
            ["content"] = content ?? Sample.Content(),
            ["player"] = new JsonObject { ["skill"] = skill },
        };

    [Fact]
    public async Task What_is_on_is_listed_the_likeliest_first()
    {
        var (status, list) = await app.Post("/api/read", Ask());
        Assert.Equal(200, status);
        var chances = list.AsArray().Select(o => o!["chance"]!["value"]!.GetValue<double>()).ToList();
        Assert.NotEmpty(chances);
        Assert.Equal(chances.OrderDescending(), chances);
        Assert.Equal("red-1", list[0]!["cut"]!["ball"]!.GetValue<string>());
        Assert.True(list[0]!["toleranceMillimetres"]!.GetValue<double>() > 0);
    }

    [Fact]
    public async Task The_windows_of_a_stroke_hold_what_is_set_with_a_pot_and_without_and_refuse_one_that_cannot_be()
    {
        var content = Sample.Content();
        var (status, windows) = await app.Post("/api/shot/windows", Ask(content));
        Assert.Equal((200, true), (status, windows["isMet"]!.GetValue<bool>()));
        var (pace, range) = (content["stroke"]!["pace"]!.GetValue<double>(), windows["pace"]!);
        Assert.InRange(pace, range["from"]!.GetValue<double>(), range["to"]!.GetValue<double>());
        // At the ends the page's own stroke still does it, and beyond them no more.
        async Task<bool> Pots(double at)
        {
            content["stroke"]!["pace"] = at;
            var answer = (await app.Post("/api/shot", Ask(content.DeepClone()))).Body;
            return answer["simulation"]!["finals"]!
                .AsArray()
                .Any(f => f!["id"]!.GetValue<string>() == "red-1" && f["pocket"]?.GetValue<string>() is not null);
        }
        var softest = range["from"]!.GetValue<double>();
        if (!range["isToLeast"]!.GetValue<bool>())
            Assert.Equal((true, false), (await Pots(softest), await Pots(softest - 0.01)));

        content["stroke"]!["pot"] = null;
        var (alone, safe) = await app.Post("/api/shot/windows", Ask(content.DeepClone()));
        Assert.Equal((200, true), (alone, safe["isMet"]!.GetValue<bool>()));
        content["stroke"]!["pot"] = new JsonObject { ["ball"] = "red-1", ["pocket"] = "yellow" };
        content["balls"]![0]!["x"] = 0.3;
        var (refused, problem) = await app.Post("/api/shot/windows", Ask(content.DeepClone()));
        Assert.Equal((400, "content.stroke.pot"), (refused, problem["errors"]![0]!["field"]!.GetValue<string>()));
    }

    [Fact]
    public async Task The_spread_of_a_pot_adds_up_and_has_outlines()
    {
        await using var thorough = app.With(("Searches:WorkShare", "1"));
        using var client = thorough.CreateClient();
        using var answer = await client.PostAsJsonAsync("/api/spread", Ask());
        Assert.Equal(200, (int)answer.StatusCode);
        var spread = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal(
            1,
            spread["pot"]!["value"]!.GetValue<double>()
                + spread["missThick"]!["value"]!.GetValue<double>()
                + spread["missThin"]!["value"]!.GetValue<double>(),
            1e-9
        );
        // Every chance that is told is known to a hundredth.
        foreach (var chance in (string[])["pot", "missThick", "missThin", "inOff", "kiss", "miscue"])
            Assert.InRange(spread[chance]!["error"]!.GetValue<double>(), 0, 0.01);
        Assert.Equal(spread["samples"]!.GetValue<int>(), spread["pot"]!["strokes"]!.GetValue<int>());
        Assert.NotEmpty(spread["likely"]!.AsArray());
        Assert.NotEmpty(spread["nearly"]!.AsArray());
    }

    [Fact]
    public async Task A_pot_aimed_too_full_is_told_to_be_missed_thick()
    {
        var content = Sample.Content();
        var cut = (await app.Post("/api/shot", new JsonObject { ["content"] = content.DeepClone() })).Body["cut"]!;
        var aim = cut["aimDegrees"]!.GetValue<double>() + cut["allowanceDegrees"]!.GetValue<double>();
        // Cut to the left a ball is struck on its right: fuller is to the left.
        var fuller = Math.Sign(cut["cutDegrees"]!.GetValue<double>());
        (content["stroke"]!["free"], content["stroke"]!["aim"]) = (true, aim + 1.5 * fuller);
        var (status, spread) = await app.Post("/api/spread", Ask(content));
        Assert.Equal(200, status);
        double Of(string name) => spread[name]!["value"]!.GetValue<double>();
        Assert.True(Of("missThick") > 0.8 && Of("missThin") < 0.05, $"{spread["missThick"]} {spread["missThin"]}");
    }

    [Fact]
    public async Task A_free_shot_without_a_pot_has_a_spread_but_no_chance()
    {
        var content = Sample.Content();
        content["stroke"]!["pot"] = null;
        var (status, spread) = await app.Post("/api/spread", Ask(content));
        Assert.Equal(200, status);
        Assert.Null(spread["pot"]);
        Assert.NotEmpty(spread["likely"]!.AsArray());
    }

    [Theory]
    [InlineData("routes", 2)]
    [InlineData("paces", 4)]
    [InlineData("heights", 3)]
    [InlineData("sides", 2)]
    public async Task A_fan_has_its_lines(string kind, int least)
    {
        var (status, lines) = await app.Post("/api/fan", new JsonObject { ["content"] = Sample.Content(), ["kind"] = kind });
        Assert.Equal(200, status);
        Assert.True(lines.AsArray().Count >= least);
        Assert.All(lines.AsArray(), l => Assert.True(l!["points"]!.AsArray().Count > 2));
    }

    [Fact]
    public async Task Unknown_skills_and_kinds_and_missing_pots_are_refused_by_field()
    {
        Assert.Equal(["player.skill"], (await app.Post("/api/read", Ask(skill: "wizard"))).Body.Fields());
        Assert.Equal(
            ["kind"],
            (await app.Post("/api/fan", new JsonObject { ["content"] = Sample.Content(), ["kind"] = "all" })).Body.Fields()
        );
        var content = Sample.Content();
        content["stroke"]!["pot"] = null;
        var (status, problem) = await app.Post("/api/fan", new JsonObject { ["content"] = content, ["kind"] = "routes" });
        Assert.Equal((400, "content.stroke.pot"), (status, problem.Fields()[0]));
    }

    [Fact]
    public async Task The_shot_tells_how_the_white_arrives()
    {
        var (_, shot) = await app.Post("/api/shot", Sample.Shot());
        Assert.True(shot["arrival"]!["squirtDegrees"]!.GetValue<double>() > 0); // right-hand side
        Assert.True(shot["arrival"]!["speed"]!.GetValue<double>() > 0);
    }
}
