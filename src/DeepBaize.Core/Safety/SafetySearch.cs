using DeepBaize.Core.Physics;
using DeepBaize.Core.Planning;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Safety;

/// <summary>What a safety sets out to do: told from what comes of it.</summary>
public enum SafetyIdea
{
    /// <summary>A ball is clipped thin and the white runs back to baulk.</summary>
    ThinClip,
    /// <summary>The other player is most likely snookered.</summary>
    Snooker,
    /// <summary>The object ball ends on a cushion, or nearly.</summary>
    BallToCushion,
    /// <summary>The white runs into another ball and stays there.</summary>
    Cannon,
    /// <summary>A pot whose miss is safe as well.</summary>
    ShotToNothing,
    /// <summary>The balls are kept where no pot is on.</summary>
    Containing,
}

/// <summary>A safety, judged by all that it may leave.</summary>
/// <param name="Ball">That is struck.</param>
/// <param name="Fullness">How full, 1 full to 0 a miss.</param>
/// <param name="LeftSide">Of the ball as the player sees it.</param>
/// <param name="IsAway">The white touches the ball and is played away from it, which counts as striking it (rule 8).</param>
/// <param name="Mean">Of what is left, to the other player, points.</param>
/// <param name="WorstTenth">Mean of the worst tenth.</param>
/// <param name="Snooker">Chance that the other player is snookered.</param>
/// <param name="PotLeft">Chance that a pot better than even is left, after a fair stroke or a foul.</param>
/// <param name="Foul">Chance of a foul.</param>
/// <param name="Pots">Chance that a ball on goes in.</param>
/// <param name="Baulk">Chance that the white ends behind the baulk line.</param>
/// <param name="Tight">Chance that the white ends tight on a cushion.</param>
/// <param name="Value">What may be expected of it: points made, less those given and what is left.</param>
/// <param name="Leave">If it goes as meant.</param>
/// <param name="WhiteRests">Where the white ends, m, for the spread.</param>
/// <param name="BallRests">Where the ball that is struck ends.</param>
public sealed record Safety(
    SafetyIdea Idea, Ball Ball, double Fullness, bool LeftSide, bool IsAway, Stroke Stroke, Route Route, Reach Reach, double Mean, double WorstTenth, double Snooker, double PotLeft, double Foul, double Pots, double Baulk, double Tight,
    double Value, Leave Leave, Situation After, IReadOnlyList<PathPoint> WhitePath, IReadOnlyList<PathPoint> BallPath, IReadOnlyList<PathPoint> WhiteRests, IReadOnlyList<PathPoint> BallRests);

/// <summary>
/// Looks for safeties. A pipeline: every ball on, at fullnesses either side × heights, sides and paces, played without error → what is left judged → the best of each kind
/// sifted with errors → the distinct ones judged by their whole distribution. See docs/safety.md.
/// </summary>
internal sealed class SafetySearch(PlanContext context, LeaveJudge judge)
{
    private const int MostBalls = 7, Sifted = 48, SiftSamples = 10, Judged = 12, JudgeSamples = 120, Told = 6;
    private const double SameZone = 0.35;

    /// <summary>Where the white's centre passes, in ball widths beside the object ball's.</summary>
    private static readonly double[] Offsets = [-0.96, -0.88, -0.75, -0.55, -0.3, 0, 0.3, 0.55, 0.75, 0.88, 0.96];

    private static readonly (double Height, double Side)[] Columns = [(0, 0), (-0.9, 0), (0.9, 0), (0, 0.9), (0, -0.9)];

    private const double Softest = 1.5, Hardest = 8, PaceStep = 0.65;

    private sealed record Tried(int Slot, double Offset, Stroke Stroke, Played Played, Leave Leave, double Value, Route Route);

