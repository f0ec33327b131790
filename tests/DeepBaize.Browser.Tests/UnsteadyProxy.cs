using System.Collections.Concurrent;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Http;
using Microsoft.Extensions.Logging;

namespace DeepBaize.Browser.Tests;

/// <summary>What happens to a request on its way.</summary>
public abstract record Fault
{
    /// <summary>No answer ever comes.</summary>
    public sealed record Hangs : Fault;

    /// <summary>The connection breaks off.</summary>
    public sealed record BreaksOff : Fault;

    /// <summary>The server answers with this status.</summary>
    public sealed record Answers(int Status) : Fault;

    /// <summary>A stream stands still after a number of its events, until it is let on.</summary>
    public sealed record StandsStill(int After, Task LetOn) : Fault;
}

/// <summary>A server between browser and application that hangs, fails or stands still where a test wants it to.</summary>
public sealed class UnsteadyProxy : IAsyncDisposable
{
    private readonly WebApplication _server;
    private readonly HttpClient _client;
    private readonly CancellationTokenSource _end = new();
    private Func<string, string, Fault?> _rule = (_, _) => null;

    private UnsteadyProxy(WebApplication server, HttpClient client) => (_server, _client) = (server, client);

    public string Address => _server.Urls.Single();

    /// <summary>Method and path of every request that came.</summary>
    public ConcurrentQueue<string> Asked { get; } = [];

    /// <summary>Number of requests for a path.</summary>
    public int CountOf(string request) => Asked.Count(a => a.StartsWith(request, StringComparison.Ordinal));

    /// <summary>From now on, by method and path; null: it goes through.</summary>
    public void Let(Func<string, string, Fault?> rule) => _rule = rule;

    /// <summary>From now on all goes through.</summary>
    public void Calm() => _rule = (_, _) => null;

    public static async Task<UnsteadyProxy> BeforeAsync(string application)
    {
        var builder = WebApplication.CreateSlimBuilder();
        builder.Logging.ClearProviders();
        builder.WebHost.UseUrls("http://127.0.0.1:0");
        var client = new HttpClient(new SocketsHttpHandler { AllowAutoRedirect = false, UseCookies = false })
        {
            BaseAddress = new(application),
            Timeout = Timeout.InfiniteTimeSpan,
        };
        var server = builder.Build();
        var proxy = new UnsteadyProxy(server, client);
        server.Run(proxy.ForwardAsync);
        await server.StartAsync();
        return proxy;
    }

    private async Task ForwardAsync(HttpContext http)
    {
        var (method, path) = (http.Request.Method, http.Request.Path.Value!);
        Asked.Enqueue($"{method} {path}");
        using var gone = CancellationTokenSource.CreateLinkedTokenSource(http.RequestAborted, _end.Token);
        try
        {
            var fault = _rule(method, path);
            switch (fault)
            {
                case Fault.Hangs:
                    await Task.Delay(Timeout.Infinite, gone.Token);
                    return;
                case Fault.BreaksOff:
                    http.Abort();
                    return;
                case Fault.Answers { Status: var status }:
                    http.Response.StatusCode = status;
                    await http.Response.WriteAsync("{}", gone.Token);
                    return;
                default:
                    await PassOnAsync(http, fault as Fault.StandsStill, gone.Token);
                    return;
            }
        }
        catch (OperationCanceledException) when (gone.IsCancellationRequested) { }
        catch (HttpRequestException)
        {
            http.Abort();
        }
    }

    private async Task PassOnAsync(HttpContext http, Fault.StandsStill? still, CancellationToken gone)
    {
        using var request = new HttpRequestMessage(new(http.Request.Method), http.Request.Path + http.Request.QueryString.Value);
        if (http.Request.ContentLength > 0 || http.Request.Headers.TransferEncoding.Count > 0)
            request.Content = new StreamContent(http.Request.Body);
        foreach (var (name, values) in http.Request.Headers)
            if (!request.Headers.TryAddWithoutValidation(name, (IEnumerable<string?>)values))
                request.Content?.Headers.TryAddWithoutValidation(name, (IEnumerable<string?>)values);
        using var response = await _client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead, gone);
        http.Response.StatusCode = (int)response.StatusCode;
        foreach (var (name, values) in response.Headers.Concat(response.Content.Headers))
            if (name != "Transfer-Encoding")
                http.Response.Headers[name] = values.ToArray();
        await using var body = await response.Content.ReadAsStreamAsync(gone);
        var (buffer, events) = (new byte[16_384], 0);
        for (int read; (read = await body.ReadAsync(buffer, gone)) > 0;)
        {
            await http.Response.Body.WriteAsync(buffer.AsMemory(0, read), gone);
            await http.Response.Body.FlushAsync(gone);
            if (still is null)
                continue;
            // An event ends with an empty line.
            for (var i = 1; i < read; i++)
                if (buffer[i] == '\n' && buffer[i - 1] == '\n')
                    events++;
            if (events >= still.After)
                await still.LetOn.WaitAsync(gone);
        }
    }

    public async ValueTask DisposeAsync()
    {
        await _end.CancelAsync();
        await _server.DisposeAsync();
        _client.Dispose();
        _end.Dispose();
    }
}
