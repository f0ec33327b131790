using System.Text.Json.Nodes;
using DeepBaize.Data;
using DeepBaize.Tests.Shared;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace DeepBaize.Web.Tests;

/// <summary>Players, tables and cues: several of each, one in hand; what is saved knows its own.</summary>
[Collection("application")]
public class ClubTests(Application app)
{
    private static string Text(JsonNode? node) => node!.GetValue<string>();

    private async Task<JsonNode> New(string folder, JsonObject thing)
    {
        var (status, body) = await app.Post($"/api/{folder}", thing);
        Assert.Equal(201, status);
        return body;
    }

    [Fact]
    public async Task What_is_taken_in_hand_is_what_positions_frames_and_corrections_are_saved_with()
    {
        var before = (await app.Send(HttpMethod.Get, "/api/in-hand")).Body;
        var player = await New(
            "players",
            new()
            {
                ["name"] = "Wenna Tarn",
                ["hand"] = "left",
                ["paceScale"] = JsonNode.Parse("""[{"own":5,"standard":4.4}]"""),
            }
        );
        var table = await New(
            "tables",
            new()
            {
                ["name"] = "Snug",
                ["conditions"] = new JsonObject { ["rollingFriction"] = 0.015 },
            }
        );
        var cue = await New(
            "cues",
            new()
            {
                ["name"] = "Maple",
                ["conditions"] = new JsonObject { ["endMassRatio"] = 40 },
            }
        );
        await app.Post("/api/escape/corrections", new JsonObject { ["route"] = "top", ["along"] = 0.1 });
        var taken = await app.Send(
            HttpMethod.Put,
            "/api/in-hand",
            new JsonObject
            {
                ["playerId"] = Text(player["id"]),
                ["tableId"] = Text(table["id"]),
                ["cueId"] = Text(cue["id"]),
            }
        );
        Assert.Equal("Wenna Tarn", Text(taken.Body["player"]!["name"]));
        Assert.Equal("left", Text((await app.Send(HttpMethod.Get, "/api/player")).Body["hand"]));

        // What trials have taught belongs to the table they were played on.
        Assert.Empty((await app.Send(HttpMethod.Get, "/api/escape/corrections")).Body.AsArray());
        var position = await app.Post("/api/positions", new JsonObject { ["name"] = "Theirs", ["content"] = Sample.Content() });
        var frame = await app.Post("/api/frames", new JsonObject { ["title"] = "Theirs", ["shots"] = new JsonArray() });
        foreach (var made in new[] { position.Body, frame.Body })
            Assert.Equal(
                (Text(player["id"]), Text(table["id"]), Text(cue["id"])),
                (Text(made["with"]!["playerId"]), Text(made["with"]!["tableId"]), Text(made["with"]!["cueId"]))
            );

        // One in hand is not put away; one that is put away stays with what was played with it, and can be taken out again.
        var address = $"/api/cues/{cue["id"]}";
        var refused = await app.Send(HttpMethod.Delete, $"{address}?version={cue["version"]}");
        Assert.Equal((400, "id"), (refused.Status, refused.Body.Fields()[0]));
        await app.Send(
            HttpMethod.Put,
            "/api/in-hand",
            new JsonObject
            {
                ["playerId"] = Text(before["player"]!["id"]),
                ["tableId"] = Text(before["table"]!["id"]),
                ["cueId"] = Text(before["cue"]!["id"]),
            }
        );
        Assert.NotEmpty((await app.Send(HttpMethod.Get, "/api/escape/corrections")).Body.AsArray());
        Assert.Equal(204, await app.Delete(address));
        Assert.Equal(404, (await app.Send(HttpMethod.Get, address)).Status);
        var still = (await app.Send(HttpMethod.Get, $"/api/positions/{position.Body["id"]}")).Body;
        Assert.Equal(Text(cue["id"]), Text(still["with"]!["cueId"]));
        Assert.Equal(400, (await app.Send(HttpMethod.Put, "/api/in-hand", new JsonObject { ["cueId"] = Text(cue["id"]) })).Status);
        Assert.Equal(200, (await app.Post($"{address}/restore", new JsonObject())).Status);
        await app.Delete(address);
        await app.Delete($"/api/players/{player["id"]}");
        await app.Delete($"/api/tables/{table["id"]}");
    }

