using MathNet.Numerics;

namespace DeepBaize.Core.Geometry;

/// <summary>The standard normal distribution, by Math.NET Numerics.</summary>
public static class Normal
{
    /// <summary>Returns two independent standard normal numbers (Box &amp; Muller 1958).</summary>
    public static (double, double) Pair(Random random)
    {
        var r = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble()));
        var (s, c) = Math.SinCos(2 * Math.PI * random.NextDouble());
        return (r * c, r * s);
    }

    /// <summary>Returns the number of standard deviations below which a share <paramref name="p"/> lies, 0–1 exclusive.</summary>
    public static double Quantile(double p) => -Constants.Sqrt2 * SpecialFunctions.ErfcInv(2 * p);
}
