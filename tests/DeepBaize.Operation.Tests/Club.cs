using System.Diagnostics;
using System.Net;
using System.Net.Http.Json;
using System.Net.Sockets;
using System.Text;
using System.Text.Json.Nodes;
using Npgsql;

namespace DeepBaize.Operation.Tests;

/// <summary>Deep Baize as a club runs it: ./start over a folder of its own.</summary>
internal sealed class Club : IAsyncDisposable
{
    private readonly StringBuilder _said = new();
    private Process? _start;

    public Club(string? folder = null)
    {
        Folder = folder ?? NewFolder();
        Port = FreePort();
        Client = new() { BaseAddress = new($"http://127.0.0.1:{Port}"), Timeout = TimeSpan.FromSeconds(60) };
    }

    public string Folder { get; }
    public int Port { get; }
    public HttpClient Client { get; }

    /// <summary>Where PostgreSQL has its data, lock and passwords.</summary>
    public string Postgres => Path.Combine(Folder, "postgres");

    public string Said
    {
        get
        {
            lock (_said)
                return _said.ToString();
        }
    }

    public static string Root
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "DeepBaize.slnx")))
                folder = folder.Parent!;
            return folder.FullName;
        }
    }

    public static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    /// <summary>One that PostgreSQL's own user can reach too.</summary>
    public static string NewFolder()
    {
        var folder = Directory.CreateTempSubdirectory("deep-baize-club-");
        if (!OperatingSystem.IsWindows())
            folder.UnixFileMode |= UnixFileMode.GroupRead | UnixFileMode.GroupExecute | UnixFileMode.OtherRead | UnixFileMode.OtherExecute;
        return folder.FullName;
    }

    /// <summary>Starts it; ready or not.</summary>
    public Process Begin(params (string Name, string Value)[] settings)
    {
        lock (_said)
            _said.Clear();
        var start = new ProcessStartInfo("bash") { RedirectStandardOutput = true, RedirectStandardError = true };
        start.ArgumentList.Add(Path.Combine(Root, "start"));
        (start.Environment["PORT"], start.Environment["DEEPBAIZE_DATA"]) = ($"{Port}", Folder);
        foreach (var (name, value) in settings)
            start.Environment[name] = value;
        start.Environment.Remove("ConnectionStrings__DeepBaize");
        start.Environment["Searches__WorkShare"] = "0.1";
        _start = Process.Start(start)!;
        foreach (var begin in new Action[] { _start.BeginOutputReadLine, _start.BeginErrorReadLine })
            begin();
        _start.OutputDataReceived += (_, line) => Hear(line.Data);
        _start.ErrorDataReceived += (_, line) => Hear(line.Data);
        return _start;
    }

    private void Hear(string? line)
    {
        lock (_said)
            _said.AppendLine(line);
    }

    public async Task StartAsync(params (string Name, string Value)[] settings)
    {
        var start = Begin(settings);
        await Until(() => !start.HasExited && IsUp(), () => start.HasExited ? $"it ended: {Said}" : Said);
    }

    private bool IsUp() => Said.Contains("Deep Baize is at", StringComparison.Ordinal);

    /// <returns>How long it took.</returns>
    public async Task<TimeSpan> StopAsync()
    {
        var clock = Stopwatch.StartNew();
        Signal("INT", _start!.Id);
        await _start.WaitForExitAsync(new CancellationTokenSource(TimeSpan.FromSeconds(60)).Token);
        return clock.Elapsed;
    }

    /// <summary>Kills ./start alone, at once.</summary>
    public void KillStart()
    {
        Signal("KILL", _start!.Id);
        // With a limit it does not wait for the output, which what is left over still holds.
        _start.WaitForExit(10_000);
    }

    public int PostmasterId => int.Parse(File.ReadLines(Path.Combine(Postgres, "data", "postmaster.pid")).First());

    public int PostgresPort => int.Parse(File.ReadLines(Path.Combine(Postgres, "data", "postmaster.pid")).ElementAt(3));

    /// <summary>As the server's owner.</summary>
    public async Task<NpgsqlConnection> ConnectAsync(string database = "deep_baize")
    {
        var password = await File.ReadAllTextAsync(Path.Combine(Postgres, "password"));
        var connection = new NpgsqlConnection(
            $"Host=127.0.0.1;Port={PostgresPort};Username=deep_baize;Password={password};Database={database};Pooling=false"
        );
        await connection.OpenAsync();
        return connection;
    }

    public static void Signal(string signal, int process)
    {
        using var kill = Process.Start("kill", [$"-{signal}", $"{process}"]);
        kill.WaitForExit();
    }

    /// <summary>Another of the project's commands, to its end.</summary>
    public static async Task<(int Code, string Said)> RunAsync(string script, string data, params string[] arguments)
    {
        var start = new ProcessStartInfo("bash") { RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in (string[])[Path.Combine(Root, script), .. arguments])
            start.ArgumentList.Add(argument);
        start.Environment["DEEPBAIZE_DATA"] = data;
        using var run = Process.Start(start)!;
        var (said, wrong) = (run.StandardOutput.ReadToEndAsync(), run.StandardError.ReadToEndAsync());
        await run.WaitForExitAsync(new CancellationTokenSource(TimeSpan.FromSeconds(90)).Token);
        return (run.ExitCode, await said + await wrong);
    }

    /// <summary>As the page does: again while the database is away.</summary>
    public async Task SaveAtLastAsync(string name)
    {
        for (var i = 0; ; i++)
        {
            using var response = await SaveAsync(name, $"key-of-{name.Replace(' ', '-')}");
            if (response.StatusCode == HttpStatusCode.Created)
                return;
            Assert.True(response.StatusCode == HttpStatusCode.ServiceUnavailable && i < 50, $"{name}: {response.StatusCode}");
            await Task.Delay(100);
        }
    }

    public static async Task Until(Func<bool> holds, Func<string> otherwise, int seconds = 200)
    {
        for (var clock = Stopwatch.StartNew(); !holds(); await Task.Delay(50))
            Assert.True(clock.Elapsed < TimeSpan.FromSeconds(seconds), otherwise());
    }

    public async Task<HttpResponseMessage> SaveAsync(string name, string? key = null)
    {
        using var request = Draft(name, key);
        return await Client.SendAsync(request);
    }

    public static HttpRequestMessage Draft(string name, string? key = null)
    {
        var body = new JsonObject
        {
            ["name"] = name,
            ["content"] = new JsonObject
            {
                ["balls"] = JsonNode.Parse("""[{ "id": "white", "x": 1, "y": 0.6 }, { "id": "blue", "x": 2, "y": 1 }]"""),
            },
        };
        var request = new HttpRequestMessage(HttpMethod.Post, "/api/positions") { Content = JsonContent.Create(body) };
        if (key is not null)
            request.Headers.Add("Idempotency-Key", key);
        return request;
    }

    /// <summary>The names of all positions that begin so.</summary>
    public static async Task<List<string>> NamesAsync(HttpClient client, string beginning)
    {
        List<string> names = [];
        for (var skip = 0; ; skip += 200)
        {
            var part = await client.GetFromJsonAsync<JsonArray>($"/api/positions?search={beginning}&skip={skip}&take=200");
            names.AddRange(part!.Select(p => p!["name"]!.GetValue<string>()));
            if (part!.Count < 200)
                return names;
        }
    }

    public async ValueTask DisposeAsync()
    {
        if (_start is { HasExited: false })
            await StopAsync();
        _start?.Dispose();
        Client.Dispose();
        Directory.Delete(Folder, recursive: true);
    }
}
