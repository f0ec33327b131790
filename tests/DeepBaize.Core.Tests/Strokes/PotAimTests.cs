using CsCheck;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Strokes;

public class PotAimTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    [Theory]
    [InlineData(2.6, 0.55, 0, 0, 6)]
    [InlineData(2.6, 0.55, 0.8, -0.9, 6)]
    [InlineData(2.6, 0.55, -0.8, 0.9, 7)]
    [InlineData(2.9, 0.70, 0, -1.2, 6)]
    [InlineData(1.2, 0.40, 0.5, 0, 7)]
    public void The_aim_found_pots_the_ball(double x, double y, double side, double height, double pace)
    {
        var white = new PlacedBall(Ball.White, x, y);
        var black = new PlacedBall(Ball.Black, Dimensions.Spot(Ball.Black).X, Dimensions.Spot(Ball.Black).Y);
        var cut = Cut.Of(white, black, Pocket.GreenTop, Shape);
        var stroke = new Stroke(0, side, height, pace, 0);
        var aim = PotAim.Find(white, black, cut, stroke, Shape);
        Assert.NotNull(aim);
        var simulator = new Simulator(Shape);
        simulator.Place([white, black]);
        var record = new ShotRecord();
        simulator.Play((stroke with { AimDegrees = aim.Value }).ToStrike(), record);
        Assert.Equal(Pocket.GreenTop, simulator.PocketOf(1));
        // In the middle of the opening, not off a jaw.
        Assert.DoesNotContain(record.Events, e => e.Kind == ShotEventKind.Jaw && e.Ball == 1);
        var pot = record.Events.Single(e => e.Kind == ShotEventKind.Pot && e.Ball == 1);
        Assert.Equal(cut.PotDegrees, Math.Atan2(pot.Y - black.Y, pot.X - black.X) * 180 / Math.PI, cut.OpeningDegrees / 4);
    }

    [Fact]
    public void Without_friction_between_the_balls_or_side_the_ghost_ball_is_the_aim()
    {
        var shape = new TableShape(Conditions.Default with { BallFrictionFloor = 0, BallFrictionRange = 0 });
        var white = new PlacedBall(Ball.White, 2.7, 0.5);
        var red = new PlacedBall(Ball.Red(1), 3.2, 1.0);
        var cut = Cut.Of(white, red, Pocket.GreenTop, shape);
        Assert.Equal(cut.AimDegrees, PotAim.Find(white, red, cut, new(0, 0, 0, 4, 0), shape)!.Value, 1e-3);
    }

    [Fact]
    public void A_plain_cut_is_dragged_thick_so_the_aim_is_thinner()
    {
        // Common practice, no source: throw makes an angled pot go thick.
        var white = new PlacedBall(Ball.White, 2.6, 0.55);
        var red = new PlacedBall(Ball.Red(1), 3.2, 0.9);
        var cut = Cut.Of(white, red, Pocket.GreenTop, Shape);
        Assert.True(cut.CutDegrees > 0); // to the left, so a thinner aim lies to the right
        Assert.True(PotAim.Find(white, red, cut, new(0, 0, 0, 4, 0), Shape) < cut.AimDegrees - 0.05);
    }

    [Fact]
    public void The_thick_and_the_thin_side_of_the_pocket_are_fuller_and_thinner_cuts_that_go_in()
    {
        var white = new PlacedBall(Ball.White, 2.6, 0.55);
        var red = new PlacedBall(Ball.Red(1), 3.2, 0.9);
        var cuts = new[] { -1.0, 0, 1 }.Select(part => Cut.Of(white, red, Pocket.GreenTop, Shape, part)).ToList();
        Assert.True(cuts[0].CutDegrees < cuts[1].CutDegrees && cuts[1].CutDegrees < cuts[2].CutDegrees);
        Assert.Equal(0.6 * cuts[1].OpeningDegrees, cuts[2].PotDegrees - cuts[0].PotDegrees, 1e-9);
        var rests = cuts.Select(cut =>
            {
                var stroke = new Stroke(0, 0, -0.3, 6, 0);
                var simulator = new Simulator(Shape);
                simulator.Place([white, red]);
                simulator.Play((stroke with { AimDegrees = PotAim.Find(white, red, cut, stroke, Shape)!.Value }).ToStrike());
                Assert.Equal(Pocket.GreenTop, simulator.PocketOf(1));
                return (simulator.X(0), simulator.Y(0));
            })
            .ToList();
        // It changes the cue ball's route: common practice, no source.
        Assert.Equal(3, rests.Distinct().Count());
    }

    /// <summary>
    /// Brute force: all aims that meet the ball are tried one by one, and where some pot it, the aim found does too, in the middle half of
    /// the widest run of them.
    /// </summary>
    [Fact]
    public void Wherever_a_scan_of_the_aim_pots_the_aim_found_does_in_the_middle_of_the_widest_window()
    {
        const int tries = 600,
            narrowest = 3;
        var potted = 0;
        var red = Gen.Select(Gen.Int[0, 5], Gen.Double[0.2, 3.3], Gen.Double[0.15, 1.6]);
        var blow = Gen.Select(Gen.Double[0.15, 2], Gen.Double[-75, 75], Gen.Double[-1.4, 1.4], Gen.Double[1, 9]);
        Gen.Select(red, blow)
            .Sample(
                one =>
                {
                    var ((pocket, x, y), (gap, cutDegrees, side, pace)) = one;
                    var ball = new PlacedBall(Ball.Red(1), x, y);
                    var (direction, opening) = Cut.Opening(ball.At, Shape.PocketShapes[pocket]);
                    var back = direction + Angle.FromDegrees(180 + cutDegrees);
                    var white = new PlacedBall(Ball.White, ball.At - 2 * Dimensions.BallRadius * direction.Unit + gap * back.Unit);
                    if (opening.Radians <= 0 || !Shape.CanRest(white.At) || ball.Gap(white.At) < 0.001)
                        return;
                    var cut = Cut.Of(white, ball, (Pocket)pocket, Shape);
                    if (!cut.CanBeAimed)
                        return;
                    var (trial, stroke) = (new PotTrial(white, ball, cut, Shape), new Stroke(0, side, 0, pace, 0));
                    var middle = trial.FullDegrees - Strike.Squirt(Tip.Fraction(side), Conditions.Default).Degrees;
                    var span = 1.1 * Math.Asin(Math.Min(1, 2 * Dimensions.BallRadius / trial.Distance)) * 180 / Math.PI;
                    double At(int i) => middle - span + 2 * span * i / (tries - 1);
                    var pots = Enumerable.Range(0, tries).Select(i => trial.PotsAsMeant(stroke with { AimDegrees = At(i) })).ToList();
                    var (best, first, from) = (0, 0, -1);
                    for (var i = 0; i <= tries; i++)
                    {
                        if (i < tries && pots[i])
                        {
                            from = from < 0 ? i : from;
                            continue;
                        }
                        if (from >= 0 && i - from > best)
                            (best, first) = (i - from, from);
                        from = -1;
                    }
                    if (best < narrowest)
                        return;
                    Interlocked.Increment(ref potted);
                    var aim = PotAim.Find(trial, cut, stroke);
                    Assert.True(aim is not null, $"{one}: none");
                    Assert.True(trial.PotsAsMeant(stroke with { AimDegrees = aim.Value }), $"{one}: {aim} does not pot");
                    var (centre, half) = ((At(first) + At(first + best - 1)) / 2, (best + 1) * span / (tries - 1));
                    Assert.True(
                        Math.Abs(Math.IEEERemainder(aim.Value - centre, 360)) < 0.75 * half,
                        $"{one}: {aim}, window {centre} ± {half}"
                    );
                },
                iter: Thoroughness.Cases(1200)
            );
        Assert.True(potted > Thoroughness.Cases(200), $"only {potted} tried");
    }

    [Theory]
    [InlineData(40, 1)]
    [InlineData(55, 1)]
    [InlineData(62, 1)]
    [InlineData(35, 1.4)]
    [InlineData(60, 1.4)]
    public void With_the_wrong_side_the_aim_that_pots_is_found_though_the_ghost_ball_is_passed_altogether(double cutDegrees, double side)
    {
        var red = new PlacedBall(Ball.Red(1), 2.9, 1.2);
        var (direction, _) = Cut.Opening(red.At, Shape.PocketShapes[(int)Pocket.GreenTop]);
        foreach (var way in (double[])[1, -1])
        {
            var back = direction + Angle.FromDegrees(180 + way * cutDegrees);
            var white = new PlacedBall(Ball.White, red.At - 2 * Dimensions.BallRadius * direction.Unit + 0.8 * back.Unit);
            var cut = Cut.Of(white, red, Pocket.GreenTop, Shape);
            foreach (var played in (double[])[side, -side])
            {
                var stroke = new Stroke(0, played, 0, 7, 0);
                var aim = PotAim.Find(white, red, cut, stroke, Shape);
                Assert.True(aim is not null && new PotTrial(white, red, cut, Shape).Pots(stroke with { AimDegrees = aim.Value }));
            }
        }
    }

    [Fact]
    public void A_stroke_too_soft_to_arrive_has_no_aim()
    {
        var white = new PlacedBall(Ball.White, 0.4, 0.5);
        var red = new PlacedBall(Ball.Red(1), 3.2, 0.9);
        Assert.Null(PotAim.Find(white, red, Cut.Of(white, red, Pocket.GreenTop, Shape), new(0, 0, 0, 1, 0), Shape));
    }
}
