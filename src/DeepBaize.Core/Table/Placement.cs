using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>Where a ball that is being moved by hand may go.</summary>
public static class Placement
{
    // A hair outside what is met, so that the place found passes every check.
    private const double Hair = 1e-8;

    /// <summary>
    /// The place nearest to a wish where a ball can rest among the others: so a ball that is dragged slides along what it meets.
    /// </summary>
    /// <param name="others">The balls it must not overlap.</param>
    /// <param name="inD">Whether it must lie in the D, as the cue ball from hand.</param>
    /// <returns>Null if there is no such place (a D that is full).</returns>
    public static Vec2? Nearest(Vec2 wish, IReadOnlyList<PlacedBall> others, TableShape shape, bool inD = false)
    {
        bool Free(Vec2 place) => shape.CanRest(place) && (!inD || InD(place)) && others.All(o => o.Gap(place) >= 0);

        if (Free(wish))
            return wish;

        // The nearest free place is the foot of the perpendicular on one of the lines and circles that bound the free area,
        // or a crossing of two of them.
        var bounds = Bounds(others, shape, inD);
        var best = (Vec2?)null;
        var bestSquare = double.PositiveInfinity;
        void Offer(Vec2 place)
        {
            var square = (place - wish).SquaredLength;
            if (square < bestSquare && Free(place))
                (best, bestSquare) = (place, square);
        }

        foreach (var bound in bounds)
            Offer(bound.Foot(wish));
        for (var i = 0; i < bounds.Count; i++)
            for (var j = 0; j < i; j++)
                foreach (var crossing in Curve.Crossings(bounds[i], bounds[j]))
                    Offer(crossing);
        return best;
    }

    private static List<Curve> Bounds(IReadOnlyList<PlacedBall> others, TableShape shape, bool inD)
    {
        const double r = BallRadius + Hair;
        List<Curve> bounds =
        [
            Curve.Line(new(1, 0), r),
            Curve.Line(new(1, 0), Length - r),
            Curve.Line(new(0, 1), r),
            Curve.Line(new(0, 1), Width - r),
            .. others.Select(o => Curve.Around(o.At, 2 * BallRadius + Hair)),
        ];
        foreach (var pocket in shape.PocketShapes)
        {
            bounds.Add(Curve.Around(pocket.JawA.Centre, pocket.JawA.Radius + r));
            bounds.Add(Curve.Around(pocket.JawB.Centre, pocket.JawB.Radius + r));
            bounds.Add(Curve.Around(pocket.Drop.Centre, pocket.Drop.Radius + Hair));
        }
        if (inD)
        {
            bounds.Add(Curve.Line(new(1, 0), BaulkLineX));
            bounds.Add(Curve.Around(DCentre, DRadius));
        }
        return bounds;
    }
}
