using System.Collections.Concurrent;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// How hard the cue is swung, 1 to 10: 3 is a gentle roll-in, 5 a medium shot, 10 all there is. Common practice, no source; a player's own
/// scale may differ. What searches lay out they lay out in speed, which no scale changes.
/// </summary>
public static class Pace
{
    /// <summary>Bounds of the scale.</summary>
    public const double Slowest = 1,
        Hardest = 10;

    /// <summary>A medium shot: where a pace is needed and none is asked for.</summary>
    public const double Medium = 3.5;

    private const double CueSpeedAtOne = 0.24,
        Power = 1.47;

    /// <summary>m/s.</summary>
    public static double CueSpeed(double pace) => CueSpeedAtOne * Math.Pow(pace, Power);

    /// <summary>The pace of a cue's speed, m/s: the inverse of <see cref="CueSpeed"/>.</summary>
    public static double OfCueSpeed(double cueSpeed) => Math.Pow(cueSpeed / CueSpeedAtOne, 1 / Power);

    /// <summary>
    /// The pace now of one on the scale that was there first, 0.40·1.375^(pace − 1) m/s: what was written down then keeps its speed.
    /// </summary>
    public static double OfFirstScale(double pace) => Math.Clamp(OfCueSpeed(0.40 * Math.Pow(1.375, pace - 1)), Slowest, Hardest);

    /// <summary>How many times as fast the cue is at the harder of two paces as at the softer.</summary>
    public static double Ratio(double one, double other) => CueSpeed(Math.Max(one, other)) / CueSpeed(Math.Min(one, other));

    /// <summary>Paces from one speed of the cue to another, m/s, each so many times as fast as the one before.</summary>
    public static IEnumerable<double> Ladder(double softest, double hardest, double ratio)
    {
        for (var speed = softest; speed <= hardest * (1 + 1e-9); speed *= ratio)
            yield return OfCueSpeed(speed);
    }

    private const int LengthsKept = 1000;
    private static readonly ConcurrentDictionary<(Conditions, double), double> Lengths = new();

    /// <summary>
    /// Returns how far a plain ball struck from the baulk cushion straight up an empty table runs, in table lengths. Cached: a drag asks
    /// for the same few speeds again and again.
    /// </summary>
    /// <param name="cueSpeed">m/s.</param>
    public static double TableLengths(double cueSpeed, TableShape shape)
    {
        if (Lengths.Count > LengthsKept)
            Lengths.Clear();
        return Lengths.GetOrAdd((shape.Conditions, cueSpeed), _ => PlayedLengths(cueSpeed, shape));
    }

    private static double PlayedLengths(double cueSpeed, TableShape shape)
    {
        var simulator = new Simulator(shape);
        simulator.Place([new(Ball.White, BallRadius + 0.01, Width / 2)]);
        var record = new ShotRecord();
        simulator.Play(Strike.Create(0, cueSpeed, 0, 0, 0), record);
        // Straight up and down: each piece keeps to one line, and turns only at a cushion, where a new piece begins, or by its spin.
        return record.Pieces.Sum(Run) / Length;
    }

    private static double Run(PathPiece piece)
    {
        var t = piece.End - piece.Start;
        var turn = piece.Vx * piece.Ax < 0 ? -piece.Vx / piece.Ax : double.PositiveInfinity;
        if (turn >= t)
            return Math.Abs(piece.To.X - piece.X);
        var there = piece.At(piece.Start + turn).X;
        return Math.Abs(there - piece.X) + Math.Abs(piece.To.X - there);
    }
}
