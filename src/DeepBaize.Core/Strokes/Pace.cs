using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>How hard the cue is swung, 1 to 10. Common practice, no source; a player's own scale may differ.</summary>
public static class Pace
{
    public const double Slowest = 1,
        Hardest = 10;
    private const double SlowestCueSpeed = 0.40,
        Step = 1.375;

    /// <summary>m/s.</summary>
    public static double CueSpeed(double pace) => SlowestCueSpeed * Math.Pow(Step, pace - 1);

    /// <summary>The pace of a cue's speed, m/s: the inverse of <see cref="CueSpeed"/>.</summary>
    public static double OfCueSpeed(double cueSpeed) => 1 + Math.Log(cueSpeed / SlowestCueSpeed) / Math.Log(Step);

    /// <summary>How far a plain ball struck from the baulk cushion straight up an empty table would run, in table lengths.</summary>
    public static double TableLengths(double cueSpeed, TableShape shape)
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
