namespace DeepBaize.Benchmarks;

/// <summary>Puts a table that a benchmark has made where a page of docs/ wants it.</summary>
internal static class DocTable
{
    public static void Write(string path, string mark, IEnumerable<string> lines)
    {
        var (from, to) = ($"<!-- {mark} -->", $"<!-- /{mark} -->");
        var page = File.ReadAllText(path);
        var (start, end) = (page.IndexOf(from, StringComparison.Ordinal), page.IndexOf(to, StringComparison.Ordinal));
        if (start < 0 || end < start)
            throw new InvalidOperationException($"{path} has no place for the table: {from} … {to}");
        File.WriteAllText(path, page[..(start + from.Length)] + "\n" + string.Join('\n', lines) + "\n" + page[end..]);
    }
}
