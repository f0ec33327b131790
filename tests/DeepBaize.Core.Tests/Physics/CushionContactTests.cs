using CsCheck;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using DeepBaize.Core.Tests.Reference;
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

    /// <summary>Rebounds before and after, as the fine-step program computes them.</summary>
    private static IEnumerable<(BallMotion Before, BallMotion After)> Kept =>
        ReferenceTable
            .Rows("rebounds")
            .Select(r => (new BallMotion(r[0], r[1], r[2], r[3], r[4]), new BallMotion(r[6], r[7], r[8], r[9], r[10])));

    private static void Agrees(BallMotion before, BallMotion expected, double share)
    {
        var actual = Cushion.Rebound(before, 1, 0);
        var off = new[]
        {
            actual.Vx - expected.Vx,
            actual.Vy - expected.Vy,
            BallRadius * (actual.Wx - expected.Wx),
            BallRadius * (actual.Wy - expected.Wy),
            BallRadius * (actual.Wz - expected.Wz),
        }.Max(Math.Abs);
        Assert.True(off < share * Math.Sqrt(2 * before.Energy), $"{before}: {actual} instead of {expected}");
    }

    [Fact]
    public void Agrees_with_small_steps_of_the_equations_to_a_tenth_of_a_percent()
    {
        foreach (var (before, after) in Kept)
            Agrees(before, after, 1e-3);
    }

    [Fact]
    public void A_rolling_ball_with_any_side_comes_off_as_small_steps_say()
    {
        // Ten times as exact as model.md asks: most rebounds are of balls that roll.
        static double Slip(BallMotion m) => Math.Abs(m.Vx - BallRadius * m.Wy) + Math.Abs(m.Vy + BallRadius * m.Wx);
        var rolling = Kept.Where(k => Slip(k.Before) < 1e-9).ToList();
        Assert.Equal(300, rolling.Count);
        foreach (var (before, after) in rolling)
            Agrees(before, after, 1e-4);
    }

    [Fact]
    public void A_slip_at_the_nose_that_turns_over_as_it_nearly_dies_agrees_with_small_steps_too()
    {
        var (before, after) = Kept.Last();
        Assert.Equal(2.411764705882353, before.Vx);
        Agrees(before, after, 6e-5);
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
                iter: Thoroughness.Cases(500)
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
                iter: Thoroughness.Cases(5000)
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
