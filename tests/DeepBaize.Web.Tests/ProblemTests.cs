using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>Problems as RFC 9457 has them, with a code, and every fault of an input by its field.</summary>
[Collection("application")]
public class ProblemTests(Application app)
{
    public static TheoryData<string, string, string[], string[]> Faults =>
        new()
        {
            // address, body, fields, codes
            { "/api/simulate", "{", ["body"], ["notJson"] },
            { "/api/simulate", "[]", ["body"], ["wrongForm"] },
            { "/api/simulate", "{}", ["balls", "strike"], ["missing", "missing"] },
            { "/api/simulate", """{"balls":null,"strike":{"aim":0,"cueSpeed":1}}""", ["balls"], ["missing"] },
            {
                "/api/simulate",
                """{"balls":[{"id":"white","x":"1","y":1},{"id":"blue","y":1}],"strike":{"aim":0}}""",
                ["balls[0].x", "balls[1].x", "strike.cueSpeed"],
                ["wrongForm", "missing", "missing"]
            },
            { "/api/fan", """{"content":{"balls":[]},"kind":"spirals"}""", ["kind"], ["wrongForm"] },
            {
                "/api/frames/import",
                """{"format":"deep-baize-frame","version":1,"title":"A","shots":[{"kind":"pot","colour":"red"}]}""",
                ["shots[0].colour"],
                ["unknownField"]
            },
            {
                "/api/positions/import",
                """{"format":"deep-baize-position"}""",
                ["version", "name", "balls"],
                ["missing", "missing", "missing"]
            },
            {
                "/api/simulate",
                """{"balls":[{"id":"white","x":1,"y":1}],"strike":{"aim":0,"cueSpeed":9,"elevation":-1}}""",
                ["strike.cueSpeed", "strike.elevation"],
                ["outOfRange", "outOfRange"]
            },
        };

    [Theory]
    [MemberData(nameof(Faults))]
    public async Task Every_fault_of_an_input_is_told_by_its_field_with_a_code(string path, string body, string[] fields, string[] codes)
    {
        var (status, problem) = await app.Post(path, body);
        Assert.Equal((400, "input"), (status, problem["code"]!.GetValue<string>()));
        Assert.Equal(fields, problem.Fields());
        Assert.Equal(codes, problem["errors"]!.AsArray().Select(e => e!["code"]!.GetValue<string>()));
        Assert.All(problem["errors"]!.AsArray(), e => Assert.NotEmpty(e!["allowed"]!.GetValue<string>()));
    }

    [Fact]
    public async Task An_unknown_word_is_answered_with_those_there_are()
    {
        var (_, problem) = await app.Post("/api/fan", """{"content":{"balls":[]},"kind":"spirals"}""");
        Assert.Equal("routes, paces, heights, sides, butts, aims, errors", problem["errors"]![0]!["allowed"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_wrong_parameter_of_the_address_is_told_by_its_name()
    {
        var (status, problem) = await app.Send(HttpMethod.Get, "/api/positions?deleted=perhaps");
        Assert.Equal((400, "deleted"), (status, Assert.Single(problem.Fields())));
    }

    [Fact]
    public async Task What_is_not_there_has_a_code()
    {
        var (status, problem) = await app.Send(HttpMethod.Get, $"/api/frames/{Guid.NewGuid()}");
        Assert.Equal((404, "notFound"), (status, problem["code"]!.GetValue<string>()));
    }

    /// <summary>A client of a stream asks for nothing but events; of a wrong request it is told what is wrong all the same.</summary>
    [Theory]
    [InlineData("/api/decide")]
    [InlineData("/api/plan")]
    [InlineData("/api/ways")]
    [InlineData("/api/black-ball")]
    public async Task A_wrong_request_for_a_stream_is_answered_with_a_problem(string path)
    {
        foreach (var body in new[] { "{", """{"content":{"balls":[]},"goal":{},"rival":"nobody","player":{"hand":"third"}}""" })
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path)
            {
                Content = new StringContent(body, System.Text.Encoding.UTF8, "application/json"),
            };
            request.Headers.Accept.ParseAdd("text/event-stream");
            using var response = await app.Client.SendAsync(request);
            Assert.Equal(400, (int)response.StatusCode);
            Assert.Equal("application/problem+json", response.Content.Headers.ContentType!.MediaType);
            var problem = await response.Content.ReadFromJsonAsync<JsonObject>();
            Assert.NotEmpty(problem!.Fields());
        }
    }

    /// <summary>One rule for where the white may be: what a plan takes, the map's figures take too.</summary>
    [Fact]
    public async Task A_white_at_rest_in_a_jaw_is_taken_by_the_plan_and_by_the_map_alike()
    {
        // Out in the mouth of a baulk pocket, beyond the nose line.
        var (x, y) = (-0.003, 0.012);
        var content = Sample.Table(x, y, (2.9, 1.1));
        var ask = new JsonObject
        {
            ["content"] = content,
            ["x"] = x,
            ["y"] = y,
        };
        var white = content["balls"]![0]!;
        var (frame, _) = await app.Post("/api/frame", new JsonObject { ["content"] = content.DeepClone() });
        var (at, _) = await app.Post("/api/position-at", ask);
        Assert.Equal((200, 200), (frame, at));
        (white["x"], white["y"], ask["x"], ask["y"]) = (-0.03, 0.9, -0.03, 0.9);
        var (wrongFrame, frameProblem) = await app.Post("/api/frame", new JsonObject { ["content"] = content.DeepClone() });
        var (wrongAt, atProblem) = await app.Post("/api/position-at", ask);
        Assert.Equal((400, 400), (wrongFrame, wrongAt));
        Assert.Equal(["balls[0].x"], frameProblem.Fields());
        Assert.Equal(["balls[0].x"], atProblem.Fields());
    }
}
