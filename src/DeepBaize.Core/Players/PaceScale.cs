namespace DeepBaize.Core.Players;

/// <summary>One pace in a player's own numbers and on the standard scale of <see cref="Strokes.Pace"/>.</summary>
/// <param name="Own">The number the player gives it.</param>
/// <param name="Standard">Pace on the standard scale.</param>
public readonly record struct PacePoint(double Own, double Standard);

/// <summary>
/// A player's own scale of paces, as points: straight between them, through nothing at nothing, and beyond the last as between the last
/// two. Without points it is the standard scale.
/// </summary>
public static class PaceScale
{
    /// <summary>Number of points a scale may have.</summary>
    public const int MostPoints = 10;

    private const double LeastOwn = 0.1,
        MostOwn = 100,
        LeastStandard = 0.5,
        MostStandard = 20;

    /// <summary>Checks that a scale has not too many points, that each is in range, and that both numbers rise.</summary>
    public static void Check(Checks checks, string field, IReadOnlyList<PacePoint> points)
    {
        checks.That(points.Count <= MostPoints, field, "There are too many points.", $"at most {MostPoints}");
        for (var i = 0; i < points.Count; i++)
        {
            checks.Range($"{field}[{i}].own", points[i].Own, LeastOwn, MostOwn);
            checks.Range($"{field}[{i}].standard", points[i].Standard, LeastStandard, MostStandard);
            if (i == 0)
                continue;
            checks.That(
                points[i].Own > points[i - 1].Own,
                $"{field}[{i}].own",
                "The numbers do not rise.",
                $"more than {points[i - 1].Own}"
            );
            checks.That(
                points[i].Standard > points[i - 1].Standard,
                $"{field}[{i}].standard",
                "A higher number is no harder.",
                $"more than {points[i - 1].Standard}"
            );
        }
    }

    /// <summary>Returns the standard pace of a number on the player's own scale.</summary>
    public static double Standard(IReadOnlyList<PacePoint> points, double own)
    {
        if (points.Count == 0)
            return own;
        var (last, before) = (points[^1], points.Count > 1 ? points[^2] : default);
        if (own <= last.Own)
            return PiecewiseLinear.At(own, [(0, 0), .. points.Select(p => (p.Own, p.Standard))]);
        return last.Standard + (own - last.Own) * (last.Standard - before.Standard) / (last.Own - before.Own);
    }

    /// <summary>Returns the scale stretched so that the player's five has this standard pace.</summary>
    public static IReadOnlyList<PacePoint> WithFive(IReadOnlyList<PacePoint> points, double five)
    {
        const double own = 5;
        var share = five / Standard(points, own);
        IReadOnlyList<PacePoint> from = points.Count == 0 ? [new(own, own)] : points;
        List<PacePoint> stretched =
        [
            .. from.Select(p => p with { Standard = Math.Clamp(Math.Round(p.Standard * share, 3), LeastStandard, MostStandard) }),
        ];
        return stretched.All(p => p.Own == p.Standard) ? [] : stretched;
    }
}
