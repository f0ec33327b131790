using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

public class PlantTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    /// <summary>
    /// Two balls in contact whose line of centres points at the middle of the green-top pocket; the white stands off that line by an angle,
    /// degrees.
    /// </summary>
    private static Layout TouchingPair(double angle)
    {
        const double x = 2.9,
            y = 1.2;
        var (direction, _) = Cut.Opening(new(x, y), Shape.PocketShapes[(int)Pocket.GreenTop]);
        var (s, c) = Math.SinCos(direction.Radians);
        var (bx, by) = (x - 2 * BallRadius * c, y - 2 * BallRadius * s);
        var (ws, wc) = Math.SinCos((direction - Angle.FromDegrees(angle)).Radians);
        return Layout.Create([("white", bx - 0.5 * wc, by - 0.5 * ws), ("red-1", x, y), ("red-2", bx, by)], Shape);
    }

    /// <summary>By how much a ball sets off beside a direction, degrees.</summary>
    private static double Off(Layout layout, double aim, int slot, double meant, double pace)
    {
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        simulator.Place(layout.AsSpan());
        simulator.Play(new Stroke(aim, 0, 0, pace, 0).ToStrike(), record);
        // Once all the contacts of the first instant are over.
        var piece = record.Pieces.First(p => p.Ball == slot && p.End - p.Start > 1e-4);
        return Math.IEEERemainder(Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI - meant, 360);
    }

    [Theory]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    public void Two_touching_balls_struck_straight_from_an_angle_go_thick_by_more_than_a_single_ball(double pace)
    {
        // Common practice, no source. The white is sent straight at the middle of the nearer ball, 20° off the line of the two: the
        // farther one, whose line of centres points at the pocket, is thrown to the side to which the nearer one is going.
        const double angle = 20;
        var pair = TouchingPair(angle);
        var cut = Cut.Of(pair, new(1, Pocket.GreenTop, Through: 2), Shape);
        Assert.Equal(PotKind.Set, cut.Kind);
        var straight = Math.Atan2(pair.Balls[2].Y - pair.White.Y, pair.Balls[2].X - pair.White.X) * 180 / Math.PI;
        var pairOff = Off(pair, straight, 1, cut.FinalDegrees, pace);

        // A single ball cut by the same angle, aimed at its ghost ball.
        var single = Layout.Create(
            [
                (
                    "white",
                    pair.White.X + 2 * BallRadius * Math.Cos(cut.FinalDegrees * Math.PI / 180),
                    pair.White.Y + 2 * BallRadius * Math.Sin(cut.FinalDegrees * Math.PI / 180)
                ),
                ("red-1", pair.Balls[1].X, pair.Balls[1].Y),
            ],
            Shape
        );
        var plain = Cut.Of(single, new(1, Pocket.GreenTop), Shape);
        var singleOff = Off(single, plain.AimDegrees, 1, plain.PotDegrees, pace);

        // Cut to the left, thick is to the right: the way the white comes.
        Assert.True(plain.CutDegrees > 10);
        Assert.True(singleOff < 0 && pairOff < 0);
        Assert.True(pairOff < singleOff, $"the pair {pairOff:0.00}°, the single ball {singleOff:0.00}°");
    }

    [Fact]
    public void A_plant_is_found_and_goes_in_as_read()
    {
        var layout = Layout.Create([("white", 2.0, 0.7), ("red-1", 3.1, 1.35), ("red-2", 2.75, 1.02)], Shape);
        var option = TableReading
            .Read(layout, new(0, 0, 0, 5, 0), Player.OfSkill("county"), Shape)
            .First(o => o.Cut is { Kind: PotKind.Plant, Pot.Slot: 1, Pocket: Pocket.GreenTop });
        Assert.Equal(Ball.Red(2), option.Cut.ObjectBall);
        Assert.True(option.Chance.Value > 0.2);
        AssertPots(layout, option);
    }

    [Fact]
    public void A_set_is_found_and_goes_in_as_read()
    {
        var layout = TouchingPair(25);
        var option = TableReading
            .Read(layout, new(0, 0, 0, 5, 0), Player.OfSkill("county"), Shape)
            .First(o => o.Cut.Kind == PotKind.Set && o.Cut.Pot.Slot == 1 && o.Cut.Pocket == Pocket.GreenTop);
        Assert.True(option.Chance.Value > 0.9); // hardly depends on the aim: that is what a set is good for (common practice, no source)
        AssertPots(layout, option);
    }

    [Fact]
    public void A_double_across_the_table_is_found_and_goes_in_as_read()
    {
        var layout = Layout.Create([("white", 1.4, 1.0), ("red-1", 1.55, 0.6)], Shape);
        var option = TableReading
            .Read(layout, new(0, 0, 0, 5, 0), Player.OfSkill("county"), Shape)
            .First(o => o.Cut is { Kind: PotKind.Double, Pocket: Pocket.GreenMiddle });
        Assert.Equal(Cushion.YellowSide, option.Cut.Pot.Off);
        AssertPots(layout, option);
    }

    [Fact]
    public void Off_a_frictionless_perfect_mirror_the_double_is_aimed_at_the_image()
    {
        // The method of images: for a ball that does not slide or roll the cushion is a mirror; near enough so with no friction and e = 1.
        var mirror = Conditions.With(
            new Dictionary<string, double>
            {
                ["slidingFriction"] = 0.01,
                ["rollingFriction"] = 0.002,
                ["cushionFriction"] = 0,
                ["cushionRestitution"] = 1,
                ["noseSine"] = 0,
                ["ballFrictionFloor"] = 0,
                ["ballFrictionRange"] = 0,
            }
        );
        var shape = new TableShape(mirror);
        var layout = Layout.Create([("white", 1.2, 1.2), ("red-1", 1.4, 0.7)], shape);
        var cut = Cut.Of(layout, new(1, Pocket.GreenMiddle, Off: Cushion.YellowSide), shape);
        var aim = PotAim.Find(layout, cut, new(0, 0, 0, 5, 0), shape);
        Assert.Equal(cut.AimDegrees, aim!.Value, 0.05);
    }

    private static void AssertPots(Layout layout, PotOption option)
    {
        var simulator = new Simulator(Shape);
        simulator.Place(layout.AsSpan());
        simulator.Play(option.Stroke.ToStrike());
        Assert.Equal(option.Cut.Pocket, simulator.PocketOf(option.Cut.Pot.Slot));
    }
}
