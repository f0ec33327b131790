using CsCheck;
using DeepBaize.Core.Physics;
using MathNet.Numerics;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>Against the eigenvalue root finder of Math.NET Numerics.</summary>
public class FirstCrossingTests
{
    private static double Reference(double[] c, double end)
    {
        var roots = new Polynomial(c).Roots();
        double Slope(double t) => c[1] + t * (2 * c[2] + t * (3 * c[3] + t * 4 * c[4]));
        return roots
            .Where(r => Math.Abs(r.Imaginary) < 1e-9 && r.Real >= 0 && r.Real <= end && Slope(r.Real) < 0)
            .Select(r => r.Real)
            .DefaultIfEmpty(double.PositiveInfinity)
            .Min();
    }

    [Fact]
    public void Finds_the_root_that_Math_NET_finds() =>
        Gen.Select(Gen.Double[0.01, 1], Gen.Double[-5, 5].Select(c => Math.Abs(c) < 0.01 ? 0.01 : c).Array[4], Gen.Double[0.1, 4])
            .Sample(
                (c0, c, end) =>
                {
                    double[] all = [c0, .. c];
                    var expected = Reference(all, end);
                    // Within rounding of a tangent, or of the interval's end, either answer is right.
                    if (
                        Math.Abs(expected - Reference([c0 + 1e-7, .. c], end)) > 1e-3
                        || Math.Abs(expected - Reference([c0 - 1e-7, .. c], end)) > 1e-3
                    )
                        return;
                    if (Math.Abs(expected - end) < 1e-6)
                        return;
                    Assert.Equal(expected, FirstCrossing.Of(c0, c[0], c[1], c[2], c[3], end), 1e-7);
                },
                iter: Thoroughness.Cases(20_000)
            );

    [Theory]
    [InlineData(1e-6)]
    [InlineData(1e-9)]
    [InlineData(1e-12)]
    public void A_near_tangent_dip_is_found_at_its_start_and_a_near_miss_is_none(double depth)
    {
        // (t − 1)² ± depth.
        Assert.Equal(1 - Math.Sqrt(depth), FirstCrossing.Of(1 - depth, -2, 1, 0, 0, 3), 1e-4 * Math.Sqrt(depth) + 1e-9);
        Assert.Equal(double.PositiveInfinity, FirstCrossing.Of(1 + depth, -2, 1, 0, 0, 3));
    }

    [Fact]
    public void Two_roots_close_together_give_the_first_falling_one() =>
        Assert.Equal(0.5, FirstCrossing.Of(0.5 * 0.500001, -1.000001, 1, 0, 0, 2), 1e-6);

    [Theory]
    [InlineData(1, -2, 0, 1, 0.5)]
    [InlineData(1, -2, 0, 0.4, double.PositiveInfinity)]
    [InlineData(-0.1, 1, -1, 5, 0.88729833462)]
    [InlineData(1, 1, 1, 5, double.PositiveInfinity)]
    public void Quadratics(double c0, double c1, double c2, double end, double expected) =>
        Assert.Equal(expected, FirstCrossing.OfQuadratic(c0, c1, c2, end), 1e-9);
}
