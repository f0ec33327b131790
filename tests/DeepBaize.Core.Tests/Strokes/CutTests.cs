using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

public class CutTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly PlacedBall Black = new(Ball.Black, Spot(Ball.Black).X, Spot(Ball.Black).Y);

    /// <summary>The cue ball so placed that the black to the green-top pocket is cut by φ.</summary>
    private static Cut At(double phiDegrees, double distance = 0.8)
    {
        var straight = Cut.Of(new(Ball.White, 2, 0.5), Black, Pocket.GreenTop, Shape);
        var back = (straight.PotDegrees - phiDegrees) * Math.PI / 180;
        return Cut.Of(
            new(Ball.White, straight.Ghost.X - distance * Math.Cos(back), straight.Ghost.Y - distance * Math.Sin(back)),
            Black,
            Pocket.GreenTop,
            Shape
        );
    }

    [Theory]
    [InlineData(0, 1, Fullness.Full)]
    [InlineData(14.4775, 0.75, Fullness.ThreeQuarter)]
    [InlineData(30, 0.5, Fullness.Half)]
    [InlineData(48.5904, 0.25, Fullness.Quarter)]
    [InlineData(75, 0.0340742, Fullness.Fine)]
    public void Fullness_is_one_less_the_sine_of_the_cut(double phi, double fraction, Fullness word)
    {
        // Half-ball is 30°, the cue ball's centre aimed at the object ball's edge: geometry, and model.md.
        var cut = At(phi);
        Assert.Equal(phi, cut.CutDegrees, 1e-6);
        Assert.Equal(fraction, cut.FullnessFraction, 1e-5);
        Assert.Equal(word, cut.Fullness);
        if (phi == 30)
            Assert.Equal(BallRadius, cut.AimOffset, 1e-9);
    }

    [Fact]
    public void A_cut_beyond_a_right_angle_is_refused()
    {
        Assert.Equal(CutFault.None, At(85).Fault);
        Assert.Equal(CutFault.TooThin, At(95).Fault);
        Assert.Equal(0, At(95).FullnessFraction);
    }

    [Fact]
    public void Mirrored_positions_cut_to_the_other_hand()
    {
        var left = Cut.Of(new(Ball.White, 2.5, 0.6), Black, Pocket.GreenTop, Shape);
        var right = Cut.Of(new(Ball.White, 2.5, Width - 0.6), Black, Pocket.YellowTop, Shape);
        Assert.Equal(left.CutDegrees, -right.CutDegrees, 1e-9);
        Assert.Equal(left.OpeningDegrees, right.OpeningDegrees, 1e-9);
    }

    [Fact]
    public void A_middle_pocket_closes_to_a_ball_along_its_cushion_and_is_left_to_the_far_jaw()
    {
        var white = new PlacedBall(Ball.White, 0.4, 0.3);
        var open = Cut.Of(white, new(Ball.Red(1), Length / 2 - 0.3, 0.5), Pocket.YellowMiddle, Shape);
        var thin = Cut.Of(white, new(Ball.Red(1), Length / 2 - 0.6, 0.3), Pocket.YellowMiddle, Shape);
        var closed = Cut.Of(white, new(Ball.Red(1), Length / 2 - 0.6, 0.05), Pocket.YellowMiddle, Shape);
        Assert.True(open.OpeningDegrees > thin.OpeningDegrees);
        Assert.Equal(CutFault.OffJaw, closed.Fault);
        Assert.True(closed.CanBeAimed);
    }

    [Fact]
    public void A_ball_frozen_to_the_side_cushion_runs_along_it_to_the_corner()
    {
        var cut = Cut.Of(new(Ball.White, 2.2, 0.42), new(Ball.Red(1), 2.95, BallRadius), Pocket.YellowTop, Shape);
        // Never off the cushion, and hardly into it.
        Assert.InRange(cut.PotDegrees, -0.3, 0);
    }

    [Fact]
    public void Anywhere_in_the_opening_goes_in_and_just_outside_touches_a_jaw()
    {
        // The ball itself is sent along the edges of the opening by the simulator.
        foreach (var pocket in Pockets.All)
            foreach (var (x, y) in ((double, double)[])[(1.5, 0.6), (2.2, 1.2), (1.0, 0.9)])
            {
                var (direction, opening) = Cut.Opening(new(x, y), Shape.PocketShapes[(int)pocket]);
                if (opening.Radians < 0.005)
                    continue;
                Assert.True(Touched(x, y, (direction + 0.49 * opening).Radians, pocket) is (false, true));
                Assert.True(Touched(x, y, (direction - 0.49 * opening).Radians, pocket) is (false, true));
                Assert.True(Touched(x, y, (direction + 0.51 * opening).Radians, pocket).Jaw);
                Assert.True(Touched(x, y, (direction - 0.51 * opening).Radians, pocket).Jaw);
            }
    }

    private static (bool Jaw, bool Potted) Touched(double x, double y, double direction, Pocket pocket)
    {
        var simulator = new Simulator(Shape);
        simulator.Place([new(Ball.White, x, y)]);
        var record = new ShotRecord();
        simulator.Release([(0, new(3 * Math.Cos(direction), 3 * Math.Sin(direction), 0, 0, 0))], record);
        var first = record.Events.First(e => e.Kind is ShotEventKind.Jaw or ShotEventKind.Pot or ShotEventKind.Cushion);
        return (first.Kind == ShotEventKind.Jaw && first.Pocket == pocket, first.Kind == ShotEventKind.Pot && first.Pocket == pocket);
    }
}
