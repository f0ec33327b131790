using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearAlgebra.Double;

namespace DeepBaize.Core.Learning;

/// <summary>What is believed of the figures of a table, balls and cue: normal in the figures as they are learnt.</summary>
/// <param name="Base">The conditions that hold for everything else.</param>
/// <param name="Mean">Of each parameter, as it is learnt.</param>
public sealed record Belief(Conditions Base, IReadOnlyList<Parameter> Parameters, Vector<double> Mean, Matrix<double> Covariance)
{
    /// <summary>Standard deviations that 90 of 100 lie within.</summary>
    internal const double Ninety = 1.6449;

    /// <summary>What is believed before anything was seen.</summary>
    public static Belief Before(Conditions conditions, IReadOnlyList<Parameter> parameters) =>
        new(
            conditions,
            parameters,
            DenseVector.Create(parameters.Count, i => parameters[i].Of(conditions)),
            DenseMatrix.CreateDiagonal(parameters.Count, parameters.Count, i => parameters[i].Doubt * parameters[i].Doubt)
        );

    /// <summary>The likeliest conditions.</summary>
    public Conditions Conditions => With(Mean);

    /// <summary>The conditions with these figures, as they are learnt.</summary>
    public Conditions With(Vector<double> learnt)
    {
        var conditions = Base;
        for (var i = 0; i < Parameters.Count; i++)
            conditions = Parameters[i].Set(conditions, learnt[i]);
        // A slope on which balls would roll off by themselves does not exist.
        var most = 0.9 * conditions.RollingFriction * conditions.Gravity;
        if (conditions.Drift.Length is var drift && drift > most)
            conditions = conditions with
            {
                DriftAlong = most / drift * conditions.DriftAlong,
                DriftAcross = most / drift * conditions.DriftAcross,
            };
        return conditions;
    }

    /// <summary>A parameter's figure with the interval that holds it in 90 of 100 cases.</summary>
    public Range90 RangeOf(int i)
    {
        var half = Ninety * Math.Sqrt(Covariance[i, i]);
        var p = Parameters[i];
        return new(p.Value(Mean[i]), p.Value(Mean[i] - half), p.Value(Mean[i] + half));
    }

    /// <summary>By how much less is in doubt than before anything was seen, 0–1: near 0 the trials say nothing about it.</summary>
    public double Narrowed(int i) => 1 - Math.Min(1, Math.Sqrt(Covariance[i, i]) / Parameters[i].Doubt);
}

/// <summary>What trials teach of a table.</summary>
/// <param name="Belief">After them.</param>
/// <param name="MissBefore">How far from where they were seen the balls end in the trials as meant, on the average, before; m.</param>
/// <param name="MissAfter">After, m.</param>
/// <param name="Held">Of each trial, whether its white stopped in the 90 % area that the other trials predict.</param>
/// <param name="Strange">Trials that do not fit, by their place in the list.</param>
public sealed record TableLearnt(Belief Belief, double MissBefore, double MissAfter, IReadOnlyList<bool> Held, IReadOnlyList<int> Strange);

/// <summary>
/// Learns figures of a table from strokes whose own errors are not known: both together by Levenberg–Marquardt, the strokes' errors
/// eliminated trial by trial (Schur's complement). The covariance is that of the slopes at the end (Laplace's approximation).
/// </summary>
public sealed class TableFit
{
    /// <summary>Tables drawn to begin with.</summary>
    private const int Screened = 48;

    /// <summary>Errors of one stroke drawn when they are looked for anew.</summary>
    private const int ScreenedErrors = 64;

    /// <summary>Bounds on the rounds of a descent, on how often the strokes' own errors are looked for anew, and on starts.</summary>
    private const int Rounds = 24,
        Reconsiderations = 2,
        MostStarts = 3,
        Hops = 5;

    /// <summary>
    /// Slopes at one place, and values that hang on single contacts, say more than is known: evidence counts for a share, and covariances
    /// for more, the more the more strokes there are, so that intervals hold the truth as often as they say (docs/learning.md).
    /// </summary>
    private const double Caution = 2,
        LeastWidening = 1.3,
        FullyTrusted = 10;

    private double Widening => LeastWidening * Math.Max(1, Math.Pow(_trials.Count / FullyTrusted, 2));

    /// <summary>Of a hop, in standard deviations.</summary>
    private const double HopLength = 2;

