using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Advice.Position;

/// <summary>
/// Put it there: the ways to pot a ball and do something with the white. A pipeline: strokes on a grid → played → grouped by what the
/// white does → the nearest of each refined → judged by sampling → the distinct ones ranked. The same input gives the same ways.
/// </summary>
public sealed class WaySearch
{
    // The grid: so many heights, and each speed so many times as fast as the one before.
    private const int Heights = 7,
        SideHeights = 5;
    private const double SpeedRatio = 1.17;

    /// <summary>From each group so many strokes are refined, each from another height or side.</summary>
    private const int SeedsOfGroup = 2;

    /// <summary>Farther off than this no stroke is worth refining, m.</summary>
    private const double FarthestSeed = 0.7;

    /// <summary>How many ways are told.</summary>
    private const int MostWays = 6;

    // So many events of the simulator may go into one way: a deterministic stand-in for time.
    private const int EventsToRefine = 12_000,
        EventsToSift = 3_000,
        EventsToRank = 16_000,
        EventsToTell = 40_000;

    // But not fewer strokes than these, nor more than these in the first sifting.
    private const int FewestSamples = 64,
        MostToSift = 128,
        MostToRank = 512;

    private static readonly ErrorStream Sifting = ErrorStream.Named("ways: sift"),
        Ranking = ErrorStream.Named("ways: rank"),
        Telling = ErrorStream.Named("ways: tell");

    /// <summary>Of what the white can do, so many kinds are followed in each stage: those that come nearest.</summary>
    private const int MostGroups = 10;

    // Ways that do the same with the white and differ by less than this in height (tips) and are less than so many times as fast are one.
    private const double SameHeight = 0.5,
        SameSpeed = 1.33,
        SameSide = 0.3;

    private readonly WayQuestion _question;
    private readonly Freedom _freedom;
    private readonly Workers _workers;
    private long _strokes;

    private WaySearch(WayQuestion question, Freedom freedom, Workers workers) =>
        (_question, _freedom, _workers) = (question, freedom, workers);

