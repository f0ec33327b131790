using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>
/// The chance to win a frame: where it is settled by the rules (Section 3, from memory), what it follows, and figures that players would
/// say (common practice, no source).
/// </summary>
public class FrameObjectiveTests
{
    private static readonly Player County = Player.OfSkill("county");

    private static readonly VisitSkill Skill = VisitSkill.Of(County);

    private static Frame FrameOf(int reds, int firstColour, int first, int second, int turn = 0) =>
        Frame.Create(
            reds,
            [.. Ball.Colours.Skip(firstColour)],
            new()
            {
                First = first,
                Second = second,
                Turn = turn,
            }
        );

    /// <summary>A pot that is on, after which the next is an ordinary one; safeties as usual.</summary>
    private static Outlook Pot(double chance, int points, double left = 0.3) =>
        new(Quality.None with { Chance = chance, Points = points, IsOn = true, Onward = 0.93 }, default, default, 0, left);

    /// <summary>By how much the calibration bends what is otherwise worked out by proportion.</summary>
    private const double Calibration = 0.01;

    private static double Win(Frame frame, Outlook outlook, Player? player = null, Player? rival = null) =>
        new FrameObjective(0, player ?? County, rival ?? County).Of(frame, outlook);

    [Theory]
    [InlineData(50, 51)]
    [InlineData(50, 56)]
    [InlineData(56, 50)]
    public void At_the_last_black_whoever_pots_it_wins_whoever_leads(int first, int second) =>
        Assert.InRange(Win(FrameOf(0, 5, first, second), Pot(0.97, 7)), 0.97, 0.99);

    [Fact]
    public void Seven_behind_the_last_black_draws_level_and_is_spotted_again() =>
        // Rule 4: level scores, a re-spotted black, as good for the one as for the other.
        Assert.InRange(Win(FrameOf(0, 5, 50, 57), Pot(1, 7)), 0.45, 0.55);

    [Fact]
    public void Eight_behind_the_last_black_it_is_over()
    {
        // Rule 4: more than seven between the players.
        var frame = FrameOf(0, 5, 50, 58);
        Assert.True(frame.IsOver);
        Assert.Equal(0, new FrameObjective(0, County, County).Terminal(frame));
        Assert.Equal(1, new FrameObjective(1, County, County).Terminal(frame));
    }

    [Fact]
    public void Twenty_eight_behind_with_twenty_seven_left_it_is_a_few_percent()
    {
        Assert.InRange(Win(FrameOf(0, 0, 20, 48), Pot(0.9, 2)), 0.01, 0.08);
        // Drawing level is much more than needing a penalty.
        Assert.True(Win(FrameOf(0, 0, 20, 47), Pot(0.9, 2)) > Win(FrameOf(0, 0, 20, 48), Pot(0.9, 2)) + 0.01);
    }

    [Fact]
    public void Forty_behind_with_thirty_five_left_it_is_about_one_percent() =>
        Assert.InRange(Win(FrameOf(1, 0, 20, 60), Pot(0.9, 1)), 0, 0.025);

    [Fact]
    public void Sixty_ahead_with_twenty_seven_left_it_is_won() => Assert.InRange(Win(FrameOf(0, 0, 80, 20), Pot(0, 0)), 0.9995, 1);

    [Fact]
    public void It_grows_with_the_lead_with_the_pot_and_with_own_skill_and_falls_with_the_rivals()
    {
        void Rises(IEnumerable<double> values)
        {
            var list = values.ToList();
            for (var i = 1; i < list.Count; i++)
                Assert.True(list[i] > list[i - 1], string.Join(' ', list));
        }
        Rises(new[] { -60, -30, -10, 0, 10, 30, 60 }.Select(lead => Win(FrameOf(3, 0, 60 + lead, 60), Pot(0.5, 1))));
        Rises(new[] { 0.4, 0.6, 0.9 }.Select(pot => Win(FrameOf(3, 0, 60, 60), Pot(pot, 1))));
        string[] skills = ["learner", "club", "county", "tour"];
        Rises(skills.Select(s => Win(FrameOf(3, 0, 60, 60), Pot(0.7, 1), player: Player.OfSkill(s))));
        Rises(skills.Reverse().Select(s => Win(FrameOf(3, 0, 60, 60), Pot(0.7, 1), rival: Player.OfSkill(s))));
        // The fewer pots that a safety leaves, the better.
        Rises(new[] { 0.7, 0.4, 0.1 }.Select(left => Win(FrameOf(15, 0, 0, 0), Pot(0, 1, left))));
    }