    /// <summary>Step of a slope, in prior standard deviations of a figure.</summary>
    private const double ParameterStep = 0.02;

    /// <summary>A trial whose ends lie farther off than this, in standard deviations, counts for less and less.</summary>
    private const double Freedom = 4;

    /// <summary>Of a trial's chi-squared above which it is told as strange, per degree of freedom.</summary>
    private const double Strange = 9;

    private static readonly ErrorStream Draws = ErrorStream.Named("table fit");

    private readonly IReadOnlyList<ObservedStroke> _trials;
    private readonly Belief _before;
    private readonly Workers _workers;
    private readonly double[][] _deviations;

    private TableFit(IReadOnlyList<ObservedStroke> trials, Belief before, Skill skill, Workers workers)
    {
        (_trials, _before, _workers) = (trials, before, workers);
        var shape = new TableShape(before.Conditions);
        _deviations =
        [
            .. workers.InParallel(trials.Count, i => trials[i].DeviationsOf(skill, shape)),
        ];
    }

    /// <summary>Returns what is believed after the trials.</summary>
    /// <param name="before">What was believed before.</param>
    /// <param name="skill">The player's, who made the trials.</param>
    public static TableLearnt Of(IReadOnlyList<ObservedStroke> trials, Belief before, Skill skill, Workers workers) =>
        new TableFit(trials, before, skill, workers).Run();

    /// <summary>Where the search is: the figures, and each trial's own error in standard deviations.</summary>
    private sealed record State(Vector<double> Figures, double[][] Errors, Miss[] Misses, double Value);

    /// <summary>What a trial adds to the normal equations of the figures, its own error eliminated.</summary>
    private sealed record Piece(Matrix<double> Normal, Vector<double> Gradient, Matrix<double> Back, Vector<double> Own);

    /// <summary>A place where the search has come to rest, and what its slopes say of the figures there.</summary>
    /// <param name="Evidence">Logarithm of what is believed of all near it, but for a constant.</param>
    private sealed record Rest(State State, Matrix<double> Covariance, double Evidence);

    private TableLearnt Run()
    {
        var rests = new List<Rest>();
        foreach (var start in Starts())
            rests.Add(RestOf(start));
        // Balls that are just met or just missed make a rugged ground: from the best place it is left and searched again.
        for (var hop = 0; hop < Hops; hop++)
        {
            var best = rests.MaxBy(r => r.State.Value)!;
            rests.Add(RestOf(best.State.Figures + HopLength * Drawn(best.Covariance, hop, Draws.Part(99))));
        }
        return Told(rests);
    }

    private Rest RestOf(Vector<double> start)
    {
        var state = Descend(Reconsidered(StateAt(start, [.. _deviations.Select(d => new double[d.Length])])));
        var covariance = Pieces(state, isLast: true).Aggregate(_before.Covariance.Inverse(), (sum, p) => sum + p.Normal).Inverse();
        return new(state, covariance, state.Value + 0.5 * Math.Log(covariance.Determinant()));
    }

    /// <summary>All places together, each with its weight: mean and covariance of the mixture.</summary>
    private TableLearnt Told(List<Rest> rests)
    {
        var distinct = new List<Rest>();
        foreach (var rest in rests.OrderByDescending(r => r.State.Value))
            if (distinct.All(d => !IsSame(d, rest)))
                distinct.Add(rest);
        var most = distinct.Max(d => d.Evidence);
        var weights = distinct.Select(d => Math.Exp((d.Evidence - most) / Caution)).ToList();
        var sum = weights.Sum();
        var mean = distinct.Zip(weights, (d, w) => w / sum * d.State.Figures).Aggregate((a, b) => a + b);
        var covariance = distinct
            .Zip(weights, (d, w) => w / sum * (Widening * d.Covariance + (d.State.Figures - mean).OuterProduct(d.State.Figures - mean)))
            .Aggregate((a, b) => a + b);
        var best = distinct[0].State;
        return new(
            _before with
            {
                Mean = mean,
                Covariance = covariance,
            },
            MissBefore: MeanMiss(_before.Mean),
            MissAfter: MeanMiss(mean),
            Held: HeldOut(best, mean, covariance),
            [.. Enumerable.Range(0, _trials.Count).Where(i => ChiSquared(best, i) > Strange * best.Misses[i].Offs.Length)]
        );

        static bool IsSame(Rest one, Rest other)
        {
            var off = one.State.Figures - other.State.Figures;
            return Enumerable.Range(0, off.Count).All(k => Math.Abs(off[k]) < 0.3 * Math.Sqrt(one.Covariance[k, k]));
        }
    }

