using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Json.Schema;

namespace DeepBaize.Web.Tests;

/// <summary>
/// Whatever is sent to whatever address: an answer, or a short refusal that names what is wrong; never a failure of the server, and nothing
/// stored that the published schemas do not allow. The addresses and the forms of the bodies are those of /openapi/v1.json; the seed is
/// fixed. ./test long sends three times as many; DEEPBAIZE_FUZZ says how many requests an address gets.
/// </summary>
[Collection("application")]
public class HostileTests(Application app)
{
    private const int Seed = 20261127,
        LongestRefusal = 8000;

    private static readonly bool IsLong = Environment.GetEnvironmentVariable("DEEPBAIZE_LONG") == "1";

    private static readonly int TimesEach = int.Parse(
        Environment.GetEnvironmentVariable("DEEPBAIZE_FUZZ") ?? (IsLong ? "20" : "7"),
        CultureInfo.InvariantCulture
    );

    /// <summary>Stands for a piece of JSON that no serializer would write.</summary>
    private const string Raw = "@raw@";

    private static readonly JsonNode?[] Hostile =
    [
        null,
        -1,
        0,
        3,
        2147483647,
        -2147483648,
        1e308,
        -1e308,
        0.5,
        "",
        " ",
        "1",
        "NaN",
        "\u0000",
        "a\u0000b",
        "\u202Eevil\u202C",
        "\u2066left\u2069",
        "\u200B\u2060\uFEFF",
        "\u3164",
        "\u0301\u0302",
        "=1+cmd|' /C calc'!A0",
        "@SUM(A1)",
        "'; DROP TABLE positions; --",
        "../../etc/passwd",
        "<script>alert(1)</script>",
        "%00%ff",
        "red-16",
        "WHITE",
        "pot, miss",
        new string('x', 3000),
        true,
        new JsonArray(),
        new JsonArray(null, null),
        new JsonObject(),
        $"{Raw}\"\\ud800\"",
        $"{Raw}1e999",
        $"{Raw}-0",
        $"{Raw}00012",
        $"{Raw}{new string('[', 100)}{new string(']', 100)}",
        $"{Raw}{{\"id\":\"white\",\"id\":\"blue\",\"x\":1,\"y\":1}}",
    ];

    private static readonly (string Type, Func<string, byte[]> Bytes)[] Wrappings =
    [
        ("application/json; charset=latin-1", Encoding.UTF8.GetBytes),
        ("application/json", text => Encoding.UTF8.GetBytes(text[..(text.Length / 2)])),
        ("application/json", text => [.. Encoding.UTF8.GetBytes(text), (byte)'}']),
        ("application/json", text => [0xFF, 0xFE, .. Encoding.UTF8.GetBytes(text)]),
        ("application/json", text => [.. Encoding.UTF8.GetBytes(text)[..^2], 0xC3, 0x28]),
        ("application/json", Encoding.Unicode.GetBytes),
        ("application/json", _ => []),
        ("application/json", _ => "null"u8.ToArray()),
        ("application/json", text => [.. "\uFEFF"u8.ToArray(), .. Encoding.UTF8.GetBytes(text)]),
    ];

    private static readonly Dictionary<string, JsonNode> _real = [];
    private JsonNode _schemas = null!;

    [Theory]
    [InlineData("/api/simulate", "balls[0].x")]
    [InlineData("/api/shot", "content.balls[0].x")]
    public async Task A_number_beyond_a_double_is_refused_by_its_field(string path, string field)
    {
        const string balls = """[{ "id": "white", "x": 1e400, "y": 0.6 }]""";
        var body =
            path == "/api/shot"
                ? $$"""{ "content": { "balls": {{balls}} } }"""
                : $$"""{ "balls": {{balls}}, "strike": { "aim": 0, "cueSpeed": 1 } }""";
        var (status, problem) = await app.Post(path, body);
        Assert.Equal((400, field), (status, problem.Fields()[0]));
    }

