using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

public class StrokeTests
{
    [Theory]
    [InlineData(1, 0.24)]
    [InlineData(3, 1.2)]
    [InlineData(5, 2.6)]
    [InlineData(10, 7.1)]
    public void Pace_is_the_scale_that_coaches_use(double pace, double speed) // common practice, no source
    {
        Assert.Equal(speed, Pace.CueSpeed(pace), 0.05);
        Assert.Equal(pace, Pace.OfCueSpeed(Pace.CueSpeed(pace)), 1e-9);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(4)]
    [InlineData(7.2)]
    [InlineData(10)]
    public void A_pace_of_the_first_scale_keeps_its_speed(double pace) =>
        Assert.Equal(0.4 * Math.Pow(1.375, pace - 1), Pace.CueSpeed(Pace.OfFirstScale(pace)), 1e-9);

    [Fact]
    public void Paces_of_a_search_are_laid_in_speed() =>
        Assert.All(Pace.Ladder(0.5, 4, 1.25).Zip(Pace.Ladder(0.5, 4, 1.25).Skip(1)), p =>
            Assert.Equal(1.25, Pace.CueSpeed(p.Second) / Pace.CueSpeed(p.First), 1e-9)
        );

    [Fact]
    public void More_pace_runs_farther_and_the_hardest_over_five_lengths()
    {
        var shape = new TableShape(Conditions.Default);
        var lengths = Enumerable.Range(1, 10).Select(p => Pace.TableLengths(Pace.CueSpeed(p), shape)).ToList();
        Assert.Equal(lengths.Order(), lengths);
        Assert.InRange(lengths[9], 5.2, 5.8);
    }

    [Fact]
    public void One_tip_is_ten_millimetres_of_tip_and_less_of_contact() // common practice, no source
    {
        Assert.Equal(0.010 * BallRadius / (BallRadius + 0.005), Tip.Fraction(1) * BallRadius, 1e-12);
        Assert.Equal(1.5625, Tip.Limit, 1e-12);
        Assert.Equal(0, Tip.Margin(Tip.Limit * 0.6, -Tip.Limit * 0.8), 1e-12);
    }

    [Fact]
    public void A_stroke_at_the_limit_is_played_and_beyond_it_refused()
    {
        var strike = new Stroke(10, Tip.Limit * 0.6, -Tip.Limit * 0.8, 5, 3).ToStrike();
        Assert.Equal(0.3, strike.Side, 1e-9);
        Assert.Equal(-0.4, strike.Height, 1e-9);
        var error = Assert.Throws<InputException>(() => new Stroke(0, 1.2, 1.2, 11, double.NaN).ToStrike());
        Assert.Equal(["stroke.pace", "stroke.elevation"], error.Errors.Select(e => e.Field));
        Assert.Equal("stroke.side", Assert.Throws<InputException>(() => new Stroke(0, 1.2, 1.2, 5, 0).ToStrike()).Errors[0].Field);
    }

    [Fact]
    public void A_drawn_path_keeps_within_half_a_millimetre_of_the_true_one()
    {
        var simulator = new Simulator(new(Conditions.Default));
        simulator.Place([new(Ball.White, 0.6, 0.6), new(Ball.Red(1), 1.6, 1.0)]);
        var record = new ShotRecord();
        simulator.Play(Strike.Create(21.5, 3.5, 0.3, -0.35, 15), record);
        var paths = ShotPath.Points(record, 2);
        foreach (var piece in record.Pieces)
            for (var i = 0; i <= 50; i++)
            {
                var time = piece.Start + (piece.End - piece.Start) * i / 50;
                var (x, y) = piece.At(time);
                var points = paths[piece.Ball];
                var after = points.ToList().FindIndex(1, p => p.Time >= time - 1e-12);
                var (a, b) = (points[after - 1], points[after]);
                var share = (time - a.Time) / (b.Time - a.Time);
                var off = Math.Sqrt(Math.Pow(a.X + share * (b.X - a.X) - x, 2) + Math.Pow(a.Y + share * (b.Y - a.Y) - y, 2));
                Assert.True(off < 0.0005, $"{off * 1000} mm");
            }
    }
}
