using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>Screw, stun or follow: by the spin that the cue ball arrives with, which makes the angle.</summary>
public enum StrokeKind
{
    Screw,
    StunScrew,
    Stun,
    StunRunThrough,
    Follow,
}

/// <summary>
/// How the cue ball comes to the object ball, and what turned the shot off its plain line: known once the stroke has been played.
/// </summary>
/// <param name="Speed">m/s at contact.</param>
/// <param name="Follow">
/// Spin about the axis across its way, over that of a rolling ball: 1 rolls, 0 stun, negative screw. It, not the tip, makes the angle.
/// </param>
/// <param name="SideSpin">Rω_z over the speed; + as right-hand side.</param>
/// <param name="SquirtDegrees">From the aim to the direction in which the ball left, + to the left.</param>
/// <param name="SwerveDegrees">From there to the line on which it came to the contact.</param>
/// <param name="ThrowDegrees">From the line of centres to the object ball's way.</param>
public readonly record struct Arrival(
    double Speed,
    double Follow,
    double SideSpin,
    double SquirtDegrees,
    double SwerveDegrees,
    double ThrowDegrees
)
{
    /// <summary>What the trade calls a stroke that arrives so.</summary>
    public StrokeKind Kind =>
        Follow switch
        {
            < -0.35 => StrokeKind.Screw,
            < -0.08 => StrokeKind.StunScrew,
            < 0.12 => StrokeKind.Stun,
            < 0.45 => StrokeKind.StunRunThrough,
            _ => StrokeKind.Follow,
        };

    /// <summary>
    /// Of a shot just recorded: at the ball that the cue ball, in slot 0, meets first; null if it meets something else before, or none.
    /// </summary>
    public static Arrival? Of(ShotRecord record, in Strike strike, TableShape shape)
    {
        ShotEvent? contact = null;
        foreach (var e in record.Events)
        {
            if (e.Kind is not (ShotEventKind.Ball or ShotEventKind.Cushion or ShotEventKind.Jaw or ShotEventKind.Pot))
                continue;
            if (e.Kind == ShotEventKind.Ball && e.Ball == 0)
                contact = e;
            break;
        }
        if (contact is not { } hit)
            return null;
        // Struck while in contact: nothing comes between tip and ball.
        var last = record.Pieces.LastOrDefault(p => p.Ball == 0 && p.End <= hit.Time + 1e-12);
        if (last == default)
            return null;
        var first = record.Pieces.First(p => p.Ball == 0);
        var objectPiece = record.Pieces.FirstOrDefault(p => p.Ball == hit.Other && p.Start >= hit.Time - 1e-12);
        if (objectPiece == default)
            return null;
        var velocity = last.VelocityAtEnd;
        var speed = velocity.Length;

        // Spin is not recorded, but follows: whatever the cloth does, sliding or in a landing, changes v, and Rω by 5/2 of that across;
        // while it rolls, Rω is v.
        var launch = strike.Launch(shape.Conditions);
        var rolls = shape.Conditions.RollingFriction * shape.Conditions.Gravity;
        var (wx, wy) =
            Math.Abs(Math.Sqrt(last.Ax * last.Ax + last.Ay * last.Ay) - rolls) < 1e-9
                ? (-velocity.Y / BallRadius, velocity.X / BallRadius)
                : (launch.Wx + 2.5 / BallRadius * (velocity.Y - launch.Vy), launch.Wy - 2.5 / BallRadius * (velocity.X - launch.Vx));
        var follow = BallRadius * (wy * velocity.X - wx * velocity.Y) / (speed * speed);
        // Side dies on the cloth only.
        var onBed = record.Pieces.Where(p => p.Ball == 0 && !p.IsInAir && p.End <= hit.Time + 1e-12).Sum(p => p.End - p.Start);
        var side = Math.Sign(launch.Wz) * Math.Max(0, Math.Abs(launch.Wz) - shape.Conditions.SpinDeceleration * onBed);

        var left = new Vec2(launch.Vx, launch.Vy).Direction;
        var came = (hit.At - first.From).Direction;
        var centres = (objectPiece.From - hit.At).Direction;
        var went = new Vec2(objectPiece.Vx, objectPiece.Vy).Direction;
        return new(
            speed,
            follow,
            side * BallRadius / speed,
            Strike.Squirt(strike.Side, shape.Conditions).Degrees,
            Angle.Between(left, came).Degrees,
            Angle.Between(centres, went).Degrees
        );
    }
}
