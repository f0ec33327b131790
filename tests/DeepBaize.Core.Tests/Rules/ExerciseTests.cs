using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>
/// Layouts that are no frame, as coaches lay them: a few balls, any of them on or one after the other. Common practice, no source; fouls
/// are those of the Official Rules, Section 3 (from memory).
/// </summary>
public class ExerciseTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Ball[] Reds = [Ball.Red(1), Ball.Red(2), Ball.Red(3)];

    private static Layout BlueAndBlack { get; } =
        Layout.OfRest([new(Ball.White, 1.5, 0.6), new(Ball.Blue, Spot(Ball.Blue)), new(Ball.Black, Spot(Ball.Black))]);

    private static Layout BlackAndReds { get; } =
        Layout.OfRest([
            new(Ball.White, 2.9, 0.6),
            new(Ball.Black, Spot(Ball.Black)),
            new(Reds[0], 3.2, 0.4),
            new(Reds[1], 2.6, 1.3),
            new(Reds[2], 3.3, 1.5),
        ]);

    private static Frame Of(ExerciseOrder order, params Ball[] balls) =>
        Frame.Create(balls.Count(b => b.IsRed), [.. balls.Where(b => b.IsColour)], new() { Exercise = new(order, balls) });

    private static Ruling Ruled(Frame frame, Ball first, params Ball[] potted) => Referee.Rule(frame, new(first, potted, null));

    [Fact]
    public void A_layout_that_is_no_frame_is_an_exercise_with_any_ball_on()
    {
        foreach (var layout in (Layout[])[BlueAndBlack, BlackAndReds])
        {
            var situation = Situation.OfBalls(layout);
            Assert.Equal(BallOn.Exercise, situation.Frame.On);
            Assert.Equal(layout.Balls.Count - 1, situation.OnSlots().Count());
        }
        // Pink and black are the end of a frame, and stay one.
        var end = Situation.OfBalls(Layout.OfRest([new(Ball.White, 1, 1), new(Ball.Pink, 2, 1), new(Ball.Black, 3, 1)]));
        Assert.Equal((BallOn.Pink, null), (end.Frame.On, end.Frame.Exercise));
    }

    [Fact]
    public void What_a_frame_asks_for_is_still_asked_for_where_a_frame_is_meant()
    {
        var fault = Assert.Throws<InputException>(() => Situation.Create(BlueAndBlack, new() { On = BallOn.Blue }));
        Assert.Contains(fault.Errors, e => e.Message.Contains("order of their values"));
        Assert.Throws<InputException>(() => Situation.Create(BlueAndBlack, new() { On = BallOn.Exercise }));
    }

    [Fact]
    public void A_potted_ball_scores_its_value_and_stays_down_until_none_is_left()
    {
        var first = Ruled(Of(ExerciseOrder.Any, Ball.Blue, Ball.Black), Ball.Black, Ball.Black);
        Assert.Equal((7, false, 0), (first.Points, first.IsFoul, first.Spotted.Count));
        Assert.Equal([Ball.Blue], first.NextFrame.Exercise!.Balls);
        Assert.Equal((0, 5, false), (first.NextFrame.Turn, first.NextFrame.PointsLeft, first.NextFrame.IsOver));
        var last = Ruled(first.NextFrame, Ball.Blue, Ball.Blue);
        Assert.Equal((5, 12, true), (last.Points, last.NextFrame.Break, last.NextFrame.IsOver));
    }

    [Fact]
    public void Two_balls_at_once_both_count_where_any_is_on() =>
        Assert.Equal(8, Ruled(Of(ExerciseOrder.Any, Reds[0], Reds[1], Ball.Black), Reds[0], Reds[0], Ball.Black).Points);

    [Fact]
    public void In_order_only_the_next_ball_is_on()
    {
        var frame = Of(ExerciseOrder.InOrder, Ball.Black, Reds[0], Ball.Blue);
        Assert.True(frame.MayPlay(Ball.Black) && !frame.MayPlay(Reds[0]) && !frame.MayPlay(Ball.Blue));
        var wrong = Ruled(frame, Ball.Blue, Ball.Blue);
        // Seven, the value of the ball on, which is more than the blue's (rule 11).
        Assert.Equal((0, 7), (wrong.Points, wrong.Penalty));
        Assert.Equal([Ball.Blue], wrong.Spotted);
        Assert.Equal(1, wrong.NextFrame.Turn);
        var next = Ruled(frame, Ball.Black, Ball.Black).NextFrame;
        Assert.True(next.MayPlay(Reds[0]) && !next.MayPlay(Ball.Blue));
    }

    [Fact]
    public void A_red_that_a_foul_takes_is_gone_from_the_exercise()
    {
        var foul = Referee.Rule(Of(ExerciseOrder.Any, Reds[0], Ball.Black), new(Reds[0], [Ball.White, Reds[0], Ball.Black], null));
        Assert.True(foul.IsFoul);
        Assert.Equal([Ball.Black], foul.NextFrame.Exercise!.Balls);
        Assert.Equal([Ball.Black], foul.Spotted);
        Assert.True(foul.NextFrame is { InHand: true, FreeBall: false, Offence: null });
    }

    [Theory]
    [InlineData("exercise.balls", "not on the table")]
    [InlineData("freeBall", "no free ball")]
    public void What_belongs_to_a_frame_has_no_place_in_it(string field, string message)
    {
        var setup =
            field == "freeBall"
                ? new FrameSetup { Exercise = new(ExerciseOrder.Any, [Ball.Black]), FreeBall = true }
                : new FrameSetup { Exercise = new(ExerciseOrder.Any, [Ball.Pink]) };
        var fault = Assert.Throws<InputException>(() => Frame.Create(0, [Ball.Black], setup));
        Assert.Contains(fault.Errors, e => e.Field == $"frame.{field}" && e.Message.Contains(message));
    }

    [Fact]
    [Trait("Speed", "Slow")]
    public void Break_and_safety_take_it()
    {
        var county = Player.OfSkill("county");
        var situation = Situation.OfBalls(BlueAndBlack);
        var plan = BreakPlanner.Solve(situation, PlanPreferences.Default, county, Shape, Thoroughness.Gate(2)).Plans[0];
        Assert.Equal(2, plan.Shots.Count);
        Assert.Equal(2, plan.Shots.Select(s => s.Choice.Target.Nominated).Distinct().Count());
        var decision = Decider.Solve(Situation.OfBalls(BlackAndReds), county, county, Shape, Thoroughness.Gate(2));
        Assert.NotEmpty(decision.Attacks);
        Assert.NotEmpty(decision.Safeties);
        Assert.Equal((0, "points"), (decision.SnookersRequired, decision.Unit));
    }
}
