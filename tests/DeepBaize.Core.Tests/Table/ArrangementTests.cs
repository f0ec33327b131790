using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

/// <summary>Balls laid together, held to plane geometry worked out beside it.</summary>
public class ArrangementTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    [Fact]
    public void A_row_is_even_between_the_two_ends_and_keeps_the_order_of_its_balls()
    {
        // The ends are the second and the fourth; each of the others goes to its own place between them.
        Vec2[] places = [new(1.3, 0.52), new(1.0, 0.5), new(1.15, 0.47), new(1.6, 0.8)];
        var row = Arrangement.Row(places);
        Assert.Equal([places[1], places[3]], [row[1], row[3]]);
        Near(new(1.2, 0.6), row[2]);
        Near(new(1.4, 0.7), row[0]);
    }

    [Fact]
    public void An_arc_is_even_round_the_circle_through_its_ends_and_the_ball_farthest_from_their_line()
    {
        // Of the circle of 0.5 m about (2, 0.9), from 90° to 0°, through 45°; the fourth ball lies inside it, at about 70°.
        Vec2 On(double degrees) => new(2 + 0.5 * Math.Cos(degrees * Math.PI / 180), 0.9 + 0.5 * Math.Sin(degrees * Math.PI / 180));
        Vec2[] places = [On(90), On(0), On(45), new(2.15, 1.30)];
        var arc = Arrangement.Arc(places);
        Near(On(90), arc[0]);
        Near(On(0), arc[1]);
        Near(On(30), arc[2]);
        Near(On(60), arc[3]);
        // Turned over it is the same arc turned over.
        var mirrored = Arrangement.Arc([.. places.Select(p => p with { Y = -p.Y })]);
        for (var i = 0; i < 4; i++)
            Near(arc[i] with { Y = -arc[i].Y }, mirrored[i]);
        // In line it is a row.
        Near(new(1.5, 1), Arrangement.Arc([new(1, 1), new(2, 1), new(1.2, 1.001)])[2]);
    }

    [Fact]
    public void A_ball_goes_to_its_nearest_cushion_and_straight_to_its_nearest_neighbour()
    {
        Near(new(1.2, BallRadius), Arrangement.AtCushion(new(1.2, 0.4)));
        Near(new(Length - BallRadius, 0.9), Arrangement.AtCushion(new(3.4, 0.9)));
        var touching = Arrangement.Touching(new(1.3, 0.8), [new(Ball.Pink, 1.0, 0.4), new(Ball.Black, 3, 1)]);
        // From (1, 0.4) towards (1.3, 0.8): three to four to five.
        Near(new(1.0 + 0.6 * 2 * BallRadius, 0.4 + 0.8 * 2 * BallRadius), touching);
        Assert.Equal(new Vec2(1, 1), Arrangement.Touching(new(1, 1), []));
    }

    [Fact]
    public void What_is_laid_together_never_overlaps_whatever_is_wished()
    {
        var random = new Random(7);
        for (var trial = 0; trial < Thoroughness.Cases(60); trial++)
        {
            Vec2 Anywhere() => new(random.NextDouble() * (Length + 0.6) - 0.3, random.NextDouble() * (Width + 0.6) - 0.3);
            List<PlacedBall> lying = [.. Rack.Colours()];
            PlacedBall[] wishes =
            [
                .. Enumerable.Range(1, 8).Select(i => new PlacedBall(Ball.Red(i), i % 2 == 0 ? Anywhere() : new(1.7, 0.9))),
            ];
            var laid = Arrangement.Settle(wishes, lying, Shape);
            Layout.Check([.. lying.Concat(laid).Select(b => ((string?)b.Ball.Id, b.X, b.Y))], Shape);
            Assert.Equal(wishes.Select(w => w.Ball), laid.Select(l => l.Ball));
        }
    }

    [Fact]
    public void The_tables_that_play_begins_from_can_be_laid()
    {
        foreach (var table in new[] { Rack.Opening(), Rack.LineUp(), Rack.ColoursAlone() })
            Layout.Create([.. table.Select(b => ((string?)b.Ball.Id, b.X, b.Y))], Shape);
        Assert.Equal([22, 17, 7], new[] { Rack.Opening().Count, Rack.LineUp().Count, Rack.ColoursAlone().Count });
    }

    private static void Near(Vec2 expected, Vec2 actual)
    {
        Assert.Equal(expected.X, actual.X, 9);
        Assert.Equal(expected.Y, actual.Y, 9);
    }
}
