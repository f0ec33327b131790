using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>A stroke with one knob turned: lines, ladders, paces, and the chart of a pot.</summary>
[Collection("application")]
public class FanTests(Application app)
{
    private static JsonObject Asked(bool hasPot = true, Action<JsonObject>? more = null)
    {
        var content = Sample.Content();
        if (!hasPot)
            content["stroke"]!["pot"] = null;
        var body = new JsonObject { ["content"] = content };
        more?.Invoke(body);
        return body;
    }

    private static JsonObject Range(double from, double to, double step) =>
        new()
        {
            ["from"] = from,
            ["to"] = to,
            ["step"] = step,
        };

    [Fact]
    public async Task A_fan_has_the_settings_that_are_asked_for_with_a_pot_and_without()
    {
        foreach (var hasPot in new[] { true, false })
        {
            var (status, lines) = await app.Post("/api/fan", Asked(hasPot, b => (b["kind"], b["range"]) = ("paces", Range(3, 5, 0.5))));
            Assert.Equal(200, status);
            Assert.Equal([3, 3.5, 4, 4.5, 5], lines.AsArray().Select(l => l!["pace"]!.GetValue<double>()));
            Assert.All(lines.AsArray(), l => Assert.Equal(hasPot, l!["potted"] is not null));
        }
    }

    [Fact]
    public async Task With_the_aim_kept_each_line_tells_the_aim_that_would_pot()
    {
        var (_, lines) = await app.Post("/api/fan", Asked(true, b => (b["kind"], b["sameAim"]) = ("sides", true)));
        Assert.All(lines.AsArray(), l => Assert.True(l!["aimThatPots"] is not null && l["ghostGap"] is not null));
        Assert.Single(lines.AsArray().Select(l => l!["aim"]!.GetValue<double>()).Distinct());
    }

    [Fact]
    public async Task Small_errors_and_butts_come_without_being_told_how_far()
    {
        var (_, errors) = await app.Post("/api/fan", Asked(false, b => b["kind"] = "errors"));
        Assert.Equal(6, errors.AsArray().Count);
        var (_, butts) = await app.Post("/api/fan", Asked(true, b => b["kind"] = "butts"));
        Assert.Equal([0, 6, 20], butts.AsArray().Select(l => l!["elevation"]!.GetValue<double>()));
    }

    [Fact]
    public async Task A_range_that_cannot_be_is_refused_by_field()
    {
        async Task<IEnumerable<string>> Fields(JsonObject range) =>
            (await app.Post("/api/fan", Asked(true, b => (b["kind"], b["range"]) = ("heights", range)))).Body.Fields();
        Assert.Equal(["range.to"], await Fields(Range(1, 0, 0.1)));
        Assert.Equal(["range.step"], await Fields(Range(0, 1, 0)));
        Assert.Equal(["range.step"], await Fields(Range(0, 1, 0.001)));
    }

    [Fact]
    public async Task A_ladder_lies_end_to_end_and_names_what_is_reached()
    {
        foreach (var knob in new[] { "height", "pace", "side", "elevation", "aim" })
        {
            var (status, rungs) = await app.Post("/api/shot/ladder", Asked(true, b => b["knob"] = knob));
            Assert.Equal(200, status);
            var list = rungs.AsArray();
            Assert.NotEmpty(list);
            for (var i = 1; i < list.Count; i++)
                Assert.True(list[i]!["from"]!.GetValue<double>() >= list[i - 1]!["to"]!.GetValue<double>());
        }
        Assert.Equal(["knob"], (await app.Post("/api/shot/ladder", Asked(true, b => b["knob"] = "grip"))).Body.Fields());
    }

    [Fact]
    public async Task A_table_by_pace_has_a_chance_where_there_is_a_pot()
    {
        var (_, table) = await app.Post("/api/shot/paces", Asked(true, b => b["range"] = Range(3, 6, 1)));
        Assert.Equal(4, table["rows"]!.AsArray().Count);
        Assert.All(table["rows"]!.AsArray(), r => Assert.InRange(r!["chance"]!["value"]!.GetValue<double>(), 0, 1));
        var (_, bare) = await app.Post("/api/shot/paces", Asked(false));
        Assert.All(bare["rows"]!.AsArray(), r => Assert.Null(r!["chance"]));
    }

    [Fact]
    public async Task The_chart_of_a_pot_has_its_cells_and_wants_a_pot()
    {
        var (status, chart) = await app.Post("/api/shot/chart", Asked());
        Assert.Equal(200, status);
        Assert.Equal(5, chart["byPart"]!.AsArray().Select(c => c!["row"]!.GetValue<double>()).Distinct().Count());
        Assert.NotEmpty(chart["spins"]!.AsArray());
        Assert.Equal(["content.stroke.pot"], (await app.Post("/api/shot/chart", Asked(false))).Body.Fields());
    }
}
