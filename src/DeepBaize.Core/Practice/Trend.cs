using MathNet.Numerics.Distributions;

namespace DeepBaize.Core.Practice;

/// <summary>Whether it goes better from attempt to attempt: a straight line through what came of them.</summary>
/// <param name="PerAttempt">By how much the share, or whatever was measured, grows with each.</param>
/// <param name="Error">Standard error of the slope.</param>
/// <param name="Attempts">Number of attempts.</param>
public sealed record Trend(double PerAttempt, double Error, int Attempts)
{
    /// <summary>Fewest attempts of which a trend is reported: of fewer its own error is not known.</summary>
    public const int Fewest = 10;

    /// <summary>Whether the slope differs from 0 at the 5 % level, by Student's t with two degrees of freedom less than attempts.</summary>
    public bool IsTold => Math.Abs(PerAttempt) > StudentT.InvCDF(0, 1, Attempts - 2, 0.975) * Error;

    /// <param name="values">In their order; of attempts that are done or not, 1 and 0.</param>
    /// <returns>Null of fewer than <see cref="Fewest"/>.</returns>
    /// <remarks>Least squares; the error from what is left of the scatter, with two degrees of freedom less.</remarks>
    public static Trend? Of(IReadOnlyList<double> values)
    {
        var n = values.Count;
        if (n < Fewest)
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
        return new(slope, Math.Sqrt(left / (n - 2) / along), n);
    }
}
