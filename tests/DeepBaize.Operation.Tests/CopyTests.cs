using System.Net;
using Npgsql;

namespace DeepBaize.Operation.Tests;

/// <summary>./backup and ./restore, and the copy each night.</summary>
public class CopyTests
{
    [Fact]
    public async Task What_is_copied_comes_back_row_by_row_into_an_empty_folder()
    {
        await using var club = new Club();
        var copies = Club.NewFolder();
        // Of nights long ago: two are kept, tonight's and the newest of these.
        foreach (var night in (string[])["2020-01-01", "2020-01-02", "2020-01-03"])
        {
            var old = Path.Combine(copies, $"deep-baize-{night}.dump");
            await File.WriteAllTextAsync(old, "");
            File.SetLastWriteTimeUtc(old, new(2020, 1, 4, 0, 0, 0, DateTimeKind.Utc));
        }
        await club.StartAsync(("DEEPBAIZE_BACKUPS", copies), ("DEEPBAIZE_BACKUPS_KEPT", "2"));
        foreach (var name in new[] { "Brown along the cushion", "長い赤 — أحمر", "'; DROP TABLE positions; --" })
            Assert.Equal(HttpStatusCode.Created, (await club.SaveAsync(name, key: $"key-{name.Length}")).StatusCode);

        // While it runs; never over something else; and not back into what is in use.
        var file = Path.Combine(copies, "by-hand.dump");
        Assert.Equal(0, (await Club.RunAsync("backup", club.Folder, file)).Code);
        var (again, said) = await Club.RunAsync("backup", club.Folder, file);
        Assert.True(again != 0 && said.Contains("is there already"), said);
        (again, said) = await Club.RunAsync("restore", club.Folder, file);
        Assert.True(again != 0 && said.Contains("another Deep Baize"), said);
        var rows = await RowsAsync(club);
        Assert.True(rows.Count > 20, $"{rows.Count} rows");

        // The night's own copy was due as soon as it started, for there was none.
        var tonight = Path.Combine(copies, $"deep-baize-{DateTime.Now:yyyy-MM-dd}.dump");
        await Club.Until(() => Directory.GetFiles(copies, "deep-baize-20*.dump").Length == 2, () => club.Said);
        Assert.True(File.Exists(tonight) && File.Exists(Path.Combine(copies, "deep-baize-2020-01-03.dump")));
        await club.StopAsync();

        var elsewhere = new Club();
        await using (elsewhere)
        {
            (again, said) = await Club.RunAsync("restore", elsewhere.Folder, file);
            Assert.True(again == 0, said);
            await elsewhere.StartAsync();
            Assert.Equal(rows, await RowsAsync(elsewhere));
            Assert.Contains("長い赤 — أحمر", await Club.NamesAsync(elsewhere.Client, "長い赤"));
            await elsewhere.SaveAsync("Made since");
            await elsewhere.StopAsync();

            // A file that is cut off changes nothing; a whole one takes the place of what is there, which is kept beside it.
            var cut = Path.Combine(copies, "cut.dump");
            await File.WriteAllBytesAsync(cut, (await File.ReadAllBytesAsync(file))[..^2000]);
            (again, said) = await Club.RunAsync("restore", elsewhere.Folder, cut);
            Assert.True(again != 0 && said.Contains("Nothing was changed"), said);
            (again, said) = await Club.RunAsync("restore", elsewhere.Folder, file);
            Assert.True(again == 0 && said.Contains("deep_baize_before_"), said);
            await elsewhere.StartAsync();
            Assert.Empty(await Club.NamesAsync(elsewhere.Client, "Made"));
            Assert.Equal(rows, await RowsAsync(elsewhere));
        }
        Directory.Delete(copies, recursive: true);
    }

    [Fact]
    public async Task A_good_copy_is_taken_fifty_times_and_a_damaged_one_is_called_so()
    {
        await using var club = new Club();
        await club.StartAsync();
        var file = Path.Combine(Club.NewFolder(), "good.dump");
        Assert.Equal(0, (await Club.RunAsync("backup", club.Folder, file)).Code);
        // While it runs the copy is read and found good, and then the folder in use refuses it: not the copy.
        for (var i = 0; i < 50; i++)
        {
            var (code, said) = await Club.RunAsync("restore", club.Folder, file);
            Assert.True(code != 0 && said.Contains("another Deep Baize"), $"{i}: {said}");
        }
        var damaged = file + ".damaged";
        await File.WriteAllBytesAsync(damaged, [.. Enumerable.Repeat((byte)7, 5000)]);
        var (refused, why) = await Club.RunAsync("restore", club.Folder, damaged);
        Assert.True(refused != 0 && why.Contains("damaged") && why.Contains("Nothing was changed"), why);
    }

    /// <summary>Every row of every table as text, with its table before it.</summary>
    private static async Task<List<string>> RowsAsync(Club club)
    {
        await using var connection = await club.ConnectAsync();
        List<string> tables = [],
            rows = [];
        await using (var names = new NpgsqlCommand("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1", connection))
        await using (var reader = await names.ExecuteReaderAsync())
            while (await reader.ReadAsync())
                tables.Add(reader.GetString(0));
        foreach (var table in tables)
        {
            await using var all = new NpgsqlCommand($"SELECT t::text FROM \"{table}\" t ORDER BY 1", connection);
            await using var reader = await all.ExecuteReaderAsync();
            while (await reader.ReadAsync())
                rows.Add($"{table} {reader.GetString(0)}");
        }
        return rows;
    }
}
