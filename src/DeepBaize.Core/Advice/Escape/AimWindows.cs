using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>The ball on that the white meets first, and the cushions that it meets before.</summary>
internal sealed record EscapeHit(int Slot, IReadOnlyList<Cushion> Cushions, bool OffJaw)
{
    /// <summary>Name of the cushions in their order.</summary>
    public string Key => string.Join('.', Cushions) + (OffJaw ? "/jaw" : "");

    public bool IsAs(EscapeHit other) => Slot == other.Slot && Key == other.Key;
}

/// <summary>A range of aims (degrees) that hit the same ball off the same cushions, with one tip and pace.</summary>
/// <param name="Column">Index of the height, side and elevation.</param>
internal sealed record AimWindow(EscapeHit Hit, int Column, double Pace, double From, double To)
{
    public double Middle => (From + To) / 2;
    public double Width => To - From;
}

/// <summary>First stage of <see cref="EscapeSearch"/>: all aims at several paces, heights and sides, played to the first contact.</summary>
/// <param name="target">The only ball that counts; null for any that is on.</param>
internal sealed class AimWindows(SearchContext context, Situation from, Ball? target)
{
    /// <summary>Step of the sweep, degrees.</summary>
    public const double Step = 0.25;

    private const int MostCushions = 4,
        Quarters = 4;

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
        (-0.4, 1.1, 38),
        (-0.4, -1.1, 38),
    ];

    /// <summary>From this elevation on a stroke swerves round what is in the way: only directions near a ball on are swept.</summary>
    private const double Swerves = 20;

    /// <summary>A swerve bends by no more than this, degrees.</summary>
    private const double MostSwerve = 40;

    /// <summary>
    /// Off a jaw the band of aims is a few mm wide: across each jaw the sweep turns by this, degrees, with a plain and a low strike (common
    /// practice, no source: a low strike holds the angle steep off the first cushion).
    /// </summary>
    private const double JawStep = 0.04;

    private const int PlainColumn = 0,
        LowColumn = 1;

    /// <summary>Number of columns that are swept.</summary>
    public int ColumnCount => (int)Math.Ceiling(Columns.Length * context.Gate.WorkShare);

    /// <summary>Returns the windows of one height and side, at every pace.</summary>
    public IEnumerable<AimWindow> Of(int column) =>
        context
            .InParallel(
                Paces.Length * Quarters,
                (workspace, i) => Sweep(workspace, column, Paces[i / Quarters], 360 / Quarters * (i % Quarters), 360 / Quarters, Step)
            )
            .Concat(column is PlainColumn or LowColumn ? AtJaws(column) : [])
            .SelectMany(w => w);

    private List<List<AimWindow>> AtJaws(int column)
    {
        var white = from.Layout.White.At;
        var jaws = context.Shape.PocketShapes.SelectMany(p => new[] { p.JawA, p.JawB }).ToList();
        return context.InParallel(
            jaws.Count * Paces.Length,
            (workspace, i) =>
            {
                // All aims at which the white meets the arc, if it comes that far.
                var jaw = jaws[i / Paces.Length];
                var reach = jaw.Radius + Dimensions.BallRadius;
                var distance = white.DistanceTo(jaw.Centre);
                if (distance <= reach)
                    return [];
                var half = Angle.FromRadians(Math.Asin(reach / distance)).Degrees;
                var start = (jaw.Centre - white).Direction.Degrees - half;
                return Sweep(workspace, column, Paces[i % Paces.Length], start, 2 * half, JawStep).FindAll(w => w.Hit.OffJaw);
            }
        );
    }

    /// <summary>
    /// Returns the stroke of a column in a direction (degrees) in which the white leaves; the cue points beside it, for squirt.
    /// </summary>
    public Stroke StrokeOf(int column, double pace, double degrees)
    {
        var (height, side, elevation) = Columns[column];
        var squirt = Strike.Squirt(Tip.Fraction(side), context.Shape.Conditions).Degrees;
        var stroke = new Stroke(degrees - squirt, side, height, pace, elevation);
        return stroke with { ElevationDegrees = Math.Max(elevation, Reach.ButtFor(from.Layout, stroke, context.Player)) };
    }

    /// <summary>Sweeps directions from one on (degrees) at one pace.</summary>
    private List<AimWindow> Sweep(Workspace workspace, int column, double pace, double start, double span, double step)
    {
        var windows = new List<AimWindow>();
        EscapeHit? open = null;
        var (first, last) = (0.0, 0.0);
        void Close()
        {
            if (open is not null)
                windows.Add(new(open, column, pace, first - step / 2, last + step / 2));
            open = null;
        }
        for (var i = 0; i <= span / step; i++)
        {
            context.Cancel.ThrowIfCancellationRequested();
            var degrees = start + i * step;
            if (Columns[column].Elevation > Swerves && !IsNearBall(degrees))
            {
                Close();
                continue;
            }
            context.Count();
            var hit = FirstHit(workspace, StrokeOf(column, pace, degrees));
            if (open is not null && hit?.IsAs(open) != true)
                Close();
            if (hit is null)
                continue;
            if (open is null)
                (open, first) = (hit, degrees);
            last = degrees;
        }
        Close();
        return windows;
    }

    private bool IsNearBall(double degrees)
    {
        for (var i = 1; i < from.Layout.Balls.Count; i++)
            if (
                Counts(i)
                && Math.Abs(Math.IEEERemainder((from.Layout.Balls[i].At - from.Layout.White.At).Direction.Degrees - degrees, 360))
                    < MostSwerve
            )
                return true;
        return false;
    }

    /// <summary>Whether a ball may be hit first, and is what is wanted.</summary>
    private bool Counts(int slot)
    {
        var ball = from.Layout.Balls[slot].Ball;
        return from.Frame.MayPlay(ball) && (target is not { } wanted || wanted == ball);
    }

    /// <summary>
    /// Plays the white to its first ball. Null if that is no ball on, if there is none, after too many cushions, or if the white could have
    /// gone there straight: that is no way round anything, and is found among the safeties.
    /// </summary>
    public EscapeHit? FirstHit(Workspace workspace, in Stroke stroke)
    {
        var (simulator, record) = (workspace.Simulator, workspace.Record);
        simulator.Place(from.Layout.AsSpan());
        simulator.Release(
            [(0, stroke.ToStrike().Launch(simulator.Conditions))],
            record,
            () => record.Events.Count > 0 && record.Events[^1].Kind is ShotEventKind.Ball or ShotEventKind.Pot
        );
        return Read(record);
    }

    private EscapeHit? Read(ShotRecord record)
    {
        var cushions = new List<Cushion>();
        var offJaw = false;
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Ball)
            {
                var slot = e.Ball + e.Other;
                if (!Counts(slot) || (cushions.Count == 0 && IsStraight(slot, record)))
                    return null;
                return new(slot, cushions, offJaw);
            }
            if (e.Kind is ShotEventKind.Pot)
                return null;
            if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw)
            {
                // Rattling in the jaws of one pocket counts as one cushion.
                if (e.Kind == ShotEventKind.Cushion || !offJaw)
                    cushions.Add(Cushions.Nearest(e.At));
                offJaw |= e.Kind == ShotEventKind.Jaw;
                if (cushions.Count > MostCushions)
                    return null;
            }
        }
        return null;
    }

    private bool IsStraight(int slot, ShotRecord record)
    {
        var end = from.Layout.White.At;
        foreach (var piece in record.Pieces)
            if (piece.Ball == 0)
                end = piece.To;
        var way = new Segment(from.Layout.White.At, end);
        for (var i = 1; i < from.Layout.Balls.Count; i++)
            if (i != slot && !from.Layout.Balls[i].IsClearOf(way))
                return false;
        return true;
    }

    /// <summary>Returns of each way the widest windows, then the widest of all.</summary>
    public static List<AimWindow> Widest(List<AimWindow> windows, int most) =>
        [
            .. windows
                .GroupBy(w => (w.Hit.Slot, w.Hit.Key, w.Column))
                .SelectMany(g => g.OrderByDescending(w => w.Width).Take(2))
                .OrderByDescending(w => w.Width)
                .Take(most),
        ];
}
