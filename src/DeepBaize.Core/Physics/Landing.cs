using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>A ball that comes down on the bed, or is driven into it by a raised cue. docs/model.md, "The bed".</summary>
public static class Landing
{
    /// <summary>A landing slower than this gives nothing back, m/s.</summary>
    public const double Dead = 0.05;

    /// <summary>A ball that would leave more slowly than this stays down, m/s.</summary>
    public const double StaysDown = 0.03;

    /// <summary>So high above its place at rest nothing meets a ball but another ball: no nose, jaw or pocket; m.</summary>
    public const double OverAll = 0.7 * BallRadius;

    /// <summary>The motion after a ball has come down.</summary>
    /// <param name="ball">Its motion, the vertical part not looked at.</param>
    /// <param name="down">At what speed it comes down, m/s.</param>
    public static BallMotion Of(in BallMotion ball, double down, Conditions c)
    {
        var e = down < Dead ? 0 : c.BedRestitution;
        var (vx, vy, wx, wy, wz, _) = ball;
        var up = e * down;
        var rises = up < StaysDown ? 0 : up;
        var (ux, uy) = (vx - BallRadius * wy, vy + BallRadius * wx);
        var slip = Math.Sqrt(ux * ux + uy * uy);
        if (slip == 0)
            return ball with { Vz = rises };
        var friction = Math.Min(c.SlidingFriction * (1 + e) * down, 2 * slip / 7);
        var (px, py) = (friction * ux / slip, friction * uy / slip);
        const double k = 5 / (2 * BallRadius);
        return new(vx - px, vy - py, wx - k * py, wy + k * px, wz, rises);
    }
}
