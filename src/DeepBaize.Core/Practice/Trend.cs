namespace DeepBaize.Core.Practice;

/// <summary>Whether it goes better from attempt to attempt: a straight line through what came of them.</summary>
/// <param name="PerAttempt">By how much the share, or whatever was measured, grows with each.</param>
/// <param name="Error">Standard error of that.</param>
public sealed record Trend(double PerAttempt, double Error)
{
    /// <summary>Whether it is more than the scatter makes of nothing, 19 times of 20.</summary>
    public bool IsTold => Math.Abs(PerAttempt) > SuccessCount.Usual * Error;

    /// <param name="values">In their order; of attempts that are done or not, 1 and 0.</param>
    /// <returns>Null of fewer than three, which have no scatter to be told from.</returns>
    /// <remarks>Least squares; the error from what is left of the scatter, with two degrees of freedom less.</remarks>
    public static Trend? Of(IReadOnlyList<double> values)
    {
        var n = values.Count;
        if (n < 3)
            return null;
        var (middle, mean) = ((n - 1) / 2.0, values.Average());
        double across = 0,
            along = 0;
        for (var i = 0; i < n; i++)
        {
            across += (i - middle) * (values[i] - mean);
            along += (i - middle) * (i - middle);
        }
        var slope = across / along;
        var left = values.Select((v, i) => v - mean - slope * (i - middle)).Sum(r => r * r);
        return new(slope, Math.Sqrt(left / (n - 2) / along));
    }
}
