using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Tests.Valuing;

/// <summary>Own points less the other player's, and the chance of a target, worked by hand.</summary>
public class PointsObjectiveTests
{
    private static readonly Player County = Player.OfSkill("county");
    private static readonly VisitSkill Skill = VisitSkill.Of(County);

    private static Outlook Worth(double points, double left = 0, double foul = 0) =>
        new(new Quality(points, null, 0.9, 0, default, default), default, default, foul, left);

    private static Frame Colours(int from, int first, int second, int turn = 0) =>
        Frame.Create(
            0,
            [.. Ball.Colours.Skip(from)],
            new()
            {
                First = first,
                Second = second,
                Turn = turn,
            }
        );

    /// <summary>With pink and black left an open visit is worth p·6 + p²·7, p the chance of an ordinary shot.</summary>
    private static double OpenVisit
    {
        get
        {
            var p = Skill.Pot * Skill.Keeps;
            return 6 * p + 7 * p * p;
        }
    }

    [Fact]
    public void A_break_is_worth_its_points_less_what_a_usual_miss_leaves()
    {
        var (from, now) = (Colours(4, 20, 20), Colours(4, 25, 20));
        var objective = new PointsObjective(from, 0, County, County);
        Assert.Equal(5 + 10 - Skill.OpeningAfterMiss * OpenVisit, objective.Of(now, Worth(10)), 10);
        Assert.Equal("points", objective.Unit);
    }

    [Fact]
    public void What_the_other_player_may_expect_is_taken_off()
    {
        var (from, now) = (Colours(4, 20, 20), Colours(4, 20, 20, turn: 1));
        var objective = new PointsObjective(from, 0, County, County);
        Assert.Equal(-(10 - Skill.OpeningAfterMiss * OpenVisit), objective.Of(now, Worth(10)), 10);
        // No pot is on, and a safety that leaves a pot three times in ten.
        Assert.Equal(0.3 * OpenVisit, objective.Of(now, Worth(0, left: 0.3)), 10);
        // Hidden: six points as often as the pink is missed (rule 11, from memory), and the table beside.
        var missed = 6 + Skill.OpeningAfterMiss * OpenVisit;
        Assert.Equal(0.4 * missed + 0.6 * 0.3 * OpenVisit, objective.Of(now, Worth(0, left: 0.3, foul: 0.4)), 10);
    }

    [Fact]
    public void In_an_exercise_nobody_comes_to_the_table_after_a_miss()
    {
        var frame = Frame.Create(0, Ball.Colours, new() { Repeats = true, On = BallOn.Black });
        var objective = new PointsObjective(frame, 0, County, County);
        Assert.Equal(12, objective.Of(frame, Worth(12)), 10);
        Assert.Equal(0, objective.AfterMiss(frame.AfterMiss), 10);
    }

    [Fact]
    public void A_target_is_reached_or_may_be_or_is_gone()
    {
        var start = Colours(4, 20, 20);
        var score = new PlanPreferences(PlanTarget.Score, Score: 6);
        var objective = Objectives.For(start, 0, County, County, score);
        Assert.Equal("target", objective.Unit);
        var made = start with { Scores = (26, 20), Break = 6, On = BallOn.Black, Colours = [Ball.Black] };
        // Six of six, with a twentieth of a hundredth for each point; before it, what the table promises; after the turn has passed,
        // nothing.
        Assert.Equal(1 + 0.0005 * 6, objective.Of(made, Worth(0)), 10);
        Assert.Equal(0.7, objective.Of(start, Worth(0.7)), 10);
        Assert.Equal(0, objective.Of(start with { Turn = 1 }, Worth(0.7)), 10);
    }

    [Theory]
    [InlineData(PlanTarget.Frame, false, "win")]
    [InlineData(PlanTarget.MostPoints, false, "points")]
    [InlineData(PlanTarget.Frame, true, "points")]
    [InlineData(PlanTarget.Clear, false, "target")]
    public void The_measure_follows_what_is_played_for(PlanTarget target, bool isExercise, string unit)
    {
        var frame = isExercise ? Frame.Create(0, Ball.Colours, new() { Repeats = true, On = BallOn.Black }) : Frame.Start;
        Assert.Equal(unit, Objectives.For(frame, 0, County, County, new(target)).Unit);
    }

    [Fact]
    public void In_a_frame_that_is_as_good_as_over_points_are_asked_for()
    {
        // All colours left, 27 points: 28 behind it is open, 44 behind it is not.
        string UnitOf(int lead) => Objectives.For(Colours(0, 60 + lead, 60), 0, County, County, PlanPreferences.Default).Unit;
        Assert.Equal(["points", "win", "win", "win", "points"], new[] { -44, -28, 0, 43, 44 }.Select(UnitOf));
    }
}
