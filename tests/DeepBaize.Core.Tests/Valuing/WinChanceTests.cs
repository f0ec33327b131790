using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>The chance to win a frame: where it is settled by the rules (Section 3, from memory), and what it follows.</summary>
public class WinChanceTests
{
    private static readonly Player County = Player.OfSkill("county");

    private static double Of(int reds, int firstColour, int first, int second, double pot)
    {
        var frame = Frame.Create(reds, [.. Ball.Colours.Skip(firstColour)], new() { First = first, Second = second });
        return new WinChance(frame, County, County).Of(frame, pot);
    }

    [Theory]
    [InlineData(50, 51)]
    [InlineData(50, 56)]
    [InlineData(56, 50)]
    public void At_the_last_black_whoever_pots_it_wins_whoever_leads(int first, int second) =>
        Assert.InRange(Of(0, 5, first, second, 0.97), 0.97, 0.99);

    [Fact]
    public void Seven_behind_the_last_black_draws_level_and_is_spotted_again() =>
        // Rule 4: level scores, a re-spotted black, as good for the one as for the other.
        Assert.InRange(Of(0, 5, 50, 57, 1), 0.45, 0.55);

    [Fact]
    public void A_penalty_that_is_needed_is_not_free()
    {
        // All colours left, 27 points: 27 behind they only draw level, 28 behind a penalty is needed first; 35 left and 40 behind, two.
        var (level, one, two) = (Of(0, 0, 20, 47, 0.9), Of(0, 0, 20, 48, 0.9), Of(1, 0, 20, 60, 0.9));
        Assert.InRange(one, 0.005, 0.08);
        Assert.InRange(two, 0, 0.03);
        Assert.True(level > one && one > two);
    }

    [Fact]
    public void It_grows_with_the_lead_and_with_the_pot_that_is_on()
    {
        var byLead = new[] { -60, -30, -10, 0, 10, 30, 60 }.Select(lead => Of(3, 0, 60 + lead, 60, 0.5)).ToList();
        Assert.Equal(byLead.Order(), byLead);
        var byPot = new[] { 0, 0.3, 0.6, 0.9 }.Select(pot => Of(3, 0, 60, 60, pot)).ToList();
        Assert.Equal(byPot.Order(), byPot);
    }

    [Fact]
    public void What_one_player_has_the_other_has_not()
    {
        var mine = Frame.Create(2, Ball.Colours, new() { First = 40, Second = 30 });
        var win = new WinChance(mine, County, County);
        var theirs = Frame.Create(
            2,
            Ball.Colours,
            new()
            {
                First = 40,
                Second = 30,
                Turn = 1,
            }
        );
        var asTheirs = new WinChance(theirs, County, County);
        Assert.Equal(1, win.Of(theirs, 0.4) + asTheirs.Of(theirs, 0.4), 1e-4);
    }

    /// <summary>
    /// Rule 3: a colour that is missed after the last red is out of its turn, and the other player comes to the yellow. Worked by hand from
    /// that player's own chance there.
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
        var win = new WinChance(colour, County, County);
        // As he comes to the table, his first pot goes in half as often as an ordinary one.
        var firstPot = 0.5 * new Evaluation(County, PlanPreferences.Default).Ordinary;
        double Yellow(int turn, int first) =>
            win.Of(
                Frame.Create(
                    0,
                    Ball.Colours,
                    new()
                    {
                        First = first,
                        Second = 30,
                        Turn = turn,
                    }
                ),
                firstPot
            );
        // No pot is on: passing the turn, or a snooker that brings four points one time in twenty.
        var passes = Yellow(turn: 1, first: 31);
        Assert.Equal(0.05 * Yellow(turn: 0, first: 35) + 0.95 * passes, win.Of(colour, 0), 6);
    }
}
