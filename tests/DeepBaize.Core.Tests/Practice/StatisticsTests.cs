using CsCheck;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Practice;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearAlgebra;
using MathNet.Numerics.LinearRegression;
using MathNet.Numerics.RootFinding;
using MathNet.Numerics.Statistics;

namespace DeepBaize.Core.Tests.Practice;

/// <summary>Statistics of attempts, against published tables and Math.NET.</summary>
public class StatisticsTests
{
    /// <summary>Newcombe, Statistics in Medicine 17 (1998) 857, table I, method 3 (from memory).</summary>
    [Theory]
    [InlineData(81, 263, 0.2553, 0.3662)]
    [InlineData(15, 148, 0.0624, 0.1605)]
    [InlineData(0, 20, 0.0, 0.1611)]
    [InlineData(1, 29, 0.0061, 0.1718)]
    public void The_interval_of_a_share_is_that_of_the_table(int done, int of, double low, double high)
    {
        var interval = new SuccessCount(done, of).Interval;
        Assert.Equal((low, high), (Math.Round(interval.Low, 4), Math.Round(interval.High, 4)));
    }

    /// <summary>
    /// Wilson's own definition: the shares of which what was seen is just as far off as one in twenty are; by Math.NET's root finder.
    /// </summary>
    [Fact]
    public void Its_ends_are_the_shares_that_just_allow_what_was_seen()
    {
        var z = MathNet.Numerics.Distributions.Normal.InvCDF(0, 1, 0.975);
        Gen.Select(Gen.Int[1, 400], Gen.Double[0.01, 0.99])
            .Sample(
                (of, share) =>
                {
                    var tally = new SuccessCount(Math.Clamp((int)(share * of), 0, of), of);
                    double Off(double p) => Math.Abs(tally.Share - p) - z * Math.Sqrt(p * (1 - p) / of);
                    var (low, high) = tally.Interval;
                    if (tally.Done > 0)
                        Assert.Equal(Brent.FindRoot(Off, 1e-12, tally.Share - 1e-9, 1e-13), low, 9);
                    if (tally.Done < of)
                        Assert.Equal(Brent.FindRoot(Off, tally.Share + 1e-9, 1 - 1e-12, 1e-13), high, 9);
                },
                iter: Thoroughness.Cases(300)
            );
        Assert.Equal((0, 1), new SuccessCount(0, 0).Interval);
    }

    /// <summary>Newcombe, Statistics in Medicine 17 (1998) 873, table II, method 10 (from memory).</summary>
    [Theory]
    [InlineData(48, 80, 56, 70, 0.0524, 0.3339)]
    [InlineData(3, 10, 9, 10, 0.1705, 0.8090)]
    public void The_interval_of_a_difference_is_that_of_the_table(int before, int ofBefore, int now, int ofNow, double low, double high)
    {
        var change = Change.Of(new(before, ofBefore), new(now, ofNow));
        Assert.Equal((low, high), (Math.Round(change.Low, 4), Math.Round(change.High, 4)));
        Assert.Equal(Progression.Better, change.Verdict);
        Assert.Equal(Progression.Worse, Change.Of(new(now, ofNow), new(before, ofBefore)).Verdict);
    }

    /// <summary>Two shares of so many that the normal law holds: as the chi-squared test of Math.NET's distribution says.</summary>
    [Fact]
    public void Of_many_attempts_the_verdict_is_that_of_the_test_of_two_shares()
    {
        var checks = 0;
        Gen.Select(Gen.Int[800, 2000], Gen.Double[0.3, 0.7], Gen.Double[-0.12, 0.12])
            .Sample(
                (of, share, more) =>
                {
                    SuccessCount before = new((int)(share * of), of),
                        now = new((int)((share + more) * of), of);
                    var all = (before + now).Share;
                    var z = (now.Share - before.Share) / Math.Sqrt(all * (1 - all) * 2 / of);
                    var p = 1 - ChiSquared.CDF(1, z * z);
                    // Where the two laws differ by their rounding nothing is said.
                    if (p is > 0.045 and < 0.055)
                        return;
                    Interlocked.Increment(ref checks);
                    Assert.Equal(p < 0.05, Change.Of(before, now).Verdict != Progression.NotYet);
                },
                iter: Thoroughness.Cases(400)
            );
        Assert.True(checks > Thoroughness.Cases(300));
    }

    [Fact]
    public void Few_attempts_tell_nothing_and_it_is_said_how_many_would()
    {
        var change = Change.Of(new(5, 10), new(7, 10));
        Assert.Equal(Progression.NotYet, change.Verdict);
        // Fleiss, Statistical Methods for Rates and Proportions: 0.5 against 0.7, 5 %, power 0.8, without the correction (from memory).
        Assert.Equal(93, change.Needed);
        Assert.Null(Change.Of(new(5, 10), new(10, 20)).Needed);
        Assert.Throws<ArgumentException>(() => Change.Of(new(0, 0), new(1, 2)));
    }

