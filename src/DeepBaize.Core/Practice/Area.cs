using System.Text.Json.Serialization;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>A part of the table in which a ball is to stop: a circle, or the upright box between two corners; m.</summary>
/// <param name="Radius">Of a circle about (X, Y); null for a box from there to (ToX, ToY).</param>
public sealed record Area(double X, double Y, double? Radius = null, double? ToX = null, double? ToY = null)
{
    /// <summary>Smallest radius or half-width of an area, m.</summary>
    public const double Smallest = 0.02;

    /// <summary>Returns a circle about a centre, m.</summary>
    public static Area Circle(double x, double y, double radius) => new(x, y, radius);

    /// <summary>Returns a rectangle between two corners, m.</summary>
    public static Area Box(double x, double y, double toX, double toY) => new(x, y, null, toX, toY);

    /// <summary>Centre of the area, m.</summary>
    [JsonIgnore]
    public Vec2 Middle => Radius is null ? new((X + ToX!.Value) / 2, (Y + ToY!.Value) / 2) : new(X, Y);

    /// <summary>How far a ball's middle is outside, m; negative inside: how far from the edge.</summary>
    public double Outside(Vec2 ball)
    {
        if (Radius is { } radius)
            return ball.DistanceTo(new(X, Y)) - radius;
        var (dx, dy) = (Math.Max(X - ball.X, ball.X - ToX!.Value), Math.Max(Y - ball.Y, ball.Y - ToY!.Value));
        return dx > 0 && dy > 0 ? Math.Sqrt(dx * dx + dy * dy) : Math.Max(dx, dy);
    }

    /// <summary>Returns this area mirrored to the other side of the table.</summary>
    [JsonIgnore]
    public Area Mirrored =>
        Radius is null ? Box(X, Dimensions.Width - ToY!.Value, ToX!.Value, Dimensions.Width - Y) : this with { Y = Dimensions.Width - Y };

    /// <summary>Returns the area scaled about its middle, clipped at the cushions.</summary>
    public Area Widened(double factor)
    {
        if (Radius is { } radius)
            return this with { Radius = radius * factor };
        var (middle, dx, dy) = (Middle, (ToX!.Value - X) / 2 * factor, (ToY!.Value - Y) / 2 * factor);
        return Box(
            Math.Max(0, middle.X - dx),
            Math.Max(0, middle.Y - dy),
            Math.Min(Dimensions.Length, middle.X + dx),
            Math.Min(Dimensions.Width, middle.Y + dy)
        );
    }

    internal void Check(Checks checks, string field)
    {
        checks.Range($"{field}.x", X, 0, Dimensions.Length, " m");
        checks.Range($"{field}.y", Y, 0, Dimensions.Width, " m");
        if (Radius is { } radius)
        {
            checks.Range($"{field}.radius", radius, Smallest, Dimensions.Width, " m");
            return;
        }
        checks.That(ToX is not null && ToY is not null, field, "A radius or the opposite corner is missing.", "radius, or toX and toY");
        if (ToX is not { } toX || ToY is not { } toY)
            return;
        checks.Range($"{field}.toX", toX, X + Smallest, Dimensions.Length, " m");
        checks.Range($"{field}.toY", toY, Y + Smallest, Dimensions.Width, " m");
    }
}
