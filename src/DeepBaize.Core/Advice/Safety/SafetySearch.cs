using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>
/// Looks for safeties. A pipeline: every ball on, at fullnesses either side × heights, sides and paces, played without error → what is left
/// judged → the best of each kind sifted with errors → the distinct ones judged by their whole distribution. See docs/safety.md.
/// </summary>
public sealed class SafetySearch(SearchContext context, LeaveJudge judge)
{
    private const int Sifted = 48,
        SiftSamples = 10,
        Judged = 12,
        JudgeSamples = 120,
        Told = 6;
    private const double SameZone = 0.35;

    private readonly SafetyStrokes _strokes = new(context, judge);

    /// <summary>The distinct safeties, best first; empty if no ball on can be struck straight.</summary>
    public IReadOnlyList<SafetyOption> Find(Situation from, Action<IReadOnlyList<SafetyOption>>? first = null)
    {
        var jobs = _strokes.Ways(from).ToList();
        List<TriedSafety> tried =
        [
            .. context.InParallel(jobs.Count, (bench, i) => _strokes.Play(bench, from, jobs[i].Slot, jobs[i].Offset)).SelectMany(t => t),
        ];
        // Strokes that pot a ball are few of the safeties: most of the room is for those that do not.
        List<TriedSafety> distinct =
        [
            .. Distinct(tried.Where(t => t.Played.Ruling.Points == 0).OrderByDescending(t => t.Value), Sifted),
            .. Distinct(tried.Where(t => t.Played.Ruling.Points > 0).OrderByDescending(t => t.Value), Sifted / 4),
        ];
        var values = context.InParallel(distinct.Count, (bench, i) => Sample(bench, from, distinct[i], SiftSamples, 3).Value);
        List<TriedSafety> best = [.. distinct.Zip(values).OrderByDescending(p => p.Second).Select(p => p.First)];
        List<TriedSafety> ranked =
        [
            .. best.Where(t => t.Played.Ruling.Points == 0).Take(Judged),
            .. best.Where(t => t.Played.Ruling.Points > 0).Take(Judged / 4),
        ];
        first?.Invoke([
            .. context.InParallel(Math.Min(3, ranked.Count), (bench, i) => Sample(bench, from, ranked[i], SiftSamples, 3)).Where(IsSafety),
        ]);
        var judged = context
            .InParallel(ranked.Count, (bench, i) => Sample(bench, from, ranked[i], JudgeSamples, 17))
            .Where(IsSafety)
            .OrderByDescending(s => s.Value);
        return [.. Ideas(judged).Take(Told)];
    }

    /// <summary>A pot that goes in nearly always is a pot; one whose miss leaves one is no shot to nothing.</summary>
    private static bool IsSafety(SafetyOption s) =>
        s.Odds.Pots <= 0.15 || (s.Odds.Pots <= 0.9 && s.Odds.PotLeft <= 0.3 * (1 - s.Odds.Pots) && s.Leaves.Mean <= NothingMuch);

    private const double NothingMuch = 2;

