using DeepBaize.Core.Advice.BlackBall;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Table;

/// <summary>Official Rules of the Games of Snooker and English Billiards, Section 1 (from memory); inches as the rules give them.</summary>
public class DimensionsTests
{
    private const double Inch = 0.0254;

    [Fact]
    public void The_playing_area_is_11_ft_8_and_a_half_by_5_ft_10()
    {
        Assert.Equal(140.5 * Inch, Length, 0.0005);
        Assert.Equal(70 * Inch, Width, 0.0005);
        Assert.Equal(0.0525, 2 * BallRadius);
    }

    [Fact]
    public void Baulk_line_29_inches_D_11_and_a_half_black_12_and_three_quarters()
    {
        Assert.Equal(29 * Inch, BaulkLineX, 0.0005);
        Assert.Equal(11.5 * Inch, DRadius, 0.0005);
        Assert.Equal(12.75 * Inch, BlackFromTopCushion, 0.0005);
    }

    [Theory]
    [InlineData("yellow", 0.737, 0.597)]
    [InlineData("green", 0.737, 1.181)]
    [InlineData("brown", 0.737, 0.889)]
    [InlineData("blue", 1.7845, 0.889)]
    [InlineData("pink", 2.67675, 0.889)]
    [InlineData("black", 3.245, 0.889)]
    public void Colours_have_their_spots(string id, double x, double y)
    {
        Assert.True(Ball.TryParse(id, out var ball));
        Assert.Equal(x, Spot(ball).X, 1e-9);
        Assert.Equal(y, Spot(ball).Y, 1e-9);
    }

    [Fact]
    public void The_pink_stands_midway_between_the_blue_and_the_top_cushion() =>
        Assert.Equal((Spot(Ball.Blue).X + Length) / 2, Spot(Ball.Pink).X, 1e-12);

    [Fact]
    public void The_pack_is_a_tight_triangle_behind_the_pink_and_clear_of_it()
    {
        var pack = Rack.Pack();
        Assert.Equal(15, pack.Count);
        var (pinkX, _) = Spot(Ball.Pink);
        Assert.InRange(pack[0].X - pinkX - 2 * BallRadius, 1e-6, 0.001);
        var touching = 0;
        for (var i = 0; i < 15; i++)
            for (var j = 0; j < i; j++)
            {
                var gap = pack[j].Gap(pack[i].At);
                Assert.True(gap >= 0);
                if (gap < 1e-9)
                    touching++;
            }
        Assert.Equal(30, touching); // 3 × (1 + 2 + 3 + 4): the edges of a triangular grid of five rows
    }

    [Fact]
    public void The_opening_is_a_legal_layout_with_the_cue_ball_in_the_D()
    {
        var layout = Layout.Create([.. Rack.Opening().Select(b => ((string?)b.Ball.Id, b.X, b.Y))], new(Conditions.Default));
        Assert.Equal(22, layout.Balls.Count);
        Assert.True(InD(layout.White.At));
    }
}
