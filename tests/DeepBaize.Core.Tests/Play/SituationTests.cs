using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Play;

/// <summary>Strokes simulated and ruled. Official Rules of Snooker, Section 3 (from memory).</summary>
public class SituationTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static Situation Table(double whiteX, double whiteY, BallOn? on, params (string Id, double X, double Y)[] others) =>
        Situation.Create(
            Layout.Create(
                [
                    ("white", whiteX, whiteY),
                    .. Rack.Colours().Where(c => others.All(o => o.Id != c.Ball.Id)).Select(c => ((string?)c.Ball.Id, c.X, c.Y)),
                    .. others.Select(o => ((string?)o.Id, o.X, o.Y)),
                ],
                Shape
            ),
            new() { On = on }
        );

    private static PlayedStroke Play(Situation from, Stroke stroke, Ball? nominated)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, from.Layout, record);
        return from.Play(simulator, record, nominated, Shape);
    }

    private static Stroke Aimed(Situation from, Ball ball, Pocket pocket, double pace)
    {
        var cut = Cut.Of(from.Layout, new(from.Layout.SlotOf(ball), pocket), Shape);
        var stroke = new Stroke(0, 0, 0, pace, 0);
        return stroke with { AimDegrees = PotAim.Find(from.Layout, cut, stroke, Shape)!.Value };
    }

    [Fact]
    public void A_potted_red_is_gone_and_a_potted_colour_is_back_on_its_spot()
    {
        var from = Table(2.4, 0.6, null, ("red-1", 2.9, 0.4), ("red-2", 2.0, 1.5));
        var red = Play(from, Aimed(from, Ball.Red(1), Pocket.YellowTop, 4), Ball.Red(1));
        Assert.Equal((1, BallOn.Colour), (red.Ruling.Points, red.Leaves.Frame.On));
        Assert.Equal(-1, red.Leaves.Layout.SlotOf(Ball.Red(1)));

        var blue = Table(1.6, 0.6, BallOn.Colour, ("red-2", 2.0, 1.5));
        var played = Play(blue, Aimed(blue, Ball.Blue, Pocket.GreenMiddle, 4), Ball.Blue);
        Assert.Equal((5, BallOn.Red), (played.Ruling.Points, played.Leaves.Frame.On));
        Assert.Equal(Spot(Ball.Blue), played.Leaves.Layout.Balls[played.Leaves.Layout.SlotOf(Ball.Blue)].At);
    }

    [Fact]
    public void After_an_in_off_the_white_is_played_from_the_D()
    {
        var from = Table(0.6, 0.3, null, ("red-1", 3.0, 1.5));
        // Straight into the baulk pocket.
        var played = Play(from, new(Math.Atan2(0 - 0.3, 0 - 0.6) * 180 / Math.PI, 0, 0, 4, 0), null);
        Assert.True(played.Ruling.IsFoul);
        Assert.Equal(4, played.Ruling.Penalty);
        Assert.True(played.Leaves.Frame.InHand);
        Assert.True(InD(played.Leaves.Layout.White.At));
    }

    [Fact]
    public void Rule_8_Played_away_from_a_touching_ball_that_is_on_it_counts_as_struck()
    {
        var from = Table(2.0, 0.5, null, ("red-1", 2.0 + 2 * BallRadius, 0.5), ("red-2", 3.3, 1.6));
        var away = Play(from, new(180, 0, 0, 2, 0), null);
        Assert.False(away.Ruling.IsFoul);
        // Played on to it, it is pushed: a foul.
        Assert.True(Play(from, new(0, 0, 0, 2, 0), null).Ruling.IsFoul);
        // So it is where a referee rules that they touch, though there is a hair between them.
        Assert.True(
            Play(
                Table(2.0, 0.5, null, ("red-1", 2.0 + 2 * BallRadius + 2e-6, 0.5), ("red-2", 3.3, 1.6)),
                new(20, 0, 0, 2, 0),
                null
            ).Ruling.IsFoul
        );
        // Away from it, and back to it off the cushion behind.
        Assert.False(
            Play(Table(0.1, 0.5, null, ("red-1", 0.1 + 2 * BallRadius, 0.5), ("red-2", 3.3, 1.6)), new(180, 0, 0, 3, 0), null).Ruling.IsFoul
        );
        // A touching ball that is not on counts for nothing: the white still has to strike a red.
        var colour = Table(2.0, 0.5, null, ("yellow", 2.0 + 2 * BallRadius, 0.5), ("red-2", 3.3, 1.6));
        Assert.Contains(FoulReason.MissedAll, Play(colour, new(180, 0, 0, 1.5, 0), null).Ruling.Fouls);
    }

    [Fact]
    public void Rule_12_A_foul_that_leaves_the_other_player_snookered_gives_a_free_ball()
    {
        // The white rolls up behind the brown, and the only red is in line with both.
        var from = Table(0.45, Width / 2, null, ("red-1", 2.2, Width / 2));
        var played = Play(from, new(0, 0, 0, 1, 0), null);
        Assert.Contains(FoulReason.WrongBallFirst, played.Ruling.Fouls);
        Assert.True(played.Leaves.Frame.FreeBall);
        Assert.Contains(played.Leaves.OnSlots(), slot => played.Leaves.Layout.Balls[slot].Ball == Ball.Black);
    }

    [Fact]
    public void Rule_8_Away_from_a_touching_colour_another_that_is_named_may_be_played()
    {
        // Any colour is on, the white lies against the blue, and the pink is named and hit.
        var from = Table(2.0, 0.5, BallOn.Colour, ("blue", 2.0, 0.5 - 2 * BallRadius), ("pink", 2.6, 0.9), ("red-1", 3.3, 1.6));
        var stroke = new Stroke(Math.Atan2(0.4, 0.6) * 180 / Math.PI, 0, 0, 3, 0);
        Assert.False(Play(from, stroke, Ball.Pink).Ruling.IsFoul);
        // Named itself, the touching one counts as struck, whatever comes then.
        Assert.False(Play(from, stroke, Ball.Blue).Ruling.IsFoul);
        // Another is named and not hit first.
        Assert.Equal([FoulReason.WrongBallFirst], Play(from, stroke, Ball.Brown).Ruling.Fouls);
    }

    [Fact]
    public void Rule_12_In_hand_there_is_a_free_ball_only_if_no_place_in_the_D_opens_a_ball_on()
    {
        // In-off, with the only red in the open.
        Stroke inOff = new(Math.Atan2(0 - 0.3, 0 - 0.6) * 180 / Math.PI, 0, 0, 4, 0);
        Assert.False(Play(Table(0.6, 0.3, null, ("red-1", 3.0, 1.5)), inOff, null).Leaves.Frame.FreeBall);
        // The red close behind a wall of colours across the table.
        var wall = Ball.Colours.Select((c, i) => (c.Id, 1.5, Width / 2 + (i - 2.5) * 2.02 * BallRadius));
        Assert.True(Play(Table(0.6, 0.3, null, [.. wall, ("red-1", 1.56, Width / 2)]), inOff, null).Leaves.Frame.FreeBall);
    }

    [Fact]
    public void Rule_14_After_a_miss_the_balls_are_put_back_or_played_from_where_they_lie()
    {
        // The brown is hit instead of the red, which lies open; a miss is called.
        var from = Table(0.45, 0.75, null, ("red-1", 2.2, 0.5));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        new Stroke(Math.Atan2(0.139, 0.287) * 180 / Math.PI, 0, 0, 2, 0).Play(simulator, from.Layout, record);
        var missed = from.Play(simulator, record, null, Shape, missCalled: true);
        Assert.True(missed.Ruling.IsMiss);
        var replay = missed.Leaves.Replay();
        Assert.Equal(from.Layout.Balls, replay.Layout.Balls);
        Assert.Equal((0, 1, (0, 4)), (replay.Frame.Turn, replay.Frame.Misses, replay.Frame.Scores));
        var again = missed.Leaves.PlayAgain();
        Assert.NotEqual(from.Layout.Balls, again.Layout.Balls);
        Assert.Equal((0, 0), (again.Frame.Turn, again.Frame.Misses));
    }

    [Fact]
    public void The_frame_has_to_be_possible_with_the_balls()
    {
        InputError[] Errors(BallOn? on, params (string Id, double X, double Y)[] balls) =>
            [
                .. Assert
                    .Throws<InputException>(() =>
                        Situation.Create(
                            Layout.Create([("white", 1.0, 0.5), .. balls.Select(b => ((string?)b.Id, b.X, b.Y))], Shape),
                            new() { On = on }
                        )
                    )
                    .Errors,
            ];
        Assert.Contains(Errors(null, ("red-1", 2, 0.5), ("black", 3.245, 0.889)), e => e.Field == "frame.colours");
        Assert.Contains(Errors(BallOn.Red, ("black", 3.245, 0.889)), e => e.Field == "frame.on");
        Assert.Contains(Errors(null), e => e.Field == "frame.colours");
    }
}
