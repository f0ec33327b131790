using DeepBaize.Core.Sampling;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace DeepBaize.Core.Learning;

/// <summary>An error that explains what was seen as well as any near it.</summary>
/// <param name="Error">In standard deviations.</param>
/// <param name="Root">
/// Lower triangle of the covariance about it (Cholesky), from the slopes there: standard deviations again.
/// </param>
/// <param name="Value">Logarithm of prior and likelihood together, but for a constant.</param>
/// <param name="Miss">What the replay with it leaves.</param>
internal sealed record ErrorMode(double[] Error, Matrix<double> Root, double Value, Miss Miss);

/// <summary>Looks for the errors that explain one observed stroke: screening, then Levenberg–Marquardt.</summary>
internal sealed class ErrorFit
{
    /// <summary>How far the errors drawn to begin with reach as a rule, and how far each part by itself, in standard deviations.</summary>
    private const double Reach = 1.7,
        FarthestAlone = 6;

    /// <summary>Where nothing fits yet, balls this near count as nearly right, m.</summary>
    private const double Tolerance = 0.1;

    /// <summary>Step of a slope, in standard deviations.</summary>
    private const double SlopeStep = 0.03;
    private const int Rounds = 14;

    private static readonly ErrorStream Draws = ErrorStream.Named("error fit");

    private readonly StrokeReplay _replay;
    private readonly double[] _deviations;

    public ErrorFit(StrokeReplay replay, double[] deviations) => (_replay, _deviations) = (replay, deviations);

    /// <summary>Number of parts of the error.</summary>
    public int Parts => _deviations.Length;

    /// <summary>Plays the stroke with an error in standard deviations.</summary>
    public Miss Play(ReadOnlySpan<double> error)
    {
        Span<double> absolute = stackalloc double[ErrorPart.Most];
        absolute = absolute[..Parts];
        for (var k = 0; k < Parts; k++)
            absolute[k] = error[k] * _deviations[k];
        return _replay.Play(absolute);
    }

    /// <summary>Errors worth refining, the most promising first: some drawn evenly, some of one part alone.</summary>
    /// <param name="drawn">Number of those drawn.</param>
    /// <param name="stepAlone">Step of one part alone, in standard deviations.</param>
    public List<double[]> Screen(int drawn, double stepAlone)
    {
        var tried = new List<(double[] Error, double Badness)>();
        void Try(double[] error)
        {
            var size = error.Sum(z => z * z);
            tried.Add((error, Play(error).Roughly(Tolerance) + 0.5 * Math.Log(1 + size)));
        }
        Try(new double[Parts]);
        for (var k = 0; k < ErrorPart.Usual; k++)
            for (var z = stepAlone; z <= FarthestAlone; z += stepAlone)
                foreach (var by in new[] { z, -z })
                {
                    var alone = new double[Parts];
                    alone[k] = by;
                    Try(alone);
                }
        for (var i = 0; i < drawn; i++)
            Try(Drawn(i, Reach));
        return [.. tried.OrderBy(t => t.Badness).Select(t => t.Error)];
    }

    /// <summary>The i-th error of an even sample about none.</summary>
    private double[] Drawn(int i, double reach)
    {
        var z = Normals(Draws, i, Parts);
        return [.. z.Select(v => reach * v)];
    }

    /// <summary>Independent standard normal numbers, spread evenly.</summary>
    public static double[] Normals(in ErrorStream stream, int i, int count)
    {
        var draws = stream.At(i);
        double[] all = [draws.Direction, draws.Pace, draws.Side, draws.Height, draws.Sighting];
        return all[..count];
    }

    /// <summary>Screens, and refines the most promising few: the error that explains what was seen best.</summary>
    /// <param name="drawn">Number of errors drawn.</param>
    /// <param name="stepAlone">Step of one part alone, in standard deviations.</param>
    /// <param name="spread">Standard deviation of each part, in those of the player.</param>
    public ErrorMode Best(int drawn, double stepAlone, double spread)
    {
        const int promising = 3;
        double[] spreads = [.. Enumerable.Repeat(spread, Parts)];
        return Screen(drawn, stepAlone).Take(promising).Select(z => Refine(z, spreads)).MaxBy(m => m.Value)!;
    }

