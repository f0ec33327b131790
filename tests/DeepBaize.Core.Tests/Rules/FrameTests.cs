using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>
/// A frame from stroke to stroke, and its figures. Official Rules of Snooker, Section 3 (numbers and wording from memory). Single rulings
/// are
/// in <see cref="RefereeTests"/>.
/// </summary>
public class FrameTests
{
    private static readonly Ball Red = Ball.Red(1);

    private static StrokeFacts Pot(params Ball[] balls) => new(balls[0], balls, balls[0].IsColour ? balls[0] : null);

    private static Frame Next(Frame frame, StrokeFacts facts) => Referee.Rule(frame, facts).NextFrame;

    private static Frame With(int reds, BallOn on, int coloursGone = 0, int first = 0, int second = 0, bool freeBall = false) =>
        Frame.Create(
            reds,
            [.. Ball.Colours.Skip(coloursGone)],
            new()
            {
                On = on,
                First = first,
                Second = second,
                FreeBall = freeBall,
            }
        );

    private static readonly StrokeFacts Missed = new(null, []) { MissCalled = true, FullBallOpen = true };

    [Fact]
    public void Rule_3_The_colours_go_in_the_order_of_their_values_after_the_last_red()
    {
        var frame = Next(Next(With(1, BallOn.Red), Pot(Red)), Pot(Ball.Yellow));
        Assert.Equal((BallOn.Yellow, 6), (frame.On, frame.Colours.Count));
        foreach (var colour in Ball.Colours)
        {
            Assert.Equal(colour, frame.On.AsColour());
            var ruling = Referee.Rule(frame, Pot(colour));
            Assert.Empty(ruling.Spotted);
            frame = ruling.NextFrame;
        }
        Assert.True(frame.IsOver);
        Assert.Equal((0, 1 + 2 + 27), (frame.Winner, frame.Scores.First));
    }

    /// <summary>147, and with a free ball taken as a red and its black eight more: common knowledge of the game.</summary>
    [Fact]
    public void The_highest_break_is_147_and_155_with_a_free_ball_first()
    {
        Assert.Equal(147, Frame.Start.HighestBreak);
        Assert.Equal(155, With(15, BallOn.Red, freeBall: true).HighestBreak);
        Assert.Equal(27, With(0, BallOn.Yellow).PointsLeft);
        Assert.Equal(7 + 27, With(0, BallOn.Colour).PointsLeft);
    }

    [Fact]
    public void Rule_4_Of_a_respotted_black_it_is_drawn_who_plays_first_and_only_a_pot_or_a_foul_ends_it()
    {
        var level = Next(With(0, BallOn.Black, 5, first: 50, second: 57), Pot(Ball.Black));
        Assert.True(level is { AwaitsLot: true, IsRespotted: true, IsOver: false });
        // Nothing is on until the lot is drawn, and nothing is ruled.
        Assert.False(level.MayPlay(Ball.Black));
        Assert.Throws<InvalidOperationException>(() => Referee.Rule(level, Pot(Ball.Black)));
        var frame = level.PlaysFirst(1);
        Assert.Throws<InvalidOperationException>(() => frame.PlaysFirst(0));
        Assert.Equal((1, true), (frame.Turn, frame.MayPlay(Ball.Black)));
        // A rally: strokes that pot nothing end nothing.
        for (var i = 0; i < 5; i++)
            frame = Next(frame, new(Ball.Black, []));
        Assert.Equal((0, false), (frame.Turn, frame.IsOver));
        Assert.Equal(0, Next(frame, Pot(Ball.Black)).Winner);
        Assert.Equal(1, Next(frame, new(Ball.Black, [Ball.White])).Winner);
    }

    [Fact]
    public void Rule_4_A_frame_is_over_when_it_is_conceded_awarded_or_out_of_reach_with_the_black_alone()
    {
        Assert.Equal(1, With(5, BallOn.Red).Concede().Winner);
        Assert.Equal(0, With(5, BallOn.Red).Award(0).Winner);
        Assert.Equal(1, With(0, BallOn.Black, 5, first: 50, second: 58).Winner);
        Assert.Equal(0, With(0, BallOn.Black, 5, first: 58, second: 50).Winner);
        Assert.False(With(0, BallOn.Black, 5, first: 50, second: 57).IsOver);
        Assert.Throws<InvalidOperationException>(() => Referee.Rule(With(5, BallOn.Red).Concede(), Pot(Red)));
    }

    [Fact]
    public void Rule_13_Asked_to_play_again_the_offender_plays_from_where_the_balls_lie_and_the_free_ball_is_void()
    {
        // A red was potted before: the offender's turn is over, and reds are on.
        var foul = Next(With(5, BallOn.Colour), new StrokeFacts(Ball.Blue, [Red], Ball.Blue) { LeavesSnookered = true });
        Assert.True(foul.FreeBall);
        var again = foul.PlayAgain();
        Assert.Equal((0, false, BallOn.Red, 4), (again.Turn, again.FreeBall, again.On, again.Reds));
        Assert.Throws<InvalidOperationException>(() => again.PlayAgain());
        // The balls are put back only after a miss.
        Assert.Throws<InvalidOperationException>(() => foul.Replay());
    }

