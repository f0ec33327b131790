using CsCheck;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

public class LayoutTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static IReadOnlyList<InputError> Errors(params (string?, double, double)[] balls) =>
        Assert.Throws<InputException>(() => Layout.Create(balls, Shape)).Errors;

    [Fact]
    public void Refuses_what_cannot_lie_on_a_table_and_says_where_and_why()
    {
        Assert.Equal("balls", Errors(("red-1", 1, 1))[0].Field); // no white
        Assert.Equal("balls[1].id", Errors(("white", 1, 1), ("white", 2, 1))[0].Field);
        Assert.Equal("balls[1].id", Errors(("white", 1, 1), ("red-16", 2, 1))[0].Field);
        Assert.Equal("balls[1].id", Errors(("white", 1, 1), (null, 2, 1))[0].Field);
        Assert.Equal("balls[1]", Errors(("white", 1, 1), ("red-1", 1.05, 1))[0].Field);
        Assert.Equal("balls[0].x", Errors(("white", double.NaN, 1))[0].Field);
        Assert.Equal("balls[0].y", Errors(("white", 1, 1e300))[0].Field);
        Assert.Equal("balls[0].x", Errors(("white", -0.01, 1))[0].Field);
        Assert.Equal("balls[0].y", Errors(("white", 0.045, 0.01))[0].Field);
        Assert.Equal("balls[0].x", Errors(("white", -0.02, -0.02))[0].Field); // in a drop
        Assert.Equal(3, Errors(("white", 9, 9), ("blob", 1, 1)).Count);
        Assert.Equal("balls", Errors([.. Enumerable.Repeat(((string?)"white", 1.0, 1.0), 23)])[0].Field);
    }

    [Fact]
    public void Accepts_coordinates_rounded_to_a_micrometre()
    {
        Layout.Create([("white", 1, 1), ("red-1", 1 + 2 * BallRadius - 5e-7, 1)], Shape);
        Layout.Create([("white", BallRadius - 5e-7, 1)], Shape);
    }

    [Fact]
    public void A_ball_moved_by_hand_always_finds_the_nearest_free_place() =>
        Gen.Select(Gen.Double[-0.5, 4], Gen.Double[-0.5, 2.3], Gen.Double[0.1, 3.4].Array[12], Gen.Double[0.1, 1.6].Array[12])
            .Sample(
                (x, y, xs, ys) =>
                {
                    var others = new List<PlacedBall>();
                    for (var i = 0; i < 12; i++)
                    {
                        var at = Placement.Nearest(new(xs[i], ys[i]), others, Shape)!.Value;
                        others.Add(new(Ball.Red(i + 1), at.X, at.Y));
                    }
                    var (px, py) = Placement.Nearest(new(x, y), others, Shape)!.Value;
                    Assert.True(Shape.CanRest(new(px, py)));
                    Assert.All(others, o => Assert.True(o.Gap(new Vec2(px, py)) >= 0));
                    // No point of a circle of places around the target that is nearer is free: nearer by more than the tolerance with which
                    // a place is accepted.
                    var distance = Math.Sqrt((px - x) * (px - x) + (py - y) * (py - y));
                    for (var i = 0; i < 72; i++)
                    {
                        var (s, c) = Math.SinCos(i * Math.PI / 36);
                        var nearer = 0.98 * distance - 2 * TableShape.InputTolerance;
                        var (qx, qy) = (x + nearer * c, y + nearer * s);
                        Assert.False(nearer > 0 && Shape.CanRest(new(qx, qy)) && others.All(o => o.Gap(new Vec2(qx, qy)) >= 0));
                    }
                },
                iter: Thoroughness.Cases(300)
            );

    [Theory]
    [InlineData(0.2, 0.2)]
    [InlineData(3, 0.9)]
    [InlineData(0.737, 0.889)] // on the brown
    public void A_cue_ball_from_hand_stays_in_the_D(double x, double y)
    {
        var (px, py) = Placement.Nearest(new(x, y), Rack.Colours(), Shape, inD: true)!.Value;
        Assert.True(InD(new(px, py)));
        Assert.All(Rack.Colours(), o => Assert.True(o.Gap(new Vec2(px, py)) >= 0));
    }
}
