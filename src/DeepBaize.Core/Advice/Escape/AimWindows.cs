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
internal sealed class AimWindows(SearchContext context, Situation from)
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
    ];

    /// <summary>Number of columns that are swept.</summary>
    public int ColumnCount => (int)Math.Ceiling(Columns.Length * context.Gate.WorkShare);

    /// <summary>Returns the windows of one height and side, at every pace.</summary>
    public IEnumerable<AimWindow> Of(int column) =>
        context
            .InParallel(Paces.Length * Quarters, (workspace, i) =>
                Sweep(workspace, column, Paces[i / Quarters], 360 / Quarters * (i % Quarters))
            )
            .SelectMany(w => w);

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

    /// <summary>Sweeps a quarter of all directions at one pace.</summary>
    private List<AimWindow> Sweep(Workspace workspace, int column, double pace, double start)
    {
        var windows = new List<AimWindow>();
        EscapeHit? open = null;
        var (first, last) = (0.0, 0.0);
        void Close()
        {
            if (open is not null)
                windows.Add(new(open, column, pace, first - Step / 2, last + Step / 2));
            open = null;
        }
        for (var i = 0; i <= 360 / Quarters / Step; i++)
        {
            context.Cancel.ThrowIfCancellationRequested();
            context.Count();
            var degrees = start + i * Step;
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

    /// <summary>
    /// Plays the white to its first ball. Null if that is no ball on, if there is none, after too many cushions, or if the white could have
    /// gone there straight: that is no way round anything, and is found among the safeties.
    /// </summary>
    public EscapeHit? FirstHit(Workspace workspace, in Stroke stroke)
    {
        var (simulator, record) = (workspace.Simulator, workspace.Record);
        simulator.Place(from.Layout.AsSpan());
        simulator.Release([(0, stroke.ToStrike().Launch(simulator.Conditions))], record, () =>
            record.Events.Count > 0 && record.Events[^1].Kind is ShotEventKind.Ball or ShotEventKind.Pot
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
                if (!from.Frame.MayPlay(from.Layout.Balls[slot].Ball) || (cushions.Count == 0 && IsStraight(slot, record)))
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