    /// <summary>
    /// Predicts each trial from the others, by taking what it adds out of the normal equations again; returns which whites stopped in their
    /// 90 % area.
    /// </summary>
    private List<bool> HeldOut(State best, Vector<double> mean, Matrix<double> covariance)
    {
        var (pieces, precision) = (Pieces(best, isLast: true), covariance.Inverse());
        return _workers.InParallel(
            _trials.Count,
            i =>
            {
                var trial = _trials[i];
                var white = trial.Seen.Balls.ToList().FindIndex(b => b.Slot == 0);
                if (white < 0)
                    return true;
                // Never wider than before anything was seen.
                var without = (precision - pieces[i].Normal + 0.05 * _before.Covariance.Inverse()).Inverse();
                var figures = mean + without * pieces[i].Gradient;
                var (none, nearby) = (new double[_deviations[i].Length], new Nearby(_before, figures));
                var fit = nearby.FitOf(trial, _deviations[i]);
                var miss = fit.Play(none);
                var (byFigure, byError) = (nearby.Slopes(trial, _deviations[i], none, miss), fit.Slopes(none));
                var spread = byFigure * without * byFigure.Transpose() + byError * byError.Transpose();
                var area = spread.SubMatrix(2 * white, 2, 2 * white, 2);
                area += DenseMatrix.CreateDiagonal(2, 2, k => miss.Deviations[2 * white + k] * miss.Deviations[2 * white + k]);
                var off = DenseVector.OfArray([miss.Offs[2 * white], miss.Offs[2 * white + 1]]);
                return off.DotProduct(area.Inverse() * off) < NinetyOfTwo;
            }
        );
    }

    /// <summary>
    /// What 90 of 100 ends lie within, as the square of a distance in ordinary deviations: twice the F distribution's quantile for two
    /// coordinates and the usual evenness, since now and then everything is off at once.
    /// </summary>
    private static readonly double NinetyOfTwo = 2 * FisherSnedecor.InvCDF(2, Skill.UsualEvenness, 0.9);

    /// <summary>Levenberg–Marquardt, with the strokes' own errors looked for anew in between.</summary>
    private State Descend(State state)
    {
        for (var again = 0; again < Reconsiderations; again++)
        {
            var value = state.Value;
            state = Reconsidered(Minimised(state));
            if (state.Value - value < 0.5)
                break;
        }
        return Minimised(state);
    }

    private State Minimised(State state)
    {
        var prior = _before.Covariance.Inverse();
        var damping = 1e-3;
        List<Piece>? pieces = null;
        for (var round = 0; round < Rounds; round++)
        {
            pieces ??= Pieces(state);
            var normal = pieces.Aggregate(prior, (sum, p) => sum + p.Normal);
            var gradient = pieces.Aggregate(prior * (state.Figures - _before.Mean), (sum, p) => sum + p.Gradient);
            var damped = normal + damping * Matrix<double>.Build.DenseOfDiagonalVector(normal.Diagonal());
            var next = Stepped(state, -damped.Cholesky().Solve(gradient), pieces);
            if (next.Value > state.Value)
            {
                var isDone = next.Value - state.Value < 1e-3;
                (state, damping, pieces) = (next, Math.Max(1e-5, damping / 8), null);
                if (isDone)
                    break;
            }
            else if ((damping *= 10) > 1e5)
                break;
        }
        return state;
    }

    private static double ChiSquared(State state, int i) => state.Misses[i].Square + state.Errors[i].Sum(z => z * z);

    /// <summary>The best of some tables drawn from what is believed, with the trials as meant; the best first.</summary>
    private List<Vector<double>> Starts()
    {
        var candidates = new List<Vector<double>> { _before.Mean };
        for (var i = 0; i < Screened; i++)
            candidates.Add(_before.Mean + Drawn(_before.Covariance, i, Draws));
        var values = _workers.InParallel(candidates.Count, i => RoughValue(candidates[i]));
        return [.. candidates.Zip(values).OrderByDescending(c => c.Second).Take(MostStarts).Select(c => c.First)];
    }

