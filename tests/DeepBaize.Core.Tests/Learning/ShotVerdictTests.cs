using DeepBaize.Core.Learning;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using DeepBaize.Shared;

namespace DeepBaize.Core.Tests.Learning;

/// <summary>What attempts at one stroke have in common, held to errors that are known.</summary>
public class ShotVerdictTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Skill County = Skill.Named("county");

    /// <summary>The white runs on and comes off two cushions: height, side and pace all show.</summary>
    private static (Layout Layout, Stroke Stroke, Pot? Pot) Shot()
    {
        var layout = Layout.OfRest([new(Ball.White, 2.4, 0.8), new(Ball.Red(1), 2.9, 1.2)]);
        var pot = new Pot(1, Pocket.GreenTop);
        var stroke = new Stroke(0, 0, 0.6, 4.4, 3);
        return (layout, stroke with { AimDegrees = PotAim.Find(layout, Cut.Of(layout, pot, Shape), stroke, Shape)!.Value }, pot);
    }

    /// <summary>A half-ball contact after which both balls run free: the red tells the pace, the white the height.</summary>
    private static (Layout Layout, Stroke Stroke, Pot? Pot) Contact()
    {
        var layout = Layout.OfRest([new(Ball.White, 1, 0.5), new(Ball.Red(1), 1.6, 0.75)]);
        var full = (layout.Balls[1].At - layout.White.At).Direction.Degrees;
        return (layout, new(full + Math.Asin(Dimensions.BallRadius / 0.65) * 180 / Math.PI, 0, 0, 3, 3), null);
    }

    /// <param name="shot">Layout, stroke and pot.</param>
    /// <param name="seed">Of the errors.</param>
    /// <param name="habit">Added to each error: turn in degrees, share of the speed, fractions of the radius.</param>
    /// <param name="pace">By how much the scatter of the pace is larger.</param>
    private static ShotVerdict Of((Layout, Stroke, Pot?) shot, int seed, int count, StrokeError habit, double pace = 1)
    {
        var ((layout, stroke, pot), random) = (shot, new Random(seed));
        var scatter = Scatter.Of(layout, stroke, County, Shape, pot);
        var attempts = new List<ObservedStroke>();
        for (var i = 0; i < count; i++)
        {
            var ((a, b), (c, d)) = (Normal.Pair(random), Normal.Pair(random));
            var error = new StrokeError(
                habit.TurnDegrees + a * scatter.TurnDegrees,
                habit.Pace + pace * b * scatter.Pace,
                habit.Side + c * scatter.Side,
                habit.Height + d * scatter.Height
            );
            attempts.Add(RandomStrokes.Seen(layout, stroke, error, Shape, 0.01, random, pot));
        }
        return ShotVerdict.Of(attempts, County, Shape, Workers.Shared());
    }

    [Fact]
    public void Low_each_time_is_told_apart_from_scatter()
    {
        var verdict = Of(Shot(), 1, 12, new(0, 0, 0, -0.12));
        Assert.Equal(12, verdict.Attempts + verdict.Unexplained.Count);
        var height = verdict.Parts[ErrorPart.Height];
        Assert.Equal((StrokeFault.Low, true), (height.Fault, height.IsEachTime));
        Assert.InRange(-0.12, height.Error.Low, height.Error.High);
        Assert.False(verdict.Parts[ErrorPart.Pace].IsEachTime);
        // What is off each time is not taken for scatter.
        Assert.NotEqual(ScatterSize.More, height.Scatter);
    }

    [Fact]
    public void Without_a_habit_hardly_anything_is_said_to_be_off_each_time()
    {
        var found = Enumerable.Range(2, 5).Select(seed => Of(Shot(), seed, 8, default)).SelectMany(v => v.Parts).Count(p => p.IsEachTime);
        // Of twenty intervals of 90 % two miss their truth on the average.
        Assert.InRange(found, 0, 4);
    }

    [Fact]
    public void A_pace_that_scatters_three_times_as_widely_is_scattered_and_not_off()
    {
        var pace = Of(Contact(), 3, 20, default, pace: 3).Parts[ErrorPart.Pace];
        Assert.Equal((ScatterSize.More, false), (pace.Scatter, pace.IsEachTime));
    }

    [Fact]
    public void A_plain_ball_along_the_table_cannot_tell_soft_from_low()
    {
        var layout = Layout.OfRest([new(Ball.White, 0.3, 0.889)]);
        var stroke = new Stroke(0, 0, 0, Pace.OfCueSpeed(0.55), 0);
        var random = new Random(5);
        var attempts = Enumerable
            .Range(0, 6)
            .Select(_ => RandomStrokes.Seen(layout, stroke, new(0, -0.06, 0, 0), Shape, 0.005, random))
            .ToList();
        var verdict = ShotVerdict.Of(attempts, County, Shape, Workers.Shared());
        Assert.Contains((ErrorPart.Pace, ErrorPart.Height), verdict.NotApart);
        Assert.Contains((ErrorPart.Pace, ErrorPart.Height), Diagnosis.Of(attempts[0], County, Shape, Workers.Shared()).NotApart);
        var (laid, meant, pot) = Shot();
        var aimed = Diagnosis.Of(RandomStrokes.Seen(laid, meant, default, Shape, 0.005, random, pot), County, Shape, Workers.Shared());
        Assert.DoesNotContain((ErrorPart.Turn, ErrorPart.Pace), aimed.NotApart);
    }
}
