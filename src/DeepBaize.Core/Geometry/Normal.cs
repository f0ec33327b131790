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

    /// <summary>The inverse of the distribution function: how many standard deviations, for a probability between 0 and 1.</summary>
    /// <remarks>Wichura, algorithm AS 241 (PPND16), <i>Applied Statistics</i> 37 (1988) 477, from memory: to about 1e-15.</remarks>
    public static double Quantile(double p)
    {
        var q = p - 0.5;
        if (Math.Abs(q) <= 0.425)
            return q * Ratio(0.180625 - q * q, CentreOver, CentreUnder);
        var r = Math.Sqrt(-Math.Log(q < 0 ? p : 1 - p));
        return Math.CopySign(r <= 5 ? Ratio(r - 1.6, SideOver, SideUnder) : Ratio(r - 5, TailOver, TailUnder), q);
    }

    private static double Ratio(double x, double[] over, double[] under)
    {
        var (a, b) = (0.0, 0.0);
        for (var k = over.Length - 1; k >= 0; k--)
            (a, b) = (a * x + over[k], b * x + under[k]);
        return a / b;
    }

    private static readonly double[] CentreOver =

        [
            3.3871328727963666080e0,
            1.3314166789178437745e2,
            1.9715909503065514427e3,
            1.3731693765509461125e4,
            4.5921953931549871457e4,
            6.7265770927008700853e4,
            3.3430575583588128105e4,
            2.5090809287301226727e3,
        ],
        CentreUnder =

        [
            1,
            4.2313330701600911252e1,
            6.8718700749205790830e2,
            5.3941960214247511077e3,
            2.1213794301586595867e4,
            3.9307895800092710610e4,
            2.8729085735721942674e4,
            5.2264952788528545610e3,
        ],
        SideOver =

        [
            1.42343711074968357734e0,
            4.63033784615654529590e0,
            5.76949722146069140550e0,
            3.64784832476320460504e0,
            1.27045825245236838258e0,
            2.41780725177450611770e-1,
            2.27238449892691845833e-2,
            7.74545014278341407640e-4,
        ],
        SideUnder =

        [
            1,
            2.05319162663775882187e0,
            1.67638483018380384940e0,
            6.89767334985100004550e-1,
            1.48103976427480074590e-1,
            1.51986665636164571966e-2,
            5.47593808499534494600e-4,
            1.05075007164441684324e-9,
        ],
        TailOver =

        [
            6.65790464350110377720e0,
            5.46378491116411436990e0,
            1.78482653991729133580e0,
            2.96560571828504891230e-1,
            2.65321895265761230930e-2,
            1.24266094738807843860e-3,
            2.71155556874348757815e-5,
            2.01033439929228813265e-7,
        ],
        TailUnder =

        [
            1,
            5.99832206555887937690e-1,
            1.36929880922735805310e-1,
            1.48753612908506148525e-2,
            7.86869131145613259100e-4,
            1.84631831751005468180e-5,
            1.42151175831644588870e-7,
            2.04426310338993978564e-15,
        ];
}