    /// <summary>The i-th of some figures drawn evenly about none.</summary>
    private static Vector<double> Drawn(Matrix<double> covariance, int i, ErrorStream stream) =>
        covariance.Cholesky().Factor
        * DenseVector.Create(
            covariance.RowCount,
            k => ErrorFit.Normals(stream.Part(k / ErrorPart.Most), i, ErrorPart.Most)[k % ErrorPart.Most]
        );

    /// <summary>How well the trials as meant fit, with room for the player's own errors.</summary>
    private double RoughValue(Vector<double> figures)
    {
        var shape = new TableShape(_before.With(figures));
        var simulator = new Simulator(shape);
        var off = figures - _before.Mean;
        var sum = -0.5 * off.DotProduct(_before.Covariance.Cholesky().Solve(off));
        for (var i = 0; i < _trials.Count; i++)
            sum -= new StrokeReplay(_trials[i], shape, simulator).Play(new double[_deviations[i].Length]).Roughly(0.15);
        return sum;
    }

    private double MeanMiss(Vector<double> figures)
    {
        var shape = new TableShape(_before.With(figures));
        return _workers
            .InParallel(_trials.Count, i => new StrokeReplay(_trials[i], shape).Play(new double[_deviations[i].Length]).Distance)
            .Average();
    }

    private State StateAt(Vector<double> figures, double[][] errors)
    {
        var shape = new TableShape(_before.With(figures));
        var misses = _workers.InParallel(_trials.Count, i => new ErrorFit(new(_trials[i], shape), _deviations[i]).Play(errors[i]));
        var off = figures - _before.Mean;
        var value = -0.5 * off.DotProduct(_before.Covariance.Cholesky().Solve(off));
        for (var i = 0; i < _trials.Count; i++)
            value += TrialValue(misses[i], errors[i]);
        return new(figures, errors, [.. misses], value);
    }

    /// <summary>Student's t for both, so that a stroke that went quite wrong, or an eye that did, does not decide.</summary>
    private static double TrialValue(in Miss miss, double[] error)
    {
        var (off, own) = (miss.Square, error.Sum(z => z * z));
        return miss.Penalty
            - (Freedom + miss.Offs.Length) / 2 * Math.Log(1 + off / Freedom)
            - (Freedom + error.Length) / 2 * Math.Log(1 + own / Freedom);
    }

    /// <summary>Each trial's own error looked for anew, where another explains it better.</summary>
    private State Reconsidered(State state)
    {
        var shape = new TableShape(_before.With(state.Figures));
        var errors = _workers.InParallel(
            _trials.Count,
            i =>
            {
                var fit = new ErrorFit(new(_trials[i], shape), _deviations[i]);
                var spread = Enumerable.Repeat(1.3, _deviations[i].Length).ToArray();
                var found = fit.Screen(ScreenedErrors, 1).Take(2).Append(state.Errors[i]).Select(z => fit.Refine(z, spread));
                var best = found.MaxBy(m => TrialValue(m.Miss, m.Error))!;
                return TrialValue(best.Miss, best.Error) > TrialValue(state.Misses[i], state.Errors[i]) ? best.Error : state.Errors[i];
            }
        );
        return StateAt(state.Figures, [.. errors]);
    }

    /// <param name="isLast">Whether it is for the covariance, and not for a step.</param>
    private List<Piece> Pieces(State state, bool isLast = false)
    {
        var nearby = new Nearby(_before, state.Figures);
        return _workers.InParallel(
            _trials.Count,
            i =>
                PieceOf(
                    state.Misses[i],
                    state.Errors[i],
                    nearby.Slopes(_trials[i], _deviations[i], state.Errors[i], state.Misses[i]),
                    nearby.FitOf(_trials[i], _deviations[i]).Slopes(state.Errors[i]),
                    isLast
                )
        );
    }

    /// <summary>Tables with each figure a little larger and a little smaller.</summary>
    private sealed class Nearby
    {
        private readonly IReadOnlyList<Parameter> _parameters;
        private readonly TableShape _at;
        private readonly (TableShape Up, TableShape Down)[] _beside;

