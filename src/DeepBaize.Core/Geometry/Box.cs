namespace DeepBaize.Core.Geometry;

/// <summary>An axis-aligned box, m.</summary>
public readonly record struct Box(double MinX, double MinY, double MaxX, double MaxY)
{
    /// <summary>Whether a point (m) lies in the box.</summary>
    public bool Contains(Vec2 point) => point.X >= MinX && point.X <= MaxX && point.Y >= MinY && point.Y <= MaxY;
}
