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
        Assert.Contains((double[])[-0.8, 0.8], share =>
            Play(e.Aim.Stroke with { AimDegrees = e.Aim.Stroke.AimDegrees + share * e.Aim.WindowDegrees }, new(Shape), new()) is var miss
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
}
