using DeepBaize.Core.Geometry;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Rules;

/// <summary>What may be struck next, and whether it can be. After the Official Rules, Section 2 and 3 (from memory).</summary>
public static class Snooker
{
    /// <summary>
    /// The slots of the balls on once this ball has been potted and is off the table: a colour after a red, a red after a colour while
    /// there are reds,
    /// else the colour of the least value (Section 3, rules 2 and 3, from memory).
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
    /// from memory).
    /// </summary>
    /// <param name="white">Where it lies, m.</param>
    /// <param name="balls">All object balls on the table.</param>
    /// <param name="on">Slots in that list; empty is not snookered.</param>
    public static bool IsSnookered(Vec2 white, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on) =>
        on.Count > 0 && on.All(target => !IsOpen(white, balls, on, target));

    private static bool IsOpen(Vec2 white, IReadOnlyList<PlacedBall> balls, IReadOnlyList<int> on, int target)
    {
        var to = balls[target].At - white;
        var distance = to.Length;
        if (distance <= 2 * BallRadius)
            return true;
        // The white's centre runs along the tangents to a circle of a ball's diameter about the target.
        var half = Angle.FromRadians(Math.Asin(2 * BallRadius / distance));
        var run = Math.Sqrt(distance * distance - 4 * BallRadius * BallRadius);
        return IsClear(to.Direction + half) && IsClear(to.Direction - half);

        bool IsClear(Angle edge)
        {
            var way = new Segment(white, white + run * edge.Unit);
            return Enumerable.Range(0, balls.Count).All(i => on.Contains(i) || balls[i].Gap(way) >= 0);
        }
    }
}
