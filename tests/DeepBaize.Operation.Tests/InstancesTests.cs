using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using DeepBaize.Tests.Shared;
using Npgsql;

namespace DeepBaize.Operation.Tests;

/// <summary>
/// Two applications over one database, behind nginx with the settings that are shipped (deploy/nginx.conf): both make the database ready at
/// the same time, one is killed in the midst of saves and plans.
/// </summary>
public sealed class InstancesTests : IAsyncLifetime
{
    private readonly TestDatabase _database = new();
    private readonly List<Process> _applications = [];
    private readonly int[] _ports = [Club.FreePort(), Club.FreePort()];
    private readonly int _port = Club.FreePort();
    private readonly string _folder = Club.NewFolder();
    private readonly HttpClient _client;
    private Process? _proxy;

    public InstancesTests() => _client = new() { BaseAddress = new($"http://127.0.0.1:{_port}"), Timeout = TimeSpan.FromSeconds(60) };

    public async ValueTask InitializeAsync()
    {
        // Both at once, over a database that is not there yet.
        _applications.AddRange(_ports.Select(Begin));
        _proxy = Process.Start("/usr/sbin/nginx", ["-c", await WriteSettingsAsync(), "-g", "daemon off;"]);
        foreach (var port in _ports)
            await ReadyAsync($"http://127.0.0.1:{port}/health/ready");
        await ReadyAsync($"http://127.0.0.1:{_port}/health/ready");
    }

    private Process Begin(int port)
    {
        var start = new ProcessStartInfo("dotnet");
        var web = Path.Combine(Club.Root, "src", "DeepBaize.Web");
        foreach (var argument in (string[])[typeof(Program).Assembly.Location, "--urls", $"http://127.0.0.1:{port}", "--contentRoot", web])
            start.ArgumentList.Add(argument);
        start.Environment["ConnectionStrings__DeepBaize"] = _database.Connection;
        start.Environment["BehindProxy"] = "true";
        start.Environment["Searches__WorkShare"] = "0.1";
        return Process.Start(start)!;
    }

    private async Task ReadyAsync(string address)
    {
        var isReady = false;
        using var client = new HttpClient();
        for (var i = 0; !isReady; i++)
        {
            // Long, for a machine that is busy with something else.
            Assert.True(i < 1800, $"{address} is not there");
            Assert.False(_applications.Any(a => a.HasExited), $"an application has ended before {address} was there");
            await Task.Delay(100);
            try
            {
                isReady = (await client.GetAsync(address)).IsSuccessStatusCode;
            }
            catch (HttpRequestException)
            {
                // Not yet.
            }
        }
    }

