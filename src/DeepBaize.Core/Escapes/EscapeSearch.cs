using DeepBaize.Core.Physics;
using DeepBaize.Core.Planning;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Safety;
using DeepBaize.Core.Shots;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Escapes;

/// <summary>A way out of a snooker.</summary>
/// <param name="Ball">That is hit.</param>
/// <param name="Cushions">The white meets before it, in order; a jaw counts as the cushion it ends.</param>
/// <param name="OffJaw">A jaw is among them.</param>
/// <param name="Swerves">It goes round what is in the way without a cushion.</param>
/// <param name="WindowDegrees">Of aim that still hits.</param>
/// <param name="SoftestPace">At this aim it still hits from here.</param>
/// <param name="HardestPace">To here.</param>
/// <param name="Hit">Chance that a ball on is hit first, at the player's skill.</param>
/// <param name="Fair">Chance that it is hit and nothing else goes wrong.</param>
/// <param name="LeaveIfHit">Mean worth to the rival after a hit, points.</param>
/// <param name="PotLeft">Of the hits, the share that leaves a pot better than even.</param>
/// <param name="Penalty">Of a miss.</param>
/// <param name="FreeBall">Of the misses, the share after which the rival has a free ball.</param>
/// <param name="GivenAway">Points that go to the rival before it is hit, if every miss is called and played again.</param>
/// <param name="Value">To the player, points: what is to be expected of it.</param>
/// <param name="Path">Of the white, m and seconds.</param>
/// <param name="Contact">Where the white meets the first cushion, m; null without one.</param>
/// <param name="Mirror">The plain aim for the same cushions, and its construction; null if there is none.</param>
/// <param name="Correction">How far beside the mirror's point on the first cushion the true one lies, m; towards the yellow's side or baulk is negative.</param>
public sealed record Escape(
    Ball Ball, IReadOnlyList<Cushion> Cushions, bool OffJaw, bool Swerves, Stroke Stroke, double WindowDegrees, double SoftestPace, double HardestPace,
    double Hit, double Fair, double LeaveIfHit, double PotLeft, int Penalty, double FreeBall, double GivenAway, double Value, Reach Reach,
    IReadOnlyList<PathPoint> Path, (double X, double Y)? Contact, MirrorAim? Mirror, double? Correction);

/// <summary>How far a search for escapes is.</summary>
public sealed record EscapeProgress(long Examined, double Share, IReadOnlyList<Escape> Escapes);

/// <summary>
/// Ways to a ball on when none can be hit straight. A pipeline: all aims at several paces, heights and sides, played to the first contact → windows of aim that hit
/// the same ball off the same cushions → the widest of each judged by sampling → ranked by what may be expected. See docs/safety.md.
/// </summary>
public sealed class EscapeSearch
{
    private const double Step = 0.25;
    private const int MostCushions = 4, Sifted = 36, Told = 8, Samples = 240, FirstSamples = 40;
    private static readonly double[] Paces = [3, 4, 5, 6, 7];

    /// <summary>Plain ball first; then low, high, and side either way.</summary>
    private static readonly (double Height, double Side, double Elevation)[] Columns =
        [(0, 0, 0), (-0.8, 0, 0), (0.8, 0, 0), (0, 0.8, 0), (0, -0.8, 0), (-0.5, 0.9, 25), (-0.5, -0.9, 25)];

    private readonly PlanContext _context;
    private readonly LeaveJudge _judge;
    private readonly Situation _from;

    private EscapeSearch(PlanContext context, Situation from, Skill rival) => (_context, _from, _judge) = (context, from, new(rival, context.Player));

    /// <summary>The ways out, best first.</summary>
    /// <exception cref="InputException">The player is not snookered, or nothing is on.</exception>
    public static IReadOnlyList<Escape> Solve(
        Situation from, Skill skill, Skill rival, Player player, TableShape shape, FairGate? gate = null, IProgress<EscapeProgress>? progress = null, CancellationToken cancel = default)
    {
        Check(from);
        return new EscapeSearch(new(skill, player, shape, PlanPreferences.Default, gate ?? FairGate.Shared, cancel), from, rival).Run(progress);
    }

