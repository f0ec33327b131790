using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Npgsql;

namespace DeepBaize.Operation.Tests;

/// <summary>./start: one owner of a folder, whole or not at all, and on its feet again after a fall.</summary>
public class StartTests
{
    [Fact]
    public async Task A_folder_has_one_owner_falls_are_got_over_and_it_ends_at_once_with_searches_open()
    {
        await using var club = new Club();
        await club.StartAsync();

        // A second one is told whose the folder is, and stops nothing of the first one's.
        var second = new Club(club.Folder);
        var begun = second.Begin();
        await begun.WaitForExitAsync();
        Assert.NotEqual(0, begun.ExitCode);
        await Club.Until(() => second.Said.Contains("another Deep Baize (process ", StringComparison.Ordinal), () => second.Said, 5);
        Assert.Equal(HttpStatusCode.OK, (await club.Client.GetAsync("/health/ready")).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await club.SaveAsync("Before the fall")).StatusCode);

        await The_role_may_do_what_it_needs_and_no_more(club);

        // PostgreSQL falls: it is started again, on the same port, and the application goes on by itself.
        var (port, owner) = (club.PostgresPort, club.PostmasterId);
        Club.Signal("KILL", owner);
        await Club.Until(() => club.Said.Contains("PostgreSQL is back", StringComparison.Ordinal), () => club.Said);
        Assert.Equal(port, club.PostgresPort);
        Assert.NotEqual(owner, club.PostmasterId);
        await club.SaveAtLastAsync("After the fall");
        Assert.Equal(["After the fall", "Before the fall"], (await Club.NamesAsync(club.Client, "fall")).Order());

        // Whoever listens to a search is told why it ends. Three seconds are wanted; the rest is for a machine that is busy.
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/plan") { Content = JsonContent.Create(Plan) };
        using var response = await club.Client.SendAsync(request, HttpCompletionOption.ResponseHeadersRead);
        using var listener = new StreamReader(await response.Content.ReadAsStreamAsync());
        await listener.ReadLineAsync();
        var heard = listener.ReadToEndAsync();
        Assert.InRange(await club.StopAsync(), TimeSpan.Zero, TimeSpan.FromSeconds(8));
        Assert.Contains("event: problem", await heard);
        Assert.Contains("\"stopping\"", await heard);
        Assert.False(File.Exists(Path.Combine(club.Postgres, "data", "postmaster.pid")));
    }

    private static JsonObject Plan { get; } =
        new()
        {
            ["content"] = JsonNode.Parse(
                """
                { "balls": [
                  { "id": "white", "x": 2.2, "y": 0.7 }, { "id": "red-1", "x": 2.9, "y": 0.5 }, { "id": "red-2", "x": 2.95, "y": 1.2 },
                  { "id": "red-3", "x": 2.5, "y": 1.0 }, { "id": "yellow", "x": 0.737, "y": 0.597 },
                  { "id": "green", "x": 0.737, "y": 1.181 }, { "id": "brown", "x": 0.737, "y": 0.889 },
                  { "id": "blue", "x": 1.7845, "y": 0.889 }, { "id": "pink", "x": 2.67675, "y": 0.889 },
                  { "id": "black", "x": 3.245, "y": 0.889 } ] }
                """
            ),
        };

    private static async Task The_role_may_do_what_it_needs_and_no_more(Club club)
    {
        await using var admin = await club.ConnectAsync();
        async Task<string> Told(string sql) => $"{await new NpgsqlCommand(sql, admin).ExecuteScalarAsync()}";
        Assert.Equal(
            "f f f f",
            await Told(
                """
                SELECT concat_ws(' ', rolsuper, rolcreatedb, rolcreaterole, rolbypassrls)
                FROM pg_roles WHERE rolname = 'deep_baize_app'
                """
            )
        );
        Assert.Equal("on", await Told("SHOW data_checksums"));
        Assert.NotEqual(
            "0",
            await Told("SELECT count(*) FROM pg_stat_activity WHERE usename = 'deep_baize_app' AND application_name = 'Deep Baize'")
        );
        Assert.Equal(
            "0",
            await Told(
                "SELECT count(*) FROM pg_stat_activity WHERE usename = 'deep_baize' "
                    + "AND backend_type = 'client backend' AND pid <> pg_backend_pid()"
            )
        );
    }

    [Fact]
    public async Task Killed_in_the_midst_of_its_first_start_it_starts_the_next_time()
    {
        await using var club = new Club();
        var begun = club.Begin();
        await Club.Until(
            () => Directory.Exists(club.Postgres) && Directory.GetDirectories(club.Postgres, "new.*").Length > 0,
            () => club.Said
        );
        begun.Kill(entireProcessTree: true);
        await begun.WaitForExitAsync();
        Assert.False(Directory.Exists(Path.Combine(club.Postgres, "data")));
        await club.StartAsync();
        Assert.Empty(Directory.GetDirectories(club.Postgres, "new.*"));
        Assert.Equal(HttpStatusCode.Created, (await club.SaveAsync("There after all")).StatusCode);
    }

    [Fact]
    public async Task An_application_that_a_killed_start_has_left_is_ended_by_the_next()
    {
        await using var club = new Club();
        await club.StartAsync();
        club.KillStart();
        // It still listens; the next start says so, ends it, and takes its place on the same port.
        Assert.Equal(HttpStatusCode.OK, (await club.Client.GetAsync("/health")).StatusCode);
        await club.StartAsync();
        Assert.Contains("which an earlier start has left", club.Said);
        Assert.Equal(HttpStatusCode.Created, (await club.SaveAsync("Taken over")).StatusCode);
    }

    [Theory]
    [InlineData("PORT", "99999", "PORT must be a number from 1 to 65535")]
    [InlineData("DEEPBAIZE_BACKUPS_KEPT", "0", "DEEPBAIZE_BACKUPS_KEPT must be a number from 1 on")]
    [InlineData("DEEPBAIZE_DATA", "/proc/deep-baize", "the folder /proc/deep-baize cannot be made")]
    [InlineData("DEEPBAIZE_BACKUPS", "/proc/copies", "the folder for copies, /proc/copies, is not writable")]
    public async Task What_cannot_be_is_named(string setting, string value, string said)
    {
        await using var club = new Club();
        var begun = club.Begin((setting, value));
        await begun.WaitForExitAsync();
        Assert.Equal(1, begun.ExitCode);
        await Club.Until(() => club.Said.Contains(said, StringComparison.Ordinal), () => club.Said, 5);
    }
}