    /// <summary>The shipped settings, but for where it listens and what it writes.</summary>
    private async Task<string> WriteSettingsAsync()
    {
        var shipped = await File.ReadAllTextAsync(Path.Combine(Club.Root, "deploy", "nginx.conf"));
        var own = shipped
            .Replace("server 127.0.0.1:5080", $"server 127.0.0.1:{_ports[0]}")
            .Replace("# server 127.0.0.1:5081", $"server 127.0.0.1:{_ports[1]}");
        // Without a certificate here: the part for http alone.
        own =
            own[..own.IndexOf("# --- https", StringComparison.Ordinal)]
            + $"server {{ listen 127.0.0.1:{_port}; include {_folder}/deep-baize-locations.conf; }}";
        var whole = $$"""
            pid {{_folder}}/nginx.pid;
            error_log {{_folder}}/error.log;
            events {}
            http {
              access_log off;
              client_body_temp_path {{_folder}}/body; proxy_temp_path {{_folder}}/proxy; fastcgi_temp_path {{_folder}}/fastcgi;
              uwsgi_temp_path {{_folder}}/uwsgi; scgi_temp_path {{_folder}}/scgi;
              {{own}}
            }
            """;
        var file = Path.Combine(_folder, "nginx.conf");
        await File.WriteAllTextAsync(file, whole);
        await File.WriteAllTextAsync(
            Path.Combine(_folder, "deep-baize-locations.conf"),
            await File.ReadAllTextAsync(Path.Combine(Club.Root, "deploy", "deep-baize-locations.conf"))
        );
        return file;
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var process in _applications.Append(_proxy!))
        {
            if (!process.HasExited)
                process.Kill(entireProcessTree: true);
            await process.WaitForExitAsync();
        }
        _client.Dispose();
        await _database.DropAsync();
        Directory.Delete(_folder, recursive: true);
    }

    [Fact]
    public async Task One_of_two_is_killed_and_nothing_that_was_acknowledged_is_lost_or_there_twice()
    {
        Assert.Equal(1, await CountAsync("SELECT count(*) FROM users"));
        var acknowledged = new ConcurrentBag<string>();
        using var plans = new CancellationTokenSource();
        var plan = Task.Run(() => PlanUntilWholeAsync(plans.Token));
        var saving = Parallel.ForEachAsync(Enumerable.Range(0, 200), new ParallelOptions { MaxDegreeOfParallelism = 8 }, async (i, _) =>
        {
            await SaveAsync($"Kept {i}");
            acknowledged.Add($"Kept {i}");
        });
        await Club.Until(() => acknowledged.Count >= 60, () => $"{acknowledged.Count} saved");
        _applications[0].Kill();
        await saving;
        Assert.Equal(200, acknowledged.Count);
        var kept = await Club.NamesAsync(_client, "Kept");
        Assert.Equal(acknowledged.Order(), kept.Order());
        // The plan that broke off goes on at the next try, for the other one is there.
        var tries = await plan.WaitAsync(TimeSpan.FromSeconds(60));
        Assert.InRange(tries, 1, 20);
    }

    /// <summary>As the page does: the same request with the same key, until there is an answer.</summary>
    private async Task SaveAsync(string name)
    {
        var key = Guid.NewGuid().ToString("N");
        for (var i = 0; i < 50; i++)
        {
            try
            {
                using var request = Club.Draft(name, key);
                using var response = await _client.SendAsync(request);
                if (response.StatusCode == HttpStatusCode.Created)
                    return;
            }
            catch (HttpRequestException)
            {
                // The answer is lost.
            }
            await Task.Delay(100);
        }
        Assert.Fail($"{name} was never saved");
    }

    private async Task<int> PlanUntilWholeAsync(CancellationToken cancel)
    {
        var colours = new JsonObject { ["content"] = new JsonObject { ["balls"] = JsonNode.Parse(Colours) } };
        for (var tries = 1; ; tries++)
            try
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, "/api/plan") { Content = JsonContent.Create(colours) };
                using var response = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
                response.EnsureSuccessStatusCode();
                using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(cancel));
                while (await reader.ReadLineAsync(cancel) is { } line)
                    if (line.StartsWith("data:", StringComparison.Ordinal) && JsonNode.Parse(line[5..])!["share"]?.GetValue<double>() == 1)
                        return tries;
            }
            catch (Exception e) when (e is HttpRequestException or IOException)
            {
                await Task.Delay(100, cancel);
            }
    }

    private const string Colours = """
        [ { "id": "white", "x": 1.0, "y": 0.75 }, { "id": "yellow", "x": 0.737, "y": 0.597 }, { "id": "green", "x": 0.737, "y": 1.181 },
          { "id": "brown", "x": 0.737, "y": 0.889 }, { "id": "blue", "x": 1.7845, "y": 0.889 }, { "id": "pink", "x": 2.67675, "y": 0.889 },
          { "id": "black", "x": 3.245, "y": 0.889 } ]
        """;

    /// <summary>The application and single connections of the database are killed again and again, while there is saving.</summary>
    [Fact]
    public async Task Bursts_of_kills_lose_nothing_that_was_acknowledged()
    {
        var acknowledged = new ConcurrentBag<string>();
        var saving = Parallel.ForEachAsync(Enumerable.Range(0, 300), new ParallelOptions { MaxDegreeOfParallelism = 6 }, async (i, _) =>
        {
            await SaveAsync($"Burst {i}");
            acknowledged.Add($"Burst {i}");
        });
        for (var burst = 0; !saving.IsCompleted; burst++)
        {
            await Task.Delay(300);
            await CountAsync(
                """
                SELECT count(pg_terminate_backend(pid)) FROM pg_stat_activity
                WHERE application_name = 'Deep Baize' AND datname = current_database()
                """
            );
            if (burst % 4 != 1)
                continue;
            var which = burst / 4 % 2;
            _applications[which].Kill();
            await _applications[which].WaitForExitAsync();
            _applications[which] = Begin(_ports[which]);
            await ReadyAsync($"http://127.0.0.1:{_ports[which]}/health/ready");
        }
        await saving;
        Assert.Equal(acknowledged.Order(), (await Club.NamesAsync(_client, "Burst")).Order());
    }

    private async Task<long> CountAsync(string sql)
    {
        await using var connection = new NpgsqlConnection($"{_database.Connection};Pooling=false;Application Name=Test");
        await connection.OpenAsync();
        return (long)(await new NpgsqlCommand(sql, connection).ExecuteScalarAsync())!;
    }
}