    /// <summary>The distinct ways, best first. If none does what is wanted, the one that comes nearest.</summary>
    /// <param name="progress">Told after each stage, on the thread that calls.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<Way> Solve(
        WayQuestion question,
        Freedom freedom,
        Workers workers,
        IProgress<WaySearchProgress>? progress = null
    ) => new WaySearch(question, freedom, workers).Run(progress);

    /// <summary>
    /// The stroke as it is set up, judged by the same measure, to stand beside the ways found. Null if the pot has no aim with it.
    /// </summary>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static Way? Judge(WayQuestion question, Workers workers)
    {
        var search = new WaySearch(question, Freedom.Full, workers);
        var (stroke, bench) = (question.Stroke, new Bench(search, question.Pot.Part));
        return bench.Try(stroke.SideTips, stroke.HeightTips, stroke.Pace, null, PotAim.Accuracy) is { } tried ? search.Told(tried) : null;
    }

    private IReadOnlyList<Way> Run(IProgress<WaySearchProgress>? progress)
    {
        // First plain ball into the middle of the pocket, so that there is an answer soon; then with side; then the other parts of the
        // pocket.
        List<(double Side, double Part, int Heights)[]> waves =
        [
            [(0, 0, Heights)],
        ];
        if (_freedom.MostSideTips > 0)
            waves.Add([.. new[] { -1, -0.5, 0.5, 1 }.Select(s => (s * _freedom.MostSideTips, 0.0, SideHeights))]);
        if (_freedom.AnyPart)
            waves.Add([(0, -1, SideHeights), (0, 1, SideHeights)]);

        var found = new List<Way>();
        using var heart = new Heartbeat<WaySearchProgress>(progress, share => new(Interlocked.Read(ref _strokes), share, [.. found]));
        var nearest = default(Tried);
        for (var w = 0; w < waves.Count; w++)
        {
            var tried = Play(waves[w]);
            var refined = Refine(tried);
            nearest = new[] { nearest }.Concat(refined).Concat(tried).Where(t => t is { Pots: true }).MinBy(t => t!.Distance);
            found.AddRange(InParallel([.. Distinct(refined.Where(t => t.IsMet), t => t.Distance)], Sifted));
            found = [.. Distinct(found, f => -f.Odds.Both.Value)];
            if (w + 1 < waves.Count)
                heart.Tell((w + 1.0) / (waves.Count + 1));
        }
        var ranked = InParallel([.. found.Take(MostWays)], way => Ranked(TriedOf(way))).OrderByDescending(way => way.Odds.Both.Value);
        List<Tried> best = [.. ranked.Select(TriedOf)];
        if (best.Count == 0 && nearest is not null)
            best.Add(nearest);
        // What has chosen them does not report on them, and only of what is told is it asked what comes next.
        List<Way> told = [.. InParallel(best, tried => WithNext(Told(tried))).OrderByDescending(way => way.Odds.Both.Value)];
        found = told;
        heart.Tell(1);
        return told;
    }

    // ---- Candidates, played ------------------------------------------------------------------------------------------

    /// <summary>A stroke that was played without error.</summary>
    private sealed record Tried(Stroke Stroke, double Part, bool Pots, bool IsMet, double Distance, Route Route, double Follow);

    private List<Tried> Play((double Side, double Part, int Heights)[] wave)
    {
        var columns = wave.SelectMany(c =>
                Enumerable
                    .Range(0, c.Heights)
                    .Select(i =>
                        (c.Side, c.Part, Height: _freedom.LowestTips + (_freedom.HighestTips - _freedom.LowestTips) * i / (c.Heights - 1))
                    )
            )
            .Distinct()
            .ToList();
        return
        [
            .. InParallel(
                    columns,
                    column =>
                    {
                        var bench = new Bench(this, column.Part);
                        var tries = new List<Tried>();
                        // Side takes away from the height that there is; the lines that fall away are those of the next column.
                        var most = Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - column.Side * column.Side)) - 0.05;
                        if (Math.Abs(column.Height) > most)
                            return tries;
                        double? aim = null;
                        foreach (var pace in Pace.Ladder(Pace.CueSpeed(_freedom.Softest), Pace.CueSpeed(_freedom.Hardest), SpeedRatio))
                        {
                            if (bench.Try(column.Side, column.Height, pace, aim) is not { } tried)
                                continue;
                            aim = tried.Stroke.AimDegrees;
                            tries.Add(tried);
                        }
                        return tries;
                    }
                )
                .SelectMany(t => t),
        ];
    }

    private List<Tried> Refine(List<Tried> tried)
    {
        var seeds = tried
            .Where(t => t.Pots && t.Distance < FarthestSeed)
            .GroupBy(t => (t.Route.Key, Class(t.Follow)))
            .OrderBy(g => g.Min(t => t.Distance))
            .Take(MostGroups)
            .SelectMany(g =>
                g.OrderBy(t => t.Distance).DistinctBy(t => (t.Stroke.HeightTips, t.Stroke.SideTips, t.Part)).Take(SeedsOfGroup)
            )
            .ToList();
        return InParallel(seeds, Refine);
    }

    /// <summary>Small changes of height and pace; of side and of the part of the pocket too where the seed uses them.</summary>
    private Tried Refine(Tried seed)
    {
        const double near = 0.002;
        List<Turn> turns = [new(Speed: 0.08), new(Height: 0.2), new(Height: 0.2, Speed: 0.08), new(Height: 0.2, Speed: -0.08)];
        if (seed.Stroke.SideTips != 0)
            turns.Add(new(Side: 0.2));
        if (seed.Part != 0)
            turns.Add(new(Part: 0.25));
        var (bench, events, closest) = (new Bench(this, seed.Part), 0, seed.Distance);
        return Refinement.Better(
            seed,
            turns,
            halvings: 4,
            (now, turn) =>
            {
                if (turn.Of(now.Stroke, _freedom.Softest, _freedom.Hardest) is not { } stroke || !Allows(stroke, now.Part + turn.Part))
                    return null;
                if (bench.Part != now.Part + turn.Part)
                    bench = new(this, now.Part + turn.Part);
                var next = bench.Try(stroke.SideTips, stroke.HeightTips, stroke.Pace, turn.Part == 0 ? now.Stroke.AimDegrees : null);
                events += bench.Simulator.EventCount;
                return next is { Pots: true } ? next : null;
            },
            (a, b) =>
            {
                closest = Math.Min(closest, a.Distance);
                return a.Distance < b.Distance;
            },
            () => closest <= near || events > EventsToRefine
        );
    }

    private bool Allows(in Stroke stroke, double part) =>
        stroke.HeightTips >= _freedom.LowestTips
        && stroke.HeightTips <= _freedom.HighestTips
        && Math.Abs(stroke.SideTips) <= _freedom.MostSideTips
        && Math.Abs(part) <= 1;

    /// <summary>What one worker needs to play strokes at one part of the pocket.</summary>
    private sealed class Bench
    {
        private readonly WaySearch _search;
        private readonly PotTrial _trial;

        public Bench(WaySearch search, double part)
        {
            (_search, Part) = (search, part);
            Cut = Cut.Of(search._question.Layout, search._question.Pot with { Part = part }, search._question.Shape);
            _trial = new(search._question.Layout, Cut, search._question.Shape);
            Simulator = new(search._question.Shape, Simulator.Coarse);
        }

        public double Part { get; }
        public Cut Cut { get; }
        public Simulator Simulator { get; }
        public ShotRecord Record { get; } = new();

        /// <summary>Aims and plays; null if there is no aim.</summary>
        public Tried? Try(double side, double height, double pace, double? near, double accuracy = PotAim.Roughly)
        {
            _search._workers.Cancel.ThrowIfCancellationRequested();
            var stroke = _search._question.Stroke with { AimDegrees = Cut.AimDegrees, SideTips = side, HeightTips = height, Pace = pace };
            stroke = stroke with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, Reach.LeastFor(_search._question.Layout, stroke)) };
            if (!Cut.CanBeAimed || PotAim.Find(_trial, Cut, stroke, near, accuracy) is not { } aim)
                return null;
            stroke = stroke with { AimDegrees = aim };
            Play(stroke, default);
            var (layout, goal) = (_search._question.Layout, _search._question.Goal);
            var pots = Simulator.PocketOf(Cut.Pot.Slot) == Cut.Pocket && Simulator.IsOnTable(0);
            var follow = Arrival.Of(Record, stroke.ToStrike(), _search._question.Shape)?.Follow ?? 0;
            return new(
                stroke,
                Part,
                pots,
                pots && goal.IsMet(Record, Simulator, layout),
                goal.Distance(Record, Simulator, layout),
                Route.Of(Record, goal.Meant),
                follow
            );
        }

        public void Play(in Stroke stroke, in StrokeError error)
        {
            Interlocked.Increment(ref _search._strokes);
            error.Play(Simulator, _search._question.Layout, stroke, Record);
        }
    }

    // ---- Judged ------------------------------------------------------------------------------------------------------

    private Way Sifted(Tried tried) => Judge(tried, events => SpreadEffort.Of(Math.Min(MostToSift, EventsToSift / events)), Sifting);

    private Way Ranked(Tried tried) => Judge(tried, events => SpreadEffort.Of(Math.Min(MostToRank, EventsToRank / events)), Ranking);

    private Way Told(Tried tried) =>
        Judge(tried, events => new SpreadEffort(256, Math.Clamp(EventsToTell / events, 256, 2048), 0.01), Telling);

    /// <param name="effort">By how many events of the simulator one stroke takes.</param>
    private Way Judge(Tried tried, Func<int, SpreadEffort> effort, ErrorStream stream)
    {
        var bench = new Bench(this, tried.Part);
        var stroke = tried.Stroke;
        var reach = Reach.Of(_question.Layout, stroke, _question.Player);
        var skill = _question.Player.Skill.Times(reach.ErrorFactor);
        var scatter = Scatter.Of(_question.Layout, stroke, skill, bench.Simulator, bench.Record);
        bench.Play(stroke, default);
        var samples = effort(Math.Max(1, bench.Simulator.EventCount));
        samples = samples with { Fewest = Math.Max(FewestSamples, samples.Fewest), Most = Math.Max(FewestSamples, samples.Most) };
        var arrival = Arrival.Of(bench.Record, stroke.ToStrike(), _question.Shape) ?? default;
        var run = new WayRun(arrival, tried.Route, AlongBall(bench.Record), reach);
        var contact = Contacts.First(bench.Record)?.At ?? _question.Layout.White.At;
        var drawing = new WayDrawing(ShotPath.Points(bench.Record, _question.Layout.Balls.Count)[0], contact);
        // Ways are judged side by side; one of them is played by one worker.
        var spread = Spread.Sample(
            new(_question.Layout, stroke, bench.Cut, skill, _question.Shape, _question.Goal),
            Workers.Single(_workers.Cancel),
            samples,
            stream,
            outlines: false
        );
        Interlocked.Add(ref _strokes, spread.Samples);
        var odds = new WayOdds(spread.Odds.Pot, spread.Odds.Both, spread.Odds.InOff, spread.Odds.Kiss, spread.Odds.Miscue);
        return new(stroke, tried.Part, odds, run, EndsOf(bench, tried, scatter), drawing);
    }

    private WayEnds EndsOf(Bench bench, Tried tried, Scatter scatter)
    {
        var (stroke, pace) = (tried.Stroke, scatter.Pace);
        var exact = OutcomeOf(bench, stroke, default);
        var (longer, shorter) = (OutcomeOf(bench, stroke, new(0, pace, 0, 0)), OutcomeOf(bench, stroke, new(0, -pace, 0, 0)));
        double Moves(in StrokeError one, in StrokeError other) =>
            Math.Max(
                OutcomeOf(bench, stroke, one).White.DistanceTo(exact.White),
                OutcomeOf(bench, stroke, other).White.DistanceTo(exact.White)
            );
        var sensitivity = new Sensitivity(
            Direction: Moves(new(scatter.TurnDegrees, 0, 0, 0), new(-scatter.TurnDegrees, 0, 0, 0)),
            Pace: Math.Max(longer.White.DistanceTo(exact.White), shorter.White.DistanceTo(exact.White)),
            Height: Moves(new(0, 0, 0, scatter.Tip), new(0, 0, 0, -scatter.Tip)),
            Side: Moves(new(0, 0, scatter.Tip, 0), new(0, 0, -scatter.Tip, 0))
        );
        return new(tried.IsMet, tried.Distance, exact, longer, shorter, sensitivity);
    }

    private Outcome OutcomeOf(Bench bench, in Stroke stroke, in StrokeError error)
    {
        bench.Play(stroke, error);
        return new(
            bench.Simulator.At(0),
            !bench.Simulator.IsOnTable(0),
            _question.Goal.IsMet(bench.Record, bench.Simulator, _question.Layout),
            null
        );
    }

    /// <summary>With what is on next, if it goes as meant, and if it runs long or short.</summary>
    private Way WithNext(Way way)
    {
        var bench = new Bench(this, way.Part);
        Outcome Next(Outcome outcome, in StrokeError error)
        {
            bench.Play(way.Stroke, error);
            var after = bench.Simulator;
            if (!after.IsOnTable(0))
                return outcome;
            var rest = after.Left(except: _question.Pot.Slot);
            if (rest.Count < 2)
                return outcome;
            var next = TableReading.Likeliest(
                Layout.OfRest(rest),
                new(0, 0, 0, Pace.Medium, _question.Player.NaturalElevation),
                _question.Player,
                _question.Shape,
                _workers.Cancel
            );
            return outcome with { Next = next };
        }
        var skill = _question.Player.Skill.Times(way.Run.Reach.ErrorFactor);
        var (ends, pace) = (way.Ends, Scatter.Of(_question.Layout, way.Stroke, skill, bench.Simulator, bench.Record).Pace);
        return way with
        {
            // One worker of its own: this one is already at work.
            Opens = PackOpening.Of(_question.Layout, way.Stroke, skill, _question.Shape, Workers.Single(_workers.Cancel)),
            Ends = ends with
            {
                Exact = Next(ends.Exact, default),
                Long = Next(ends.Long, new(0, pace, 0, 0)),
                Short = Next(ends.Short, new(0, -pace, 0, 0)),
            },
        };
    }

    /// <summary>The ball on whose line (within a ball's width) the white runs in at the end, ahead of it or behind.</summary>
    private int AlongBall(ShotRecord record)
    {
        const double longEnough = 0.25;
        var last = record.Pieces.LastOrDefault(p => p.Ball == 0);
        if (last == default)
            return -1;
        var end = last.To;
        if (last.From.DistanceTo(end) < longEnough)
            return -1;
        var along = (end - last.From).Unit;
        var (best, slot) = (2 * BallRadius, -1);
        for (var i = 1; i < _question.Layout.Balls.Count; i++)
        {
            if (i == _question.Pot.Slot || i == _question.Goal.Meant)
                continue;
            var ball = _question.Layout.Balls[i].At - end;
            var across = Math.Abs(ball.Cross(along));
            if (across < best && ball.Length < 1.2)
                (best, slot) = (across, i);
        }
        return slot;
    }

    // ---- Ranked ------------------------------------------------------------------------------------------------------

    /// <summary>Screw, stun or follow: by the spin that the white arrives with.</summary>
    private static int Class(double follow) =>
        follow < -0.1 ? -1
        : follow > 0.3 ? 1
        : 0;

    private static Tried TriedOf(Way way) =>
        new(way.Stroke, way.Part, true, way.Ends.IsMet, way.Ends.Off, way.Run.Route, way.Run.Arrival.Follow);

    private static IEnumerable<Tried> Distinct(IEnumerable<Tried> tries, Func<Tried, double> cost) =>
        Distinct(tries, cost, t => (t.Route.Key, t.Stroke, t.Part), sameSide: true);

    private static IEnumerable<Way> Distinct(IEnumerable<Way> ways, Func<Way, double> cost) =>
        Distinct(ways, cost, w => (w.Run.Route.Key, w.Stroke, w.Part), sameSide: false);

    /// <summary>The best of those that do the same with nearly the same stroke.</summary>
    private static List<T> Distinct<T>(
        IEnumerable<T> all,
        Func<T, double> cost,
        Func<T, (string Route, Stroke Stroke, double Part)> of,
        bool sameSide
    )
    {
        return Distinctness.Distinct(
            all.OrderBy(cost),
            (kept, one) =>
            {
                var ((route, stroke, part), (otherRoute, other, otherPart)) = (of(one), of(kept));
                return route == otherRoute
                    && Math.Abs(stroke.HeightTips - other.HeightTips) <= SameHeight
                    && Pace.Ratio(stroke.Pace, other.Pace) <= SameSpeed
                    && (!sameSide || (Math.Abs(stroke.SideTips - other.SideTips) <= SameSide && Math.Abs(part - otherPart) <= SameSide));
            }
        );
    }

    private List<TOut> InParallel<TIn, TOut>(IReadOnlyList<TIn> items, Func<TIn, TOut> job) =>
        _workers.InParallel(items.Count, i => job(items[i]));
}
