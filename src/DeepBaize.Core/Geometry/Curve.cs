namespace DeepBaize.Core.Geometry;

/// <summary>A straight line or a circle, as a bound of an area, m.</summary>
public readonly record struct Curve
{
    private Curve(Vec2 vector, double radius, double offset) => (Vector, Radius, Offset) = (vector, radius, offset);

    /// <summary>Of a circle the centre, of a line its normal, of length one.</summary>
    private Vec2 Vector { get; }

    /// <summary>Infinite for a line.</summary>
    private double Radius { get; }

    private double Offset { get; }

    private bool IsLine => double.IsPositiveInfinity(Radius);

    /// <summary>The line of the points whose part along the normal is the offset.</summary>
    /// <param name="normal">Of length one.</param>
    public static Curve Line(Vec2 normal, double offset) => new(normal, double.PositiveInfinity, offset);

    /// <summary>Returns a circle as a closed curve.</summary>
    public static Curve Around(Vec2 centre, double radius) => new(centre, radius, 0);

    /// <summary>The line that touches a circle at one of its points.</summary>
    public static Curve Tangent(Circle circle, Vec2 point)
    {
        var normal = (point - circle.Centre).Unit;
        return Line(normal, point.Dot(normal));
    }

    /// <summary>The lines that touch both circles: up to four, fewer where they overlap.</summary>
    public static IEnumerable<Curve> CommonTangents(Circle a, Circle b)
    {
        var between = b.Centre - a.Centre;
        var distance = between.Length;
        // The normal n of such a line has n·(b − a) = ±rb ∓ ra, with the centres on one side of it or on both.
        foreach (var side in (double[])[1, -1])
        {
            var cos = (a.Radius - side * b.Radius) / distance;
            if (!(Math.Abs(cos) <= 1))
                continue;
            foreach (var turn in (double[])[1, -1])
            {
                var normal = (between.Direction + Angle.FromRadians(turn * Math.Acos(cos))).Unit;
                yield return Line(normal, a.Centre.Dot(normal) + a.Radius);
            }
        }
    }

    /// <summary>The point of it that is nearest to another.</summary>
    public Vec2 Foot(Vec2 point)
    {
        if (IsLine)
            return point + (Offset - point.Dot(Vector)) * Vector;
        var from = point - Vector;
        var distance = from.Length;
        return distance < 1e-12 ? Vector + new Vec2(Radius, 0) : Vector + Radius / distance * from;
    }

    /// <summary>The points that two of them share: none, one or two.</summary>
    public static IReadOnlyList<Vec2> Crossings(Curve a, Curve b)
    {
        if (a.IsLine && b.IsLine)
        {
            var det = a.Vector.Cross(b.Vector);
            return det == 0
                ? []
                : [new((a.Offset * b.Vector.Y - b.Offset * a.Vector.Y) / det, (a.Vector.X * b.Offset - b.Vector.X * a.Offset) / det)];
        }
        if (a.IsLine)
            (a, b) = (b, a);
        if (!b.IsLine)
            return Circle.Crossings(new(a.Vector, a.Radius), new(b.Vector, b.Radius));
        var middle = b.Foot(a.Vector);
        var half = a.Radius * a.Radius - (middle - a.Vector).SquaredLength;
        if (half < 0)
            return [];
        var along = Math.Sqrt(half) * b.Vector.Left;
        return [middle + along, middle - along];
    }
}
