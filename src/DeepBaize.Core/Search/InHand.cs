using DeepBaize.Core.Play;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Search;

/// <summary>Where in the D the white is placed, when it is in hand.</summary>
public static class InHand
{
    /// <summary>Number of best-looking places from which the next stroke is searched for.</summary>
    private const int Looked = 6;

    private const double Step = 0.04;

    /// <summary>
    /// The situation with the white where the best safety is played from; the one given if it is not in hand, or lies as well as anywhere.
    /// </summary>
    public static Situation PlacedForSafety(SearchContext context, Situation from, SafetyStrokes strokes)
    {
        if (!from.Frame.InHand || from.Frame.IsOver)
            return from;
        List<Situation> places = [from, .. Free(context, from, FewPlaces).Select(from.WithWhiteAt)];
        var values = context.InParallel(places.Count, (workspace, i) =>
            strokes.BestOf(workspace, places[i])?.Value ?? double.NegativeInfinity
        );
        return places[values.IndexOf(values.Max())];
    }

    /// <summary>
    /// The situation with the white where the best stroke is on; the one given if it is not in hand, or lies as well as anywhere.
    /// </summary>
    public static Situation Placed(SearchContext context, Situation from)
    {
        if (!from.Frame.InHand || from.Frame.IsOver)
            return from;
        var lines = new Workspace(context).LinesOf(from.Layout);
        List<Situation> best =
        [
            from,
            .. Free(context, from, Places)
                .Select(p => (Place: p, context.Evaluation.At(from, lines, p).Value))
                .Where(p => p.Value > 0)
                .OrderByDescending(p => p.Value)
                .Take(Looked)
                .Select(p => from.WithWhiteAt(p.Place)),
        ];
        var search = new ShotSearch(context);
        var values = context.InParallel(best.Count, (workspace, i) =>
            search.Shallow(workspace, best[i])?.Value.Value ?? double.NegativeInfinity
        );
        // The first of equals: where the user has put it.
        return best[values.IndexOf(values.Max())];
    }

    private static IEnumerable<Vec2> Free(SearchContext context, Situation from, IEnumerable<Vec2> places) =>
        places.Where(p => context.Shape.CanRest(p) && from.Layout.Balls.Skip(1).All(b => b.Gap(p) > 0));

    private static readonly List<Vec2> Places = [.. Grid(Step).Where(InD)],
        FewPlaces = [.. Grid(2.4 * Step).Where(InD)];

    private static IEnumerable<Vec2> Grid(double step)
    {
        for (var back = 0.005; back < DRadius; back += step)
            for (var across = -DRadius; across <= DRadius; across += step)
                yield return new(BaulkLineX - back, Width / 2 + across);
    }
}
