using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>Reads who met whom in a shot that was recorded. The white is in slot 0.</summary>
public static class Contacts
{
    /// <summary>The white's first contact with a ball; null if it meets none.</summary>
    public static ShotEvent? First(ShotRecord record)
    {
        foreach (var e in record.Events)
            if (e.IsOfWhiteWithBall)
                return e;
        return null;
    }

    /// <summary>The white is over a ball if it covers more of it in plan than this, and for that it must be so high at least; m.</summary>
    private const double Covers = 0.0005,
        LeastHeight = 0.005;

    /// <summary>
    /// Slot of a ball that lay still and that the white passes over, or part of it, before it meets any, or that it meets and lands beyond;
    /// −1 if there is none. Official Rules, Section 2, "Jump shot" (from memory).
    /// </summary>
    public static int JumpedOver(ShotRecord record, Layout layout)
    {
        if (record.Highest(0) < LeastHeight)
            return -1;
        var hit = First(record);
        var struck = hit is { } h ? h.Ball + h.Other : -1;
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != 0 || !piece.IsInAir || piece.Highest < LeastHeight)
                continue;
            var way = new Segment(piece.From, piece.To);
            if (hit is { } contact && piece.Start >= contact.Time - 1e-9)
            {
                // Over the ball that it struck: only if it comes down beyond it.
                var (ball, from) = (layout.Balls[struck].At, contact.Ball == 0 ? contact.At : piece.From);
                var towards = ball - from;
                var isBeyond = (piece.To - from).Dot(towards.Unit) > towards.Length + Dimensions.BallRadius;
                return isBeyond && layout.Balls[struck].Gap(way) < -Covers ? struck : -1;
            }
            for (var slot = 1; slot < layout.Balls.Count; slot++)
                if (slot != struck && layout.Balls[slot].Gap(way) < -Covers)
                    return slot;
        }
        return -1;
    }

    /// <summary>Slot of the ball that the white meets first, or −1.</summary>
    public static int FirstSlot(ShotRecord record) => First(record) is { } e ? e.Ball + e.Other : -1;

    /// <summary>
    /// How full (1 full to 0) and how fast (m/s) the white comes to a ball that still lies where it was laid; null if the white lay there
    /// against it.
    /// </summary>
    public static (double Fullness, double Speed)? Met(ShotRecord record, Layout layout, in ShotEvent contact)
    {
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != 0 || Math.Abs(piece.End - contact.Time) > 1e-12)
                continue;
            var velocity = piece.VelocityAtEnd;
            var speed = velocity.Length;
            var across = Math.Abs((layout.Balls[contact.Ball + contact.Other].At - piece.To).Cross(velocity)) / Math.Max(speed, 1e-9);
            return (Math.Clamp(1 - across / (2 * Dimensions.BallRadius), 0, 1), speed);
        }
        return null;
    }

    /// <summary>
    /// Least clear distance of the white's way, from a time on (s), from a ball where it was laid, m; negative where they would overlap.
    /// </summary>
    public static double Clearance(ShotRecord record, in PlacedBall ball, double from = 0)
    {
        var nearest = (double)Dimensions.Length;
        foreach (var way in StraightWay(record, from))
            nearest = Math.Min(nearest, ball.Gap(way));
        return nearest;
    }

    /// <summary>
    /// The white's way from one time to another (s) in straight pieces: chords of its parabolas, which are nearly straight.
    /// </summary>
    public static IEnumerable<Segment> StraightWay(ShotRecord record, double from = 0, double until = double.PositiveInfinity)
    {
        const int parts = 6;
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != 0 || piece.Start < from - 1e-12 || piece.End > until + 1e-9)
                continue;
            var at = piece.From;
            for (var i = 1; i <= parts; i++)
            {
                var next = piece.At(piece.Start + (piece.End - piece.Start) * i / parts);
                yield return new(at, next);
                at = next;
            }
        }
    }
}
