using DeepBaize.Core.Physics;

namespace DeepBaize.Core.Strokes;

/// <summary>Second contacts that nobody wants.</summary>
public static class Kisses
{
    /// <summary>
    /// The first contact that nobody means: of the white, or of the ball to be potted, with any other after the white's first;
    /// null if there is none.
    /// </summary>
    /// <param name="pot">Null: the ball that the white meets first counts as the one that is meant.</param>
    /// <param name="meant">Slot of a ball that the white is to run into, or −1: what it meets after that ball comes of it.</param>
    /// <param name="mayRunOn">The stroke was chosen with what the white runs into: only the ball it struck is not to be met again.</param>
    public static ShotEvent? First(ShotRecord record, Pot? pot, int meant = -1, bool mayRunOn = false)
    {
        var struck = pot?.Struck ?? Contacts.FirstSlot(record);
        var (met, sent) = (false, pot is not { IsPlant: true });
        var target = pot?.Slot ?? struck;
        foreach (var e in record.Events)
        {
            if (e.Kind != ShotEventKind.Ball)
                continue;
            var (a, b) = (Math.Min(e.Ball, e.Other), Math.Max(e.Ball, e.Other));
            if (!met)
            {
                met = a == 0 && b == struck;
                continue;
            }
            if (a == 0 && b == meant)
                mayRunOn = true;
            if (!sent && a == Math.Min(struck, target) && b == Math.Max(struck, target))
                sent = true;
            else if ((a == 0 && b != meant && (!mayRunOn || b == struck)) || a == target || b == target)
                return e;
        }
        return null;
    }
}
