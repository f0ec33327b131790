using System.Collections.Concurrent;
using MathNet.Numerics;
using MathNet.Numerics.Distributions;

namespace DeepBaize.Core.Players;

/// <summary>
/// The factor that all parts of one stroke share, √(ν/χ²ν): a normal number times it is one of Student's t with ν degrees of
/// freedom, so that now and then everything is off at once. In tables, for it is asked for with every stroke.
/// </summary>
public sealed class SharedFactor
{
    private static readonly ConcurrentDictionary<double, SharedFactor> Known = new();
    private static readonly SharedFactor Usual = new(Skill.UsualEvenness);

    // The factor's logarithm over that of the odds, nearly straight at both ends; beyond them there is one stroke in ten million.
    private const int Nodes = 2048;
    private const double Ends = 16;
    private readonly double[] _factors = new double[Nodes + 1];

    // The share within z over z/√(ν + z²), from 0 to 1.
    private const int WithinNodes = 1024;
    private readonly double[] _within = new double[WithinNodes + 1];
    private readonly double _freedom;

    /// <summary>To a tenth: the tables are kept.</summary>
    /// <param name="freedom">ν.</param>
    public static SharedFactor Of(double freedom) =>
        freedom == Usual._freedom ? Usual : Known.GetOrAdd(Math.Round(freedom, 1), f => new(f));

    private SharedFactor(double freedom)
    {
        _freedom = freedom;
        for (var i = 0; i <= Nodes; i++)
        {
            // The share of strokes that are less steady.
            var less = 1 / (1 + Math.Exp(Ends * (2.0 * i / Nodes - 1)));
            _factors[i] = Math.Sqrt(freedom / ChiSquared.InvCDF(freedom, less));
        }
        for (var i = 0; i < WithinNodes; i++)
        {
            var x = (double)i / WithinNodes;
            var z = x * Math.Sqrt(freedom / (1 - x * x));
            _within[i] = 2 * StudentT.CDF(0, 1, freedom, z) - 1;
        }
        _within[WithinNodes] = 1;
    }

    /// <param name="quantile">The share of strokes that are steadier, 0–1.</param>
    public double Factor(double quantile)
    {
        if (quantile <= 0)
            return _factors[0];
        if (quantile >= 1)
            return _factors[Nodes];
        return At(_factors, (Math.Log(quantile / (1 - quantile)) / Ends + 1) / 2);
    }

    /// <summary>Returns the share of strokes within a number of standard deviations of an ordinary one, either way.</summary>
    public double Within(double z) => double.IsPositiveInfinity(z) ? 1 : At(_within, Math.Max(0, z) / Math.Sqrt(_freedom + z * z));

    /// <summary>
    /// Logarithm of the density of a stroke's parts together, Student's t in several dimensions, but for the constant of a normal density.
    /// </summary>
    /// <param name="square">Sum of the parts' squares, each in its own standard deviation.</param>
    /// <param name="freedom">ν.</param>
    public static double LogDensity(double square, int parts, double freedom) =>
        SpecialFunctions.GammaLn((freedom + parts) / 2)
        - SpecialFunctions.GammaLn(freedom / 2)
        - parts / 2.0 * Math.Log(freedom / 2)
        - (freedom + parts) / 2 * Math.Log(1 + square / freedom);

    /// <summary>Straight between the nodes of a table.</summary>
    /// <param name="along">0–1.</param>
    private static double At(double[] table, double along)
    {
        var x = Math.Clamp(along, 0, 1) * (table.Length - 1);
        var i = Math.Min((int)x, table.Length - 2);
        return table[i] + (table[i + 1] - table[i]) * (x - i);
    }
}
