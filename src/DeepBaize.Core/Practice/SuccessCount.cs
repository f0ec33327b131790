namespace DeepBaize.Core.Practice;

/// <summary>Number of attempts that were done, out of all.</summary>
public readonly record struct SuccessCount(int Done, int Of)
{
    /// <summary>Standard deviations of a normal error to either side of which one in twenty lies.</summary>
    internal static readonly double Usual = Normal.Quantile(0.975);

    /// <summary>Returns the sum of two counts.</summary>
    public static SuccessCount operator +(SuccessCount a, SuccessCount b) => new(a.Done + b.Done, a.Of + b.Of);

    /// <summary>0–1; NaN of no attempts.</summary>
    public double Share => (double)Done / Of;

    /// <summary>Where the player's own share lies, 95 of 100 times: 0–1, and all of it after no attempts.</summary>
    /// <remarks>
    /// The score interval of Wilson, <i>J. Am. Stat. Assoc.</i> 22 (1927) 209; Newcombe, <i>Statistics in Medicine</i> 17 (1998) 857,
    /// method 3: honest for few attempts and for shares near 0 and 1, where the ordinary one is not.
    /// </remarks>
    public (double Low, double High) Interval
    {
        get
        {
            if (Of == 0)
                return (0, 1);
            var (n, z) = ((double)Of, Usual);
            var middle = 2 * n * Share + z * z;
            var half = z * Math.Sqrt(z * z + 4 * n * Share * (1 - Share));
            // Rounding must not make "never" or "always" a little more than it is.
            double low = Done == 0 ? 0 : (middle - half) / (2 * (n + z * z)),
                high = Done == Of ? 1 : (middle + half) / (2 * (n + z * z));
            return (low, high);
        }
    }
}

/// <summary>What can be said of a share beside an earlier one.</summary>
public enum Progression
{
    /// <summary>It cannot be told yet.</summary>
    NotYet,

    /// <summary>It goes better.</summary>
    Better,

    /// <summary>It goes worse.</summary>
    Worse,
}

/// <summary>Whether it goes better than before.</summary>
/// <param name="Difference">Of the shares, now less before.</param>
/// <param name="Low">Where the difference lies, 95 of 100 times.</param>
/// <param name="Needed">
/// So many attempts of each, as good as these, would tell the two apart four times of five; null if they are the same.
/// </param>
public sealed record Change(double Difference, double Low, double High, int? Needed)
{
    private const double Power = 0.8;
    private const int MostNeeded = 100_000;

    /// <summary>What the interval of the difference says.</summary>
    public Progression Verdict =>
        Low > 0 ? Progression.Better
        : High < 0 ? Progression.Worse
        : Progression.NotYet;

    /// <exception cref="ArgumentException">There are no attempts on one side.</exception>
    /// <remarks>Newcombe, <i>Statistics in Medicine</i> 17 (1998) 873, method 10: from the Wilson intervals of the two.</remarks>
    public static Change Of(SuccessCount before, SuccessCount now)
    {
        if (before.Of == 0 || now.Of == 0)
            throw new ArgumentException("Both sides need an attempt.");
        var (b, n, d) = (before.Interval, now.Interval, now.Share - before.Share);
        var low = d - Math.Sqrt(Square(now.Share - n.Low) + Square(b.High - before.Share));
        var high = d + Math.Sqrt(Square(n.High - now.Share) + Square(before.Share - b.Low));
        return new(d, low, high, NeededFor(before.Share, now.Share));
    }

    /// <remarks>Fleiss, <i>Statistical Methods for Rates and Proportions</i>, 2nd ed. (1981), 3.2, without correction.</remarks>
    private static int? NeededFor(double p, double q)
    {
        if (p == q)
            return null;
        var middle = (p + q) / 2;
        var root =
            SuccessCount.Usual * Math.Sqrt(2 * middle * (1 - middle)) + Normal.Quantile(Power) * Math.Sqrt(p * (1 - p) + q * (1 - q));
        return (int)Math.Min(MostNeeded, Math.Ceiling(Square(root / (p - q))));
    }

    private static double Square(double x) => x * x;
}
