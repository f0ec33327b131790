using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>How far each knob of a stroke may be turned.</summary>
public class ShotWindowTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static ShotWindows WindowsOf(VariantQuestion question) => ShotWindows.Of(question, Workers.Single());

    /// <summary>Plays a stroke by itself: whether the ball goes in, the white stays, and the goal is met.</summary>
    private static bool Does(VariantQuestion q, Stroke stroke)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, q.Layout, record);
        return simulator.PocketOf(q.Cut!.Value.Pot.Slot) == q.Cut!.Value.Pocket
            && simulator.IsOnTable(0)
            && (q.Goal?.IsMet(record, simulator, q.Layout) ?? true);
    }

    private static VariantQuestion Asked(Layout layout, Pot pot, Stroke stroke, Func<Vec2, Goal?>? goal = null)
    {
        var cut = Cut.Of(layout, pot, Shape);
        stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
        var simulator = new Simulator(Shape);
        stroke.Play(simulator, layout);
        return new(layout, stroke, cut, Shape, goal?.Invoke(simulator.At(0)), KeepsAim: false, Butt: null);
    }

    private static readonly Layout Table = Layout.Create([("white", 2.5, 0.6), ("red-1", 2.75, 1.15), ("black", 3.245, 0.889)], Shape);

    private static VariantQuestion WithPlace(double radius = 0.2) =>
        Asked(Table, new(1, Pocket.GreenTop), new Stroke(0, 0, 0.3, 3.6, 3), at => StopIn.Create(at.X, at.Y, radius));

    [Fact]
    public void At_each_end_the_stroke_just_does_it_and_just_beyond_it_does_not()
    {
        var q = WithPlace();
        var windows = WindowsOf(q);
        Assert.True(windows.IsMet);
        void Ends(KnobRange? range, double set, Func<double, Stroke> turned, double beyond)
        {
            var r = range!;
            Assert.InRange(set, r.From, r.To);
            foreach (var (end, direction, isLimit) in ((double, int, bool)[])[(r.From, -1, r.IsToLeast), (r.To, 1, r.IsToMost)])
            {
                Assert.True(Does(q, turned(end)));
                if (!isLimit)
                    Assert.False(Does(q, turned(end + direction * beyond)));
            }
        }
        Stroke Anew(Stroke s) => s with { AimDegrees = PotAim.Find(q.Layout, q.Cut!.Value, s, Shape)!.Value };
        var (stroke, knob) = (q.Stroke, 1.5 * ShotWindows.Accuracy);
        Ends(windows.Pace, stroke.Pace, v => Anew(stroke with { Pace = v }), knob);
        Ends(windows.Height, stroke.HeightTips, v => Anew(stroke with { HeightTips = v }), knob);
        Ends(windows.Side, stroke.SideTips, v => Anew(stroke with { SideTips = v }), knob);
        Ends(windows.Aim, stroke.AimDegrees, v => stroke with { AimDegrees = v }, 1.5 * ShotWindows.AimAccuracy);
    }

    [Fact]
    public void In_a_mirror_the_ranges_are_the_same_with_side_and_aim_turned_over()
    {
        var q = WithPlace();
        var there = ((StopIn)q.Goal!).Area.Centre;
        var mirrored = Layout.Create([.. q.Layout.Balls.ToArray().Select(b => (b.Ball.Id, b.At.X, Width - b.At.Y))], Shape);
        var other = Asked(
            mirrored,
            new(1, Pocket.YellowTop),
            new Stroke(0, 0, 0.3, 3.6, 3),
            _ => StopIn.Create(there.X, Width - there.Y, 0.2)
        );
        var (a, b) = (WindowsOf(q), WindowsOf(other));
        Assert.Equal(a.Pace!.From, b.Pace!.From, 0.003);
        Assert.Equal(a.Height!.To, b.Height!.To, 0.003);
        Assert.Equal(a.Side!.From, -b.Side!.To, 0.003);
        Assert.Equal(a.Aim!.To - q.Stroke.AimDegrees, other.Stroke.AimDegrees - b.Aim!.From, 0.0005);
    }

    [Fact]
    public void A_wider_place_leaves_more_and_the_pot_alone_most()
    {
        static double WidthOf(KnobRange? r) => r!.To - r.From;
        var (narrow, wide) = (WindowsOf(WithPlace(0.08)), WindowsOf(WithPlace(0.3)));
        var pot = WindowsOf(Asked(Table, new(1, Pocket.GreenTop), new Stroke(0, 0, 0.3, 3.6, 3)));
        foreach (var knob in (Func<ShotWindows, KnobRange?>[])[w => w.Pace, w => w.Height, w => w.Side])
        {
            Assert.True(WidthOf(knob(narrow)) < WidthOf(knob(wide)));
            Assert.True(WidthOf(knob(wide)) <= WidthOf(knob(pot)));
        }
        // Common practice, no source: an easy pot goes in at nearly any height of the tip.
        Assert.True(pot.Height!.IsToLeast && pot.Height.IsToMost);
    }

    [Fact]
    public void The_range_of_aims_of_a_pot_is_what_the_pocket_leaves_by_similar_triangles()
    {
        // Straight, both distances known: the ball may leave by the opening's half to either side, and d/2R of it is the aim's.
        var layout = Layout.Create([("white", 2.4, 0.889), ("red-1", 2.9, 0.889 + 0.5 * (Width - 0.889) / (Length - 2.4))], Shape);
        var q = Asked(layout, new(1, Pocket.GreenTop), new Stroke(0, 0, 0, 3, 0));
        var range = WindowsOf(q).Aim!;
        var window = PotAim.Window(new PotTrial(layout, q.Cut!.Value, Shape), q.Cut!.Value, q.Stroke);
        Assert.Equal(window.Left - window.Right, range.To - range.From, 0.001);
    }

    [Fact]
    public void A_stroke_that_does_not_do_it_has_no_ranges()
    {
        var q = WithPlace() with { Goal = StopIn.Create(0.3, 0.3, 0.05) };
        Assert.Equal(new(false, null, null, null, null), WindowsOf(q));
    }
}
