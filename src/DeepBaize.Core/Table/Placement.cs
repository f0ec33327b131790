using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>Where a ball that is being moved by hand may go.</summary>
public static class Placement
{
    // A hair outside what is met, so that the place found passes every check.
    private const double Hair = 1e-8;

    /// <summary>
    /// The place nearest to (x, y) where a ball can rest among the others: so a ball that is dragged slides along what it meets.
    /// </summary>
    /// <param name="others">The balls it must not overlap.</param>
    /// <param name="inD">Whether it must lie in the D, as the cue ball from hand.</param>
    /// <returns>Null if there is no such place (a D that is full).</returns>
    public static (double X, double Y)? Nearest(double x, double y, IReadOnlyList<PlacedBall> others, TableShape shape, bool inD = false)
    {
        bool Free(double px, double py) =>
            shape.CanRest(px, py) && (!inD || InD(px, py)) && others.All(o => Layout.Gap(px, py, o) >= 0);

        if (Free(x, y)) return (x, y);

        // The nearest free place is the foot of the perpendicular on one of the lines and circles that bound the free area,
        // or a crossing of two of them.
        var bounds = Bounds(others, shape, inD);
        var best = ((double X, double Y)?)null;
        var bestSquare = double.PositiveInfinity;
        void Offer(double px, double py)
        {
            var square = (px - x) * (px - x) + (py - y) * (py - y);
            if (square < bestSquare && Free(px, py)) (best, bestSquare) = ((px, py), square);
        }

        foreach (var bound in bounds)
        {
            var (px, py) = bound.Foot(x, y);
            Offer(px, py);
        }
        for (var i = 0; i < bounds.Count; i++)
            for (var j = 0; j < i; j++)
                foreach (var (px, py) in Bound.Crossings(bounds[i], bounds[j]))
                    Offer(px, py);
        return best;
    }

    private static List<Bound> Bounds(IReadOnlyList<PlacedBall> others, TableShape shape, bool inD)
    {
        var r = BallRadius + Hair;
        List<Bound> bounds =
        [
            Bound.Line(1, 0, r), Bound.Line(1, 0, Length - r), Bound.Line(0, 1, r), Bound.Line(0, 1, Width - r),
            .. others.Select(o => Bound.Circle(o.X, o.Y, 2 * BallRadius + Hair)),
        ];
        foreach (var pocket in shape.PocketShapes)
        {
            bounds.Add(Bound.Circle(pocket.JawA.X, pocket.JawA.Y, pocket.JawA.Radius + r));
            bounds.Add(Bound.Circle(pocket.JawB.X, pocket.JawB.Y, pocket.JawB.Radius + r));
            bounds.Add(Bound.Circle(pocket.Drop.X, pocket.Drop.Y, pocket.Drop.Radius + Hair));
        }
        if (inD)
        {
            bounds.Add(Bound.Line(1, 0, BaulkLineX));
            bounds.Add(Bound.Circle(BaulkLineX, Width / 2, DRadius));
        }
        return bounds;
    }

    /// <summary>A circle, or (radius infinite) the line x·X + y·Y = Offset with (X, Y) of length one.</summary>
    private readonly record struct Bound(double X, double Y, double Radius, double Offset)
    {
        public static Bound Line(double nx, double ny, double offset) => new(nx, ny, double.PositiveInfinity, offset);

        public static Bound Circle(double x, double y, double radius) => new(x, y, radius, 0);

        private bool IsLine => double.IsPositiveInfinity(Radius);

        public (double X, double Y) Foot(double x, double y)
        {
            if (IsLine)
            {
                var off = Offset - x * X - y * Y;
                return (x + off * X, y + off * Y);
            }
            var (dx, dy) = (x - X, y - Y);
            var distance = Math.Sqrt(dx * dx + dy * dy);
            return distance < 1e-12 ? (X + Radius, Y) : (X + dx * Radius / distance, Y + dy * Radius / distance);
        }

        public static IEnumerable<(double X, double Y)> Crossings(Bound a, Bound b)
        {
            if (a.IsLine && b.IsLine)
            {
                var det = a.X * b.Y - a.Y * b.X;
                return det == 0 ? [] : [((a.Offset * b.Y - b.Offset * a.Y) / det, (a.X * b.Offset - b.X * a.Offset) / det)];
            }
            if (a.IsLine) (a, b) = (b, a);
            if (b.IsLine)
            {
                var (mx, my) = b.Foot(a.X, a.Y);
                var half = a.Radius * a.Radius - (mx - a.X) * (mx - a.X) - (my - a.Y) * (my - a.Y);
                if (half < 0) return [];
                half = Math.Sqrt(half);
                return [(mx - half * b.Y, my + half * b.X), (mx + half * b.Y, my - half * b.X)];
            }
            return Table.Circle.Crossings(new(a.X, a.Y, a.Radius), new(b.X, b.Y, b.Radius));
        }
    }
}
