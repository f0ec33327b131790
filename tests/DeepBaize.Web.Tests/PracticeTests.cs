using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>Routines, sessions and attempts over the API.</summary>
[Collection("application")]
public class PracticeTests(Application app)
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private async Task<string> Session(string? id = null)
    {
        var (status, body) = await app.Post(
            "/api/practice/sessions",
            new JsonObject
            {
                ["id"] = id ?? Guid.NewGuid().ToString(),
                ["now"] = new JsonObject { ["routine"] = "stop", ["step"] = 1 },
            }
        );
        Assert.Equal(201, status);
        return $"/api/practice/sessions/{body["id"]}";
    }

    private static JsonObject Attempt(string routine = "stop", bool? said = true, string? id = null, int revision = 1, int minute = 0) =>
        new()
        {
            ["id"] = id ?? Guid.NewGuid().ToString(),
            ["revision"] = revision,
            ["at"] = $"2026-11-20T10:{minute:00}:00Z",
            ["routine"] = routine,
            ["said"] = said,
        };

    private Task<(int Status, JsonNode Body)> Count(string session, params JsonObject[] attempts) =>
        app.Post($"{session}/attempts", new JsonObject { ["attempts"] = new JsonArray([.. attempts.Select(a => a.DeepClone())]) });

    private async Task<JsonArray> Attempts(string session) => (await app.Send(HttpMethod.Get, session)).Body["attempts"]!.AsArray();

    [Fact]
    public async Task A_session_that_is_begun_twice_is_one_and_so_is_an_attempt_that_is_sent_twice()
    {
        var id = Guid.NewGuid().ToString();
        var begun = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Session(id)));
        var session = Assert.Single(begun.Distinct());
        var attempts = Enumerable.Range(0, 8).Select(i => Attempt(minute: i, said: i % 2 == 0)).ToArray();
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Count(session, attempts)));
        Assert.All(answers, a => Assert.Equal(200, a.Status));
        var kept = await Attempts(session);
        Assert.Equal(attempts.Select(a => Text(a["id"])), kept.Select(a => Text(a!["id"])));
        Assert.Equal(8, (await app.Send(HttpMethod.Get, session)).Body["session"]!["changes"]!.GetValue<int>());
    }

    [Fact]
    public async Task The_higher_revision_stands_in_whatever_order_they_come_and_leaves_a_coachs_word_alone()
    {
        var session = await Session();
        var id = Guid.NewGuid().ToString();
        await Count(session, Attempt(id: id));
        Assert.Equal(
            200,
            (await app.Send(HttpMethod.Put, $"{session}/attempts/{id}/note", new JsonObject { ["note"] = "Head still." })).Status
        );
        var third = Attempt(id: id, revision: 3, said: false);
        third["reasons"] = new JsonArray("thick");
        await Count(session, third);
        await Count(session, Attempt(id: id, revision: 2));
        var kept = Assert.Single(await Attempts(session))!;
        Assert.False(kept["done"]!.GetValue<bool>());
        Assert.Equal(("thick", "Head still."), (Text(kept["reasons"]![0]), Text(kept["note"])));
        var undone = Attempt(id: id, revision: 4);
        undone["withdrawn"] = true;
        await Count(session, undone);
        Assert.True((await Attempts(session))[0]!["withdrawn"]!.GetValue<bool>());
    }

    /// <summary>The stop shot's circle as the routine itself gives it.</summary>
    [Fact]
    public async Task It_is_judged_by_the_rule_and_not_by_what_was_said_of_it()
    {
        var routine = (await app.Send(HttpMethod.Get, "/api/routines/stop")).Body["routine"]!;
        var circle = routine["steps"]![0]!["demands"]!.AsArray().Single(d => Text(d!["kind"]) == "whiteIn")!["area"]!;
        var (x, y, r) = (circle["x"]!.GetValue<double>(), circle["y"]!.GetValue<double>(), circle["radius"]!.GetValue<double>());
        var session = await Session();
        JsonObject At(double dx, bool said, bool mirrored = false)
        {
            var attempt = Attempt(said: said);
            attempt["white"] = new JsonObject { ["x"] = x + dx, ["y"] = mirrored ? 1.778 - y : y };
            attempt["mirrored"] = mirrored;
            return attempt;
        }
        var (_, body) = await Count(
            session,
            At(0.9 * r, true),
            At(1.1 * r, true),
            At(0, false),
            At(0.9 * r, true, mirrored: true),
            Attempt()
        );
        Assert.Equal([true, false, false, true, true], body["attempts"]!.AsArray().Select(a => a!["done"]!.GetValue<bool>()));
    }

    [Fact]
    public async Task Statistics_count_what_was_done_by_side_and_cause_and_leave_out_what_was_taken_back()
    {
        var (_, made) = await app.Post("/api/routines", new JsonObject { ["routine"] = Own() });
        var routine = Text(made["id"]);
        var session = await Session();
        var missed = Attempt(routine, said: false, minute: 5);
        missed["reasons"] = new JsonArray("thick", "hard");
        var mirrored = Attempt(routine, minute: 6);
        mirrored["mirrored"] = true;
        var undone = Attempt(routine, minute: 7);
        undone["withdrawn"] = true;
        await Count(session, [.. Enumerable.Range(0, 5).Select(i => Attempt(routine, minute: i)), missed, mirrored, undone]);
        var (status, told) = await app.Send(HttpMethod.Get, $"/api/practice/statistics?routine={routine}");
        Assert.Equal(200, status);
        var of = told["of"]!;
        Assert.Equal((6, 7), (of["all"]!["done"]!.GetValue<int>(), of["all"]!["of"]!.GetValue<int>()));
        Assert.Equal([(5, 6), (1, 1)], of["sides"]!.AsArray().Select(s => (s!["done"]!.GetValue<int>(), s["of"]!.GetValue<int>())));
        Assert.Equal(["hard", "thick"], of["causes"]!.AsArray().Select(c => Text(c!["reason"])));
        // Wilson's interval of 6 in 7: 0.487 to 0.974 (Math.NET's quantile, and his formula, in StatisticsTests).
        Assert.Equal(0.487, of["all"]!["low"]!.GetValue<double>(), 3);
        Assert.Equal("2026-11-16", Text(told["weeks"]![0]!["from"]));
        Assert.Equal(204, await app.Delete($"/api/routines/{routine}"));
        // Put away, its attempts still count.
        Assert.Equal(7, (await app.Send(HttpMethod.Get, $"/api/practice/statistics?routine={routine}")).Body["attempts"]!.GetValue<int>());
    }

    [Fact]
    public async Task Whoever_looks_on_sees_attempts_come_in_and_the_task_change()
    {
        var session = await Session();
        await Count(session, Attempt());
        using var stop = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        using var request = new HttpRequestMessage(HttpMethod.Get, $"{session}/live");
        using var response = await app.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, stop.Token);
        using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(stop.Token));
        async Task<JsonNode> Next()
        {
            while (true)
                if (await reader.ReadLineAsync(stop.Token) is { } line && line.StartsWith("data: ", StringComparison.Ordinal))
                    return JsonNode.Parse(line[6..])!;
        }
        Assert.Single((await Next())["attempts"]!.AsArray());
        var second = Attempt(minute: 1);
        await Count(session, second);
        Assert.Equal(Text(second["id"]), Text(Assert.Single((await Next())["attempts"]!.AsArray())!["id"]));
        await app.Send(
            HttpMethod.Put,
            $"{session}/now",
            new JsonObject
            {
                ["now"] = new JsonObject
                {
                    ["routine"] = "zones",
                    ["step"] = 2,
                    ["mirrored"] = true,
                    ["group"] = "lower bridge",
                },
            }
        );
        var now = await Next();
        Assert.Empty(now["attempts"]!.AsArray());
        Assert.Equal(("zones", "lower bridge"), (Text(now["session"]!["now"]!["routine"]), Text(now["session"]!["now"]!["group"])));
    }

    private static JsonObject Own() =>
        new()
        {
            ["name"] = "Red to the middle",
            ["steps"] = new JsonArray(
                new JsonObject
                {
                    ["label"] = "as found",
                    ["balls"] = new JsonArray(
                        new JsonObject
                        {
                            ["id"] = "white",
                            ["x"] = 1.4,
                            ["y"] = 1.1,
                        },
                        new JsonObject
                        {
                            ["id"] = "red-1",
                            ["x"] = 1.7,
                            ["y"] = 0.5,
                        }
                    ),
                    ["stroke"] = new JsonObject
                    {
                        ["pace"] = 3.5,
                        ["pot"] = new JsonObject { ["ball"] = "red-1", ["pocket"] = "yellow-middle" },
                    },
                    ["demands"] = new JsonArray(new JsonObject { ["kind"] = "pot" }),
                }
            ),
            ["bothSides"] = true,
        };

    [Fact]
    public async Task A_routine_of_ones_own_is_made_easier_until_about_seven_in_ten_succeed()
    {
        var steps = Own()["steps"]!.DeepClone();
        // A long pot.
        steps[0]!["balls"]![0] = new JsonObject
        {
            ["id"] = "white",
            ["x"] = 0.6,
            ["y"] = 0.55,
        };
        steps[0]!["balls"]![1] = new JsonObject
        {
            ["id"] = "red-1",
            ["x"] = 2.0,
            ["y"] = 1.05,
        };
        steps[0]!["stroke"]!["pot"]!["pocket"] = "green-top";
        var (status, body) = await app.Post(
            "/api/routines/variants",
            new JsonObject
            {
                ["steps"] = steps,
                ["player"] = new JsonObject { ["skill"] = "club" },
            }
        );
        Assert.Equal(200, status);
        var asItIs = body["asItIs"]!["value"]!.GetValue<double>();
        var about = body["aboutSeven"]!["done"]!["value"]!.GetValue<double>();
        Assert.True(asItIs < 0.6, $"As it is {asItIs}.");
        Assert.InRange(about, 0.6, 0.8);
        Assert.True(body["aboutSeven"]!["nearer"]!.GetValue<double>() > 0);
        var outlook = await app.Post(
            "/api/routines/outlook",
            new JsonObject
            {
                ["steps"] = new JsonArray(body["aboutSeven"]!["step"]!.DeepClone()),
                ["player"] = new JsonObject { ["skill"] = "tour" },
            }
        );
        Assert.True(outlook.Body[0]!["done"]!["value"]!.GetValue<double>() > about);
    }

    [Fact]
    public async Task Shots_put_back_within_a_run_are_tallied_beside_its_points_and_strokes()
    {
        var session = await Session();
        var run = Attempt("line-up", said: null);
        run["score"] = 12;
        run["kinds"] = JsonNode.Parse("""{ "againDone": 2, "againNot": 1, "screw": 1 }""");
        Assert.Equal(200, (await Count(session, run)).Status);
        Assert.Equal(2, Assert.Single(await Attempts(session))!["kinds"]!["againDone"]!.GetValue<int>());
        var told = (await app.Send(HttpMethod.Get, "/api/practice/statistics?routine=line-up")).Body["kinds"]!.AsArray();
        int Of(string kind) => told.Single(k => Text(k!["kind"]) == kind)!["inRoutines"]!.GetValue<int>();
        Assert.True(Of("againDone") >= 2 && Of("againNot") >= 1);
    }

    [Theory]
    [InlineData("""{"said":true,"routine":"nothing"}""", "attempts[0].routine")]
    [InlineData("""{"said":true,"step":9}""", "attempts[0].step")]
    [InlineData("""{"said":true,"revision":0}""", "attempts[0].revision")]
    [InlineData("""{"said":false,"reasons":["bad luck"]}""", "attempts[0].reasons")]
    [InlineData("""{"said":true,"white":{"x":9,"y":1}}""", "attempts[0].white.x")]
    [InlineData("""{"said":true,"kinds":{"masse":1}}""", "attempts[0].kinds")]
    [InlineData("""{"said":true,"at":"1950-01-01T00:00:00Z"}""", "attempts.at")]
    public async Task An_attempt_that_cannot_be_is_refused_and_none_of_those_sent_with_it_is_kept(string change, string field)
    {
        var session = await Session();
        var wrong = Attempt();
        foreach (var (name, value) in JsonNode.Parse(change)!.AsObject())
            wrong[name] = value?.DeepClone();
        var (status, problem) = await Count(session, wrong, Attempt());
        Assert.Equal((400, field), (status, problem.Fields()[0]));
        Assert.Empty(await Attempts(session));
    }

    [Theory]
    [InlineData("steps[0].demands[0].area", """{"kind":"whiteIn"}""")]
    [InlineData("steps[0].demands[0].ball", """{"kind":"meetsFirst","ball":"black"}""")]
    [InlineData("steps[0].demands[0].within", """{"kind":"whiteOnCushion","within":4}""")]
    [InlineData("steps[0].demands[0].points", """{"kind":"score"}""")]
    // What a demand's kind does not use is not kept unchecked.
    [InlineData("steps[0].demands[0].within", """{"kind":"pot","within":-1e308}""")]
    [InlineData("steps[0].demands[0].ball", """{"kind":"noCushion","ball":"nobody knows this ball, and its name is long"}""")]
    [InlineData("steps[0].demands[0].cushion", """{"kind":"backOnTip","within":0.1,"cushion":"top"}""")]
    public async Task A_routine_with_a_rule_that_cannot_be_is_refused_by_its_field(string field, string demand)
    {
        var routine = Own();
        routine["steps"]![0]!["demands"] = new JsonArray(JsonNode.Parse(demand));
        var (status, problem) = await app.Post("/api/routines", new JsonObject { ["routine"] = routine });
        Assert.Equal((400, $"routine.{field}"), (status, problem.Fields()[0]));
    }
}
