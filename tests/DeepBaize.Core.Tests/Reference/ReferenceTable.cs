using System.Globalization;

namespace DeepBaize.Core.Tests.Reference;

/// <summary>
/// Results of the fine-step program (<see cref="Physics.FineStep"/>), kept as CSV beside this file because they take minutes to compute.
/// <c>./test reference</c> writes them; <c>./test long</c> computes them again and compares.
/// </summary>
internal static class ReferenceTable
{
    /// <summary>Relative difference that counts as equal: the last digits of a double differ from one processor to the next.</summary>
    private const double Tolerance = 1e-7;

    private static bool IsWriting { get; } = Environment.GetEnvironmentVariable("DEEPBAIZE_WRITE_REFERENCE") == "1";

    private static string PathOf(string name) => SourceTree.Path($"tests/DeepBaize.Core.Tests/Reference/{name}.csv");

    /// <summary>Returns the rows of a table, without its heading.</summary>
    /// <exception cref="FileNotFoundException">There is no such table.</exception>
    public static List<double[]> Rows(string name) =>
        [
            .. File.ReadLines(PathOf(name))
                .Skip(1)
                .Select(line => line.Split(',').Select(v => double.Parse(v, CultureInfo.InvariantCulture)).ToArray()),
        ];

    /// <summary>Writes a table, or asserts that the kept one has the same rows.</summary>
    public static void WriteOrCompare(string name, string heading, IReadOnlyList<double[]> rows)
    {
        if (IsWriting)
        {
            var lines = rows.Select(row => string.Join(',', row.Select(v => v.ToString("R", CultureInfo.InvariantCulture))));
            File.WriteAllLines(PathOf(name), [heading, .. lines]);
            return;
        }
        var kept = Rows(name);
        Assert.Equal(rows.Count, kept.Count);
        foreach (var (row, other) in rows.Zip(kept))
        {
            Assert.Equal(row.Length, other.Length);
            for (var i = 0; i < row.Length; i++)
                Assert.Equal(row[i], other[i], Tolerance * Math.Max(1, Math.Abs(row[i])));
        }
    }

    /// <summary>Computes one row for each case, on all cores, in the order of the cases; null leaves a case out.</summary>
    public static List<double[]> Compute<T>(IEnumerable<T> cases, Func<T, double[]?> row) =>
        [.. cases.AsParallel().AsOrdered().Select(row).OfType<double[]>()];
}
