using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.Integration;

namespace DeepBaize.Core.Tests.Players;

/// <summary>How people miss, part by part; each against what it is in closed form.</summary>
public class ScatterTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static readonly Skill Nothing = new("test", 0, 0, 0, 0, 0, 0);

    private static StandardShot Half(double side = 0, double pace = 4, double height = 0) =>
        StandardShots.Of(Shape, new(Ball.Black, Dimensions.Spot(Ball.Black)), Pocket.YellowTop, (0.5, -30), new(0, side, height, pace, 0));

    private static Scatter Of(StandardShot shot, Skill skill) => Scatter.Of(shot.Layout, shot.Stroke, skill, Shape);

    private static double Chance(StandardShot shot, Skill skill, int strokes = 4096) =>
        Spread.Sample(new(shot.Layout, shot.Stroke, shot.Pot, skill, Shape), Workers.Shared(), SpreadEffort.Of(strokes)).Odds.Pot.Value;

    // ---- Bad strokes -------------------------------------------------------------------------------------------------

    /// <summary>Student's t: the density by its formula (Student 1908), integrated; the code has it from tables of χ².</summary>
    [Theory]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(9)]
    public void All_parts_share_a_factor_that_makes_each_one_of_Students_t(double freedom)
    {
        double Density(double t) => Math.Pow(1 + t * t / freedom, -(freedom + 1) / 2);
        var whole = 2 * GaussLegendreRule.Integrate(u => Density(u / (1 - u)) / ((1 - u) * (1 - u)), 0, 1, 200);
        var skill = Nothing with { DirectionDegrees = 0.1, PacePercent = 5, Evenness = freedom };
        var scatter = Of(Half(), skill);
        var draws = Enumerable.Range(0, 8192).Select(i => ErrorStream.Named("t").At(i)).ToList();
        foreach (var z in (double[])[0.5, 1, 2, 4])
        {
            var within = 2 * GaussLegendreRule.Integrate(Density, 0, z, 200) / whole;
            Assert.Equal(within, draws.Average(l => Math.Abs(scatter.Error(l).TurnDegrees) < 0.1 * z ? 1.0 : 0), 0.008);
            Assert.Equal(within, SharedFactor.Of(freedom).Within(z), 1e-5);
        }
        // One factor for all: large errors of one part come with large ones of another more often than chance has it.
        var turns = draws.Select(l => Math.Abs(scatter.Error(l).TurnDegrees)).ToList();
        var paces = draws.Select(l => Math.Abs(scatter.Error(l).Pace)).ToList();
        var both = turns.Zip(paces).Average(p => p.First > 0.3 && p.Second > 0.15 ? 1.0 : 0);
        Assert.True(both > 2 * turns.Average(t => t > 0.3 ? 1.0 : 0) * paces.Average(p => p > 0.15 ? 1.0 : 0));
    }

    [Fact]
    public void The_factor_is_that_of_a_general_purpose_library_in_the_tails_too() // Math.NET Numerics
    {
        foreach (var u in (double[])[1e-6, 0.01, 0.3, 0.5, 0.9, 0.999, 1 - 1e-6])
        {
            var factor = Math.Sqrt(4 / ChiSquared.InvCDF(4, 1 - u));
            Assert.Equal(factor, SharedFactor.Of(4).Factor(u), 1e-3 * factor);
        }
    }

    // ---- Sighting, allowance, pace -------------------------------------------------------------------------------------

    /// <summary>
    /// A straight pot with sighting error alone: the ball goes off by asin(e / 2R) for a contact misjudged by e, plain geometry, and the
    /// window of what goes in is found by playing.
    /// </summary>
    [Theory]
    [InlineData(0.3)]
    [InlineData(0.9)]
    public void A_straight_pot_misses_by_sighting_as_Students_t_says(double distance)
    {
        var shot = StandardShots.Red(Shape, 40, 1, distance, 0, 4);
        var trial = new PotTrial(shot.Layout, shot.Pot, Shape);
        var (right, left) = PotAim.Window(trial, shot.Pot, shot.Stroke);
        var line = AimLine.Of(shot.Layout, shot.Stroke, new(Shape), new());
        Assert.Equal(distance - 2 * Dimensions.BallRadius, line.Distance, 1e-3);
        foreach (var millimetres in (double[])[0.5, 1.5])
        {
            var skill = Nothing with { SightingMillimetres = millimetres };
            double Below(double degrees) => StudentT.CDF(0, 1, 4, Math.Tan(degrees * Math.PI / 180) * line.Distance / (millimetres / 1000));
            var expected = Below(left - shot.Stroke.AimDegrees) - Below(right - shot.Stroke.AimDegrees);
            Assert.Equal(expected, Chance(shot, skill), 0.01);
        }
    }

    [Fact]
    public void Sighting_does_not_fade_as_the_white_comes_nearer_and_grows_with_the_cut()
    {
        var skill = Nothing with { SightingMillimetres = 0.4 };
        double Across(double distance, double cut)
        {
            var shot = StandardShots.Red(Shape, 40, 1, distance, cut, 4);
            var line = AimLine.Of(shot.Layout, shot.Stroke, new(Shape), new());
            return 1000 * line.Distance * Math.Tan(Of(shot, skill).SightingDegrees * Math.PI / 180);
        }
        Assert.Equal(0.4, Across(0.2, 0), 0.002);
        Assert.Equal(0.4, Across(1.2, 0), 0.002);
        // 1 + 4·sin 2φ·d², where judging is hardest at 45°; at the contact it is cut a little more than the line asks, for throw.
        Assert.Equal(0.4 * (1 + 4 * 0.6 * 0.6), Across(0.64, 41.5), 0.04);
        Assert.Equal(skill.SightingAt(0, 0.5), skill.SightingAt(0, 3), 1e-12);
        Assert.Equal(skill.SightingAt(0, 3), skill.SightingAt(90, 3), 1e-12);
    }

    [Fact]
    public void What_is_allowed_for_side_is_squirt_less_swerve_less_throw_and_plain_ball_asks_for_nothing()
    {
        double Allowed(double side) => AimLine.Of(Half(side).Layout, Half(side).Stroke, new(Shape), new()).AllowedDegrees;
        Assert.Equal(0, Allowed(0));
        // Right-hand side squirts to the left, so the aim goes to the right; on the other side the other way.
        Assert.True(Allowed(1) < -0.3 && Allowed(-1) > 0.3);
        var skill = Nothing with { AllowancePercent = 10 };
        Assert.Equal(0.1 * Math.Abs(Allowed(1)), Of(Half(1), skill).AllowanceDegrees, 1e-9);
        // The ghost ball's aim and the one found by playing differ by it, but for the throw that is there without side too.
        var (plain, sided) = (Half(), Half(1));
        Assert.Equal(sided.Stroke.AimDegrees - plain.Stroke.AimDegrees, Allowed(1), 0.15);
    }

    [Fact]
    public void Pace_is_never_steadier_than_two_centimetres_a_second()
    {
        var skill = Nothing with { PacePercent = 1 };
        Assert.Equal(0.01, Of(Half(pace: 6), skill).Pace, 1e-9);
        Assert.Equal(0.02 / Pace.CueSpeed(1.5), Of(Half(pace: 1.5), skill).Pace, 1e-9);
    }

    // ---- Growth, miscue --------------------------------------------------------------------------------------------------

    [Theory]
    [InlineData(2, 1)]
    [InlineData(5, 1)]
    [InlineData(7, 1.4)]
    [InlineData(9, 2.6)]
    public void Power_makes_direction_sighting_and_tip_err_more_but_not_pace(double pace, double factor)
    {
        var skill = new Skill("test", 0.1, 0.5, 10, 5, 0.5, 0.2);
        var (easy, hard) = (Of(Half(pace: 4), skill), Of(Half(pace: pace), skill));
        Assert.Equal(factor, hard.DirectionDegrees / easy.DirectionDegrees, 0.02);
        Assert.Equal(factor, hard.SightingDegrees / easy.SightingDegrees, 0.05);
        Assert.Equal(factor, hard.Height / easy.Height, 0.02);
        Assert.Equal(0.4, hard.Side / hard.Height, 1e-9);
        Assert.Equal(easy.Pace, hard.Pace, 1e-9);
    }

    /// <summary>
    /// The share of two t's in the plane, with one factor, that leave a circle: from a point in it, by quadrature over directions; of the
    /// plane t the share beyond a distance is (1 + d²/νs²)^(−ν/2).
    /// </summary>
    [Theory]
    [InlineData(1.2, 1.5)]
    [InlineData(1.5, 0.8)]
    [InlineData(0, 3)]
    public void A_miscue_comes_as_often_as_the_tip_leaves_the_circle(double below, double tip)
    {
        var skill = Nothing with { HeightMillimetres = tip, SideMillimetres = tip };
        var shot = Half(pace: 4, height: -below);
        var (at, radius, sigma) = (Tip.Fraction(below), Strike.MiscueLimit, skill.SideError);
        var expected =
            GaussLegendreRule.Integrate(
                angle =>
                {
                    // From the point to the circle's edge in this direction.
                    var (sin, cos) = Math.SinCos(angle);
                    var edge = -at * cos + Math.Sqrt(radius * radius - at * at * sin * sin);
                    return Math.Pow(1 + edge * edge / (4 * sigma * sigma), -2);
                },
                0,
                2 * Math.PI,
                400
            ) / (2 * Math.PI);
        var scatter = Of(shot, skill);
        var share = Enumerable.Range(0, 8192).Average(i => scatter.Error(ErrorStream.Named("slip").At(i)).IsMiscue ? 1.0 : 0);
        Assert.Equal(expected, share, 0.006);
    }

    [Fact]
    public void A_miscue_leaves_slower_about_the_line_and_without_spin()
    {
        var shot = Half(side: 0.8, pace: 5, height: -1.2);
        var scatter = Of(shot, Nothing with { HeightMillimetres = 3, SideMillimetres = 3 });
        var meant = shot.Stroke.ToStrike().Launch(Conditions.Default);
        var slips = Enumerable.Range(0, 2048).Select(i => scatter.Error(ErrorStream.Named("slip").At(i))).Where(e => e.IsMiscue).ToList();
        Assert.InRange(slips.Count, 200, 1500);
        foreach (var slip in slips)
        {
            var left = slip.Launch(shot.Stroke, Conditions.Default);
            Assert.Equal(0, left.Wz, 1e-9);
            var off = Math.IEEERemainder(Math.Atan2(left.Vy, left.Vx) * 180 / Math.PI - shot.Stroke.AimDegrees, 360);
            Assert.InRange(off, -10, 10);
            // The bed takes a hair of it, for the butt is not level.
            Assert.InRange(Math.Sqrt((left.Vx * left.Vx + left.Vy * left.Vy) / (meant.Vx * meant.Vx + meant.Vy * meant.Vy)), 0.28, 0.62);
        }
        var spread = Spread.Sample(
            new(shot.Layout, shot.Stroke, shot.Pot, Nothing with { HeightMillimetres = 3, SideMillimetres = 3 }, Shape),
            Workers.Shared(),
            SpreadEffort.Of(2048)
        );
        Assert.InRange(spread.Odds.Miscue.Value, 0.1, 0.7);
        Assert.Equal(0, Chance(Half(), Nothing, 64) - 1, 1e-9);
    }

    // ---- Cushions --------------------------------------------------------------------------------------------------------

    /// <summary>Directions in which a ball leaves the k-th cushion that it meets, degrees from where it leaves it without error.</summary>
    private static List<double> OffCushion(Layout layout, Stroke stroke, Skill skill, int slot, int cushion, Pot? pot = null)
    {
        var scatter = Scatter.Of(layout, stroke, skill, Shape, pot);
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        double Leaves(StrokeError error)
        {
            error.Play(simulator, layout, stroke, record);
            var at = record.Events.Where(e => e.Kind == ShotEventKind.Cushion && e.Ball == slot).ElementAt(cushion).Time;
            var piece = record.Pieces.First(p => p.Ball == slot && p.Start >= at - 1e-12);
            return Math.Atan2(piece.Vy, piece.Vx) * 180 / Math.PI;
        }
        var meant = Leaves(default);
        return [.. Enumerable.Range(0, 4096).Select(i => Leaves(scatter.Error(ErrorStream.Named("cushion").At(i))) - meant)];
    }

    private static double Within(List<double> turns, double degrees) => turns.Average(t => Math.Abs(t) < degrees ? 1.0 : 0);

    private static readonly Layout Kick = Layout.OfRest([new(Ball.White, 0.9, 0.5), new(Ball.Red(1), 1.9, 0.6)]);

    /// <summary>Off the cushion of the green's side to the red, as full as can be.</summary>
    private static Stroke KickShot()
    {
        var met = Enumerable
            .Range(0, 200)
            .Select(i => new Stroke(60 + 0.1 * i, 0, 0, 5, 3))
            .Where(s => AimLine.Of(Kick, s, new(Shape), new()) is { Cushions: 1, Distance: < 10 })
            .ToList();
        return met[met.Count / 2];
    }

    [Fact]
    public void A_white_that_must_meet_a_cushion_first_leaves_it_within_the_players_error_and_not_so_after_its_ball()
    {
        var kick = KickShot();
        var line = AimLine.Of(Kick, kick, new(Shape), new());
        Assert.Equal(1, line.Cushions);
        Assert.True(double.IsFinite(line.Distance));
        var turns = OffCushion(Kick, kick, Nothing with { CushionDegrees = 1 }, 0, 0);
        // Student's t with what the nose adds: at 1° hardly anything.
        foreach (var z in (double[])[0.7, 1.5, 3])
            Assert.Equal(2 * StudentT.CDF(0, Math.Sqrt(1 + 0.0225), 4, z) - 1, Within(turns, z), 0.025);
        // A plain stroke at the same cushions, with a ball met on the way: no more than the nose's own.
        var full = Layout.OfRest([new(Ball.White, 0.9, 0.5), new(Ball.Red(1), 1.4, 0.52)]);
        var first = OffCushion(full, new(2.29, 0, 0.7, 7, 3), Nothing with { CushionDegrees = 1 }, 1, 0);
        Assert.Equal(1, Within(first, 4 * ReboundError.TableDegrees), 1e-3);
    }

    /// <summary>Standard deviation 0.15°, whoever plays.</summary>
    [Fact]
    public void Every_ball_comes_off_every_cushion_a_little_off()
    {
        var table = Layout.OfRest([new(Ball.White, 0.9, 0.5)]);
        var turns = OffCushion(table, new(40, 0, 0, 6, 3), Nothing, 0, 0);
        Assert.Equal(ReboundError.TableDegrees, Math.Sqrt(turns.Average(t => t * t)), 0.01);
        Assert.Equal(0, turns.Average(), 0.01);
    }

    [Fact]
    public void A_double_comes_off_its_cushion_within_twice_the_error()
    {
        var layout = Layout.OfRest([new(Ball.White, 1.2, 0.6), new(Ball.Red(1), 1.5, 0.2)]);
        var pot = new Pot(1, Pocket.GreenMiddle, Off: Cushion.YellowSide);
        var cut = Cut.Of(layout, pot, Shape);
        var stroke = new Stroke(cut.AimDegrees, 0, 0, 5, 3);
        stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
        var skill = Nothing with { CushionDegrees = 0.5, Evenness = 30 };
        var turns = OffCushion(layout, stroke, skill, 1, 0, pot);
        Assert.Equal(2 * StudentT.CDF(0, Math.Sqrt(1 + 0.0225), 30, 1) - 1, Within(turns, 1), 0.025);
        // The same stroke, if it is not to be a double.
        Assert.Equal(1, Within(OffCushion(layout, stroke, skill, 1, 0), 4 * ReboundError.TableDegrees), 1e-3);
    }

    // ---- What players say ------------------------------------------------------------------------------------------------

    /// <summary>Common practice, no source; model.md, "How people miss".</summary>
    [Theory]
    [InlineData("county")]
    [InlineData("club")]
    public void Power_costs_and_side_costs_and_wrong_side_more_and_a_thin_cut_more_than_a_thick_one(string name)
    {
        var skill = Skill.Named(name);
        const double clear = 0.004;
        Assert.True(Chance(Half(pace: 8), skill) < Chance(Half(pace: 4), skill) - clear);
        // Cut to the right: left-hand side helps.
        var (helping, wrong) = (Chance(Half(-1), skill), Chance(Half(1), skill));
        Assert.True(helping < Chance(Half(), skill) - clear);
        Assert.True(wrong < helping);
        double Cut(double degrees) => Chance(StandardShots.Red(Shape, 45, 0.8, 0.6, degrees, 4), skill);
        Assert.True(Cut(60) < Cut(45) - clear && Cut(45) < Cut(15) - clear);
    }

    [Fact]
    public void Somebody_without_any_error_pots_what_can_be_potted()
    {
        var shot = Half();
        Assert.Equal(1, Chance(shot, Nothing, 64), 1e-9);
        Assert.Equal(1, QuickChance.Of(shot.Pot.Window, Angle.FromDegrees(30), 0.4, Nothing), 1e-9);
        Assert.Equal(0.5, QuickChance.Of(new(default, Angle.FromDegrees(1)), Angle.FromDegrees(30), 0.4, Nothing), 1e-9);
    }

    [Fact]
    public void Two_hundred_easy_balls_of_a_county_player_are_not_all_potted_for_ever()
    {
        // A bad stroke now and then: with independent normal errors as wide the easy ball was never missed.
        var easy = StandardShots.Red(Shape, 45, 0.5, 0.4, 20, 3.5);
        var county = Skill.Named("county");
        Assert.InRange(Chance(easy, county, 8192), 0.98, 0.9995);
        Assert.True(Chance(easy, county with { Evenness = 30 }, 8192) > Chance(easy, county, 8192));
    }

    // ---- What the desk says it costs -------------------------------------------------------------------------------------

    /// <summary>The share that goes in by plain random luck on the table as it stands: no net, no coarse physics, no reading.</summary>
    private static (double Share, double Error) ByPlainLuck(StandardShot shot, Stroke stroke, Player player, int strokes = 4000)
    {
        var (simulator, random, potted) = (new Simulator(Shape), new Random(71), 0);
        var skill = player.Skill.Times(Reach.Of(shot.Layout, stroke, player).ErrorFactor);
        var scatter = Scatter.Of(shot.Layout, stroke, skill, Shape);
        for (var i = 0; i < strokes; i++)
        {
            scatter.Error(StandardDraws.Draw(random)).Play(simulator, shot.Layout, stroke, null);
            if (simulator.PocketOf(1) == shot.Pot.Pocket)
                potted++;
        }
        var share = (double)potted / strokes;
        return (share, Math.Sqrt(share * (1 - share) / strokes));
    }

    private static void Agrees(Estimate told, (double Share, double Error) played) =>
        Assert.InRange(told.Value - played.Share, -4 * Both(told, played.Error), 4 * Both(told, played.Error));

    private static double Both(Estimate told, double error) => Math.Sqrt(told.Error * told.Error + error * error);

    [Fact]
    public void The_cost_of_a_touch_of_side_of_a_step_of_pace_and_of_the_rest_is_what_strokes_come_to()
    {
        var club = Player.OfSkill("club");
        var shot = Half(pace: 4);
        foreach (var choice in SideChoice.Of(shot.Layout, shot.Pot.Pot, shot.Stroke, club, Shape, Workers.Single()))
            Agrees(choice.Chance, ByPlainLuck(shot, shot.Stroke with { SideTips = choice.SideTips, AimDegrees = choice.AimDegrees }, club));
        foreach (var pace in (double[])[5, 8])
        {
            var option = TableReading.ReadOne(shot.Layout, shot.Pot.Pot, shot.Stroke with { Pace = pace }, club, Shape);
            Assert.Equal(pace, option.Pace, 1e-9);
            Agrees(option.Chance, ByPlainLuck(shot, shot.Stroke with { Pace = pace, AimDegrees = option.AimDegrees!.Value }, club));
        }
        // In the middle of the table, out of a small player's reach: with the rest the errors grow by the player's own factor.
        var far = StandardShots.Of(Shape, new(Ball.Red(1), 1.3, 0.7), Pocket.Yellow, (0.6, 0), new(0, 0, 0, 4, 0));
        var small = club with { Height = Player.Shortest };
        var reach = Reach.Of(far.Layout, far.Stroke, small);
        Assert.Equal((Stance.Rest, club.Skill.RestFactor), (reach.Stance, reach.ErrorFactor));
        var withRest = TableReading.ReadOne(far.Layout, far.Pot.Pot, far.Stroke, small, Shape);
        Agrees(withRest.Chance, ByPlainLuck(far, far.Stroke with { AimDegrees = withRest.AimDegrees!.Value, Pace = withRest.Pace }, small));
        Assert.True(withRest.Chance.Value < Chance(far, club.Skill) - 0.02);
    }
}
