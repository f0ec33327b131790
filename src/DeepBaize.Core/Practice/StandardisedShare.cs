namespace DeepBaize.Core.Practice;

/// <summary>
/// A week's share at one mix of routines, so that a week of easy routines does not look like getting better.
/// </summary>
/// <param name="Share">0–1.</param>
/// <param name="Low">Lower bound of the 95 % interval.</param>
/// <param name="High">Upper bound of the 95 % interval.</param>
/// <param name="Covered">Share of the mix that was played in the week, 0–1.</param>
/// <remarks>
/// Direct standardisation (Breslow &amp; Day, <i>Statistical Methods in Cancer Research</i> II, 1987, from memory) to the mix of all weeks.
/// Of the routines played in the week, each is compared with itself over all weeks; the mean of these differences, weighted by the mix, is
/// added to the share of the whole mix. With every routine played it is the directly standardised share itself. Each routine's variance is
/// that of Agresti and Coull (<i>American Statistician</i> 52 (1998) 119): two attempts done and two not are added.
/// </remarks>
public sealed record StandardisedShare(double Share, double Low, double High, double Covered)
{
    /// <summary>Returns the standardised share of a week; null if nothing of the mix was played.</summary>
    /// <param name="week">Counts of the week, by routine.</param>
    /// <param name="all">Counts over all weeks, by routine: the mix, and what each routine is compared with.</param>
    public static StandardisedShare? Of(IReadOnlyDictionary<string, SuccessCount> week, IReadOnlyDictionary<string, SuccessCount> all)
    {
        var (whole, played, difference, variance) = (default(SuccessCount), 0.0, 0.0, 0.0);
        foreach (var (routine, total) in all)
        {
            whole += total;
            if (!week.TryGetValue(routine, out var count) || count.Of == 0)
                continue;
            var weight = (double)total.Of;
            played += weight;
            difference += weight * (count.Share - total.Share);
            var (n, p) = (count.Of + 4.0, (count.Done + 2) / (count.Of + 4.0));
            variance += weight * weight * p * (1 - p) / n;
        }
        if (played == 0)
            return null;
        var share = Math.Clamp(whole.Share + difference / played, 0, 1);
        var half = SuccessCount.Usual * Math.Sqrt(variance) / played;
        return new(share, Math.Max(0, share - half), Math.Min(1, share + half), played / whole.Of);
    }
}
