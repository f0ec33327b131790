namespace DeepBaize.Core.Practice;

/// <summary>An ellipse: its semi-axes, the longer first, m, and how the longer one lies.</summary>
public sealed record Ellipse(Vec2 Centre, double Longer, double Shorter, Angle Direction);

/// <summary>Where a ball came to rest in some attempts.</summary>
/// <param name="Mean">m.</param>
/// <param name="Along">Standard deviation up and down the table, m.</param>
/// <param name="Across">Standard deviation across it, m.</param>
/// <param name="Together">Covariance of the two, m².</param>
public sealed record StopSpread(Vec2 Mean, double Along, double Across, double Together)
{
    /// <returns>Null of fewer than three places.</returns>
    public static StopSpread? Of(IReadOnlyList<Vec2> places)
    {
        if (places.Count < 3)
            return null;
        Vec2 mean = new(places.Average(p => p.X), places.Average(p => p.Y));
        double Moment(Func<Vec2, double> of) => places.Sum(of) / (places.Count - 1);
        return new(
            mean,
            Math.Sqrt(Moment(p => (p.X - mean.X) * (p.X - mean.X))),
            Math.Sqrt(Moment(p => (p.Y - mean.Y) * (p.Y - mean.Y))),
            Moment(p => (p.X - mean.X) * (p.Y - mean.Y))
        );
    }

    /// <summary>The ellipse that holds this share of places that scatter like these.</summary>
    /// <remarks>
    /// Along the axes of the covariance; of two normal errors the squared distance has an exponential distribution, so that the radius is
    /// √(−2 ln(1 − share)) standard deviations.
    /// </remarks>
    public Ellipse Holding(double share)
    {
        var (x, y) = (Along * Along, Across * Across);
        var (middle, half) = ((x + y) / 2, Math.Sqrt((x - y) * (x - y) / 4 + Together * Together));
        var radius = Math.Sqrt(-2 * Math.Log(1 - share));
        return new(
            Mean,
            radius * Math.Sqrt(middle + half),
            radius * Math.Sqrt(Math.Max(0, middle - half)),
            Angle.FromRadians(Math.Atan2(2 * Together, x - y) / 2)
        );
    }

    /// <summary>The middle one; of an even number between the two.</summary>
    /// <exception cref="ArgumentException">There are none.</exception>
    public static double Median(IEnumerable<double> values)
    {
        double[] sorted = [.. values.Order()];
        if (sorted.Length == 0)
            throw new ArgumentException("No values.");
        return (sorted[(sorted.Length - 1) / 2] + sorted[sorted.Length / 2]) / 2;
    }
}