    /// <exception cref="InputException">The player is not snookered, or nothing is on.</exception>
    public static void Check(Situation from, string path = "content.balls")
    {
        if (from.Frame.IsOver || !from.OnSlots().Any()) throw new InputException(path, "There is no ball on.", "at least one ball that is on");
        if (!IsSnookered(from)) throw new InputException(path, "The white is not snookered: a ball on can be hit straight.", "a snooker; else compare pots and safeties");
    }

    /// <summary>Whether no ball on can be hit straight, on neither side.</summary>
    public static bool IsSnookered(Situation from)
    {
        List<PlacedBall> balls = [.. from.Layout.Balls.Skip(1)];
        return Snooker.IsSnookered(from.Layout.White.X, from.Layout.White.Y, balls, [.. from.OnSlots().Select(s => s - 1)]);
    }

    /// <summary>A run of aims that hit the same ball off the same cushions.</summary>
    private sealed record Window(int Slot, string Key, IReadOnlyList<Cushion> Cushions, bool OffJaw, int Column, double Pace, double From, double To)
    {
        public double Middle => (From + To) / 2;
        public double Width => To - From;
    }

    private IReadOnlyList<Escape> Run(IProgress<EscapeProgress>? progress)
    {
        var windows = new List<Window>();
        List<Escape> escapes = [];
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
            else progress?.Report(new(_context.Examined, 0.2 + 0.4 * column / Columns.Length, escapes));
        }
        var sifted = Judged(Best(windows, Sifted), FirstSamples);
        escapes = [.. Distinct(sifted).Take(Told)];
        progress?.Report(new(_context.Examined, 0.85, escapes));
        escapes = [.. _context.InParallel(escapes.Count, (bench, i) => Judge(bench, escapes[i].Stroke, escapes[i].WindowDegrees, Samples)!).OrderByDescending(e => e.Value)];
        progress?.Report(new(_context.Examined, 1, escapes));
        return escapes;
    }

    private Stroke StrokeOf(int column, double pace, double degrees)
    {
        var (height, side, elevation) = Columns[column];
        // The aim is the direction in which the white leaves; the cue points beside it, for squirt.
        var stroke = new Stroke(degrees - Strike.Squirt(Tip.Fraction(side), _context.Shape.Conditions) * 180 / Math.PI, side, height, pace, elevation);
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
            if (key is null) continue;
            if (now is null) (now, from, cushions, offJaw) = (key, degrees, hit!.Value.Cushions, hit.Value.OffJaw);
            last = degrees;
        }
        if (now is { } end) windows.Add(new(end.Slot, end.Key, [.. cushions], offJaw, column, pace, from - Step / 2, last + Step / 2));
        return windows;
    }

    /// <summary>The ball on that the white meets first, and what it meets before; null if that is no ball on, none, or after too many cushions.</summary>
    private (int Slot, List<Cushion> Cushions, bool OffJaw)? FirstHit(Bench bench, in Stroke stroke)
    {
        var (simulator, record) = (bench.Simulator, bench.Record);
        simulator.Place(_from.Layout.AsSpan());
        simulator.Release([(0, stroke.ToStrike().Launch(simulator.Conditions))], record, () => record.Events.Count > 0 && record.Events[^1].Kind is ShotEventKind.Ball or ShotEventKind.Pot);
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
                return _from.Frame.FreeBall || _from.Frame.On.Includes(_from.Layout.Balls[slot].Ball) ? (slot, cushions, offJaw) : null;
            }
            if (e.Kind is ShotEventKind.Pot) return null;
            if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw)
            {
                // Rattling in one pocket's jaws is one cushion.
                var cushion = Table.Cushions.At(e.X, e.Y);
                if (e.Kind == ShotEventKind.Cushion || !offJaw) cushions.Add(cushion);
                offJaw |= e.Kind == ShotEventKind.Jaw;
                if (cushions.Count > MostCushions) return null;
            }
        }
        return null;
    }

    /// <summary>Of each way the windows that are widest, then the widest of all.</summary>
    private static List<Window> Best(List<Window> windows, int most) =>
        [.. windows.GroupBy(w => (w.Slot, w.Key, w.Column)).SelectMany(g => g.OrderByDescending(w => w.Width).Take(2)).OrderByDescending(w => w.Width).Take(most)];

    private List<Escape> Judged(List<Window> windows, int samples) =>
        [.. _context.InParallel(windows.Count, (bench, i) => Judge(bench, StrokeOf(windows[i].Column, windows[i].Pace, windows[i].Middle), windows[i].Width, samples)).OfType<Escape>().OrderByDescending(e => e.Value)];

    private static IEnumerable<Escape> Distinct(IEnumerable<Escape> escapes)
    {
        var kept = new List<Escape>();
        foreach (var e in escapes)
        {
            if (kept.Any(k => k.Cushions.SequenceEqual(e.Cushions) && k.OffJaw == e.OffJaw && (k.Ball == e.Ball || (k.Ball.IsRed && e.Ball.IsRed)) && (k.Stroke.SideTips == e.Stroke.SideTips || Math.Abs(k.Value - e.Value) < 0.3))) continue;
            kept.Add(e);
            yield return e;
        }
    }

    private Escape? Judge(Bench bench, Stroke stroke, double width, int samples)
    {
        bench.Play(_from, stroke, default, null);
        if (Read(bench.Record) is not { } hit) return null;
        // Only a colour after a red, or a free ball, has to be named.
        Ball? named = _from.Frame.On == BallOn.Colour || _from.Frame.FreeBall ? _from.Layout.Balls[hit.Slot].Ball : null;
        var path = ShotPath.Points(bench.Record, _from.Layout.Balls.Count, ShotPath.Drawn)[0];
        (double X, double Y)? contact = bench.Record.Events.FirstOrDefault(e => e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw && e.Ball == 0) is { Kind: not ShotEventKind.Strike } c ? (c.X, c.Y) : null;
        var reach = Reach.Of(_from.Layout, stroke, _context.Player);
        var skill = _context.Skill.Times(reach.ErrorFactor);
        var random = new Random(41);
        var (hits, fair, leaves, pots, free, value) = (0, 0, 0.0, 0, 0, 0.0);
        for (var i = 0; i < samples; i++)
        {
            var played = bench.Play(_from, stroke, StrokeError.Draw(random, skill), named);
            if (!played.Ruling.Fouls.Any(f => f is FoulReason.MissedAll or FoulReason.WrongBallFirst)) hits++;
            var left = _judge.Of(played.After, bench.LinesOf(played.After.Layout));
            var outcome = (played.Ruling.Points > 0 ? played.Ruling.Points : 0) - played.Ruling.Penalty - (played.Ruling.Points > 0 ? 0 : left.Worth);
            value += outcome;
            if (played.After.Frame.FreeBall) free++;
            if (played.Ruling.IsFoul) continue;
            fair++;
            leaves += left.Worth;
            if (left.LeavesPot && played.Ruling.Points == 0) pots++;
        }
        var penalty = Math.Max(Values.LeastPenalty, _from.Frame.On.AsColour() is { } due ? Values.Of(due) : 0);
        var chance = (double)hits / samples;
        var ball = _from.Layout.Balls[hit.Slot];
        var mirror = hit.OffJaw || hit.Cushions.Count == 0 ? null : MirrorAim.Of((_from.Layout.White.X, _from.Layout.White.Y), (ball.X, ball.Y), hit.Cushions, _context.Shape);
        double? correction = mirror is null || contact is not { } at ? null
            : hit.Cushions[0] is Cushion.Baulk or Cushion.Top ? at.Y - mirror.Points[1].Y : at.X - mirror.Points[1].X;
        return new(ball.Ball, hit.Cushions, hit.OffJaw, hit.Cushions.Count == 0, stroke, width, PaceThatHits(bench, stroke, hit.Slot, -0.25), PaceThatHits(bench, stroke, hit.Slot, 0.25),
            chance, (double)fair / samples, fair == 0 ? 0 : leaves / fair, fair == 0 ? 0 : (double)pots / fair, penalty, fair == samples ? 0 : (double)free / (samples - fair), penalty * (1 - chance) / Math.Max(0.02, chance),
            value / samples, reach, path, contact, mirror, correction);
    }

    private double PaceThatHits(Bench bench, Stroke stroke, int slot, double step)
    {
        var pace = stroke.Pace;
        while (pace + step is >= Pace.Slowest and <= 9 && FirstHit(bench, stroke with { Pace = pace + step }) is { } hit && hit.Slot == slot) pace += step;
        return pace;
    }
}
