using System.Net.Http.Headers;
using System.Text;
using System.Text.Json.Nodes;

namespace DeepBaize.Web.Tests;

/// <summary>What a page of somebody else's may not do, and what one client may not do to the others.</summary>
[Collection("application")]
public class ForeignPageTests(Application app)
{
    private static HttpRequestMessage Post(string path, string? type, params (string Name, string Value)[] headers)
    {
        var content = new ByteArrayContent(Encoding.UTF8.GetBytes(Sample.Draft("By a foreign page").ToJsonString()));
        if (type is not null)
            content.Headers.ContentType = MediaTypeHeaderValue.Parse(type);
        var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = content };
        foreach (var (name, value) in headers)
            request.Headers.Add(name, value);
        return request;
    }

    private async Task<int> Status(HttpRequestMessage request)
    {
        using (request)
        using (var response = await app.Client.SendAsync(request))
            return (int)response.StatusCode;
    }

    /// <summary>A form or a script of another page can send these three types without asking (Fetch standard, "CORS-safelisted").</summary>
    [Theory]
    [InlineData("text/plain")]
    [InlineData("application/x-www-form-urlencoded")]
    [InlineData("multipart/form-data; boundary=x")]
    [InlineData(null)]
    [InlineData("application/json; charset=utf-7")]
    [InlineData("application/json; charset=nonsense")]
    [InlineData("application/json; charset=utf-16")]
    public async Task A_body_that_does_not_say_it_is_json_is_refused_everywhere(string? type)
    {
        foreach (var path in (string[])["/api/positions", "/api/positions/import", "/api/frames/import", "/api/simulate", "/api/plan"])
            Assert.Equal(415, await Status(Post(path, type)));
        Assert.Empty((await app.Send(HttpMethod.Get, "/api/positions?search=foreign")).Body.AsArray());
    }

    [Theory]
    [InlineData("Origin", "http://elsewhere.example", 403)]
    [InlineData("Origin", "null", 403)]
    [InlineData("Origin", "http://localhost:81", 403)]
    [InlineData("Origin", "http://localhost", 201)]
    [InlineData("Sec-Fetch-Site", "cross-site", 403)]
    [InlineData("Sec-Fetch-Site", "same-site", 403)]
    [InlineData("Sec-Fetch-Site", "same-origin", 201)]
    public async Task Only_the_own_page_may_change_anything(string header, string value, int status)
    {
        Assert.Equal(status, await Status(Post("/api/positions", "application/json; charset=utf-8", (header, value))));
        // Without a body too: deleting and restoring need no content type.
        var restore = new HttpRequestMessage(HttpMethod.Post, $"/api/positions/{Guid.NewGuid()}/restore");
        restore.Headers.Add(header, value);
        Assert.Equal(status == 403 ? 403 : 404, await Status(restore));
        foreach (var one in (await app.Send(HttpMethod.Get, "/api/positions?search=foreign")).Body.AsArray())
            await app.Delete($"/api/positions/{one!["id"]}");
    }

    [Fact]
    public async Task A_name_that_is_not_this_hosts_is_refused()
    {
        // DNS rebinding: a foreign name that leads here.
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/positions");
        request.Headers.Host = "rebound.example";
        Assert.Equal(400, await Status(request));
    }

    /// <summary>OWASP Secure Headers Project and Content Security Policy Level 3.</summary>
    [Theory]
    [InlineData("/")]
    [InlineData("/api/reference")]
    [InlineData("/api/frames/not-there")]
    [InlineData("/openapi/v1.json")]
    public async Task Every_answer_tells_browsers_what_they_may_do_with_it(string path)
    {
        using var response = await app.Client.GetAsync(path);
        string Header(string name) => response.Headers.TryGetValues(name, out var values) ? string.Join(", ", values) : "";
        var policy = Header("Content-Security-Policy").Split("; ");
        Assert.Contains("script-src 'self'", policy);
        Assert.Contains("frame-ancestors 'none'", policy);
        Assert.Contains("base-uri 'none'", policy);
        Assert.DoesNotContain("unsafe", Header("Content-Security-Policy"));
        Assert.Equal(
            ("nosniff", "no-referrer", "same-origin"),
            (Header("X-Content-Type-Options"), Header("Referrer-Policy"), Header("Cross-Origin-Resource-Policy"))
        );
        Assert.Equal("", Header("Access-Control-Allow-Origin"));
        Assert.Equal("", Header("Server"));
        if (path.StartsWith("/api", StringComparison.Ordinal))
            Assert.Equal("no-store", Header("Cache-Control"));
    }

    [Fact]
    public async Task The_document_has_no_script_of_its_own()
    {
        var page = await app.Client.GetStringAsync("/");
        Assert.DoesNotMatch(@"<script(?![^>]*\ssrc=)", page);
        Assert.DoesNotMatch(@"\son\w+\s*=", page);
        Assert.DoesNotContain("<style", page);
    }

    [Fact]
    public async Task A_client_that_asks_too_much_is_told_to_wait()
    {
        await using var strict = app.With(
            ("Rates:Burst", "20"),
            ("Rates:PerSecond", "10"),
            ("Rates:SavesBurst", "10"),
            ("Rates:SavesPerSecond", "10")
        );
        using var client = strict.CreateClient();
        List<HttpResponseMessage> answers = [];
        for (var i = 0; i < 60; i++)
            answers.Add(await client.GetAsync("/api/reference"));
        var refused = answers.FindAll(a => (int)a.StatusCode == 429);
        Assert.NotEmpty(refused);
        Assert.Equal("1", refused[0].Headers.GetValues("Retry-After").Single());
        Assert.Equal("tooManyRequests", JsonNode.Parse(await refused[0].Content.ReadAsStringAsync())!["code"]!.GetValue<string>());
        // Whoever watches over it is answered all the same.
        Assert.Equal("Healthy", await client.GetStringAsync("/health"));
    }

    private static async Task<(HttpResponseMessage Response, StreamReader Reader)> PlanAsync(HttpClient client)
    {
        var ask = new JsonObject { ["content"] = Sample.Table(2.2, 0.7, (2.9, 0.5), (2.95, 1.2), (2.5, 1.0), (3.1, 0.7)) };
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/plan")
        {
            Content = new StringContent(ask.ToJsonString(), Encoding.UTF8, "application/json"),
        };
        var response = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        return (response, new(await response.Content.ReadAsStreamAsync()));
    }

    [Fact]
    public async Task A_client_has_only_so_many_searches_at_once()
    {
        await using var strict = app.With(("Searches:MostOfClient", "2"), ("Searches:Deadline", "0.3"));
        using var client = strict.CreateClient();
        var (first, second, third) = (await PlanAsync(client), await PlanAsync(client), await PlanAsync(client));
        Assert.Equal((200, 200, 429), ((int)first.Response.StatusCode, (int)second.Response.StatusCode, (int)third.Response.StatusCode));
        Assert.Contains("tooManySearches", await third.Reader.ReadToEndAsync());
        foreach (var (_, reader) in new[] { first, second })
            await reader.ReadToEndAsync();
        // The places are free again.
        Assert.Equal(200, (int)(await PlanAsync(client)).Response.StatusCode);
    }

    [Fact]
    public async Task A_deadline_ends_a_search_with_what_it_has_found_and_says_so()
    {
        // Nothing can have been found yet: that is a problem.
        await using (var none = app.With(("Searches:WorkShare", "1"), ("Searches:Deadline", "0.0001")))
        {
            using var client = none.CreateClient();
            var told = await (await PlanAsync(client)).Reader.ReadToEndAsync();
            Assert.Contains("event: problem", told);
            Assert.Contains("\"tookTooLong\"", told);
        }
        // Something found: that is the answer, and marked. How long that takes depends on the machine.
        for (var deadline = 0.4; ; deadline *= 2)
        {
            Assert.True(deadline < 30, "no deadline cuts the search");
            await using var some = app.With(
                ("Searches:WorkShare", "1"),
                ("Searches:Deadline", deadline.ToString(System.Globalization.CultureInfo.InvariantCulture))
            );
            using var client = some.CreateClient();
            var told = await (await PlanAsync(client)).Reader.ReadToEndAsync();
            if (told.Contains("event: problem"))
                continue;
            var last = JsonNode.Parse(told.TrimEnd().Split("data: ")[^1])!;
            Assert.True(last["status"]!["isCut"]!.GetValue<bool>(), "the search has come to its end");
            Assert.NotEmpty(last["plans"]!.AsArray());
            Assert.InRange(last["share"]!.GetValue<double>(), 0.01, 0.99);
            break;
        }
    }

    [Fact]
    public async Task A_search_says_its_stages_about_how_long_it_takes_and_names_its_plans()
    {
        var told = await (await PlanAsync(app.Client)).Reader.ReadToEndAsync();
        var events = told.TrimEnd().Split("data: ").Skip(1).Select(e => JsonNode.Parse(e.Split("event:")[0])!).ToList();
        Assert.All(events, e =>
        {
            var status = e["status"]!;
            Assert.Equal(4, status["stages"]!.AsArray().Count);
            Assert.InRange(status["stage"]!.GetValue<int>(), 0, 3);
            Assert.InRange(status["seconds"]!.GetValue<double>(), 0.001, 120);
            Assert.False(status["isCut"]!.GetValue<bool>());
        });
        Assert.Equal(3, events[^1]["status"]!["stage"]!.GetValue<int>());
        var ids = events[^1]["plans"]!.AsArray().Select(p => p!["id"]!.GetValue<string>()).ToList();
        Assert.Equal(ids.Count, ids.Distinct().Count());
        Assert.All(ids, id => Assert.NotEqual("", id));
        Assert.Subset(events[^1]["alternatives"]!.AsArray().Select(a => a!["id"]!.GetValue<string>()).ToHashSet(), ids.ToHashSet());
    }
}
