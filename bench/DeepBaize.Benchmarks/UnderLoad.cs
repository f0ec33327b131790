using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using DeepBaize.Core.Table;

namespace DeepBaize.Benchmarks;

/// <summary>
/// What a running application does under load: <c>bench -- load ADDRESS</c>. Twelve plans and twelve searches for ways at once, while a
/// ball is dragged; then three hundred readers at once. Prints; writes nothing.
/// </summary>
internal static class UnderLoad
{
    private const int OfEach = 12,
        Drags = 150,
        Readers = 300;

    public static async Task RunAsync(string address)
    {
        using var client = new HttpClient(new SocketsHttpHandler { MaxConnectionsPerServer = 1000 })
        {
            BaseAddress = new(address),
            Timeout = TimeSpan.FromMinutes(10),
        };
        await DragAsync(client, 20);
        Console.WriteLine($"drag, alone:             {Told(await DragAsync(client, Drags))}");
        await SearchesAsync(client);
        await ReadersAsync(client);
    }

    private static async Task SearchesAsync(HttpClient client)
    {
        var heard = new ConcurrentBag<Heard>();
        using var enough = new CancellationTokenSource();
        var searches = Enumerable
            .Range(0, 2 * OfEach)
            .Select(i => Task.Run(async () => heard.Add(await HearAsync(client, i, enough.Token))))
            .ToList();
        await Task.Delay(500);
        var drags = await DragAsync(client, Drags);
        Console.WriteLine($"drag, {2 * OfEach} searches on:   {Told(drags)}");
        await Task.WhenAny(Task.WhenAll(searches), Task.Delay(TimeSpan.FromMinutes(5)));
        await enough.CancelAsync();
        await Task.WhenAll(searches);
        Console.WriteLine(
            $"searches: first word after {heard.Max(h => h.First):0.00} s at most, longest silence {heard.Max(h => h.Silence):0.00} s, "
                + $"{heard.Count(h => h.IsWhole)} of {heard.Count} ended by themselves, the last after {heard.Max(h => h.Whole):0.0} s"
        );
    }

    private sealed record Heard(double First, double Silence, double Whole, bool IsWhole);

    private static async Task<Heard> HearAsync(HttpClient client, int i, CancellationToken cancel)
    {
        var (path, body) = Question(i);
        var clock = Stopwatch.StartNew();
        var (first, silence, last, isWhole) = (double.NaN, 0.0, 0.0, false);
        try
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
            using var response = await client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, cancel);
            response.EnsureSuccessStatusCode();
            using var reader = new StreamReader(await response.Content.ReadAsStreamAsync(cancel));
            while (await reader.ReadLineAsync(cancel) is { } line)
            {
                if (!line.StartsWith("data:", StringComparison.Ordinal))
                    continue;
                var now = clock.Elapsed.TotalSeconds;
                first = double.IsNaN(first) ? now : first;
                (silence, last) = (Math.Max(silence, now - last), now);
            }
            isWhole = true;
        }
        catch (Exception e) when (e is OperationCanceledException or HttpRequestException or IOException)
        {
            silence = Math.Max(silence, clock.Elapsed.TotalSeconds - last);
            if (e is not OperationCanceledException)
                Console.WriteLine($"{path}: {e.Message}");
        }
        return new(double.IsNaN(first) ? clock.Elapsed.TotalSeconds : first, silence, clock.Elapsed.TotalSeconds, isWhole);
    }

    private static (string Path, JsonObject Body) Question(int i)
    {
        var content = Table(1.2 + 0.05 * i, 0.5 + 0.02 * i);
        if (i < OfEach)
            return ("/api/plan", new() { ["content"] = content });
        content["stroke"] = JsonNode.Parse("""{ "pot": { "ball": "black", "pocket": "green-top" } }""");
        return ("/api/ways", new() { ["content"] = content, ["goal"] = JsonNode.Parse("""{ "x": 1.8, "y": 0.9, "radius": 0.2 }""") });
    }

    /// <summary>Milliseconds of each request that a drag makes.</summary>
    private static async Task<List<double>> DragAsync(HttpClient client, int times)
    {
        var took = new List<double>();
        for (var i = 0; i < times; i++)
        {
            var content = Table(1.5 + 0.001 * i, 0.8);
            content["stroke"] = JsonNode.Parse("""{ "pace": 4, "height": 0.3, "pot": { "ball": "black", "pocket": "green-top" } }""");
            var clock = Stopwatch.StartNew();
            (await client.PostAsJsonAsync("/api/shot", new JsonObject { ["content"] = content })).EnsureSuccessStatusCode();
            took.Add(clock.Elapsed.TotalMilliseconds);
            await Task.Delay(20);
        }
        return took;
    }

    private static JsonObject Table(double x, double y)
    {
        var balls = new JsonArray(Ball("white", x, y));
        foreach (var ball in Rack.Colours())
            balls.Add(Ball(ball.Ball.Id, ball.X, ball.Y));
        foreach (var (i, (rx, ry)) in new[] { (2.9, 0.5), (2.95, 1.2), (2.5, 1.0), (3.1, 0.7) }.Select((p, i) => (i, p)))
            balls.Add(Ball($"red-{i + 1}", rx, ry));
        return new() { ["balls"] = balls };
    }

    private static JsonObject Ball(string id, double x, double y) =>
        new()
        {
            ["id"] = id,
            ["x"] = x,
            ["y"] = y,
        };

    private static string Told(List<double> took)
    {
        took.Sort();
        return string.Create(
            CultureInfo.InvariantCulture,
            $"median {took[took.Count / 2]:0.0} ms, 95th percentile {took[(int)(took.Count * 0.95)]:0.0} ms, longest {took[^1]:0.0} ms"
        );
    }

    private static async Task ReadersAsync(HttpClient client)
    {
        var clock = Stopwatch.StartNew();
        var answers = await Task.WhenAll(
            Enumerable
                .Range(0, Readers)
                .Select(async _ =>
                {
                    using var response = await client.GetAsync("/api/positions");
                    return (int)response.StatusCode;
                })
        );
        var told = string.Join(", ", answers.GroupBy(a => a).Select(g => $"{g.Count()} × {g.Key}"));
        Console.WriteLine($"{Readers} readers at once:    {told}, all answered after {clock.Elapsed.TotalSeconds:0.0} s");
    }
}
