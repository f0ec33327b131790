using DeepBaize.Core.Learning;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Learning;

/// <summary>What being better at one part brings.</summary>
public class PracticeGainTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static PracticeGain Of(Skill skill) => PracticeGain.Of(Player.Default with { Skill = skill }, Shape, Workers.Shared());

    [Fact]
    public void Being_better_brings_more_where_more_is_wrong_and_nothing_where_nothing_is()
    {
        // His line is wild, and his pace and tip are a machine's.
        var skill = new Skill(Skill.Own, 0.12, 0.8, 0, 0.5, 0.05, 0.02) { Evenness = 8 };
        var gain = Of(skill);
        double PointsOf(string part) => gain.Parts.Single(p => p.Part.Name == part).Points.Value;
        Assert.InRange(PointsOf("direction"), 0.1, 20);
        Assert.Contains(gain.Parts[0].Part.Name, new[] { "direction", "sighting", "evenness" });
        Assert.True(PointsOf("direction") > PointsOf("pace"));
        Assert.Equal(0, PointsOf("allowance"), 1e-9);
        Assert.Equal(gain.Parts.OrderByDescending(p => p.Points.Value), gain.Parts);
        Assert.All(gain.Parts, p => Assert.True(p.Points.Error >= 0));
        // More points a visit win more frames, and none win none.
        Assert.Equal(gain.Parts.OrderByDescending(p => p.Frames.Value).Select(p => p.Part), gain.Parts.Select(p => p.Part));
        Assert.InRange(gain.Parts[0].Frames.Value, 0.001, 0.5);
        Assert.Equal(0, gain.Parts.Single(p => p.Part.Name == "allowance").Frames.Value, 1e-6);
    }

    [Fact]
    public void Each_part_is_made_smaller_by_itself_and_only_that_one()
    {
        var club = Skill.Named("club");
        foreach (var part in Skill.Parts)
        {
            var better = PracticeGain.Improved(club, part);
            foreach (var other in Skill.Parts.Where(o => o != part))
                Assert.Equal(other.Of(club), other.Of(better));
            Assert.NotEqual(part.Of(club), part.Of(better));
        }
        Assert.Equal(0.8 * club.PacePercent, PracticeGain.Improved(club, Skill.Parts.Single(p => p.Name == "pace")).PacePercent, 1e-12);
    }
}
