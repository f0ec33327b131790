using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>Against the Official Rules of Snooker, Section 3, rule 7, "Spotting colours" (from memory).</summary>
public class SpottingTests
{
    private static PlacedBall On(Ball ball, Ball spot) => new(ball, Spot(spot).X, Spot(spot).Y);

    [Fact]
    public void A_colour_goes_on_its_own_spot() =>
        Assert.Equal([On(Ball.Blue, Ball.Blue)], Spotting.Place([Ball.Blue], [new(Ball.White, 1, 1)]));

    [Fact]
    public void If_that_is_occupied_it_goes_on_the_highest_spot_that_is_free() =>
        Assert.Equal([On(Ball.Yellow, Ball.Black)], Spotting.Place([Ball.Yellow], [On(Ball.Red(1), Ball.Yellow)]));

    [Fact]
    public void Of_several_the_highest_in_value_goes_first()
    {
        // The black's spot is taken: the black goes on the pink's, and the pink has to go on the blue's.
        Assert.Equal(
            [On(Ball.Black, Ball.Pink), On(Ball.Pink, Ball.Blue)],
            Spotting.Place([Ball.Pink, Ball.Black], [On(Ball.Red(1), Ball.Black)])
        );
    }

    [Theory]
    [InlineData("blue")]
    [InlineData("yellow")]
    [InlineData("pink")]
    public void With_all_spots_occupied_it_goes_as_near_to_its_own_as_can_be_towards_the_top_cushion(string id)
    {
        Ball.TryParse(id, out var colour);
        List<PlacedBall> reds = [.. Ball.Colours.Select((c, i) => On(Ball.Red(i + 1), c))];
        var at = Assert.Single(Spotting.Place([colour], reds));
        Assert.Equal(Spot(colour).Y, at.Y);
        // Next to the ball on its spot, without touching.
        Assert.InRange(at.X - Spot(colour).X - 2 * BallRadius, 0, 1e-5);
    }

    [Fact]
    public void Without_room_above_the_black_goes_below_its_spot()
    {
        List<PlacedBall> reds = [.. Ball.Colours.Select((c, i) => On(Ball.Red(i + 1), c))];
        // From the spot to the top cushion the line is full: no two of these leave room for a ball between them.
        var n = 7;
        for (var x = Spot(Ball.Black).X + 0.06; x < Length - BallRadius; x += 0.06)
            reds.Add(new(Ball.Red(n++), x, Width / 2));
        reds.Add(new(Ball.Red(n), Length - BallRadius, Width / 2));
        var at = Assert.Single(Spotting.Place([Ball.Black], reds));
        Assert.InRange(Spot(Ball.Black).X - 2 * BallRadius - at.X, 0, 1e-5);
    }
}
