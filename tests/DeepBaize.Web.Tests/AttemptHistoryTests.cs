using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>
/// What was counted stays what it was: with the layout and the demand of its time, whatever becomes of the routine; in the bin, and back;
/// and corrected on two devices, the second is told.
/// </summary>
[Collection("application")]
public class AttemptHistoryTests(Application app)
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    /// <summary>The white is to stop in a circle about a place, with any stroke.</summary>
    private static JsonObject Routine(double x) =>
        JsonNode
            .Parse(
                $$"""
                { "name": "Stop it there", "steps": [ { "label": "as laid",
                  "balls": [ { "id": "white", "x": 0.5, "y": 0.9 }, { "id": "blue", "x": 1.7845, "y": 0.889 } ],
                  "stroke": { "pace": 3 },
                  "demands": [ { "kind": "whiteIn", "area": { "kind": "circle", "x": {{x}}, "y": 0.9, "radius": 0.2 } } ] } ] }
                """
            )!
            .AsObject();

    private async Task<(string Id, JsonNode Record)> Made(double x)
    {
        var (status, made) = await app.Post("/api/routines", new JsonObject { ["routine"] = Routine(x) });
        Assert.True(status == 201, made.ToString());
        return (Text(made["id"]), made);
    }

    private async Task<string> Session()
    {
        var (_, body) = await app.Post("/api/practice/sessions", new JsonObject { ["id"] = Guid.NewGuid().ToString() });
        return $"/api/practice/sessions/{body["id"]}";
    }

    private static JsonObject Attempt(string routine, string? id = null, int revision = 1, double? x = null, string? device = null) =>
        new()
        {
            ["id"] = id ?? Guid.NewGuid().ToString(),
            ["revision"] = revision,
            ["at"] = "2026-11-22T10:00:00Z",
            ["routine"] = routine,
            ["said"] = true,
            ["white"] = x is { } white ? new JsonObject { ["x"] = white, ["y"] = 0.9 } : null,
            ["device"] = device,
        };

    private async Task<JsonNode> Count(string session, params JsonObject[] attempts)
    {
        var (status, body) = await app.Post($"{session}/attempts", new JsonObject { ["attempts"] = new JsonArray([.. attempts]) });
        Assert.True(status == 200, body.ToString());
        return body;
    }

    [Fact]
    public async Task A_routine_that_is_changed_later_does_not_change_what_was_played()
    {
        var (routine, record) = await Made(1.2);
        var session = await Session();
        var id = Guid.NewGuid().ToString();
        var counted = await Count(session, Attempt(routine, id, x: 1.2));
        var hash = Text(counted["attempts"]![0]!["laid"]);

        var changed = new JsonObject { ["routine"] = Routine(2.4), ["version"] = record["version"]!.DeepClone() };
        Assert.Equal(200, (await app.Send(HttpMethod.Put, $"/api/routines/{routine}", changed)).Status);
        // Corrected now, it is judged by the circle of its time; a new one by the new circle.
        var corrected = await Count(session, Attempt(routine, id, revision: 2, x: 1.25), Attempt(routine, x: 1.25));
        Assert.Equal([true, false], corrected["attempts"]!.AsArray().Select(a => a!["done"]!.GetValue<bool>()));
        Assert.Equal(hash, Text(corrected["attempts"]![0]!["laid"]));
        Assert.NotEqual(hash, Text(corrected["attempts"]![1]!["laid"]));

        var (status, laid) = await app.Send(HttpMethod.Get, $"/api/practice/laid/{hash}");
        Assert.Equal(200, status);
        Assert.Equal(1.2, laid["step"]!["demands"]![0]!["area"]!["x"]!.GetValue<double>());
        Assert.Equal(2, laid["step"]!["balls"]!.AsArray().Count);
        Assert.NotNull(laid["conditions"]);
        Assert.Equal(404, (await app.Send(HttpMethod.Get, "/api/practice/laid/none")).Status);
    }

    [Fact]
    public async Task A_file_brings_what_was_laid_with_it()
    {
        var (routine, record) = await Made(1.2);
        var session = await Session();
        var hash = Text((await Count(session, Attempt(routine, x: 1.2)))["attempts"]![0]!["laid"]);
        var file = JsonNode.Parse(await app.Client.GetStringAsync($"/api/practice/attempts/export/json?routine={routine}"))!;
        Assert.Equal(hash, Text(Assert.Single(file["laid"]!.AsArray())!["hash"]));
        var changed = new JsonObject { ["routine"] = Routine(2.4), ["version"] = record["version"]!.DeepClone() };
        await app.Send(HttpMethod.Put, $"/api/routines/{routine}", changed);

        // The same attempt as of another session: judged and kept by what the file says was laid.
        var again = Guid.NewGuid().ToString();
        (file["attempts"]![0]!["id"], file["attempts"]![0]!["session"]) = (Guid.NewGuid().ToString(), again);
        Assert.Equal(200, (await app.Post("/api/practice/attempts/import", file)).Status);
        var kept = (await app.Send(HttpMethod.Get, $"/api/practice/sessions/{again}")).Body["attempts"]![0]!;
        Assert.Equal((true, hash), (kept["done"]!.GetValue<bool>(), Text(kept["laid"])));
    }

    [Fact]
    public async Task Of_two_devices_that_correct_one_attempt_the_second_is_told_and_nothing_is_dropped()
    {
        var (routine, _) = await Made(1.2);
        var session = await Session();
        var id = Guid.NewGuid().ToString();
        await Count(session, Attempt(routine, id, device: "phone"));
        JsonObject Corrected(string device, int revision, int? known, double x)
        {
            var attempt = Attempt(routine, id, revision, x, device);
            attempt["base"] = known;
            return attempt;
        }
        Assert.Empty((await Count(session, Corrected("phone", 2, 1, 1.2)))["conflicts"]!.AsArray());
        // The tablet knew the first revision only, and had corrected it twice.
        var second = await Count(session, Corrected("tablet", 3, 1, 2.5));
        Assert.Equal(id, Text(Assert.Single(second["conflicts"]!.AsArray())));
        Assert.Equal(1.2, second["attempts"]![0]!["white"]!["x"]!.GetValue<double>());
        // Sent once more it is told once more; the phone's own, sent again, is no conflict, nor is one that it made before the answer came.
        Assert.Single((await Count(session, Corrected("tablet", 3, 1, 2.5)))["conflicts"]!.AsArray());
        Assert.Empty((await Count(session, Corrected("phone", 2, 1, 1.2)))["conflicts"]!.AsArray());
        Assert.Empty((await Count(session, Corrected("phone", 3, 1, 1.3)))["conflicts"]!.AsArray());
        // Now that the tablet knows, its correction is taken.
        var wanted = await Count(session, Corrected("tablet", 4, 3, 2.5));
        Assert.Empty(wanted["conflicts"]!.AsArray());
        Assert.Equal(2.5, wanted["attempts"]![0]!["white"]!["x"]!.GetValue<double>());
    }

    [Fact]
    public async Task A_session_in_the_bin_does_not_count_and_comes_back_whole()
    {
        var (routine, _) = await Made(1.2);
        var session = await Session();
        await Count(session, Attempt(routine, x: 1.2), Attempt(routine, x: 2.9));
        async Task<int> Counted() =>
            (await app.Send(HttpMethod.Get, $"/api/practice/statistics?routine={routine}")).Body["attempts"]!.GetValue<int>();
        async Task<bool> IsListed(bool deleted) =>
            (await app.Send(HttpMethod.Get, $"/api/practice/sessions?take=200&deleted={deleted}"))
                .Body.AsArray()
                .Any(s => session.EndsWith(Text(s!["id"]), StringComparison.Ordinal));
        Assert.Equal((2, true, false), (await Counted(), await IsListed(false), await IsListed(true)));

        var version = (await app.Send(HttpMethod.Get, session)).Body["session"]!["version"]!;
        Assert.Equal(409, (await app.Send(HttpMethod.Delete, $"{session}?version=1")).Status);
        Assert.Equal(204, (await app.Send(HttpMethod.Delete, $"{session}?version={version}")).Status);
        Assert.Equal((0, false, true), (await Counted(), await IsListed(false), await IsListed(true)));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, session)).Status);
        // Nothing is counted into it meanwhile: it is said, and kept on the device.
        var late = new JsonObject { ["attempts"] = new JsonArray(Attempt(routine)) };
        Assert.Equal(404, (await app.Post($"{session}/attempts", late)).Status);

        Assert.Equal(200, (await app.Post($"{session}/restore", new JsonObject())).Status);
        Assert.Equal((2, true, false), (await Counted(), await IsListed(false), await IsListed(true)));
        Assert.Equal(2, (await app.Send(HttpMethod.Get, session)).Body["attempts"]!.AsArray().Count);
    }
}
