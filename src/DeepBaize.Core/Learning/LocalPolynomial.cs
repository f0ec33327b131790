namespace DeepBaize.Core.Learning;

/// <summary>
/// A polynomial about a time, fitted by least squares to the readings within a window. By its moments and a Cholesky decomposition of at
/// most five rows: a stroke has some thousands of windows, and matrices made for each would take most of the time.
/// </summary>
internal sealed class LocalPolynomial
{
    /// <summary>Highest degree.</summary>
    public const int MostTerms = 5;

    private readonly double[] _terms;
    private readonly double[] _doubts;

    private LocalPolynomial(double[] terms, double[] doubts, int points) => (_terms, _doubts, Points) = (terms, doubts, points);

    /// <summary>Number of readings that it was fitted to.</summary>
    public int Points { get; }

    /// <summary>Of the power of the time, s: 0 the value, 1 its slope, 2 half of the second derivative.</summary>
    public double this[int power] => power < _terms.Length ? _terms[power] : 0;

    /// <summary>Standard deviation of a term for readings with a noise of one.</summary>
    public double DoubtOf(int power) => power < _doubts.Length ? _doubts[power] : 0;

    /// <param name="about">The time at which the terms hold.</param>
    /// <param name="window">First and last time of the readings that are used, s.</param>
    /// <returns>Null with no more readings than the degree.</returns>
    public static LocalPolynomial? Fit(double[] times, double[] values, double about, (double From, double To) window, int degree)
    {
        var first = Array.BinarySearch(times, window.From);
        first = first < 0 ? ~first : first;
        var terms = degree + 1;
        var scale = Math.Max(1e-6, (window.To - window.From) / 2);
        Span<double> moments = stackalloc double[2 * MostTerms];
        Span<double> right = stackalloc double[MostTerms];
        var points = 0;
        for (var i = first; i < times.Length && times[i] <= window.To; i++, points++)
        {
            var (s, power) = ((times[i] - about) / scale, 1.0);
            for (var k = 0; k <= 2 * degree; k++, power *= s)
            {
                moments[k] += power;
                if (k < terms)
                    right[k] += power * values[i];
            }
        }
        if (points <= degree)
            return null;
        Span<double> lower = stackalloc double[MostTerms * MostTerms];
        for (var i = 0; i < terms; i++)
            for (var k = 0; k <= i; k++)
            {
                var sum = moments[i + k];
                for (var j = 0; j < k; j++)
                    sum -= lower[i * MostTerms + j] * lower[k * MostTerms + j];
                if (i == k && sum <= 0)
                    return null;
                lower[i * MostTerms + k] = i == k ? Math.Sqrt(sum) : sum / lower[k * MostTerms + k];
            }
        var (solved, doubts) = (new double[terms], new double[terms]);
        Span<double> column = stackalloc double[MostTerms];
        Solve(lower, right, terms);
        for (var k = 0; k < terms; k++)
        {
            var unit = Math.Pow(scale, k);
            column.Clear();
            column[k] = 1;
            Solve(lower, column, terms);
            (solved[k], doubts[k]) = (right[k] / unit, Math.Sqrt(column[k]) / unit);
        }
        return new(solved, doubts, points);
    }

    private static void Solve(ReadOnlySpan<double> lower, Span<double> x, int terms)
    {
        for (var i = 0; i < terms; i++)
        {
            for (var j = 0; j < i; j++)
                x[i] -= lower[i * MostTerms + j] * x[j];
            x[i] /= lower[i * MostTerms + i];
        }
        for (var i = terms - 1; i >= 0; i--)
        {
            for (var j = i + 1; j < terms; j++)
                x[i] -= lower[j * MostTerms + i] * x[j];
            x[i] /= lower[i * MostTerms + i];
        }
    }
}
