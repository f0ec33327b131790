using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>Screw, stun or follow: by the spin that the cue ball arrives with, which makes the angle.</summary>
public enum StrokeKind
{
    /// <summary>The white comes back.</summary>
    Screw,

    /// <summary>A little behind the stun line.</summary>
    StunScrew,

    /// <summary>Along the stun line.</summary>
    Stun,

    /// <summary>A little ahead of the stun line.</summary>
    StunRunThrough,

    /// <summary>The white runs on.</summary>
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
        if (Comes(record, hit.Time, strike, shape.Conditions) is not { } comes)
            return null;
        var first = record.Pieces.First(p => p.Ball == 0);
        var objectPiece = record.Pieces.FirstOrDefault(p => p.Ball == hit.Other && p.Start >= hit.Time - 1e-12);
        if (objectPiece == default)
            return null;
        var launch = strike.Launch(shape.Conditions);
        var left = new Vec2(launch.Vx, launch.Vy).Direction;
        var came = (hit.At - first.From).Direction;
        var centres = (objectPiece.From - hit.At).Direction;
        var went = new Vec2(objectPiece.Vx, objectPiece.Vy).Direction;
        return comes with
        {
            SquirtDegrees = Strike.Squirt(strike.Side, shape.Conditions).Degrees,
            SwerveDegrees = Angle.Between(left, came).Degrees,
            ThrowDegrees = Angle.Between(centres, went).Degrees,
        };
    }

    /// <summary>Speed and spin alone, of a cue ball that was recorded up to a time; null if it was struck at that time.</summary>
    public static Arrival? Comes(ShotRecord record, double time, in Strike strike, Conditions conditions)
    {
        var (last, onBed) = (default(PathPiece), 0.0);
        foreach (var piece in record.Pieces)
        {
            if (piece.Ball != 0 || piece.End > time + 1e-12)
                continue;
            last = piece;
            if (!piece.IsInAir)
                onBed += piece.End - piece.Start;
        }
        var velocity = last.VelocityAtEnd;
        var speed = velocity.Length;
        if (speed == 0)
            return null;
        // Spin is not recorded, but follows: whatever the cloth does, sliding or in a landing, changes v, and Rω by 5/2 of that across;
        // while it rolls, Rω is v.
        var launch = strike.Launch(conditions);
        var rolls = conditions.RollingFriction * conditions.Gravity;
        var (wx, wy) =
            Math.Abs(Math.Sqrt(last.Ax * last.Ax + last.Ay * last.Ay) - rolls) < 1e-9
                ? (-velocity.Y / BallRadius, velocity.X / BallRadius)
                : (launch.Wx + 2.5 / BallRadius * (velocity.Y - launch.Vy), launch.Wy - 2.5 / BallRadius * (velocity.X - launch.Vx));
        var follow = BallRadius * (wy * velocity.X - wx * velocity.Y) / (speed * speed);
        // Side dies on the cloth only.
        var side = Math.Sign(launch.Wz) * Math.Max(0, Math.Abs(launch.Wz) - conditions.SpinDeceleration * onBed);
        return new(speed, follow, side * BallRadius / speed, 0, 0, 0);
    }

    /// <summary>By how much an object ball at rest is thrown off the line of centres, + to the left, degrees.</summary>
    /// <param name="cut">From the cue ball's way to the line of centres.</param>
    public double Thrown(Angle cut, Conditions conditions)
    {
        var (n, spin) = (cut.Unit, Speed / BallRadius);
        var (_, sent) = BallContact.Collide(new(Speed, 0, 0, Follow * spin, SideSpin * spin), default, n.X, n.Y, conditions);
        return Angle.Between(cut, new Vec2(sent.Vx, sent.Vy).Direction).Degrees;
    }
}
