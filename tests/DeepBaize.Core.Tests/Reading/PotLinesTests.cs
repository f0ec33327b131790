using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Reading;

/// <summary>The quick estimate against strokes played out with errors: the one is plain geometry, the other the whole simulation.</summary>
public class PotLinesTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    [Theory]
    [InlineData("tour")]
    [InlineData("county")]
    [InlineData("club")]
    public void The_quick_chance_agrees_with_sampling_on_the_average_and_seldom_misleads(string name)
    {
        var skill = Skill.Named(name);
        var random = new Random(3);
        var off = new List<double>();
        while (off.Count < 160)
        {
            var (x, y) = (0.3 + 3.0 * random.NextDouble(), 0.2 + 1.3 * random.NextDouble());
            var (wx, wy) = (x + 1.4 * (random.NextDouble() - 0.5), y + 1.0 * (random.NextDouble() - 0.5));
            if (!Shape.CanRest(new(wx, wy)) || new PlacedBall(Ball.Red(1), x, y).Gap(new Vec2(wx, wy)) < 0.05)
                continue;
            var layout = Layout.OfRest([new(Ball.White, wx, wy), new(Ball.Red(1), x, y)]);
            var lines = new PotLines(layout, Shape);
            foreach (var line in lines.Lines)
            {
                if (lines.From(line, new(wx, wy), skill) is not { Chance: > 0.05 } quick || quick.Cut.Radians > 1.1)
                    continue;
                var pot = new Pot(1, line.Pocket);
                var option = TableReading.ReadOne(layout, pot, new(0, 0, 0, 4, 3), Player.OfSkill(name), Shape);
                if (!option.IsAimed || option.Reach.ErrorFactor > 1)
                    continue;
                off.Add(
                    quick.Chance
                        - Spread
                            .Sample(
                                new(layout, option.Stroke, option.Cut, skill, Shape),
                                Workers.Shared(),
                                SpreadEffort.Of(256),
                                outlines: false
                            )
                            .Odds.Pot.Value
                );
            }
        }
        Assert.InRange(off.Average(), -0.04, 0.04);
        Assert.InRange(Math.Sqrt(off.Average(o => o * o)), 0, 0.08);
    }

    [Fact]
    public void Ways_taken_over_from_another_table_are_the_same_as_found_anew()
    {
        var random = new Random(5);
        var before = Layout.OfRest([new(Ball.White, 1, 1), .. Rack.Colours(), .. Rack.Pack()]);
        var known = new PotLines(before, Shape);
        for (var i = 0; i < 20; i++)
        {
            // A few balls gone or moved.
            var after = Layout.OfRest(
                before
                    .Balls.Where(b => !b.Ball.IsRed || random.NextDouble() < 0.8)
                    .Select(b => b.Ball == Ball.Blue ? b with { At = b.At with { X = 1.2 + random.NextDouble() * 0.5 } } : b)
            );
            Assert.Equal(new PotLines(after, Shape).Lines.ToArray(), new PotLines(after, Shape, known).Lines.ToArray());
        }
    }

    [Fact]
    public void A_ball_in_the_way_closes_a_line_and_names_itself()
    {
        var layout = Layout.OfRest([new(Ball.White, 1.5, 0.5), new(Ball.Black, 3.0, 0.4), new(Ball.Red(1), 3.25, 0.23)]);
        var lines = new PotLines(layout, Shape);
        foreach (var line in lines.Lines)
            if (line is { Slot: 1, Pocket: Pocket.YellowTop })
            {
                Assert.Equal(Ball.Red(1), lines.BallIn(line.Blocker));
                Assert.Null(lines.From(line, new(1.5, 0.5), Skill.Named("tour")));
                return;
            }
        Assert.Fail("the black has a line to the top pocket");
    }
}