    [Fact]
    public void What_one_player_has_the_other_has_not()
    {
        var (tour, club) = (Player.OfSkill("tour"), Player.OfSkill("club"));
        for (var reds = 0; reds <= 15; reds += 5)
            for (var lead = -20; lead <= 20; lead += 20)
            {
                // One table, whose player is the second; asked by either.
                var frame = FrameOf(reds, 0, 40 + lead, 40, turn: 1);
                var outlook = Pot(0.6, reds == 0 ? 2 : 1);
                var sum = new FrameObjective(0, tour, club).Of(frame, outlook) + new FrameObjective(1, club, tour).Of(frame, outlook);
                Assert.Equal(1, sum, 4);
                Assert.Equal(1, new FrameObjective(0, tour, club).AfterMiss(frame) + new FrameObjective(1, club, tour).AfterMiss(frame), 4);
            }
    }

    /// <summary>
    /// Rule 3: a colour that is missed after the last red is out of its turn, and the other player comes to the yellow. Worked by hand from
    /// that player's own chance there: the pot goes in or not, and nothing else is as good.
    /// </summary>
    [Fact]
    public void A_colour_missed_after_the_last_red_leaves_the_yellow_on()
    {
        var colour = Frame.Create(
            0,
            Ball.Colours,
            new()
            {
                On = BallOn.Colour,
                First = 31,
                Second = 30,
                Break = 1,
            }
        );
        var objective = new FrameObjective(0, County, County);
        Assert.Equal(BallOn.Yellow, colour.AfterMiss.On);
        var missed = objective.AfterMiss(colour.AfterMiss);
        // The black goes in four times of ten: the rest is worth what the yellow is to the other player.
        var made = objective.Of(colour, Pot(1, 7, 1));
        Assert.Equal(0.4 * made + 0.6 * missed, objective.Of(colour, Pot(0.4, 7, 1)), Calibration);
        // After it the yellow is on, with an open pot or without one.
        var (open, closed) = OpenAndClosed(objective, FrameOf(0, 0, 38, 30), 2);
        Assert.InRange(made, closed, open);
    }

    private static (double Open, double Closed) OpenAndClosed(FrameObjective objective, Frame frame, int points) =>
        (objective.Of(frame, Pot(Skill.Pot, points, 1)), objective.Of(frame, Pot(Skill.Long, points, 1)));

    private static Frame ColourOn(int reds, int first, int second) =>
        Frame.Create(
            reds,
            Ball.Colours,
            new()
            {
                On = BallOn.Colour,
                First = first,
                Second = second,
                Break = 1,
            }
        );

    /// <summary>
    /// Rule 12: a free ball counts as a red, and every red is still there after it. By hand from the table that comes of it, a colour on:
    /// how often the next pot is open is what it is after any red.
    /// </summary>
    [Fact]
    public void A_free_ball_leaves_the_balls_that_are_on()
    {
        var objective = new FrameObjective(0, County, County);
        double Keeps(double made, Frame next)
        {
            var (open, closed) = OpenAndClosed(objective, next, 6);
            return (made - closed) / (open - closed);
        }
        var afterRed = Keeps(objective.Of(FrameOf(3, 0, 30, 31), Pot(1, 1)), ColourOn(2, 31, 31));
        var isFree = Pot(1, 1) with { Best = Pot(1, 1).Best with { IsOn = false } };
        var afterFree = Keeps(objective.Of(FrameOf(3, 0, 30, 31) with { FreeBall = true }, isFree), ColourOn(3, 31, 31));
        Assert.InRange(afterRed, 0.5, 1);
        Assert.Equal(afterRed, afterFree, 3 * Calibration);
    }

    [Fact]
    public void A_foul_costs_what_the_rules_say()
    {
        // Pink and black left, the pink hidden and missed for certain: six away (rule 11), and the other player comes to the table.
        var frame = FrameOf(0, 4, 50, 50);
        var hidden = new Outlook(Quality.None, default, default, 1, 0.3);
        var after = frame.AfterMiss with { Scores = (50, 56) };
        Assert.Equal(new FrameObjective(0, County, County).AfterMiss(after), Win(frame, hidden), 6);
        // With the black alone it is the frame (rule 4).
        Assert.Equal(0, Win(FrameOf(0, 5, 50, 50), hidden));
    }
}
