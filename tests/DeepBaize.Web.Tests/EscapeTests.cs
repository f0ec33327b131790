using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>Ways to a chosen ball, and the family of an escape.</summary>
[Collection("application")]
public class EscapeTests(Application app)
{
    private static JsonObject Open(double? aim = null)
    {
        JsonObject At(string id, double x, double y) =>
            new()
            {
                ["id"] = id,
                ["x"] = x,
                ["y"] = y,
            };
        return new()
        {
            ["balls"] = new JsonArray(At("white", 0.55, 0.889), At("brown", 0.737, 0.889), At("red-1", 2.95, 0.93), At("red-2", 1.2, 0.25)),
            ["stroke"] = new JsonObject { ["aim"] = aim ?? 0, ["pace"] = 4 },
        };
    }

    [Fact]
    public async Task A_chosen_ball_gets_its_ways_and_one_that_there_is_not_is_refused()
    {
        var (status, ways) = await app.Post("/api/escapes", new JsonObject { ["content"] = Open(), ["ball"] = "red-1" });
        Assert.Equal(200, status);
        Assert.NotEmpty(ways.AsArray());
        Assert.All(ways.AsArray(), w => Assert.Equal("red-1", w!["ball"]!.GetValue<string>()));
        Assert.Equal(["ball"], (await app.Post("/api/escapes", new JsonObject { ["content"] = Open(), ["ball"] = "cat" })).Body.Fields());
        // Without a ball it is about a snooker, and this is none.
        Assert.Equal(["content.balls"], (await app.Post("/api/escapes", new JsonObject { ["content"] = Open() })).Body.Fields());

        var way = ways.AsArray().First(w => w!["cushions"]!.AsArray().Count > 0 && !w["offJaw"]!.GetValue<bool>())!;
        var content = Open();
        content["stroke"] = way["stroke"]!.DeepClone();
        var (found, family) = await app.Post("/api/escapes/family", new JsonObject { ["content"] = content });
        Assert.Equal(200, found);
        Assert.NotEmpty(family["places"]!.AsArray());
        Assert.Equal(way["cushions"]!.ToJsonString(), family["cushions"]!.ToJsonString());

        // Kept, listed, found again from another place of its band, and deleted; not found from where it does not work.
        var keep = new JsonObject { ["name"] = "Off the side", ["content"] = content.DeepClone() };
        var (created, kept) = await app.Post("/api/escapes/families", keep);
        Assert.Equal(201, created);
        var place = family["places"]!.AsArray()[0]!;
        var elsewhere = Open();
        (elsewhere["balls"]![0]!["x"], elsewhere["balls"]![0]!["y"]) = (place["x"]!.GetValue<double>(), place["y"]!.GetValue<double>());
        var (_, here) = await app.Post("/api/escapes/families/here", new JsonObject { ["content"] = elsewhere.DeepClone() });
        Assert.Contains(here.AsArray(), f => f!["name"]!.GetValue<string>() == "Off the side");
        elsewhere["balls"]![2]!["x"] = 2.0;
        var (_, none) = await app.Post("/api/escapes/families/here", new JsonObject { ["content"] = elsewhere.DeepClone() });
        Assert.DoesNotContain(none.AsArray(), f => f!["name"]!.GetValue<string>() == "Off the side");
        keep["name"] = " ";
        Assert.Equal(["name"], (await app.Post("/api/escapes/families", keep)).Body.Fields());
        var gone = await app.Client.DeleteAsync($"/api/escapes/families/{kept["id"]}?version={kept["version"]}");
        Assert.Equal(204, (int)gone.StatusCode);
    }

    [Fact]
    public async Task A_stroke_off_no_cushion_has_no_family()
    {
        var (status, problem) = await app.Post("/api/escapes/family", new JsonObject { ["content"] = Open(aim: 0) });
        Assert.Equal((400, "content.stroke"), (status, problem.Fields().First()));
    }
}
