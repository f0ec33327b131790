using DeepBaize.Core.Physics;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>What one change of a stroke did, and how balls turn, held to figures worked out beside them.</summary>
public class StrokeChangeTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static (Stroke Stroke, WhiteWay Way, ShotRecord Record) Played(Layout layout, Stroke stroke)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        stroke.Play(simulator, layout, record);
        return (stroke, WhiteWay.Of(record, simulator), record);
    }

    [Fact]
    public void Of_a_plain_ball_without_a_contact_the_way_is_the_whole_way_and_its_angle_off_the_cushion_that_of_its_path()
    {
        var layout = Layout.Create([("white", 1.0, 0.5)], Shape);
        var played = Played(layout, new(50, 0, 0, 3, 0));
        var path = ShotPath.Points(played.Record, 1, 1e-6)[0];
        var length = path.Zip(path.Skip(1)).Sum(p => p.First.At.DistanceTo(p.Second.At));
        Assert.Equal(length, played.Way.Length, 0.002);
        Assert.Equal(Cushion.GreenSide, played.Way.Off);
        // Just after the nose, before sliding bends it: the first two points of the path.
        var bounce = played.Record.Events.First(e => e.Kind == ShotEventKind.Cushion).Time;
        var (a, b) = (path.First(p => p.Time >= bounce), path.First(p => p.Time >= bounce + 0.004));
        var degrees = Math.Atan2(Math.Abs(b.X - a.X), Math.Abs(b.Y - a.Y)) * 180 / Math.PI;
        Assert.Equal(degrees, played.Way.OffDegrees, 0.3);
    }

    [Fact]
    public void One_knob_is_named_with_what_it_moved_and_several_are_not()
    {
        // Common practice, no source: a lower tip takes pace off a white that runs on, more pace adds to it.
        var layout = Layout.Create([("white", 2.0, 0.6), ("red-1", 2.6, 0.85)], Shape);
        var pot = new Pot(1, Pocket.GreenTop);
        Stroke Aimed(double height, double pace) =>
            Cut.Of(layout, pot, Shape) is var cut
                ? new Stroke(PotAim.Find(layout, cut, new(cut.AimDegrees, 0, height, pace, 3), Shape)!.Value, 0, height, pace, 3)
                : default;
        StrokeChange Change(Stroke before, Stroke after)
        {
            var (a, b) = (Played(layout, before), Played(layout, after));
            return StrokeChange.Of((a.Stroke, a.Way), (b.Stroke, b.Way), isPot: true);
        }
        var lower = Change(Aimed(0.5, 4), Aimed(0, 4));
        Assert.Equal(StrokeKnob.Height, lower.Knob);
        Assert.Equal(-0.5, lower.By, 9);
        Assert.True(lower.Longer < -0.1, $"{lower.Longer}");
        Assert.True(lower.Moved > 0.1);
        var harder = Change(Aimed(0.5, 4), Aimed(0.5, 4.5));
        Assert.Equal(StrokeKnob.Pace, harder.Knob);
        Assert.True(harder.Longer > 0.1);
        // The aim follows from the pot, so it is none of what was turned.
        Assert.Null(Change(Aimed(0.5, 4), Aimed(0, 4.5)).Knob);
        Assert.Null(Change(Aimed(0.5, 4), Aimed(0.5, 4)).Knob);
        // Told backwards it is the same with the sign turned.
        var back = Change(Aimed(0, 4), Aimed(0.5, 4));
        Assert.Equal(-lower.Longer, back.Longer, 9);
        Assert.Equal(-lower.WiderDegrees, back.WiderDegrees, 9);
    }

    [Fact]
    public void A_ball_that_rolls_turns_by_its_way_over_its_radius_and_one_that_slides_as_the_cloth_brakes_it()
    {
        // Rolling without slipping: the angle turned is the way over the radius (model.md, Motion: ω = (−vy, vx)/R).
        var layout = Layout.Create([("white", 0.6, 0.5)], Shape);
        var record = Played(layout, new(35, 0, 1.0, 4, 0)).Record;
        var pieces = record.Pieces.Where(p => p.Ball == 0).ToList();
        var roll = record.Events.First(e => e.Kind == ShotEventKind.Roll).Time;
        var rolling = pieces.Where(p => p.Start >= roll - 1e-9).Take(1).Single();
        double Rate(Spin s) => Math.Sqrt(s.X * s.X + s.Y * s.Y);
        var turned = (Rate(rolling.Turning.Start) + Rate(rolling.Turning.End)) / 2 * (rolling.End - rolling.Start);
        Assert.Equal(rolling.From.DistanceTo(rolling.To) / BallRadius, turned, 1e-6 * turned + 1e-9);
        Assert.Equal(-rolling.Vy / BallRadius, rolling.Turning.Start.X, 6);
        Assert.Equal(rolling.Vx / BallRadius, rolling.Turning.Start.Y, 6);
        // Sliding: dω/dt = 5μs·g/2R, whatever the speed (model.md, Motion).
        var slide = pieces[0];
        var (before, after) = slide.Turning;
        var rate = Math.Sqrt(Math.Pow(after.X - before.X, 2) + Math.Pow(after.Y - before.Y, 2)) / (slide.End - slide.Start);
        Assert.Equal(5 * 0.18 * 9.81 / (2 * BallRadius), rate, 1e-6 * rate);
    }

    [Fact]
    public void A_layout_to_guess_at_pots_its_ball_and_is_the_same_for_the_same_seed()
    {
        var seeds = Enumerable.Range(1, Thoroughness.Cases(12)).ToList();
        foreach (var seed in seeds)
        {
            var step = GuessDraw.Of(seed, Shape);
            var layout = step.LayoutOn(Shape);
            var simulator = new Simulator(Shape);
            step.StrokeOn(layout, Shape, Core.Players.Player.Default).Play(simulator, layout);
            Assert.NotNull(simulator.PocketOf(step.PotIn(layout)!.Slot));
            Assert.True(simulator.IsOnTable(0));
            Assert.Equal(step.Balls, GuessDraw.Of(seed, Shape).Balls);
        }
        Assert.True(seeds.Select(s => GuessDraw.Of(s, Shape).Balls[0].X).Distinct().Count() > seeds.Count / 2);
    }
}
