using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>How a judge looks at a table, for whichever of the two players comes to it.</summary>
public class OutlookTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    private static Outlook Of(Situation situation, PositionJudge? judge = null) =>
        (judge ?? new(County, Shape)).Of(situation, new(situation.Layout, Shape));

    [Fact]
    public void A_hidden_ball_costs_the_player_the_penalty_as_often_as_it_is_missed()
    {
        // One ball left behind another: on with the pink hidden, a foul costs six; with the black hidden, seven. The places are the same.
        Outlook Hidden(Ball on, Ball other)
        {
            var layout = Layout.OfRest([
                new(Ball.White, 0.3, Width / 2),
                new(on, 3.0, Width / 2),
                new(other, 0.3 + 2.5 * BallRadius, Width / 2),
            ]);
            return Of(Situation.Create(layout).Meaning(BallsOn.Only(on)));
        }
        var (pink, black) = (Hidden(Ball.Pink, Ball.Black), Hidden(Ball.Black, Ball.Pink));
        Assert.True(pink.Sight is { IsSnookered: true, Seen: 0 } && pink.Foul is > 0.15 and < 0.75, $"{pink}");
        Assert.Equal(pink.Foul, black.Foul, 12);
        // No pot is on: what differs is one point of penalty, as often as the ball is missed.
        Assert.Equal((0.0, 0.0), (pink.Best.Chance, black.Best.Chance));
        Assert.Equal(pink.Foul * 1, pink.Worth - black.Worth, 12);
    }

    [Fact]
    public void Each_player_is_judged_by_his_own_skill()
    {
        var layout = Layout.OfRest([new(Ball.White, 1.2, 0.5), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5)]);
        var judge = new PositionJudge(0, Player.OfSkill("tour"), Player.OfSkill("club"), Shape, PlanPreferences.Default);
        double ChanceOf(int turn) => Of(Situation.Create(layout, new() { Turn = turn }), judge).Best.Chance;
        double Alone(string skill) => Of(Situation.Create(layout), new(Player.OfSkill(skill), Shape)).Best.Chance;
        Assert.Equal((Alone("tour"), Alone("club")), (ChanceOf(0), ChanceOf(1)));
        Assert.True(ChanceOf(0) > ChanceOf(1) + 0.1);
    }

    /// <summary>
    /// With no pot on, the white tight on the baulk cushion is harder to play safe from than near the pack: common practice, no source.
    /// </summary>
    [Fact]
    public void A_safety_is_harder_from_the_baulk_cushion_than_from_beside_the_pack()
    {
        double LeftFrom(double x, double y) =>
            Of(Situation.Create(Layout.OfRest([new(Ball.White, x, y), .. Rack.Colours(), .. Rack.Pack()]))).LeftBySafety;
        Assert.True(LeftFrom(BallRadius, 0.6) > LeftFrom(2.4, 0.85) + 0.05, $"{LeftFrom(BallRadius, 0.6)} {LeftFrom(2.4, 0.85)}");
    }

    [Fact]
    public void A_quick_look_says_the_same_wherever_no_pot_is_clear()
    {
        var judge = new PositionJudge(County, Shape);
        var random = new Random(3);
        var compared = 0;
        for (var i = 0; i < 60; i++)
        {
            var white = new Vec2(0.1 + 3.3 * random.NextDouble(), 0.1 + 1.5 * random.NextDouble());
            PlacedBall[] balls = [new(Ball.White, white), .. Rack.Colours(), new(Ball.Red(1), 2.9, 0.5), new(Ball.Red(2), 1.1, 1.4)];
            if (balls.Skip(1).Any(b => b.Gap(white) < 0.01))
                continue;
            var situation = Situation.Create(Layout.OfRest(balls));
            var lines = new PotLines(situation.Layout, Shape);
            var (whole, quick) = (judge.Of(situation, lines), judge.QuickOf(situation, lines));
            Assert.Equal((whole.Best, whole.Foul, whole.LeftBySafety), (quick.Best, quick.Foul, quick.LeftBySafety));
            compared++;
        }
        Assert.True(compared > 40);
    }
}
