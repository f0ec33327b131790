using DeepBaize.Core.Table;

namespace DeepBaize.Core.Physics;

/// <summary>What happens in a shot.</summary>
public enum ShotEventKind
{
    /// <summary>The cue strikes the white.</summary>
    Strike,

    /// <summary>Two balls meet.</summary>
    Ball,

    /// <summary>A ball meets a straight nose.</summary>
    Cushion,

    /// <summary>A ball meets a jaw.</summary>
    Jaw,

    /// <summary>A ball stops sliding and rolls.</summary>
    Roll,

    /// <summary>A ball comes to rest.</summary>
    Stop,

    /// <summary>A ball drops into a pocket.</summary>
    Pot,

    /// <summary>A ball that was off the bed comes down on it.</summary>
    Bed,

    /// <summary>A ball leaves the table.</summary>
    Off,
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

/// <summary>An angular velocity, rad/s about x, y and z.</summary>
public readonly record struct Spin(double X, double Y, double Z);

/// <summary>A piece of a ball's path with constant acceleration: a parabola. Position at τ after Start is p + v·τ + a·τ²/2.</summary>
public readonly record struct PathPiece(int Ball, double Start, double End, double X, double Y, double Vx, double Vy, double Ax, double Ay)
{
    /// <summary>Of the centre above its height at rest, m; its velocity and acceleration upwards. All 0 on the bed.</summary>
    public (double At, double Velocity, double Acceleration) Height { get; init; }

    /// <summary>Angular velocity where the piece begins and where it ends, rad/s about x, y and z; it changes evenly in between.</summary>
    public (Spin Start, Spin End) Turning { get; init; }

    /// <summary>Whether the ball is off the bed.</summary>
    public bool IsInAir => Height.Acceleration != 0;

    /// <summary>How high the ball is at a time within it, m.</summary>
    public double HeightAt(double time)
    {
        var t = time - Start;
        return Height.At + t * (Height.Velocity + 0.5 * Height.Acceleration * t);
    }

    /// <summary>How high it gets, m.</summary>
    public double Highest =>
        !IsInAir ? 0
        : Height.Velocity <= 0 ? Height.At
        : HeightAt(Start + Math.Min(End - Start, Height.Velocity / -Height.Acceleration));

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
    /// <summary>The events, in order of time.</summary>
    public List<ShotEvent> Events { get; } = new(64);

    /// <summary>In order of their end; those of one ball follow on one another.</summary>
    public List<PathPiece> Pieces { get; } = new(64);

    /// <summary>How high a ball gets above its place at rest before a time, m.</summary>
    public double Highest(int ball, double before = double.PositiveInfinity)
    {
        var highest = 0.0;
        foreach (var piece in Pieces)
            if (piece.Ball == ball && piece.IsInAir && piece.Start < before)
                highest = Math.Max(highest, piece.Highest);
        return highest;
    }

    /// <summary>In order of time: events of a cluster come in one after the other, though others may have happened meanwhile.</summary>
    internal void SortEvents()
    {
        for (var i = 1; i < Events.Count; i++)
            for (var k = i; k > 0 && Events[k - 1].Time > Events[k].Time; k--)
                (Events[k - 1], Events[k]) = (Events[k], Events[k - 1]);
    }

    /// <summary>Empties the record.</summary>
    public void Clear()
    {
        Events.Clear();
        Pieces.Clear();
    }
}
