using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// A stroke of the cue. Built by <see cref="Create"/> only, so an impossible one does not exist.
/// </summary>
public readonly record struct Strike
{
    /// <summary>Highest speed of the cue, m/s.</summary>
    public const double MaxCueSpeed = 8;

    /// <summary>Highest elevation of the butt, degrees.</summary>
    public const double MaxElevationDegrees = 60;

    /// <summary>Farthest from the centre, as a fraction of the ball's radius, that the tip holds. Common practice, no source.</summary>
    public const double MiscueLimit = 0.5;

    private Strike(double aimDegrees, double cueSpeed, double side, double height, double elevationDegrees) =>
        (AimDegrees, CueSpeed, Side, Height, ElevationDegrees) = (aimDegrees, cueSpeed, side, height, elevationDegrees);

    /// <summary>Direction of the cue in plan, degrees counter-clockwise from +x.</summary>
    public double AimDegrees { get; }

    /// <summary>m/s, 0–8.</summary>
    public double CueSpeed { get; }

    /// <summary>Where the tip touches, as a fraction of the radius: + is right-hand side.</summary>
    public double Side { get; }

    /// <summary>Where the tip touches, as a fraction of the radius: + is above centre.</summary>
    public double Height { get; }

    /// <summary>Of the butt above level, 0–60°.</summary>
    public double ElevationDegrees { get; }

    /// <summary>A strike, or every reason why it cannot be one.</summary>
    /// <exception cref="InputException">A figure out of range, not a number, or a miscue.</exception>
    public static Strike Create(
        double aimDegrees,
        double cueSpeed,
        double side,
        double height,
        double elevationDegrees,
        string path = "strike"
    )
    {
        var checks = new Checks(path);
        checks.Range("aim", aimDegrees, -3600, 3600, "°");
        checks.Range("cueSpeed", cueSpeed, 0, MaxCueSpeed, " m/s");
        checks.Range("side", side, -MiscueLimit, MiscueLimit, " of the radius");
        checks.Range("height", height, -MiscueLimit, MiscueLimit, " of the radius");
        checks.Range("elevation", elevationDegrees, 0, MaxElevationDegrees, "°");
        if (checks.AreMet)
            checks.That(
                side * side + height * height <= MiscueLimit * MiscueLimit + 1e-12,
                "side",
                "The tip would slip off so far from the centre: a miscue.",
                "side² + height² at most 0.25, half the radius from the centre"
            );
        checks.ThrowIfAny();
        return new(aimDegrees, cueSpeed, side, height, elevationDegrees);
    }

    /// <summary>Angle by which side pushes the ball off the aim, counter-clockwise for right-hand side. Alciatore TP A.31.</summary>
    public static Angle Squirt(double side, Conditions c) =>
        Angle.FromRadians(Math.Atan(2.5 * side * Math.Sqrt(1 - side * side) / (1 + c.EndMassRatio + 2.5 * (1 - side * side))));

    /// <summary>Of the blow, per unit of the ball's mass, m/s.</summary>
    private double Impulse(Conditions c) =>
        (1 + c.TipRestitution) * CueSpeed / (1 + BallMass / c.CueMass + 2.5 * (Side * Side + Height * Height));

    /// <summary>
    /// How high above the bed the tip touches the ball, m: with a raised butt the same height across the cue lies higher up.
    /// </summary>
    public double TipAboveBed
    {
        get
        {
            var (sin, cos) = Math.SinCos(ElevationDegrees * Math.PI / 180);
            return BallRadius * (1 + Height * cos + Math.Sqrt(1 - Side * Side - Height * Height) * sin);
        }
    }

    /// <summary>Returns this stroke rotated left by an angle, its speed scaled by a factor and clamped to the maximum.</summary>
    public Strike With(double turnDegrees, double speed) =>
        new(AimDegrees + turnDegrees, Math.Min(MaxCueSpeed, speed * CueSpeed), Side, Height, ElevationDegrees);

    /// <summary>
    /// The cue ball's velocity (m/s) and spin (rad/s) as it leaves the tip and, struck downwards, the bed.
    /// </summary>
    /// <param name="sideError">How far the contact is beside the one meant, as a fraction of the radius: it changes the spin only
    /// (docs/model.md, "Skill").</param>
    /// <param name="heightError">Shift of the tip upwards, as a fraction of the radius.</param>
    public BallMotion Launch(Conditions c, double sideError = 0, double heightError = 0)
    {
        var direction = Angle.FromDegrees(AimDegrees) + Squirt(Side, c);
        return Leaves(direction, Impulse(c), Side + sideError, Height + heightError, c);
    }

    /// <summary>Returns the launch of a miscue: a share of the speed, near the aim, without spin.</summary>
    public BallMotion LaunchSlipping(Conditions c, double share) => Leaves(Angle.FromDegrees(AimDegrees), share * Impulse(c), 0, 0, c);

    /// <param name="j">Of the blow, per unit of the ball's mass, m/s.</param>
    private BallMotion Leaves(Angle direction, double j, double a, double b, Conditions c)
    {
        var (sinTheta, cosTheta) = Math.SinCos(ElevationDegrees * Math.PI / 180);
        var (dy, dx) = Math.SinCos(direction.Radians);
        var (lx, ly) = (-dy, dx);
        var spin = 5 * j / (2 * BallRadius);
        var leaves = new BallMotion(
            j * cosTheta * dx,
            j * cosTheta * dy,
            spin * (a * sinTheta * dx + b * lx),
            spin * (a * sinTheta * dy + b * ly),
            spin * a * cosTheta
        );
        return sinTheta > 0 ? Landing.Of(leaves, j * sinTheta, c) : leaves;
    }
}

/// <summary>How a ball moves: velocity (m/s), the vertical part last, and spin about the three axes (rad/s).</summary>
public readonly record struct BallMotion(double Vx, double Vy, double Wx, double Wy, double Wz, double Vz = 0)
{
    /// <summary>Returns this motion turned about the vertical, + to the left, its spin with it.</summary>
    public BallMotion Turned(double radians)
    {
        var (s, c) = Math.SinCos(radians);
        return this with { Vx = c * Vx - s * Vy, Vy = s * Vx + c * Vy, Wx = c * Wx - s * Wy, Wy = s * Wx + c * Wy };
    }

    /// <summary>Kinetic energy per unit mass, J/kg: a solid sphere.</summary>
    public double Energy => 0.5 * (Vx * Vx + Vy * Vy + Vz * Vz) + 0.2 * BallRadius * BallRadius * (Wx * Wx + Wy * Wy + Wz * Wz);
}
