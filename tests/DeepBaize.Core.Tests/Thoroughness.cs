using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests;

/// <summary>How much a run of the tests takes on: <c>./test long</c> sets DEEPBAIZE_LONG.</summary>
internal static class Thoroughness
{
    public static bool IsLong { get; } = Environment.GetEnvironmentVariable("DEEPBAIZE_LONG") == "1";

    /// <summary>For tests of what a search says, not of how good its figures are: a seventh of the work, all of it in a long run.</summary>
    public static FairGate Quick { get; } = Gate(Environment.ProcessorCount);

    /// <summary>A gate like <see cref="Quick"/> with so many cores.</summary>
    public static FairGate Gate(int cores) => new(cores) { WorkShare = IsLong ? 1 : 0.15 };

    /// <summary>Number of cases of a property: all of them in a long run, a third otherwise.</summary>
    public static int Cases(int all) => IsLong ? all : (all + 2) / 3;
}
