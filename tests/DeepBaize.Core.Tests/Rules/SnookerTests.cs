using DeepBaize.Core.Geometry;
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
        // centres, and meets what lies within a diameter of that: three radii off, less a little.
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
    public void A_ball_that_touches_by_rounding_hides_only_what_it_stands_in_front_of()
    {
        var white = new Vec2(1.0, 0.9);
        // Behind, beside and before the white, a hair closer than two radii.
        bool HiddenBy(double degrees) =>
            Snooker.IsSnookered(
                white,
                [Red, new(Ball.Brown, white + (2 * Dimensions.BallRadius - 5e-7) * Angle.FromDegrees(degrees).Unit)],
                [0]
            );
        Assert.False(HiddenBy(180));
        Assert.False(HiddenBy(100));
        Assert.True(HiddenBy(0));
        Assert.True(HiddenBy(60));
    }

    [Fact]
    public void In_hand_a_ball_is_hidden_only_from_the_whole_of_the_D()
    {
        // A wall across the table, the red close behind its middle; with all but its end away there is a way.
        List<PlacedBall> wall =
        [
            .. Enumerable.Range(2, 7).Select(i => new PlacedBall(Ball.Red(i), 1.5, Dimensions.Width / 2 + (i - 5) * 0.053)),
        ];
        PlacedBall[] hidden = [new(Ball.Black, 1.56, Dimensions.Width / 2), .. wall];
        Assert.True(Snooker.IsSnookeredInHand(hidden, [0]));
        Assert.False(Snooker.IsSnookeredInHand(hidden[..2], [0]));
        Assert.False(Snooker.IsSnookeredInHand(hidden, []));
    }

    /// <summary>Held to a search of the D by brute force, place by place: an independent answer to the same question.</summary>
    [Fact]
    public void In_hand_the_bounds_of_open_places_find_what_a_fine_grid_finds()
    {
        var random = new Random(3);
        var (snookered, open) = (0, 0);
        for (var n = 0; n < 60; n++)
        {
            // A target with a few balls close before it, so that both answers come up.
            PlacedBall target = new(Ball.Black, 1.2 + random.NextDouble(), 0.5 + 0.8 * random.NextDouble());
            List<PlacedBall> balls = [target];
            while (balls.Count < 5)
            {
                var place = target.At + new Vec2(-0.06 - 0.4 * random.NextDouble(), 0.6 * (random.NextDouble() - 0.5));
                if (balls.All(b => b.Gap(place) > 0))
                    balls.Add(new(Ball.Red(balls.Count), place));
            }
            var answer = Snooker.IsSnookeredInHand(balls, [0]);
            if (answer)
                snookered++;
            else
                open++;
            var found = false;
            var (centre, reach) = (Dimensions.DCentre, Dimensions.DRadius);
            for (var x = centre.X - reach; x <= centre.X; x += 0.004)
                for (var y = centre.Y - reach; y <= centre.Y + reach && !found; y += 0.004)
                    found = Dimensions.InD(new(x, y)) && !Snooker.IsSnookered(new(x, y), balls, [0]);
            // The grid may miss a sliver, but what it finds there must be.
            Assert.False(found && answer);
        }
        Assert.True(snookered > 5 && open > 5, $"{snookered} and {open}");
    }

    [Fact]
    public void A_ball_is_open_full_in_the_face_if_the_white_comes_straight_to_its_middle()
    {
        var white = new Vec2(1.0, 0.9);
        Assert.True(Snooker.IsFullBallOpen(white, [Red, new(Ball.Brown, 1.5, 0.96)], [0]));
        Assert.False(Snooker.IsFullBallOpen(white, [Red, new(Ball.Brown, 1.5, 0.94)], [0]));
        Assert.True(Snooker.IsFullBallOpen(white, [Red, new(Ball.Red(2), 1.5, 0.9)], [0, 1]));
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
