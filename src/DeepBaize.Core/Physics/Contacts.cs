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

    /// <summary>Slot of the ball that the white meets first, or −1.</summary>
    public static int FirstSlot(ShotRecord record) => First(record) is { } e ? e.Ball + e.Other : -1;
}
