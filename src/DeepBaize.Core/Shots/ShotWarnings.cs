using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Shots;

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
}

/// <summary>Something to know before going down on a shot.</summary>
/// <param name="Ball">The other ball, if there is one.</param>
/// <param name="Amount">How near, m; for a raised butt its degrees; else 0.</param>
public readonly record struct ShotWarning(WarningKind Kind, Ball? Ball, double Amount);

/// <summary>Reads a stroke that was played for what may go wrong with it. The limits are common practice, no source.</summary>
public static class ShotWarnings
{
    private const double CloseToBall = 0.006, TightOnCushion = 0.004, NearLimitTips = 0.15, RaisedDegrees = 5;

    public static IReadOnlyList<ShotWarning> Of(ShotRecord record, Layout layout, in Stroke stroke, Simulator after)
    {
        var warnings = new List<ShotWarning>();
        var margin = Tip.Margin(stroke.SideTips, stroke.HeightTips);
        if (margin < NearLimitTips) warnings.Add(new(WarningKind.NearMiscue, null, Math.Max(0, margin) * Tip.MillimetresPerTip / 1000));
        if (stroke.ElevationDegrees >= RaisedDegrees && stroke.HeightTips < 0) warnings.Add(new(WarningKind.RaisedButt, null, stroke.ElevationDegrees));

        var first = -1;
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Pot && e.Ball == 0) warnings.Add(new(WarningKind.InOff, null, 0));
            if (e.Kind != ShotEventKind.Ball) continue;
            var (a, b) = (Math.Min(e.Ball, e.Other), Math.Max(e.Ball, e.Other));
            if (first < 0)
            {
                if (a == 0) first = b;
            }
            else if (a == 0 && b == first) AddOnce(new(WarningKind.DoubleKiss, layout.Balls[first].Ball, 0));
            else if (a == 0 || a == first || b == first) AddOnce(new(WarningKind.Kiss, layout.Balls[a == 0 || a == first ? b : a].Ball, 0));
        }

        var moved = record.Pieces.Select(p => p.Ball).ToHashSet();
        var paths = ShotPath.Points(record, layout.Balls.Count);
        for (var slot = 1; slot < layout.Balls.Count; slot++)
        {
            if (moved.Contains(slot)) continue;
            var gap = Math.Min(Nearest(paths[0], layout.Balls[slot]), first > 0 ? Nearest(paths[first], layout.Balls[slot]) : double.PositiveInfinity);
            if (gap < CloseToBall) warnings.Add(new(WarningKind.ClosePass, layout.Balls[slot].Ball, Math.Max(0, gap)));
        }

        if (after.PocketOf(0) is null && moved.Contains(0))
        {
            var gap = Math.Min(Math.Min(after.X(0), Length - after.X(0)), Math.Min(after.Y(0), Width - after.Y(0))) - BallRadius;
            if (gap < TightOnCushion) warnings.Add(new(WarningKind.OnCushion, null, Math.Max(0, gap)));
        }
        return warnings;

        // A pack is met many times over: once is enough to say.
        void AddOnce(ShotWarning warning)
        {
            if (!warnings.Any(w => w.Kind == warning.Kind)) warnings.Add(warning);
        }
    }

    /// <summary>Least clear distance between a ball on its path and one that lies still, m.</summary>
    private static double Nearest(IReadOnlyList<PathPoint> path, in PlacedBall still)
    {
        var nearest = double.PositiveInfinity;
        for (var i = 1; i < path.Count; i++)
            nearest = Math.Min(nearest, Layout.GapFrom(path[i - 1].X, path[i - 1].Y, path[i].X, path[i].Y, still));
        return nearest;
    }
}
