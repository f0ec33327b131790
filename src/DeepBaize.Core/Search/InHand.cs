using DeepBaize.Core.Play;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Search;

/// <summary>Where in the D the white is placed, when it is in hand.</summary>
public static class InHand
{
    /// <summary>Of so many places that look best the next stroke is looked for.</summary>
    private const int Looked = 6;

    private const double Step = 0.04;

    /// <summary>
    /// The situation with the white where the best stroke is on; the one given if it is not in hand, or lies as well as anywhere.
    /// </summary>
    public static Situation Placed(SearchContext context, Situation from)
    {
        if (!from.Frame.InHand || from.Frame.IsOver)
            return from;
        var (layout, lines) = (from.Layout, new Workspace(context).LinesOf(from.Layout));
        var places = Places.Where(p => context.Shape.CanRest(p) && layout.Balls.Skip(1).All(b => b.Gap(p) > 0)).ToList();
        List<Situation> best =
        [
            from,
            .. places
                .Select(p => (Place: p, context.Evaluation.At(from, lines, p).Value))
                .Where(p => p.Value > 0)
                .OrderByDescending(p => p.Value)
                .Take(Looked)
                .Select(p => from.WithWhiteAt(p.Place)),
        ];
        var search = new ShotSearch(context);
        var values = context.InParallel(best.Count, (workspace, i) => search.Shallow(workspace, best[i])?.Value.Value ?? 0);
        // The first of equals: where the user has put it.
        return best[values.IndexOf(values.Max())];
    }

    private static readonly List<Vec2> Places = [.. Grid().Where(InD)];

    private static IEnumerable<Vec2> Grid()
    {
        for (var back = 0.005; back < DRadius; back += Step)
            for (var across = -DRadius; across <= DRadius; across += Step)
                yield return new(BaulkLineX - back, Width / 2 + across);
    }
}
