using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>Where the white of a thin pot goes.</summary>
public class PotChartTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static VariantQuestion Thin(double cutDegrees = 65)
    {
        // Into the green's top pocket, the white so placed that the cut is as asked.
        var red = new Vec2(3.0, 1.2);
        var pocket = Shape.PocketShapes[(int)Pocket.GreenTop].Drop.Centre;
        var line = (pocket - red).Direction.Degrees;
        var aim = Angle.FromDegrees(line - cutDegrees).Unit;
        var ghost = red - 2 * BallRadius * Angle.FromDegrees(line).Unit;
        var white = ghost - 0.7 * aim;
        var layout = Layout.Create([("white", white.X, white.Y), ("red-1", red.X, red.Y)], Shape);
        var cut = Cut.Of(layout, new(1, Pocket.GreenTop), Shape);
        var stroke = new Stroke(0, 0, 0, 4, 3);
        return new(layout, stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value }, cut, Shape, null, false, null);
    }

    private static readonly PotChart Chart = PotChart.Of(Thin(), Player.Default, Workers.Single());

    [Fact]
    public void Every_cell_is_the_stroke_that_it_names()
    {
        var q = Thin();
        Assert.Equal((35, 35), (Chart.ByPart.Count, Chart.BySide.Count));
        var cell = Chart.ByPart.Single(c => c.Row == 0.4 && c.Pace == 4.5);
        var cut = Cut.Of(q.Layout, q.Cut!.Value.Pot with { Part = 0.4 }, Shape);
        var stroke = q.Stroke with { Pace = 4.5 };
        var simulator = new Simulator(Shape);
        (stroke with { AimDegrees = PotAim.Find(q.Layout, cut, stroke, Shape)!.Value }).Play(simulator, q.Layout);
        Assert.Equal(simulator.At(0), cell.End!.White);
        Assert.Equal(simulator.PocketOf(1) == Pocket.GreenTop, cell.Potted);
    }

    [Fact]
    public void The_thick_side_of_the_pocket_sends_the_white_elsewhere_and_it_keeps_nearly_all_its_pace()
    {
        // Common practice, no source: aiming at the thick or the thin half changes the white's route; of a thin pot it keeps nearly all
        // its pace, and stun and screw do little.
        var atFour = Chart.ByPart.Where(c => c is { Pace: 4, Potted: true }).ToList();
        Assert.True(atFour.Count >= 3);
        var stops = atFour.Select(c => c.End!.White!.Value).ToList();
        Assert.True(stops[0].DistanceTo(stops[^1]) > 0.05);
        var (thin, thick) = (Apart(Thin()), Apart(Thin(cutDegrees: 25)));
        Assert.True(thin < 0.5 * thick, $"{thin:0.0} {thick:0.0}");
    }

    /// <summary>Angle between the ways of the white with screw and with follow, 0.4 m on from the contact, degrees.</summary>
    private static double Apart(VariantQuestion q)
    {
        var ghost = q.Cut!.Value.Ghost;
        var ways = Fan.Of(q, FanKind.Heights, new(-1, 1, 2), Workers.Single())
            .Select(l =>
                (l.WhitePath.SkipWhile(p => p.At.DistanceTo(ghost) > 0.02).First(p => p.At.DistanceTo(ghost) > 0.4).At - ghost).Direction
            )
            .ToList();
        return Math.Abs(Angle.Between(ways[0], ways[1]).Degrees);
    }

    [Fact]
    public void A_thick_miss_is_missed_on_the_thick_side_and_leaves_the_ball_elsewhere_than_a_thin_one()
    {
        var (thick, thin) = (
            Chart.Missed.Single(m => m is { IsThick: true, Pace: 4 }),
            Chart.Missed.Single(m => m is { IsThick: false, Pace: 4 })
        );
        Assert.NotNull(thick.Ball);
        Assert.NotNull(thin.Ball);
        Assert.True(thick.Ball!.Value.DistanceTo(thin.Ball!.Value) > 0.05);
        // Cut to the left into the green's top pocket: struck too thick, it comes to the top cushion's jaw and not to the side's.
        Assert.True(thick.Ball.Value.X > 0 && thick.White is not null);
    }

    [Fact]
    public void Where_the_pace_does_not_bring_the_ball_to_the_pocket_no_chance_of_a_harder_stroke_is_told()
    {
        var q = Thin();
        var rows = PaceTable.Of(q, new(1.5, 4.5, 1), Player.Default, Workers.Single()).Rows;
        var soft = new Stroke(q.Stroke.AimDegrees, 0, 0, 1.5, 3);
        var simulator = new Simulator(Shape);
        soft.Play(simulator, q.Layout);
        Assert.True(simulator.At(1).DistanceTo(q.Layout.Balls[1].At) < 0.3);
        Assert.Equal(0, rows[0].Chance!.Value.Value);
        Assert.True(rows[^1].Chance!.Value.Value > 0.3);
        Assert.All(PotChart.Of(q with { Stroke = soft }, Player.Default, Workers.Single()).Spins, s => Assert.Equal(0, s.Chance.Value));
    }
}
