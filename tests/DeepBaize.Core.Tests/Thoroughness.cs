namespace DeepBaize.Core.Tests;

/// <summary>How much a run of the tests takes on: <c>./test long</c> sets DEEPBAIZE_LONG.</summary>
internal static class Thoroughness
{
    public static bool IsLong { get; } = Environment.GetEnvironmentVariable("DEEPBAIZE_LONG") == "1";

    /// <summary>Number of cases of a property: all of them in a long run, a third otherwise.</summary>
    public static int Cases(int all) => IsLong ? all : (all + 2) / 3;
}
