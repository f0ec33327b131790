using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;

namespace DeepBaize.Core.Learning;

/// <summary>How widely something scatters, against what is usual for the player.</summary>
public enum ScatterSize
{
    /// <summary>About as widely as usual, or the attempts do not tell.</summary>
    Usual,

    /// <summary>Clearly more widely.</summary>
    More,

    /// <summary>Clearly less widely.</summary>
    Less,
}

/// <summary>What several attempts at one stroke have in common in one part of it.</summary>
/// <param name="Fault">The side on which they are off on the average.</param>
/// <param name="Error">By how much, with its sign: degrees to the left, a share of the speed, or a fraction of the ball's radius.</param>
/// <param name="IsEachTime">Whether that is clear, and large enough to matter beside the usual scatter.</param>
public sealed record CommonError(StrokeFault Fault, Range90 Error, bool IsEachTime, ScatterSize Scatter);

/// <summary>What several attempts at one stroke have in common, apart from their scatter.</summary>
/// <param name="Attempts">Number of attempts that were read.</param>
/// <param name="Parts">Direction, pace, side and height.</param>
/// <param name="NotApart">Pairs of parts, by their place, that leave the same ends here: the attempts cannot tell which it is.</param>
/// <param name="Unexplained">Attempts that nothing near the stroke explains, by their place; they were left out.</param>
public sealed record ShotVerdict(
    int Attempts,
    IReadOnlyList<CommonError> Parts,
    IReadOnlyList<(int One, int Other)> NotApart,
    IReadOnlyList<int> Unexplained
)
{
    /// <summary>Fewer attempts have nothing in common that could be told from chance.</summary>
    public const int Fewest = 3;

    /// <summary>An average error smaller than this, in standard deviations of the usual scatter, does not matter.</summary>
    private const double Matters = 0.35;

    /// <summary>How far from the stroke meant an attempt may be read, in standard deviations.</summary>
    private const double Spread = 3;

    /// <summary>Scatter is told of a part only where the ends decide at least this share of its variance.</summary>
    private const double Decided = 0.3;

    /// <summary>Returns the verdict: each attempt's ends taken as straight in its own error, the average by least squares.</summary>
    /// <param name="attempts">Of one stroke on one layout, <see cref="Fewest"/> at the least.</param>
    /// <param name="usual">How the player is taken to err.</param>
    public static ShotVerdict Of(IReadOnlyList<ObservedStroke> attempts, Skill usual, TableShape shape, Workers workers)
    {
        var deviations = attempts[0].DeviationsOf(usual, shape);
        var readings = workers.InParallel(attempts.Count, i => Reading.Of(attempts[i], deviations, shape));
        var read = readings.OfType<Reading>().ToList();
        var (mean, doubt) = AverageOf(read, deviations.Length);
        var parts = Enumerable
            .Range(0, ErrorPart.Usual)
            .Select(k => new CommonError(
                Diagnosis.FaultOf(k, mean[k] >= 0 ? 1 : -1, attempts[0], shape),
                new(deviations[k] * mean[k], deviations[k] * (mean[k] - doubt[k]), deviations[k] * (mean[k] + doubt[k])),
                IsEachTime: read.Count >= Fewest && Math.Abs(mean[k]) > Math.Max(doubt[k], Matters),
                ScatterOf(read, mean, k)
            ))
            .ToList();
        var information = read.Aggregate(Matrix<double>.Build.Dense(deviations.Length, deviations.Length), (sum, r) => sum + r.Information);
        return new(
            read.Count,
            parts,
            ErrorPart.NotApart(information),
            [.. Enumerable.Range(0, attempts.Count).Where(i => readings[i] is null)]
        );
    }

    /// <summary>What one attempt tells of its own error, in standard deviations.</summary>
    /// <param name="Information">Slopes of the ends squared, weighed.</param>
    /// <param name="Told">The information times the error that the ends by themselves ask for.</param>
    private sealed record Reading(Matrix<double> Information, Vector<double> Told)
    {
        /// <summary>Null if nothing near the stroke as meant does what was seen.</summary>
        public static Reading? Of(ObservedStroke attempt, double[] deviations, TableShape shape)
        {
            if (PlayerFit.Nearest(attempt, deviations, shape, Spread) is not var (fit, mode))
                return null;
            var information = fit.InformationAt(mode);
            var error = Vector<double>.Build.DenseOfArray(mode.Error);
            // The mode was held back by how far it may be.
            return new(information, information * error + error / (Spread * Spread));
        }

        /// <summary>Covariance of the error when its ends are known, a scatter of one standard deviation before.</summary>
        public Matrix<double> Left { get; } = (Information + Matrix<double>.Build.DenseIdentity(Information.RowCount)).Inverse();

        /// <summary>The information about an average, the attempt's own scatter summed over; and what it tells of it.</summary>
        public (Matrix<double> Information, Vector<double> Told) OfAverage()
        {
            var own =
                Information * (Information + Matrix<double>.Build.DenseIdentity(Information.RowCount) / PlayerFit.Spreading).Inverse();
            return (Information - own * Information, Told - own * Told);
        }
    }

    /// <summary>
    /// The average error and half of its 90 % interval: by the model, or by leaving out one attempt at a time (jackknife; Tukey 1958, from
    /// memory) where the attempts differ by more than it says.
    /// </summary>
    private static (double[] Mean, double[] Doubt) AverageOf(List<Reading> read, int parts)
    {
        // Before anything was seen an average may be as large as the scatter; that of a rebound is none.
        var (information, told) = (
            Matrix<double>.Build.DenseDiagonal(parts, parts, k => k < ErrorPart.Usual ? 1 : 1e6),
            Vector<double>.Build.Dense(parts)
        );
        var each = read.Select(r => r.OfAverage()).ToList();
        foreach (var one in each)
            (information, told) = (information + one.Information, told + one.Told);
        var mean = information.Solve(told);
        var covariance = information.Inverse();
        var without = each.Select(one => (information - one.Information).Solve(told - one.Told)).ToList();
        var n = read.Count;
        var students = n > 1 ? StudentT.InvCDF(0, 1, n - 1, 0.95) : 0;
        double DoubtOf(int k)
        {
            var centre = without.Count > 0 ? without.Average(w => w[k]) : 0;
            var jackknife = Math.Sqrt((n - 1.0) / Math.Max(1, n) * without.Sum(w => Math.Pow(w[k] - centre, 2)));
            return Math.Max(Belief.Ninety * Math.Sqrt(covariance[k, k]), students * jackknife);
        }
        return (mean.ToArray(), [.. Enumerable.Range(0, parts).Select(DoubtOf)]);
    }

    private static ScatterSize ScatterOf(List<Reading> read, double[] mean, int part)
    {
        var decided = read.Select(r => 1 - r.Left[part, part]).ToList();
        if (read.Count < 2 * Fewest || decided.Average() < Decided)
            return ScatterSize.Usual;
        var about = Vector<double>.Build.DenseOfArray(mean);
        var sum = read.Zip(decided, (r, share) => Math.Pow((r.Left * (r.Told - r.Information * about))[part], 2) / share).Sum();
        var freedom = read.Count - 1;
        return sum > PlayerFit.Spreading * ChiSquared.InvCDF(freedom, 0.975) ? ScatterSize.More
            : sum < ChiSquared.InvCDF(freedom, 0.025) ? ScatterSize.Less
            : ScatterSize.Usual;
    }
}
