using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>Several balls laid together: in a row, in an arc, at a cushion, touching another. Places are centres, m.</summary>
public static class Arrangement
{
    /// <summary>A middle ball this near to the line between the ends makes a row of an arc, m.</summary>
    private const double Straight = 0.004;

    /// <summary>Returns the places evenly along the line between the two that are farthest apart, each ball in its order.</summary>
    /// <param name="places">Two or more.</param>
    public static IReadOnlyList<Vec2> Row(IReadOnlyList<Vec2> places)
    {
        var (from, to) = Ends(places);
        var along = (to - from).Unit;
        return Spread(places, p => (p - from).Dot(along), share => from + share * (to - from));
    }

    /// <summary>
    /// Returns the places evenly along the arc through the two ends and the ball that is farthest from the line between them; a
    /// <see cref="Row"/> where they lie in line.
    /// </summary>
    /// <param name="places">Three or more.</param>
    public static IReadOnlyList<Vec2> Arc(IReadOnlyList<Vec2> places)
    {
        var (from, to) = Ends(places);
        var across = (to - from).Left.Unit;
        var middle = places.MaxBy(p => Math.Abs((p - from).Dot(across)));
        if (Math.Abs((middle - from).Dot(across)) < Straight)
            return Row(places);
        var centre = CentreOf(from, middle, to);
        double Angle(Vec2 p) => Math.Atan2(p.Y - centre.Y, p.X - centre.X);
        // Counter-clockwise from one end, or clockwise if the middle comes first that way.
        double Turn(double to) => (to - Angle(from) + 4 * Math.PI) % (2 * Math.PI);
        var isCounter = Turn(Angle(middle)) < Turn(Angle(to));
        var whole = isCounter ? Turn(Angle(to)) : Turn(Angle(to)) - 2 * Math.PI;
        // How far a ball is round the arc; one beyond an end comes before or after all others.
        double Place(Vec2 p) => Math.Sign(whole) * (Math.IEEERemainder(Angle(p) - Angle(from) - whole / 2, 2 * Math.PI) + whole / 2);
        var radius = from.DistanceTo(centre);
        return Spread(places, Place, share =>
        {
            var a = Angle(from) + share * whole;
            return centre + radius * new Vec2(Math.Cos(a), Math.Sin(a));
        });
    }

    /// <summary>Returns the place tight on the cushion that is nearest to it.</summary>
    public static Vec2 AtCushion(Vec2 place) =>
        Cushions.Nearest(place) switch
        {
            Cushion.Baulk => place with { X = BallRadius },
            Cushion.Top => place with { X = Length - BallRadius },
            Cushion.YellowSide => place with { Y = BallRadius },
            _ => place with { Y = Width - BallRadius },
        };

    /// <summary>Returns the place moved straight towards the nearest of the others until it touches it; itself without others.</summary>
    public static Vec2 Touching(Vec2 place, IReadOnlyList<PlacedBall> others)
    {
        if (others.Count == 0)
            return place;
        var nearest = others.MinBy(o => o.At.DistanceTo(place)).At;
        return place == nearest ? place : nearest + 2 * BallRadius * (place - nearest).Unit;
    }

    /// <summary>Returns the wishes as near as each can rest beside the others and those before it.</summary>
    public static IReadOnlyList<PlacedBall> Settle(IReadOnlyList<PlacedBall> wishes, IReadOnlyList<PlacedBall> others, TableShape shape)
    {
        List<PlacedBall> lying = [.. others];
        foreach (var wish in wishes)
            // A table of full size has room for all balls.
            lying.Add(new(wish.Ball, Placement.Nearest(wish.At, lying, shape)!.Value));
        return lying[others.Count..];
    }

    private static (Vec2 From, Vec2 To) Ends(IReadOnlyList<Vec2> places)
    {
        var best = (From: places[0], To: places[^1]);
        for (var i = 0; i < places.Count; i++)
            for (var j = 0; j < i; j++)
                if (places[i].DistanceTo(places[j]) > best.From.DistanceTo(best.To))
                    best = (places[j], places[i]);
        return best;
    }

    private static IReadOnlyList<Vec2> Spread(IReadOnlyList<Vec2> places, Func<Vec2, double> order, Func<double, Vec2> at)
    {
        var result = new Vec2[places.Count];
        var sorted = Enumerable.Range(0, places.Count).OrderBy(i => order(places[i])).ToList();
        for (var k = 0; k < sorted.Count; k++)
            result[sorted[k]] = at(k / (double)(sorted.Count - 1));
        return result;
    }

    /// <summary>Centre of the circle through three points that are not in line.</summary>
    private static Vec2 CentreOf(Vec2 a, Vec2 b, Vec2 c)
    {
        var (p, q) = (b - a, c - a);
        return a
            + 1 / (2 * p.Cross(q)) * new Vec2(q.Y * p.SquaredLength - p.Y * q.SquaredLength, p.X * q.SquaredLength - q.X * p.SquaredLength);
    }
}
