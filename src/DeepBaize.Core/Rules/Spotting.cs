using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Rules;

/// <summary>Where a colour goes that is to be spotted. Section 3, rule 7, "Spotting colours" (from memory).</summary>
public static class Spotting
{
    /// <summary>
    /// The places of colours to be spotted, in the order in which they are set down: with more than one, the highest value first. A colour
    /// goes on its own spot; if that is occupied, on the highest in value that is free; if none is, as near as may be to its own spot,
    /// between that and the nearest part of the top cushion; and if there is no room there, as near as may be on the other side of it.
    /// </summary>
    /// <param name="colours">Not on the table.</param>
    /// <param name="onTable">All balls that are, the white too.</param>
    public static IReadOnlyList<PlacedBall> Place(IEnumerable<Ball> colours, IReadOnlyList<PlacedBall> onTable)
    {
        List<PlacedBall> balls = [.. onTable];
        var placed = new List<PlacedBall>();
        foreach (var colour in colours.OrderByDescending(Values.Of))
        {
            var own = Spot(colour);
            var place = IsFree(own, balls)
                ? own
                : Ball.Colours.Reverse().Select(Spot).Cast<Vec2?>().FirstOrDefault(s => IsFree(s!.Value, balls)) ?? Beside(own, balls);
            placed.Add(new(colour, place));
            balls.Add(placed[^1]);
        }
        return placed;
    }

    private static bool IsFree(Vec2 place, List<PlacedBall> balls) => balls.All(b => b.Gap(place) >= 0);

    /// <summary>Nearest free place on the line through the spot along the table: towards the top cushion first.</summary>
    private static Vec2 Beside(Vec2 spot, List<PlacedBall> balls)
    {
        // Without touching another ball, but as near as may be: a hair beyond where they would touch.
        const double hair = 1e-6;
        var reach = 2 * BallRadius + hair;
        var candidates = new List<double>();
        foreach (var b in balls)
        {
            var across = Math.Abs(b.Y - spot.Y);
            if (across >= reach)
                continue;
            var along = Math.Sqrt(reach * reach - across * across);
            candidates.Add(b.X + along);
            candidates.Add(b.X - along);
        }
        var up = candidates.Where(c => c > spot.X && c <= Length - BallRadius && IsFree(spot with { X = c }, balls)).ToList();
        if (up.Count > 0)
            return spot with { X = up.Min() };
        return spot with { X = candidates.Where(c => c < spot.X && c >= BallRadius && IsFree(spot with { X = c }, balls)).Max() };
    }
}
