using DeepBaize.Core.Geometry;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>What happens in a shot.</summary>
public enum ShotEventKind
{
    Strike,
    Ball,
    Cushion,
    Jaw,
    Roll,
    Stop,
    Pot,
}

/// <summary>Something that happened in a shot.</summary>
/// <param name="Time">Seconds after the strike.</param>
/// <param name="Ball">Slot of the ball it happened to; of two balls, the one that ran into the other.</param>
/// <param name="Other">Slot of the ball that was met, or −1.</param>
/// <param name="X">Of the ball's centre, m.</param>
/// <param name="Y">Of the ball's centre, m.</param>
/// <param name="Pocket">Of a pot or a jaw, else null.</param>
/// <param name="Speed">Of the approach for a contact, of the ball otherwise; m/s.</param>
public readonly record struct ShotEvent(
    double Time,
    ShotEventKind Kind,
    int Ball,
    int Other,
    double X,
    double Y,
    Pocket? Pocket,
    double Speed
)
{
    /// <summary>Where the ball's centre is, m.</summary>
    public Vec2 At => new(X, Y);

    /// <summary>Whether it is a contact of the white, in slot 0, with another ball.</summary>
    public bool IsOfWhiteWithBall => Kind == ShotEventKind.Ball && (Ball == 0 || Other == 0);
}

/// <summary>A piece of a ball's path with constant acceleration: a parabola. Position at τ after Start is p + v·τ + a·τ²/2.</summary>
public readonly record struct PathPiece(int Ball, double Start, double End, double X, double Y, double Vx, double Vy, double Ax, double Ay)
{
    /// <summary>Where it begins, m.</summary>
    public Vec2 From => new(X, Y);

    /// <summary>Where it ends, m.</summary>
    public Vec2 To => At(End);

    /// <summary>The velocity at its end, m/s.</summary>
    public Vec2 VelocityAtEnd => new(Vx + Ax * (End - Start), Vy + Ay * (End - Start));

    /// <summary>Where the ball is at a time within it, m.</summary>
    public Vec2 At(double time)
    {
        var t = time - Start;
        return new(X + t * (Vx + 0.5 * Ax * t), Y + t * (Vy + 0.5 * Ay * t));
    }
}

/// <summary>What a simulation writes down when asked to. Reused from shot to shot, it allocates nothing once grown.</summary>
public sealed class ShotRecord
{
    public List<ShotEvent> Events { get; } = new(64);

    /// <summary>In order of their end; those of one ball follow on one another.</summary>
    public List<PathPiece> Pieces { get; } = new(64);

    public void Clear()
    {
        Events.Clear();
        Pieces.Clear();
    }
}
