using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>A player's page: best breaks and runs, form, and what to work on.</summary>
public sealed class PlayerPageTests(Application app) : IClassFixture<Application>
{
    private async Task<JsonNode> Created(string path, object body)
    {
        var (status, answer) = await app.Send(HttpMethod.Post, path, body);
        Assert.Equal(201, status);
        return answer;
    }

    [Fact]
    public async Task The_highest_break_comes_from_frames_that_name_the_player()
    {
        var id = (await Created("/api/players", new { name = "Wilmot Sedge" }))["id"]!.GetValue<string>();
        object[] shots =
        [
            new { kind = "pot", potted = new[] { "red" } },
            new { kind = "pot", potted = new[] { "black" } },
            new { kind = "miss", why = "thin" },
            new { kind = "pot", potted = new[] { "red" } },
            new { kind = "miss", why = "tooHard" },
        ];
        var frame = new
        {
            title = "Frame 1",
            first = "Wilmot",
            second = "Odo",
            shots,
        };
        var made = await Created("/api/frames", frame);
        await Created(
            "/api/frames",
            new
            {
                title = "Of others",
                first = "Odo",
                second = "Nell",
                shots,
            }
        );

        var (status, page) = await app.Send(HttpMethod.Get, $"/api/players/{id}/page");
        Assert.Equal((200, 1), (status, page["frames"]!.GetValue<int>()));
        var best = Assert.Single(page["breaks"]!.AsArray())!;
        Assert.Equal((8, made["id"]!.GetValue<string>()), (best["points"]!.GetValue<int>(), best["frame"]!.GetValue<string>()));
        Assert.Equal(["red", "black"], best["balls"]!.AsArray().Select(b => b!.GetValue<string>()));
        var end = Assert.Single(page["ends"]!.AsArray())!;
        Assert.Equal(
            ("red", "thin", 1, 1),
            (end["on"]!.GetValue<string>(), end["why"]!.GetValue<string>(), (int)end["count"]!, (int)end["of"]!)
        );

        // Somebody else of the same first name: only the whole name tells them apart.
        await Created("/api/players", new { name = "Wilmot Rusk" });
        Assert.Equal(0, (await app.Send(HttpMethod.Get, $"/api/players/{id}/page")).Body["frames"]!.GetValue<int>());
    }

    [Fact]
    public async Task Nobody_has_a_page_that_is_not_there_and_a_new_player_an_empty_one()
    {
        Assert.Equal(404, (await app.Send(HttpMethod.Get, $"/api/players/{Guid.NewGuid()}/page")).Status);
        var id = (await Created("/api/players", new { name = "Nobody Yet" }))["id"]!.GetValue<string>();
        var page = (await app.Send(HttpMethod.Get, $"/api/players/{id}/page")).Body;
        Assert.Equal(0, page["attempts"]!.GetValue<int>());
        Assert.Null(page["since"]);
        Assert.Empty(page["up"]!.AsArray());
    }
}
