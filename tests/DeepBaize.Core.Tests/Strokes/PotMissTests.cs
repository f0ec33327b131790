using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

/// <summary>How a pot was missed: thick or thin, by how much, off which jaw.</summary>
public class PotMissTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static (PotMiss? Miss, Cut Cut, ShotRecord Record) Played(Layout layout, Pocket pocket, double turn, double pace = 3.5)
    {
        var cut = Cut.Of(layout, new Pot(1, pocket), Shape);
        var stroke = new Stroke(0, 0, 0, pace, 3);
        stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value + turn };
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        return (PotMiss.Of(record, simulator, cut, Shape), cut, record);
    }

    // A cut to the left: the white comes from the right of the potting line.
    private static readonly Layout Table = Layout.Create([("white", 2.5, 0.6), ("red-1", 2.75, 1.15)], Shape);

    [Fact]
    public void A_fuller_aim_misses_thick_and_a_thinner_one_thin()
    {
        var cut = Cut.Of(Table, new Pot(1, Pocket.GreenTop), Shape);
        // Turned towards the middle of the ball it is struck fuller.
        var fuller = Math.Sign(((Table.Balls[1].At - Table.White.At).Direction.Degrees - cut.AimDegrees));
        var (thick, thin) = (Played(Table, Pocket.GreenTop, 0.8 * fuller), Played(Table, Pocket.GreenTop, -0.8 * fuller));
        Assert.Equal((MissSide.Thick, MissSide.Thin), (thick.Miss!.Side, thin.Miss!.Side));
        Assert.Null(Played(Table, Pocket.GreenTop, 0).Miss);
    }

    [Fact]
    public void How_far_off_it_is_follows_from_its_direction_and_how_far_it_has_to_go()
    {
        foreach (var turn in (double[])[-1.2, -0.7, 0.7, 1.2])
        {
            var (miss, cut, record) = Played(Table, Pocket.GreenTop, turn);
            // By similar triangles: the line that it sets out on, as far as the pocket.
            var first = record.Pieces.First(p => p.Ball == 1 && p.End - p.Start > 0.02);
            var angle = first.VelocityAtEnd.Direction.Degrees - cut.First.Direction.Degrees;
            Assert.Equal(cut.First.Length * Math.Abs(Math.Sin(angle * Math.PI / 180)), miss!.Off, 0.004);
            Assert.Null(miss.Short);
            // It is seen to cross the mouth about as far beside its middle.
            Assert.InRange(miss.Crossing!.Value.DistanceTo(cut.First.To), miss.Off * 0.5, miss.Off * 2 + 0.03);
        }
    }

    [Fact]
    public void In_a_mirror_it_misses_alike()
    {
        var mirrored = Layout.Create([("white", 2.5, Width - 0.6), ("red-1", 2.75, Width - 1.15)], Shape);
        var (here, there) = (Played(Table, Pocket.GreenTop, 0.9).Miss!, Played(mirrored, Pocket.YellowTop, -0.9).Miss!);
        Assert.Equal((here.Side, here.IsNearJaw), (there.Side, there.IsNearJaw));
        Assert.Equal(here.Off, there.Off, 1e-5);
    }

    [Fact]
    public void A_straight_pot_is_missed_to_the_left_or_right_and_a_soft_one_falls_short()
    {
        var up = (Width - 0.889) / (Length - 2.4);
        var straight = Layout.Create([("white", 2.4, 0.889), ("red-1", 2.9, 0.889 + 0.5 * up)], Shape);
        // The object ball goes to the right of the line where the white is aimed to the left of it.
        Assert.Equal(MissSide.Right, Played(straight, Pocket.GreenTop, 0.9).Miss!.Side);
        Assert.Equal(MissSide.Left, Played(straight, Pocket.GreenTop, -0.9).Miss!.Side);
        var cut = Cut.Of(straight, new Pot(1, Pocket.GreenTop), Shape);
        var soft = new Stroke(cut.AimDegrees, 0, 0, 1.7, 3);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        soft.Play(simulator, straight, record);
        var miss = PotMiss.Of(record, simulator, cut, Shape)!;
        Assert.Equal(simulator.At(1).DistanceTo(cut.First.To), miss.Short!.Value, 1e-6);
        Assert.Null(miss.Crossing);
    }
}
