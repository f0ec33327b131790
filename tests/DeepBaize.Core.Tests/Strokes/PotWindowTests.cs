using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
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
            var (direction, opening, window) = PotWindow.Into(shape, from);
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
