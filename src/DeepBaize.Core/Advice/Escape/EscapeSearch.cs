using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>
/// Ways to a ball on that do not go straight. A pipeline: all aims at several paces, heights and sides, played to the first contact →
/// windows of aim that hit the same ball off the same cushions → the widest of each sifted with errors → the distinct ones bettered by
/// small changes → ranked against one another → told by strokes that had no part in the choice. See docs/safety.md.
/// </summary>
public sealed class EscapeSearch
{
    private const double Step = 0.25;
    private const int MostCushions = 4,
        Sifted = 36,
        SiftStrokes = 32,
        RefineStrokes = 48,
        Told = 8,
        ToldStrokes = 256;
    private static readonly ContestEffort Ranking = new(64, 256, 0.1);

    private static readonly ErrorStream Sifting = ErrorStream.Named("escapes: sift"),
        Refining = ErrorStream.Named("escapes: refine"),
        Placing = ErrorStream.Named("escapes: rank"),
        Telling = ErrorStream.Named("escapes: tell");

    private static readonly double[] Paces = [.. Pace.Ladder(0.76, 2.8, 1.375)];

    /// <summary>Plain ball first; then low, high, and side either way.</summary>
    private static readonly (double Height, double Side, double Elevation)[] Columns =
    [
        (0, 0, 0),
        (-0.8, 0, 0),
        (0.8, 0, 0),
        (0, 0.8, 0),
        (0, -0.8, 0),
        (-0.5, 0.9, 25),
        (-0.5, -0.9, 25),
    ];

    private readonly SearchContext _context;
    private readonly LeaveJudge _judge;
    private readonly WinChance _win;
    private readonly Situation _from;

    private EscapeSearch(SearchContext context, Situation from, LeaveJudge judge, WinChance win) =>
        (_context, _from, _judge, _win) = (context, from, judge, win);

    /// <summary>The ways out, best first.</summary>
    /// <exception cref="InputException">The player is not snookered, or nothing is on.</exception>
    public static IReadOnlyList<EscapeOption> Solve(
        Situation from,
        Player player,
        Player rival,
        TableShape shape,
        FairGate? gate = null,
        IProgress<EscapeProgress>? progress = null,
        CancellationToken cancel = default
    )
    {
        Check(from);
        var context = new SearchContext(player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel);
        context.Bound(from.Layout);
        IReadOnlyList<EscapeOption> found = [];
        using var heart = new Heartbeat<EscapeProgress>(progress, share => new(context.Examined, share, found));
        var escapes = Find(
            context,
            from,
            new(rival, shape),
            new(from.Frame, player, rival),
            (share, best) =>
            {
                found = best;
                heart.Tell(share);
            }
        );
        found = escapes;
        heart.Tell(1);
        return escapes;
    }

    /// <summary>As a part of another search.</summary>
    /// <param name="tell">The share of the work done, below 1, and the best so far.</param>
    public static IReadOnlyList<EscapeOption> Find(
        SearchContext context,
        Situation from,
        LeaveJudge judge,
        WinChance win,
        Action<double, IReadOnlyList<EscapeOption>> tell
    ) => new EscapeSearch(context, from, judge, win).Run(tell);

    /// <exception cref="InputException">The player is not snookered, or nothing is on.</exception>
    public static void Check(Situation from, string path = "content.balls")
    {
        if (from.Frame.IsOver || !from.OnSlots().Any())
            throw new InputException(path, "There is no ball on.", "at least one ball that is on");
        if (!from.IsSnookered)
            throw new InputException(
                path,
                "The white is not snookered: a ball on can be hit straight.",
                "a snooker; else compare pots and safeties"
            );
    }

    /// <summary>A run of aims that hit the same ball off the same cushions.</summary>
    private sealed record Window(
        int Slot,
        string Key,
        IReadOnlyList<Cushion> Cushions,
        bool OffJaw,
        int Column,
        double Pace,
        double From,
        double To
    )
    {
        public double Middle => (From + To) / 2;
        public double Width => To - From;
    }

