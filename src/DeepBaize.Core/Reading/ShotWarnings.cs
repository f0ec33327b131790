using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>What may go wrong with a stroke.</summary>
public enum WarningKind
{
    /// <summary>The white goes in.</summary>
    InOff,

    /// <summary>After their contact the white or the ball it met runs into a third.</summary>
    Kiss,

    /// <summary>The white and the ball it met first meet again.</summary>
    DoubleKiss,

    /// <summary>The white, or the ball it met, passes another ball closely.</summary>
    ClosePass,

    /// <summary>The white stops tight on a cushion.</summary>
    OnCushion,

    /// <summary>The tip is near the limit.</summary>
    NearMiscue,

    /// <summary>A raised butt takes the screw off the ball.</summary>
    RaisedButt,

    /// <summary>A raised butt makes the white hop.</summary>
    Hop,

    /// <summary>The white passes over a ball, or part of it.</summary>
    Jump,

    /// <summary>A ball leaves the table.</summary>
    OffTable,

    /// <summary>The white passes a jaw closely.</summary>
    CloseJaw,

    /// <summary>The white stops where it is snookered on what comes next.</summary>
    Snookered,
}

/// <summary>Something to know before going down on a shot.</summary>
/// <param name="Ball">The other ball, if there is one; of a snooker the first of those that are on.</param>
/// <param name="Amount">How near, or how high, m; for a raised butt the share of the screw that is lost on the way; else 0.</param>
/// <param name="Pocket">Of a jaw.</param>
public readonly record struct ShotWarning(WarningKind Kind, Ball? Ball, double Amount, Pocket? Pocket = null);

/// <summary>Reads a stroke that was played for what may go wrong with it. The limits are common practice, no source.</summary>
public static class ShotWarnings
{
    private const double CloseToBall = 0.006,
        CloseToJaw = 0.005,
        TightOnCushion = 0.004,
        NearLimitTips = 0.15,
        RaisedDegrees = 5,
        // A white that touches down within the length of a ball is no hop that a player sees.
        WorthCallingHop = 0.003,
        WorthCallingLost = 0.05,
        Nearer = 1e-6;

