using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>Against the Official Rules of Snooker, Section 2 ("Snookered") and Section 3, rules 2 and 3 (from memory).</summary>
public class SnookerTests
{
    private static readonly PlacedBall Red = new(Ball.Red(1), 2.0, 0.9);

    private static bool Hidden(double blockerX, double blockerY) =>
        Snooker.IsSnookered(new(1.0, 0.9), [Red, new(Ball.Brown, blockerX, blockerY)], [0]);

    [Fact]
    public void A_ball_between_snookers_and_one_beside_does_not()
    {
        Assert.True(Hidden(1.5, 0.9));
        Assert.False(Hidden(1.5, 1.2));
        Assert.False(Hidden(0.5, 0.9));
    }

    [Fact]
    public void Hiding_one_extreme_edge_is_enough()
    {
        // Both extreme edges must be free. Half-way to the red the white's centre on its way to an edge is one radius off the line of
        // centres,
        // and meets what lies within a diameter of that: three radii off, less a little.
        var edge = 3 * Dimensions.BallRadius;
        Assert.True(Hidden(1.5, 0.9 + edge - 0.002));
        Assert.False(Hidden(1.5, 0.9 + edge + 0.002));
    }

    [Fact]
    public void One_ball_on_in_the_open_is_enough_not_to_be_snookered()
    {
        PlacedBall[] balls = [Red, new(Ball.Brown, 1.5, 0.9), new(Ball.Red(2), 1.0, 1.5)];
        Assert.True(Snooker.IsSnookered(new(1.0, 0.9), balls, [0]));
        Assert.False(Snooker.IsSnookered(new(1.0, 0.9), balls, [0, 2]));
        // Another ball on in the way hides nothing.
        Assert.False(Snooker.IsSnookered(new(1.0, 0.9), [Red, new(Ball.Red(2), 1.5, 0.9)], [0, 1]));
    }

    [Fact]
    public void After_a_red_a_colour_is_on_after_a_colour_a_red_and_then_the_colours_in_order()
    {
        PlacedBall[] left = [new(Ball.Black, 3.2, 0.9), new(Ball.Yellow, 0.7, 0.6), Red];
        Assert.Equal([0, 1], Snooker.OnAfter(Ball.Red(2), left));
        Assert.Equal([2], Snooker.OnAfter(Ball.Blue, left));
        Assert.Equal([1], Snooker.OnAfter(Ball.Blue, left[..2]));
        Assert.Empty(Snooker.OnAfter(Ball.Black, []));
    }
}