    [Theory]
    [InlineData("players", "height", "2.5", "player.height")]
    [InlineData("players", "paceScale", "[{\"own\":5,\"standard\":30}]", "player.paceScale[0].standard")]
    [InlineData("players", "paceScale", "[{\"own\":5,\"standard\":4},{\"own\":6,\"standard\":4}]", "player.paceScale[1].standard")]
    [InlineData("players", "name", "\"\"", "name")]
    [InlineData("tables", "conditions", "{\"rollingFriction\":9}", "conditions.rollingFriction")]
    [InlineData("tables", "conditions", "{\"endMassRatio\":20}", "conditions.endMassRatio")]
    [InlineData("cues", "conditions", "{\"rollingFriction\":0.012}", "conditions.rollingFriction")]
    public async Task What_cannot_be_is_refused_by_its_field(string folder, string field, string value, string wrong)
    {
        var (status, problem) = await app.Post($"/api/{folder}", new JsonObject { ["name"] = "Odd", [field] = JsonNode.Parse(value) });
        Assert.Equal((400, wrong), (status, problem.Fields()[0]));
    }

    [Fact]
    public async Task What_was_there_before_players_tables_and_cues_is_theirs_now()
    {
        var database = new TestDatabase();
        try
        {
            var options = new DbContextOptionsBuilder<DeepBaizeContext>();
            DeepBaizeContext.Configure(options, database.Connection);
            await using var db = new DeepBaizeContext(options.Options);
            var migrator = db.GetService<IMigrator>();
            await migrator.MigrateAsync("AnswersAndVersions");
            await db.Database.ExecuteSqlRawAsync(
                """
                INSERT INTO users (id, name, created_at, hand, height, skill, side_habit, natural_elevation)
                    VALUES ('OWNER', 'Wenna Tarn, somewhere', now(), 'left', 1.6, 'club', 'helping', 4);
                INSERT INTO positions (id, owner_id, name, about, content, created_at, updated_at)
                    SELECT gen_random_uuid(), 'OWNER', 'Usual', '',
                        '{{"balls":[],"stroke":{{}},"conditions":{{"endMassRatio":40,"rollingFriction":0.011}}}}', now(), now()
                    FROM generate_series(1, 2);
                INSERT INTO positions (id, owner_id, name, about, content, created_at, updated_at)
                    VALUES (gen_random_uuid(), 'OWNER', 'Other', '', '{{"balls":[],"stroke":{{}},"conditions":{{}}}}', now(), now());
                INSERT INTO corrections (id, owner_id, route, along, trials, updated_at)
                    VALUES (gen_random_uuid(), 'OWNER', 'top', 0.02, 3, now());
                """.Replace("OWNER", User.LocalId.ToString())
            );
            await migrator.MigrateAsync();
            var user = await db.Users.AsNoTracking().SingleAsync();
            var player = await db.Players.AsNoTracking().SingleAsync();
            Assert.Equal((user.PlayerId, "Wenna Tarn", "left", 1.6), (player.Id, player.Name, player.Hand, player.Height));
            Assert.Equal(("club", "helping", 4, 0), (player.Skill, player.SideHabit, player.NaturalElevation, player.PaceScale.Count));
            // The figures that most positions have, the cue's with the cue.
            Assert.Equal(
                ("rollingFriction", 0.011),
                (await db.Tables.AsNoTracking().SingleAsync()).Conditions.Select(c => (c.Key, c.Value)).Single()
            );
            Assert.Equal(
                ("endMassRatio", 40),
                (await db.Cues.AsNoTracking().SingleAsync()).Conditions.Select(c => (c.Key, c.Value)).Single()
            );
            Assert.Equal(user.TableId, (await db.Corrections.AsNoTracking().SingleAsync()).TableId);
            Assert.All(
                await db.Positions.AsNoTracking().ToListAsync(),
                p => Assert.Equal((user.PlayerId, user.CueId), (p.PlayerId, p.CueId))
            );
            await migrator.MigrateAsync("AnswersAndVersions");
            var hand = await db.Database.SqlQueryRaw<string>("SELECT hand AS \"Value\" FROM users").SingleAsync();
            Assert.Equal("left", hand);
        }
        finally
        {
            await database.DropAsync();
        }
    }
}