    /// <param name="pot">What is meant, if anything: without it, running into a second ball may be just what is wanted.</param>
    /// <param name="mayRunOn">The stroke was chosen with the cannon in it: then the cannon is no danger.</param>
    public static IReadOnlyList<ShotWarning> Of(
        ShotRecord record,
        Layout layout,
        in Stroke stroke,
        Simulator after,
        TableShape shape,
        Pot? pot,
        bool mayRunOn = false
    )
    {
        var warnings = new List<ShotWarning>();
        var margin = Tip.Margin(stroke.SideTips, stroke.HeightTips);
        if (margin < NearLimitTips)
            warnings.Add(new(WarningKind.NearMiscue, null, Math.Max(0, margin) * Tip.MillimetresPerTip / 1000));
        if (stroke.ElevationDegrees >= RaisedDegrees)
        {
            var lost = ScrewLost(record, layout, stroke, shape);
            if (lost >= WorthCallingLost)
                warnings.Add(new(WarningKind.RaisedButt, null, lost));
            var hop = record.Highest(0);
            if (hop >= WorthCallingHop)
                warnings.Add(new(WarningKind.Hop, null, hop));
        }
        if (Contacts.JumpedOver(record, layout) is > 0 and var over)
            warnings.Add(new(WarningKind.Jump, layout.Balls[over].Ball, record.Highest(0)));
        for (var slot = 0; slot < after.Count; slot++)
            if (after.IsOff(slot))
                warnings.Add(new(WarningKind.OffTable, after.BallIn(slot), 0));

        if (after.PocketOf(0) is not null)
            warnings.Add(new(WarningKind.InOff, null, 0));
        var first = Contacts.FirstSlot(record);
        if (Kisses.First(record, pot, mayRunOn: mayRunOn) is { } kiss)
        {
            var isDouble = kiss.Ball + kiss.Other == first;
            var other = kiss.Ball == 0 || kiss.Ball == (pot?.Slot ?? first) ? kiss.Other : kiss.Ball;
            if (isDouble)
                warnings.Add(new(WarningKind.DoubleKiss, layout.Balls[first].Ball, 0));
            else if (pot is not null)
                warnings.Add(new(WarningKind.Kiss, layout.Balls[other].Ball, 0));
        }

        var moved = record.Pieces.Select(p => p.Ball).ToHashSet();
        var paths = ShotPath.Points(record, layout.Balls.Count);
        for (var slot = 1; slot < layout.Balls.Count; slot++)
        {
            if (moved.Contains(slot))
                continue;
            var gap = Math.Min(
                Nearest(paths[0], layout.Balls[slot]),
                first > 0 ? Nearest(paths[first], layout.Balls[slot]) : double.PositiveInfinity
            );
            if (gap < CloseToBall)
                warnings.Add(new(WarningKind.ClosePass, layout.Balls[slot].Ball, Math.Max(0, gap)));
        }

        if (after.IsOnTable(0) && moved.Contains(0))
        {
            var gap = Cushions.Clearance(after.At(0));
            if (gap < TightOnCushion)
                warnings.Add(new(WarningKind.OnCushion, null, Math.Max(0, gap)));
        }
        foreach (var pocket in shape.PocketShapes)
        {
            if (record.Events.Any(e => e.Ball == 0 && e.Pocket == pocket.Pocket))
                continue;
            var gap = Math.Min(FromJaw(paths[0], pocket.JawA), FromJaw(paths[0], pocket.JawB));
            if (gap < CloseToJaw)
                warnings.Add(new(WarningKind.CloseJaw, null, Math.Max(0, gap), pocket.Pocket));
        }

        if (pot is not null && !after.IsOnTable(pot.Slot) && after.IsOnTable(0))
        {
            var left = after.Left(except: 0);
            var on = Rules.Snooker.OnAfter(layout.Balls[pot.Slot].Ball, left);
            if (Rules.Snooker.IsSnookered(after.At(0), left, on))
                warnings.Add(new(WarningKind.Snookered, left[on[0]].Ball, 0));
        }
        return warnings;
    }

    /// <summary>What share of the screw with which a level cue would arrive is lost on the way; 0 if there was none.</summary>
    private static double ScrewLost(ShotRecord record, Layout layout, in Stroke stroke, TableShape shape)
    {
        if (stroke.HeightTips >= 0 || Arrival.Of(record, stroke.ToStrike(), shape) is not { } raised)
            return 0;
        var (level, played) = (stroke with { ElevationDegrees = 0 }, new ShotRecord());
        level.Play(new Simulator(shape), layout, played);
        return Arrival.Of(played, level.ToStrike(), shape) is { Follow: < 0 } meant
            ? Math.Clamp(1 - raised.Follow / meant.Follow, 0, 1)
            : 0;
    }

    /// <summary>Least clear distance between a ball on its path and a jaw, m.</summary>
    private static double FromJaw(IReadOnlyList<PathPoint> path, in Circle jaw)
    {
        var nearest = double.PositiveInfinity;
        for (var i = 1; i < path.Count; i++)
            nearest = Math.Min(nearest, new Segment(path[i - 1].At, path[i].At).DistanceTo(jaw.Centre));
        return nearest - jaw.Radius - BallRadius;
    }

    /// <summary>
    /// Least clear distance between a ball on its path and one that lies still, m; +∞ if it only goes away from it, as from a neighbour
    /// in the pack.
    /// </summary>
    private static double Nearest(IReadOnlyList<PathPoint> path, in PlacedBall still)
    {
        if (path.Count == 0)
            return double.PositiveInfinity;
        var nearest = double.PositiveInfinity;
        for (var i = 1; i < path.Count; i++)
            nearest = Math.Min(nearest, still.Gap(new Segment(path[i - 1].At, path[i].At)));
        return nearest < still.Gap(path[0].At) - Nearer ? nearest : double.PositiveInfinity;
    }
}
