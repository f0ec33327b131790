using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace DeepBaize.Core.Learning;

/// <summary>A part of a skill as it was learnt.</summary>
/// <param name="Range">In the part's own unit.</param>
/// <param name="Narrowed">By how much less it is in doubt than before, 0–1: near 0 the attempts say nothing about it.</param>
public sealed record LearntPart(SkillPart Part, Range90 Range, double Narrowed);

/// <summary>What a player's strokes are off by on the average, apart from their scatter.</summary>
/// <param name="Turn">Degrees to the left.</param>
/// <param name="Pace">A share of the cue's speed.</param>
/// <param name="Side">A fraction of the ball's radius to the right.</param>
/// <param name="Height">A fraction of the ball's radius upwards.</param>
public sealed record Habits(Range90 Turn, Range90 Pace, Range90 Side, Range90 Height);

/// <summary>What attempts teach of a player.</summary>
/// <param name="Skill">The likeliest parts.</param>
/// <param name="Unexplained">Attempts that no stroke near the one meant explains, by their place in the list; they were left out.</param>
/// <param name="Butt">Degrees by which the butt is higher than it is taken to lie; null where too few strokes tell of it.</param>
public sealed record PlayerLearnt(
    Skill Skill,
    IReadOnlyList<LearntPart> Parts,
    Habits Habits,
    IReadOnlyList<int> Unexplained,
    Range90? Butt
);

/// <summary>
/// Learns the parts of a player's error from strokes on a table that is known. Each stroke's ends are taken as straight in its own error,
/// about the error that explains them best; the parts are then sampled by an affine-invariant ensemble (Goodman &amp; Weare, <i>Comm.
/// Appl. Math. Comp. Sci.</i> 5 (2010) 65, from memory), with the factor that all errors of one stroke share summed over.
/// </summary>
/// <remarks>
/// Errors that were drawn and weighed anew for each player (importance sampling) were tried instead: with some hundred for a stroke, narrow
/// players were taken for exact ones.
/// </remarks>
public sealed class PlayerFit
{
    /// <summary>What is learnt, with the standard deviation of its logarithm before anything was seen: presets span it.</summary>
    private static readonly (string Part, double Doubt)[] Learnt =
    [
        ("direction", 0.6),
        ("sighting", 0.6),
        ("allowance", 0.6),
        ("pace", 0.5),
        ("height", 0.5),
        ("side", 0.7),
        ("cushion", 0.6),
        ("evenness", 0.4),
    ];

    private const int Evenness = 7;

    /// <summary>Walkers of the ensemble, its steps, and those of them that count; and its usual stretch.</summary>
    private const int Walkers = 32,
        Steps = 300,
        Counted = 200;
    private const double Stretch = 2;

    /// <summary>Where the distribution of the shared factor is cut: finer where everything is off at once.</summary>
    private static readonly double[] Cuts = [0, 0.2, 0.4, 0.6, 0.78, 0.9, 0.96, 0.99, 1];

    /// <summary>An attempt that lies farther from what any near stroke does than this, per coordinate, says nothing.</summary>
    private const double Farthest = 12;

    /// <summary>What a part of a stroke may reach when an attempt is read, in the deviations of the skill it is read with.</summary>
    private const double Spread = 1.5;

    /// <summary>Attempts are read with the skill before, and once more with what was learnt of them.</summary>
    private const int Readings = 2;

    /// <summary>
    /// Ends are not quite straight in an error, and that does not average out: intervals are wider by logarithm, the more the more attempts
    /// there are (docs/learning.md).
    /// </summary>
    private const double LeastWidening = 1.3,
        FullyTrusted = 40;

    private double Widening => LeastWidening * Math.Pow(Math.Max(1, _attempts.Count / FullyTrusted), 0.25);

    private static readonly ErrorStream Draws = ErrorStream.Named("player fit");

    private readonly Skill _before;
    private readonly List<Attempt> _attempts = [];

    /// <summary>
    /// One stroke: its ends are <paramref name="Slopes"/> times its error (absolute units), and noise; each part's deviation for a unit of
    /// a skill's part is in <paramref name="Units"/>.
    /// </summary>
    private sealed record Attempt(Vector<double> Ends, Matrix<double> Slopes, double[] Noise, double[] Units, double LeastPace);

    private PlayerFit(Skill before) => _before = before;