    private IReadOnlyList<EscapeOption> Run(Action<double, IReadOnlyList<EscapeOption>> tell)
    {
        var windows = new List<Window>();
        IReadOnlyList<EscapeOption> first = [];
        for (var column = 0; column < Columns.Length; column++)
        {
            windows.AddRange(Windows(column));
            // The first answer: plain ball.
            if (column == 0)
                first = Options(
                    [.. SiftedOf(windows, Told).Take(Told / 2).Select(v => new Placed<Aimed>(v.Aimed, default, false))],
                    SiftStrokes,
                    Sifting
                );
            tell(0.2 + 0.3 * column / Columns.Length, first);
        }
        var sifted = SiftedOf(windows, _context.Bounded(Sifted, 10));
        tell(0.6, first);
        var refined = _context.InParallel(Math.Min(_context.Bounded(Told, 3), sifted.Count), (bench, i) => Refine(bench, sifted[i]));
        tell(0.8, first);
        var distinct = Distinctness.Distinct(refined.OrderByDescending(v => v.Value), IsSame).ConvertAll(v => v.Aimed);
        var scatters = distinct.ToDictionary(a => a, a => new Bench(_context).ScatterOf(_from.Layout, a.Stroke));
        var ranked = Contest.Run(
            _context,
            distinct,
            Ranking with
            {
                Most = _context.Bounded(Ranking.Most, Ranking.First),
            },
            (bench, aimed, i) => ValueOf(bench, aimed, scatters[aimed].Error(Placing.At(i)))
        );
        return [.. Options(ranked, _context.Bounded(ToldStrokes, 64), Telling).OrderByDescending(e => e.Value.Value)];
    }

    private IEnumerable<Window> Windows(int column) =>
        _context.InParallel(Paces.Length * 4, (bench, i) => Sweep(bench, column, Paces[i / 4], 90 * (i % 4))).SelectMany(w => w);

    /// <summary>A stroke that hits a ball on.</summary>
    /// <param name="Width">Of the window it was found in, degrees.</param>
    private sealed record Aimed(Stroke Stroke, Hit Hit, double Width);

    /// <summary>With its mean over the errors that choose.</summary>
    private sealed record Valued(Aimed Aimed, double Value);

    private List<Valued> SiftedOf(List<Window> windows, int most)
    {
        var best = Best(windows, most);
        var valued = _context.InParallel(
            best.Count,
            (bench, i) =>
                Try(bench, StrokeOf(best[i].Column, best[i].Pace, best[i].Middle), best[i].Width) is { } aimed
                    ? new Valued(aimed, Mean(bench, aimed, Sifting, SiftStrokes))
                    : null
        );
        return Distinctness.Distinct(valued.OfType<Valued>().OrderByDescending(v => v.Value), IsSame);
    }

    private Aimed? Try(Bench bench, in Stroke stroke, double width) => FirstHit(bench, stroke) is { } hit ? new(stroke, hit, width) : null;

    /// <summary>Aim, height, side and pace; the same ball off the same cushions.</summary>
    private Valued Refine(Bench bench, Valued seed)
    {
        var start = seed with { Value = Mean(bench, seed.Aimed, Refining, RefineStrokes) };
        return Refinement.Better<Valued>(
            start,
            [new(AimDegrees: seed.Aimed.Width / 4), new(Speed: 0.13), new(Height: 0.3), new(Side: 0.3)],
            halvings: 2,
            (now, turn) =>
                turn.Of(now.Aimed.Stroke, SafetyStrokes.Softest, SafetyStrokes.Hardest) is { } stroke
                && Try(bench, stroke, seed.Aimed.Width) is { } aimed
                && aimed.Hit.IsAs(seed.Aimed.Hit)
                    ? new(aimed, Mean(bench, aimed, Refining, RefineStrokes))
                    : null,
            (a, b) => a.Value > b.Value
        );
    }

    private double Mean(Bench bench, Aimed aimed, ErrorStream stream, int strokes)
    {
        var scatter = bench.ScatterOf(_from.Layout, aimed.Stroke);
        return stream.Set(strokes).Average(luck => ValueOf(bench, aimed, scatter.Error(luck)));
    }

