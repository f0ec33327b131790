using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Strokes;

public class AllowanceTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Layout Cutting = Layout.Create([("white", 2.0, 0.6), ("red-1", 2.9, 1.2)], Shape);
    private static readonly Pot ToTheLeft = new(1, Pocket.GreenTop);

    private static (Cut Cut, Arrival Arrival, Allowance Allowance, double Aim) Play(Layout layout, Pot pot, Stroke stroke)
    {
        var cut = Cut.Of(layout, pot, Shape);
        var aim = PotAim.Find(layout, cut, stroke, Shape)!.Value;
        var trial = new PotTrial(layout, cut, Shape);
        trial.Miss(stroke with { AimDegrees = aim });
        var arrival = Arrival.Of(trial.Record, (stroke with { AimDegrees = aim }).ToStrike(), Shape)!.Value;
        return (cut, arrival, Allowance.Of(cut, arrival, aim), aim);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(0.5)]
    [InlineData(-0.5)]
    public void The_parts_add_up_to_the_net(double side)
    {
        // To first order the aim gives back what squirt and swerve take, and thins by what throw drags thick: independent of how the aim
        // was found.
        var (_, _, a, _) = Play(Cutting, ToTheLeft, new(0, side, 0, 5, 0));
        Assert.Equal(-(a.Squirt + a.Swerve + a.Throw), a.Net, Math.Max(0.0006, 0.1 * Math.Abs(a.Net)));
    }

    [Fact]
    public void Plain_ball_on_a_cut_is_aimed_thinner_because_throw_drags_it_thick()
    {
        // Common practice, no source; the friction law itself is checked in FanTests.
        Assert.True(Play(Cutting, ToTheLeft, new(0, 0, 0, 4, 0)).Allowance is { Squirt: 0, Net: > 0, Throw: < 0 });
        // The mirror image has the same allowance.
        var mirrored = Layout.Create([("white", 2.0, Width - 0.6), ("red-1", 2.9, Width - 1.2)], Shape);
        Assert.Equal(
            Play(Cutting, ToTheLeft, new(0, 0.3, 0, 4, 0)).Allowance.Net,
            Play(mirrored, new(1, Pocket.YellowTop), new(0, -0.3, 0, 4, 0)).Allowance.Net,
            1e-5
        );
    }

    [Fact]
    public void The_net_is_the_aims_shift_across_the_distance()
    {
        var (cut, _, a, aim) = Play(Cutting, ToTheLeft, new(0, 0.6, 0, 6, 0));
        Assert.True(cut.CutDegrees > 0);
        Assert.Equal(-Math.Tan((aim - cut.AimDegrees) * Math.PI / 180) * cut.CueBallDistance, a.Net, 1e-9);
    }

    [Fact]
    public void A_touch_of_helping_side_takes_throw_away_and_the_other_adds_to_it()
    {
        // Common practice, no source: helping side cancels throw, the wrong side doubles it.
        var choices = SideChoice.Of(Cutting, ToTheLeft, new(0, 0, 0, 4, 0), Player.OfSkill("county"), Shape);
        Assert.Equal(3, choices.Count);
        var (plain, helping, wrong) = (choices[0], choices.Single(c => c.IsHelping), choices[2]);
        Assert.True(helping.SideTips > 0); // cut to the left: right-hand side
        Assert.True(Math.Abs(helping.Arrival.ThrowDegrees) < Math.Abs(plain.Arrival.ThrowDegrees));
        Assert.True(Math.Abs(wrong.Arrival.ThrowDegrees) > Math.Abs(plain.Arrival.ThrowDegrees));
        Assert.All(choices, c => Assert.InRange(c.Chance.Value, 0.01, 1));
    }
}
