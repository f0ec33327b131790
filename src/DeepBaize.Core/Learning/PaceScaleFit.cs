using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using MathNet.Numerics.Statistics;

namespace DeepBaize.Core.Learning;

/// <summary>What attempts at one number of a player's own scale came to.</summary>
/// <param name="Own">The number that was named before the stroke.</param>
/// <param name="Standard">Median of the standard paces that the strokes had.</param>
/// <param name="Error">Standard error of the median; 0 of a single attempt.</param>
/// <param name="Attempts">Number of attempts.</param>
public sealed record PaceEstimate(double Own, double Standard, double Error, int Attempts);

/// <summary>A player's own scale of paces, by where plain strokes ended that he named a pace for.</summary>
public static class PaceScaleFit
{
    /// <summary>Speeds that are tried, as shares of the standard one; around each that ends nearest, the step is halved in turn.</summary>
    private const double Softest = 0.5,
        Hardest = 2;

    private const int Tried = 120,
        Halvings = 10;

    /// <summary>Worse by so much than the nearest, in squared standard deviations of what was seen, a speed does not explain it.</summary>
    private const double Explains = 9;

    /// <summary>
    /// Standard deviations of logarithms of the speed: of what all of a player's numbers are off the standard scale together, and of what
    /// a single number is off the others; and the most, squared, that a single number counts for.
    /// </summary>
    private const double Common = 0.3,
        Single = 0.12,
        MostSingle = 4;

    /// <summary>
    /// Logarithms of the shares of the meant speed with which the stroke ends where the white was seen. There may be several: a ball stops
    /// at the same place on its way up the table and on its way back.
    /// </summary>
    private static List<double> SharesOf(ObservedStroke observed, TableShape shape)
    {
        var replay = new StrokeReplay(observed, shape);
        var error = new double[ErrorPart.Usual];
        double Off(double log)
        {
            error[ErrorPart.Pace] = Math.Exp(log) - 1;
            return replay.Play(error).Square;
        }
        var step = Math.Log(Hardest / Softest) / Tried;
        var tried = Enumerable.Range(0, Tried + 1).Select(i => Math.Log(Softest) + i * step).Select(at => (At: at, Off: Off(at))).ToList();
        List<(double At, double Off)> nearest = [];
        for (var i = 0; i <= Tried; i++)
            if ((i == 0 || tried[i].Off <= tried[i - 1].Off) && (i == Tried || tried[i].Off < tried[i + 1].Off))
                nearest.Add(Refined(tried[i], step / 2));
        var least = nearest.Min(n => n.Off);
        return [.. nearest.Where(n => n.Off <= least + Explains).Select(n => n.At)];

        (double At, double Off) Refined((double At, double Off) best, double width)
        {
            for (var i = 0; i < Halvings; i++, width /= 2)
                foreach (var at in (double[])[best.At - width, best.At + width])
                    if (Off(at) is var off && off < best.Off)
                        best = (at, off);
            return best;
        }
    }

    /// <summary>What each number came to, in the order of the numbers.</summary>
    /// <param name="attempts">The number named, and what was seen of the stroke.</param>
    public static IReadOnlyList<PaceEstimate> Of(IEnumerable<(double Own, ObservedStroke Stroke)> attempts, TableShape shape)
    {
        var explained = attempts.Select(a => (a.Own, a.Stroke.Meant.Pace, Shares: SharesOf(a.Stroke, shape))).ToList();
        static double From(double share, double all) => Math.Pow((share - all) / Single, 2);
        // Which of several explanations holds is told by the other strokes: a player's numbers are off the standard by much the same share.
        var common = Enumerable
            .Range(-70, 141)
            .Select(i => 0.01 * i)
            .MinBy(all => Math.Pow(all / Common, 2) + explained.Sum(e => Math.Min(MostSingle, e.Shares.Min(s => From(s, all)))));
        return
        [
            .. explained
                .GroupBy(e => e.Own, e => Pace.OfCueSpeed(Pace.CueSpeed(e.Pace) * Math.Exp(e.Shares.MinBy(s => From(s, common)))))
                .OrderBy(g => g.Key)
                .Select(g => Estimate(g.Key, [.. g.Order()])),
        ];
    }

    private static PaceEstimate Estimate(double own, List<double> paces)
    {
        var median = (paces[(paces.Count - 1) / 2] + paces[paces.Count / 2]) / 2;
        // Of a normal sample the median scatters √(π/2) times as much as the mean.
        var error = paces.Count < 2 ? 0 : Math.Sqrt(Math.PI / 2 / paces.Count) * paces.StandardDeviation();
        return new(own, median, error, paces.Count);
    }

    /// <summary>
    /// Returns a scale that rises: where a higher number was no harder, the two are taken together (pooled adjacent violators), weighted by
    /// their attempts.
    /// </summary>
    public static IReadOnlyList<PacePoint> Scale(IReadOnlyList<PaceEstimate> estimates)
    {
        const double least = 0.05;
        List<(double Own, double Standard, int Weight)> pools = [];
        foreach (var e in estimates)
        {
            var pool = (e.Own, e.Standard, Weight: e.Attempts);
            while (pools.Count > 0 && pool.Standard < pools[^1].Standard + least)
            {
                var (own, standard, weight) = pools[^1];
                pools.RemoveAt(pools.Count - 1);
                var all = weight + pool.Weight;
                pool = ((own * weight + pool.Own * pool.Weight) / all, (standard * weight + pool.Standard * pool.Weight) / all, all);
            }
            pools.Add(pool);
        }
        return [.. pools.Select(p => new PacePoint(Math.Round(p.Own, 2), Math.Round(p.Standard, 2))).Take(PaceScale.MostPoints)];
    }
}