    /// <summary>Returns what is believed of a player after the attempts.</summary>
    /// <param name="before">The skill that the player is taken for.</param>
    public static PlayerLearnt Of(IReadOnlyList<ObservedStroke> attempts, Skill before, TableShape shape, Workers workers)
    {
        var (fit, skill, walkers) = (new PlayerFit(before), before, new List<double[]>());
        List<Attempt?> read = [];
        for (var reading = 0; reading < Readings; reading++)
        {
            var by = skill;
            read = workers.InParallel(attempts.Count, i => Read(attempts[i], by, shape));
            fit._attempts.Clear();
            fit._attempts.AddRange(read.OfType<Attempt>());
            walkers = fit.Sample(workers);
            skill = fit.SkillAt([.. Enumerable.Range(0, Learnt.Length).Select(k => Quantile(walkers, k, 0.5))]);
        }
        var parts = Learnt.Select((l, k) => fit.PartOf(walkers, l.Part, l.Doubt, k)).ToList();
        var unexplained = Enumerable.Range(0, attempts.Count).Where(i => read[i] is null);
        return new(skill, parts, fit.HabitsOf(skill), [.. unexplained], ButtFit.Of(attempts, skill, shape, workers));
    }

    /// <summary>The error that explains an attempt best, in its deviations; null if nothing near the stroke as meant does.</summary>
    /// <param name="spread">Standard deviation of each part that is taken, in those given.</param>
    internal static (ErrorFit Fit, ErrorMode Mode)? Nearest(ObservedStroke stroke, double[] deviations, TableShape shape, double spread)
    {
        var fit = new ErrorFit(new(stroke, shape), deviations);
        var best = fit.Best(128, 0.6, spread);
        return best.Miss.Square > Farthest * best.Miss.Offs.Length || best.Miss.Penalty < 0 ? null : (fit, best);
    }

    /// <summary>Null if nothing near the stroke as meant does what was seen.</summary>
    private static Attempt? Read(ObservedStroke stroke, Skill skill, TableShape shape)
    {
        var line = AimLine.Of(stroke.Layout, stroke.Meant, new(shape), new());
        var scatter = stroke.ScatterOf(skill, shape);
        var deviations = ErrorPart.Deviations(scatter, line.Cushions);
        if (Nearest(stroke, deviations, shape, Spread) is not var (fit, best))
            return null;
        var rows = best.Miss.Offs.Length;
        var slopes = fit.Slopes(best.Error) * Matrix<double>.Build.DenseOfDiagonalArray([.. deviations.Select(d => 1 / d)]);
        var error = DenseVector.Create(deviations.Length, k => best.Error[k] * deviations[k]);
        var ends = slopes * error - DenseVector.OfArray(best.Miss.Offs);
        // Balls that no error moves tell nothing.
        var told = Enumerable.Range(0, rows).Where(i => slopes.Row(i).L2Norm() > 1e-9).ToList();
        if (told.Count == 0)
            return null;
        double PerUnit(double deviation, string part) => deviation / Math.Max(1e-9, ValueOf(skill, part));
        return new(
            DenseVector.Create(told.Count, i => ends[told[i]]),
            DenseMatrix.Create(told.Count, slopes.ColumnCount, (i, k) => slopes[told[i], k]),
            // What the best error leaves is noise: no slope explains it.
            [.. told.Select(i => Math.Sqrt(Math.Pow(best.Miss.Deviations[i], 2) + Math.Pow(best.Miss.Offs[i], 2)))],
            [
                PerUnit(scatter.DirectionDegrees, "direction"),
                PerUnit(scatter.SightingDegrees, "sighting"),
                PerUnit(scatter.AllowanceDegrees, "allowance"),
                0.01,
                PerUnit(scatter.Height, "height"),
                PerUnit(scatter.Side, "side"),
                Math.Sqrt(Math.Max(1, line.Cushions)),
            ],
            LeastPace: 0.02 / Math.Max(0.1, stroke.Meant.ToStrike().CueSpeed)
        );
    }

    private static SkillPart PartNamed(string name) => Skill.Parts.First(p => p.Name == name);

    private static double ValueOf(Skill skill, string part) => PartNamed(part).Of(skill);

    /// <summary>Logarithm of a part, as it is learnt; one that is 0 is taken as small.</summary>
    private double Before(int k) =>
        Math.Log(Math.Max(ValueOf(_before, Learnt[k].Part), 0.02 * ValueOf(Skill.Named("club"), Learnt[k].Part)));