    /// <summary>The distinct safeties, best first; empty if no ball on can be struck straight.</summary>
    public IReadOnlyList<Safety> Find(Situation from, Action<IReadOnlyList<Safety>>? first = null)
    {
        var jobs = Targets(from).SelectMany(slot => Offsets.Select(o => (Slot: slot, Offset: o))).ToList();
        List<Tried> tried = [.. context.InParallel(jobs.Count, (bench, i) => Play(bench, from, jobs[i].Slot, jobs[i].Offset)).SelectMany(t => t)];
        // Strokes that pot a ball are few of the safeties: most of the room is for those that do not.
        List<Tried> distinct = [.. Distinct(tried.Where(t => t.Played.Ruling.Points == 0).OrderByDescending(t => t.Value), Sifted), .. Distinct(tried.Where(t => t.Played.Ruling.Points > 0).OrderByDescending(t => t.Value), Sifted / 4)];
        var values = context.InParallel(distinct.Count, (bench, i) => Sample(bench, from, distinct[i], SiftSamples, 3).Value);
        List<Tried> best = [.. distinct.Zip(values).OrderByDescending(p => p.Second).Select(p => p.First)];
        List<Tried> ranked = [.. best.Where(t => t.Played.Ruling.Points == 0).Take(Judged), .. best.Where(t => t.Played.Ruling.Points > 0).Take(Judged / 4)];
        first?.Invoke([.. context.InParallel(Math.Min(3, ranked.Count), (bench, i) => Sample(bench, from, ranked[i], SiftSamples, 3)).Where(IsSafety)]);
        var judged = context.InParallel(ranked.Count, (bench, i) => Sample(bench, from, ranked[i], JudgeSamples, 17)).Where(IsSafety).OrderByDescending(s => s.Value);
        return [.. Ideas(judged).Take(Told)];
    }

    /// <summary>A pot that goes in nearly always is a pot; one whose miss leaves one is no shot to nothing.</summary>
    private static bool IsSafety(Safety s) => s.Pots <= 0.15 || (s.Pots <= 0.9 && s.PotLeft <= 0.3 * (1 - s.Pots) && s.Mean <= NothingMuch);

    private const double NothingMuch = 2;

    /// <summary>The best by a quick look, in one thread; null if there is none. For long exchanges that are played out.</summary>
    public (Stroke Stroke, Reach Reach)? Glance(Bench bench, Situation from)
    {
        Tried? best = null;
        foreach (var slot in Targets(from).Take(2))
            for (var i = 0; i < Offsets.Length; i += 2)
                foreach (var tried in Play(bench, from, slot, Offsets[i], coarse: true))
                    if (best is null || tried.Value > best.Value) best = tried;
        return best is null ? null : (best.Stroke, Reach.Of(from.Layout, best.Stroke, context.Player));
    }

    /// <summary>The balls on that can be struck straight, the nearest first.</summary>
    private static IEnumerable<int> Targets(Situation from)
    {
        var (layout, white) = (from.Layout, from.Layout.White);
        return from.OnSlots().Where(slot => Offsets.Any(o => IsOpen(from, slot, o)))
            .OrderBy(s => Math.Pow(layout.Balls[s].X - white.X, 2) + Math.Pow(layout.Balls[s].Y - white.Y, 2)).Take(MostBalls);
    }

    private static bool IsOpen(Situation from, int slot, double offset)
    {
        var layout = from.Layout;
        if (from.IsTouching(layout.Balls[slot])) return true;
        var (gx, gy) = Ghost(from, slot, offset);
        for (var i = 1; i < layout.Balls.Count; i++)
            if (i != slot && Layout.GapFrom(layout.White.X, layout.White.Y, gx, gy, layout.Balls[i]) < -Hair) return false;
        return true;
    }

    /// <summary>So far a ball that is touched and played away from may seem in the way, m.</summary>
    private const double Hair = 1e-6;