    [Theory]
    [InlineData("", 0)]
    [InlineData("0101101110", 3)]
    [InlineData("111", 3)]
    public void The_longest_streak_is_counted(string attempts, int longest) =>
        Assert.Equal(longest, Streaks.Longest(attempts.Select(a => a == '1')));

    /// <summary>
    /// Over all numbers of heads it is the chance of a run in tosses of a coin: of three heads in ten tosses 520 of 1024 (Feller 1,
    /// XIII.7, by the recursion there).
    /// </summary>
    [Fact]
    public void Streaks_by_luck_add_up_to_those_of_a_coin()
    {
        var with = Enumerable.Range(0, 11).Sum(heads => Streaks.ByLuck(new(heads, 10), 3) * Binomial.PMF(0.5, 10, heads));
        Assert.Equal(520.0 / 1024, with, 8);
        Assert.Equal((1, 0, 1), (Streaks.ByLuck(new(4, 9), 0), Streaks.ByLuck(new(4, 9), 5), Streaks.ByLuck(new(9, 9), 9)));
        // Common practice has it that seven in a row are a streak; of seventy in a hundred luck alone makes them nearly always.
        Assert.InRange(Streaks.ByLuck(new(70, 100), 7), 0.85, 1);
    }

    [Fact]
    public void A_trend_is_the_line_that_Math_NET_lays_and_its_error_holds_the_truth_as_often_as_it_says()
    {
        double[] values = [0.2, 0.5, 0.1, 0.9, 0.7, 1.4, 0.8, 1.1, 0.9, 1.6];
        var line = SimpleRegression.Fit([.. Enumerable.Range(0, values.Length).Select(i => (double)i)], values);
        Assert.Equal(line.B, Trend.Of(values)!.PerAttempt, 12);
        var (random, held) = (new Random(17), 0);
        for (var i = 0; i < 2000; i++)
        {
            var trend = Trend.Of([.. Enumerable.Range(0, 60).Select(k => random.NextDouble() < 0.4 + 0.004 * k ? 1.0 : 0)])!;
            held += Math.Abs(trend.PerAttempt - 0.004) < 1.96 * trend.Error ? 1 : 0;
        }
        // 95 of 100, give or take three of its own errors.
        Assert.InRange(held / 2000.0, 0.935, 0.965);
        // Of a few attempts nothing is told: three in a line would have no error at all, and three nearly so an absurd one.
        Assert.Null(Trend.Of([1, 0, 1]));
    }

    [Fact]
    public void The_ellipse_of_stopping_places_is_that_of_Math_NETs_eigenvalues_and_holds_its_share()
    {
        var random = new Random(5);
        List<Vec2> places = [];
        for (var i = 0; i < 4000; i++)
        {
            var (a, b) = DeepBaize.Core.Geometry.Normal.Pair(random);
            places.Add(new(1 + 0.3 * a, 0.8 + 0.15 * a + 0.05 * b));
        }
        var spread = StopSpread.Of(places)!;
        var (x, y) = (places.Select(p => p.X).ToArray(), places.Select(p => p.Y).ToArray());
        Assert.Equal((x.StandardDeviation(), y.StandardDeviation()), (spread.Along, spread.Across), new Near(1e-12));
        Assert.Equal(x.Covariance(y), spread.Together, 12);
        var eigen = Matrix<double>
            .Build.DenseOfArray(
                new[,]
                {
                    { x.Variance(), x.Covariance(y) },
                    { x.Covariance(y), y.Variance() },
                }
            )
            .Evd();
        var radius = Math.Sqrt(ChiSquared.InvCDF(2, 0.68));
        var ellipse = spread.Holding(0.68);
        Assert.Equal(radius * Math.Sqrt(eigen.EigenValues[1].Real), ellipse.Longer, 9);
        Assert.Equal(radius * Math.Sqrt(eigen.EigenValues[0].Real), ellipse.Shorter, 9);
        var axis = eigen.EigenVectors.Column(1);
        Assert.Equal(0, ellipse.Direction.Unit.X * axis[1] - ellipse.Direction.Unit.Y * axis[0], 9);
        var inside = places.Count(p =>
        {
            var (off, unit) = (p - ellipse.Centre, ellipse.Direction.Unit);
            var (u, v) = (off.X * unit.X + off.Y * unit.Y, off.Y * unit.X - off.X * unit.Y);
            return u * u / (ellipse.Longer * ellipse.Longer) + v * v / (ellipse.Shorter * ellipse.Shorter) <= 1;
        });
        Assert.InRange(inside / 4000.0, 0.655, 0.705);
        Assert.Null(StopSpread.Of(places[..2]));
    }

    [Fact]
    public void The_median_is_Math_NETs() =>
        Gen.Double[-10, 10]
            .Array[1, 30]
            .Sample(values => Assert.Equal(Statistics.Median(values), StopSpread.Median(values), 12), iter: Thoroughness.Cases(200));

    private sealed class Near(double by) : IEqualityComparer<(double, double)>
    {
        public bool Equals((double, double) a, (double, double) b) => Math.Abs(a.Item1 - b.Item1) < by && Math.Abs(a.Item2 - b.Item2) < by;

        public int GetHashCode((double, double) pair) => 0;
    }
}
