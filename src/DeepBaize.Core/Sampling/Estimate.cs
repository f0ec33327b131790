using MathNet.Numerics.Distributions;

namespace DeepBaize.Core.Sampling;

/// <summary>A figure that was estimated by playing strokes.</summary>
/// <param name="Value">Mean.</param>
/// <param name="Error">
/// Standard error of the mean, in the same unit, with the doubt about itself: the standard deviation of Student's distribution about the
/// mean. 0 of a figure that needs no strokes.
/// </param>
/// <param name="Strokes">Number of strokes played.</param>
public readonly record struct Estimate(double Value, double Error, int Strokes)
{
    /// <summary>
    /// Number of standard errors of the difference by which two figures are apart: 5 % of equal ones are taken to be. It is Student's
    /// quantile for the eight nets of a stream, in units of the error that is told.
    /// </summary>
    public static readonly double ApartBy =
        StudentT.InvCDF(0, 1, ErrorStream.Replicates - 1, 0.975) / Sums.StudentDeviation(ErrorStream.Replicates - 1);

    /// <summary>Least share of the standard error of as many plain random strokes that scrambled nets have (docs/figures.md).</summary>
    private const double LeastOfPlain = 0.5;

    /// <summary>
    /// Whether a share is known to an error: by its own, and by a floor from the binomial distribution, so that sampling does not stop
    /// where the nets happen to agree.
    /// </summary>
    public bool IsShareKnownTo(double error) =>
        Error <= error && LeastOfPlain * Math.Sqrt(Math.Max(0, Value * (1 - Value)) / Math.Max(1, Strokes)) <= error;

    /// <summary>A figure without strokes.</summary>
    public static Estimate Exact(double value) => new(value, 0, 0);

    /// <summary>Whether the strokes cannot tell it from another.</summary>
    public bool IsLevelWith(in Estimate other) => Math.Abs(Value - other.Value) <= ApartBy * Together(Error, other.Error);

    /// <summary>Returns this figure scaled and shifted by exact numbers.</summary>
    public Estimate Times(double factor, double plus = 0) => new(factor * Value + plus, Math.Abs(factor) * Error, Strokes);

    /// <summary>With another that was found by strokes of its own: the errors of the two add up as squares. Strokes of the first.</summary>
    public Estimate Plus(in Estimate other) => new(Value + other.Value, Together(Error, other.Error), Strokes);

    /// <inheritdoc cref="Plus"/>
    public Estimate Minus(in Estimate other) => Plus(other.Times(-1));

    /// <inheritdoc cref="Plus"/>
    public Estimate Times(in Estimate other) => new(Value * other.Value, Together(Error * other.Value, Value * other.Error), Strokes);

    private static double Together(double a, double b) => Math.Sqrt(a * a + b * b);
}

/// <summary>
/// Collects what the strokes of an <see cref="ErrorStream"/> came to, apart for each of its nets, and gives the mean with its error: from
/// the scatter of the nets' own means, and with Student's allowance for their number.
/// </summary>
public sealed class Sums
{
    private readonly double[] _sums = new double[ErrorStream.Replicates];
    private readonly int[] _counts = new int[ErrorStream.Replicates];

    /// <summary>Of outcomes that stand in the order of their stream.</summary>
    public static Sums Of<T>(IReadOnlyList<T> outcomes, Func<T, double> figure)
    {
        var sums = new Sums();
        for (var i = 0; i < outcomes.Count; i++)
            sums.Add(i, figure(outcomes[i]));
        return sums;
    }

    /// <summary>How many strokes.</summary>
    public int Strokes { get; private set; }

    /// <summary>Sum over all strokes.</summary>
    public double Total => _sums.Sum();

    /// <param name="stroke">Its number in the stream.</param>
    public void Add(int stroke, double value)
    {
        var net = stroke % ErrorStream.Replicates;
        _sums[net] += value;
        _counts[net]++;
        Strokes++;
    }

    /// <summary>One for a stroke that counts, nothing for one that does not.</summary>
    public void Add(int stroke, bool counts) => Add(stroke, counts ? 1.0 : 0);

    /// <summary>Takes over what was collected of other strokes of the same stream.</summary>
    public void Add(Sums other)
    {
        for (var k = 0; k < _sums.Length; k++)
            (_sums[k], _counts[k]) = (_sums[k] + other._sums[k], _counts[k] + other._counts[k]);
        Strokes += other.Strokes;
    }

    /// <summary>Mean over all strokes.</summary>
    public Estimate Mean => Per(Strokes, net => _sums[net], net => _counts[net]);

    /// <summary>
    /// A share: no finer than a stroke in all of them, for where every stroke went the same way the next may not.
    /// </summary>
    public Estimate Share
    {
        get
        {
            var mean = Mean;
            return mean with { Error = Math.Max(mean.Error, Strokes == 0 ? 0 : 1.0 / (Strokes + 2)) };
        }
    }

    /// <summary>The mean of one thing for each of another: of what was left, say, for each miss. 0 if there was none.</summary>
    public Estimate For(Sums each) => Per(each.Strokes, net => _sums[net], net => each._sums[net], each.Total);

    /// <summary>How much more than another came to in the same strokes.</summary>
    public Estimate Less(Sums other) => Per(Strokes, net => _sums[net] - other._sums[net], net => _counts[net]);

    /// <summary>Ratio of two sums; its error by the scatter of the nets' departures from it.</summary>
    private static Estimate Per(int strokes, Func<int, double> sum, Func<int, double> count, double? whole = null)
    {
        var nets = Enumerable.Range(0, ErrorStream.Replicates).ToArray();
        var all = whole ?? nets.Sum(count);
        if (all == 0)
            return new(0, 0, strokes);
        var ratio = nets.Sum(sum) / all;
        var used = nets.Count(net => count(net) > 0);
        if (used < 2)
            return new(ratio, Math.Abs(ratio), strokes);
        var squares = nets.Sum(net => Math.Pow(sum(net) - ratio * count(net), 2));
        return new(ratio, StudentDeviation(used - 1) * Math.Sqrt(squares * used / (used - 1)) / all, strokes);
    }

    /// <summary>
    /// Standard deviation of Student's distribution, by which an error from few nets is larger than it looks: 1.18 for eight of them. With
    /// one or two degrees of freedom it has none; there that of three is used.
    /// </summary>
    public static double StudentDeviation(int degreesOfFreedom)
    {
        var degrees = Math.Max(3, degreesOfFreedom);
        return Math.Sqrt(degrees / (degrees - 2.0));
    }
}