    [Fact]
    [Trait("Speed", "Slow")]
    public async Task Whatever_is_sent_is_answered_or_shortly_refused_and_what_is_stored_is_as_published()
    {
        var description = JsonNode.Parse(await app.Client.GetStringAsync("/openapi/v1.json"))!;
        _schemas = description["components"]!["schemas"]!;
        await MakeRealOnesAsync();
        var random = new Random(Seed);
        Dictionary<int, int> statuses = [];
        foreach (var (path, operations) in description["paths"]!.AsObject())
            foreach (var (method, operation) in operations!.AsObject())
                for (var i = 0; i < TimesEach; i++)
                {
                    var status = await AskAsync(method, path, operation!, random, i);
                    statuses[status] = statuses.GetValueOrDefault(status) + 1;
                }
        // It was not all refused at the door.
        Assert.True(statuses.Where(s => s.Key is 200 or 201 or 204).Sum(s => s.Value) > 7 * TimesEach, Told(statuses));
        Assert.True(statuses.GetValueOrDefault(400) > 7 * TimesEach, Told(statuses));
        await WhatIsStoredIsAsPublishedAsync();
    }

    private static string Told(Dictionary<int, int> statuses) =>
        string.Join(", ", statuses.OrderBy(s => s.Key).Select(s => $"{s.Value} × {s.Key}"));

    /// <summary>Rows that can be changed, so that what is sent gets past the door.</summary>
    private async Task MakeRealOnesAsync()
    {
        // The tests of a class come one after the other; one set is enough for all of them.
        if (_real.Count > 0)
            return;
        var (_, position) = await app.Post("/api/positions", Sample.Draft("To be changed"));
        _real["position"] = position;
        _real["shot"] = (
            await app.Post($"/api/positions/{position["id"]}/shots", new JsonObject { ["name"] = "Stun", ["content"] = Sample.Content() })
        ).Body;
        _real["frame"] = (
            await app.Post("/api/frames", JsonNode.Parse("""{ "title": "A frame", "shots": [{ "kind": "pot", "potted": ["red"] }] }""")!)
        ).Body;
        await foreach (var e in app.Stream("/api/plan", new() { ["content"] = Sample.Table(1, 0.75) }))
            _real["answer"] = e;
    }

    private async Task<int> AskAsync(string method, string path, JsonNode operation, Random random, int round)
    {
        using var request = new HttpRequestMessage(new(method), Address(path, operation, random));
        var sent = "";
        if (operation["requestBody"]?["content"]?["application/json"]?["schema"] is { } schema)
        {
            var body = Made(schema, "", path);
            // The first as it should be; then with one fault, two, or three.
            for (var faults = round == 0 ? 0 : random.Next(1, 4); faults > 0; faults--)
                body = Spoilt(body, random);
            sent = Text(body);
            var (type, bytes) =
                round > 0 && random.Next(12) == 0 ? Wrappings[random.Next(Wrappings.Length)] : ("application/json", Encoding.UTF8.GetBytes);
            request.Content = new ByteArrayContent(bytes(sent));
            request.Content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        }
        if (random.Next(6) == 0)
            request.Headers.TryAddWithoutValidation("Idempotency-Key", random.Next(2) == 0 ? $"key-{random.Next(5)}" : new string('ä', 3));
        using var response = await app.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        var status = (int)response.StatusCode;
        var what = $"{status} for {method} {request.RequestUri} {sent[..Math.Min(sent.Length, 600)]}";
        Assert.True(status < 500, what);
        if (status < 400)
            return status;
        var refusal = await response.Content.ReadAsStringAsync();
        Assert.True(refusal.Length < LongestRefusal, $"{refusal.Length} characters: {what}");
        Assert.True(JsonNode.Parse(refusal)!["code"] is not null, $"{refusal}: {what}");
        return status;
    }

