using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Players;

/// <summary>The figures of reach are common practice, no source; what is checked is what players say of them.</summary>
public class ReachTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player RightHander = Player.Default,
        LeftHander = Player.Default with { Hand = Hand.Left };

    private static Reach At(double x, double y, double aim, Player player, double height = 0, params (string?, double, double)[] others) =>
        Reach.Of(Layout.Create([("white", x, y), .. others], Shape), new(aim, 0, height, 4, 0), player);

    [Fact]
    public void From_behind_the_baulk_cushion_the_D_is_a_natural_stance_for_either_hand()
    {
        Assert.Equal(Stance.Natural, At(BaulkLineX, Width / 2, 0, RightHander).Stance);
        Assert.Equal(Stance.Natural, At(BaulkLineX, Width / 2, 0, LeftHander).Stance);
        Assert.Equal(1, At(BaulkLineX, Width / 2, 0, RightHander).ErrorFactor);
    }

    [Fact]
    public void Up_the_table_along_the_right_hand_cushion_is_the_right_handers_awkward_side()
    {
        // In mid-table 0.3 m from a side cushion: from the left side easy, from the right only with the other hand or the rest.
        Assert.Equal(Stance.Natural, At(2.0, Width - 0.3, 0, RightHander).Stance);
        Assert.True(At(2.0, 0.3, 0, RightHander).Stance is Stance.OtherHand or Stance.Rest);
        Assert.Equal(Stance.Natural, At(2.0, 0.3, 0, LeftHander).Stance);
        Assert.True(At(2.0, 0.3, 0, RightHander).ErrorFactor > 1);
    }

    [Fact]
    public void With_a_cushion_close_behind_the_player_steps_back_and_needs_no_rest()
    {
        // Straight up the table from near the baulk cushion, and across from near a side one. Common practice, no source.
        foreach (var x in (double[])[0.05, 0.15, 0.3])
            Assert.Equal(Stance.Natural, At(x, Width / 2, 0, RightHander).Stance);
        Assert.Equal(Stance.Natural, At(1.8, 0.2, 90, RightHander).Stance);
        Assert.Equal(Stance.Rest, At(1.78, Width / 2, 0, RightHander).Stance);
    }

    [Fact]
    public void No_cue_is_level_unless_it_is_asked_for()
    {
        // In mid-table nothing is in the way: the natural elevation, 3° or the player's own. Common practice, no source.
        var open = At(1.8, 0.9, 0, RightHander);
        Assert.Equal((0, 3), (open.ElevationDegrees, open.ButtDegrees));
        Assert.InRange(open.LeastDegrees, 0, 3);
        Assert.Equal(6, At(1.8, 0.9, 0, RightHander with { NaturalElevation = 6 }).ButtDegrees);
        // A hand on the cloth holds the cue up: struck low, the butt must be higher for the tip to come down there.
        Assert.True(At(1.8, 0.9, 0, RightHander, height: -1.4).LeastDegrees > At(1.8, 0.9, 0, RightHander, height: 1).LeastDegrees);
        // Over a rail more than natural is asked for.
        var tight = At(BallRadius, 0.9, 0, RightHander);
        Assert.Equal(tight.LeastDegrees, tight.ButtDegrees);
        Assert.True(tight.ButtDegrees > 15);
    }

    [Fact]
    public void Left_and_right_are_mirror_images()
    {
        foreach (var (x, y, aim) in ((double, double, double)[])[(0.4, 0.3, 20), (1.8, 0.9, 90), (2.9, 0.5, 160), (3.3, 1.2, -100)])
            Assert.Equal(At(x, y, aim, RightHander).Stance, At(x, Width - y, -aim, LeftHander).Stance);
    }

    [Fact]
    public void A_taller_player_reaches_farther()
    {
        // Straight up the table from beyond the baulk line, on the middle line.
        var first = Enumerable.Range(0, 200).Select(i => 0.7 + i * 0.01);
        double Farthest(double height) =>
            first.TakeWhile(x => At(x, Width / 2, 0, Player.Default with { Height = height }).Stance == Stance.Natural).Last();
        Assert.True(Farthest(1.9) > Farthest(1.6) + 0.05);
        Assert.Equal(Stance.Rest, At(1.78, Width / 2, 0, RightHander).Stance);
    }

    /// <summary>
    /// Closed form, model.md, "Strike": an axis h over the ball's centre clears an edge x behind and e above the centre by r where
    /// x·sin θ − e·cos θ = r − h. Of nose and rail the one that asks for more; the radius is that at the tip, its taper below
    /// 0.1°.
    /// </summary>
    [Theory]
    [InlineData(0, 0, 32)]
    [InlineData(0, 1, 12)]
    [InlineData(0, 1.4, 7.5)]
    [InlineData(0.05, 0, 12)]
    [InlineData(0.05, 1, 6.5)]
    [InlineData(0.05, 1.4, 4.7)]
    public void The_butt_clears_nose_rail_and_hand_by_the_cues_radius(double gap, double tips, double said)
    {
        double Least(double behind, double over, double hand)
        {
            var (x, e, free) = (behind, over, 0.005 + 0.004 * (behind - BallRadius) + hand - 0.01 * tips);
            return (Math.Atan2(e, x) + Math.Asin(free / Math.Sqrt(x * x + e * e))) * 180 / Math.PI;
        }
        var nose = BallRadius + gap;
        var expected = Math.Max(Least(nose, 0.4 * BallRadius, 0), Least(nose + 0.05, 0.043 - BallRadius, 0.002));
        var least = At(BallRadius + gap, 0.9, 0, RightHander, tips).LeastDegrees;
        Assert.Equal(expected, least, 0.05);
        Assert.Equal(said, least, 0.5);
        // From every cushion alike.
        Assert.Equal(least, At(Length - BallRadius - gap, 0.9, 180, RightHander, tips).LeastDegrees, 1e-6);
        Assert.Equal(least, At(1.2, Width - BallRadius - gap, -90, RightHander, tips).LeastDegrees, 1e-6);
    }

    /// <summary>A ball behind: the axis passes its centre at R + r, the cue's radius, from the side at which it lies.</summary>
    [Theory]
    [InlineData(0.12, 0)]
    [InlineData(0.08, 0.01)]
    public void The_butt_clears_a_ball_behind_by_the_cues_radius(double behind, double beside)
    {
        var apart = BallRadius + 0.005 + 0.004 * (behind - BallRadius);
        // x·sin θ = the height at which the axis passes, of the right-angled triangle with what lies beside.
        var expected = Math.Asin(Math.Sqrt(apart * apart - beside * beside) / behind) * 180 / Math.PI;
        Assert.Equal(expected, At(1.2, 0.9, 0, RightHander, 0, ("blue", 1.2 - behind, 0.9 + beside)).LeastDegrees, 0.15);
    }

    [Fact]
    public void Tight_on_the_cushion_behind_it_the_cue_must_be_raised_and_less_so_for_a_high_strike()
    {
        var plain = At(BallRadius, 0.9, 0, RightHander);
        var high = At(BallRadius, 0.9, 0, RightHander, height: 1.3);
        Assert.InRange(plain.ElevationDegrees, 20, 60);
        Assert.InRange(high.ElevationDegrees, 7, plain.ElevationDegrees - 20);
        Assert.True(plain.ErrorFactor > high.ErrorFactor && high.ErrorFactor > 1);
        Assert.Null(plain.Over);
        Assert.Equal(0, At(0.5, 0.9, 0, RightHander).ElevationDegrees);
    }

    [Fact]
    public void A_ball_close_behind_is_bridged_and_named()
    {
        var over = At(1.0, 0.9, 0, RightHander, 0, ("blue", 0.88, 0.9));
        Assert.Equal((Ball.Blue, Ball.Blue), (over.Over, over.BridgeOver));
        // The cue clears the ball's top by so much that its angle is at least that to the top from the ball's centre.
        Assert.True(over.ElevationDegrees > Math.Atan(BallRadius / 0.12) * 180 / Math.PI);
        Assert.Null(At(1.0, 0.9, 0, RightHander, 0, ("blue", 0.88, 1.1)).Over);
    }

    [Fact]
    public void What_is_awkward_costs_chance()
    {
        Layout With(params (string?, double, double)[] others) =>
            Layout.Create([("white", 1.3, 0.9), ("red-1", 1.7, 1.25), .. others], Shape);
        double Chance(Layout layout) =>
            TableReading
                .ReadOne(
                    layout,
                    new(layout.SlotOf(Ball.Red(1)), Pocket.GreenMiddle),
                    new(0, 0, 0, 4, 0),
                    RightHander with
                    {
                        Skill = Skill.Named("learner"),
                    },
                    Shape
                )
                .Chance.Value;
        Assert.True(Chance(With()) > Chance(With(("blue", 1.21, 0.82))) + 0.05);
    }

    [Theory]
    [InlineData("both", 1.75, "player.hand")]
    [InlineData("right", 0.9, "player.height")]
    [InlineData("left", double.NaN, "player.height")]
    public void A_player_who_cannot_be_is_refused(string hand, double height, string field) =>
        Assert.Equal(field, Assert.Single(Assert.Throws<InputException>(() => Player.Create(hand, height)).Errors).Field);
}
