using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Safety;

/// <summary>
/// Looks for safeties. A pipeline: every ball on, at fullnesses either side × heights, sides and paces, played without error → the
/// distinct ones sifted with errors → bettered by small changes → ranked against one another → told by strokes that had no part in
/// the choice. See docs/safety.md.
/// </summary>
/// <param name="win">The chance to win the frame from what is left.</param>
public sealed class SafetySearch(SearchContext context, LeaveJudge judge, WinChance win)
{
    private const int Sifted = 48,
        SiftStrokes = 16,
        Refined = 10,
        RefineStrokes = 32,
        Told = 6,
        ToldStrokes = 256;
    private static readonly ContestEffort Ranking = new(32, 256, 0.1);
    private const double SameZone = 0.35;

    private static readonly ErrorStream Sifting = ErrorStream.Named("safeties: sift"),
        Refining = ErrorStream.Named("safeties: refine"),
        Placing = ErrorStream.Named("safeties: rank"),
        Telling = ErrorStream.Named("safeties: tell");

    private readonly SafetyStrokes _strokes = new(context, judge);

    /// <summary>The distinct safeties, best first; empty if no ball on can be struck straight.</summary>
    public IReadOnlyList<SafetyOption> Find(Situation from, Action<IReadOnlyList<SafetyOption>>? first = null)
    {
        var sifted = SiftedOf(from, DistinctOf(OnGrid(from)));
        first?.Invoke([
            .. Options(from, [.. sifted.Take(3).Select(v => new Placed<TriedSafety>(v.Tried, default, false))], SiftStrokes, Sifting),
        ]);
        var refined = RefinedOf(from, sifted);
        var ranked = RankedOf(from, refined);
        // The contest has chosen them; they stand in the order of what is told of them.
        return
        [
            .. Ideas(Options(from, ranked, context.Bounded(ToldStrokes, 64), Telling)).Take(Told).OrderByDescending(s => s.Value.Value),
        ];
    }

    // ---- Stages ----------------------------------------------------------------------------------------------------

    private List<TriedSafety> OnGrid(Situation from)
    {
        var jobs = _strokes.Ways(from).ToList();
        return
        [
            .. context.InParallel(jobs.Count, (bench, i) => _strokes.Play(bench, from, jobs[i].Slot, jobs[i].Offset)).SelectMany(t => t),
        ];
    }

    /// <summary>Strokes that pot a ball are few of the safeties: most of the room is for those that do not.</summary>
    private List<TriedSafety> DistinctOf(List<TriedSafety> tried)
    {
        List<TriedSafety> Of(bool pots, int most) =>
            Distinctness.Distinct(
                tried.Where(t => t.Played.Ruling.Points > 0 == pots).OrderByDescending(t => t.Value),
                IsSame,
                context.Bounded(most, 8)
            );
        return [.. Of(false, Sifted), .. Of(true, Sifted / 4)];
    }

    /// <summary>A safety with its mean over the errors that choose.</summary>
    private sealed record Valued(TriedSafety Tried, double Value);

    private List<Valued> SiftedOf(Situation from, List<TriedSafety> tried) =>
        [
            .. context
                .InParallel(tried.Count, (bench, i) => new Valued(tried[i], Mean(bench, from, tried[i], Sifting, SiftStrokes)))
                .OrderByDescending(v => v.Value),
        ];

    private List<TriedSafety> RefinedOf(Situation from, List<Valued> sifted)
    {
        List<TriedSafety> seeds =
        [
            .. sifted.Where(v => v.Tried.Played.Ruling.Points == 0).Take(context.Bounded(Refined, 2)).Select(v => v.Tried),
            .. sifted.Where(v => v.Tried.Played.Ruling.Points > 0).Take(Refined / 4).Select(v => v.Tried),
        ];
        var refined = context.InParallel(seeds.Count, (bench, i) => Refine(bench, from, seeds[i]));
        return Distinctness.Distinct(refined.OrderByDescending(v => v.Value).Select(v => v.Tried), IsSame);
    }

