using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Rules;

/// <summary>Against the Official Rules of Snooker, Section 3; the rule is named at each check (numbers and wording from memory).</summary>
public class FrameTests
{
    private static readonly Ball Red = Ball.Red(1);

    private static StrokeFacts Pot(params Ball[] balls) => new(balls[0], balls, balls[0].IsColour ? balls[0] : null);

    private static Frame With(int reds, BallOn on, int coloursGone = 0, int first = 0, int second = 0, bool freeBall = false) =>
        Frame.Create(reds, [.. Ball.Colours.Skip(coloursGone)], on, first, second, 0, 0, freeBall);

    [Fact]
    public void Rule_3_Reds_and_colours_are_potted_in_turn_and_colours_come_back()
    {
        var red = Frame.Start.Play(Pot(Red));
        Assert.Equal((1, BallOn.Colour, 14), (red.Points, red.NextFrame.On, red.NextFrame.Reds));
        var blue = red.NextFrame.Play(Pot(Ball.Blue));
        Assert.Equal((5, BallOn.Red, 6), (blue.Points, blue.NextFrame.On, blue.NextFrame.Break));
        Assert.Equal([Ball.Blue], blue.Spotted);
        Assert.Equal(6, blue.NextFrame.Colours.Count);
    }

    [Fact]
    public void Rule_3_The_colour_after_the_last_red_comes_back_and_then_they_go_in_the_order_of_their_values()
    {
        var frame = With(1, BallOn.Red).Play(Pot(Red)).NextFrame.Play(Pot(Ball.Yellow)).NextFrame;
        Assert.Equal((BallOn.Yellow, 6), (frame.On, frame.Colours.Count));
        foreach (var colour in Ball.Colours)
        {
            Assert.Equal(colour, frame.On.AsColour());
            var ruling = frame.Play(Pot(colour));
            Assert.Empty(ruling.Spotted);
            frame = ruling.NextFrame;
        }
        Assert.True(frame.IsOver);
        Assert.Equal((0, 1 + 2 + 27), (frame.Winner, frame.Scores.First));
    }

    [Fact]
    public void Rule_3_Several_reds_in_one_stroke_score_one_each() =>
        Assert.Equal((2, 13), Frame.Start.Play(new(Red, [Red, Ball.Red(2)])) is var r ? (r.Points, r.NextFrame.Reds) : default);

    /// <summary>147, and with a free ball taken as a red and its black eight more: common knowledge of the game.</summary>
    [Fact]
    public void The_highest_break_is_147_and_155_with_a_free_ball_first()
    {
        Assert.Equal(147, Frame.Start.HighestBreak);
        Assert.Equal(155, With(15, BallOn.Red, freeBall: true).HighestBreak);
        Assert.Equal(27, With(0, BallOn.Yellow).PointsLeft);
        Assert.Equal(7 + 27, With(0, BallOn.Colour).PointsLeft);
    }

    public static TheoryData<string, BallOn, string?, string, string?, int> Fouls =>
        new()
        {
            // on, first struck, potted, nominated, penalty
            { "misses all balls", BallOn.Red, null, "", null, 4 },
            { "a colour instead of a red", BallOn.Red, "yellow", "", null, 4 },
            { "the blue instead of a red", BallOn.Red, "blue", "", null, 5 },
            { "the black goes in off a red", BallOn.Red, "red-1", "black", null, 7 },
            { "in-off from a red", BallOn.Red, "red-1", "white", null, 4 },
            { "a red instead of the colour named", BallOn.Colour, "red-1", "", "pink", 6 },
            { "the black instead of the yellow named", BallOn.Colour, "black", "", "yellow", 7 },
            { "in-off from the blue named", BallOn.Colour, "blue", "white", "blue", 5 },
            { "a red goes in with the green named", BallOn.Colour, "green", "red-1", "green", 4 },
        };

