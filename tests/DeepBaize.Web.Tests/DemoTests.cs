using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using DeepBaize.Data.Demo;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Tests;

/// <summary>What the demo says of its positions is so.</summary>
public class DemoTests
{
    [Fact]
    public void The_break_off_comes_back_between_baulk_colours_and_cushion_and_touches_no_colour()
    {
        // Common practice, no source: thin off an end red, off three cushions, back to baulk.
        var content = CheckedContent.Of(DemoPositions.All.Single(p => p.Name == "Opening break").Content);
        var (simulator, record) = (new Simulator(content.Shape), new ShotRecord());
        content.Stroke.Play(simulator, content.Layout, record);
        var struck = record.Events.Where(e => e.IsOfWhiteWithBall).Select(e => content.Layout.Balls[e.Ball + e.Other].Ball).Distinct();
        Assert.True(Assert.Single(struck).IsRed);
        Assert.Equal(3, record.Events.Count(e => e.Ball == 0 && e.Kind == ShotEventKind.Cushion));
        Assert.InRange(simulator.At(0).X, Dimensions.BallRadius, Dimensions.BaulkLineX - 2 * Dimensions.BallRadius);
    }
}
