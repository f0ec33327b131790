using System.ComponentModel;
using DeepBaize.Core.Camera;
using DeepBaize.Data.Devices;
using DeepBaize.Data.Positions;

namespace DeepBaize.Web.Devices;

/// <summary>Where the strokes of a camera go.</summary>
public enum CameraGoalKind
{
    None,
    Session,
    Frame,
}

/// <summary>Where a camera's strokes go.</summary>
public sealed record CameraGoalEntry
{
    [Description("session: counted as attempts at what is played there; frame: written down with their score; none: only kept.")]
    public CameraGoalKind Kind { get; init; }

    [Description("Of the session or the frame.")]
    public Guid? Id { get; init; }
}

/// <summary>A camera to connect.</summary>
public sealed record CameraEntry
{
    public required string Name { get; init; }
    public CameraGoalEntry Goal { get; init; } = new();
}

/// <summary>What is changed of a camera.</summary>
public sealed record CameraSave
{
    public required string Name { get; init; }
    public required CameraGoalEntry Goal { get; init; }
}

/// <summary>A camera, and what it says of itself.</summary>
/// <param name="State">empty, settling, still or moving.</param>
/// <param name="Tally">What it has had to put up with, by name.</param>
/// <param name="IsOn">Whether something came from it just now.</param>
public sealed record CameraResult(
    Guid Id,
    string Name,
    bool IsStandIn,
    bool IsOn,
    CameraGoalEntry Goal,
    IReadOnlyList<BallEntry> Balls,
    string State,
    IReadOnlyDictionary<string, int> Tally,
    DateTimeOffset? SeenAt,
    long Changes
)
{
    /// <summary>Nothing from it for longer: it is off, or has been cut off.</summary>
    private static readonly TimeSpan Off = TimeSpan.FromSeconds(4);

    public static CameraResult Of(Camera camera, DateTimeOffset now) =>
        new(
            camera.Id,
            camera.Name,
            camera.IsStandIn,
            camera.SeenAt is { } seen && now - seen < Off,
            new() { Kind = Enum.Parse<CameraGoalKind>(camera.Goal.Kind, ignoreCase: true), Id = camera.Goal.Id },
            camera.Balls,
            camera.Told.State,
            camera.Told.Tally,
            camera.SeenAt,
            camera.Changes
        );
}

/// <summary>A stroke that a camera saw, and what was made of it.</summary>
public sealed record CameraStrokeResult(
    Guid Id,
    DateTimeOffset At,
    CameraStrokeContent Stroke,
    CameraBecame Became,
    bool IsDropped,
    bool IsCorrected,
    uint Version
)
{
    public static CameraStrokeResult Of(CameraStroke s) => new(s.Id, s.At, s.Content, s.Became, s.IsDropped, s.IsCorrected, s.Version);
}

/// <summary>A camera with those of its strokes that are new or have changed.</summary>
public sealed record CameraState(CameraResult Camera, IReadOnlyList<CameraStrokeResult> Strokes);

/// <summary>What a file of a camera shows.</summary>
public sealed record CameraReading(IReadOnlyList<CameraStrokeContent> Strokes, IReadOnlyList<BallEntry> Balls, CameraTold Told);

/// <summary>A ball that went, as somebody says.</summary>
public sealed record GoneEntry
{
    public required string Ball { get; init; }

    [Description("Null: off the table, or not known.")]
    public string? Pocket { get; init; }
}

/// <summary>What was wrong with a stroke.</summary>
public sealed record StrokeCorrection
{
    public uint Version { get; init; }

    [Description("The ball that the white met first; null if it met none.")]
    public string? First { get; init; }
    public IReadOnlyList<GoneEntry> Gone { get; init; } = [];
}

internal static class CameraWire
{
    private static double Rounded(double v) => Math.Round(v, 4);

    public static BallEntry Of(Core.Table.PlacedBall ball) =>
        new()
        {
            Id = ball.Ball.Id,
            X = Rounded(ball.X),
            Y = Rounded(ball.Y),
        };

    public static CameraStrokeContent Of(WatchedStroke s) =>
        new(
            Rounded(s.StartedAt),
            Rounded(s.EndedAt),
            [.. s.Before.Select(Of)],
            [.. s.After.Select(Of)],
            s.First?.Id,
            [.. s.Gone.Select(g => new StrokeGone(g.Ball.Id, g.Pocket is { } p ? Core.Table.Pockets.Name(p) : null))],
            [
                .. s.Paths.Select(p => new StrokePath(
                    p.Ball.Id,
                    [.. p.Points.Select(x => new[] { Rounded(x.Time), Rounded(x.At.X), Rounded(x.At.Y) })]
                )),
            ],
            Rounded(s.DirectionDegrees),
            Rounded(s.Speed),
            [.. s.Doubts.Select(d => char.ToLowerInvariant($"{d}"[0]) + $"{d}"[1..])]
        );

    public static CameraTold Told(TableWatch watch)
    {
        var t = watch.Tally;
        return new(
            $"{watch.State}".ToLowerInvariant(),
            new Dictionary<string, int>
            {
                ["pictures"] = t.Pictures,
                ["leftOut"] = t.LeftOut,
                ["late"] = t.Late,
                ["jumpsBack"] = t.JumpsBack,
                ["mistaken"] = t.Mistaken,
                ["gaps"] = t.Gaps,
                ["lost"] = t.Lost,
                ["repeated"] = t.Repeated,
                ["hands"] = t.Hands,
            }
        );
    }
}