    private double LogPosterior(double[] logs)
    {
        var sum = 0.0;
        for (var k = 0; k < logs.Length; k++)
            sum -= 0.5 * Math.Pow((logs[k] - Before(k)) / Learnt[k].Doubt, 2);
        var parts = logs.Select(Math.Exp).ToArray();
        if (parts[Evenness] is < 2 or > 30)
            return double.NegativeInfinity;
        var factor = SharedFactor.Of(parts[Evenness]);
        Span<double> factors = stackalloc double[Cuts.Length - 1];
        for (var j = 0; j < factors.Length; j++)
            factors[j] = factor.Factor((Cuts[j] + Cuts[j + 1]) / 2);
        foreach (var attempt in _attempts)
            sum += LogLikelihood(attempt, parts, factors);
        return sum;
    }

    private static double LogLikelihood(Attempt attempt, double[] parts, ReadOnlySpan<double> factors)
    {
        var own = OwnCovariance(attempt, parts);
        var n = attempt.Ends.Count;
        var (matrix, solved) = (new double[n * n], new double[n]);
        Span<double> logs = stackalloc double[factors.Length];
        var most = double.NegativeInfinity;
        for (var j = 0; j < factors.Length; j++)
        {
            var scale = factors[j] * factors[j];
            for (var r = 0; r < n; r++)
                for (var c = 0; c <= r; c++)
                    matrix[r * n + c] = scale * own[r * n + c] + (r == c ? attempt.Noise[r] * attempt.Noise[r] : 0);
            logs[j] = LogNormal(matrix, attempt.Ends, solved);
            most = Math.Max(most, logs[j]);
        }
        var mean = 0.0;
        for (var j = 0; j < logs.Length; j++)
            mean += (Cuts[j + 1] - Cuts[j]) * Math.Exp(logs[j] - most);
        return most + Math.Log(mean);
    }

    /// <summary>Variance of each part of one stroke's error, in absolute units.</summary>
    private static double[] Variances(Attempt attempt, double[] parts)
    {
        var u = attempt.Units;
        double Square(int k) => parts[k] * parts[k] * u[k] * u[k];
        double[] usual =
        [
            Square(0) + Square(1) + Square(2),
            Math.Max(Square(3), attempt.LeastPace * attempt.LeastPace),
            Square(5),
            Square(4),
        ];
        return attempt.Slopes.ColumnCount > ErrorPart.Usual ? [.. usual, Square(6)] : usual;
    }

    /// <summary>Covariance of the ends from the stroke's own error, the lower triangle row by row.</summary>
    private static double[] OwnCovariance(Attempt attempt, double[] parts)
    {
        var (n, variances, slopes) = (attempt.Ends.Count, Variances(attempt, parts), attempt.Slopes);
        var own = new double[n * n];
        for (var r = 0; r < n; r++)
            for (var c = 0; c <= r; c++)
                for (var k = 0; k < variances.Length; k++)
                    own[r * n + c] += slopes[r, k] * variances[k] * slopes[c, k];
        return own;
    }

    /// <summary>
    /// Logarithm of a normal density but for its constant; the lower triangle of the covariance is overwritten by its root.
    /// </summary>
    private static double LogNormal(double[] matrix, Vector<double> at, double[] solved)
    {
        var (n, sum) = (solved.Length, 0.0);
        for (var r = 0; r < n; r++)
        {
            var rest = at[r];
            for (var c = 0; c <= r; c++)
            {
                var value = matrix[r * n + c];
                for (var k = 0; k < c; k++)
                    value -= matrix[r * n + k] * matrix[c * n + k];
                if (c < r)
                {
                    matrix[r * n + c] = value / matrix[c * n + c];
                    rest -= matrix[r * n + c] * solved[c];
                }
                else
                    matrix[r * n + r] = Math.Sqrt(Math.Max(value, 1e-18));
            }
            solved[r] = rest / matrix[r * n + r];
            sum -= 0.5 * solved[r] * solved[r] + Math.Log(matrix[r * n + r]);
        }
        return sum;
    }

