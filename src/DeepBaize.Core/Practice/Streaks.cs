using System.Numerics;

namespace DeepBaize.Core.Practice;

/// <summary>Runs of attempts that were all done, and whether luck alone makes as long a one.</summary>
public static class Streaks
{
    /// <summary>Returns the length of the longest run of attempts that were done.</summary>
    public static int Longest(IEnumerable<bool> done)
    {
        var (longest, now) = (0, 0);
        foreach (var isDone in done)
            longest = Math.Max(longest, now = isDone ? now + 1 : 0);
        return longest;
    }

    /// <summary>The chance that as many done and missed, in any order, have a run of at least so many done somewhere among them.</summary>
    /// <remarks>
    /// Counted: the done ones fall into the gaps before, between and behind the missed, and by inclusion and exclusion over those that hold
    /// a whole run (Feller, <i>An Introduction to Probability Theory</i> 1, II.11 and IV.1).
    /// </remarks>
    public static double ByLuck(SuccessCount tally, int run)
    {
        if (run <= 0)
            return 1;
        var (done, gaps) = (tally.Done, tally.Of - tally.Done + 1);
        BigInteger with = 0;
        for (var k = 1; k <= gaps && k * run <= done; k++)
        {
            var ways = Choose(gaps, k) * Choose(done - k * run + gaps - 1, gaps - 1);
            with += k % 2 == 1 ? ways : -ways;
        }
        // A fraction of whole numbers that may be too long for a double.
        const int digits = 1_000_000_000;
        return (double)(with * digits / Choose(tally.Of, done)) / digits;
    }

    private static BigInteger Choose(int n, int k)
    {
        BigInteger ways = 1;
        for (var i = 1; i <= Math.Min(k, n - k); i++)
            ways = ways * (n - i + 1) / i;
        return ways;
    }
}
