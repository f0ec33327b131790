using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>How much spin the white has left along its way.</summary>
public class SpinTraceTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static IReadOnlyList<SpinMark> Played(Stroke stroke, params (string, double, double)[] balls)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, Layout.Create([.. balls], Shape), record);
        return SpinTrace.Of(record);
    }

    [Fact]
    public void Struck_at_two_fifths_of_the_radius_it_rolls_from_the_tip_on_and_at_the_centre_it_has_no_spin()
    {
        // Coriolis 1835.
        var rolling = Played(new(0, 0, 0.4 / Tip.Fraction(1), 5, 0), ("white", 1, 0.9));
        Assert.Equal(SpinStage.Struck, rolling[0].Stage);
        Assert.Equal(1, rolling[0].Follow, 1e-9);
        Assert.Equal(0, Played(new(0, 0, 0, 5, 0), ("white", 1, 0.9))[0].Follow, 1e-9);
    }

    [Fact]
    public void Screw_fades_on_the_way_and_side_by_the_spins_own_deceleration()
    {
        var stroke = new Stroke(0, 0.5, -1, 5, 0);
        var marks = Played(stroke, ("white", 1, 0.9), ("red-1", 2.5, 0.9));
        var (struck, half, contact) = (marks[0], marks[1], marks.Single(m => m.Stage == SpinStage.Contact));
        Assert.Equal(SpinStage.UnderWay, half.Stage);
        Assert.True(struck.Follow < half.Follow && half.Follow < contact.Follow);
        Assert.Equal(1, struck.Side, 1e-9);
        // model.md: ωz falls by 10 rad/s each second.
        var given = stroke.ToStrike().Launch(Conditions.Default).Wz;
        Assert.Equal(1 - 10 * contact.Time / given, contact.Side, 1e-6);
        // As the arrival tells it.
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, Layout.Create([("white", 1, 0.9), ("red-1", 2.5, 0.9)], Shape), record);
        Assert.Equal(Arrival.Of(record, stroke.ToStrike(), Shape)!.Value.Follow, contact.Follow, 1e-6);
    }
}