    [Theory]
    [MemberData(nameof(Fouls))]
    public void Rule_11_A_foul_costs_four_or_the_value_of_the_ball_on_or_concerned_if_that_is_higher(
        string what,
        BallOn on,
        string? first,
        string potted,
        string? nominated,
        int penalty
    )
    {
        static Ball? Named(string? id) => id is not null && Ball.TryParse(id, out var ball) ? ball : null;
        var ruling = With(5, on).Play(new(Named(first), Named(potted) is { } p ? [p] : [], Named(nominated)));
        Assert.True(ruling.IsFoul, what);
        Assert.Equal((penalty, 0, penalty), (ruling.Penalty, ruling.Points, ruling.NextFrame.Scores.Second));
        Assert.Equal((1, BallOn.Red), (ruling.NextFrame.Turn, ruling.NextFrame.On));
    }

    [Fact]
    public void Rule_11_On_the_colours_the_ball_on_counts_too()
    {
        Assert.Equal(5, With(0, BallOn.Blue, 3).Play(new(null, [])).Penalty);
        Assert.Equal(7, With(0, BallOn.Yellow).Play(new(Ball.Yellow, [Ball.Black])).Penalty);
    }

    [Fact]
    public void Rule_11_Reds_that_go_in_by_a_foul_stay_down_and_colours_come_back()
    {
        var ruling = With(5, BallOn.Red).Play(new(Ball.Blue, [Red, Ball.Blue]));
        Assert.Equal(4, ruling.NextFrame.Reds);
        Assert.Equal([Ball.Blue], ruling.Spotted);
        Assert.True(With(5, BallOn.Red).Play(new(Red, [Ball.White])).NextFrame.InHand);
    }

    [Fact]
    public void Rule_6_Two_balls_at_once_are_a_foul_but_for_two_reds_or_a_free_ball_and_a_ball_on()
    {
        Assert.False(With(5, BallOn.Red).Play(new(Red, [], WithFirst: Ball.Red(2))).IsFoul);
        Assert.Equal(7, With(5, BallOn.Red).Play(new(Red, [], WithFirst: Ball.Black)).Penalty);
        Assert.False(With(5, BallOn.Red, freeBall: true).Play(new(Ball.Pink, [], Ball.Pink, WithFirst: Red)).IsFoul);
    }

    [Fact]
    public void Rule_12_A_free_ball_scores_as_the_ball_on_and_comes_back()
    {
        var asRed = With(5, BallOn.Red, freeBall: true).Play(Pot(Ball.Black));
        Assert.Equal((1, 5, BallOn.Colour), (asRed.Points, asRed.NextFrame.Reds, asRed.NextFrame.On));
        Assert.Equal([Ball.Black], asRed.Spotted);
        var asYellow = With(0, BallOn.Yellow, freeBall: true).Play(Pot(Ball.Brown));
        Assert.Equal((2, BallOn.Yellow), (asYellow.Points, asYellow.NextFrame.On));
        // With the ball on itself, both score, and only the free ball comes back.
        var both = With(0, BallOn.Yellow, freeBall: true).Play(new(Ball.Brown, [Ball.Brown, Ball.Yellow], Ball.Brown));
        Assert.Equal((4, BallOn.Green), (both.Points, both.NextFrame.On));
        Assert.Equal([Ball.Brown], both.Spotted);
        // A free ball that is not struck first is a foul, of the ball on's value or four.
        Assert.Equal(6, With(5, BallOn.Red, freeBall: true).Play(new(Ball.Pink, [], Ball.Blue)).Penalty);
    }

    [Fact]
    public void Rule_12_Leaving_a_snooker_behind_the_free_ball_is_a_foul_except_with_only_pink_and_black()
    {
        Assert.Equal(4, With(5, BallOn.Red, freeBall: true).Play(new(Ball.Blue, [], Ball.Blue, SnookersBehindFreeBall: true)).Penalty);
        Assert.False(With(0, BallOn.Pink, 4, freeBall: true).Play(new(Ball.Black, [], Ball.Black, SnookersBehindFreeBall: true)).IsFoul);
    }