    private double ValueOf(Bench bench, Aimed aimed, in StrokeError error)
    {
        var played = bench.Play(_from, aimed.Stroke, error, NamedFor(aimed.Hit));
        return SafetyStrokes.ValueOf(played, _judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout)));
    }

    /// <summary>Only a colour after a red, or a free ball, has to be named.</summary>
    private Ball? NamedFor(Hit hit) => _from.Frame.On == BallOn.Colour || _from.Frame.FreeBall ? _from.Layout.Balls[hit.Slot].Ball : null;

    private Stroke StrokeOf(int column, double pace, double degrees)
    {
        var (height, side, elevation) = Columns[column];
        // The aim is the direction in which the white leaves; the cue points beside it, for squirt.
        var stroke = new Stroke(
            degrees - Strike.Squirt(Tip.Fraction(side), _context.Shape.Conditions).Degrees,
            side,
            height,
            pace,
            elevation
        );
        return stroke with { ElevationDegrees = Math.Max(elevation, Reach.ButtFor(_from.Layout, stroke, _context.Player)) };
    }

    /// <summary>A quarter of all directions, at one pace.</summary>
    private List<Window> Sweep(Bench bench, int column, double pace, double start)
    {
        var windows = new List<Window>();
        (int Slot, string Key)? now = null;
        var (from, last) = (0.0, 0.0);
        IReadOnlyList<Cushion> cushions = [];
        var offJaw = false;
        for (var i = 0; i <= 90 / Step; i++)
        {
            _context.Cancel.ThrowIfCancellationRequested();
            _context.Count();
            var degrees = start + i * Step;
            var hit = FirstHit(bench, StrokeOf(column, pace, degrees));
            var key = hit is null ? ((int, string)?)null : (hit.Slot, hit.Key);
            if (now is { } open && key != now)
            {
                windows.Add(new(open.Slot, open.Key, [.. cushions], offJaw, column, pace, from - Step / 2, last + Step / 2));
                now = null;
            }
            if (key is null)
                continue;
            if (now is null)
                (now, from, cushions, offJaw) = (key, degrees, hit!.Cushions, hit.OffJaw);
            last = degrees;
        }
        if (now is { } end)
            windows.Add(new(end.Slot, end.Key, [.. cushions], offJaw, column, pace, from - Step / 2, last + Step / 2));
        return windows;
    }

    /// <summary>
    /// The ball on that the white meets first, and what it meets before; null if that is no ball on, none, or after too many cushions.
    /// </summary>
    private Hit? FirstHit(Bench bench, in Stroke stroke)
    {
        var (simulator, record) = (bench.Simulator, bench.Record);
        simulator.Place(_from.Layout.AsSpan());
        simulator.Release(
            [(0, stroke.ToStrike().Launch(simulator.Conditions))],
            record,
            () => record.Events.Count > 0 && record.Events[^1].Kind is ShotEventKind.Ball or ShotEventKind.Pot
        );
        return Read(record);
    }

    /// <summary>The ball on that the white meets first, and what it meets before.</summary>
    private sealed record Hit(int Slot, IReadOnlyList<Cushion> Cushions, bool OffJaw)
    {
        public string Key => string.Join('.', Cushions) + (OffJaw ? "/jaw" : "");

        public bool IsAs(Hit other) => Slot == other.Slot && Key == other.Key;
    }

    private Hit? Read(ShotRecord record)
    {
        var cushions = new List<Cushion>();
        var offJaw = false;
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Ball)
            {
                var slot = e.Ball + e.Other;
                if (!_from.Frame.MayPlay(_from.Layout.Balls[slot].Ball) || (cushions.Count == 0 && IsStraight(slot, record)))
                    return null;
                return new(slot, cushions, offJaw);
            }
            if (e.Kind is ShotEventKind.Pot)
                return null;
            if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw)
            {
                // Rattling in one pocket's jaws is one cushion.
                var cushion = Cushions.Nearest(e.At);
                if (e.Kind == ShotEventKind.Cushion || !offJaw)
                    cushions.Add(cushion);
                offJaw |= e.Kind == ShotEventKind.Jaw;
                if (cushions.Count > MostCushions)
                    return null;
            }
        }
        return null;
    }

    /// <summary>
    /// Whether the white could have gone there in a straight line: such a hit is no way round anything, and is looked for among the
    /// safeties.
    /// </summary>
    private bool IsStraight(int slot, ShotRecord record)
    {
        var end = _from.Layout.White.At;
        foreach (var piece in record.Pieces)
            if (piece.Ball == 0)
                end = piece.To;
        var way = new Segment(_from.Layout.White.At, end);
        for (var i = 1; i < _from.Layout.Balls.Count; i++)
            if (i != slot && !_from.Layout.Balls[i].IsClearOf(way))
                return false;
        return true;
    }

    /// <summary>Of each way the windows that are widest, then the widest of all.</summary>
    private static List<Window> Best(List<Window> windows, int most) =>
        [
            .. windows
                .GroupBy(w => (w.Slot, w.Key, w.Column))
                .SelectMany(g => g.OrderByDescending(w => w.Width).Take(2))
                .OrderByDescending(w => w.Width)
                .Take(most),
        ];

    /// <summary>Whether two go to the same ball, or to reds, off the same cushions, by the same side or worth about the same.</summary>
    private bool IsSame(Valued a, Valued b)
    {
        const double levelValues = 0.3,
            sameSide = 0.3;
        var (one, other) = (_from.Layout.Balls[a.Aimed.Hit.Slot].Ball, _from.Layout.Balls[b.Aimed.Hit.Slot].Ball);
        return a.Aimed.Hit.Key == b.Aimed.Hit.Key
            && (one == other || (one.IsRed && other.IsRed))
            && (Math.Abs(a.Aimed.Stroke.SideTips - b.Aimed.Stroke.SideTips) < sameSide || Math.Abs(a.Value - b.Value) < levelValues);
    }

    private List<EscapeOption> Options(List<Placed<Aimed>> ranked, int strokes, ErrorStream stream) =>
        _context.InParallel(ranked.Count, (bench, i) => Tell(bench, ranked[i], strokes, stream));

    private EscapeOption Tell(Bench bench, Placed<Aimed> placed, int strokes, ErrorStream stream)
    {
        var (stroke, hit, _) = placed.Entrant;
        var named = NamedFor(hit);
        var scatter = bench.ScatterOf(_from.Layout, stroke);
        var (hits, fair, missed, leaves, pots, free, value, win) = (
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums(),
            new Sums()
        );
        for (var i = 0; i < strokes; i++)
        {
            var played = bench.Play(_from, stroke, scatter.Error(stream.At(i)), named);
            var lines = bench.LinesOf(played.Leaves.Layout);
            var left = _judge.Of(played.Leaves, lines);
            var isFair = !played.Ruling.IsFoul;
            hits.Add(i, !played.Ruling.Fouls.Any(f => f is FoulReason.MissedAll or FoulReason.WrongBallFirst));
            fair.Add(i, isFair);
            missed.Add(i, !isFair);
            free.Add(i, played.Leaves.Frame.FreeBall);
            leaves.Add(i, isFair ? left.Worth : 0);
            pots.Add(
                i,
                isFair && played.Ruling.Points == 0 && (stream == Telling ? _judge.LeavesPot(played.Leaves, lines, left) : left.LeavesPot)
            );
            value.Add(i, SafetyStrokes.ValueOf(played, left));
            win.Add(i, _win.After(played, left.Best.Chance, left.Foul));
        }
        var penalty = _from.Frame.LeastPenalty;
        var chance = hits.Share;
        var floor = Math.Max(0.02, chance.Value);
        var given = new Estimate(penalty * (1 - chance.Value) / floor, penalty * chance.Error / (floor * floor), chance.Strokes);
        return new(
            AimOf(bench, stroke, hit),
            WayOf(bench, stroke, hit, named),
            new(chance, fair.Share, pots.For(fair), free.For(missed)),
            new(leaves.For(fair), penalty, given),
            value.Mean,
            win.Share,
            placed.IsLevel,
            MirrorOf(hit)
        );
    }

    private MirrorAim? MirrorOf(Hit hit) =>
        hit.OffJaw || hit.Cushions.Count == 0
            ? null
            : MirrorAim.Of(_from.Layout.White.At, _from.Layout.Balls[hit.Slot].At, hit.Cushions, _context.Shape);

    private EscapeWay WayOf(Bench bench, in Stroke stroke, Hit hit, Ball? named)
    {
        bench.Play(_from, stroke, default, named);
        var path = ShotPath.Points(bench.Record, _from.Layout.Balls.Count, ShotPath.Drawn)[0];
        var contact = bench.Record.Events.FirstOrDefault(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw && e.Ball == 0);
        return new(hit.Cushions, hit.OffJaw, path, contact.Kind == ShotEventKind.Strike ? null : contact.At);
    }

    private EscapeAim AimOf(Bench bench, Stroke stroke, Hit hit) =>
        new(
            _from.Layout.Balls[hit.Slot].Ball,
            LeaveJudge.SeenOf(_from, hit.Slot).Share,
            stroke,
            Reach.Of(_from.Layout, stroke, _context.Player),
            WindowDegrees: 2 * Math.Min(ToEdge(bench, stroke, hit, 1), ToEdge(bench, stroke, hit, -1)),
            SoftestPace: PaceThatHits(bench, stroke, hit.Slot, -0.2),
            HardestPace: PaceThatHits(bench, stroke, hit.Slot, 0.2)
        );

    /// <summary>How far the aim may turn one way before it no longer hits the ball off these cushions, degrees.</summary>
    private double ToEdge(Bench bench, Stroke stroke, Hit hit, int way)
    {
        const double most = 20;
        const int halvings = 8;
        bool Hits(double turn) =>
            FirstHit(bench, stroke with { AimDegrees = stroke.AimDegrees + way * turn }) is { } other && other.IsAs(hit);
        var (inside, outside) = (0.0, Step / 4);
        while (outside < most && Hits(outside))
            (inside, outside) = (outside, 2 * outside);
        for (var i = 0; i < halvings; i++)
        {
            var between = (inside + outside) / 2;
            (inside, outside) = Hits(between) ? (between, outside) : (inside, between);
        }
        return inside;
    }

    private double PaceThatHits(Bench bench, Stroke stroke, int slot, double step)
    {
        var pace = stroke.Pace;
        while (
            pace + step is >= Pace.Slowest and <= 9 && FirstHit(bench, stroke with { Pace = pace + step }) is { } hit && hit.Slot == slot
        )
            pace += step;
        return pace;
    }
}
