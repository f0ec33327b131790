using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

/// <summary>What the white may be asked to do, each by a stroke that does it and one that just does not.</summary>
public class GoalTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static (bool IsMet, double Distance) Played(Goal goal, Layout layout, Stroke stroke)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        return (goal.IsMet(record, simulator, layout), goal.Distance(record, simulator, layout));
    }

    private static Layout Laid(params (string, double, double)[] balls) => Layout.Create([.. balls], Shape);

    private static Stroke Aimed(double degrees, double pace = 2.4) => new(degrees, 0, 0, pace, 0);

    [Fact]
    public void A_gap_is_passed_where_a_ball_has_room_by_similar_triangles()
    {
        var layout = Laid(("white", 0.5, 0.889), ("red-1", 1.5, 0.75), ("red-2", 1.5, 1.03));
        var goal = ThroughGap.Create(layout, 1, 2);
        // The white's centre must clear both balls: its line passes each at more than a ball's width.
        double Edge(int slot) =>
            Math.Abs((layout.Balls[slot].At - layout.White.At).Direction.Degrees)
            - Math.Asin(2 * BallRadius / layout.White.At.DistanceTo(layout.Balls[slot].At)) * 180 / Math.PI;
        foreach (var (slot, side) in new[] { (1, -1), (2, 1) })
        {
            Assert.Equal((true, 0), Played(goal, layout, Aimed(side * (Edge(slot) - 0.05))));
            Assert.False(Played(goal, layout, Aimed(side * (Edge(slot) + 0.05))).IsMet);
        }
        // A gap is as good from its other end: the balls may be named either way round.
        Assert.True(Played(ThroughGap.Create(layout, 2, 1), layout, Aimed(0)).IsMet);
        // On the way there the distance falls steadily, so that a search can follow it.
        var far = Played(goal, layout, Aimed(20)).Distance;
        Assert.True(far > Played(goal, layout, Aimed(10)).Distance && Played(goal, layout, Aimed(10)).Distance > 0);
        Assert.Throws<InputException>(() => ThroughGap.Create(layout, 1, 1));
    }

    [Fact]
    public void A_ball_is_passed_at_the_distance_between_the_edges()
    {
        var layout = Laid(("white", 0.5, 0.889), ("red-1", 1.5, 0.889));
        double Clear(double degrees) => Math.Sin(degrees * Math.PI / 180) - 2 * BallRadius;
        var aim = 4.0;
        Assert.True(Played(PastBall.Create(1, Clear(aim) - 0.002, Clear(aim) + 0.002), layout, Aimed(aim)).IsMet);
        Assert.False(Played(PastBall.Create(1, Clear(aim) + 0.001, 0.5), layout, Aimed(aim)).IsMet);
        Assert.False(Played(PastBall.Create(1, 0, Clear(aim) - 0.001), layout, Aimed(aim)).IsMet);
        // Touched, or not got as far: not passed.
        Assert.False(Played(PastBall.Create(1, 0, 0.5), layout, Aimed(1)).IsMet);
        Assert.False(Played(PastBall.Create(1, 0, 0.5), layout, Aimed(aim, pace: 1.2)).IsMet);
    }

    [Fact]
    public void An_angle_on_the_next_ball_is_its_cut_from_where_the_white_stops()
    {
        var layout = Laid(("white", 1.0, 0.889), ("black", 3.245, 0.889));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        Aimed(8).Play(simulator, layout, record);
        var cut = Cut.Of(new(Ball.White, simulator.At(0)), layout.Balls[1], Pocket.YellowTop, Shape);
        var angle = Math.Abs(cut.CutDegrees);
        OnAngle Asked(double least, double most, double farthest = 3) =>
            OnAngle.Create(1, null, Pocket.YellowTop, (least, most), farthest, Shape);
        Assert.True(Asked(angle - 1, angle + 1).IsMet(record, simulator, layout));
        Assert.False(Asked(angle + 1, angle + 10).IsMet(record, simulator, layout));
        Assert.False(Asked(angle - 1, angle + 1, cut.CueBallDistance - 0.05).IsMet(record, simulator, layout));
        Assert.Equal(0.05, Asked(angle - 1, angle + 1, cut.CueBallDistance - 0.05).Distance(record, simulator, layout), 1e-9);
    }

    [Fact]
    public void A_place_of_a_cushion_is_met_where_the_line_meets_it()
    {
        var layout = Laid(("white", 2.5, 0.889));
        // Straight on at 10°: it meets the top cushion's nose line, a radius short of it.
        var at = 0.889 + (Length - BallRadius - 2.5) * Math.Tan(10 * Math.PI / 180);
        Assert.True(Played(OffCushion.Create(Cushion.Top, at, 0.01), layout, Aimed(10, 4)).IsMet);
        Assert.False(Played(OffCushion.Create(Cushion.Top, at + 0.02, 0.015), layout, Aimed(10, 4)).IsMet);
        Assert.False(Played(OffCushion.Create(Cushion.GreenSide, 1, 1), layout, Aimed(10, 4)).IsMet);
    }

    [Fact]
    public void A_ball_is_freed_when_what_stood_in_its_way_has_gone()
    {
        // The pink's way into the green's top pocket is blocked by a red; the white knocks the red away, or passes it.
        var pink = Spot(Ball.Pink);
        var drop = Shape.PocketShapes[(int)Pocket.GreenTop].Drop.Centre;
        var red = pink + 0.3 * (drop - pink).Unit;
        var layout = Laid(("white", red.X, red.Y - 0.6), ("pink", pink.X, pink.Y), ("red-1", red.X, red.Y));
        var goal = Frees.Create(1, null, Pocket.GreenTop, Shape);
        Assert.False(Played(goal, layout, Aimed(100)).IsMet);
        Assert.True(Played(goal, layout, Aimed(90, 4)).IsMet);
    }

    [Fact]
    public void A_drift_is_the_way_from_the_contact_to_where_it_stops()
    {
        var layout = Laid(("white", 1.0, 0.889), ("blue", 1.7845, 0.889));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        Aimed(0, 4).Play(simulator, layout, record);
        var contact = 1.7845 - 2 * BallRadius;
        var by = simulator.At(0).DistanceTo(new(contact, 0.889));
        Assert.True(Drift.Create(by, 0.01).IsMet(record, simulator, layout));
        Assert.Equal(0.04, Drift.Create(by + 0.05, 0.01).Distance(record, simulator, layout), 1e-6);
    }

    [Fact]
    public void Goals_together_want_both_and_either_wants_one()
    {
        var layout = Laid(("white", 1.0, 0.889));
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        Aimed(0, 2).Play(simulator, layout, record);
        var here = StopIn.Create(simulator.At(0).X, simulator.At(0).Y, 0.1);
        var there = StopIn.Create(0.2, 0.2, 0.1);
        Assert.False(Combined.Create([here, there], isAll: true).IsMet(record, simulator, layout));
        Assert.True(Combined.Create([here, there], isAll: false).IsMet(record, simulator, layout));
        Assert.True(Combined.Create([here, new OffNoCushion()], isAll: true).IsMet(record, simulator, layout));
        Aimed(0, 6).Play(simulator, layout, record);
        Assert.False(new OffNoCushion().IsMet(record, simulator, layout));
    }

    [Fact]
    public void Without_a_pot_a_ball_may_be_met_first()
    {
        var layout = Laid(("white", 1.0, 0.889), ("blue", 1.7845, 0.889));
        Assert.True(Played(Cannon.Create(1, null), layout, Aimed(0, 3)).IsMet);
    }
}