    /// <summary>Where the white's centre is when it meets the ball so far beside its middle.</summary>
    private static (double X, double Y) Ghost(Situation from, int slot, double offset)
    {
        var (ball, aim) = (from.Layout.Balls[slot], AimAt(from, slot, offset) * Math.PI / 180);
        var back = 2 * BallRadius * Math.Sqrt(1 - offset * offset);
        var (sin, cos) = Math.SinCos(aim);
        return (ball.X - back * cos - 2 * BallRadius * offset * sin, ball.Y - back * sin + 2 * BallRadius * offset * cos);
    }

    /// <summary>
    /// The direction in which the white's centre passes so many ball widths to the left of the ball's middle, degrees; from a ball that it touches,
    /// turned round.
    /// </summary>
    private static double AimAt(Situation from, int slot, double offset)
    {
        var layout = from.Layout;
        var (dx, dy) = (layout.Balls[slot].X - layout.White.X, layout.Balls[slot].Y - layout.White.Y);
        var distance = Math.Max(2 * BallRadius, Math.Sqrt(dx * dx + dy * dy));
        return (Math.Atan2(dy, dx) + (from.IsTouching(layout.Balls[slot]) ? Math.PI : 0) + Math.Asin(Math.Clamp(offset * 2 * BallRadius / distance, -1, 1))) * 180 / Math.PI;
    }

    private List<Tried> Play(Bench bench, Situation from, int slot, double offset, bool coarse = false)
    {
        var tried = new List<Tried>();
        foreach (var stroke in Strokes(from, slot, offset, coarse))
        {
            var played = bench.Play(from, stroke, default, from.Layout.Balls[slot].Ball);
            if (played.Ruling.IsFoul) continue;
            var leave = judge.Of(played.After, bench.LinesOf(played.After.Layout));
            tried.Add(new(slot, offset, stroke, played, leave, ValueOf(played, leave), Route.Of(bench.Record)));
        }
        return tried;
    }

    /// <summary>All strokes that are tried at a ball, with how far beside its middle the white passes.</summary>
    public IEnumerable<(double Offset, Stroke Stroke)> Strokes(Situation from, int slot) => Offsets.SelectMany(o => Strokes(from, slot, o, coarse: false).Select(s => (o, s)));

    private IEnumerable<Stroke> Strokes(Situation from, int slot, double offset, bool coarse)
    {
        if (!IsOpen(from, slot, offset)) yield break;
        foreach (var (height, side) in Columns)
        {
            if (coarse && side != 0) continue;
            // The cue points beside the way that is meant, for squirt.
            var stroke = new Stroke(AimAt(from, slot, offset) - Strike.Squirt(Tip.Fraction(side), context.Shape.Conditions) * 180 / Math.PI, side, height, Softest, 0);
            stroke = stroke with { ElevationDegrees = Reach.ElevationFor(from.Layout, stroke) };
            for (var pace = Softest; pace <= Hardest; pace += coarse ? 2 * PaceStep : PaceStep) yield return stroke with { Pace = pace };
        }
    }

    /// <summary>To the player: points made or given, and, with the other one at the table, what is left to him.</summary>
    private double ValueOf(Played played, in Leave leave)
    {
        var ruling = played.Ruling;
        if (ruling.After.IsOver) return ruling.Points > 0 ? LeaveJudge.FrameWorth : -LeaveJudge.FrameWorth;
        // The break goes on: what is left is one's own.
        return ruling.Points > 0 ? ruling.Points + Math.Max(0, leave.Worth) : -ruling.Penalty - leave.Worth;
    }

