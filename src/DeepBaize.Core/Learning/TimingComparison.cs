namespace DeepBaize.Core.Learning;

/// <summary>A figure of several strokes.</summary>
/// <param name="Name">contactSpeed, peakBefore, backswing, backswingTime, pause, delivery or followThrough.</param>
/// <param name="Values">Of each stroke, in m, s or m/s; null where it is not seen.</param>
/// <param name="Mean">Of those that are.</param>
/// <param name="Spread">Their standard deviation.</param>
/// <param name="Scatters">Whether they differ by more than is usual of one player's strokes.</param>
public sealed record TimingFigure(string Name, IReadOnlyList<double?> Values, double Mean, double Spread, bool Scatters);

/// <summary>Strokes of the cue beside one another: what is alike in them, and what scatters.</summary>
public static class TimingComparison
{
    /// <summary>Most strokes that are compared.</summary>
    public const int Most = 5;

    /// <summary>Name, value, and the spread that is usual of one player: common practice, no source.</summary>
    private static readonly (string Name, Func<StrokeTiming, double?> Of, double Usual, bool IsShare)[] Figures =
    [
        ("contactSpeed", t => t.Speed.Value, 0.06, true),
        ("peakBefore", t => t.PeakBefore?.Value, 0.006, false),
        ("backswing", t => t.Backswing?.Length, 0.02, false),
        ("backswingTime", t => t.Backswing?.Seconds, 0.1, false),
        ("pause", t => t.Pause?.Seconds, 0.08, false),
        ("delivery", t => t.Delivery?.Seconds, 0.025, false),
        ("followThrough", t => t.FollowThrough?.Length, 0.03, false),
    ];

    /// <summary>Compares up to five strokes; figures that fewer than two of them show are left out.</summary>
    public static IReadOnlyList<TimingFigure> Of(IReadOnlyList<StrokeTiming> strokes)
    {
        var told = new List<TimingFigure>();
        foreach (var (name, of, usual, isShare) in Figures)
        {
            List<double?> values = [.. strokes.Select(of)];
            List<double> seen = [.. values.OfType<double>()];
            if (seen.Count < 2)
                continue;
            var mean = seen.Average();
            var spread = Math.Sqrt(seen.Sum(v => (v - mean) * (v - mean)) / (seen.Count - 1));
            told.Add(new(name, values, mean, spread, spread > (isShare ? usual * Math.Abs(mean) : usual)));
        }
        return told;
    }
}
