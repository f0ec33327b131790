namespace DeepBaize.Core.Geometry;

/// <summary>
/// A direction in the plane, counter-clockwise from +x, or a turn, counter-clockwise positive. Built from radians or degrees by name.
/// </summary>
public readonly record struct Angle
{
    private const double DegreesPerRadian = 180 / Math.PI;

    private Angle(double radians) => Radians = radians;

    /// <summary>The angle in radians.</summary>
    public double Radians { get; }

    /// <summary>The angle in degrees.</summary>
    public double Degrees => Radians * DegreesPerRadian;

    /// <summary>Returns an angle from radians.</summary>
    public static Angle FromRadians(double radians) => new(radians);

    /// <summary>Returns an angle from degrees.</summary>
    public static Angle FromDegrees(double degrees) => new(degrees * Math.PI / 180);

    /// <summary>The vector of length one that points this way.</summary>
    public Vec2 Unit
    {
        get
        {
            var (sin, cos) = Math.SinCos(Radians);
            return new(cos, sin);
        }
    }

    /// <summary>The direction normalised to −180° … 180°.</summary>
    public Angle Wrapped => new(Math.IEEERemainder(Radians, 2 * Math.PI));

    /// <summary>The shorter turn from one direction to another, −180° to 180°.</summary>
    public static Angle Between(Angle from, Angle to) => (to - from).Wrapped;

    /// <summary>The angle without its sign.</summary>
    public Angle Abs => new(Math.Abs(Radians));

    /// <summary>Returns the sum of two angles.</summary>
    public static Angle operator +(Angle a, Angle b) => new(a.Radians + b.Radians);

    /// <summary>Returns the difference of two angles.</summary>
    public static Angle operator -(Angle a, Angle b) => new(a.Radians - b.Radians);

    /// <summary>Returns the angle turned the other way.</summary>
    public static Angle operator -(Angle a) => new(-a.Radians);

    /// <summary>Returns a multiple of an angle.</summary>
    public static Angle operator *(double factor, Angle a) => new(factor * a.Radians);
}
