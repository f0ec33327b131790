using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Rules;

/// <summary>What may be struck next, and whether it can be. After the Official Rules, Section 2 and 3 (from memory).</summary>
public static class Snooker
{
    /// <summary>
    /// The slots of the balls on once this ball has been potted and is off the table: a colour after a red, a red after a colour while
    /// there are reds, else the colour of the least value (Section 3, rules 2 and 3, from memory).
    /// </summary>
    public static IReadOnlyList<int> OnAfter(Ball potted, IReadOnlyList<PlacedBall> left)
    {
        var reds = Slots(left, b => b.IsRed);
        if (potted.IsRed)
            return Slots(left, b => b.IsColour);
        if (reds.Count > 0)
            return reds;
        var colours = Slots(left, b => b.IsColour);
        return colours.Count == 0 ? [] : [colours.MinBy(i => left[i].Ball.Index)];
    }

    private static List<int> Slots(IReadOnlyList<PlacedBall> balls, Func<Ball, bool> which) =>
        [.. Enumerable.Range(0, balls.Count).Where(i => which(balls[i].Ball))];

    /// <summary>
    /// Whether no ball on can be struck, in a straight line, on both its extreme edges, free of any ball not on (Section 2, "Snookered",
    /// from
    /// memory).
    /// </summary>
    /// <param name="white">Where it lies, m.</param>
    /// <param name="balls">All object balls on the table.</param>
    /// <param name="on">Slots in that list; empty is not snookered.</param>
    public static bool IsSnookered(Vec2 white, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on) =>
        on.Count > 0 && on.All(target => !IsOpen(white, balls, on, target));

    /// <summary>
    /// Whether a player with the white in hand is snookered: from no place in the D, or on its lines, can a ball on be struck on both
    /// edges.
    /// </summary>
    /// <remarks>
    /// The places from which a ball is open are bounded by lines and circles. If there are any, a crossing of two of these bounds, or a
    /// corner
    /// of the D, is among them; so it is enough to ask there.
    /// </remarks>
    public static bool IsSnookeredInHand(IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on)
    {
        if (on.Count == 0)
            return false;
        bool OpensFrom(Vec2 place, int target) =>
            Dimensions.InD(place) && balls.All(b => b.Gap(place) >= -TableShape.InputTolerance) && IsOpen(place, balls, on, target);
        // Nearly always one of a few places is enough.
        if (PlacesInD.Any(place => on.Any(target => OpensFrom(place, target))))
            return false;
        return !on.Any(target => CornersOf(balls, on, target).Any(place => OpensFrom(place, target)));
    }

    /// <summary>Across the D on its line, and behind it.</summary>
    private static readonly Vec2[] PlacesInD =
    [
        .. from back in new[] { 0, 0.1, 0.2 }
        from across in new[] { -0.29, -0.2, -0.1, 0, 0.1, 0.2, 0.29 }
        select Dimensions.DCentre + new Vec2(-back, across),
    ];

    /// <summary>Where bounds of the places cross from which a target is open.</summary>
    private static IEnumerable<Vec2> CornersOf(IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on, int target)
    {
        const double reach = 2 * BallRadius;
        var aimed = new Circle(balls[target].At, reach);
        List<Curve> bounds =
        [
            Curve.Line(new(1, 0), Dimensions.BaulkLineX),
            Curve.Around(Dimensions.DCentre, Dimensions.DRadius),
            .. balls.Select(b => Curve.Around(b.At, reach)),
        ];
        for (var i = 0; i < balls.Count; i++)
        {
            if (on.Contains(i))
                continue;
            // On a common tangent the white would graze both; and where the two circles cross, its way to the edge just ends at the other
            // ball.
            var other = new Circle(balls[i].At, reach);
            bounds.AddRange(Curve.CommonTangents(aimed, other));
            bounds.AddRange(Circle.Crossings(aimed, other).Select(p => Curve.Tangent(aimed, p)));
        }
        for (var i = 0; i < bounds.Count; i++)
            for (var k = 0; k < i; k++)
                foreach (var corner in Curve.Crossings(bounds[i], bounds[k]))
                    yield return corner;
    }

    /// <summary>Whether a ball on lies open to be struck full in the face, free of any ball not on (rule 14).</summary>
    /// <param name="on">Slots of the balls.</param>
    public static bool IsFullBallOpen(Vec2 white, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on) =>
        on.Any(target => IsClear(new(white, balls[target].At), balls, on));

    private static bool IsOpen(Vec2 white, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on, int target)
    {
        var to = balls[target].At - white;
        var distance = to.Length;
        if (distance <= 2 * BallRadius)
            return true;
        // The white's centre runs along the tangents to a circle of a ball's diameter about the target.
        var half = Angle.FromRadians(Math.Asin(2 * BallRadius / distance));
        var run = Math.Sqrt(distance * distance - 4 * BallRadius * BallRadius);
        return new[] { half, -half }.All(edge => IsClear(new(white, white + run * (to.Direction + edge).Unit), balls, on));
    }

    /// <summary>Whether no ball that is not on is in the way of the white's centre.</summary>
    private static bool IsClear(Segment way, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on)
    {
        for (var i = 0; i < balls.Count; i++)
            if (!balls[i].IsClearOf(way) && !on.Contains(i))
                return false;
        return true;
    }
}
