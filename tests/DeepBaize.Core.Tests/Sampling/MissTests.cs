using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Sampling;

/// <summary>On which side a pot is missed.</summary>
public class MissTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    private static SpreadOdds Odds(Layout layout, Stroke stroke, Cut cut) =>
        Spread.Sample(new(layout, stroke, cut, County.Skill, Shape), Workers.Shared(), SpreadEffort.Of(1024), outlines: false).Odds;

    [Theory]
    [InlineData(1, 0.6)] // cut to one side
    [InlineData(1, 1.6)] // and to the other
    public void A_cut_aimed_too_full_is_missed_thick_and_one_aimed_too_fine_thin(double whiteX, double whiteY)
    {
        var layout = Layout.OfRest([new(Ball.White, whiteX, whiteY), new(Ball.Red(1), 2.2, 1.1)]);
        var cut = Cut.Of(layout, new(1, Pocket.GreenTop), Shape);
        var stroke = new Stroke(0, 0, 0, 4, 3);
        var aim = PotAim.Find(layout, cut, stroke, Shape)!.Value;
        // Fuller is towards the ball's middle.
        var middle = (layout.Balls[1].At - layout.White.At).Direction.Degrees;
        var fuller = Math.Sign(middle - aim);
        var thick = Odds(layout, stroke with { AimDegrees = aim + 0.5 * fuller }, cut);
        var thin = Odds(layout, stroke with { AimDegrees = aim - 0.5 * fuller }, cut);
        Assert.True(thick.MissThick.Value > 0.8 && thick.MissThin.Value < 0.02, $"{thick}");
        Assert.True(thin.MissThin.Value > 0.8 && thin.MissThick.Value < 0.02, $"{thin}");
    }

    [Fact]
    public void A_double_aimed_in_the_middle_of_its_window_is_missed_on_both_sides()
    {
        var layout = Layout.OfRest([new(Ball.White, 2.4, 0.8), new(Ball.Red(1), 2.1, 0.25)]);
        var pots = TableReading
            .Read(layout, new(0, 0, 0, 4, 3), County, Shape)
            .Where(o => o.Cut.Kind == PotKind.Double && o.Chance.Value > 0.2)
            .ToList();
        Assert.NotEmpty(pots);
        foreach (var pot in pots)
        {
            var odds = Odds(layout, pot.Stroke, pot.Cut);
            var (thick, thin) = (odds.MissThick.Value, odds.MissThin.Value);
            Assert.True(Math.Min(thick, thin) > 0.15 * (thick + thin), $"{pot.Cut.Pocket}: thick {thick}, thin {thin}");
        }
    }
}
