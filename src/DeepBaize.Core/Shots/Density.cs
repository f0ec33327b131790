using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>
/// How densely points lie on the table, smoothed on a grid, and the outlines of its densest areas: one, or several where outcomes split.
/// </summary>
public sealed class Density
{
    private const double Cell = 0.015;
    // Cells beyond the noses, for balls in a pocket's mouth and for the smoothing.
    private const int Rim = 10;
    private readonly int _columns = (int)Math.Ceiling(Length / Cell) + 2 * Rim, _rows = (int)Math.Ceiling(Width / Cell) + 2 * Rim;
    private readonly double[] _value;
    private readonly double[] _atPoints;

    /// <param name="points">m.</param>
    public Density(IReadOnlyList<PathPoint> points)
    {
        var counts = new double[_columns * _rows];
        foreach (var p in points)
        {
            foreach (var (node, share) in Around(p)) counts[node] += share;
        }
        // Smoothed by a Gaussian of one cell: 15 mm, little against a ball, so that a split stays a split.
        double[] kernel = [0.0545, 0.2442, 0.4026, 0.2442, 0.0545];
        _value = Smooth(Smooth(counts, kernel, 1), kernel, _columns);
        _atPoints = [.. points.Select(p => Around(p).Sum(n => n.Share * _value[n.Node])).Order()];
    }

    /// <summary>The four nodes around a point with its share in each.</summary>
    private (int Node, double Share)[] Around(PathPoint p)
    {
        var (x, y) = (p.X / Cell + Rim, p.Y / Cell + Rim);
        var (i, j) = ((int)Math.Floor(x), (int)Math.Floor(y));
        var (fx, fy) = (x - i, y - j);
        var node = j * _columns + i;
        return [(node, (1 - fx) * (1 - fy)), (node + 1, fx * (1 - fy)), (node + _columns, (1 - fx) * fy), (node + _columns + 1, fx * fy)];
    }

    private static double[] Smooth(double[] from, double[] kernel, int stride)
    {
        var to = new double[from.Length];
        for (var i = 2 * stride; i < from.Length - 2 * stride; i++)
            for (var k = -2; k <= 2; k++) to[i] += kernel[k + 2] * from[i + k * stride];
        return to;
    }

    /// <summary>Closed outlines of the smallest area that holds this share of the points; empty if there are none.</summary>
    public IReadOnlyList<IReadOnlyList<PathPoint>> Outline(double share)
    {
        if (_atPoints.Length == 0) return [];
        // The density that this share of the points reaches or exceeds (Hyndman, The American Statistician 50 (1996) 120, from memory).
        return Trace(_atPoints[(int)((1 - share) * (_atPoints.Length - 1))]);
    }

    /// <summary>Marching squares: every cell that the level crosses gives a piece from edge to edge, and the pieces are joined.</summary>
    private List<IReadOnlyList<PathPoint>> Trace(double level)
    {
        // A piece is keyed by the edge it leaves from: 2·node for the edge to the right of a node, 2·node + 1 for the one above.
        var pieces = new Dictionary<int, int>();
        for (var j = 0; j + 1 < _rows; j++)
            for (var i = 0; i + 1 < _columns; i++)
            {
                var node = j * _columns + i;
                var (a, b, c, d) = (_value[node] >= level, _value[node + 1] >= level, _value[node + _columns + 1] >= level, _value[node + _columns] >= level);
                var code = (a ? 1 : 0) + (b ? 2 : 0) + (c ? 4 : 0) + (d ? 8 : 0);
                if (code is 0 or 15) continue;
                var (bottom, right, top, left) = (2 * node, 2 * (node + 1) + 1, 2 * (node + _columns), 2 * node + 1);
                // The dense side lies on the left of each piece.
                switch (code)
                {
                    case 1: pieces[bottom] = left; break;
                    case 2: pieces[right] = bottom; break;
                    case 3: pieces[right] = left; break;
                    case 4: pieces[top] = right; break;
                    case 5: pieces[bottom] = left; pieces[top] = right; break;
                    case 6: pieces[top] = bottom; break;
                    case 7: pieces[top] = left; break;
                    case 8: pieces[left] = top; break;
                    case 9: pieces[bottom] = top; break;
                    case 10: pieces[right] = bottom; pieces[left] = top; break;
                    case 11: pieces[right] = top; break;
                    case 12: pieces[left] = right; break;
                    case 13: pieces[bottom] = right; break;
                    default: pieces[left] = bottom; break;
                }
            }
        var outlines = new List<IReadOnlyList<PathPoint>>();
        while (pieces.Count > 0)
        {
            var outline = new List<PathPoint>();
            var edge = pieces.Keys.First();
            while (pieces.Remove(edge, out var next))
            {
                outline.Add(At(edge, level));
                edge = next;
            }
            if (outline.Count > 2) outlines.Add(outline);
        }
        return outlines;
    }

    private PathPoint At(int edge, double level)
    {
        var node = edge / 2;
        var other = edge % 2 == 0 ? node + 1 : node + _columns;
        var share = (level - _value[node]) / (_value[other] - _value[node]);
        var (i, j) = (node % _columns, node / _columns);
        return new(0, (i - Rim + (edge % 2 == 0 ? share : 0)) * Cell, (j - Rim + (edge % 2 == 1 ? share : 0)) * Cell);
    }
}
