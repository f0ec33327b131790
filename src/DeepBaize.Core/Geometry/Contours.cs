namespace DeepBaize.Core.Geometry;

/// <summary>Outlines of the areas of a grid that reach a level.</summary>
public static class Contours
{
    /// <summary>Marching squares: every cell that the level crosses gives a piece from edge to edge, and the pieces are joined.</summary>
    /// <param name="value">Row by row; the outermost must lie below the level, so that every outline is closed.</param>
    /// <param name="at">Where a place of the grid, in columns and rows, is on the table.</param>
    /// <returns>Closed polygons, the area on their left, holes the other way round.</returns>
    public static IReadOnlyList<IReadOnlyList<Vec2>> Trace(double[] value, int columns, double level, Func<double, double, Vec2> at)
    {
        // A piece is keyed by the edge it leaves from: 2·node for the edge to the right of a node, 2·node + 1 for the one above.
        var pieces = new Dictionary<int, int>();
        for (var j = 0; j + 1 < value.Length / columns; j++)
            for (var i = 0; i + 1 < columns; i++)
            {
                var node = j * columns + i;
                var (a, b, c, d) = (
                    value[node] >= level,
                    value[node + 1] >= level,
                    value[node + columns + 1] >= level,
                    value[node + columns] >= level
                );
                var code = (a ? 1 : 0) + (b ? 2 : 0) + (c ? 4 : 0) + (d ? 8 : 0);
                if (code is 0 or 15)
                    continue;
                var (bottom, right, top, left) = (2 * node, 2 * (node + 1) + 1, 2 * (node + columns), 2 * node + 1);
                // The inner side lies on the left of each piece.
                switch (code)
                {
                    case 1:
                        pieces[bottom] = left;
                        break;
                    case 2:
                        pieces[right] = bottom;
                        break;
                    case 3:
                        pieces[right] = left;
                        break;
                    case 4:
                        pieces[top] = right;
                        break;
                    case 5:
                        pieces[bottom] = left;
                        pieces[top] = right;
                        break;
                    case 6:
                        pieces[top] = bottom;
                        break;
                    case 7:
                        pieces[top] = left;
                        break;
                    case 8:
                        pieces[left] = top;
                        break;
                    case 9:
                        pieces[bottom] = top;
                        break;
                    case 10:
                        pieces[right] = bottom;
                        pieces[left] = top;
                        break;
                    case 11:
                        pieces[right] = top;
                        break;
                    case 12:
                        pieces[left] = right;
                        break;
                    case 13:
                        pieces[bottom] = right;
                        break;
                    default:
                        pieces[left] = bottom;
                        break;
                }
            }
        var outlines = new List<IReadOnlyList<Vec2>>();
        while (pieces.Count > 0)
        {
            var outline = new List<Vec2>();
            var edge = pieces.Keys.First();
            while (pieces.Remove(edge, out var next))
            {
                outline.Add(Crossing(edge));
                edge = next;
            }
            if (outline.Count > 2)
                outlines.Add(outline);
        }
        return outlines;

        Vec2 Crossing(int edge)
        {
            var node = edge / 2;
            var other = edge % 2 == 0 ? node + 1 : node + columns;
            var share = (level - value[node]) / (value[other] - value[node]);
            return at(node % columns + (edge % 2 == 0 ? share : 0), node / columns + (edge % 2 == 1 ? share : 0));
        }
    }

    /// <summary>
    /// A closed outline with fewer points, none of those left out farther from it than this (Douglas &amp; Peucker 1973, from memory).
    /// </summary>
    public static IReadOnlyList<Vec2> Simplified(IReadOnlyList<Vec2> outline, double tolerance)
    {
        if (outline.Count < 8)
            return outline;
        var keep = new bool[outline.Count];
        // Two points far apart cut the outline into two lines.
        var half = outline.Count / 2;
        keep[0] = keep[half] = true;
        Keep(outline, keep, (0, half), tolerance);
        Keep(outline, keep, (half, outline.Count), tolerance);
        return [.. outline.Where((_, i) => keep[i])];
    }

    /// <summary>
    /// An open line with fewer points; every point left out lies within the tolerance of it (Douglas &amp; Peucker 1973, from memory).
    /// </summary>
    /// <returns>Indices of the points that stay, the first and the last point always.</returns>
    public static IReadOnlyList<int> Thinned(IReadOnlyList<Vec2> line, double tolerance)
    {
        var keep = new bool[line.Count];
        if (line.Count > 0)
            keep[0] = keep[^1] = true;
        Keep(line, keep, (0, line.Count - 1), tolerance);
        return [.. Enumerable.Range(0, line.Count).Where(i => keep[i])];
    }

    private static void Keep(IReadOnlyList<Vec2> points, bool[] keep, (int From, int To) piece, double tolerance)
    {
        var chord = points.Count == 0 ? default : new Segment(points[piece.From], points[piece.To % points.Count]);
        var (farthest, at) = (tolerance, -1);
        for (var i = piece.From + 1; i < piece.To; i++)
        {
            var off = chord.DistanceTo(points[i]);
            if (off > farthest)
                (farthest, at) = (off, i);
        }
        if (at < 0)
            return;
        keep[at] = true;
        Keep(points, keep, (piece.From, at), tolerance);
        Keep(points, keep, (at, piece.To), tolerance);
    }

    /// <summary>Whether a place lies within a closed outline: by the crossings of a ray.</summary>
    public static bool Contains(IReadOnlyList<Vec2> outline, Vec2 place)
    {
        var inside = false;
        for (var (i, k) = (0, outline.Count - 1); i < outline.Count; k = i++)
        {
            var (a, b) = (outline[i], outline[k]);
            if (a.Y > place.Y != b.Y > place.Y && place.X < a.X + (place.Y - a.Y) / (b.Y - a.Y) * (b.X - a.X))
                inside = !inside;
        }
        return inside;
    }
}
