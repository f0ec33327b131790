using System.Text.Json.Nodes;
using DeepBaize.Core.Scoring;
using DeepBaize.Data;
using DeepBaize.Tests.Shared;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace DeepBaize.Web.Tests;

/// <summary>What was stored before a migration means the same after it.</summary>
public class MigrationTests
{
    [Fact]
    public async Task A_miss_that_was_played_again_is_one_with_the_balls_put_back()
    {
        var database = new TestDatabase();
        try
        {
            var options = new DbContextOptionsBuilder<DeepBaizeContext>();
            DeepBaizeContext.Configure(options, database.Connection);
            await using var db = new DeepBaizeContext(options.Options);
            var migrator = db.GetService<IMigrator>();
            await migrator.MigrateAsync("EscapeCorrections");
            await db.Database.ExecuteSqlRawAsync(
                """
                INSERT INTO users (id, name, created_at) VALUES ('0196b0a0-0000-7000-8000-000000000001', 'Tilda', now())
                    ON CONFLICT DO NOTHING;
                INSERT INTO frames (id, owner_id, title, first, second, shots, created_at, updated_at) VALUES
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', 'A', 'B', 'C',
                     '[{{"kind":"foul","penalty":4,"missCalled":true,"playAgain":true}},
                       {{"kind":"foul","penalty":4,"playAgain":true}},{{"kind":"miss"}}]',
                     now(), now()),
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', 'Empty', 'B', 'C', '[]', now(), now());
                """
            );
            await migrator.MigrateAsync();
            var shots = (await db.Frames.AsNoTracking().SingleAsync(f => f.Title == "A")).Shots;
            Assert.Equal([(true, false), (false, true), (false, false)], shots.Select(s => (s.Replaced, s.PlayAgain)));
            Assert.Equal((1, 2), (FrameStory.Of([shots[0]]).Now.Misses, shots.Count(s => s.Kind == ShotKind.Foul)));
            Assert.Empty((await db.Frames.AsNoTracking().SingleAsync(f => f.Title == "Empty")).Shots);
            await migrator.MigrateAsync("EscapeCorrections");
        }
        finally
        {
            await database.DropAsync();
        }
    }

    [Fact]
    public async Task A_skill_set_by_hand_keeps_its_meaning_when_the_tip_becomes_height_and_side()
    {
        var database = new TestDatabase();
        try
        {
            var options = new DbContextOptionsBuilder<DeepBaizeContext>();
            DeepBaizeContext.Configure(options, database.Connection);
            await using var db = new DeepBaizeContext(options.Options);
            var migrator = db.GetService<IMigrator>();
            await migrator.MigrateAsync("WhatWasLaid");
            await db.Database.ExecuteSqlRawAsync(
                """
                INSERT INTO users (id, name, created_at) VALUES ('0196b0a0-0000-7000-8000-000000000001', 'Tilda', now())
                    ON CONFLICT DO NOTHING;
                INSERT INTO players (id, owner_id, name, hand, height, skill, own_skill, natural_elevation, side_habit, pace_of_five,
                    created_at, updated_at) VALUES
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', 'By hand', 'right', 1.75, 'own',
                     '{{"direction":0.02,"sighting":0.3,"allowance":5,"pace":8,"tip":0.4,"evenness":6}}', 3, 'plain', 4.4, now(), now()),
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', 'Preset', 'right', 1.75, 'club', NULL, 3, 'plain', 5,
                     now(), now());
                """
            );
            await migrator.MigrateAsync();
            var own = (await db.Players.AsNoTracking().SingleAsync(p => p.Name == "By hand")).OwnSkill!;
            Assert.Null(own.Tip);
            var skill = own.ToSkill("own");
            Assert.Equal(
                (0.02, 0.3, 5, 8, 6),
                (skill.DirectionDegrees, skill.SightingMillimetres, skill.AllowancePercent, skill.PacePercent, skill.Evenness)
            );
            Assert.Equal((0.4, 0.4, 0, 1.5), (skill.HeightMillimetres, skill.SideMillimetres, skill.CushionDegrees, skill.RestFactor));
            var preset = await db.Players.AsNoTracking().SingleAsync(p => p.Name == "Preset");
            Assert.Null(preset.OwnSkill);
            // What was called five is a point of a scale now; the standard scale has none.
            Assert.Empty(preset.PaceScale);
            Assert.Equal([new(5, 4.4)], (await db.Players.AsNoTracking().SingleAsync(p => p.Name == "By hand")).PaceScale);
            await migrator.MigrateAsync("WhatWasLaid");
            await using var tip = db.Database.GetDbConnection().CreateCommand();
            tip.CommandText = "SELECT (own_skill->>'tip') || ', five ' || pace_of_five FROM players WHERE name = 'By hand'";
            await db.Database.OpenConnectionAsync();
            Assert.Equal("0.4, five 4.4", await tip.ExecuteScalarAsync());
        }
        finally
        {
            await database.DropAsync();
        }
    }

