using DeepBaize.Core.Physics;

namespace DeepBaize.Core.Shots;

/// <summary>A point of a drawn path: seconds and metres.</summary>
public readonly record struct PathPoint(double Time, double X, double Y);

/// <summary>Turns the exact pieces of a shot into points to draw and play back.</summary>
public static class ShotPath
{
    /// <summary>Most that a straight line in time between two points leaves the true motion by, m.</summary>
    public const double Tolerance = 0.0004;

    /// <summary>For each slot the points of its path in order of time; empty for a ball that never moved.</summary>
    public static IReadOnlyList<IReadOnlyList<PathPoint>> Points(ShotRecord record, int balls)
    {
        var paths = new List<PathPoint>[balls];
        for (var i = 0; i < balls; i++) paths[i] = [];
        foreach (var piece in record.Pieces)
        {
            var points = paths[piece.Ball];
            if (points.Count == 0) points.Add(new(piece.Start, piece.X, piece.Y));
            // A parabola leaves its chord by a·t²/8.
            var longest = Math.Sqrt(8 * Tolerance / Math.Sqrt(piece.Ax * piece.Ax + piece.Ay * piece.Ay));
            var steps = Math.Max(1, (int)Math.Ceiling((piece.End - piece.Start) / longest));
            for (var s = 1; s <= steps; s++)
            {
                var time = s == steps ? piece.End : piece.Start + (piece.End - piece.Start) * s / steps;
                var (x, y) = piece.At(time);
                points.Add(new(time, x, y));
            }
        }
        return paths;
    }
}
