using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Strokes;

/// <summary>To which side a ball goes past its pocket.</summary>
public enum MissSide
{
    /// <summary>Struck too full.</summary>
    Thick,

    /// <summary>Struck too thin.</summary>
    Thin,

    /// <summary>Left of the line, of a straight pot.</summary>
    Left,

    /// <summary>Right of the line, of a straight pot.</summary>
    Right,
}

/// <summary>How a pot was missed.</summary>
/// <param name="Side">Side of the potting line on which the ball came to the pocket.</param>
/// <param name="Off">Distance from its line to the place in the pocket that was aimed at, m.</param>
/// <param name="Short">Distance that it still had to go when it stopped or met another ball, m; null if it came to the pocket.</param>
/// <param name="IsNearJaw">Whether it met the jaw nearer to where it set out, or the far one; null if it met neither first.</param>
/// <param name="Crossing">Where its line crosses the mouth of the pocket, m; null if it does not.</param>
public sealed record PotMiss(MissSide Side, double Off, double? Short, bool? IsNearJaw, Vec2? Crossing)
{
    /// <summary>Cuts thinner than this have a thick and a thin side, degrees.</summary>
    private const double Straight = 0.5;

    /// <summary>Returns how a recorded stroke missed a pot.</summary>
    /// <returns>Null if the ball went in, was not met, or goes off a cushion on its way.</returns>
    public static PotMiss? Of(ShotRecord record, Simulator after, in Cut cut, TableShape shape)
    {
        var target = cut.Pot.Slot;
        if (cut.Last is not null || after.PocketOf(target) == cut.Pocket)
            return null;
        // It sets out with the first contact that it has, and its way ends with the next thing that it meets.
        var setOut = record.Events.FindIndex(e => e.Kind == ShotEventKind.Ball && (e.Ball == target || e.Other == target));
        if (setOut < 0)
            return null;
        var met = record.Events.FindIndex(setOut + 1, e =>
            (e.Ball == target || (e.Kind == ShotEventKind.Ball && e.Other == target))
            && e.Kind is not (ShotEventKind.Roll or ShotEventKind.Bed)
            && !(e.Kind == ShotEventKind.Ball && (e.Ball == 0 || e.Other == 0))
        );
        if (met < 0)
            return null;
        var end = record.Events[met];
        var way = record.Pieces.FindLast(p => p.Ball == target && p.Start < end.Time - 1e-9);
        if (way.Ball != target)
            return null;
        var (at, aim) = (way.At(end.Time), cut.First.To);
        // From where it lay: at the end of its way it may have all but stopped.
        var going = at - cut.First.From;
        if (going.Length < 1e-6)
            return null;
        going /= going.Length;
        var left = going.Cross(at - aim);
        var pocket = shape.PocketShapes[(int)cut.Pocket];
        var toGo = at.DistanceTo(aim);
        var isThere = end.Kind is ShotEventKind.Jaw or ShotEventKind.Cushion || toGo < 4 * Dimensions.BallRadius;
        return new(
            SideOf(cut, left),
            Math.Abs(left),
            isThere ? null : toGo,
            end.Kind == ShotEventKind.Jaw ? IsNear(pocket, end.At, cut.First.From) : null,
            isThere ? CrossingOf(pocket, at, going) : null
        );
    }

    /// <param name="left">How far to the left of what was aimed at the ball passes, m.</param>
    private static MissSide SideOf(in Cut cut, double left)
    {
        if (Math.Abs(cut.CutDegrees) < Straight)
            return left > 0 ? MissSide.Left : MissSide.Right;
        // Struck full it goes on as the white came: thick is the side towards the white's own line.
        var whiteIsLeft = cut.First.Direction.Unit.Cross(Angle.FromDegrees(cut.AimDegrees).Unit) > 0;
        return left > 0 == whiteIsLeft ? MissSide.Thick : MissSide.Thin;
    }

    private static bool IsNear(PocketShape pocket, Vec2 contact, Vec2 from)
    {
        var (a, b) = (pocket.JawA.Centre, pocket.JawB.Centre);
        var (met, other) = contact.DistanceTo(a) < contact.DistanceTo(b) ? (a, b) : (b, a);
        return met.DistanceTo(from) < other.DistanceTo(from);
    }

    /// <summary>Where a line crosses that from lip to lip; null if it is parallel to it.</summary>
    private static Vec2? CrossingOf(PocketShape pocket, Vec2 at, Vec2 going)
    {
        var mouth = pocket.LipB - pocket.LipA;
        var across = going.Cross(mouth);
        return Math.Abs(across) < 1e-9 ? null : at + (pocket.LipA - at).Cross(mouth) / across * going;
    }
}
