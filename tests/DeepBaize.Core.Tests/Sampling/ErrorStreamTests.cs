using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;

namespace DeepBaize.Core.Tests.Sampling;

/// <summary>Quasi-random errors and the figures drawn from them.</summary>
public class ErrorStreamTests
{
    [Theory]
    [InlineData(0.5, 0)]
    [InlineData(0.9, 1.281551565545)]
    [InlineData(0.975, 1.959963984540)]
    [InlineData(0.99, 2.326347874041)]
    [InlineData(0.001, -3.090232306168)]
    public void The_normal_quantile_is_the_tabulated_one(double p, double z) => // any statistical table, from memory
        Assert.Equal(z, Normal.Quantile(p), 1e-10);

    /// <summary>
    /// What makes a Sobol net (Sobol 1967, Niederreiter 1987, from memory): of 2^k points each of the 2^k slabs of every dimension holds
    /// one; of the first two dimensions every box of area 2^−k that halvings make holds one too. Owen's scrambling keeps that.
    /// </summary>
    [Theory]
    [InlineData(4)]
    [InlineData(6)]
    [InlineData(8)]
    public void A_scrambled_net_puts_one_point_into_each_slab_and_each_box(int k)
    {
        var count = 1 << k;
        foreach (var seed in (uint[])[1, 77, 123456789])
        {
            for (var d = 0; d < ScrambledNet.Dimensions; d++)
                Assert.Equal(
                    Enumerable.Range(0, count),
                    Enumerable.Range(0, count).Select(i => (int)(count * ScrambledNet.At((uint)i, d, seed))).Order()
                );
            for (var a = 0; a <= k; a++)
                Assert.Equal(
                    count,
                    Enumerable
                        .Range(0, count)
                        .Select(i =>
                            ((int)((1 << a) * ScrambledNet.At((uint)i, 0, seed)), (int)((1 << (k - a)) * ScrambledNet.At((uint)i, 1, seed)))
                        )
                        .Distinct()
                        .Count()
                );
        }
    }

    [Fact]
    public void A_point_by_itself_is_uniform_over_the_scramblings()
    {
        // So that averages are unbiased (Owen 1998). Of 4,000 seeds: mean 1/2, variance 1/12, within four standard errors.
        const int seeds = 4000;
        for (var d = 0; d < ScrambledNet.Dimensions; d++)
        {
            var at = Enumerable.Range(0, seeds).Select(s => ScrambledNet.At(5, d, (uint)s)).ToList();
            Assert.Equal(0.5, at.Average(), 4 / Math.Sqrt(12.0 * seeds));
            Assert.Equal(1 / 12.0, at.Average(x => (x - 0.5) * (x - 0.5)), 0.006);
        }
    }

    [Fact]
    public void The_parts_of_luck_are_standard_normal_and_independent_each_in_a_dimension_of_its_own()
    {
        var errors = Enumerable.Range(0, 4096).Select(i => ErrorStream.Named("test").At(i)).ToList();
        // What is uniform is made normal, to be held to the same.
        Func<StandardDraws, double>[] parts =
        [
            e => e.Direction,
            e => e.Sighting,
            e => e.Allowance,
            e => e.Pace,
            e => e.Side,
            e => e.Height,
            e => Normal.Quantile(e.FactorQuantile),
            e => Normal.Quantile(e.SlipSpeed),
            e => Normal.Quantile(e.SlipTurn),
        ];
        Assert.Equal(StandardDraws.Parts, parts.Length);
        Assert.True(StandardDraws.Parts < ScrambledNet.Dimensions, "one is left for the coin");
        foreach (var part in parts)
        {
            Assert.Equal(0, errors.Average(part), 0.02);
            Assert.Equal(1, errors.Average(e => part(e) * part(e)), 0.03);
        }
        for (var a = 0; a < parts.Length; a++)
            for (var b = 0; b < a; b++)
                Assert.Equal(0, errors.Average(e => parts[a](e) * parts[b](e)), 0.05);
    }

