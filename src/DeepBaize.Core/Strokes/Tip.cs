using DeepBaize.Core.Physics;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// Where the tip goes on the cue ball's face, as players say it: in tips. One tip is 10 mm of tip movement. Common practice, no source.
/// </summary>
public static class Tip
{
    /// <summary>Movement of the tip across the ball that players call one tip, mm.</summary>
    public const double MillimetresPerTip = 10;

    /// <summary>Radius of the tip's dome, m: because of it the point of contact moves less than the tip does.</summary>
    public const double DomeRadius = 0.005;

    /// <summary>Farthest from the centre that the tip may go, tips: where the contact reaches <see cref="Strike.MiscueLimit"/>.</summary>
    public static double Limit => Strike.MiscueLimit / Fraction(1);

    /// <summary>Returns where on the ball the contact is, as a fraction of its radius, for a tip moved by a number of tips.</summary>
    public static double Fraction(double tips) => tips * MillimetresPerTip / 1000 / (BallRadius + DomeRadius);

    /// <summary>Returns side, tips, limited to what the height leaves room for before the tip slips off.</summary>
    public static double SideWithin(double sideTips, double heightTips)
    {
        var most = Math.Sqrt(Math.Max(0, Limit * Limit - heightTips * heightTips));
        return Math.Clamp(sideTips, -most, most);
    }

    /// <summary>How far the tip may still go from here before it slips off, tips.</summary>
    public static double Margin(double sideTips, double heightTips) => Limit - Math.Sqrt(sideTips * sideTips + heightTips * heightTips);
}
