using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Reading;

public class FanTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static readonly Layout Table = Layout.Create([("white", 1.7, 0.75), ("red-1", 2.25, 1.05)], Shape);

    private static readonly Pot Pot = new(1, Pocket.GreenTop);

    private static IReadOnlyList<FanLine> Fanned(
        Layout layout,
        Stroke stroke,
        Pot? pot,
        FanKind kind,
        FanRange? range = null,
        bool keepsAim = false
    )
    {
        Cut? cut = pot is null ? null : Cut.Of(layout, pot, Shape);
        return Fan.Of(new(layout, stroke, cut, Shape, null, keepsAim || pot is null, null), kind, range, Workers.Single());
    }

    private static Arrival Arrive(Stroke stroke)
    {
        var simulator = new Simulator(Shape);
        var record = new ShotRecord();
        simulator.Place(Table.AsSpan());
        simulator.Play(stroke.ToStrike(), record);
        return Arrival.Of(record, stroke.ToStrike(), Shape)!.Value;
    }

    [Fact]
    public void The_three_routes_leave_forward_along_and_behind_the_stun_line()
    {
        // Common practice, no source: follow bends forward of the stun line, screw behind it; stun arrives without spin.
        var routes = Fanned(Table, new(0, 0, 0, 4.2, 0), Pot, FanKind.Routes).ToDictionary(l => l.Key);
        Assert.Equal(["follow", "screw", "stun"], routes.Keys.Order());
        Assert.All(routes.Values, r => Assert.True(r.Potted));
        Assert.Equal(0, Arrive(routes["stun"].Stroke).Follow, 0.01);
        Assert.True(Arrive(routes["follow"].Stroke).Follow > 0.5);
        Assert.True(Arrive(routes["screw"].Stroke).Follow < -0.3);
        // How far along the potting line each has gone 0.4 s after contact.
        var cut = Cut.Of(Table.White, Table.Balls[1], Pocket.GreenTop, Shape);
        var (s, c) = Math.SinCos(cut.PotDegrees * Math.PI / 180);
        double Along(FanLine line)
        {
            var hit = line.WhitePath.MinBy(p => Math.Abs(p.X - cut.Ghost.X) + Math.Abs(p.Y - cut.Ghost.Y));
            var later = line.WhitePath.FirstOrDefault(p => p.Time >= hit.Time + 0.4, line.WhitePath[^1]);
            return (later.X - hit.X) * c + (later.Y - hit.Y) * s;
        }
        Assert.True(Along(routes["follow"]) > 0.05);
        Assert.Equal(0, Along(routes["stun"]), 0.02);
        Assert.True(Along(routes["screw"]) < -0.02);
    }

    [Fact]
    public void A_route_that_a_soft_pace_does_not_allow_is_played_as_softly_as_it_can_be()
    {
        // Common practice, no source: a low strike played softly from afar arrives plain.
        var far = Layout.Create([("white", 0.6, 0.5), ("red-1", 2.6, 0.9)], Shape);
        var pot = new Pot(1, Pocket.GreenTop);
        var soft = new Stroke(0, 0, 0, 2.2, 0);
        var routes = Fanned(far, soft, pot, FanKind.Routes).ToDictionary(l => l.Key);
        Assert.Equal(["follow", "screw", "stun"], routes.Keys.Order());
        Assert.Equal(2.2, routes["follow"].Stroke.Pace);
        Assert.True(routes["stun"].Stroke.Pace > 2.4);
        Assert.Equal(routes["stun"].Stroke.Pace, routes["screw"].Stroke.Pace);
        Arrival Comes(Stroke stroke)
        {
            var record = new ShotRecord();
            stroke.Play(new Simulator(Shape), far, record);
            return Arrival.Of(record, stroke.ToStrike(), Shape)!.Value;
        }
        Assert.Equal(0, Comes(routes["stun"].Stroke).Follow, 0.02);
        Assert.True(Comes(routes["screw"].Stroke).Follow < 0);
        // At a quarter of a pace less even the lowest strike arrives with follow.
        var softer = routes["screw"].Stroke with
        {
            Pace = routes["screw"].Stroke.Pace - 0.25,
        };
        Assert.True(Comes(softer).Follow > 0);
    }

    [Fact]
    public void A_ball_that_rolls_from_the_tip_arrives_rolling()
    {
        // Coriolis 1835: at 2/5 of the radius.
        var stroke = new Stroke(Cut.Of(Table.White, Table.Balls[1], Pocket.GreenTop, Shape).AimDegrees, 0, 0.4 / Tip.Fraction(1), 5, 0);
        Assert.Equal(1, Arrive(stroke).Follow, 1e-9);
    }

    [Fact]
    public void Squirt_swerve_and_throw_are_told_apart()
    {
        var aim = Cut.Of(Table.White, Table.Balls[1], Pocket.GreenTop, Shape).AimDegrees;
        var plain = Arrive(new(aim, 0, 0, 5, 0));
        Assert.Equal(0, plain.SquirtDegrees, 1e-9);
        Assert.Equal(0, plain.SwerveDegrees, 1e-6);
        Assert.NotEqual(0, plain.ThrowDegrees, 1e-3);
        // Right-hand side: squirt to the left by Alciatore TP A.31, swerve back to the right with a raised butt.
        var side = Arrive(new(aim, 0.8, 0, 5, 10));
        Assert.Equal(Strike.Squirt(Tip.Fraction(0.8), Conditions.Default).Degrees, side.SquirtDegrees, 1e-9);
        Assert.True(side.SquirtDegrees > 0 && side.SwerveDegrees < 0 && side.SideSpin > 0);
    }

    [Fact]
    public void The_throw_told_is_the_friction_laws()
    {
        // Alciatore TP A.14, from memory: at contact, tan(throw) = min(μ(slip), slip/7/normal), both from the motion at contact.
        var arrival = Arrive(new(Cut.Of(Table.White, Table.Balls[1], Pocket.GreenTop, Shape).AimDegrees, 0, 0.4 / Tip.Fraction(1), 5, 0));
        var simulator = new Simulator(Shape);
        var record = new ShotRecord();
        simulator.Place(Table.AsSpan());
        simulator.Play(
            new Stroke(Cut.Of(Table.White, Table.Balls[1], Pocket.GreenTop, Shape).AimDegrees, 0, 0.4 / Tip.Fraction(1), 5, 0).ToStrike(),
            record
        );
        var hit = record.Events.First(e => e.Kind == ShotEventKind.Ball);
        var (phi, v) = (Math.Acos(hit.Speed / arrival.Speed), arrival.Speed);
        // A rolling cue ball also slips upwards on the object ball: R·ω·cos φ.
        var (slipT, slipZ) = (v * Math.Sin(phi), v * Math.Cos(phi));
        var slip = Math.Sqrt(slipT * slipT + slipZ * slipZ);
        var normal = (1 + 0.94) / 2 * hit.Speed;
        var friction = Math.Min(Conditions.Default.BallFriction(slip) * normal, slip / 7);
        Assert.Equal(Math.Atan(friction * slipT / slip / normal) * 180 / Math.PI, Math.Abs(arrival.ThrowDegrees), 1e-6);
    }

    [Fact]
    public void Paces_heights_and_sides_are_fanned_within_the_limits_and_all_aimed()
    {
        var paces = Fanned(Table, new(0, 0, 0, 6, 0), Pot, FanKind.Paces);
        Assert.Equal(["-1.0", "-0.5", "+0.5", "+1.0"], paces.Select(l => l.Key));
        Assert.All(paces, l => Assert.True(l.Potted));
        var speeds = paces.Select(l => Arrive(l.Stroke).Speed).ToList();
        Assert.Equal(speeds.Order(), speeds);
        Assert.Equal(["-1.0", "-0.5", "+0.5"], Fanned(Table, new(0, 0, 0.6, 6, 0), Pot, FanKind.Heights).Select(l => l.Key));
        Assert.Equal(2, Fanned(Table, new(0, 0, 0, 6, 0), Pot, FanKind.Sides).Count);
    }

    [Fact]
    public void From_high_on_the_black_the_harder_the_follow_the_farther_the_white_runs_along_the_stun_line()
    {
        // Common practice, no source: a hard top-spin shot runs straight past what a softer one bends into.
        var layout = Layout.Create([("white", 3.03, 1.12), ("black", Spot(Ball.Black).X, Spot(Ball.Black).Y)], Shape);
        var cut = Cut.Of(layout, new(1, Pocket.YellowTop), Shape);
        var (s, c) = Math.SinCos((cut.PotDegrees + (cut.CutDegrees > 0 ? -90 : 90)) * Math.PI / 180);
        var runs = new List<double>();
        foreach (var pace in (double[])[3, 4, 5, 6, 7])
        {
            var stroke = new Stroke(0, 0, 0.9, pace, 0);
            stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, Shape)!.Value };
            var (simulator, record) = (new Simulator(Shape), new ShotRecord());
            simulator.Place(layout.AsSpan());
            simulator.Play(stroke.ToStrike(), record);
            // How far along the stun line until the path has left it by a ball's radius, or met the cushion.
            var hit = Contacts.First(record)!.Value;
            var path = ShotPath
                .Points(record, 2)[0]
                .Where(p => p.Time >= hit.Time)
                .TakeWhile(p => p.X < Length - BallRadius - 1e-4)
                .TakeWhile(p => Math.Abs(-(p.X - hit.X) * s + (p.Y - hit.Y) * c) < BallRadius);
            runs.Add(path.Max(p => (p.X - hit.X) * c + (p.Y - hit.Y) * s));
        }
        Assert.Equal(runs.Order(), runs);
        Assert.True(runs[^1] > 1.5 * runs[0], string.Join(", ", runs.Select(r => $"{r:0.000}")));
    }

    [Fact]
    public void Settings_of_ones_own_are_laid_out_from_one_to_another()
    {
        var twentieths = Fanned(Table, new(0, 0, 0.3, 4, 0), Pot, FanKind.Heights, new(0.1, 0.4, 0.05));
        Assert.Equal([0.1, 0.15, 0.2, 0.25, 0.3, 0.35, 0.4], twentieths.Select(l => Math.Round(l.Stroke.HeightTips, 9)));
        Assert.All(twentieths, l => Assert.True(l.Potted));
        Assert.Equal(["0", "6", "20"], Fanned(Table, new(0, 0, 0.3, 4, 0), Pot, FanKind.Butts).Select(l => l.Key));
        var field = Assert.Throws<InputException>(() => new FanRange(0, 10, 0.1).Checked()).Errors.Single().Field;
        Assert.Equal("range.step", field);
    }

    [Fact]
    public void A_bare_white_is_fanned_too_and_runs_the_farther_the_harder_it_is_struck()
    {
        var alone = Layout.Create([("white", 0.5, 0.889)], Shape);
        var lines = Fanned(alone, new(0, 0, 0, 2, 0), null, FanKind.Paces, new(1.5, 2.5, 0.25));
        Assert.Equal(5, lines.Count);
        Assert.All(lines, l => Assert.True(l.Potted is null && l.End.First == -1 && l.BallPath.Count == 0));
        var stops = lines.Select(l => l.End.White!.Value.X).ToList();
        Assert.Equal(stops.Order(), stops);
    }

    [Fact]
    public void With_the_aim_kept_side_misses_the_pot_by_what_squirt_and_throw_make_of_it()
    {
        var cut = Cut.Of(Table, Pot, Shape);
        var plain = new Stroke(0, 0, 0, 6, 0);
        plain = plain with { AimDegrees = PotAim.Find(Table, cut, plain, Shape)!.Value };
        var kept = Fanned(Table, plain, Pot, FanKind.Sides, new(-1, 1, 0.5), keepsAim: true).ToDictionary(l => l.Key);
        Assert.All(kept.Values, l => Assert.Equal(plain.AimDegrees, l.Stroke.AimDegrees));
        Assert.True(kept["+0.0"].Potted);
        foreach (var line in kept.Values)
        {
            // Played with the aim that is told, each goes in.
            var simulator = new Simulator(Shape);
            (line.Stroke with { AimDegrees = line.AimThatPots!.Value }).Play(simulator, Table);
            Assert.Equal(Pocket.GreenTop, simulator.PocketOf(1));
        }
        // Alciatore TP A.31: right-hand side pushes the white to the left, so that the true line lies to the right of the ghost's, by
        // about the squirt (throw takes a part of it back or adds to it).
        var squirt = Strike.Squirt(Tip.Fraction(1), Conditions.Default).Degrees;
        Assert.InRange(plain.AimDegrees - kept["+1.0"].AimThatPots!.Value, 0.5 * squirt, 2 * squirt);
        Assert.False(kept["+1.0"].Potted);
        Assert.NotNull(kept["+1.0"].Miss);
    }

    [Fact]
    public void An_aim_that_is_off_by_half_a_degree_passes_the_ball_by_what_geometry_says()
    {
        // Plain ball, nothing in the way: the white passes at d·sin of the angle between its line and that to the ball's centre.
        var layout = Layout.Create([("white", 0.5, 0.5), ("red-1", 2.5, 1.0)], Shape);
        var full = (layout.Balls[1].At - layout.White.At).Direction.Degrees;
        var distance = layout.Balls[1].At.DistanceTo(layout.White.At);
        var thin = full + Math.Asin(0.95 * 2 * BallRadius / distance) * 180 / Math.PI;
        var errors = Fanned(layout, new(thin, 0, 0, 5, 0), null, FanKind.Errors).ToDictionary(l => l.Key);
        Assert.Equal(6, errors.Count);
        Assert.Equal(1, errors["aim-0.5"].End.First);
        var off = distance * Math.Sin((thin + 0.5 - full) * Math.PI / 180) - 2 * BallRadius;
        Assert.Equal(off, errors["aim+0.5"].PassesBy!.Value, 1e-4);
        Assert.Equal(
            1 - distance * Math.Sin((thin - 0.5 - full) * Math.PI / 180) / (2 * BallRadius),
            errors["aim-0.5"].End.Fullness!.Value,
            1e-4
        );
    }

    [Fact]
    public void A_pace_table_tells_from_which_pace_on_the_white_comes_back()
    {
        // Common practice, no source: a low strike played softly from afar arrives plain, and with pace the white screws back.
        var layout = Layout.Create([("white", 1.4, 0.889), ("blue", 2.4, 0.889 + 0.02)], Shape);
        var question = new VariantQuestion(layout, new(0, 0, -0.9, 4, 0), null, Shape, null, true, null);
        question = question with
        {
            Stroke = question.Stroke with { AimDegrees = (layout.Balls[1].At - layout.White.At).Direction.Degrees },
        };
        var table = PaceTable.Of(question, new(2, 9, 1), Player.Default, Workers.Single());
        Assert.Equal(8, table.Rows.Count);
        Assert.False(table.Rows[0].Line.End.ComesBack);
        Assert.True(table.Rows[^1].Line.End.ComesBack);
        var back = table.BackFrom!.Value;
        bool Comes(double pace) => Fan.Of(question, FanKind.Paces, new(pace, pace, 1), Workers.Single()).Single().End.ComesBack;
        Assert.True(Comes(back));
        Assert.False(Comes(back - 2 * PaceTable.Accuracy));
    }
}
