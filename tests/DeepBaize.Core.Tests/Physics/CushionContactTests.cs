using CsCheck;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>Mathavan, Jackson &amp; Parkin, Proc. IMechE Part C 224 (2010) 1863.</summary>
[Trait("Speed", "Slow")]
public class CushionContactTests
{
    private static readonly CushionContact Cushion = new(Conditions.Default);

    // The worked values of docs/model.md, computed there by small steps of the cited equations.
    [Theory]
    [InlineData(2, 0, false, 0, -1.702, 0)]
    [InlineData(2, 0, true, 0, -1.839, 0)]
    [InlineData(1.414, 1.414, true, 0, -1.355, 1.036)]
    [InlineData(1.414, 1.414, false, 0, -1.272, 0.868)]
    [InlineData(1.414, 1.414, true, 40, -1.363, 1.002)]
    [InlineData(1.414, 1.414, true, -40, -1.327, 1.135)]
    public void Comes_off_the_top_cushion_as_the_worked_values_say(double vx, double vy, bool rolling, double wz, double outX, double outY)
    {
        var (wx, wy) = rolling ? (-vy / BallRadius, vx / BallRadius) : (0, 0);
        var after = Cushion.Rebound(new(vx, vy, wx, wy, wz), 1, 0);
        Assert.Equal(outX, after.Vx, 0.001);
        Assert.Equal(outY, after.Vy, 0.001);
    }

    [Fact]
    public void Agrees_with_small_steps_of_the_equations_to_a_tenth_of_a_percent() =>
        Gen.Select(Gen.Double[0.05, 3], Gen.Double[-4, 4], Gen.Double[-150, 150], Gen.Double[-150, 150], Gen.Double[-150, 150])
            .Sample(
                (vk, vt, wx, wy, wz) =>
                {
                    var before = new BallMotion(vk, vt, wx, wy, wz);
                    var expected = FineStep.Cushion(before, 1, 0, Conditions.Default, 100_000);
                    var actual = Cushion.Rebound(before, 1, 0);
                    var size = Math.Sqrt(2 * before.Energy);
                    var off = Math.Max(Math.Abs(actual.Vx - expected.Vx), Math.Abs(actual.Vy - expected.Vy));
                    var offSpin =
                        BallRadius
                        * Math.Max(
                            Math.Abs(actual.Wz - expected.Wz),
                            Math.Max(Math.Abs(actual.Wx - expected.Wx), Math.Abs(actual.Wy - expected.Wy))
                        );
                    Assert.True(off < 1e-3 * size && offSpin < 1e-3 * size, $"{before}: {actual} instead of {expected}");
                },
                iter: 300,
                threads: 2
            );

    [Fact]
    public void A_rolling_ball_with_any_side_comes_off_as_small_steps_say() =>
        Gen.Select(Gen.Double[0.05, 3], Gen.Double[-6, 6], Gen.Double[-150, 150])
            .Sample(
                (vk, vt, wz) =>
                {
                    var before = new BallMotion(vk, vt, -vt / BallRadius, vk / BallRadius, wz);
                    var expected = FineStep.Cushion(before, 1, 0, Conditions.Default, 100_000);
                    var actual = Cushion.Rebound(before, 1, 0);
                    // Ten times as exact as model.md asks: most rebounds are of balls that roll.
                    var most = 1e-4 * Math.Sqrt(2 * before.Energy);
                    Assert.Equal(expected.Vx, actual.Vx, most);
                    Assert.Equal(expected.Vy, actual.Vy, most);
                    Assert.Equal(expected.Wz * BallRadius, actual.Wz * BallRadius, most);
                },
                iter: 300,
                threads: 2
            );

    [Fact]
    public void A_slip_at_the_nose_that_turns_over_as_it_nearly_dies_agrees_with_small_steps_too()
    {
        var before = new BallMotion(2.411764705882353, 0, -58.56712493105675, 82.55175623995589, -22.844810136490594);
        var expected = FineStep.Cushion(before, 1, 0, Conditions.Default, 1_000_000);
        var actual = Cushion.Rebound(before, 1, 0);
        Assert.Equal(expected.Vx, actual.Vx, 2e-4);
        Assert.Equal(expected.Vy, actual.Vy, 2e-4);
        Assert.Equal(expected.Wy, actual.Wy, 2e-4 / BallRadius);
    }

    [Fact]
    public void Gives_the_same_in_every_direction_and_scales_with_speed() =>
        Gen.Select(Gen.Double[0, 2 * Math.PI], Gen.Double[0.1, 3], Gen.Double[-3, 3], Gen.Double[-100, 100], Gen.Double[0.3, 3])
            .Sample(
                (turn, vk, vt, wz, scale) =>
                {
                    var (s, c) = Math.SinCos(turn);
                    var straight = Cushion.Rebound(new(vk, vt, -vt / BallRadius, vk / BallRadius, wz), 1, 0);
                    var turned = Cushion.Rebound(
                        new(
                            scale * (c * vk - s * vt),
                            scale * (s * vk + c * vt),
                            scale * (-c * vt - s * vk) / BallRadius,
                            scale * (-s * vt + c * vk) / BallRadius,
                            scale * wz
                        ),
                        c,
                        s
                    );
                    Assert.Equal(c * straight.Vx - s * straight.Vy, turned.Vx / scale, 1e-4);
                    Assert.Equal(s * straight.Vx + c * straight.Vy, turned.Vy / scale, 1e-4);
                    Assert.Equal(straight.Wz, turned.Wz / scale, 1e-2);
                },
                iter: 500
            );

    [Fact]
    public void Never_gives_energy_and_always_sends_the_ball_away() =>
        Gen.Select(Gen.Double[0.001, 7], Gen.Double[-7, 7], Gen.Double[-300, 300], Gen.Double[-300, 300], Gen.Double[-300, 300])
            .Sample(
                (vk, vt, wx, wy, wz) =>
                {
                    var before = new BallMotion(vk, vt, wx, wy, wz);
                    var after = Cushion.Rebound(before, 1, 0);
                    Assert.True(after.Energy <= before.Energy * (1 + 1e-6));
                    Assert.True(after.Vx <= 0);
                },
                iter: 5000
            );

    [Fact]
    public void Side_takes_more_on_a_slow_ball_than_on_a_fast_one()
    {
        // Common practice, no source.
        double Turn(double v) => -Math.Atan2(Cushion.Rebound(new(v, 0, 0, v / BallRadius, 40), 1, 0).Vy, v);
        Assert.True(Math.Abs(Turn(0.5)) > 1.5 * Math.Abs(Turn(2)));
    }

    [Fact]
    public void A_ball_that_does_not_approach_is_left_alone()
    {
        var leaving = new BallMotion(-1, 0.5, 3, 4, 5);
        Assert.Equal(leaving, Cushion.Rebound(leaving, 1, 0));
    }
}
