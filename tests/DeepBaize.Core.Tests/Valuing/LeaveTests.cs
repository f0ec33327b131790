using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>What a safety is worth, worked by hand: points made or given away, less what is left to the other player.</summary>
public class LeaveTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    private static readonly Situation Table = Situation.Create(
        Layout.OfRest([new(Ball.White, 1, 0.5), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5)])
    );

    private static PlayedStroke Played(int points, int penalty, Frame? next = null) =>
        new(new(points, penalty, penalty > 0 ? [FoulReason.MissedAll] : [], [], next ?? Table.Frame), Table);

    /// <summary>A leave worth three points to whoever comes to the table.</summary>
    private static readonly Leave Three = new(3, Quality.None, default, default);

    [Theory]
    [InlineData(0, 0, -3)] // nothing made, three left to the other
    [InlineData(0, 5, -8)] // five given away, and three left
    [InlineData(1, 0, 4)] // a red made, and three left to oneself
    public void A_safety_is_worth_what_it_makes_less_what_it_gives_and_leaves(int points, int penalty, double value) =>
        Assert.Equal(value, LeaveJudge.ValueOf(Played(points, penalty), Three));

    [Fact]
    public void The_end_of_the_frame_is_worth_more_than_any_leave()
    {
        var over = Table.Frame.Award(0);
        Assert.Equal(LeaveJudge.FrameWorth, LeaveJudge.ValueOf(Played(7, 0, over), Three));
        Assert.Equal(-LeaveJudge.FrameWorth, LeaveJudge.ValueOf(Played(0, 7, over), Three));
    }

    [Fact]
    public void A_hidden_ball_costs_the_other_player_the_penalty_as_often_as_he_misses_it()
    {
        // One ball left behind another: on with the pink hidden, a foul costs six; with the black hidden, seven. The places are the same.
        Leave Hidden(Ball on, Ball other)
        {
            var layout = Layout.OfRest([
                new(Ball.White, 0.3, Width / 2),
                new(on, 3.0, Width / 2),
                new(other, 0.3 + 2.5 * BallRadius, Width / 2),
            ]);
            var situation = Situation.Create(layout).Meaning(BallsOn.Only(on));
            return new LeaveJudge(County, Shape).Of(situation, new PotLines(layout, Shape));
        }
        var (pink, black) = (Hidden(Ball.Pink, Ball.Black), Hidden(Ball.Black, Ball.Pink));
        Assert.True(pink.Sight is { IsSnookered: true, Seen: 0 } && pink.Foul is > 0.15 and < 0.75, $"{pink}");
        Assert.Equal(pink.Foul, black.Foul, 12);
        // No pot is on: what differs is one point of penalty, as often as the ball is missed.
        Assert.Equal((0.0, 0.0), (pink.Best.Chance, black.Best.Chance));
        Assert.Equal(pink.Foul * 1, pink.Worth - black.Worth, 12);
    }
}
