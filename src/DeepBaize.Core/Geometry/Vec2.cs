namespace DeepBaize.Core.Geometry;

/// <summary>A place or a direction in the plane of the table: x up the table, y across. Metres for a place.</summary>
public readonly record struct Vec2(double X, double Y)
{
    /// <summary>Returns the coordinates in brackets.</summary>
    public override string ToString() => $"({X}, {Y})";

    /// <summary>Square of the length.</summary>
    public double SquaredLength => X * X + Y * Y;

    /// <summary>Length of the vector.</summary>
    public double Length => Math.Sqrt(X * X + Y * Y);

    /// <summary>Counter-clockwise from +x.</summary>
    public Angle Direction => Angle.FromRadians(Math.Atan2(Y, X));

    /// <summary>Turned by a quarter, counter-clockwise: to the left of one who looks along this.</summary>
    public Vec2 Left => new(-Y, X);

    /// <summary>Of length one. Not a number for the zero vector.</summary>
    public Vec2 Unit => this / Length;

    /// <summary>Returns the sum of two vectors.</summary>
    public static Vec2 operator +(Vec2 a, Vec2 b) => new(a.X + b.X, a.Y + b.Y);

    /// <summary>Returns the difference of two vectors.</summary>
    public static Vec2 operator -(Vec2 a, Vec2 b) => new(a.X - b.X, a.Y - b.Y);

    /// <summary>Returns the opposite vector.</summary>
    public static Vec2 operator -(Vec2 a) => new(-a.X, -a.Y);

    /// <summary>Returns a multiple of a vector.</summary>
    public static Vec2 operator *(double factor, Vec2 a) => new(factor * a.X, factor * a.Y);

    /// <summary>Returns a vector divided by a number.</summary>
    public static Vec2 operator /(Vec2 a, double divisor) => new(a.X / divisor, a.Y / divisor);

    /// <summary>Returns the dot product.</summary>
    public double Dot(Vec2 other) => X * other.X + Y * other.Y;

    /// <summary>Positive if the other lies to the left of this.</summary>
    public double Cross(Vec2 other) => X * other.Y - Y * other.X;

    /// <summary>Returns the distance to another point.</summary>
    public double DistanceTo(Vec2 other) => (other - this).Length;
}