    private string Address(string path, JsonNode operation, Random random)
    {
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.GetValue<string>();
            if (parameter["in"]!.GetValue<string>() == "path")
                path = path.Replace($"{{{name}}}", InPath(path, name, random));
            else if (parameter["in"]!.GetValue<string>() == "query" && random.Next(3) > 0)
            {
                var value = random.Next(2) == 0 && name == "version" ? VersionFor(path) : $"{Hostile[random.Next(Hostile.Length)]}";
                path += $"{(path.Contains('?') ? '&' : '?')}{name}={Uri.EscapeDataString(value)}";
            }
        }
        return path;
    }

    /// <summary>U+0000 in a path gets no farther than the server's own door, which is not there in a test.</summary>
    private string InPath(string path, string name, Random random) =>
        random.Next(5) == 0
            ? Uri.EscapeDataString(random.Next(2) == 0 ? $"{Guid.NewGuid()}" : $"x{Hostile[random.Next(Hostile.Length)]}".Replace("\0", ""))
        : name == "route" ? "top.baulk"
        : name == "positionId" || path.StartsWith("/api/positions/{id}", StringComparison.Ordinal) ? $"{_real["position"]["id"]}"
        : path.StartsWith("/api/frames", StringComparison.Ordinal) ? $"{_real["frame"]["id"]}"
        : $"{_real["shot"]["id"]}";

    private string VersionFor(string path) =>
        $"{_real[path.Contains("/frames") ? "frame" : path.Contains("/shots") ? "shot" : "position"]["version"]}";

    /// <summary>A body of the wanted form: what matters is real, the rest by the schema.</summary>
    private JsonNode? Made(JsonNode schema, string name, string path)
    {
        if (name == "content")
            return path.Contains("/plan") || path is "/api/decide" or "/api/frame" ? Sample.Table(1, 0.75) : Sample.Content();
        if (name == "balls")
            return Sample.Content()["balls"]!.DeepClone();
        if (name is "answer" or "frame" && _real.TryGetValue(name, out var real) && name == "answer")
            return real.DeepClone();
        if (name == "version" && path.StartsWith("/api/", StringComparison.Ordinal) && !path.Contains("import"))
            return JsonNode.Parse(VersionFor(path));
        if (schema["$ref"] is { } reference)
            return Made(_schemas[reference.GetValue<string>().Split('/')[^1]]!, name, path);
        if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray choices)
            return Made(choices[^1]!, name, path);
        if (schema["enum"] is JsonArray values)
            return values[0]!.DeepClone();
        var type = schema["type"] is JsonArray types
            ? types.First(t => t!.GetValue<string>() != "null")!.GetValue<string>()
            : schema["type"]?.GetValue<string>();
        return type switch
        {
            "object" when schema["properties"] is JsonObject properties => new JsonObject(
                properties.Select(p => KeyValuePair.Create(p.Key, Made(p.Value!, p.Key, path)))
            ),
            "object" => new JsonObject(),
            "array" => name is "shots" or "rows" or "lines" or "tags" ? new JsonArray(Made(schema["items"]!, "", path)) : new JsonArray(),
            "integer" => name == "version" ? 2 : 0,
            "number" => name is "pace" ? 4
            : name is "height" or "radius" ? 1.7
            : 0.6,
            "boolean" => false,
            _ => Word(name, path),
        };
    }

    private static string Word(string name, string path) =>
        name switch
        {
            "format" => path.Contains("frames") ? "deep-baize-frame" : "deep-baize-position",
            "hand" => "right",
            "skill" or "rival" => "club",
            "sideHabit" => "plain",
            "ball" or "id" => "red-1",
            "pocket" => "green-top",
            "route" => "top.baulk",
            "on" => "red",
            _ => "A word",
        };

    /// <summary>Returns a body with one fault: a part replaced, missing, or there too often.</summary>
    private static JsonNode? Spoilt(JsonNode? body, Random random)
    {
        List<JsonNode> places = [];
        void Walk(JsonNode? node)
        {
            if (node is JsonObject or JsonArray)
                places.Add(node);
            foreach (
                var child in node is JsonObject o ? o.Select(p => p.Value)
                : node is JsonArray a ? a
                : []
            )
                Walk(child);
        }
        Walk(body);
        if (places.Count == 0 || random.Next(40) == 0)
            return Any();
        switch (places[random.Next(places.Count)])
        {
            case JsonObject o when o.Count > 0:
                var key = o.ElementAt(random.Next(o.Count)).Key;
                if (random.Next(6) == 0)
                    o.Remove(key);
                else if (random.Next(8) == 0)
                    o[$"{Hostile[random.Next(5, 12)]}{key}"] = Any();
                else
                    o[key] = Any();
                break;
            case JsonArray a when a.Count > 0:
                var at = random.Next(a.Count);
                if (random.Next(3) == 0)
                    for (var times = random.Next(1, 40); times > 0; times--)
                        a.Add(a[at]?.DeepClone());
                else
                    a[at] = Any();
                break;
            case JsonArray a:
                a.Add(Any());
                break;
        }
        return body;

        JsonNode? Any() => Hostile[random.Next(Hostile.Length)]?.DeepClone();
    }

    private static string Text(JsonNode? body)
    {
        var text = body?.ToJsonString(new() { Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping }) ?? "null";
        foreach (
            var raw in Hostile
                .Select(h => h?.GetValueKind() == JsonValueKind.String ? h.GetValue<string>() : "")
                .Where(h => h.StartsWith(Raw, StringComparison.Ordinal))
        )
            text = text.Replace(JsonSerializer.Serialize(raw, Relaxed), raw[Raw.Length..]);
        return text;
    }

    private static readonly JsonSerializerOptions Relaxed = new()
    {
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>JSON Schema 2020-12, by a library: every position and frame as a file, against docs/*.schema.json.</summary>
    private async Task WhatIsStoredIsAsPublishedAsync()
    {
        var (positions, frames) = (Schema("position"), Schema("frame"));
        foreach (var item in await All("/api/positions"))
        {
            var (_, position) = await app.Send(HttpMethod.Get, $"/api/positions/{item["id"]}");
            var draft = new JsonObject
            {
                ["name"] = position["name"]!.DeepClone(),
                ["about"] = position["about"]!.DeepClone(),
                ["content"] = position["content"]!.DeepClone(),
            };
            var (status, file) = await app.Post("/api/positions/export/json", draft);
            Assert.True(status == 200, $"{position}");
            Holds(positions, file);
        }
        foreach (var item in await All("/api/frames"))
        {
            var (status, file) = await app.Send(HttpMethod.Get, $"/api/frames/{item["id"]}/export/json");
            Assert.Equal(200, status);
            Holds(frames, file);
        }
    }

    private static JsonSchema Schema(string kind) => JsonSchema.FromFile(Path.Combine(DescriptionTests.Docs, $"{kind}.schema.json"));

    private static void Holds(JsonSchema schema, JsonNode file)
    {
        var result = schema.Evaluate(file, new() { OutputFormat = OutputFormat.List });
        var faults = result.Details.Where(d => d.HasErrors).SelectMany(d => d.Errors!.Select(e => $"{d.InstanceLocation}: {e.Value}"));
        Assert.True(result.IsValid, $"{string.Join("; ", faults)}\n{file}");
    }

    private async Task<List<JsonNode>> All(string path)
    {
        List<JsonNode> all = [];
        while (true)
        {
            var (status, part) = await app.Send(HttpMethod.Get, $"{path}?skip={all.Count}&take=200");
            Assert.Equal(200, status);
            all.AddRange(part.AsArray().Select(p => p!));
            if (part.AsArray().Count < 200)
                return all;
        }
    }

    /// <summary>What the fuzz has found, each by itself.</summary>
    [Theory]
    [InlineData("balls", """[null]""", "content.balls[0]")]
    [InlineData("balls", """[{"id":"white\u0000","x":1,"y":1}]""", "content.balls[0].id")]
    [InlineData("balls", """[{"id":"white","id":"blue","x":1,"y":1}]""", "content.balls[0].id")]
    [InlineData("frame", """{"turn":7}""", "frame.turn")]
    [InlineData("frame", """{"first":2147483647}""", "frame.first")]
    [InlineData("frame", """{"break":-3}""", "frame.break")]
    [InlineData("frame", """{"on":"RED"}""", "frame.on")]
    public async Task A_content_that_cannot_be_is_refused_by_its_field(string part, string json, string field)
    {
        var draft = Sample.Draft().ToJsonString();
        var at = draft.IndexOf("\"content\":{", StringComparison.Ordinal) + "\"content\":{".Length;
        if (part == "balls")
            draft = draft.Replace(Sample.Content()["balls"]!.ToJsonString(), json);
        else
            draft = draft.Insert(at, $"\"{part}\":{json},");
        var (status, problem) = await app.Post("/api/positions", draft);
        Assert.Equal((400, field), (status, problem.Fields()[0]));
    }

    [Theory]
    [InlineData("\u200B\u2060")]
    [InlineData("\u3164\u115F")]
    [InlineData("\u0301")]
    [InlineData("abc\u202Edef")]
    [InlineData("\u2067abc")]
    [InlineData("a\u0007b")]
    public async Task A_name_that_is_not_seen_or_reads_as_another_is_refused(string name)
    {
        var (status, problem) = await app.Post("/api/positions", Sample.Draft(name));
        Assert.Equal((400, "name"), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task A_name_in_any_language_is_kept_as_it_is()
    {
        const string name = "Cafe\u0301 👩‍🎱 عربي";
        var (_, kept) = await app.Post("/api/positions", Sample.Draft($"  {name}  "));
        Assert.Equal(name, kept["name"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("/api/fan", """{"content":{"balls":[]},"kind":1}""", "kind")]
    [InlineData("/api/fan", """{"content":{"balls":[]},"kind":"1"}""", "kind")]
    [InlineData("/api/frames", """{"title":"A","shots":[{"kind":3}]}""", "shots[0].kind")]
    public async Task An_enum_is_a_word_and_no_number(string path, string body, string field)
    {
        var (status, problem) = await app.Post(path, body);
        Assert.Equal((400, field), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task A_refusal_stays_short_whatever_was_sent()
    {
        var balls = string.Join(',', Enumerable.Repeat($$"""{"id":"{{new string('z', 300)}}","x":9,"y":9}""", 600));
        var draft = $$$"""{"name":"{{{new string('n', 3000)}}}","content":{"balls":[{{{balls}}}]}}""";
        var (status, problem) = await app.Post("/api/positions", draft);
        Assert.Equal(400, status);
        Assert.InRange(problem.ToJsonString().Length, 100, LongestRefusal);
    }

    /// <summary>OWASP, "CSV Injection": a cell that begins so is taken for a formula.</summary>
    [Fact]
    public async Task A_cell_that_begins_like_a_formula_is_a_text_in_the_table()
    {
        var draft = JsonNode.Parse(
            """{ "title": "T", "first": "=1+1", "second": "@cmd", "shots": [{ "kind": "miss" }, { "kind": "safety" }] }"""
        )!;
        var (_, frame) = await app.Post("/api/frames", draft);
        var lines = (await app.Client.GetStringAsync($"/api/frames/{frame["id"]}/export/csv")).Split('\n');
        Assert.StartsWith("1,'=1+1,", lines[1]);
        Assert.StartsWith("2,'@cmd,", lines[2]);
    }

    [Theory]
    [InlineData("$.plans[0].shots[0].alive.value", "1.5")]
    [InlineData("$.plans[0].shots[0].choice.chance.error", "-1")]
    [InlineData("$.plans[0].shots[0].choice.nominated", "\"puce\"")]
    [InlineData("$.plans[0].shots[0].content.balls", "[]")]
    [InlineData("$.plans[0].shots[0].long.x", "1e9")]
    [InlineData("$.plans[0].shots[0].reasons[0].amount", "-1e308")]
    [InlineData("$.plans[0].shots[0].choice.cutDegrees", "1e200")]
    [InlineData("$.plans[0].shots[0].choice.value.value", "1e308")]
    [InlineData("$.plans[0].shots", "[]")]
    [InlineData("$.plans", "[]")]
    [InlineData("$.share", "7")]
    public async Task A_plans_answer_that_can_have_been_none_is_not_kept(string at, string json)
    {
        await MakeRealOnesAsync();
        JsonNode Draft(JsonNode answer) =>
            new JsonObject
            {
                ["name"] = "A plan",
                ["content"] = Sample.Table(1, 0.75),
                ["body"] = new JsonObject
                {
                    ["player"] = new JsonObject(),
                    ["preferences"] = new JsonObject(),
                    ["answer"] = answer,
                },
            };
        var path = $"/api/positions/{_real["position"]["id"]}/plans";
        Assert.Equal(201, (await app.Post(path, Draft(_real["answer"].DeepClone()))).Status);
        var wrong = _real["answer"].DeepClone();
        var steps = at[2..].Replace("[0]", ".0").Split('.');
        var parent = steps[..^1].Aggregate(wrong, (node, step) => step == "0" ? node[0]! : node[step]!);
        parent[steps[^1]] = JsonNode.Parse(json);
        var (status, problem) = await app.Post(path, Draft(wrong));
        Assert.Equal(400, status);
        Assert.StartsWith("body.answer.", problem.Fields()[0]);
    }
}
