using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>What was off, from where the white stopped.</summary>
public class NextAdjustmentTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static VariantQuestion Meant()
    {
        var layout = Layout.Create([("white", 2.5, 0.6), ("red-1", 2.75, 1.15), ("black", 3.245, 0.889)], Shape);
        var cut = Cut.Of(layout, new(1, Pocket.GreenTop), Shape);
        var stroke = new Stroke(0, 0, 0.3, 3.6, 3);
        return new(layout, stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value }, cut, Shape, null, false, null);
    }

    private static Vec2 Stops(VariantQuestion q, Stroke stroke)
    {
        var simulator = new Simulator(Shape);
        stroke.Play(simulator, q.Layout);
        return simulator.At(0);
    }

    [Theory]
    [InlineData(StrokeKnob.Pace, 0.4)]
    [InlineData(StrokeKnob.Pace, -0.5)]
    [InlineData(StrokeKnob.Height, -0.4)]
    [InlineData(StrokeKnob.Height, 0.5)]
    [InlineData(StrokeKnob.Side, 0.4)]
    public void An_error_that_was_made_is_found_among_what_explains_it(StrokeKnob knob, double by)
    {
        var q = Meant();
        var seen = Stops(q, knob.Turned(q.Stroke, knob.Of(q.Stroke) + by));
        var told = NextAdjustment.Of(q, seen, Workers.Single());
        Assert.Equal(seen.DistanceTo(Stops(q, q.Stroke)), told.Off!.Value, 1e-9);
        var found = Assert.Single(told.Errors, e => e.Knob == knob);
        Assert.Equal(by, found.By, 0.02);
        Assert.True(found.Off < 0.03);
        Assert.Equal(told.Errors.Min(e => e.Off), told.Errors[0].Off);
    }

    [Fact]
    public void Near_enough_nothing_is_to_be_changed_and_what_no_error_does_is_not_explained()
    {
        var q = Meant();
        var stops = Stops(q, q.Stroke);
        Assert.Empty(NextAdjustment.Of(q, stops + new Vec2(0.03, 0), Workers.Single()).Errors);
        Assert.Empty(NextAdjustment.Of(q, new(0.1, 0.1), Workers.Single()).Errors);
    }
}
