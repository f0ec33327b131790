using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Strokes;

/// <summary>The window of a pot by formula, against the same balls rolled at the pocket.</summary>
public class PotWindowTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>Whether a ball that rolls from here in this direction at a medium speed goes in.</summary>
    private static bool GoesIn(Vec2 from, Angle direction, Pocket pocket)
    {
        const double speed = 1.5;
        var unit = direction.Unit;
        var simulator = new Simulator(Shape);
        simulator.Place([new(Ball.Red(1), from)]);
        var rolling = new BallMotion(
            speed * unit.X,
            speed * unit.Y,
            -speed * unit.Y / Dimensions.BallRadius,
            speed * unit.X / Dimensions.BallRadius,
            0
        );
        simulator.Release([(0, rolling)]);
        return simulator.PocketOf(0) == pocket;
    }

    /// <summary>Rail pots, common practice: a ball a little off the cushion goes in along it, off the near jaw.</summary>
    [Theory]
    [InlineData(3, 0.5)]
    [InlineData(10, 0.9)]
    [InlineData(20, 0.6)]
    [InlineData(30, 1.4)]
    [InlineData(45, 0.7)]
    [InlineData(80, 0.6)]
    [InlineData(120, 0.9)]
    public void A_ball_near_a_cushion_goes_in_along_it_within_the_window(double millimetres, double distance)
    {
        var gap = millimetres / 1000 + Dimensions.BallRadius;
        var (length, width) = (Dimensions.Length, Dimensions.Width);
        foreach (
            var (pocket, from) in new[]
            {
                (Pocket.Yellow, new Vec2(distance, gap)),
                (Pocket.Yellow, new Vec2(gap, distance)),
                (Pocket.Green, new Vec2(distance, width - gap)),
                (Pocket.YellowTop, new Vec2(length - gap, distance)),
                (Pocket.GreenTop, new Vec2(length - distance, width - gap)),
            }
        )
        {
            var (direction, opening, window) = PotWindow.Into(Shape, pocket, from);
            Assert.True(opening.Degrees > 0);
            foreach (var share in (double[])[-0.85, -0.4, 0, 0.4, 0.85])
                Assert.True(GoesIn(from, direction + share * window.Narrow, pocket), $"{pocket} {share}");
            Assert.False(GoesIn(from, direction + 1.25 * window.Wide, pocket), $"{pocket} beyond");
            Assert.False(GoesIn(from, direction - 1.25 * window.Wide, pocket), $"{pocket} beyond");
            // A way for the quick estimate, and no jaw to be played off for the aim.
            var white = from - 0.5 * direction.Unit;
            white += 0.1 * (new Vec2(length / 2, width / 2) - white).Unit;
            var layout = Layout.OfRest([new(Ball.White, white), new(Ball.Red(1), from)]);
            Assert.Contains(new PotLines(layout, Shape).Lines.ToArray(), l => l.Pocket == pocket);
            Assert.Equal(CutFault.None, Cut.Of(layout, new(1, pocket), Shape).Fault);
        }
    }

    [Fact]
    public void Tight_pockets_close_the_way_along_the_cushion_and_wide_ones_open_it()
    {
        double Width(double gap) =>
            PotWindow
                .Into(new(Conditions.Default with { CornerGap = gap }), Pocket.Yellow, new(0.8, Dimensions.BallRadius + 0.01))
                .Opening.Degrees;
        Assert.True(Width(0.092) > 1.4 * Width(0.086) && Width(0.086) > 1.4 * Width(0.081));
    }

    [Theory]
    [InlineData(0.9, 18)]
    [InlineData(1.5, 22)]
    [InlineData(0.7, 35)]
    [InlineData(1.0, 45)]
    [InlineData(0.8, 60)]
    public void Into_a_corner_a_ball_is_sent_nearer_to_the_middle_of_what_goes_in(double distance, double degrees)
    {
        foreach (
            var (pocket, corner) in new[]
            {
                (Pocket.Yellow, new Vec2(0, 0)),
                (Pocket.GreenTop, new Vec2(Dimensions.Length, Dimensions.Width)),
            }
        )
        {
            var outwards = Angle.FromDegrees(degrees).Unit;
            var from = pocket == Pocket.Yellow ? corner + distance * outwards : corner - distance * outwards;
            var shape = Shape.PocketShapes[(int)pocket];
            var (middle, _) = Cut.Opening(from, shape);
            var (direction, opening, window) = PotWindow.Into(Shape, pocket, from);
            double Edge(Angle of, int side)
            {
                var step = Angle.FromDegrees(0.02 * side);
                var k = 0;
                while (k < 500 && GoesIn(from, of + k * step, pocket))
                    k++;
                return 0.02 * k;
            }
            var (left, right) = (Edge(direction, 1), Edge(direction, -1));
            var (middleLeft, middleRight) = (Edge(middle, 1), Edge(middle, -1));
            Assert.True(
                Math.Min(left, right) >= Math.Min(middleLeft, middleRight) - 0.06,
                $"{left} {right} for {middleLeft} {middleRight}"
            );
            // The nearer edge, which decides, within a third of the formula.
            Assert.InRange(Math.Min(left, right) / window.Narrow.Degrees, 0.65, 1.5);
            Assert.True(opening.Degrees > 0);
        }
    }
}