    private Safety Sample(Bench bench, Situation from, Tried tried, int samples, int seed)
    {
        var reach = Reach.Of(from.Layout, tried.Stroke, context.Player);
        var (skill, random) = (context.Skill.Times(reach.ErrorFactor), new Random(seed));
        var ball = from.Layout.Balls[tried.Slot].Ball;
        var (worths, value, snookers, potsLeft, fouls, pots, baulk, tight) = (new List<double>(samples), 0.0, 0, 0, 0, 0, 0, 0);
        var (whites, balls) = (new List<PathPoint>(samples), new List<PathPoint>(samples));
        for (var i = 0; i < samples; i++)
        {
            var played = bench.Play(from, tried.Stroke, StrokeError.Draw(random, skill), ball);
            if (bench.Simulator.PocketOf(0) is null) whites.Add(new(0, bench.Simulator.X(0), bench.Simulator.Y(0)));
            if (bench.Simulator.PocketOf(tried.Slot) is null) balls.Add(new(0, bench.Simulator.X(tried.Slot), bench.Simulator.Y(tried.Slot)));
            var leave = judge.Of(played.After, bench.LinesOf(played.After.Layout));
            value += ValueOf(played, leave);
            if (played.Ruling.IsFoul) fouls++;
            if (played.Ruling.Points > 0)
            {
                pots++;
                continue;
            }
            worths.Add(leave.Worth);
            if (leave.IsSnookered && !leave.IsInHand) snookers++;
            if (leave.LeavesPot) potsLeft++;
            if (leave.IsTight) tight++;
            if (played.After.Layout.White.X < BaulkLineX) baulk++;
        }
        worths.Sort();
        var tenth = Math.Max(1, worths.Count / 10);
        double Share(int count) => (double)count / samples;
        bench.Play(from, tried.Stroke, default, ball);
        var paths = ShotPath.Points(bench.Record, from.Layout.Balls.Count, ShotPath.Drawn);
        var ballEnd = bench.Simulator.PocketOf(tried.Slot) is null ? (X: bench.Simulator.X(tried.Slot), Y: bench.Simulator.Y(tried.Slot)) : (X: Length / 2, Y: Width / 2);
        var ballToCushion = Math.Min(Math.Min(ballEnd.X, Length - ballEnd.X), Math.Min(ballEnd.Y, Width - ballEnd.Y)) - BallRadius;
        var isAway = from.IsTouching(from.Layout.Balls[tried.Slot]);
        var fullness = isAway ? 0 : 1 - Math.Abs(tried.Offset);
        var idea = Share(pots) > 0.15 ? SafetyIdea.ShotToNothing
            : Share(snookers) > 0.4 ? SafetyIdea.Snooker
            : !isAway && fullness < 0.35 && Share(baulk) > 0.4 ? SafetyIdea.ThinClip
            : tried.Route.Balls.Count > 0 ? SafetyIdea.Cannon
            : !isAway && ballToCushion < BallRadius ? SafetyIdea.BallToCushion
            : SafetyIdea.Containing;
        return new(idea, ball, fullness, tried.Offset > 0, isAway, tried.Stroke, tried.Route, reach, worths.Count == 0 ? 0 : worths.Average(), worths.Count == 0 ? 0 : worths.TakeLast(tenth).Average(),
            Share(snookers), Share(potsLeft), Share(fouls), Share(pots), Share(baulk), Share(tight), value / samples, tried.Leave, tried.Played.After, paths[0], paths[tried.Slot], whites, balls);
    }

    private static List<Tried> Distinct(IEnumerable<Tried> tried, int most)
    {
        var kept = new List<Tried>();
        foreach (var one in tried)
        {
            if (kept.Count == most) break;
            if (kept.All(k => k.Slot != one.Slot || k.Route.Key != one.Route.Key || Apart(k.Played.After, one.Played.After) > SameZone)) kept.Add(one);
        }
        return kept;
    }

    private static IEnumerable<Safety> Ideas(IEnumerable<Safety> judged)
    {
        var kept = new List<Safety>();
        foreach (var one in judged)
        {
            if (kept.Any(k => k.Idea == one.Idea && k.Ball == one.Ball && Apart(k.After, one.After) < 2 * SameZone)) continue;
            kept.Add(one);
            yield return one;
        }
    }

    private static double Apart(Situation a, Situation b)
    {
        var (p, q) = (a.Layout.White, b.Layout.White);
        return Math.Sqrt((p.X - q.X) * (p.X - q.X) + (p.Y - q.Y) * (p.Y - q.Y));
    }
}