    [Fact]
    public void Streams_of_other_names_and_parts_are_other_errors_and_the_same_name_gives_the_same()
    {
        var one = ErrorStream.Named("choose").At(3);
        Assert.Equal(one, ErrorStream.Named("choose").At(3));
        Assert.NotEqual(one, ErrorStream.Named("tell").At(3));
        Assert.NotEqual(one, ErrorStream.Named("choose").Part(0).At(3));
        Assert.NotEqual(ErrorStream.Named("choose").Part(0).At(3), ErrorStream.Named("choose").Part(1).At(3));
        Assert.Equal(8, ErrorStream.Named("choose").Set(8).Distinct().Count());
    }

    /// <summary>Means of a smooth figure and of a share whose values are known in closed form: E z² = 1, P(z &lt; 0.3).</summary>
    [Theory]
    [InlineData(256)]
    [InlineData(1024)]
    public void The_error_that_is_told_is_the_scatter_there_is_and_less_than_half_of_plain_strokes_give(int strokes)
    {
        const int streams = 200;
        var (squares, shares) = (new List<Estimate>(), new List<Estimate>());
        for (var s = 0; s < streams; s++)
        {
            var (square, share) = (new Sums(), new Sums());
            for (var i = 0; i < strokes; i++)
            {
                var z = ErrorStream.Named($"scatter {s}").At(i).Direction;
                square.Add(i, z * z);
                share.Add(i, z < 0.3);
            }
            squares.Add(square.Mean);
            shares.Add(share.Share);
        }
        static double Scatter(List<Estimate> of, double truth) => Math.Sqrt(of.Average(e => Math.Pow(e.Value - truth, 2)));
        var p = MathNet.Numerics.Distributions.Normal.CDF(0, 1, 0.3);
        // Plain: Var z² = 2.
        Assert.InRange(Scatter(squares, 1), 0, 0.5 * Math.Sqrt(2.0 / strokes));
        Assert.InRange(Scatter(shares, p), 0, 0.5 * Math.Sqrt(p * (1 - p) / strokes));
        Assert.InRange(squares.Average(e => e.Error) / Scatter(squares, 1), 0.7, 1.4);
        // Half a stroke is as fine as a share of a one-dimensional net can be told.
        Assert.True(shares.Average(e => e.Error) >= 0.9 * Scatter(shares, p));
    }

    [Fact]
    public void A_ratio_and_a_difference_know_their_error_too()
    {
        // Of z given z > 0: √(2/π), the half-normal's mean; and (z + 1) − z = 1 with no error at all in the same strokes.
        var (sum, count, one, other) = (new Sums(), new Sums(), new Sums(), new Sums());
        for (var i = 0; i < 2048; i++)
        {
            var z = ErrorStream.Named("ratio").At(i).Direction;
            sum.Add(i, z > 0 ? z : 0);
            count.Add(i, z > 0);
            one.Add(i, z + 1);
            other.Add(i, z);
        }
        var mean = sum.For(count);
        Assert.Equal(Math.Sqrt(2 / Math.PI), mean.Value, 4 * mean.Error + 1e-3);
        Assert.InRange(mean.Error, 1e-6, 0.01);
        Assert.Equal(1, one.Less(other).Value, 1e-9);
        Assert.Equal(0, one.Less(other).Error, 1e-9);
        Assert.False(one.Mean.IsLevelWith(other.Mean));
        Assert.True(new Estimate(0.50, 0.01, 100).IsLevelWith(new(0.52, 0.01, 100)));
    }

    [Fact]
    public void A_share_that_never_failed_is_not_told_as_certain()
    {
        var sums = new Sums();
        for (var i = 0; i < 98; i++)
            sums.Add(i, true);
        Assert.Equal(new Estimate(1, 0.01, 98), sums.Share);
    }
}
