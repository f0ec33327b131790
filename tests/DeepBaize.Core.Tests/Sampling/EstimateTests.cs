using DeepBaize.Core.Geometry;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Tests.Sampling;

/// <summary>
/// What an error from eight nets means: Student's distribution with seven degrees of freedom, whose two-sided quantile of 5 % is 2.365 and
/// whose standard deviation is √(7/5) (any statistical table, from memory).
/// </summary>
public class EstimateTests
{
    private const int Cases = 40_000;

    /// <summary>Figures whose true mean is 0, from eight nets that each come to a standard normal number.</summary>
    private static IEnumerable<(Sums One, Sums Other)> Figures()
    {
        var random = new Random(11);
        for (var i = 0; i < Cases; i++)
        {
            var (one, other) = (new Sums(), new Sums());
            for (var net = 0; net < ErrorStream.Replicates; net++)
            {
                var (a, b) = Normal.Pair(random);
                one.Add(net, a);
                other.Add(net, b);
            }
            yield return (one, other);
        }
    }

    [Fact]
    public void A_figure_errs_by_what_it_says() =>
        // The mean square of a figure in its own errors: 1, and 1.4 if the doubt about the error were left out.
        Assert.Equal(1, Figures().Average(f => Math.Pow(f.One.Mean.Value / f.One.Mean.Error, 2)), 0.04);

    [Fact]
    public void One_in_twenty_of_equal_entrants_is_taken_to_be_worse()
    {
        // Two plain standard errors would be 8.6 %.
        var apart = Figures().Count(f => f.One.Less(f.Other) is var less && Math.Abs(less.Value) > Estimate.ApartBy * less.Error);
        Assert.Equal(0.05, apart / (double)Cases, 0.004);
        Assert.Equal(2.365, Estimate.ApartBy * Sums.StudentDeviation(7), 0.001);
        // Of two with strokes of their own it is less, for together they have more degrees of freedom.
        Assert.InRange(Figures().Count(f => !f.One.Mean.IsLevelWith(f.Other.Mean)) / (double)Cases, 0.02, 0.05);
    }

    [Theory]
    [InlineData(0.59, 0.004, 256, false)] // √(0.59 · 0.41 / 256) = 0.031; half of that is more than a hundredth
    [InlineData(0.59, 0.004, 1024, true)]
    [InlineData(0.59, 0.02, 1024, false)]
    [InlineData(0.99, 0.004, 256, true)]
    public void Sampling_does_not_stop_where_the_nets_agree_by_luck(double share, double error, int strokes, bool isKnown) =>
        Assert.Equal(isKnown, new Estimate(share, error, strokes).IsShareKnownTo(SpreadEffort.EnoughError));
}
