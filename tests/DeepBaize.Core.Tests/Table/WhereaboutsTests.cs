using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

public class WhereaboutsTests
{
    // Spots and lines: official rules, Section 1 (from memory); the words are common practice, no source.
    [Theory]
    [InlineData(0.5, 0.9, Stretch.Baulk)]
    [InlineData(0.737, 0.889, Stretch.Baulk)]
    [InlineData(1.2, 0.3, Stretch.BelowBlue)]
    [InlineData(2.0, 0.3, Stretch.BlueToPink)]
    [InlineData(3.0, 1.5, Stretch.PinkToBlack)]
    [InlineData(3.4, 0.9, Stretch.BehindBlack)]
    public void A_place_is_named_by_the_stretch_between_the_spots(double x, double y, Stretch stretch) =>
        Assert.Equal(stretch, Whereabouts.Of(new(x, y)).Stretch);

    [Fact]
    public void A_ball_against_a_cushion_is_no_way_from_it()
    {
        var tight = Whereabouts.Of(new(Length - BallRadius, 0.6));
        Assert.Equal(Cushion.Top, tight.Cushion);
        Assert.Equal(0, tight.FromCushion, 1e-12);
        Assert.Equal(0.1, Whereabouts.Of(new(2, BallRadius + 0.1)).FromCushion, 1e-12);
    }

    [Fact]
    public void The_nearest_spot_is_told_with_its_distance()
    {
        var off = Whereabouts.Of(Spot(Ball.Black) + new Vec2(0.03, 0.04));
        Assert.Equal(Ball.Black, off.Spot);
        Assert.Equal(0.05, off.FromSpot, 1e-12);
    }

    // A quarter, a half and three quarters of the ball covered (common practice, no source); the named one that is nearest.
    [Theory]
    [InlineData(1, Fullness.Full)]
    [InlineData(0.76, Fullness.ThreeQuarter)]
    [InlineData(0.5, Fullness.Half)]
    [InlineData(0.26, Fullness.Quarter)]
    [InlineData(0.02, Fullness.Fine)]
    public void A_share_of_the_ball_takes_the_nearest_name(double share, Fullness name) => Assert.Equal(name, Fullnesses.Nearest(share));
}
