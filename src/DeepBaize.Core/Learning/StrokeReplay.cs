using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using MathNet.Numerics.LinearAlgebra;

namespace DeepBaize.Core.Learning;

/// <summary>
/// The parts of one stroke's error that its end can tell of: direction (with sighting and allowance), pace, side and height, and, where the
/// white must meet a cushion before its first ball, the turn of its rebound. In standard deviations of the player, unless said otherwise.
/// </summary>
public static class ErrorPart
{
    /// <summary>Places of the parts in a vector of errors.</summary>
    public const int Turn = 0,
        Pace = 1,
        Side = 2,
        Height = 3,
        Rebound = 4;

    /// <summary>Number of parts without and with a rebound.</summary>
    public const int Usual = 4,
        Most = 5;

    /// <summary>Two parts that move the ends so nearly alike cannot be told apart (cosine).</summary>
    private const double Alike = 0.97;

    /// <summary>Pairs of the usual parts that leave the same ends.</summary>
    /// <param name="information">What the ends tell of the parts, without what was believed before: slopes squared, weighed.</param>
    public static IReadOnlyList<(int One, int Other)> NotApart(Matrix<double> information)
    {
        var pairs = new List<(int, int)>();
        for (var a = 0; a < Usual; a++)
            for (var b = a + 1; b < Usual; b++)
            {
                var size = Math.Sqrt(information[a, a] * information[b, b]);
                if (size > 0 && Math.Abs(information[a, b]) > Alike * size)
                    pairs.Add((a, b));
            }
        return pairs;
    }

    /// <summary>Standard deviations of a scatter's parts: degrees, share of the speed, fractions of the radius twice, degrees.</summary>
    public static double[] Deviations(Scatter scatter, int cushions)
    {
        // A player without any error of a part could not be told apart from a stroke that was off by it.
        double[] usual =
        [
            Math.Max(scatter.TurnDegrees, 0.002),
            Math.Max(scatter.Pace, 0.002),
            Math.Max(scatter.Side, 0.001),
            Math.Max(scatter.Height, 0.002),
        ];
        return cushions > 0 ? [.. usual, Math.Max(scatter.CushionDegrees, 0.02) * Math.Sqrt(cushions)] : usual;
    }
}

/// <summary>Plays an observed stroke again with errors of one's choosing, and compares where the balls end with what was seen.</summary>
/// <remarks>One instance serves one thread.</remarks>
internal sealed class StrokeReplay
{
    /// <summary>What a ball is off more, m, where it was seen on the table and runs into a pocket, or the other way round.</summary>
    private const double WrongEnd = 0.05;

    /// <summary>
    /// By how much the logarithm of the likelihood falls where a ball is met and none was seen to be, a pot missed otherwise, and the like.
    /// </summary>
    private const double WrongContact = 12;

    private const double Radians = Math.PI / 180;

    private readonly ObservedStroke _observed;
    private readonly Simulator _simulator;
    private readonly ShotRecord _record = new();
    private readonly Strike _meant;

    private readonly TableShape _shape;

    /// <summary>Of a pot that was seen to be missed.</summary>
    private readonly Cut? _missed;

    public StrokeReplay(ObservedStroke observed, TableShape shape)
        : this(observed, shape, new(shape)) { }

    /// <param name="simulator">Made for the table of the shape; used up by each stroke.</param>
    public StrokeReplay(ObservedStroke observed, TableShape shape, Simulator simulator) =>
        (_observed, _simulator, _meant, _shape, _missed) = (
            observed,
            simulator,
            observed.Meant.ToStrike(),
            shape,
            observed is { Seen.Missed: not null, Pot: { } pot } ? Cut.Of(observed.Layout, pot, shape) : null
        );

    /// <summary>Plays the stroke.</summary>
    /// <param name="error">In absolute units, as <see cref="ErrorPart"/> orders them.</param>
    /// <returns>How far each ball seen is from where it was seen, m: x and y in turn; with their standard deviations.</returns>
    public Miss Play(ReadOnlySpan<double> error)
    {
        var (side, height) = (error[ErrorPart.Side], error[ErrorPart.Height]);
        var strike = _meant.With(error[ErrorPart.Turn], Math.Max(0.02, 1 + error[ErrorPart.Pace]));
        // What would leave the miscue circle is taken at its edge: a miscue is no small error of these parts.
        var (a, b) = (_meant.Side + side, _meant.Height + height);
        var out2 = (a * a + b * b) / (Strike.MiscueLimit * Strike.MiscueLimit);
        if (out2 > 1)
            (side, height) = (a / Math.Sqrt(out2) - _meant.Side, b / Math.Sqrt(out2) - _meant.Height);
        _simulator.Place(_observed.Layout.AsSpan());
        _simulator.ReboundError = error.Length > ErrorPart.Rebound ? ReboundError.OfFirst(error[ErrorPart.Rebound]) : default;
        _simulator.Release([(0, strike.Launch(_simulator.Conditions, side, height))], _record);
        return Compare();
    }

