using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Search;

/// <summary>How long a contest goes on.</summary>
/// <param name="First">Strokes of each entrant in the first round; every round doubles them.</param>
/// <param name="Most">Strokes of each at most.</param>
/// <param name="Matters">A difference smaller than this does not matter, in the unit of what is compared.</param>
public sealed record ContestEffort(int First, int Most, double Matters);

/// <summary>An entrant with what it came to, best first.</summary>
/// <param name="IsLevel">
/// Not apart from the best: by the same errors, their difference is no more than its own error, or than what matters.
/// </param>
public sealed record Placed<T>(T Entrant, Estimate Value, bool IsLevel);

/// <summary>
/// Plays entrants against one another with the same errors (common random numbers) until the best is apart from each other one, or no
/// difference that matters is left to find. Those that have fallen behind are not played on.
/// </summary>
public static class Contest
{
    private sealed class Side<T>(T entrant)
    {
        public T Entrant { get; } = entrant;
        public Sums Sums { get; } = new();
        public bool IsBehind { get; set; }
        public bool IsLevel { get; set; }
    }

    /// <param name="play">What the i-th stroke of the stream makes of an entrant.</param>
    public static List<Placed<T>> Run<T>(
        SearchContext context,
        IReadOnlyList<T> entrants,
        ContestEffort effort,
        Func<Workspace, T, int, double> play
    )
    {
        List<Side<T>> sides = [.. entrants.Select(e => new Side<T>(e))];
        for (var (played, next) = (0, effort.First); sides.Count > 0; (played, next) = (next, Math.Min(effort.Most, 2 * next)))
        {
            List<Side<T>> open = [.. sides.Where(s => !s.IsBehind)];
            Round(context, open, played, next, play);
            var best = open.MaxBy(s => s.Sums.Mean.Value)!;
            var isDecided = true;
            foreach (var other in open.Where(s => s != best))
            {
                var less = best.Sums.Less(other.Sums);
                other.IsBehind = less.Value > Estimate.ApartBy * less.Error;
                other.IsLevel = !other.IsBehind;
                isDecided &= other.IsBehind || less.Value + Estimate.ApartBy * less.Error < effort.Matters;
            }
            best.IsLevel = false;
            if (isDecided || next >= effort.Most)
                break;
        }
        return
        [
            .. sides
                .OrderBy(s => s.IsBehind ? 1 : 0)
                .ThenByDescending(s => s.Sums.Mean.Value)
                .Select(s => new Placed<T>(s.Entrant, s.Sums.Mean, s.IsLevel)),
        ];
    }

    /// <summary>A piece of work is some strokes of one entrant, so that the cores are shared evenly.</summary>
    private static void Round<T>(SearchContext context, List<Side<T>> open, int first, int end, Func<Workspace, T, int, double> play)
    {
        const int piece = 4;
        var pieces = (end - first + piece - 1) / piece;
        var values = context.InParallel(open.Count * pieces, (workspace, k) =>
        {
            var from = first + k % pieces * piece;
            return Enumerable.Range(from, Math.Min(piece, end - from)).Select(i => play(workspace, open[k / pieces].Entrant, i)).ToArray();
        });
        for (var k = 0; k < values.Count; k++)
            for (var i = 0; i < values[k].Length; i++)
                open[k / pieces].Sums.Add(first + k % pieces * piece + i, values[k][i]);
    }
}