    private SafetyOption Sample(Bench bench, Situation from, TriedSafety tried, int samples, int seed)
    {
        var reach = Reach.Of(from.Layout, tried.Stroke, context.Player);
        var (skill, random) = (context.Player.Skill.Times(reach.ErrorFactor), new Random(seed));
        var ball = from.Layout.Balls[tried.Slot].Ball;
        var (worths, value, snookers, potsLeft, fouls, pots, baulk, tight) = (new List<double>(samples), 0.0, 0, 0, 0, 0, 0, 0);
        var (whites, balls) = (new List<Vec2>(samples), new List<Vec2>(samples));
        for (var i = 0; i < samples; i++)
        {
            var played = bench.Play(from, tried.Stroke, StrokeError.Draw(random, skill), ball);
            if (bench.Simulator.PocketOf(0) is null)
                whites.Add(bench.Simulator.At(0));
            if (bench.Simulator.PocketOf(tried.Slot) is null)
                balls.Add(bench.Simulator.At(tried.Slot));
            var leave = judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout));
            value += SafetyStrokes.ValueOf(played, leave);
            if (played.Ruling.IsFoul)
                fouls++;
            if (played.Ruling.Points > 0)
            {
                pots++;
                continue;
            }
            worths.Add(leave.Worth);
            if (leave.Sight.IsSnookered && !leave.Lie.IsInHand)
                snookers++;
            if (leave.LeavesPot)
                potsLeft++;
            if (leave.Lie.IsTight)
                tight++;
            if (played.Leaves.Layout.White.X < BaulkLineX)
                baulk++;
        }
        worths.Sort();
        var tenth = Math.Max(1, worths.Count / 10);
        double Share(int count) => (double)count / samples;
        static double Mean(IReadOnlyCollection<double> of) => of.Count == 0 ? 0 : of.Average();
        var odds = new SafetyOdds(Share(snookers), Share(potsLeft), Share(fouls), Share(pots), Share(baulk), Share(tight));
        var leaves = new SafetyLeaves(Mean(worths), Mean([.. worths.TakeLast(tenth)]), tried.Leave, tried.Played.Leaves);

        bench.Play(from, tried.Stroke, default, ball);
        var paths = ShotPath.Points(bench.Record, from.Layout.Balls.Count, ShotPath.Drawn);
        var isAway = from.IsTouching(from.Layout.Balls[tried.Slot]);
        var aim = new SafetyAim(ball, isAway ? 0 : 1 - Math.Abs(tried.Offset), tried.Offset > 0, isAway, tried.Stroke, reach);
        var ballToCushion = Cushions.Clearance(
            bench.Simulator.PocketOf(tried.Slot) is null ? bench.Simulator.At(tried.Slot) : new(Length / 2, Width / 2)
        );
        return new(
            IdeaOf(aim, odds, tried.Route, ballToCushion),
            aim,
            tried.Route,
            odds,
            leaves,
            value / samples,
            new(paths[0], paths[tried.Slot], whites, balls)
        );
    }

    /// <summary>What it sets out to do, told from what comes of it.</summary>
    private static SafetyIdea IdeaOf(SafetyAim aim, in SafetyOdds odds, Route route, double ballToCushion) =>
        odds.Pots > 0.15 ? SafetyIdea.ShotToNothing
        : odds.Snooker > 0.4 ? SafetyIdea.Snooker
        : !aim.IsAway && aim.Fullness < 0.35 && odds.Baulk > 0.4 ? SafetyIdea.ThinClip
        : route.Balls.Count > 0 ? SafetyIdea.Cannon
        : !aim.IsAway && ballToCushion < BallRadius ? SafetyIdea.BallToCushion
        : SafetyIdea.Containing;

    private static List<TriedSafety> Distinct(IEnumerable<TriedSafety> tried, int most)
    {
        var kept = new List<TriedSafety>();
        foreach (var one in tried)
        {
            if (kept.Count == most)
                break;
            if (kept.All(k => k.Slot != one.Slot || k.Route.Key != one.Route.Key || Apart(k.Played.Leaves, one.Played.Leaves) > SameZone))
                kept.Add(one);
        }
        return kept;
    }

    private static IEnumerable<SafetyOption> Ideas(IEnumerable<SafetyOption> judged)
    {
        var kept = new List<SafetyOption>();
        foreach (var one in judged)
        {
            if (kept.Any(k => k.Idea == one.Idea && k.Aim.Ball == one.Aim.Ball && Apart(k.Leaves.After, one.Leaves.After) < 2 * SameZone))
                continue;
            kept.Add(one);
            yield return one;
        }
    }

    private static double Apart(Situation a, Situation b) => a.Layout.White.At.DistanceTo(b.Layout.White.At);
}