    private Miss Compare()
    {
        var seen = _observed.Seen;
        var (offs, deviations) = (new double[2 * seen.Balls.Count], new double[2 * seen.Balls.Count]);
        for (var i = 0; i < seen.Balls.Count; i++)
        {
            var ball = seen.Balls[i];
            var off = OffOf(ball);
            (offs[2 * i], offs[2 * i + 1]) = (off.X, off.Y);
            var rebounds = ReboundVariance(ball.Slot);
            deviations[2 * i] = deviations[2 * i + 1] = Math.Sqrt(seen.Doubt * seen.Doubt + rebounds);
        }
        var isContactWrong = seen.MetABall is { } met && met != _record.Events.Exists(e => e.IsOfWhiteWithBall);
        return new(offs, deviations, isContactWrong || IsMissWrong() ? -WrongContact : 0);
    }

    /// <summary>Whether the pot goes in, or is missed on the other side than was seen.</summary>
    private bool IsMissWrong()
    {
        if (_missed is not { } cut)
            return false;
        var side = PotMiss.Of(_record, _simulator, cut, _shape)?.Side;
        // Of a straight pot nobody can tell thick from thin.
        return side != _observed.Seen.Missed && !(side is MissSide.Left or MissSide.Right && IsThickOrThin(_observed.Seen.Missed));
    }

    private static bool IsThickOrThin(MissSide? side) => side is MissSide.Thick or MissSide.Thin;

    private Vec2 OffOf(SeenBall ball)
    {
        var at = _simulator.At(ball.Slot);
        if (ball.IsOnTable)
            return _simulator.IsOnTable(ball.Slot) ? at - ball.At : Farther(at - ball.At);
        if (ball.Pocket is { } pocket)
            return _simulator.PocketOf(ball.Slot) == pocket ? default : Farther(at - _shape.PocketShapes[(int)pocket].Drop.Centre);
        return _simulator.IsOff(ball.Slot) ? default : new(1, 1);
    }

    private static Vec2 Farther(Vec2 off) => off.Length < 1e-9 ? new(WrongEnd, 0) : (1 + WrongEnd / off.Length) * off;

    /// <summary>No nose is alike everywhere: the variance of a ball's end that comes from its rebounds, m².</summary>
    private double ReboundVariance(int slot)
    {
        var variance = 0.0;
        foreach (var e in _record.Events)
            if (e.Ball == slot && e.Kind == ShotEventKind.Cushion)
            {
                var way = 0.0;
                foreach (var piece in _record.Pieces)
                    if (piece.Ball == slot && piece.Start >= e.Time - 1e-9)
                        way += piece.From.DistanceTo(piece.To);
                variance += Math.Pow(ReboundError.TableDegrees * Radians * way, 2);
            }
        return variance;
    }
}

/// <summary>How far the balls of a replayed stroke end from where they were seen.</summary>
/// <param name="Offs">m, x and y of each ball in turn.</param>
/// <param name="Deviations">Standard deviation of each, m: the doubt of who looked, and uneven noses.</param>
/// <param name="Penalty">What else does not fit, as a logarithm of the likelihood.</param>
internal readonly record struct Miss(double[] Offs, double[] Deviations, double Penalty)
{
    /// <summary>Sum of the squares, each in its own standard deviation.</summary>
    public double Square
    {
        get
        {
            var sum = 0.0;
            for (var i = 0; i < Offs.Length; i++)
                sum += Math.Pow(Offs[i] / Deviations[i], 2);
            return sum;
        }
    }

    /// <summary>Logarithm of the density of what was seen, per square metre of each ball.</summary>
    public double LogLikelihood
    {
        get
        {
            var sum = Penalty;
            for (var i = 0; i < Offs.Length; i++)
                sum -= 0.5 * Math.Pow(Offs[i] / Deviations[i], 2) + Math.Log(Deviations[i]) + LogRootTwoPi;
            return sum;
        }
    }

    /// <summary>How badly it fits where nothing fits yet: grows slowly with each ball's distance.</summary>
    public double Roughly(double tolerance)
    {
        var sum = -Penalty;
        for (var i = 0; i < Offs.Length; i += 2)
            sum += Math.Log(1 + (Offs[i] * Offs[i] + Offs[i + 1] * Offs[i + 1]) / (tolerance * tolerance));
        return sum;
    }

    /// <summary>Mean distance of the balls, m.</summary>
    public double Distance
    {
        get
        {
            var sum = 0.0;
            for (var i = 0; i < Offs.Length; i += 2)
                sum += Math.Sqrt(Offs[i] * Offs[i] + Offs[i + 1] * Offs[i + 1]);
            return sum / Math.Max(1, Offs.Length / 2);
        }
    }

    private static readonly double LogRootTwoPi = 0.5 * Math.Log(2 * Math.PI);
}
