using DeepBaize.Core.Sampling;
using MathNet.Numerics.LinearAlgebra;

namespace DeepBaize.Core.Learning;

/// <summary>An error that was tried.</summary>
/// <param name="Error">In standard deviations.</param>
/// <param name="LogLikelihood">Of what was seen with it.</param>
/// <param name="LogDensity">With which it was drawn, but for the constant of a normal density.</param>
/// <param name="Distance">How far the balls end from where they were seen, on the average, m.</param>
internal sealed record SampledError(double[] Error, double LogLikelihood, double LogDensity, double Distance);

/// <summary>
/// What errors of a stroke are drawn by, to weigh them by what was seen (importance sampling): a mixture of normals about the modes, wider
/// than their slopes say, and a broad one that does not trust them.
/// </summary>
internal sealed class ErrorProposal
{
    private const double ShareOfBroad = 0.15,
        Broad = 2.5,
        Wider = 1.4;

    /// <summary>Modes that are kept, and by how much less likely than the best one may be, as a logarithm.</summary>
    private const int MostModes = 12;
    private const double LeastLikely = 25;

    private readonly IReadOnlyList<ErrorMode> _modes;
    private readonly int _parts;
    private readonly List<Matrix<double>> _inverses;
    private readonly List<double> _sizes;

    public ErrorProposal(IReadOnlyList<ErrorMode> modes, int parts)
    {
        (_modes, _parts) = (modes, parts);
        _inverses = [.. modes.Select(m => (Wider * m.Root).Inverse())];
        _sizes = [.. modes.Select(m => m.Root.Diagonal().Sum(d => Math.Log(Wider * d)))];
    }

    /// <summary>Of modes that were found several times one each, the best first.</summary>
    public static List<ErrorMode> Distinct(IEnumerable<ErrorMode> modes)
    {
        var kept = new List<ErrorMode>();
        foreach (var mode in modes.OrderByDescending(m => m.Value))
            if (kept.All(k => k.Error.Zip(mode.Error, (a, b) => Math.Abs(a - b)).Max() > 0.15))
                kept.Add(mode);
        return [.. kept.Where(m => m.Value > kept[0].Value - LeastLikely).Take(MostModes)];
    }

    /// <summary>Draws errors number <paramref name="from"/> and on, and plays the stroke with each.</summary>
    public List<SampledError> Sample(ErrorFit fit, in ErrorStream draws, int from, int count)
    {
        var list = new List<SampledError>(count);
        for (var i = from; i < from + count; i++)
        {
            var z = Drawn(draws, i);
            var miss = fit.Play(z);
            list.Add(new(z, miss.LogLikelihood, LogDensity(z), miss.Distance));
        }
        return list;
    }

    private double[] Drawn(in ErrorStream draws, int i)
    {
        var normals = ErrorFit.Normals(draws, i, _parts);
        // In turn, so that each mode has its share of an even sample.
        var m = (int)(i * 0.6180339887498949 % 1 * (_modes.Count / (1 - ShareOfBroad)));
        if (m >= _modes.Count)
            return [.. normals.Select(n => Broad * n)];
        var z = (double[])_modes[m].Error.Clone();
        for (var k = 0; k < _parts; k++)
            for (var l = 0; l <= k; l++)
                z[k] += Wider * _modes[m].Root[k, l] * normals[l];
        return z;
    }

    private double LogDensity(double[] z)
    {
        var sum = ShareOfBroad * Math.Exp(-0.5 * z.Sum(v => v * v) / (Broad * Broad) - _parts * Math.Log(Broad));
        for (var m = 0; m < _modes.Count; m++)
        {
            var off = _inverses[m] * Vector<double>.Build.Dense(_parts, k => z[k] - _modes[m].Error[k]);
            sum += (1 - ShareOfBroad) / _modes.Count * Math.Exp(-0.5 * off.DotProduct(off) - _sizes[m]);
        }
        return Math.Log(sum);
    }
}
