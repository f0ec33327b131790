using DeepBaize.Core.Geometry;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Shared;

namespace DeepBaize.Core.Tests.Learning;

/// <summary>What went wrong with one stroke, held to errors that are known.</summary>
public class DiagnosisTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Skill County = Skill.Named("county");

    private static Diagnosis Of(ObservedStroke observed, Skill? skill = null) =>
        Diagnosis.Of(observed, skill ?? County, Shape, Workers.Shared());

    /// <summary>Of 40 strokes that are off by one part, the cause comes first or level with the first in at least 7 of 10.</summary>
    [Fact]
    public void A_single_error_is_found_in_most_strokes()
    {
        var (random, right) = (new Random(7), new int[4]);
        const int count = 40;
        for (var i = 0; i < count; i++)
        {
            var (layout, stroke, pot) = RandomStrokes.Pot(random, Shape);
            var scatter = Scatter.Of(layout, stroke, County, Shape, pot);
            var size = (2 + 1.5 * random.NextDouble()) * (i % 2 == 0 ? 1 : -1);
            var (error, causes) = (i / 2 % 4) switch
            {
                0 => (new StrokeError(size * scatter.TurnDegrees, 0, 0, 0), new[] { StrokeFault.Thick, StrokeFault.Thin }),
                1 => (new(0, size * scatter.Pace, 0, 0), [size > 0 ? StrokeFault.Hard : StrokeFault.Soft]),
                2 => (new(0, 0, size * scatter.Side, 0), [size > 0 ? StrokeFault.RightSide : StrokeFault.LeftSide]),
                _ => (new(0, 0, 0, size * scatter.Height), [size > 0 ? StrokeFault.High : StrokeFault.Low]),
            };
            var found = Of(RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, random, pot));
            Assert.InRange(found.Explains, 0.5, 1);
            Assert.Equal(1, found.Causes.Sum(c => c.Chance), 0.1);
            var first = found.Causes[0].Chance;
            right[i / 2 % 4] += found.Causes.Any(c => causes.Contains(c.Cause) && c.Chance > first - 0.1) ? 1 : 0;
        }
        // Of direction, pace, side and height each.
        Assert.All(right, r => Assert.InRange(r, 7 * count / 40, count / 4));
    }

    /// <summary>
    /// A plain ball up an empty table that stops short: by 12v²/49μs·g and 5/7 (Coriolis 1835, from memory) its way goes with v² but
    /// for the cushion, so an eighth less way is a sixteenth less speed.
    /// </summary>
    [Fact]
    public void A_plain_ball_that_stops_short_was_struck_too_softly_by_half_as_much_or_too_low()
    {
        var layout = Layout.OfRest([new(Ball.White, 0.3, 0.889)]);
        var stroke = new Stroke(0, 0, 0, Pace.OfCueSpeed(0.55), 0);
        var simulator = new Simulator(Shape);
        stroke.Play(simulator, layout);
        var way = simulator.At(0).X - 0.3;
        var seen = new ObservedStroke(layout, stroke, new([new(0, new(0.3 + 7.0 / 8 * way, 0.889))], 0.005));
        var found = Of(seen, Skill.Named("club"));
        // A tip that was low leaves the same end: one place on one line cannot tell the two apart.
        var soft = found.Causes.Take(2).Single(c => c.Cause == StrokeFault.Soft);
        Assert.Equal(1.0 / 16, soft.Amount, 0.015);
        Assert.Contains(found.Causes.Take(2), c => c.Cause == StrokeFault.Low);
    }

    [Fact]
    public void A_stroke_that_did_what_was_meant_is_within_the_usual_spread()
    {
        var (layout, stroke, pot) = RandomStrokes.Pot(new(3), Shape);
        var found = Of(RandomStrokes.Seen(layout, stroke, default, Shape, 0.005, new(1), pot));
        Assert.True(found.IsUsual);
        Assert.InRange(0, found.Turn.Low, found.Turn.High);
        Assert.InRange(0, found.Pace.Low, found.Pace.High);
    }

    /// <summary>Where nobody saw where the balls stopped, the side of the miss alone says on which side of the pot it was aimed.</summary>
    [Theory]
    [InlineData(MissSide.Thick, StrokeFault.Thick)]
    [InlineData(MissSide.Thin, StrokeFault.Thin)]
    public void A_pot_that_was_seen_to_be_missed_on_one_side_was_hit_so(MissSide side, StrokeFault fault)
    {
        // A long one, so that it is often missed; a cut to the right, and one to the left.
        foreach (var y in (double[])[0.4, 1.3])
        {
            var layout = Layout.OfRest([new(Ball.White, 1, y), new(Ball.Red(1), 2.4, 1.1)]);
            var pot = new Pot(1, Pocket.GreenTop);
            var cut = Cut.Of(layout, pot, Shape);
            var stroke = new Stroke(0, 0, 0, 4.5, 3);
            stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
            var found = Of(new(layout, stroke, new([], 0.02) { Missed = side }, pot));
            Assert.Equal(fault, found.Causes[0].Cause);
            Assert.True(found.Explains > 0.5);
            // To the left a ball that is cut to the left is hit fuller.
            var toLeft = (cut.CutDegrees > 0) == (side == MissSide.Thick);
            Assert.True(toLeft ? found.Turn.Value > 0 : found.Turn.Value < 0);
        }
    }

    [Fact]
    public void A_ball_that_was_not_met_at_all_says_more_than_where_the_white_stopped()
    {
        var layout = Layout.OfRest([new(Ball.White, 0.5, 0.9), new(Ball.Red(1), 2.5, 0.9)]);
        // Thin on the red's right edge, or just past it.
        var stroke = new Stroke(-Math.Asin(1.9 * Dimensions.BallRadius / 2) * 180 / Math.PI, 0, 0, 3, 3);
        Range90 Turn(bool met) => Of(new(layout, stroke, new([], 0.02) { MetABall = met })).Turn;
        var (past, met) = (Turn(false), Turn(true));
        Assert.True(past.High < 0.02 && past.Value < met.Value - 0.02, $"{past} {met}");
    }

    [Fact]
    public void What_no_stroke_near_it_does_is_not_explained()
    {
        var layout = Layout.OfRest([new(Ball.White, 0.5, 0.4), new(Ball.Red(1), 3.2, 1.6)]);
        var stroke = new Stroke(0, 0, 0, 3, 3);
        // The white rolls along the yellow's side; it was seen far off on the green's, and the red has moved.
        var seen = new Seen([new(0, new(0.4, 1.7)), new(1, new(1.0, 0.2))], 0.01);
        var found = Of(new(layout, stroke, seen));
        Assert.InRange(found.Explains, 0, 0.05);
        Assert.False(found.IsUsual);
        Assert.InRange(found.Left, 0.2, 4);
    }

    [Fact]
    public void The_mirror_image_has_the_mirrored_causes()
    {
        var (layout, stroke, pot) = RandomStrokes.Pot(new(11), Shape);
        var scatter = Scatter.Of(layout, stroke, County, Shape, pot);
        var error = new StrokeError(3 * scatter.TurnDegrees, 0, 0, 0);
        var seen = RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, new(5), pot);
        Vec2 Mirrored(Vec2 v) => new(v.X, Dimensions.Width - v.Y);
        var other = new ObservedStroke(
            Layout.OfRest(layout.Balls.Select(b => new PlacedBall(b.Ball, Mirrored(b.At)))),
            stroke with
            {
                AimDegrees = -stroke.AimDegrees,
                SideTips = -stroke.SideTips,
            },
            new([.. seen.Seen.Balls.Select(b => b with { At = Mirrored(b.At), Pocket = b.Pocket is { } p ? OtherSide(p) : null })], 0.01),
            pot with
            {
                Pocket = OtherSide(pot.Pocket),
            }
        );
        var (one, mirrored) = (Of(seen), Of(other));
        Assert.Equal(one.Causes[0].Cause, mirrored.Causes[0].Cause);
        Assert.Equal(one.Causes[0].Amount, mirrored.Causes[0].Amount, 0.2 * one.Causes[0].Amount);
        Assert.Equal(one.Turn.Value, -mirrored.Turn.Value, 0.3 * Math.Abs(one.Turn.Value));
    }

    private static Pocket OtherSide(Pocket pocket) => (Pocket)((int)pocket ^ 1);

    /// <summary>An escape off one cushion: what the next adjustment is, where no ball may be aimed at directly.</summary>
    [Fact]
    public void An_escape_that_came_up_short_is_explained_too()
    {
        var layout = Layout.OfRest([new(Ball.White, 0.6, 0.4), new(Ball.Red(1), 2.9, 0.6)]);
        var stroke = new Stroke(38, 0, 0, 3.2, 3);
        var error = new StrokeError(0, -0.2, 0, 0);
        var found = Of(RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, new(2)));
        Assert.Equal(StrokeFault.Soft, found.Causes[0].Cause);
        Assert.Equal(0.2, found.Causes[0].Amount, 0.05);
    }

    [Theory]
    [InlineData("blue", 1.0, 1.0, null, 0.01, "seen.finals[0].id")]
    [InlineData("white", 9.0, 1.0, null, 0.01, "seen.finals[0].x")]
    [InlineData("white", 1.0, 1.0, "bottom", 0.01, "seen.finals[0].pocket")]
    [InlineData("white", 1.0, 1.0, null, 0.0, "seen.doubt")]
    public void What_cannot_have_been_seen_is_refused_by_field(string id, double x, double y, string? pocket, double doubt, string field)
    {
        var layout = Layout.OfRest([new(Ball.White, 0.6, 0.4)]);
        var refused = Assert.Throws<InputException>(() =>
            ObservedStroke.Create(layout, new(0, 0, 0, 4, 3), [(id, x, y, pocket)], new([], doubt))
        );
        Assert.Equal(field, refused.Errors[0].Field);
    }
}
