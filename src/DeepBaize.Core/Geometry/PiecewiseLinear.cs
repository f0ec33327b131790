namespace DeepBaize.Core.Geometry;

/// <summary>A function given by points, straight between them and constant beyond the ends.</summary>
public static class PiecewiseLinear
{
    /// <param name="x">Where it is asked for.</param>
    /// <param name="points">In the order of their x, at least one.</param>
    public static double At(double x, ReadOnlySpan<(double X, double Y)> points)
    {
        if (x <= points[0].X)
            return points[0].Y;
        for (var i = 1; i < points.Length; i++)
            if (x < points[i].X)
                return points[i - 1].Y + (points[i].Y - points[i - 1].Y) * (x - points[i - 1].X) / (points[i].X - points[i - 1].X);
        return points[^1].Y;
    }
}
