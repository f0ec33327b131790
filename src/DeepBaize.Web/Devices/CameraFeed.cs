using DeepBaize.Core.Camera;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Devices;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Devices;

/// <summary>Takes what a camera sees, and keeps what comes of it: where the balls are, and each stroke with what is made of it.</summary>
internal sealed class CameraFeed(IServiceScopeFactory scopes, TimeProvider time, Guid camera)
{
    /// <summary>Whoever looks on sees the balls move so often.</summary>
    private static readonly TimeSpan TellEvery = TimeSpan.FromSeconds(0.4);

    private readonly TableWatch _watch = new(new(Conditions.Default));
    private DateTimeOffset _toldAt;

    /// <summary>Strokes that have been kept.</summary>
    public int Strokes { get; private set; }

    /// <summary>What the camera says of itself by now.</summary>
    public CameraTold Told => CameraWire.Told(_watch);

    /// <summary>Whether the camera is still wanted, as it was when it was told of last.</summary>
    public bool IsWanted { get; private set; } = true;

    public async Task SeeAsync(Sighting sighting, CancellationToken cancel)
    {
        if (_watch.See(sighting) is { } stroke)
            await KeepAsync(stroke, cancel);
        else if (time.GetUtcNow() - _toldAt > TellEvery)
            await TellAsync(cancel);
    }

    public async Task EndAsync(CancellationToken cancel)
    {
        if (_watch.End() is { } stroke)
            await KeepAsync(stroke, cancel);
        await TellAsync(cancel);
    }

    private async Task TellAsync(CancellationToken cancel)
    {
        _toldAt = time.GetUtcNow();
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DeepBaizeContext>();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        if (await db.HoldCameraAsync(camera, cancel) is not { } row)
        {
            IsWanted = false;
            return;
        }
        Write(row);
        IsWanted = row.IsWanted;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
    }

    private void Write(Camera row)
    {
        row.Balls = [.. _watch.Balls.Select(CameraWire.Of)];
        row.Told = Told;
        row.SeenAt = time.GetUtcNow();
        row.Changes++;
    }

    private async Task KeepAsync(WatchedStroke stroke, CancellationToken cancel)
    {
        _toldAt = time.GetUtcNow();
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DeepBaizeContext>();
        var kept = new CameraStroke
        {
            OwnerId = User.LocalId,
            CameraId = camera,
            At = time.GetUtcNow(),
            Content = CameraWire.Of(stroke),
            Became = new("none"),
        };
        var goal = await db.Cameras.AsNoTracking().Where(c => c.Id == camera).Select(c => c.Goal).SingleOrDefaultAsync(cancel);
        if (goal is null)
            return;
        // Kept first: whatever hinders the rest, the stroke is there.
        await using (var transaction = await db.Database.BeginTransactionAsync(cancel))
        {
            if (await db.HoldCameraAsync(camera, cancel) is not { } row)
                return;
            Write(row);
            kept.ChangedIn = row.Changes;
            db.Add(kept);
            await db.SaveChangesAsync(cancel);
            await transaction.CommitAsync(CancellationToken.None);
        }
        Strokes++;
        var became = await StrokeTaking.TakeAsync(db, goal, kept, time, cancel);
        await db.ChangeStrokeAsync(kept.Id, s => s.Became = became, cancel);
    }
}

/// <summary>Rows of cameras and their strokes.</summary>
internal static class CameraRows
{
    /// <summary>Locks a camera for the rest of a transaction; null if there is none.</summary>
    public static async Task<Camera?> HoldCameraAsync(this DeepBaizeContext db, Guid id, CancellationToken cancel) =>
        await db
            .Cameras.FromSql($"SELECT *, xmin FROM cameras WHERE id = {id} AND owner_id = {User.LocalId} FOR UPDATE")
            .SingleOrDefaultAsync(cancel);

    /// <summary>Changes a stroke, and says so to whoever looks on.</summary>
    public static async Task<CameraStroke?> ChangeStrokeAsync(
        this DeepBaizeContext db,
        Guid id,
        Action<CameraStroke> change,
        CancellationToken cancel
    )
    {
        db.ChangeTracker.Clear();
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        var camera = await db
            .CameraStrokes.Where(s => s.Id == id && s.OwnerId == User.LocalId)
            .Select(s => s.CameraId)
            .SingleOrDefaultAsync(cancel);
        if (await db.HoldCameraAsync(camera, cancel) is not { } row)
            return null;
        var stroke = await db.CameraStrokes.SingleAsync(s => s.Id == id, cancel);
        change(stroke);
        stroke.ChangedIn = ++row.Changes;
        await db.SaveChangesAsync(cancel);
        await transaction.CommitAsync(CancellationToken.None);
        return stroke;
    }
}
