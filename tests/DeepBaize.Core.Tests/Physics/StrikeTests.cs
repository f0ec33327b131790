using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

public class StrikeTests
{
    private static readonly Conditions C = Conditions.Default;

    [Fact]
    public void At_two_fifths_of_the_radius_the_ball_rolls_from_the_tip_on()
    {
        // Coriolis 1835, from memory.
        var m = Strike.Create(30, 2, 0, 0.4, 0).Launch(C);
        Assert.Equal(0, m.Vx - BallRadius * m.Wy, 1e-12);
        Assert.Equal(0, m.Vy + BallRadius * m.Wx, 1e-12);
    }

    [Fact]
    public void A_centre_strike_gives_the_speed_of_two_bodies_that_collide()
    {
        // Momentum with restitution, any textbook: v = (1 + e)·V / (1 + m/M).
        var m = Strike.Create(0, 3, 0, 0, 0).Launch(C);
        Assert.Equal(1.75 * 3 / (1 + 0.1406 / 0.52), m.Vx, 1e-12);
        Assert.Equal(0, m.Vy, 1e-12);
        Assert.Equal(0, m.Wz);
    }

    [Theory]
    [InlineData(0.3)]
    [InlineData(-0.5)]
    public void Squirt_is_the_published_formula_and_away_from_the_tip(double a)
    {
        // Alciatore TP A.31, from memory. Right-hand side pushes the ball to the left: counter-clockwise.
        var expected = Math.Atan(2.5 * a * Math.Sqrt(1 - a * a) / (1 + 28 + 2.5 * (1 - a * a)));
        var m = Strike.Create(0, 2, a, 0, 0).Launch(C);
        Assert.Equal(expected, Math.Atan2(m.Vy, m.Vx), 1e-12);
        Assert.Equal(Math.Sign(a), Math.Sign(m.Vy));
        Assert.Equal(Math.Sign(a), Math.Sign(m.Wz));
    }

    [Fact]
    public void A_raised_butt_loses_pace_and_turns_side_into_swerve()
    {
        var level = Strike.Create(0, 2, 0.3, 0, 0).Launch(C);
        var raised = Strike.Create(0, 2, 0.3, 0, 30).Launch(C);
        // The bed takes some of the pace as well: it rubs against the slip of a ball that is driven into it.
        var blow = 2 * Math.Tan(Math.PI / 6) * level.Vx;
        Assert.InRange(raised.Vx, level.Vx * Math.Cos(Math.PI / 6) - 0.18 * blow, level.Vx * Math.Cos(Math.PI / 6));
        // Right-hand side with a raised butt swerves to the right: the slip at the cloth points left.
        Assert.True(raised.Vy + BallRadius * raised.Wx > raised.Vy);
    }

    [Theory]
    [InlineData(double.NaN, 1, 0, 0, 0, "strike.aim")]
    [InlineData(0, double.PositiveInfinity, 0, 0, 0, "strike.cueSpeed")]
    [InlineData(0, 8.01, 0, 0, 0, "strike.cueSpeed")]
    [InlineData(0, -0.1, 0, 0, 0, "strike.cueSpeed")]
    [InlineData(0, 1, 0.4, 0.4, 0, "strike.side")]
    [InlineData(0, 1, 0, -0.6, 0, "strike.height")]
    [InlineData(0, 1, 0, 0, 61, "strike.elevation")]
    public void An_impossible_strike_is_refused_by_field(
        double aim,
        double speed,
        double side,
        double height,
        double elevation,
        string field
    )
    {
        var error = Assert.Throws<InputException>(() => Strike.Create(aim, speed, side, height, elevation));
        Assert.Equal(field, Assert.Single(error.Errors).Field);
        Assert.NotEmpty(error.Errors[0].Allowed);
    }

    [Fact]
    public void The_miscue_limit_itself_is_allowed() => Strike.Create(0, 1, 0.3, 0.4, 0);
}
