using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Scoring;
using DeepBaize.Core.Strokes;

namespace DeepBaize.Core.Tests.Scoring;

/// <summary>
/// Frames told shot by shot. Values and order by the Official Rules of Snooker, Section 3 (from memory); sums made by hand.
/// </summary>
public class FrameStoryTests
{
    private static RecordedShot Pot(params string[] balls) => new() { Kind = ShotKind.Pot, Potted = balls };

    private static RecordedShot Miss(EndReason? why = null) => new() { Kind = ShotKind.Miss, Why = why };

    private static RecordedShot Foul(int penalty) => new() { Kind = ShotKind.Foul, Penalty = penalty };

    [Fact]
    public void Scores_breaks_and_turns_follow_from_the_shots()
    {
        var story = FrameStory.Of([
            Pot("red"),
            Pot("black"),
            Pot("red"),
            Miss(EndReason.Thick),
            Pot("red", "red"),
            Pot("blue"),
            Foul(4),
            new() { Kind = ShotKind.Safety },
        ]);
        Assert.Equal((1 + 7 + 1 + 4, 2 + 5), story.Now.Scores);
        Assert.Equal([(0, 9, 3), (1, 7, 2)], story.Breaks.Select(b => (b.Player, b.Points, b.Pots)));
        Assert.Equal((11, 1, BallOn.Red), (story.Now.Reds, story.Now.Turn, story.Now.On));
        Assert.Equal((EndReason.Thick, BallOn.Colour), (story.Breaks[0].End!.Why, story.Breaks[0].EndOn));
    }

    [Fact]
    public void Figures_are_counted_for_each_player()
    {
        var story = FrameStory.Of([
            Pot("red") with
            {
                Tags = [StrokeTag.Follow],
            },
            Pot("pink") with
            {
                Tags = [StrokeTag.Screw, StrokeTag.Side],
            },
            Miss(EndReason.Thin) with
            {
                Tags = [StrokeTag.Screw],
            },
            Foul(5),
            Miss(EndReason.Thin),
        ]);
        var first = story.Players[0];
        Assert.Equal((7, 2, 2, 0.5, 7), (first.Points, first.Pots, first.Misses, first.PotShare, first.HighestBreak));
        Assert.Equal(
            [(StrokeTag.Follow, 1, 1), (StrokeTag.Screw, 2, 1), (StrokeTag.Side, 1, 1)],
            first.Tags.Select(t => (t.Tag, t.Played, t.Potted))
        );
        Assert.Equal((1, 5), (story.Players[1].Fouls, story.Players[1].PointsGivenAway));
        Assert.Equal(2, first.Ends.Where(e => e.Why == EndReason.Thin).Sum(e => e.Count));
    }

    [Fact]
    public void A_free_ball_counts_as_a_red_and_a_frame_can_be_told_to_its_end()
    {
        var free = FrameStory.Of([Foul(4) with { FreeBall = true }, Pot("brown")]);
        Assert.Equal((4 + 1, 15, BallOn.Colour), (free.Now.Scores.Second, free.Now.Reds, free.Now.On));

        List<RecordedShot> all = [];
        for (var i = 0; i < 15; i++)
            all.AddRange([Pot("red"), Pot("black")]);
        all.AddRange(new[] { "yellow", "green", "brown", "blue", "pink", "black" }.Select(c => Pot(c)));
        var maximum = FrameStory.Of(all);
        Assert.Equal((147, 0, 147), (maximum.Now.Scores.First, maximum.Now.Winner, Assert.Single(maximum.Breaks).Points));
        Assert.Equal("shots[36]", Assert.Throws<InputException>(() => FrameStory.Of([.. all, Miss()])).Errors[0].Field);
    }

    [Fact]
    public void A_foul_may_be_played_again_and_a_player_may_concede()
    {
        var again = FrameStory.Of([Foul(6) with { PlayAgain = true, RedsLost = 2, InOff = true }]);
        Assert.Equal((0, 6, 13, true), (again.Now.Turn, again.Now.Scores.Second, again.Now.Reds, again.Now.InHand));
        Assert.Equal(1, FrameStory.Of([new() { Kind = ShotKind.Concede }]).Now.Winner);
    }

    [Theory]
    [InlineData("black", "shots[0].potted")]
    [InlineData("puce", "shots[0].potted")]
    public void What_could_not_have_been_potted_is_refused(string ball, string field) =>
        Assert.Equal(field, Assert.Throws<InputException>(() => FrameStory.Of([Pot(ball)])).Errors[0].Field);

    [Theory]
    [InlineData(3)]
    [InlineData(8)]
    public void Fouls_are_worth_four_to_seven(int penalty) =>
        Assert.Equal("shots[0].penalty", Assert.Throws<InputException>(() => FrameStory.Of([Foul(penalty)])).Errors[0].Field);
}
