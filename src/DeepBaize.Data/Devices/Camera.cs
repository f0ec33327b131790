using DeepBaize.Data.Positions;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Devices;

/// <summary>Where the strokes go that a camera sees.</summary>
/// <param name="Kind">session, frame, or none: they are only kept.</param>
/// <param name="Id">Of the session or frame.</param>
public sealed record CameraGoal(string Kind, Guid? Id);

/// <summary>What a camera has had to put up with, by name, and how often.</summary>
public sealed record CameraTold(string State, IReadOnlyDictionary<string, int> Tally);

/// <summary>A camera over a table.</summary>
public sealed class Camera : IVersioned
{
    public const int MaxName = 60;

    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required string Name { get; set; }

    /// <summary>A made-up one that ships with the application.</summary>
    public bool IsStandIn { get; init; }

    /// <summary>Of a made-up one: whether it is to go on. Whoever runs it, on whatever instance, looks here.</summary>
    public bool IsWanted { get; set; }
    public required CameraGoal Goal { get; set; }

    /// <summary>The balls where they were seen last.</summary>
    public required IReadOnlyList<BallEntry> Balls { get; set; }
    public required CameraTold Told { get; set; }

    /// <summary>When something came from it last; null: never.</summary>
    public DateTimeOffset? SeenAt { get; set; }

    /// <summary>Counted up with everything that comes from it or is changed: whoever looks on asks for what is newer.</summary>
    public long Changes { get; set; }
    public required DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }
}

/// <summary>A ball that went in, and its pocket; off: it left the table.</summary>
public sealed record StrokeGone(string Ball, string? Pocket);

/// <summary>A ball's way, points of time and place.</summary>
public sealed record StrokePath(string Ball, IReadOnlyList<double[]> Points);

/// <summary>A stroke as a camera saw it. Balls by name, m, s, m/s, degrees.</summary>
/// <param name="StartedAt">By the camera's clock, s.</param>
public sealed record CameraStrokeContent(
    double StartedAt,
    double EndedAt,
    IReadOnlyList<BallEntry> Before,
    IReadOnlyList<BallEntry> After,
    string? First,
    IReadOnlyList<StrokeGone> Gone,
    IReadOnlyList<StrokePath> Paths,
    double Direction,
    double Speed,
    IReadOnlyList<string> Doubts
);

/// <summary>What was made of a stroke.</summary>
/// <param name="Kind">attempt, shot, or none.</param>
/// <param name="In">The session or frame.</param>
/// <param name="Id">Of the attempt.</param>
/// <param name="Number">Of the shot of a frame: its place, from nought.</param>
/// <param name="Why">Of none, why not, by a word that the page knows.</param>
public sealed record CameraBecame(string Kind, Guid? In = null, Guid? Id = null, int? Number = null, string? Why = null);

/// <summary>A stroke that a camera saw.</summary>
public sealed class CameraStroke : IVersioned
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid CameraId { get; init; }
    public required DateTimeOffset At { get; init; }
    public required CameraStrokeContent Content { get; set; }
    public required CameraBecame Became { get; set; }

    /// <summary>Somebody said that it was wrong.</summary>
    public bool IsDropped { get; set; }

    /// <summary>Somebody has put it right.</summary>
    public bool IsCorrected { get; set; }

    /// <summary>Which of the camera's changes was its last.</summary>
    public long ChangedIn { get; set; }
    public uint Version { get; init; }
}

internal sealed class CameraConfiguration : IEntityTypeConfiguration<Camera>
{
    public void Configure(EntityTypeBuilder<Camera> camera)
    {
        camera.ToTable("cameras");
        camera.Property(c => c.Name).HasMaxLength(Camera.MaxName);
        camera.Property(c => c.Goal).IsJson();
        camera.Property(c => c.Balls).IsJson();
        camera.Property(c => c.Told).IsJson();
        camera.Property(c => c.Version).IsRowVersion();
        camera.HasIndex(c => new { c.OwnerId, c.CreatedAt });
        camera.HasOne<User>().WithMany().HasForeignKey(c => c.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}

internal sealed class CameraStrokeConfiguration : IEntityTypeConfiguration<CameraStroke>
{
    public void Configure(EntityTypeBuilder<CameraStroke> stroke)
    {
        stroke.ToTable("camera_strokes");
        stroke.Property(s => s.Content).IsJson();
        stroke.Property(s => s.Became).IsJson();
        stroke.Property(s => s.Version).IsRowVersion();
        stroke.HasIndex(s => new { s.CameraId, s.At });
        stroke.HasOne<Camera>().WithMany().HasForeignKey(s => s.CameraId).OnDelete(DeleteBehavior.Cascade);
        stroke.HasOne<User>().WithMany().HasForeignKey(s => s.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
