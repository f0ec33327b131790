using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>Ladders of one's own: what each setting of a knob reaches.</summary>
public class KnobLadderTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>A cut of some 30° on the blue, and reds in a row across the white's ways after it.</summary>
    private static Layout Rows(bool isMirrored = false)
    {
        var balls = new List<(string, double, double)> { ("white", 1.3, 0.83), ("blue", 1.7845, 0.889) };
        for (var i = 0; i < 5; i++)
            balls.Add(($"red-{i + 1}", 1.5 + 0.22 * i, 1.55));
        return Layout.Create([.. balls.Select(b => (b.Item1, b.Item2, isMirrored ? Width - b.Item3 : b.Item3))], Shape);
    }

    private static VariantQuestion Asked(bool isMirrored = false)
    {
        var layout = Rows(isMirrored);
        var cut = Cut.Of(layout, new(1, isMirrored ? Pocket.GreenTop : Pocket.YellowTop), Shape);
        var stroke = new Stroke(0, 0, 0, 5, 0);
        stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
        return new(layout, stroke, cut, Shape, null, false, null);
    }

    private static IReadOnlyList<LadderRung> RungsOf(VariantQuestion q, StrokeKnob knob = StrokeKnob.Height) =>
        KnobLadder.Of(q, knob, KnobLadder.UsualRange(knob, q.Stroke), Workers.Single());

    [Fact]
    public void The_rungs_lie_end_to_end_and_reach_the_balls_in_their_order()
    {
        var q = Asked();
        var rungs = RungsOf(q);
        var (least, most) = StrokeKnob.Height.Limits(q.Stroke);
        Assert.Equal(least, rungs[0].From, 1e-9);
        Assert.InRange(rungs[^1].To, most - 0.05, most);
        for (var i = 1; i < rungs.Count; i++)
        {
            Assert.InRange(rungs[i].From - rungs[i - 1].To, 0, 0.05 * KnobLadder.Accuracy + 1e-9);
            Assert.NotEqual(rungs[i - 1].What, rungs[i].What);
        }
        // Common practice, no source: the higher the tip, the farther forward of the stun line the white goes.
        var met = rungs.Where(r => r is { From: > -1.3, What: { Potted: true, Ball: > 0 } }).Select(r => r.What!.Value.Ball).ToList();
        Assert.True(met.Distinct().Count() >= 3, string.Join(", ", met));
        var places = met.Select(slot => q.Layout.Balls[slot].X).ToList();
        Assert.Equal(places.Order(), places);
    }

    [Fact]
    public void A_stroke_from_within_a_rung_meets_the_ball_that_the_rung_names_and_from_beside_it_another_or_none()
    {
        var q = Asked();
        int Met(double height)
        {
            var stroke = q.Stroke with { HeightTips = height };
            stroke = stroke with { AimDegrees = PotAim.Find(q.Layout, q.Cut!.Value, stroke, Shape)!.Value };
            var (simulator, record) = (new Simulator(Shape), new ShotRecord());
            stroke.Play(simulator, q.Layout, record);
            return record.Events.Where(e => e.IsOfWhiteWithBall).Select(e => e.Ball + e.Other).Skip(1).FirstOrDefault(-1);
        }
        foreach (var rung in RungsOf(q).Where(r => r.What is { Potted: true, Ball: > 0 }))
        {
            Assert.Equal(rung.What!.Value.Ball, Met(rung.Middle));
            Assert.Equal(rung.What!.Value.Ball, Met(rung.From));
            Assert.Equal(rung.What!.Value.Ball, Met(rung.To));
        }
        var between = RungsOf(q).First(r => r.What is { Potted: true, Ball: -1, Gap: not null });
        Assert.Equal(-1, Met(between.Middle));
    }

    [Fact]
    public void In_a_mirror_the_rungs_are_the_same()
    {
        var (one, other) = (RungsOf(Asked()), RungsOf(Asked(isMirrored: true)));
        Assert.Equal(one.Count, other.Count);
        foreach (var (a, b) in one.Zip(other))
        {
            Assert.Equal(a.What?.Ball, b.What?.Ball);
            Assert.Equal(a.From, b.From, 0.003);
            Assert.Equal(a.To, b.To, 0.003);
        }
    }

    [Fact]
    public void A_gap_is_named_by_the_balls_that_stand_on_either_side_of_the_way()
    {
        // Aimed by hand, without a pot: between two reds, and nothing else near.
        var layout = Layout.Create([("white", 0.5, 0.889), ("red-1", 1.5, 0.75), ("red-2", 1.5, 1.03)], Shape);
        var q = new VariantQuestion(layout, new(0, 0, 0, 2.4, 0), null, Shape, null, true, null);
        var rungs = KnobLadder.Of(q, StrokeKnob.Aim, new(-12, 12, 0.25), Workers.Single());
        var gap = Assert.Single(rungs, r => r.From <= 0 && r.To >= 0);
        Assert.Equal((1, 2), gap.What!.Value.Gap);
        // By similar triangles: the white's edge must clear both balls.
        double Edge(int slot) =>
            Math.Abs((layout.Balls[slot].At - layout.White.At).Direction.Degrees)
            - Math.Asin(2 * BallRadius / layout.White.At.DistanceTo(layout.Balls[slot].At)) * 180 / Math.PI;
        Assert.Equal(Edge(2), gap.To, 0.01);
        Assert.Equal(-Edge(1), gap.From, 0.01);
        Assert.Contains(rungs, r => r.What is { First: 1 });
        Assert.Contains(rungs, r => r.What is { First: 2 });
    }
}
