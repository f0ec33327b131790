using DeepBaize.Core.Geometry;
using DeepBaize.Core.Rules;

namespace DeepBaize.Core.Valuing;

/// <summary>The chance to win the frame.</summary>
public static class WinChance
{
    /// <summary>
    /// The chance to win the frame if so many points more are to be expected than the other player makes: the lead against what the balls
    /// that are left make it swing by. A rough normal estimate, common practice, no source.
    /// </summary>
    public static double Of(Frame frame, double expected)
    {
        if (frame.IsOver)
            return frame.Winner == frame.Turn ? 1 : 0;
        const double swing = 3.5;
        var lead = frame.Lead + expected;
        // Behind by more than is left, only penalties help.
        if (frame.SnookersRequired > 0)
            lead -= 2 * (frame.SnookersRequired - 1) * Values.LeastPenalty;
        var z = lead / (swing * Math.Sqrt(frame.PointsLeft));
        return z >= 0 ? 0.5 + Normal.Within(z) / 2 : 0.5 - Normal.Within(-z) / 2;
    }
}
