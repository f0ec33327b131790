using DeepBaize.Core.Advice.Escape;
using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Advice;

[Trait("Speed", "Slow")]
public class EscapeSearchTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    /// <summary>The only red is hidden behind the brown.</summary>
    private static readonly Situation Snookered = Situation.Create(
        Layout.OfRest([new(Ball.White, 0.55, 0.889), .. Rack.Colours(), new(Ball.Red(1), 2.95, 0.93)])
    );

    private static readonly Lazy<IReadOnlyList<EscapeOption>> Found = new(() => EscapeSearch.Solve(Snookered, County, County, Shape));

    private static (Ball? First, List<Cushion> Cushions) Play(
        Stroke stroke,
        Simulator simulator,
        ShotRecord record,
        in StrokeError error = default
    )
    {
        error.Play(simulator, Snookered.Layout, stroke, record);
        var cushions = new List<Cushion>();
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Ball)
                return (Snookered.Layout.Balls[e.Ball + e.Other].Ball, cushions);
            if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw && e.Ball == 0)
                cushions.Add(Cushions.Nearest(e.At));
        }
        return (null, cushions);
    }

    [Fact]
    public void Every_way_told_gets_to_a_ball_on_off_the_cushions_it_names()
    {
        Assert.True(Found.Value.Count >= 3);
        foreach (var e in Found.Value)
        {
            var (first, cushions) = Play(e.Aim.Stroke, new(Shape), new());
            Assert.Equal(e.Aim.Ball, first);
            if (!e.Way.OffJaw)
                Assert.Equal(e.Way.Cushions, cushions);
        }
        // Best first, as far as the strokes that are told can say, and not one idea many times.
        Assert.All(Found.Value, e => Assert.True(e.Value.Value <= Found.Value[0].Value.Value || e.Value.IsLevelWith(Found.Value[0].Value)));
        Assert.True(Found.Value.Select(e => string.Join('.', e.Way.Cushions)).Distinct().Count() >= 3);
    }

    /// <summary>Plain frequency with fresh errors, no code of the search.</summary>
    [Fact]
    public void The_chance_to_hit_is_how_often_it_hits()
    {
        var e = Found.Value[0];
        var (simulator, record, random, hits) = (new Simulator(Shape), new ShotRecord(), new Random(7), 0);
        const int strokes = 1000;
        var scatter = Scatter.Of(Snookered.Layout, e.Aim.Stroke, County.Skill.Times(e.Aim.Reach.ErrorFactor), Shape);
        for (var i = 0; i < strokes; i++)
            if (Play(e.Aim.Stroke, simulator, record, scatter.Error(StandardDraws.Draw(random))).First is { IsRed: true })
                hits++;
        var deviation = Math.Sqrt(Math.Pow(e.Odds.Hit.Error, 2) + 0.25 / strokes);
        Assert.InRange(e.Odds.Hit.Value - (double)hits / strokes, -4 * deviation, 4 * deviation);
    }

    [Fact]
    public void The_window_of_aim_holds_to_its_edges_and_not_beyond()
    {
        var e = Found.Value.First(f => !f.Way.Swerves);
        foreach (var share in (double[])[-0.4, -0.2, 0.2, 0.4])
            Assert.Equal(
                e.Aim.Ball,
                Play(e.Aim.Stroke with { AimDegrees = e.Aim.Stroke.AimDegrees + share * e.Aim.WindowDegrees }, new(Shape), new()).First
            );
        Assert.Contains(
            (double[])[-0.8, 0.8],
            share =>
                Play(e.Aim.Stroke with { AimDegrees = e.Aim.Stroke.AimDegrees + share * e.Aim.WindowDegrees }, new(Shape), new())
                    is var miss
                && (miss.First != e.Aim.Ball || !miss.Cushions.SequenceEqual(e.Way.Cushions))
        );
    }

    [Fact]
    public void Who_is_not_snookered_is_told_so()
    {
        var open = Situation.Create(Layout.OfRest([new(Ball.White, 0.55, 0.5), .. Rack.Colours(), new(Ball.Red(1), 2.0, 0.4)]));
        Assert.Contains(
            "not snookered",
            Assert.Throws<InputException>(() => EscapeSearch.Solve(open, County, County, Shape)).Errors[0].Message
        );
    }

    [Fact]
    public void The_answer_is_the_same_on_any_number_of_cores()
    {
        List<(Stroke, Estimate)> By(int cores) =>
            [.. EscapeSearch.Solve(Snookered, County, County, Shape, Thoroughness.Gate(cores)).Select(e => (e.Aim.Stroke, e.Odds.Hit))];
        Assert.Equal(By(1), By(2));
    }

    /// <summary>
    /// A table whose cushions are slower than thought: one trial, told by where the white passed, brings the next one nearer (common
    /// practice, no source).
    /// </summary>
    [Fact]
    public void The_next_aim_is_nearer_after_a_trial_on_another_table()
    {
        var real = new TableShape(
            Conditions.With(new Dictionary<string, double> { ["cushionRestitution"] = 0.85, ["cushionFriction"] = 0.2 })
        );
        var corrected = 0;
        foreach (var e in Found.Value.Where(e => !e.Way.OffJaw && !e.Way.Swerves && e.Way.Cushions.Count <= 2))
        {
            var slot = Snookered.Layout.SlotOf(e.Aim.Ball);
            if (Passed(e.Aim.Stroke, slot, real) is not { } passed || Math.Abs(passed) < 0.03)
                continue;
            var next = TryAndCorrect.Next(Snookered.Layout, e.Aim.Stroke, slot, passed, Shape);
            if (Passed(e.Aim.Stroke with { AimDegrees = next.AimDegrees }, slot, real) is not { } again)
                continue;
            Assert.InRange(Math.Abs(again), 0, 0.7 * Math.Abs(passed));
            corrected++;
        }
        Assert.True(corrected > 0);
    }

    /// <summary>How far to the left of where the red lies the white passes, red taken away; null if it comes nowhere near.</summary>
    private static double? Passed(Stroke stroke, int slot, TableShape shape)
    {
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        simulator.Place([.. Snookered.Layout.Balls.Where((_, i) => i != slot)]);
        simulator.Play(stroke.ToStrike(), record);
        var (target, path) = (Snookered.Layout.Balls[slot], ShotPath.Points(record, simulator.Count)[0]);
        var nearest = Enumerable.Range(1, path.Count - 1).MinBy(i => new Segment(path[i - 1].At, path[i].At).DistanceTo(target.At));
        var (dx, dy) = (path[nearest].X - path[nearest - 1].X, path[nearest].Y - path[nearest - 1].Y);
        var pass = (dx * (path[nearest].Y - target.Y) - dy * (path[nearest].X - target.X)) / Math.Sqrt(dx * dx + dy * dy);
        return Math.Abs(pass) < 0.5 ? pass : null;
    }

    [Fact]
    public void A_chosen_ball_is_found_though_another_can_be_hit_straight()
    {
        var open = Situation.Create(
            Layout.OfRest([new(Ball.White, 0.55, 0.889), .. Rack.Colours(), new(Ball.Red(1), 2.95, 0.93), new(Ball.Red(2), 1.2, 0.25)])
        );
        var ways = EscapeSearch.SolveFor(open, Ball.Red(1), County, County, Shape, Workers.Shared());
        Assert.NotEmpty(ways);
        Assert.All(ways, w => Assert.Equal(Ball.Red(1), w.Aim.Ball));
        Assert.Throws<InputException>(() => EscapeSearch.SolveFor(open, Ball.Blue, County, County, Shape, Workers.Shared()));
        Assert.Throws<InputException>(() => EscapeSearch.Solve(open, County, County, Shape));
    }

    [Fact]
    public void A_band_of_aims_off_a_jaw_is_found_as_a_fine_sweep_finds_it()
    {
        // Reds all over the upper table: off some jaw one or another is hit.
        (double X, double Y)[] reds = [(1.3, 0.3), (1.9, 1.4), (2.3, 0.5), (2.6, 1.2), (2.9, 0.7), (3.1, 1.5), (2.2, 1.0), (1.4, 1.3)];
        var many = Situation.Create(
            Layout.OfRest(
                [new(Ball.White, 0.55, 0.889), .. Rack.Colours(), .. reds.Select((r, i) => new PlacedBall(Ball.Red(i + 1), r.X, r.Y))]
            )
        );
        var context = new SearchContext(new(many.Frame, County, Shape, PlanPreferences.Default), new FairGate(2), default);
        context.Bound(many.Layout);
        var windows = new AimWindows(context, many, null);
        var found = windows.Of(1).Where(w => w.Hit.OffJaw).ToList();
        var workspace = new Workspace(context);
        // All round by hundredths of a degree, at one pace: bands that begin with a jaw, wider than two steps of the search.
        var pace = found.Max(w => w.Pace);
        var (bands, start, open) = (new List<(double From, double To, EscapeHit Hit)>(), 0.0, default(EscapeHit));
        for (var at = 0.0; at < 360; at += 0.01)
        {
            var hit = windows.FirstHit(workspace, windows.StrokeOf(1, pace, at));
            if (hit is not { OffJaw: true } || !IsJawFirst(workspace))
                hit = null;
            if (open is not null && (hit is null || !hit.IsAs(open)))
            {
                bands.Add((start, at - 0.01, open));
                open = null;
            }
            if (hit is not null && open is null)
                (open, start) = (hit, at);
        }
        var wide = bands.Where(b => b.To - b.From > 2 * 0.04).ToList();
        Assert.NotEmpty(wide);
        foreach (var band in wide)
            Assert.Contains(
                found,
                w =>
                    w.Pace == pace
                    && w.Hit.IsAs(band.Hit)
                    && Math.Abs(Math.IEEERemainder(w.Middle - (band.From + band.To) / 2, 360)) < band.To - band.From
                    && Math.Abs(w.Width - (band.To - band.From)) < 0.3
            );
    }

    private static bool IsJawFirst(Workspace workspace) =>
        workspace.Record.Events.Find(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw).Kind == ShotEventKind.Jaw;

    [Fact]
    public void From_every_place_of_a_family_the_ball_is_hit_off_the_same_point()
    {
        var escape = Found.Value.First(e => e.Way is { Cushions.Count: 1, OffJaw: false });
        var family = EscapeFamily.Of(Snookered, escape.Aim.Stroke, Shape, Workers.Single())!;
        Assert.Equal(escape.Way.Cushions, family.Cushions);
        Assert.True(family.Places.Count > 5, $"{family.Places.Count}");
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        var slot = Snookered.Layout.SlotOf(escape.Aim.Ball);
        foreach (var place in family.Places.Where((_, i) => i % 7 == 0))
        {
            var layout = Layout.OfRest([.. Snookered.Layout.Balls.Select((b, i) => i == 0 ? new PlacedBall(b.Ball, place) : b)]);
            var squirt = Strike.Squirt(Tip.Fraction(escape.Aim.Stroke.SideTips), Conditions.Default).Degrees;
            var stroke = escape.Aim.Stroke with { AimDegrees = (family.Point - place).Direction.Degrees - squirt };
            stroke = stroke with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, Reach.LeastFor(layout, stroke)) };
            stroke.Play(simulator, layout, record);
            Assert.Equal(slot, Contacts.FirstSlot(record));
        }
        // Found again from another place of the band, and not where no ball lies.
        var moved = Situation.Create(
            Layout.OfRest([.. Snookered.Layout.Balls.Select((b, i) => i == 0 ? new PlacedBall(b.Ball, family.Places[0]) : b)])
        );
        var again = family.From(moved, escape.Aim.Stroke, Snookered.Layout.Balls[slot].At, County, Shape);
        Assert.NotNull(again);
        again.Value.Play(simulator, moved.Layout, record);
        Assert.Equal(slot, Contacts.FirstSlot(record));
        Assert.Null(family.From(moved, escape.Aim.Stroke, new(0.3, 0.3), County, Shape));
        // The place where the white lies belongs to it: beside it there is room to either side.
        Assert.True(family.Across.Left + family.Across.Right > 0.02);
        Assert.Null(EscapeFamily.Of(Snookered, new(0, 0, 0, 4, 0), Shape, Workers.Single()));
    }
}
