using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>What a stroke does to a pack, told as a distribution.</summary>
public class PackOpeningTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>High on the black, the pack full: a firm follow goes into it and opens it. Common practice, no source.</summary>
    private static readonly Layout High = Layout.OfRest([new(Ball.White, 3.03, 1.12), .. Rack.Colours(), .. Rack.Pack().Take(14)]);

    private static Stroke Into(double pace)
    {
        var cut = Cut.Of(High.White, High.Balls[High.SlotOf(Ball.Black)], Pocket.YellowTop, Shape);
        var stroke = new Stroke(0, 0, 0.8, pace, 3);
        var trial = new PotTrial(High, Cut.Of(High, new(High.SlotOf(Ball.Black), Pocket.YellowTop), Shape), Shape);
        return stroke with { AimDegrees = PotAim.Find(trial, cut, stroke) ?? cut.AimDegrees };
    }

    private static PackOpening? Of(Stroke stroke, string skill = "county", Workers? workers = null) =>
        PackOpening.Of(High, stroke, Skill.Named(skill), Shape, workers ?? Workers.Shared());

    [Fact]
    public void A_firm_follow_from_high_on_the_black_opens_the_pack_by_no_fixed_number()
    {
        var opens = Of(Into(6))!;
        Assert.True(opens.Least < opens.Most, $"{opens}");
        Assert.InRange(opens.Mostly, opens.Least, opens.Most);
        Assert.InRange(opens.Mean.Value, opens.Least, opens.Most);
        Assert.True(opens.Mean is { Error: > 0, Strokes: 64 });
        Assert.True(opens.Mean.Value - 2 * opens.Mean.Error > 2, $"{opens}");
    }

    [Fact]
    public void Where_no_pack_is_met_nothing_is_said()
    {
        // Straight across the table towards the cushion.
        Assert.Null(Of(new(90, 0, 0, 3, 3)));
        var open = Layout.OfRest([new(Ball.White, 2.2, 0.9), new(Ball.Red(1), 2.8, 0.9), new(Ball.Red(2), 3.0, 0.7)]);
        Assert.Null(PackOpening.Of(open, new(0, 0, 0, 5, 3), Skill.Named("club"), Shape, Workers.Shared()));
    }

    [Fact]
    public void The_same_question_has_the_same_answer_on_any_number_of_cores() =>
        Assert.Equal(Of(Into(6.2)), Of(Into(6.2), workers: Workers.Single()));
}
