namespace DeepBaize.Core.Geometry;

/// <summary>A straight piece of a way, m.</summary>
public readonly record struct Segment(Vec2 From, Vec2 To)
{
    /// <summary>Unit vector from the start to the end.</summary>
    public Angle Direction => (To - From).Direction;

    /// <summary>Length, m.</summary>
    public double Length => From.DistanceTo(To);

    /// <summary>Distance of a point from the nearest point of this piece, m.</summary>
    public double DistanceTo(Vec2 point)
    {
        var along = To - From;
        var square = along.SquaredLength;
        var share = square == 0 ? 0 : Math.Clamp((point - From).Dot(along) / square, 0, 1);
        return point.DistanceTo(From + share * along);
    }

    /// <summary>Returns the point in which two pieces cross; null if they do not, or lie along one another.</summary>
    public Vec2? Crossing(Segment other)
    {
        var (mine, theirs) = (To - From, other.To - other.From);
        var across = mine.Cross(theirs);
        if (across == 0)
            return null;
        var between = other.From - From;
        var (share, otherShare) = (between.Cross(theirs) / across, between.Cross(mine) / across);
        return share is >= 0 and <= 1 && otherShare is >= 0 and <= 1 ? From + share * mine : null;
    }
}