    /// <summary>Speeds by the two scales as docs/model.md gives them, from the stored numbers before and after.</summary>
    [Fact]
    public async Task Strokes_of_positions_shots_plans_and_frames_keep_their_speed_on_the_new_scale_of_paces()
    {
        var database = new TestDatabase();
        try
        {
            var options = new DbContextOptionsBuilder<DeepBaizeContext>();
            DeepBaizeContext.Configure(options, database.Connection);
            await using var db = new DeepBaizeContext(options.Options);
            var migrator = db.GetService<IMigrator>();
            await migrator.MigrateAsync("NaturalElevation");
            await db.Database.ExecuteSqlRawAsync(
                """
                INSERT INTO users (id, name, created_at) VALUES ('0196b0a0-0000-7000-8000-000000000001', 'Tilda', now())
                    ON CONFLICT DO NOTHING;
                INSERT INTO positions (id, owner_id, name, about, content, created_at, updated_at) VALUES
                    ('0196b0a0-0000-7000-8000-0000000000a1', '0196b0a0-0000-7000-8000-000000000001', 'A', '',
                     '{{"balls":[{{"id":"white","x":1,"y":1}}],"stroke":{{"aim":3,"side":0.5,"height":-1,"pace":7,
                        "elevation":null,"pot":null,"free":false}},"conditions":{{}},"frame":null}}', now(), now());
                INSERT INTO shots (id, owner_id, position_id, name, note, content, created_at) VALUES
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', '0196b0a0-0000-7000-8000-0000000000a1', 'S', '',
                     '{{"balls":[],"stroke":{{"aim":0,"pace":1}}}}', now());
                INSERT INTO plans (id, owner_id, position_id, name, content, body, created_at) VALUES
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', '0196b0a0-0000-7000-8000-0000000000a1', 'P',
                     '{{"balls":[],"stroke":{{"aim":0,"pace":10}}}}',
                     '{{"answer":{{"plans":[{{"shots":[{{"choice":{{"stroke":{{"aim":1,"pace":4.5}}}},"note":[]}}]}}],"pace":3}}}}', now());
                INSERT INTO frames (id, owner_id, title, first, second, shots, created_at, updated_at) VALUES
                    (gen_random_uuid(), '0196b0a0-0000-7000-8000-000000000001', 'F', 'B', 'C', '[{{"kind":"miss"}}]', now(), now());
                """
            );
            await migrator.MigrateAsync();
            static double Speed(double pace) => 0.24 * Math.Pow(pace, 1.47);
            static double Before(double pace) => 0.40 * Math.Pow(1.375, pace - 1);
            var stroke = (await db.Positions.AsNoTracking().SingleAsync()).Content.Stroke;
            Assert.Equal(Before(7), Speed(stroke.Pace), 1e-4);
            Assert.Equal((3, 0.5, -1, null), (stroke.Aim, stroke.Side, stroke.Height, stroke.Elevation));
            Assert.Equal(Before(1), Speed((await db.Shots.AsNoTracking().SingleAsync()).Content.Stroke.Pace), 1e-4);
            var plan = await db.Plans.AsNoTracking().SingleAsync();
            Assert.Equal(Before(10), Speed(plan.Content.Stroke.Pace), 1e-4);
            var answer = JsonNode.Parse(plan.Body)!["answer"]!;
            var shot = answer["plans"]![0]!["shots"]![0]!;
            Assert.Equal(Before(4.5), Speed(shot["choice"]!["stroke"]!["pace"]!.GetValue<double>()), 1e-4);
            // What is no stroke stays as it is.
            Assert.Equal(3, answer["pace"]!.GetValue<double>());
            Assert.Empty(shot["note"]!.AsArray());
            Assert.Equal(ShotKind.Miss, (await db.Frames.AsNoTracking().SingleAsync()).Shots[0].Kind);
            await migrator.MigrateAsync("NaturalElevation");
            var back = await db
                .Database.SqlQueryRaw<double>("SELECT (content #>> '{{stroke,pace}}')::double precision AS \"Value\" FROM positions")
                .SingleAsync();
            Assert.Equal(7, back, 1e-3);
        }
        finally
        {
            await database.DropAsync();
        }
    }
}