    /// <summary>Height, side, pace and how full the ball is struck.</summary>
    private Valued Refine(Bench bench, Situation from, TriedSafety seed)
    {
        const double widths = 0.06;
        var away = from.IsTouching(from.Layout.Balls[seed.Slot]);
        var beside = SafetyStrokes.DegreesFor(from, seed.Slot, widths);
        return Refinement.Better<Valued>(
            new(seed, Mean(bench, from, seed, Refining, RefineStrokes)),
            [new(Speed: 0.11), new(AimDegrees: beside), new(Height: 0.4), new(Side: 0.4)],
            halvings: 2,
            (now, turn) =>
                turn.Of(now.Tried.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is not { } stroke
                || (away && turn.AimDegrees != 0)
                || _strokes.Try(bench, from, seed.Slot, now.Tried.Offset + widths * turn.AimDegrees / beside, stroke) is not { } tried
                    ? null
                    : new(tried, Mean(bench, from, tried, Refining, RefineStrokes)),
            (a, b) => a.Value > b.Value
        );
    }

    private List<Placed<TriedSafety>> RankedOf(Situation from, List<TriedSafety> tried)
    {
        var scatters = tried.ToDictionary(t => t, t => new Bench(context).ScatterOf(from.Layout, t.Stroke));
        return Contest.Run(context, tried, Ranking, (bench, t, i) => ValueOf(bench, from, t, scatters[t].Error(Placing.At(i))));
    }

    private double Mean(Bench bench, Situation from, TriedSafety tried, ErrorStream stream, int strokes)
    {
        var scatter = bench.ScatterOf(from.Layout, tried.Stroke);
        return stream.Set(strokes).Average(luck => ValueOf(bench, from, tried, scatter.Error(luck)));
    }

    private double ValueOf(Bench bench, Situation from, TriedSafety tried, in StrokeError error)
    {
        var played = bench.Play(from, tried.Stroke, error, from.Layout.Balls[tried.Slot].Ball);
        return SafetyStrokes.ValueOf(played, judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout)));
    }

    // ---- Told --------------------------------------------------------------------------------------------------------

    private List<SafetyOption> Options(Situation from, List<Placed<TriedSafety>> ranked, int strokes, ErrorStream stream)
    {
        var options = context.InParallel(ranked.Count, (bench, i) => Tell(bench, from, ranked[i], strokes, stream));
        return [.. options.Where(IsSafety)];
    }

    /// <summary>A pot that goes in nearly always is a pot; one whose miss leaves one is no shot to nothing.</summary>
    private static bool IsSafety(SafetyOption s) =>
        s.Odds.Pots.Value <= 0.15
        || (s.Odds.Pots.Value <= 0.9 && s.Odds.PotLeft.Value <= 0.3 * (1 - s.Odds.Pots.Value) && s.Leaves.Mean.Value <= NothingMuch);

    private const double NothingMuch = 2;

    /// <summary>What a safety came to, stroke by stroke.</summary>
    private sealed class Tally
    {
        public readonly Sums Snookers = new(),
            PotsLeft = new(),
            Fouls = new(),
            Pots = new(),
            Baulk = new(),
            Tight = new(),
            Worth = new(),
            Left = new(),
            Value = new(),
            Win = new();
        public readonly List<double> Worths = [];
        public readonly List<Vec2> Whites = [],
            Balls = [];

        public SafetyOdds Odds => new(Snookers.Share, PotsLeft.Share, Fouls.Share, Pots.Share, Baulk.Share, Tight.Share);

        /// <summary>Mean of the worst tenth, its error by their own scatter.</summary>
        public Estimate WorstTenth
        {
            get
            {
                Worths.Sort();
                var tenth = Worths.TakeLast(Math.Max(1, Worths.Count / 10)).ToList();
                if (Worths.Count == 0)
                    return default;
                var mean = tenth.Average();
                return new(mean, Math.Sqrt(tenth.Sum(w => (w - mean) * (w - mean))) / tenth.Count, Worths.Count);
            }
        }
    }

    private SafetyOption Tell(Bench bench, Situation from, Placed<TriedSafety> placed, int strokes, ErrorStream stream)
    {
        var tried = placed.Entrant;
        var reach = Reach.Of(from.Layout, tried.Stroke, context.Player);
        var scatter = bench.ScatterOf(from.Layout, tried.Stroke);
        var ball = from.Layout.Balls[tried.Slot].Ball;
        var tally = new Tally();
        for (var i = 0; i < strokes; i++)
            Count(
                tally,
                i,
                bench,
                bench.Play(from, tried.Stroke, scatter.Error(stream.At(i)), ball),
                tried.Slot,
                isTold: stream == Telling
            );

        bench.Play(from, tried.Stroke, default, ball);
        var paths = ShotPath.Points(bench.Record, from.Layout.Balls.Count, ShotPath.Drawn);
        var isAway = from.IsTouching(from.Layout.Balls[tried.Slot]);
        var aim = new SafetyAim(
            ball,
            isAway ? 0 : 1 - Math.Abs(tried.Offset),
            tried.Offset > 0,
            LeaveJudge.SeenOf(from, tried.Slot).Share,
            isAway,
            tried.Stroke,
            reach
        );
        var ballToCushion = Cushions.Clearance(
            bench.Simulator.IsOnTable(tried.Slot) ? bench.Simulator.At(tried.Slot) : new(Length / 2, Width / 2)
        );
        var odds = tally.Odds;
        return new(
            IdeaOf(aim, odds, tried.Route, ballToCushion),
            aim,
            tried.Route,
            odds,
            new(tally.Worth.For(tally.Left), tally.WorstTenth, tried.Leave, tried.Played.Leaves),
            tally.Value.Mean,
            tally.Win.Share,
            placed.IsLevel,
            new(paths[0], paths[tried.Slot], tally.Whites, tally.Balls)
        );
    }

    private void Count(Tally tally, int i, Bench bench, Played played, int slot, bool isTold)
    {
        if (bench.Simulator.IsOnTable(0))
            tally.Whites.Add(bench.Simulator.At(0));
        if (bench.Simulator.IsOnTable(slot))
            tally.Balls.Add(bench.Simulator.At(slot));
        var lines = bench.LinesOf(played.Leaves.Layout);
        var leave = judge.Of(played.Leaves, lines);
        var isLeft = played.Ruling.Points == 0;
        tally.Value.Add(i, SafetyStrokes.ValueOf(played, leave));
        tally.Win.Add(i, win.After(played, leave.Best.Chance, leave.Foul));
        tally.Fouls.Add(i, played.Ruling.IsFoul);
        tally.Pots.Add(i, !isLeft);
        tally.Left.Add(i, isLeft);
        tally.Worth.Add(i, isLeft ? leave.Worth : 0);
        tally.Snookers.Add(i, isLeft && leave.Sight.IsSnookered && !leave.Lie.IsInHand);
        tally.PotsLeft.Add(i, isLeft && (isTold ? judge.LeavesPot(played.Leaves, lines, leave) : leave.LeavesPot));
        tally.Tight.Add(i, isLeft && leave.Lie.IsTight);
        tally.Baulk.Add(i, isLeft && played.Leaves.Layout.White.X < BaulkLineX);
        if (isLeft)
            tally.Worths.Add(leave.Worth);
    }

    /// <summary>What it sets out to do, told from what comes of it.</summary>
    private static SafetyIdea IdeaOf(SafetyAim aim, in SafetyOdds odds, Route route, double ballToCushion) =>
        odds.Pots.Value > 0.15 ? SafetyIdea.ShotToNothing
        : odds.Snooker.Value > 0.4 ? SafetyIdea.Snooker
        : !aim.IsAway && aim.Fullness < 0.35 && odds.Baulk.Value > 0.4 ? SafetyIdea.ThinClip
        : route.Balls.Count > 0 ? SafetyIdea.Cannon
        : !aim.IsAway && ballToCushion < BallRadius ? SafetyIdea.BallToCushion
        : SafetyIdea.Containing;

    private static bool IsSame(TriedSafety a, TriedSafety b) =>
        a.Slot == b.Slot && a.Route.Key == b.Route.Key && Apart(a.Played.Leaves, b.Played.Leaves) <= SameZone;

    private static List<SafetyOption> Ideas(IEnumerable<SafetyOption> ranked) =>
        Distinctness.Distinct(
            ranked,
            (a, b) => a.Idea == b.Idea && a.Aim.Ball == b.Aim.Ball && Apart(a.Leaves.After, b.Leaves.After) < 2 * SameZone
        );

    private static double Apart(Situation a, Situation b) => a.Layout.White.At.DistanceTo(b.Layout.White.At);
}
