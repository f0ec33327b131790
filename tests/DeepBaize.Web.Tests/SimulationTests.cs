using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

[Collection("application")]
public class SimulationTests(Application app)
{
    private const string Request = """
        { "balls": [ {"id": "white", "x": 0.737, "y": 0.6}, {"id": "red-1", "x": 2.9, "y": 0.6} ],
          "strike": { "aim": 12.5, "cueSpeed": 2.2, "side": 0.0, "height": -0.2, "elevation": 0.0 },
          "conditions": { "rollingFriction": 0.0125 } }
        """;

    [Fact]
    public async Task The_answer_has_the_fixed_form()
    {
        var (status, body) = await app.Post("/api/simulate", Request.Replace("12.5", "0"));
        Assert.Equal(200, status);
        Assert.Equal(["finals", "events", "paths", "duration"], body.AsObject().Select(p => p.Key));
        Assert.Equal(["id", "x", "y", "pocket"], body["finals"]![0]!.AsObject().Select(p => p.Key));
        Assert.Equal(["time", "kind", "ball", "other", "x", "y", "pocket"], body["events"]![0]!.AsObject().Select(p => p.Key));
        Assert.Equal(["id", "points"], body["paths"]![0]!.AsObject().Select(p => p.Key));
        Assert.Equal(["time", "x", "y"], body["paths"]![0]!["points"]![0]!.AsObject().Select(p => p.Key));
        Assert.Equal("strike", body["events"]![0]!["kind"]!.GetValue<string>());
        var hit = body["events"]!.AsArray().First(e => e!["kind"]!.GetValue<string>() == "ball")!;
        Assert.Equal(("white", "red-1"), (hit["ball"]!.GetValue<string>(), hit["other"]!.GetValue<string>()));
        // Full on: the white's centre is a diameter short of the red's.
        Assert.Equal(2.9 - 0.0525, hit["x"]!.GetValue<double>(), 1e-9);
        var last = body["events"]!.AsArray()[^1]!;
        Assert.Equal(body["duration"]!.GetValue<double>(), last["time"]!.GetValue<double>());
    }

    [Fact]
    public async Task A_ball_off_the_bed_and_off_the_table_is_told()
    {
        // Driven down hard beside the baulk cushion, the white hops over it.
        var (_, body) = await app.Post(
            "/api/simulate",
            """{ "balls": [{"id":"white","x":0.35,"y":0.9}], "strike": {"aim": 180, "cueSpeed": 6, "elevation": 45} }"""
        );
        Assert.Equal("off", body["finals"]![0]!["pocket"]!.GetValue<string>());
        Assert.Equal("off", body["events"]!.AsArray()[^1]!["kind"]!.GetValue<string>());
        var (_, hops) = await app.Post(
            "/api/simulate",
            """{ "balls": [{"id":"white","x":0.6,"y":0.9}], "strike": {"aim": 0, "cueSpeed": 3, "elevation": 20} }"""
        );
        var kinds = hops["events"]!.AsArray().Select(e => e!["kind"]!.GetValue<string>()).ToList();
        Assert.True(kinds.Count(k => k == "bed") >= 2, string.Join(", ", kinds));
        Assert.Null(hops["finals"]![0]!["pocket"]);
    }

    [Fact]
    public async Task Side_height_elevation_and_conditions_may_be_left_out()
    {
        var (status, _) = await app.Post(
            "/api/simulate",
            """{ "balls": [{"id":"white","x":1,"y":1}], "strike": {"aim": 0, "cueSpeed": 1} }"""
        );
        Assert.Equal(200, status);
    }