    /// <summary>Parts drawn from what is believed after the attempts, by their logarithms.</summary>
    private List<double[]> Sample(Workers workers)
    {
        var walkers = new double[Walkers][];
        for (var w = 0; w < Walkers; w++)
            walkers[w] =
            [
                .. Learnt.Select(
                    (l, k) =>
                        Before(k) + 0.5 * l.Doubt * ErrorFit.Normals(Draws.Part(k / ErrorPart.Most), w, ErrorPart.Most)[k % ErrorPart.Most]
                ),
            ];
        // An evenness below 2 does not exist.
        foreach (var walker in walkers)
            walker[Evenness] = Math.Clamp(walker[Evenness], Math.Log(2.2), Math.Log(25));
        var values = workers.InParallel(Walkers, w => LogPosterior(walkers[w])).ToArray();
        var random = new Random(35);
        var kept = new List<double[]>();
        for (var step = 0; step < Steps; step++)
        {
            for (var half = 0; half < 2; half++)
            {
                var (from, to) = (half * Walkers / 2, (1 - half) * Walkers / 2);
                var moves = Enumerable
                    .Range(0, Walkers / 2)
                    .Select(_ =>
                        (
                            Other: to + random.Next(Walkers / 2),
                            Z: Math.Pow((Math.Sqrt(Stretch) - 1 / Math.Sqrt(Stretch)) * random.NextDouble() + 1 / Math.Sqrt(Stretch), 2),
                            Toss: random.NextDouble()
                        )
                    )
                    .ToList();
                double[] Moved(int i) =>
                    [.. walkers[from + i].Select((v, k) => walkers[moves[i].Other][k] + moves[i].Z * (v - walkers[moves[i].Other][k]))];
                var proposed = workers.InParallel(Walkers / 2, i => Moved(i) is var p ? (Place: p, Value: LogPosterior(p)) : default);
                for (var i = 0; i < Walkers / 2; i++)
                    if (Math.Log(moves[i].Toss) < (Learnt.Length - 1) * Math.Log(moves[i].Z) + proposed[i].Value - values[from + i])
                        (walkers[from + i], values[from + i]) = proposed[i];
            }
            if (step >= Steps - Counted)
                kept.AddRange(walkers);
        }
        return kept;
    }

    private static double Quantile(List<double[]> walkers, int k, double share) =>
        Math.Exp(MathNet.Numerics.Statistics.Statistics.Quantile(walkers.Select(w => w[k]), share));

    private LearntPart PartOf(List<double[]> walkers, string name, double doubt, int k)
    {
        var part = PartNamed(name);
        var middle = Quantile(walkers, k, 0.5);
        double At(double share) => Math.Clamp(middle * Math.Pow(Quantile(walkers, k, share) / middle, Widening), part.Least, part.Most);
        var spread = Widening * MathNet.Numerics.Statistics.Statistics.StandardDeviation(walkers.Select(w => w[k]));
        return new(part, new(At(0.5), At(0.05), At(0.95)), Math.Clamp(1 - spread / doubt, 0, 1));
    }

    private Skill SkillAt(double[] parts) =>
        new(Skill.Own, parts[0], parts[1], parts[2], parts[3], parts[4], parts[5])
        {
            CushionDegrees = parts[6],
            Evenness = Math.Clamp(parts[Evenness], 2, 30),
            RestFactor = _before.RestFactor,
        };

    /// <summary>What the strokes are off by on the average: least squares, each stroke weighed by its own scatter.</summary>
    private Habits HabitsOf(Skill skill)
    {
        double[] parts = [.. Learnt.Select(l => ValueOf(skill, l.Part))];
        const int count = ErrorPart.Usual;
        Matrix<double> normal = DenseMatrix.Create(count, count, 0);
        Vector<double> right = DenseVector.Create(count, 0);
        var prior = new double[count];
        foreach (var attempt in _attempts)
        {
            var n = attempt.Ends.Count;
            var (own, variances) = (OwnCovariance(attempt, parts), Variances(attempt, parts));
            double At(int r, int c) =>
                Spreading * own[Math.Max(r, c) * n + Math.Min(r, c)] + (r == c ? attempt.Noise[r] * attempt.Noise[r] : 0);
            var inverse = DenseMatrix.Create(n, n, At).Inverse();
            var slopes = attempt.Slopes.SubMatrix(0, n, 0, count);
            normal += slopes.TransposeThisAndMultiply(inverse * slopes);
            right += slopes.TransposeThisAndMultiply(inverse * attempt.Ends);
            for (var k = 0; k < count; k++)
                prior[k] += variances[k] / _attempts.Count;
        }
        // Before anything was seen a habit may be as large as the scatter.
        for (var k = 0; k < count; k++)
            normal[k, k] += prior[k] > 0 ? 1 / prior[k] : 1;
        var covariance = normal.Inverse();
        var habits = covariance * right;
        Range90 Of(int k)
        {
            var half = Belief.Ninety * Math.Sqrt(covariance[k, k]);
            return new(habits[k], habits[k] - half, habits[k] + half);
        }
        return new(Of(ErrorPart.Turn), Of(ErrorPart.Pace), Of(ErrorPart.Side), Of(ErrorPart.Height));
    }

    /// <summary>The variance of Student's t over that of an ordinary stroke, roughly, for the usual evenness.</summary>
    internal const double Spreading = 1.5;
}
