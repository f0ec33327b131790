using DeepBaize.Core.Table;

namespace DeepBaize.Core.Camera;

/// <summary>A ball that went in or off the table.</summary>
/// <param name="Pocket">Null: it left the table, or was last seen near no pocket.</param>
public readonly record struct GoneBall(Ball Ball, Pocket? Pocket);

/// <summary>A ball's way as it was seen, in straight pieces.</summary>
public sealed record SeenPath(Ball Ball, IReadOnlyList<(double Time, Vec2 At)> Points);

/// <summary>What of a stroke was not seen well.</summary>
public enum WatchDoubt
{
    /// <summary>Nothing was seen for longer than a quarter of a second while balls moved.</summary>
    Gap,

    /// <summary>Two balls may have been met first.</summary>
    FirstBall,

    /// <summary>A ball was lost from sight away from all pockets.</summary>
    LostBall,
}

/// <summary>A stroke as a camera saw it.</summary>
/// <param name="StartedAt">By the camera's clock, s.</param>
/// <param name="EndedAt">When everything had come to rest, by the camera's clock, s.</param>
/// <param name="Before">The balls at rest before it.</param>
/// <param name="After">The balls at rest after it. What a referee has put back meanwhile is among them.</param>
/// <param name="First">The ball that the white met first; null if it met none.</param>
/// <param name="Gone">Balls that went in or off, the white too.</param>
/// <param name="Paths">Of the balls that moved, the white first.</param>
public sealed record WatchedStroke(
    double StartedAt,
    double EndedAt,
    IReadOnlyList<PlacedBall> Before,
    IReadOnlyList<PlacedBall> After,
    Ball? First,
    IReadOnlyList<GoneBall> Gone,
    IReadOnlyList<SeenPath> Paths
)
{
    /// <summary>In which the white left, degrees counter-clockwise from straight up the table.</summary>
    public double DirectionDegrees { get; init; }

    /// <summary>With which the white left, m/s.</summary>
    public double Speed { get; init; }

    /// <summary>What was not seen well.</summary>
    public IReadOnlyList<WatchDoubt> Doubts { get; init; } = [];

    /// <summary>Where the white stopped, m; null if it went in or off.</summary>
    public Vec2? White => Gone.Any(g => g.Ball == Ball.White) ? null : PlaceOf(Ball.White);

    /// <summary>Where a ball lies after the stroke; null if it is not on the table.</summary>
    public Vec2? PlaceOf(Ball ball) => After.Where(b => b.Ball == ball).Select(b => (Vec2?)b.At).FirstOrDefault();
}
