namespace DeepBaize.Core.Geometry;

/// <summary>The normal distribution.</summary>
public static class Normal
{
    /// <summary>The chance that a normal error stays within this many standard deviations, either way: erf(z/√2).</summary>
    /// <remarks>Abramowitz &amp; Stegun 7.1.26 (from memory): off by at most 1.5e-7.</remarks>
    public static double Within(double z)
    {
        if (double.IsPositiveInfinity(z))
            return 1;
        var x = Math.Max(0, z) / Math.Sqrt(2);
        var t = 1 / (1 + 0.3275911 * x);
        return 1 - t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) * Math.Exp(-x * x);
    }

    /// <summary>Two independent standard normal numbers (Box &amp; Muller 1958).</summary>
    public static (double, double) Pair(Random random)
    {
        var r = Math.Sqrt(-2 * Math.Log(1 - random.NextDouble()));
        var (s, c) = Math.SinCos(2 * Math.PI * random.NextDouble());
        return (r * c, r * s);
    }
}
