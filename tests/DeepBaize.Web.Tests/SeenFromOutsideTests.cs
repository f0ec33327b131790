using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Builder;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace DeepBaize.Web.Tests;

/// <summary>What whoever looks after it can see: health, figures, the trace of a problem.</summary>
[Collection("application")]
public class SeenFromOutsideTests(Application app)
{
    private async Task<(int Status, string Text)> Get(string path)
    {
        using var response = await app.Client.GetAsync(path);
        return ((int)response.StatusCode, await response.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task A_database_that_takes_no_changes_can_serve_but_not_save()
    {
        Assert.Equal(200, (await Get("/health/save")).Status);
        var name = new NpgsqlConnectionStringBuilder(app.Connection).Database;
        await using var server = new NpgsqlConnection($"{app.Connection};Pooling=false");
        await server.OpenAsync();
        async Task ReadOnly(string value)
        {
            await new NpgsqlCommand(
                $"SET default_transaction_read_only = off; ALTER DATABASE {name} SET default_transaction_read_only = {value}",
                server
            ).ExecuteNonQueryAsync();
            // For connections that are made from now on.
            await new NpgsqlCommand(
                $"SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '{name}' AND pid <> pg_backend_pid()",
                server
            ).ExecuteNonQueryAsync();
        }
        try
        {
            await ReadOnly("on");
            await Until(async () => (await Get("/health/ready")).Status == 200);
            Assert.Equal(200, (await Get("/health/live")).Status);
            var (status, text) = await Get("/health/save");
            Assert.Equal(503, status);
            Assert.Contains("takes no changes", text);
            var (refused, problem) = await app.Post("/api/positions", Sample.Draft("Not now"));
            Assert.Equal((503, "readOnly"), (refused, problem["code"]!.GetValue<string>()));
            Assert.Equal(200, (await app.Send(HttpMethod.Get, "/api/positions")).Status);
        }
        finally
        {
            await ReadOnly("off");
        }
        await Until(async () => (await Get("/health/save")).Status == 200);
    }

    [Fact]
    public async Task Without_a_database_it_lives_but_is_not_ready()
    {
        await app.SetDatabaseAway(true);
        try
        {
            Assert.Equal((200, 503), ((await Get("/health/live")).Status, (await Get("/health/ready")).Status));
        }
        finally
        {
            await app.SetDatabaseAway(false);
        }
        await Until(async () => (await Get("/health/ready")).Status == 200);
    }

    private static async Task Until(Func<Task<bool>> holds)
    {
        for (var i = 0; !await holds(); i++)
        {
            Assert.True(i < 100, "it does not come back");
            await Task.Delay(50);
        }
    }

    /// <summary>Prometheus, "Text-based format": a line a figure, its labels in braces.</summary>
    [Fact]
    public async Task Searches_saves_and_refusals_are_counted()
    {
        async Task<double> Figure(string name) =>
            Regex
                .Matches((await Get("/metrics")).Text, $@"^{Regex.Escape(name)}(?:\{{[^}}]*\}})? (\S+)", RegexOptions.Multiline)
                .Sum(m => double.Parse(m.Groups[1].Value));
        string[] counted = ["deepbaize_saves", "deepbaize_refusals", "deepbaize_search_samples", "deepbaize_search_first_answer_count"];
        // The figures are watched from the first look on.
        await Get("/metrics");
        var before = await Task.WhenAll(counted.Select(Figure));
        await app.Post("/api/positions", Sample.Draft("Counted"));
        await app.Post("/api/positions", Sample.Draft(" "));
        await foreach (var _ in app.Stream("/api/plan", new() { ["content"] = Sample.Table(1, 0.75) })) { }
        var after = await Task.WhenAll(counted.Select(Figure));
        Assert.Equal((1, 1), (after[0] - before[0], after[1] - before[1]));
        Assert.True(after[2] > before[2] + 10 && after[3] == before[3] + 1, string.Join(' ', after));
        var text = (await Get("/metrics")).Text;
        Assert.Contains("deepbaize_searches_running{kind=\"plan\"} 0", text);
        Assert.Contains("deepbaize_searches_waiting{kind=\"ways\"} 0", text);
    }

    [Fact]
    public async Task A_problem_names_the_trace_by_which_the_log_knows_it()
    {
        var trace = "4bf92f3577b34da6a3ce929d0e0e4736";
        using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/frames/{Guid.NewGuid()}");
        // W3C Trace Context: the caller's trace goes on here.
        request.Headers.Add("traceparent", $"00-{trace}-00f067aa0ba902b7-01");
        using var response = await app.Client.SendAsync(request);
        Assert.Equal(trace, JsonNode.Parse(await response.Content.ReadAsStringAsync())!["traceId"]!.GetValue<string>());
    }

    /// <summary>Requests that come from another machine.</summary>
    private sealed class FromElsewhere : Microsoft.AspNetCore.Hosting.IStartupFilter
    {
        public Action<Microsoft.AspNetCore.Builder.IApplicationBuilder> Configure(
            Action<Microsoft.AspNetCore.Builder.IApplicationBuilder> next
        ) =>
            app =>
            {
                app.Use(
                    (http, go) =>
                    {
                        // An address for documentation (RFC 5737).
                        http.Connection.RemoteIpAddress = System.Net.IPAddress.Parse("203.0.113.7");
                        return go(http);
                    }
                );
                next(app);
            };
    }

    [Theory]
    [InlineData("/metrics")]
    [InlineData("/health/save")]
    public async Task Metrics_and_the_check_of_the_disk_are_for_this_machine_alone(string path)
    {
        await using var elsewhere = app.With()
            .WithWebHostBuilder(host =>
                host.ConfigureServices(services => services.AddSingleton<Microsoft.AspNetCore.Hosting.IStartupFilter>(new FromElsewhere()))
            );
        using var client = elsewhere.CreateClient();
        Assert.Equal(System.Net.HttpStatusCode.NotFound, (await client.GetAsync(path)).StatusCode);
        Assert.Equal(System.Net.HttpStatusCode.OK, (await client.GetAsync("/health")).StatusCode);
        Assert.Equal(System.Net.HttpStatusCode.OK, (await app.Client.GetAsync(path)).StatusCode);
    }
}