    [Fact]
    public void Rule_14_Replaced_after_a_miss_the_ball_on_is_as_it_was_and_the_balls_come_back()
    {
        var colourOn = Next(With(5, BallOn.Red), Pot(Red));
        var missed = Next(colourOn, new StrokeFacts(null, [Ball.Red(2)], Ball.Blue) { MissCalled = true });
        Assert.Equal((1, BallOn.Red, 3), (missed.Turn, missed.On, missed.Reds));
        var replayed = missed.Replay();
        // Any colour is on again, with the reds there were; the penalty stands, and the break is over.
        Assert.Equal((0, BallOn.Colour, 4), (replayed.Turn, replayed.On, replayed.Reds));
        Assert.Equal(((1, 5), 0), (replayed.Scores, replayed.Break));
        // From where they lie it is another choice: a red is on then, and the reds stay down.
        var asLeft = missed.PlayAgain();
        Assert.Equal((0, BallOn.Red, 3), (asLeft.Turn, asLeft.On, asLeft.Reds));
        // And the other player may play himself.
        Assert.Equal(1, missed.Turn);
    }

    [Fact]
    public void Rule_14_Three_misses_of_one_turn_from_a_ball_in_full_sight_lose_the_frame()
    {
        var frame = With(15, BallOn.Red);
        for (var i = 0; i < 2; i++)
        {
            Assert.False(frame.IsWarned);
            frame = Next(frame, Missed).Replay();
        }
        Assert.True(frame is { IsOver: false, IsWarned: true });
        Assert.Equal(1, Next(frame, Missed).Winner);
    }

    [Fact]
    public void Rule_14_Misses_are_counted_for_each_player_and_each_turn_of_unbroken_replays()
    {
        var once = Next(With(15, BallOn.Red), Missed);
        Assert.Equal(1, once.Replay().Misses);
        // The other plays himself, and misses too: that is his first.
        Assert.Equal((0, 1), (once.Misses, Next(once, Missed).Replay().Misses));
        // Played from where the balls lie it is another place, and the count begins anew; so it does after a fair stroke.
        Assert.Equal(0, once.PlayAgain().Misses);
        Assert.Equal(0, Next(once.Replay(), new(Red, [])).Misses);
        // Out of a snooker it does not count towards the three.
        Assert.Equal(0, Next(With(15, BallOn.Red), Missed with { FullBallOpen = false }).Replay().Misses);
    }

    [Fact]
    public void What_is_needed_follows_from_the_score_and_the_balls_left()
    {
        // The last black, six behind: seven are left, so it is enough.
        var six = With(0, BallOn.Black, 5, first: 50, second: 56);
        Assert.Equal((7, -6, 0, 7), (six.PointsLeft, six.Lead, six.SnookersRequired, six.PointsToWin));
        Assert.Equal(0, With(0, BallOn.Black, 5, first: 57, second: 50).SnookersRequired);
        // With so many more points, and these gone from the table, the other cannot draw level; with one fewer he can.
        var mid = With(8, BallOn.Red, first: 20, second: 31);
        var (after, before) = (mid.Lead + mid.PointsToWin, mid.Lead + mid.PointsToWin - 1);
        Assert.True(after > mid.PointsLeft - mid.PointsToWin);
        Assert.False(before > mid.PointsLeft - mid.PointsToWin + 1);
    }

    /// <summary>A foul costs at least four, and at least the value of the ball on: rule 11.</summary>
    [Theory]
    [InlineData(1, BallOn.Red, 0, 35 + 1, 1)] // four each while reds are on: 35 are left
    [InlineData(1, BallOn.Red, 0, 35 + 5, 2)]
    [InlineData(0, BallOn.Yellow, 0, 27 + 9, 3)]
    [InlineData(0, BallOn.Blue, 3, 18 + 6, 2)] // a foul on the blue gives five
    [InlineData(0, BallOn.Pink, 4, 13 + 6, 1)] // with pink and black left a foul gives six
    [InlineData(0, BallOn.Pink, 4, 13 + 7, 2)]
    public void Snookers_required_are_reckoned_by_the_least_penalty_there_can_be(int reds, BallOn on, int gone, int behind, int required) =>
        Assert.Equal(required, With(reds, on, gone, first: 0, second: behind).SnookersRequired);

    [Fact]
    public void A_colour_that_comes_back_is_on_again_in_an_exercise()
    {
        var frame = Frame.Create(0, [Ball.Black], new() { On = BallOn.Black, Repeats = true });
        for (var i = 1; i <= 3; i++)
        {
            var ruling = Referee.Rule(frame, Pot(Ball.Black));
            Assert.Equal([Ball.Black], ruling.Spotted);
            frame = ruling.NextFrame;
            Assert.Equal((7 * i, BallOn.Black, false), (frame.Break, frame.On, frame.IsOver));
        }
    }

    [Theory]
    [InlineData(16, BallOn.Red, 0, "frame.reds")]
    [InlineData(3, BallOn.Red, 1, "frame.colours")]
    [InlineData(0, BallOn.Red, 0, "frame.on")]
    [InlineData(3, BallOn.Blue, 0, "frame.on")]
    [InlineData(0, BallOn.Green, 0, "frame.on")]
    public void States_that_cannot_be_are_refused_with_the_field(int reds, BallOn on, int coloursGone, string field) =>
        Assert.Contains(Assert.Throws<InputException>(() => With(reds, on, coloursGone)).Errors, e => e.Field == field);

    [Fact]
    public void Rule_12_A_free_ball_when_any_colour_is_on_is_refused() =>
        Assert.Equal(
            "frame.freeBall",
            Assert.Single(Assert.Throws<InputException>(() => With(5, BallOn.Colour, freeBall: true)).Errors).Field
        );
}
