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

    /// <summary>m/s².</summary>
    public readonly double Gravity = c.Gravity;

    /// <summary>What nap and slope do to a rolling ball, m/s².</summary>
    public readonly Vec2 Drift = new(c.DriftAlong, c.DriftAcross);

    /// <summary>Whether rolling balls leave the straight line.</summary>
    public readonly bool Drifts = c.DriftAlong != 0 || c.DriftAcross != 0;

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

    /// <summary>Off the bed, so low that noses, jaws and pockets are in its way.</summary>
    Hopping,

    /// <summary>Off the bed, and over all but the balls.</summary>
    Over,
}

/// <summary>
/// A ball as it was at a time of its own, and goes on by itself from there: a parabola, on the cloth or above it, until its phase ends.
/// </summary>
internal struct MovingBall
{
    public double X,
        Y;

    /// <summary>Of the centre above its height at rest, m.</summary>
    public double Z;
    public BallMotion Motion;
    public double Ax,
        Ay;

    /// <summary>The time of all this, and when its phase ends, seconds.</summary>
    public double Since,
        End;

    public Phase Phase;

    /// <summary>Whether a flight ends on the bed, and not where it comes to be over all or is no longer.</summary>
    public bool Lands;

    /// <summary>Whether the ball still rolls at the end of this piece of its way.</summary>
    public bool RollsOn;

    /// <summary>
    /// What the velocity at the end of the piece is to be more than the parabola's, m/s, where the ball rolls on: the parabola meets the
    /// bent way in its place, and in its velocity nearly.
    /// </summary>
    private float _moreX,
        _moreY;

    public readonly bool IsInAir => Phase >= Phase.Hopping;

    /// <summary>Off the bed, or in this moment driven off it.</summary>
    public readonly bool IsLifted => Z > 0 || Motion.Vz != 0;

    public readonly double Speed => Math.Sqrt(Motion.Vx * Motion.Vx + Motion.Vy * Motion.Vy);

    /// <summary>Works out from velocity and spin whether the ball slides, rolls or rests, and until when.</summary>
    public void Begin(double time, Cloth cloth)
    {
        Since = time;
        if (Z > 0 || Motion.Vz > 0)
        {
            Fly(cloth.Gravity);
            return;
        }
        var (vx, vy, wx, wy, wz, _) = Motion;
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
            (Phase, RollsOn) = (Phase.Rolling, false);
            var speed = Math.Sqrt(speed2);
            if (cloth.Drifts)
            {
                Drift(speed, cloth);
                return;
            }
            var a = -cloth.Roll / speed;
            (Ax, Ay, End) = (a * vx, a * vy, time + speed / cloth.Roll);
            return;
        }
        Motion = new(0, 0, 0, 0, wz);
        (Phase, Ax, Ay, End) = (Phase.AtRest, 0, 0, double.PositiveInfinity);
    }

    /// <summary>How far from its bent way a piece of it may be, m.</summary>
    private const double Straightness = 2e-5;

    /// <summary>
    /// The next piece of the way of a ball that rolls and drifts, dv/dt = −μr·g·v̂ + d: a parabola from its place to the true one.
    /// </summary>
    /// <param name="speed">m/s.</param>
    private void Drift(double speed, Cloth cloth)
    {
        var (v, d, roll) = (new Vec2(Motion.Vx, Motion.Vy), cloth.Drift, cloth.Roll);
        var along = 1 / speed * v;
        var slowing = roll - d.Dot(along);
        var aside = Math.Abs(along.Cross(d));
        var stop = speed / slowing;
        if (0.5 * aside * stop * stop <= Straightness)
        {
            (Ax, Ay, End) = (-slowing * along.X, -slowing * along.Y, Since + stop);
            return;
        }
        // A parabola through both ends of a cubic is off it by 2/81 of the third derivative, here roll·aside/speed, times t³ at the most.
        var t = Math.Min(0.5 * stop, Math.Cbrt(Straightness * 81 / 2 * speed / (roll * aside)));
        // Runge and Kutta's fourth order in one step: the direction hardly changes in it.
        Vec2 Acceleration(Vec2 velocity) => d - roll * velocity.Unit;
        var a1 = Acceleration(v);
        var a2 = Acceleration(v + t / 2 * a1);
        var a3 = Acceleration(v + t / 2 * a2);
        var a4 = Acceleration(v + t * a3);
        var mean = 1.0 / 3 * (a1 + a2 + a3);
        var more = t / 6 * (a1 + 2 * a2 + 2 * a3 + a4) - t * mean;
        (Ax, Ay, End, RollsOn) = (mean.X, mean.Y, Since + t, true);
        (_moreX, _moreY) = ((float)more.X, (float)more.Y);
    }

    /// <summary>At the end of a piece: the velocity with which the ball rolls on.</summary>
    public void RollOn() => Motion = Rolls(Motion.Vx + _moreX, Motion.Vy + _moreY, Motion.Wz);

    /// <summary>Which part of a flight this is, and until when.</summary>
    private void Fly(double gravity)
    {
        (Ax, Ay, Lands) = (0, 0, false);
        var up = Motion.Vz;
        if (Z > Landing.OverAll || (Z == Landing.OverAll && up > 0))
        {
            (Phase, End) = (Phase.Over, Since + Fall(Landing.OverAll, gravity));
            return;
        }
        Phase = Phase.Hopping;
        var least = up * up - 2 * gravity * (Landing.OverAll - Z);
        if (up > 0 && least > 0)
            End = Since + (up - Math.Sqrt(least)) / gravity;
        else
            (End, Lands) = (Since + Fall(0, gravity), true);
    }

    /// <summary>Seconds until it falls through a height that it is not below.</summary>
    private readonly double Fall(double height, double gravity) =>
        (Motion.Vz + Math.Sqrt(Math.Max(0, Motion.Vz * Motion.Vz + 2 * gravity * (Z - height)))) / gravity;

    /// <summary>Brings the ball to a later time within its phase.</summary>
    public void Advance(double time, Cloth cloth)
    {
        var t = time - Since;
        if (t <= 0)
            return;
        var (vx, vy, wx, wy, wz, vz) = Motion;
        if (IsInAir)
        {
            X += t * vx;
            Y += t * vy;
            Z += t * (vz - 0.5 * cloth.Gravity * t);
            Motion = Motion with { Vz = vz - cloth.Gravity * t };
            Since = time;
            return;
        }
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

    /// <summary>Height and vertical velocity at a later time within its phase, m and m/s.</summary>
    public readonly void HeightAt(double time, double gravity, out double z, out double vz)
    {
        if (!IsInAir)
        {
            (z, vz) = (0, 0);
            return;
        }
        var t = time - Since;
        z = Z + t * (Motion.Vz - 0.5 * gravity * t);
        vz = Motion.Vz - gravity * t;
    }

    /// <summary>Ends the slide: from here the ball rolls.</summary>
    public void EndSlide() => Motion = Rolls(Motion.Vx, Motion.Vy, Motion.Wz);

    private static BallMotion Rolls(double vx, double vy, double wz) => new(vx, vy, -vy / BallRadius, vx / BallRadius, wz);
}
