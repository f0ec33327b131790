using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>
/// Reds by part of the table, counted by hand on a plan with the parts drawn in: half-way between the spots of black, pink and blue, and
/// between blue and baulk line (2.961, 2.231 and 1.261 m up the table). Common practice, no source.
/// </summary>
public class RedSpreadTests
{
    /// <summary>Places of reds (x/y, m), and how many lie by the black, by the pink, in the middle and in baulk.</summary>
    [Theory]
    [InlineData("3.10/0.40", 1, 0, 0, 0)]
    [InlineData("2.97/0.40 2.95/1.40", 1, 1, 0, 0)]
    [InlineData("2.24/0.40 2.22/1.40", 0, 1, 1, 0)]
    [InlineData("1.27/0.40 1.25/1.40", 0, 0, 1, 1)]
    [InlineData("3.00/0.30 3.10/0.60 3.20/1.20 3.30/1.50 2.60/0.50 2.50/1.30 2.40/0.90 1.90/0.40 1.60/1.40", 4, 3, 2, 0)]
    [InlineData("0.30/0.30 0.60/1.50 0.90/0.90", 0, 0, 0, 3)]
    [InlineData("1.50/0.20 1.70/0.50 1.90/0.80 2.10/1.10 2.20/1.40", 0, 0, 5, 0)]
    [InlineData("2.30/0.30 2.50/0.60 2.70/0.50 2.90/1.30 3.40/0.90", 1, 4, 0, 0)]
    [InlineData("3.40/0.20 3.40/1.60 0.20/0.20 0.20/1.60", 2, 0, 0, 2)]
    [InlineData("2.80/0.30 2.80/0.60 2.80/1.20 2.80/1.50", 0, 4, 0, 0)]
    [InlineData("3.05/0.30 2.55/0.30 1.75/0.30 0.75/0.30", 1, 1, 1, 1)]
    public void Reds_are_counted_in_each_part(string places, int black, int pink, int middle, int baulk)
    {
        var reds = places.Split(' ').Select((p, i) => new PlacedBall(Ball.Red(i + 1), Part(p, 0), Part(p, 1))).ToList();
        var counted = Counted([.. Rack.Colours(), .. reds]);
        Assert.Equal((black, pink, middle, baulk), (counted.Black.All, counted.Pink.All, counted.Middle.All, counted.Baulk.All));
        Assert.Equal(reds.Count, counted.All);
        static double Part(string place, int i) => double.Parse(place.Split('/')[i], System.Globalization.CultureInfo.InvariantCulture);
    }

    [Fact]
    public void The_whole_pack_lies_by_the_pink()
    {
        // Rows of one to five reds, 45.5 mm apart: the fourth row is centred at 2.867, the fifth at 2.913, all short of 2.961.
        var counted = Counted([.. Rack.Colours(), .. Rack.Pack()]);
        Assert.Equal((0, 15), (counted.Black.All, counted.Pink.All));
        // Only the two at the ends of the last row lie beside all others.
        Assert.InRange(counted.Pink.Open, 0, 4);
    }

    [Fact]
    public void A_red_tight_behind_others_is_counted_but_is_not_open()
    {
        // Shut in on all sides at the top cushion.
        List<PlacedBall> reds =
        [
            new(Ball.Red(1), Length - BallRadius, Width / 2),
            new(Ball.Red(2), Length - BallRadius, Width / 2 - 0.053),
            new(Ball.Red(3), Length - BallRadius, Width / 2 + 0.053),
            new(Ball.Red(4), Length - BallRadius - 0.053, Width / 2),
        ];
        var counted = Counted([.. reds, new(Ball.Yellow, 0.5, 0.5)]);
        Assert.Equal(4, counted.Black.All);
        Assert.InRange(counted.Black.Open, 1, 3);
    }

    private static RedSpread Counted(List<PlacedBall> balls)
    {
        var layout = Layout.OfRest([new(Ball.White, 0.5, 0.9), .. balls]);
        return RedSpread.Of(layout, new(layout, new(Conditions.Default)));
    }
}
