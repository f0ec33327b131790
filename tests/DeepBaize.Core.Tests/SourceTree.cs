namespace DeepBaize.Core.Tests;

/// <summary>The files that this test was built from.</summary>
internal static class SourceTree
{
    private static readonly Lazy<string> Root = new(() =>
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (folder is not null && !File.Exists(System.IO.Path.Combine(folder.FullName, "DeepBaize.slnx")))
            folder = folder.Parent;
        return folder?.FullName ?? throw new InvalidOperationException("The tests do not run from within the source tree.");
    });

    /// <param name="relative">To the project's root.</param>
    public static string Path(string relative) => System.IO.Path.Combine(Root.Value, relative);

    /// <summary>Every C# file that is written by hand.</summary>
    public static IEnumerable<string> CSharpFiles() =>
        new[] { "src", "tests", "bench" }
            .SelectMany(folder => Directory.EnumerateFiles(Path(folder), "*.cs", SearchOption.AllDirectories))
            .Where(file => !NotOurs.Any(part => file.Contains(part, StringComparison.Ordinal)));

    private static readonly string[] NotOurs = ["/obj/", "/bin/", "/Migrations/"];
}
