namespace DeepBaize.Core.Geometry;

/// <summary>
/// How densely points lie on the table, smoothed on a grid, and the outlines of its densest areas: one, or several where outcomes split.
/// </summary>
public sealed class Density
{
    private const double Fine = 0.015;
    private readonly double _cell;
    private readonly Vec2 _corner;

    // Cells beyond the noses, for balls in a pocket's mouth and for the smoothing.
    private const int Rim = 10;
    private readonly int _columns,
        _rows;
    private readonly double[] _value;
    private readonly double[] _atPoints;

    /// <param name="points">m.</param>
    /// <param name="area">Where they lie, but for a few cells beyond, m.</param>
    /// <param name="cell">Of the grid, m: wider for fewer points, or each would be an island.</param>
    public Density(IReadOnlyList<Vec2> points, Box area, double cell = Fine)
    {
        (_cell, _corner) = (cell, new(area.MinX, area.MinY));
        (_columns, _rows) = (
            (int)Math.Ceiling((area.MaxX - area.MinX) / cell) + 2 * Rim,
            (int)Math.Ceiling((area.MaxY - area.MinY) / cell) + 2 * Rim
        );
        var counts = new double[_columns * _rows];
        foreach (var p in points)
        {
            foreach (var (node, share) in Around(p))
                counts[node] += share;
        }
        // Smoothed by a Gaussian of one cell: at 15 mm little against a ball, so that a split stays a split.
        double[] kernel = [0.0545, 0.2442, 0.4026, 0.2442, 0.0545];
        _value = Smooth(Smooth(counts, kernel, 1), kernel, _columns);
        _atPoints = [.. points.Select(p => Around(p).Sum(n => n.Share * _value[n.Node])).Order()];
    }

    /// <summary>The four nodes around a point with its share in each.</summary>
    private (int Node, double Share)[] Around(Vec2 p)
    {
        var (x, y) = ((p.X - _corner.X) / _cell + Rim, (p.Y - _corner.Y) / _cell + Rim);
        var (i, j) = ((int)Math.Floor(x), (int)Math.Floor(y));
        var (fx, fy) = (x - i, y - j);
        var node = j * _columns + i;
        return [(node, (1 - fx) * (1 - fy)), (node + 1, fx * (1 - fy)), (node + _columns, (1 - fx) * fy), (node + _columns + 1, fx * fy)];
    }

    private static double[] Smooth(double[] from, double[] kernel, int stride)
    {
        var to = new double[from.Length];
        for (var i = 2 * stride; i < from.Length - 2 * stride; i++)
            for (var k = -2; k <= 2; k++)
                to[i] += kernel[k + 2] * from[i + k * stride];
        return to;
    }

    /// <summary>Closed outlines of the smallest area that holds this share of the points; empty if there are none.</summary>
    public IReadOnlyList<IReadOnlyList<Vec2>> Outline(double share)
    {
        if (_atPoints.Length == 0)
            return [];
        // The density that this share of the points reaches or exceeds (Hyndman, The American Statistician 50 (1996) 120, from memory).
        return Contours.Trace(_value, _columns, _atPoints[(int)((1 - share) * (_atPoints.Length - 1))], (i, j) =>
            _corner + new Vec2((i - Rim) * _cell, (j - Rim) * _cell)
        );
    }
}
