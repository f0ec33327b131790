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

    public static Curve Around(Vec2 centre, double radius) => new(centre, radius, 0);

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
