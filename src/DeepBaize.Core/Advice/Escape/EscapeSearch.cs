using DeepBaize.Core.Advice.Position;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>
/// Ways to a ball on when none can be hit straight. A pipeline: all aims at several paces, heights and sides, played to the first contact →
/// windows of aim that hit the same ball off the same cushions → the widest of each judged by sampling → ranked by what may be expected.
/// See docs/safety.md.
/// </summary>
public sealed class EscapeSearch
{
    private const double Step = 0.25;
    private const int MostCushions = 4,
        Sifted = 36,
        Told = 8,
        Samples = 240,
        FirstSamples = 40;
    private static readonly double[] Paces = [3, 4, 5, 6, 7];

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
    private readonly Situation _from;

    private EscapeSearch(SearchContext context, Situation from, Player rival) => (_context, _from, _judge) = (context, from, new(rival));

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
        return new EscapeSearch(new(player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel), from, rival).Run(progress);
    }

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

    private IReadOnlyList<EscapeOption> Run(IProgress<EscapeProgress>? progress)
    {
        var windows = new List<Window>();
        List<EscapeOption> escapes = [];
        for (var column = 0; column < Columns.Length; column++)
        {
            var c = column;
            var found = _context.InParallel(Paces.Length * 4, (bench, i) => Sweep(bench, c, Paces[i / 4], 90 * (i % 4)));
            windows.AddRange(found.SelectMany(w => w));
            // The first answer: plain ball.
            if (column == 0)
            {
                escapes = Judged(Best(windows, Told), FirstSamples);
                progress?.Report(new(_context.Examined, 0.2, escapes));
            }
            else
                progress?.Report(new(_context.Examined, 0.2 + 0.4 * column / Columns.Length, escapes));
        }
        var sifted = Judged(Best(windows, Sifted), FirstSamples);
        escapes = [.. Distinct(sifted).Take(Told)];
        progress?.Report(new(_context.Examined, 0.85, escapes));
        escapes =
        [
            .. _context
                .InParallel(escapes.Count, (bench, i) => Judge(bench, escapes[i].Aim.Stroke, escapes[i].Aim.WindowDegrees, Samples)!)
                .OrderByDescending(e => e.Value),
        ];
        progress?.Report(new(_context.Examined, 1, escapes));
        return escapes;
    }

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
        return stroke with { ElevationDegrees = Math.Max(elevation, Reach.ElevationFor(_from.Layout, stroke)) };
    }

    /// <summary>A quarter of all directions, at one pace.</summary>
    private List<Window> Sweep(Bench bench, int column, double pace, double start)
    {
        var windows = new List<Window>();
        (int Slot, string Key)? now = null;
        var (from, last) = (0.0, 0.0);
        List<Cushion> cushions = [];
        var offJaw = false;
        for (var i = 0; i <= 90 / Step; i++)
        {
            _context.Cancel.ThrowIfCancellationRequested();
            _context.Count();
            var degrees = start + i * Step;
            var hit = FirstHit(bench, StrokeOf(column, pace, degrees));
            var key = hit is { } h ? (h.Slot, string.Join('.', h.Cushions) + (h.OffJaw ? "/jaw" : "")) : ((int, string)?)null;
            if (now is { } open && key != now)
            {
                windows.Add(new(open.Slot, open.Key, [.. cushions], offJaw, column, pace, from - Step / 2, last + Step / 2));
                now = null;
            }
            if (key is null)
                continue;
            if (now is null)
                (now, from, cushions, offJaw) = (key, degrees, hit!.Value.Cushions, hit.Value.OffJaw);
            last = degrees;
        }
        if (now is { } end)
            windows.Add(new(end.Slot, end.Key, [.. cushions], offJaw, column, pace, from - Step / 2, last + Step / 2));
        return windows;
    }

    /// <summary>
    /// The ball on that the white meets first, and what it meets before; null if that is no ball on, none, or after too many cushions.
    /// </summary>
    private (int Slot, List<Cushion> Cushions, bool OffJaw)? FirstHit(Bench bench, in Stroke stroke)
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

    private (int Slot, List<Cushion> Cushions, bool OffJaw)? Read(ShotRecord record)
    {
        var cushions = new List<Cushion>();
        var offJaw = false;
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Ball)
            {
                var slot = e.Ball + e.Other;
                return _from.Frame.MayPlay(_from.Layout.Balls[slot].Ball) ? (slot, cushions, offJaw) : null;
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

    /// <summary>Of each way the windows that are widest, then the widest of all.</summary>
    private static List<Window> Best(List<Window> windows, int most) =>
        [
            .. windows
                .GroupBy(w => (w.Slot, w.Key, w.Column))
                .SelectMany(g => g.OrderByDescending(w => w.Width).Take(2))
                .OrderByDescending(w => w.Width)
                .Take(most),
        ];

    private List<EscapeOption> Judged(List<Window> windows, int samples) =>
        [
            .. _context
                .InParallel(
                    windows.Count,
                    (bench, i) => Judge(bench, StrokeOf(windows[i].Column, windows[i].Pace, windows[i].Middle), windows[i].Width, samples)
                )
                .OfType<EscapeOption>()
                .OrderByDescending(e => e.Value),
        ];

    private static IEnumerable<EscapeOption> Distinct(IEnumerable<EscapeOption> escapes)
    {
        var kept = new List<EscapeOption>();
        foreach (var escape in escapes)
        {
            if (kept.Any(k => IsSame(k, escape)))
                continue;
            kept.Add(escape);
            yield return escape;
        }
    }

    /// <summary>Whether two go to the same ball, or to reds, off the same cushions, by the same side or worth about the same.</summary>
    private static bool IsSame(EscapeOption a, EscapeOption b)
    {
        const double levelValues = 0.3;
        return a.Way.Cushions.SequenceEqual(b.Way.Cushions)
            && a.Way.OffJaw == b.Way.OffJaw
            && (a.Aim.Ball == b.Aim.Ball || (a.Aim.Ball.IsRed && b.Aim.Ball.IsRed))
            && (a.Aim.Stroke.SideTips == b.Aim.Stroke.SideTips || Math.Abs(a.Value - b.Value) < levelValues);
    }

    private EscapeOption? Judge(Bench bench, Stroke stroke, double width, int samples)
    {
        bench.Play(_from, stroke, default, null);
        if (Read(bench.Record) is not { } hit)
            return null;
        // Only a colour after a red, or a free ball, has to be named.
        Ball? named = _from.Frame.On == BallOn.Colour || _from.Frame.FreeBall ? _from.Layout.Balls[hit.Slot].Ball : null;
        var path = ShotPath.Points(bench.Record, _from.Layout.Balls.Count, ShotPath.Drawn)[0];
        var contact = bench.Record.Events.FirstOrDefault(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw && e.Ball == 0);
        var way = new EscapeWay(hit.Cushions, hit.OffJaw, path, contact.Kind == ShotEventKind.Strike ? null : contact.At);
        var reach = Reach.Of(_from.Layout, stroke, _context.Player);
        var skill = _context.Player.Skill.Times(reach.ErrorFactor);
        var random = new Random(41);
        var (hits, fair, leaves, pots, free, value) = (0, 0, 0.0, 0, 0, 0.0);
        for (var i = 0; i < samples; i++)
        {
            var played = bench.Play(_from, stroke, StrokeError.Draw(random, skill), named);
            if (!played.Ruling.Fouls.Any(f => f is FoulReason.MissedAll or FoulReason.WrongBallFirst))
                hits++;
            var left = _judge.Of(played.Leaves, bench.LinesOf(played.Leaves.Layout));
            var outcome =
                (played.Ruling.Points > 0 ? played.Ruling.Points : 0) - played.Ruling.Penalty - (played.Ruling.Points > 0 ? 0 : left.Worth);
            value += outcome;
            if (played.Leaves.Frame.FreeBall)
                free++;
            if (played.Ruling.IsFoul)
                continue;
            fair++;
            leaves += left.Worth;
            if (left.LeavesPot && played.Ruling.Points == 0)
                pots++;
        }
        var penalty = _from.Frame.LeastPenalty;
        var chance = (double)hits / samples;
        var ball = _from.Layout.Balls[hit.Slot];
        var mirror =
            hit.OffJaw || hit.Cushions.Count == 0 ? null : MirrorAim.Of(_from.Layout.White.At, ball.At, hit.Cushions, _context.Shape);
        var aim = new EscapeAim(
            ball.Ball,
            stroke,
            reach,
            width,
            SoftestPace: PaceThatHits(bench, stroke, hit.Slot, -0.25),
            HardestPace: PaceThatHits(bench, stroke, hit.Slot, 0.25)
        );
        var odds = new EscapeOdds(
            chance,
            (double)fair / samples,
            fair == 0 ? 0 : (double)pots / fair,
            fair == samples ? 0 : (double)free / (samples - fair)
        );
        var cost = new EscapeCost(fair == 0 ? 0 : leaves / fair, penalty, penalty * (1 - chance) / Math.Max(0.02, chance));
        return new(aim, way, odds, cost, value / samples, mirror);
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
