using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

/// <summary>
/// Put it there: the ways to pot a ball and do something with the white. A pipeline: strokes on a grid → played → grouped by what the
/// white does → the nearest of each refined → judged by sampling → the distinct ones ranked. The same input gives the same ways.
/// </summary>
public sealed class WaySearch
{
    // Steps of the grid, tips and pace.
    private const int Heights = 7, SideHeights = 5;
    private const double PaceStep = 0.5;

    /// <summary>From each group so many strokes are refined, each from another height or side.</summary>
    private const int SeedsOfGroup = 2;

    /// <summary>Farther off than this no stroke is worth refining, m.</summary>
    private const double FarthestSeed = 0.7;

    /// <summary>How many ways are told.</summary>
    private const int MostWays = 6;

    // So many events of the simulator may go into one way: a deterministic stand-in for time.
    private const int EventsToRefine = 12_000, EventsToSift = 4_000, EventsToJudge = 40_000;

    // But not fewer strokes than these, nor more.
    private const int FewestSamples = 60, MostToSift = 250, MostToJudge = 2000;

    /// <summary>Of what the white can do, so many kinds are followed in each stage: those that come nearest.</summary>
    private const int MostGroups = 10;

    // Ways that do the same with the white and differ by less than this in height (tips) and pace are one.
    private const double SameHeight = 0.5, SamePace = 0.9;

    private readonly Layout _layout;
    private readonly Pot _pot;
    private readonly Goal _goal;
    private readonly Stroke _stroke;
    private readonly Freedom _freedom;
    private readonly Skill _skill;
    private readonly Player _player;
    private readonly TableShape _shape;
    private readonly CancellationToken _cancel;
    private long _strokes;

    private WaySearch(Layout layout, Pot pot, Goal goal, Stroke stroke, Freedom freedom, Skill skill, Player player, TableShape shape, CancellationToken cancel) =>
        (_layout, _pot, _goal, _stroke, _freedom, _skill, _player, _shape, _cancel) = (layout, pot, goal, stroke, freedom, skill, player, shape, cancel);

