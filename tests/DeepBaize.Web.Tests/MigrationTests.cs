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
}