        public Nearby(Belief belief, Vector<double> figures)
        {
            _parameters = belief.Parameters;
            _at = new(belief.With(figures));
            _beside = new (TableShape, TableShape)[_parameters.Count];
            for (var k = 0; k < _parameters.Count; k++)
            {
                var by = DenseVector.Create(_parameters.Count, i => i == k ? ParameterStep * _parameters[k].Doubt : 0);
                _beside[k] = (new(belief.With(figures + by)), new(belief.With(figures - by)));
            }
        }

        public ErrorFit FitOf(ObservedStroke trial, double[] deviations) => new(new(trial, _at), deviations);

        /// <summary>Slopes of the balls' ends, m for a unit of each figure as it is learnt.</summary>
        public Matrix<double> Slopes(ObservedStroke trial, double[] deviations, double[] error, in Miss miss)
        {
            var slopes = DenseMatrix.Create(miss.Offs.Length, _parameters.Count, 0);
            for (var k = 0; k < _parameters.Count; k++)
            {
                var up = new ErrorFit(new(trial, _beside[k].Up), deviations).Play(error).Offs;
                var down = new ErrorFit(new(trial, _beside[k].Down), deviations).Play(error).Offs;
                ErrorFit.SetSlope(slopes, k, down, miss.Offs, up, ParameterStep * _parameters[k].Doubt);
            }
            return slopes;
        }
    }

    /// <summary>What a stroke by this player, played and seen as predicted, would tell of the figures: Fisher's information.</summary>
    internal static Matrix<double> Information(ObservedStroke predicted, Belief belief, Skill skill)
    {
        var shape = new TableShape(belief.Conditions);
        var deviations = predicted.DeviationsOf(skill, shape);
        var nearby = new Nearby(belief, belief.Mean);
        var fit = nearby.FitOf(predicted, deviations);
        var none = new double[deviations.Length];
        var miss = fit.Play(none);
        return PieceOf(miss, none, nearby.Slopes(predicted, deviations, none, miss), fit.Slopes(none), isLast: true).Normal;
    }

    /// <summary>Slopes of the ends of a stroke as it is meant, m for a unit of each figure as it is learnt.</summary>
    internal static Matrix<double> Slopes(ObservedStroke predicted, Belief belief)
    {
        var (nearby, deviations) = (new Nearby(belief, belief.Mean), new double[ErrorPart.Usual]);
        var miss = nearby.FitOf(predicted, deviations).Play(deviations);
        return nearby.Slopes(predicted, deviations, deviations, miss);
    }

    private static Piece PieceOf(in Miss miss, double[] z, Matrix<double> byFigure, Matrix<double> byError, bool isLast)
    {
        var (offs, deviations, rows, parts) = (miss.Offs, miss.Deviations, miss.Offs.Length, z.Length);
        var (off, own) = (miss.Square, z.Sum(v => v * v));
        var weight = Weight(off, rows, isLast);
        var ownWeight = Weight(own, parts, isLast);
        var w = Matrix<double>.Build.DenseOfDiagonalArray([.. deviations.Select(d => weight / (d * d))]);
        var r = DenseVector.OfArray(offs);
        var own2 = byError.TransposeThisAndMultiply(w * byError) + ownWeight * DenseMatrix.CreateIdentity(parts);
        var across = byFigure.TransposeThisAndMultiply(w * byError);
        var ownGradient = byError.TransposeThisAndMultiply(w * r) + ownWeight * DenseVector.OfArray(z);
        var inverse = own2.Inverse();
        var back = inverse * across.Transpose();
        return new(
            byFigure.TransposeThisAndMultiply(w * byFigure) - across * back,
            byFigure.TransposeThisAndMultiply(w * r) - across * (inverse * ownGradient),
            back,
            inverse * ownGradient
        );
    }

    /// <summary>
    /// Of one trial's ends or of its own error, in a step: what Student's t gives. For the covariance never more than that distribution
    /// tells of its place on the average: ends that a stroke's own error explains without a rest are no surer for it.
    /// </summary>
    private static double Weight(double square, int count, bool isLast)
    {
        var weight = (Freedom + count) / (Freedom + square);
        return isLast ? Math.Min(weight, (Freedom + count) / (Freedom + count + 2)) : weight;
    }

    private State Stepped(State state, Vector<double> step, List<Piece> pieces)
    {
        var errors = state.Errors.Select((z, i) => (Vector<double>)DenseVector.OfArray(z) - pieces[i].Own - pieces[i].Back * step);
        return StateAt(state.Figures + step, [.. errors.Select(e => e.ToArray())]);
    }
}
