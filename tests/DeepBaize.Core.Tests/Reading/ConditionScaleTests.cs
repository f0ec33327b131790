using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>Tables in the words of players: common practice, no source, for the direction of each effect.</summary>
public class ConditionScaleTests
{
    private static ConditionEffect Effect(string scale, double to)
    {
        var conditions = Conditions.With(ConditionScale.Find(scale)!.Turned(null, to));
        return ConditionEffects.Of(conditions).Single(e => e.Scale.Name == scale);
    }

    [Theory]
    [InlineData("cloth", true)]
    [InlineData("cushions", true)]
    [InlineData("pockets", true)]
    [InlineData("balls", false)]
    [InlineData("cue", true)]
    public void Turned_to_one_side_the_stroke_that_shows_it_changes_that_way_and_at_the_middle_it_is_a_match_tables(
        string scale,
        bool rises
    )
    {
        // A quick cloth and lively cushions let a ball run farther, generous pockets are wider, worn balls throw more, a stiff cue squirts
        // more.
        var values = new[] { -1, -0.5, 0, 0.5, 1 }.Select(to => Effect(scale, to).Value).ToList();
        Assert.Equal(rises ? values.Order() : values.OrderDescending(), values);
        Assert.True(Math.Abs(values[4] - values[0]) > 0.05 * values[2], string.Join(", ", values));
        Assert.Equal(Effect(scale, 0).Standard, values[2]);
        foreach (var to in new[] { -1, -0.4, 0, 0.7, 1 })
            Assert.Equal(to, ConditionScale.Find(scale)!.Of(Conditions.With(ConditionScale.Find(scale)!.Turned(null, to))), 0.002);
    }

    [Fact]
    public void A_property_is_turned_alone_and_what_it_changes_is_told_alone()
    {
        var own = new Dictionary<string, double>
        {
            ["cornerGap"] = 0.09,
            ["gravity"] = 9.8,
            ["rollingFriction"] = 0.02,
        };
        var turned = ConditionScale.Find("cloth")!.Turned(own, 1);
        Assert.Equal((0.09, 9.8, 0.009), (turned["cornerGap"], turned["gravity"], turned["rollingFriction"]));
        Assert.Equal(["cornerGap", "gravity"], ConditionScale.Find("cloth")!.Turned(own, 0).Keys.Order());
        // The pockets that are set do not change how far a ball runs.
        var effects = ConditionEffects.Of(Conditions.With(new Dictionary<string, double> { ["cornerGap"] = 0.094 }));
        Assert.All(effects.Where(e => e.Scale.Name != "pockets"), e => Assert.Equal(e.Standard, e.Value));
    }

    [Fact]
    public void A_ball_runs_farther_on_a_quick_cloth_but_not_by_more_than_its_friction_is_less()
    {
        // v²/2μg (model.md, Motion): the rolling part of the way goes with 1/μr at the most; sliding and cushions take theirs before.
        var (slow, quick) = (Effect("cloth", -1).Value, Effect("cloth", 1).Value);
        Assert.InRange(quick / slow, 1.2, 0.018 / 0.009);
    }

    [Fact]
    public void Squirt_is_that_of_the_formula()
    {
        // Alciatore TP A.31 (model.md, Strike), from memory: a tip of side is R/(R + 5 mm) of 10 mm at the contact.
        var a = 0.010 / (Dimensions.BallRadius + 0.005);
        var degrees = Math.Atan(2.5 * a * Math.Sqrt(1 - a * a) / (1 + 28 + 2.5 * (1 - a * a))) * 180 / Math.PI;
        Assert.Equal(degrees, Effect("cue", 0).Value, 1e-9);
    }
}