    /// <summary>The distinct ways, best first. If none does what is wanted, the one that comes nearest.</summary>
    /// <param name="stroke">As it is set up: the part of the butt's elevation that is kept.</param>
    /// <param name="progress">Told after each stage, on the thread that calls.</param>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static IReadOnlyList<Way> Solve(
        Layout layout, Pot pot, Goal goal, Stroke stroke, Freedom freedom, Skill skill, Player player, TableShape shape,
        IProgress<WaySearchProgress>? progress = null, CancellationToken cancel = default) =>
        new WaySearch(layout, pot, goal, stroke, freedom, skill, player, shape, cancel).Run(progress);

    /// <summary>One stroke judged by the same measure: what is set up now, beside the ways found. Null if the pot has no aim with it.</summary>
    public static Way? Judge(Layout layout, Pot pot, Goal goal, Stroke stroke, Skill skill, Player player, TableShape shape, CancellationToken cancel = default)
    {
        var search = new WaySearch(layout, pot, goal, stroke, Freedom.Full, skill, player, shape, cancel);
        var bench = new Bench(search, pot.Part);
        return bench.Try(stroke.SideTips, stroke.HeightTips, stroke.Pace, null) is { } tried ? search.Judge(tried, EventsToJudge) : null;
    }

    private IReadOnlyList<Way> Run(IProgress<WaySearchProgress>? progress)
    {
        // First plain ball into the middle of the pocket, so that there is an answer soon; then with side; then the other parts of the pocket.
        List<(double Side, double Part, int Heights)[]> waves = [[(0, 0, Heights)]];
        if (_freedom.MostSideTips > 0) waves.Add([.. new[] { -1, -0.5, 0.5, 1 }.Select(s => (s * _freedom.MostSideTips, 0.0, SideHeights))]);
        if (_freedom.AnyPart) waves.Add([(0, -1, SideHeights), (0, 1, SideHeights)]);

        var found = new List<Way>();
        var nearest = default(Tried);
        for (var w = 0; w < waves.Count; w++)
        {
            var tried = Play(waves[w]);
            var refined = Refine(tried);
            nearest = new[] { nearest }.Concat(refined).Concat(tried).Where(t => t is { Pots: true }).MinBy(t => t!.Distance);
            found.AddRange(InParallel([.. Distinct(refined.Where(t => t.IsMet), t => t.Distance)], t => Judge(t, EventsToSift)));
            found = [.. Distinct(found, f => -f.Both)];
            if (w + 1 < waves.Count) progress?.Report(new(_strokes, (w + 1.0) / (waves.Count + 1), found));
        }
        var best = found.Take(MostWays).ToList();
        if (best.Count == 0 && nearest is not null) best.Add(Judge(nearest, EventsToJudge));
        // The ranking is by the larger sample, and only of what is told is it asked what comes next.
        best = [.. InParallel(best, way => Tell(Judge(TriedOf(way), EventsToJudge))).OrderByDescending(way => way.Both)];
        progress?.Report(new(_strokes, 1, best));
        return best;
    }

    // ---- Candidates, played ------------------------------------------------------------------------------------------

    /// <summary>A stroke that was played without error.</summary>
    private sealed record Tried(Stroke Stroke, double Part, bool Pots, bool IsMet, double Distance, Route Route, double Follow);

    private List<Tried> Play((double Side, double Part, int Heights)[] wave)
    {
        var columns = wave.SelectMany(c => Enumerable.Range(0, c.Heights).Select(i => (c.Side, c.Part,
            Height: _freedom.LowestTips + (_freedom.HighestTips - _freedom.LowestTips) * i / (c.Heights - 1)))).Distinct().ToList();
        return [.. InParallel(columns, column =>
        {
            var bench = new Bench(this, column.Part);
            var tries = new List<Tried>();
            // Side takes away from the height that there is; the lines that fall away are those of the next column.
            var most = Math.Sqrt(Math.Max(0, Tip.Limit * Tip.Limit - column.Side * column.Side)) - 0.05;
            if (Math.Abs(column.Height) > most) return tries;
            double? aim = null;
            for (var pace = _freedom.Softest; pace <= _freedom.Hardest + 1e-9; pace += PaceStep)
            {
                if (bench.Try(column.Side, column.Height, pace, aim) is not { } tried) continue;
                aim = tried.Stroke.AimDegrees;
                tries.Add(tried);
            }
            return tries;
        }).SelectMany(t => t)];
    }

    private List<Tried> Refine(List<Tried> tried)
    {
        var seeds = tried.Where(t => t.Pots && t.Distance < FarthestSeed)
            .GroupBy(t => (t.Route.Key, Class(t.Follow)))
            .OrderBy(g => g.Min(t => t.Distance)).Take(MostGroups)
            .SelectMany(g => g.OrderBy(t => t.Distance).DistinctBy(t => (t.Stroke.HeightTips, t.Stroke.SideTips, t.Part)).Take(SeedsOfGroup)).ToList();
        return InParallel(seeds, Refine);
    }

    /// <summary>Pattern search in height and pace: steps that are halved when none of them helps.</summary>
    private Tried Refine(Tried seed)
    {
        var bench = new Bench(this, seed.Part);
        var best = seed;
        var events = 0;
        for (var (tips, pace) = (0.2, 0.25); tips > 0.01;)
        {
            if (best.Distance <= 0.002 || events > EventsToRefine) break;
            var before = best;
            foreach (var (up, harder) in (ReadOnlySpan<(int, int)>)[(0, 1), (0, -1), (1, 0), (-1, 0), (1, 1), (-1, -1), (1, -1), (-1, 1)])
            {
                var height = Math.Clamp(before.Stroke.HeightTips + up * tips, _freedom.LowestTips, _freedom.HighestTips);
                var harderPace = Math.Clamp(before.Stroke.Pace + harder * pace, _freedom.Softest, _freedom.Hardest);
                if (Tip.Margin(before.Stroke.SideTips, height) < 0.05) continue;
                if (bench.Try(before.Stroke.SideTips, height, harderPace, before.Stroke.AimDegrees) is { Pots: true } next && next.Distance < best.Distance) best = next;
                events += bench.Simulator.EventCount;
            }
            if (ReferenceEquals(best, before)) (tips, pace) = (tips / 2, pace / 2);
        }
        return best;
    }

    /// <summary>What one worker needs to play strokes at one part of the pocket.</summary>
    private sealed class Bench
    {
        private readonly WaySearch _search;
        private readonly double _part;
        private readonly PotTrial _trial;

        public Bench(WaySearch search, double part)
        {
            (_search, _part) = (search, part);
            Cut = Cut.Of(search._layout, search._pot with { Part = part }, search._shape);
            _trial = new(search._layout, Cut, search._shape);
            Simulator = new(search._shape, Simulator.Coarse);
        }

        public Cut Cut { get; }
        public Simulator Simulator { get; }
        public ShotRecord Record { get; } = new();

        /// <summary>Aims and plays; null if there is no aim.</summary>
        public Tried? Try(double side, double height, double pace, double? near)
        {
            _search._cancel.ThrowIfCancellationRequested();
            var stroke = _search._stroke with { AimDegrees = Cut.AimDegrees, SideTips = side, HeightTips = height, Pace = pace };
            stroke = stroke with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, Reach.ElevationFor(_search._layout, stroke)) };
            if (!Cut.CanBeAimed || PotAim.Find(_trial, Cut, stroke, near) is not { } aim) return null;
            stroke = stroke with { AimDegrees = aim };
            Play(stroke, default);
            var (layout, goal) = (_search._layout, _search._goal);
            var pots = Simulator.PocketOf(Cut.Pot.Slot) == Cut.Pocket && Simulator.PocketOf(0) is null;
            var follow = Arrival.Of(Record, stroke.ToStrike(), _search._shape)?.Follow ?? 0;
            return new(stroke, _part, pots, pots && goal.IsMet(Record, Simulator, layout), goal.Distance(Record, Simulator, layout),
                Route.Of(Record, goal.Meant), follow);
        }

        public void Play(in Stroke stroke, in StrokeError error)
        {
            Interlocked.Increment(ref _search._strokes);
            error.Play(Simulator, _search._layout, stroke, Record);
        }
    }

    // ---- Judged ------------------------------------------------------------------------------------------------------

    private Way Judge(Tried tried, int events)
    {
        var bench = new Bench(this, tried.Part);
        var stroke = tried.Stroke;
        var reach = Reach.Of(_layout, stroke, _player);
        var skill = _skill.Times(reach.ErrorFactor);
        bench.Play(stroke, default);
        var samples = Math.Clamp(events / Math.Max(1, bench.Simulator.EventCount), FewestSamples, events == EventsToSift ? MostToSift : MostToJudge);
        var (arrival, path) = (Arrival.Of(bench.Record, stroke.ToStrike(), _shape) ?? default, ShotPath.Points(bench.Record, _layout.Balls.Count)[0]);
        var along = AlongBall(bench.Record);
        var contact = Contacts.First(bench.Record) is { } c ? (c.X, c.Y) : (_layout.White.X, _layout.White.Y);
        var exact = OutcomeOf(bench, stroke, default);
        var (longer, shorter) = (OutcomeOf(bench, stroke, new(0, skill.PacePercent / 100, 0, 0)), OutcomeOf(bench, stroke, new(0, -skill.PacePercent / 100, 0, 0)));
        double Moves(in StrokeError error)
        {
            var off = OutcomeOf(bench, stroke, error);
            return Math.Sqrt((off.X - exact.X) * (off.X - exact.X) + (off.Y - exact.Y) * (off.Y - exact.Y));
        }
        var sensitivity = new Sensitivity(
            Math.Max(Moves(new(skill.DirectionDegrees, 0, 0, 0)), Moves(new(-skill.DirectionDegrees, 0, 0, 0))),
            Math.Max(Moves(new(0, skill.PacePercent / 100, 0, 0)), Moves(new(0, -skill.PacePercent / 100, 0, 0))),
            Math.Max(Moves(new(0, 0, 0, skill.TipError)), Moves(new(0, 0, 0, -skill.TipError))),
            Math.Max(Moves(new(0, 0, skill.TipError, 0)), Moves(new(0, 0, -skill.TipError, 0))));
        var spread = Spread.Sample(_layout, stroke, bench.Cut, skill, _shape, samples, workers: 1, goal: _goal, outlines: false, cancel: _cancel);
        Interlocked.Add(ref _strokes, samples);
        return new(stroke, tried.Part, arrival, tried.Route, along, reach, spread.Pot, spread.Both, spread.InOff, spread.Kiss, samples,
            tried.IsMet, tried.Distance, exact, longer, shorter, sensitivity, path, contact);
    }

    private Outcome OutcomeOf(Bench bench, in Stroke stroke, in StrokeError error)
    {
        bench.Play(stroke, error);
        return new(bench.Simulator.X(0), bench.Simulator.Y(0), bench.Simulator.PocketOf(0) is not null, _goal.IsMet(bench.Record, bench.Simulator, _layout), null);
    }

    /// <summary>With what is on next, if it goes as meant, and if it runs long or short.</summary>
    private Way Tell(Way way)
    {
        var bench = new Bench(this, way.Part);
        Outcome WithNext(Outcome outcome, in StrokeError error)
        {
            bench.Play(way.Stroke, error);
            var after = bench.Simulator;
            if (after.PocketOf(0) is not null) return outcome;
            List<PlacedBall> rest = [];
            for (var i = 0; i < after.Count; i++)
                if (after.PocketOf(i) is null && i != _pot.Slot) rest.Add(new(after.BallIn(i), after.X(i), after.Y(i)));
            if (rest.Count < 2) return outcome;
            var next = TableReading.Likeliest(Layout.OfRest(rest), new(0, 0, 0, 4, 0), _skill, _player, _shape, _cancel);
            return outcome with { Next = next };
        }
        var pace = _skill.Times(way.Reach.ErrorFactor).PacePercent / 100;
        return way with { Exact = WithNext(way.Exact, default), Long = WithNext(way.Long, new(0, pace, 0, 0)), Short = WithNext(way.Short, new(0, -pace, 0, 0)) };
    }

    /// <summary>The ball on whose line (within a ball's width) the white runs in at the end, ahead of it or behind.</summary>
    private int AlongBall(ShotRecord record)
    {
        const double longEnough = 0.25;
        var last = record.Pieces.LastOrDefault(p => p.Ball == 0);
        if (last == default) return -1;
        var (x, y) = last.At(last.End);
        var length = Math.Sqrt((x - last.X) * (x - last.X) + (y - last.Y) * (y - last.Y));
        if (length < longEnough) return -1;
        var (dx, dy) = ((x - last.X) / length, (y - last.Y) / length);
        var (best, slot) = (2 * BallRadius, -1);
        for (var i = 1; i < _layout.Balls.Count; i++)
        {
            if (i == _pot.Slot || i == _goal.Meant) continue;
            var (px, py) = (_layout.Balls[i].X - x, _layout.Balls[i].Y - y);
            var across = Math.Abs(px * dy - py * dx);
            if (across < best && Math.Sqrt(px * px + py * py) < 1.2) (best, slot) = (across, i);
        }
        return slot;
    }

    // ---- Ranked ------------------------------------------------------------------------------------------------------

    /// <summary>Screw, stun or follow: by the spin that the white arrives with.</summary>
    private static int Class(double follow) => follow < -0.1 ? -1 : follow > 0.3 ? 1 : 0;

    private static Tried TriedOf(Way way) => new(way.Stroke, way.Part, true, way.IsMet, way.Off, way.Route, way.Arrival.Follow);

    private static IEnumerable<Tried> Distinct(IEnumerable<Tried> tries, Func<Tried, double> cost) =>
        Distinct(tries, cost, t => (t.Route.Key, t.Stroke, t.Part), sameSide: true);

    private static IEnumerable<Way> Distinct(IEnumerable<Way> ways, Func<Way, double> cost) =>
        Distinct(ways, cost, w => (w.Route.Key, w.Stroke, w.Part), sameSide: false);

    /// <summary>The best of those that do the same with nearly the same stroke.</summary>
    private static List<T> Distinct<T>(IEnumerable<T> all, Func<T, double> cost, Func<T, (string Route, Stroke Stroke, double Part)> of, bool sameSide)
    {
        var kept = new List<T>();
        foreach (var one in all.OrderBy(cost))
        {
            var (route, stroke, part) = of(one);
            var isNew = kept.All(k =>
            {
                var (otherRoute, other, otherPart) = of(k);
                return route != otherRoute || Math.Abs(stroke.HeightTips - other.HeightTips) > SameHeight || Math.Abs(stroke.Pace - other.Pace) > SamePace
                    || (sameSide && (stroke.SideTips != other.SideTips || part != otherPart));
            });
            if (isNew) kept.Add(one);
        }
        return kept;
    }

    private List<TOut> InParallel<TIn, TOut>(IReadOnlyList<TIn> items, Func<TIn, TOut> job)
    {
        var results = new TOut[items.Count];
        Parallel.For(0, items.Count, new() { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = _cancel }, i => results[i] = job(items[i]));
        return [.. results];
    }
}