    [Theory]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": 0.76, \"y\": 0.6", "balls[1]")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": 3.6, \"y\": 0.6", "balls[1].x")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": 0.0, \"y\": 0.0", "balls[1].x")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": 1e999, \"y\": 0.6", "balls[1].x")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": NaN, \"y\": 0.6", "balls[1].x")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"x\": \"NaN\", \"y\": 0.6", "balls[1].x")]
    [InlineData("\"x\": 2.9, \"y\": 0.6", "\"y\": 0.6", "balls[1].x")]
    [InlineData("red-1", "red-16", "balls[1].id")]
    [InlineData("red-1", "white", "balls[1].id")]
    [InlineData("\"white\"", "\"red-2\"", "balls")]
    [InlineData("\"white\"", "7", "balls[0].id")]
    [InlineData("\"white\"", "null", "balls[0].id")]
    [InlineData("2.2", "8.5", "strike.cueSpeed")]
    [InlineData("2.2", "-1", "strike.cueSpeed")]
    [InlineData("2.2", "\"fast\"", "strike.cueSpeed")]
    [InlineData("-0.2", "0.7", "strike.height")]
    [InlineData("\"side\": 0.0, \"height\": -0.2", "\"side\": 0.4, \"height\": 0.4", "strike.side")]
    [InlineData("\"elevation\": 0.0", "\"elevation\": 61", "strike.elevation")]
    [InlineData("\"aim\": 12.5,", "", "strike.aim")]
    [InlineData("0.0125", "5", "conditions.rollingFriction")]
    [InlineData("rollingFriction", "friction", "conditions.friction")]
    [InlineData("0.0125 } }", "0.0125 }", "body")]
    public async Task Bad_input_is_answered_with_the_field(string from, string to, string field)
    {
        Assert.Contains(from, Request);
        var (status, body) = await app.Post("/api/simulate", Request.Replace(from, to));
        Assert.Equal(400, status);
        Assert.Contains(field, body.Fields());
        Assert.All(body["errors"]!.AsArray(), e => Assert.NotEmpty(e!["allowed"]!.GetValue<string>()));
        Assert.NotEmpty(body["title"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("")]
    [InlineData("null")]
    [InlineData("[]")]
    [InlineData("{}")]
    [InlineData("{\"balls\":null,\"strike\":null}")]
    [InlineData("{\"balls\":[null],\"strike\":{\"aim\":0,\"cueSpeed\":1}}")]
    [InlineData("{\"balls\":[{\"id\":\"\\ud800\",\"x\":1,\"y\":1}],\"strike\":{\"aim\":0,\"cueSpeed\":1}}")]
    [InlineData("not json")]
    public async Task What_is_no_request_at_all_is_a_client_error(string body)
    {
        var (status, problem) = await app.Post("/api/simulate", body);
        Assert.Equal(400, status);
        Assert.NotEmpty(problem.Fields());
    }

    [Fact]
    public async Task Sixteen_reds_are_too_many()
    {
        var balls = new JsonArray([
            new JsonObject
            {
                ["id"] = "white",
                ["x"] = 0.5,
                ["y"] = 0.5,
            },
            .. Enumerable
                .Range(1, 16)
                .Select(i =>
                    (JsonNode)
                        new JsonObject
                        {
                            ["id"] = $"red-{i}",
                            ["x"] = 0.8 + i * 0.1,
                            ["y"] = 1.0,
                        }
                ),
        ]);
        var (status, body) = await app.Post(
            "/api/simulate",
            new JsonObject
            {
                ["balls"] = balls,
                ["strike"] = new JsonObject { ["aim"] = 0, ["cueSpeed"] = 1 },
            }
        );
        Assert.Equal(400, status);
        Assert.Equal(["balls[16].id"], body.Fields());
    }

    [Fact]
    public async Task Another_media_type_is_refused()
    {
        using var response = await app.Client.PostAsync(
            "/api/simulate",
            new StringContent("a=1", System.Text.Encoding.UTF8, "application/x-www-form-urlencoded")
        );
        Assert.Equal(415, (int)response.StatusCode);
        Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
    }

    [Fact]
    public async Task An_unknown_address_of_the_api_is_not_found_and_not_the_page()
    {
        var (status, _) = await app.Send(HttpMethod.Get, "/api/nothing");
        Assert.Equal(404, status);
    }
}
