using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>How the cloth slows a ball, and what is too little to count. docs/model.md, "Motion on the cloth".</summary>
/// <param name="neglected">The length that makes no difference, m.</param>
internal sealed class Cloth(Conditions c, double neglected)
{
    /// <summary>Of a sliding ball and of a rolling one, m/s²; of side, rad/s².</summary>
    public readonly double Slide = c.SlidingFriction * c.Gravity,
        Roll = c.RollingFriction * c.Gravity,
        Spin = c.SpinDeceleration;

    /// <summary>
    /// Less slip than this ends at once, m/s: the slide would shift the ball by less than the length against rolling from the start,
    /// 2u²/(49μs·g).
    /// </summary>
    public readonly double NoSlip = Math.Sqrt(49 * c.SlidingFriction * c.Gravity * neglected / 2);

    /// <summary>
    /// Speed that is none, m/s: a ball so slow stops within a fraction of the length. So small that what is pushed at all does move.
    /// </summary>
    public readonly double Still = 0.1 * neglected;
}

internal enum Phase : byte
{
    AtRest,
    Sliding,
    Rolling,
}

/// <summary>
/// A ball on the cloth, as it was at a time of its own and goes on by itself from there: a parabola, until its phase ends.
/// </summary>
internal struct MovingBall
{
    public double X,
        Y;
    public BallMotion Motion;
    public double Ax,
        Ay;

    /// <summary>The time of all this, and when its phase ends, seconds.</summary>
    public double Since,
        End;

    public Phase Phase;

    public readonly double Speed => Math.Sqrt(Motion.Vx * Motion.Vx + Motion.Vy * Motion.Vy);

    /// <summary>Works out from velocity and spin whether the ball slides, rolls or rests, and until when.</summary>
    public void Begin(double time, Cloth cloth)
    {
        Since = time;
        var (vx, vy, wx, wy, wz) = Motion;
        var (ux, uy) = (vx - BallRadius * wy, vy + BallRadius * wx);
        var slip2 = ux * ux + uy * uy;
        if (slip2 > cloth.NoSlip * cloth.NoSlip)
        {
            var slip = Math.Sqrt(slip2);
            var a = -cloth.Slide / slip;
            (Phase, Ax, Ay, End) = (Phase.Sliding, a * ux, a * uy, time + 2 * slip / (7 * cloth.Slide));
            return;
        }
        // As the slide would leave it.
        (vx, vy) = (vx - 2.0 / 7 * ux, vy - 2.0 / 7 * uy);
        var speed2 = vx * vx + vy * vy;
        if (speed2 > cloth.Still * cloth.Still)
        {
            Motion = Rolls(vx, vy, wz);
            var speed = Math.Sqrt(speed2);
            var a = -cloth.Roll / speed;
            (Phase, Ax, Ay, End) = (Phase.Rolling, a * vx, a * vy, time + speed / cloth.Roll);
            return;
        }
        Motion = new(0, 0, 0, 0, wz);
        (Phase, Ax, Ay, End) = (Phase.AtRest, 0, 0, double.PositiveInfinity);
    }

    /// <summary>Brings the ball to a later time within its phase.</summary>
    public void Advance(double time, Cloth cloth)
    {
        var t = time - Since;
        if (t <= 0)
            return;
        var (vx, vy, wx, wy, wz) = Motion;
        if (wz != 0)
            wz = Math.CopySign(Math.Max(0, Math.Abs(wz) - cloth.Spin * t), wz);
        if (Phase == Phase.AtRest)
            Motion = new(0, 0, 0, 0, wz);
        else
        {
            X += t * (vx + 0.5 * Ax * t);
            Y += t * (vy + 0.5 * Ay * t);
            (vx, vy) = (vx + Ax * t, vy + Ay * t);
            const double k = 5 / (2 * BallRadius);
            Motion = Phase == Phase.Sliding ? new(vx, vy, wx + k * Ay * t, wy - k * Ax * t, wz) : Rolls(vx, vy, wz);
        }
        Since = time;
    }

    /// <summary>Position and velocity at a later time within its phase, m and m/s.</summary>
    public readonly void At(double time, out double x, out double y, out double vx, out double vy)
    {
        var t = time - Since;
        (vx, vy) = (Motion.Vx + Ax * t, Motion.Vy + Ay * t);
        x = X + t * (Motion.Vx + 0.5 * Ax * t);
        y = Y + t * (Motion.Vy + 0.5 * Ay * t);
    }

    /// <summary>Ends the slide: from here the ball rolls.</summary>
    public void EndSlide() => Motion = Rolls(Motion.Vx, Motion.Vy, Motion.Wz);

    private static BallMotion Rolls(double vx, double vy, double wz) => new(vx, vy, -vy / BallRadius, vx / BallRadius, wz);
}