    [Fact]
    public void Rule_13_After_a_foul_the_offender_may_be_asked_to_play_again()
    {
        var foul = With(5, BallOn.Red).Play(new(null, []), leavesSnookered: true).NextFrame;
        Assert.True(foul.FreeBall);
        var again = foul.PlayAgain();
        Assert.Equal((0, false), (again.Turn, again.FreeBall));
        Assert.Throws<InvalidOperationException>(() => again.PlayAgain());
    }

    [Fact]
    public void Rule_14_Three_misses_in_a_row_from_a_ball_in_full_sight_lose_the_frame()
    {
        var frame = With(15, BallOn.Red);
        for (var i = 0; i < 2; i++)
            frame = frame.Play(new(null, []), ruledMiss: true).NextFrame.PlayAgain();
        Assert.False(frame.IsOver);
        Assert.Equal(1, frame.Play(new(null, []), ruledMiss: true).NextFrame.Winner);
        // A fair stroke in between begins the count anew.
        Assert.Equal(0, frame.Play(new(Red, [])).NextFrame.Misses);
    }

    [Fact]
    public void Rule_14_No_miss_is_called_once_penalties_are_needed()
    {
        Assert.True(With(1, BallOn.Red, first: 10, second: 20).MissMayBeCalled);
        Assert.False(With(0, BallOn.Pink, 4, first: 10, second: 40).MissMayBeCalled);
    }

    [Fact]
    public void Rule_4_The_black_ends_the_frame_and_level_scores_bring_it_back_with_the_white_in_hand()
    {
        Assert.Equal(0, With(0, BallOn.Black, 5, first: 50, second: 52).Play(Pot(Ball.Black)).NextFrame.Winner);
        var level = With(0, BallOn.Black, 5, first: 50, second: 57).Play(Pot(Ball.Black)).NextFrame;
        Assert.False(level.IsOver);
        Assert.Equal((BallOn.Black, true), (level.On, level.InHand));
        // A foul at the black ends it as well.
        Assert.Equal(1, With(0, BallOn.Black, 5, first: 50, second: 50).Play(new(Ball.Black, [Ball.White])).NextFrame.Winner);
    }

    [Fact]
    public void What_is_needed_follows_from_the_score_and_the_balls_left()
    {
        // The last black, six behind: seven are left, so it is enough; eight behind, it is not, and one foul of four draws level or better.
        var six = With(0, BallOn.Black, 5, first: 50, second: 56);
        Assert.Equal((7, -6, 0, 7), (six.PointsLeft, six.Lead, six.SnookersRequired, six.PointsToWin));
        Assert.Equal(1, With(0, BallOn.Black, 5, first: 50, second: 58).SnookersRequired);
        Assert.Equal(3, With(0, BallOn.Black, 5, first: 50, second: 66).SnookersRequired);
        Assert.Equal(0, With(0, BallOn.Black, 5, first: 58, second: 50).PointsToWin);
        // With so many more points, and these gone from the table, the other cannot draw level; with one fewer he can.
        var mid = With(8, BallOn.Red, first: 20, second: 31);
        var (after, before) = (mid.Lead + mid.PointsToWin, mid.Lead + mid.PointsToWin - 1);
        Assert.True(after > mid.PointsLeft - mid.PointsToWin);
        Assert.False(before > mid.PointsLeft - mid.PointsToWin + 1);
    }

    [Fact]
    public void A_colour_that_comes_back_is_on_again_in_an_exercise()
    {
        var frame = Frame.Create(0, [Ball.Black], BallOn.Black, 0, 0, 0, 0, repeats: true);
        for (var i = 1; i <= 3; i++)
        {
            var ruling = frame.Play(Pot(Ball.Black));
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
}
