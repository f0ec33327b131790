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
}
