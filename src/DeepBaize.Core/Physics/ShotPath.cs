namespace DeepBaize.Core.Physics;

/// <summary>A point of a drawn path: seconds and metres.</summary>
public readonly record struct PathPoint(double Time, Vec2 At)
{
    /// <summary>x, m.</summary>
    public double X => At.X;

    /// <summary>y, m.</summary>
    public double Y => At.Y;
}

/// <summary>Turns the exact pieces of a shot into points to draw and play back.</summary>
public static class ShotPath
{
    /// <summary>Most that a straight line in time between two points leaves the true motion by, m.</summary>
    public const double Tolerance = 0.0004;

    /// <summary>Tolerance for drawn paths, m: a fifth of a pixel of a plan that fills a screen.</summary>
    public const double Drawn = 0.001;

    /// <summary>For each slot the points of its path in order of time; empty for a ball that never moved.</summary>
    /// <param name="tolerance">Of the points, m.</param>
    public static IReadOnlyList<IReadOnlyList<PathPoint>> Points(ShotRecord record, int balls, double tolerance = Tolerance)
    {
        var paths = new List<PathPoint>[balls];
        for (var i = 0; i < balls; i++)
            paths[i] = [];
        foreach (var piece in record.Pieces)
        {
            var points = paths[piece.Ball];
            if (points.Count == 0)
                points.Add(new(piece.Start, piece.From));
            // A parabola leaves its chord by a·t²/8.
            var longest = Math.Sqrt(8 * tolerance / Math.Sqrt(piece.Ax * piece.Ax + piece.Ay * piece.Ay));
            var steps = Math.Max(1, (int)Math.Ceiling((piece.End - piece.Start) / longest));
            for (var s = 1; s <= steps; s++)
            {
                var time = s == steps ? piece.End : piece.Start + (piece.End - piece.Start) * s / steps;
                Add(points, new(time, piece.At(time)), tolerance);
            }
        }
        return paths;
    }

    /// <summary>
    /// A ball that is jostled in a pack hardly moves between contacts: the last of points closer than the tolerance stands for them.
    /// </summary>
    private static void Add(List<PathPoint> points, in PathPoint next, double tolerance)
    {
        static double Square(in PathPoint a, in PathPoint b) => (a.At - b.At).SquaredLength;
        var near = tolerance * tolerance / 4;
        if (points.Count > 1 && Square(points[^1], next) < near && Square(points[^2], points[^1]) < near)
            points[^1] = next;
        else
            points.Add(next);
    }
}