    /// <summary>Refines an error until it explains what was seen as well as it can under independent normal errors.</summary>
    /// <param name="spread">Standard deviation of each part, in those of the player.</param>
    public ErrorMode Refine(double[] start, double[] spread)
    {
        var (z, miss) = ((double[])start.Clone(), Play(start));
        var (value, damping) = (ValueOf(z, miss, spread), 0.01);
        var normal = NormalMatrix(z, miss, spread, out var gradient);
        for (var round = 0; round < Rounds; round++)
        {
            var step = (normal + damping * DenseMatrix.CreateDiagonal(Parts, Parts, k => normal[k, k])).Cholesky().Solve(gradient);
            double[] next = [.. z.Select((v, k) => v - step[k])];
            var nextMiss = Play(next);
            var nextValue = ValueOf(next, nextMiss, spread);
            if (!(nextValue > value))
            {
                damping *= 8;
                if (damping > 1e6 || step.L2Norm() < 1e-4)
                    break;
                continue;
            }
            var isDone = nextValue - value < 1e-3;
            (z, miss, value, damping) = (next, nextMiss, nextValue, Math.Max(1e-4, damping / 6));
            normal = NormalMatrix(z, miss, spread, out gradient);
            if (isDone)
                break;
        }
        return new(z, normal.Inverse().Cholesky().Factor, value, miss);
    }

    private static double ValueOf(double[] z, in Miss miss, double[] spread)
    {
        var sum = miss.LogLikelihood;
        for (var k = 0; k < z.Length; k++)
            sum -= 0.5 * Math.Pow(z[k] / spread[k], 2);
        return sum;
    }

    /// <summary>Slopes of the balls' ends, m per standard deviation of each part: a row for each coordinate.</summary>
    public Matrix<double> Slopes(double[] z)
    {
        var middle = Play(z).Offs;
        var slopes = DenseMatrix.Create(middle.Length, Parts, 0);
        for (var k = 0; k < Parts; k++)
        {
            var (up, down) = ((double[])z.Clone(), (double[])z.Clone());
            up[k] += SlopeStep;
            down[k] -= SlopeStep;
            SetSlope(slopes, k, Play(down).Offs, middle, Play(up).Offs, SlopeStep);
        }
        return slopes;
    }

    /// <summary>
    /// Writes a column of slopes. Where a ball is just met or just missed, the ends jump: the gentler side tells how they go on.
    /// </summary>
    public static void SetSlope(Matrix<double> slopes, int column, double[] down, double[] middle, double[] up, double step)
    {
        for (var i = 0; i < middle.Length; i++)
        {
            var (before, after) = ((middle[i] - down[i]) / step, (up[i] - middle[i]) / step);
            slopes[i, column] =
                Math.Abs(after - before) <= 0.5 * Math.Max(Math.Abs(after), Math.Abs(before)) ? (before + after) / 2
                : Math.Abs(after) < Math.Abs(before) ? after
                : before;
        }
    }

    /// <summary>What the ends alone tell of the parts about a mode, per standard deviation of each.</summary>
    public Matrix<double> InformationAt(ErrorMode mode) =>
        NormalMatrix(mode.Error, mode.Miss, [.. Enumerable.Repeat(double.PositiveInfinity, Parts)], out _);

    private Matrix<double> NormalMatrix(double[] z, in Miss miss, double[] spread, out Vector<double> gradient)
    {
        var slopes = Slopes(z);
        var normal = DenseMatrix.CreateDiagonal(Parts, Parts, k => 1 / (spread[k] * spread[k]));
        gradient = DenseVector.Create(Parts, k => z[k] / (spread[k] * spread[k]));
        for (var i = 0; i < miss.Offs.Length; i++)
        {
            var weight = 1 / (miss.Deviations[i] * miss.Deviations[i]);
            for (var k = 0; k < Parts; k++)
            {
                gradient[k] += weight * slopes[i, k] * miss.Offs[i];
                for (var l = 0; l < Parts; l++)
                    normal[k, l] += weight * slopes[i, k] * slopes[i, l];
            }
        }
        return normal;
    }
}
