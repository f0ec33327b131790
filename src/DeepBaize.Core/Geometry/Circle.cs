namespace DeepBaize.Core.Geometry;

/// <summary>A circle, m.</summary>
public readonly record struct Circle(Vec2 Centre, double Radius)
{
    /// <summary>Creates a circle from its centre and radius, m.</summary>
    public Circle(double x, double y, double radius)
        : this(new(x, y), radius) { }

    /// <summary>x of the centre, m.</summary>
    public double X => Centre.X;

    /// <summary>y of the centre, m.</summary>
    public double Y => Centre.Y;

    /// <summary>Whether a point (m) lies inside the circle.</summary>
    public bool Contains(Vec2 point) => (point - Centre).SquaredLength < Radius * Radius;

    /// <summary>The two points that two circles share; none if they do not cross or are one.</summary>
    public static IReadOnlyList<Vec2> Crossings(in Circle a, in Circle b)
    {
        var apart = b.Centre - a.Centre;
        var square = apart.SquaredLength;
        if (square == 0)
            return [];
        var along = (square + a.Radius * a.Radius - b.Radius * b.Radius) / (2 * square);
        var half = a.Radius * a.Radius / square - along * along;
        if (half < 0)
            return [];
        var middle = a.Centre + along * apart;
        var across = Math.Sqrt(half) * apart.Left;
        return [middle + across, middle - across];
    }
}
