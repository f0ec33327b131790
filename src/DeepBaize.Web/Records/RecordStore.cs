using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Data;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Records;

/// <summary>How a kind of record is spoken of in problems.</summary>
/// <param name="Name">position, frame …</param>
/// <param name="WhereGone">What to do if there is none.</param>
/// <param name="WhenChanged">What to do if it has been saved elsewhere.</param>
internal sealed record RecordKind(string Name, string WhereGone, string WhenChanged)
{
    public ProblemHttpResult Missing() =>
        TypedResults.Problem(statusCode: StatusCodes.Status404NotFound, title: $"There is no such {Name}.", detail: WhereGone);

    /// <param name="current">As it is stored now.</param>
    /// <param name="sent">As it was to become; null if it was to be deleted.</param>
    public ProblemHttpResult Conflict(object current, object? sent) =>
        TypedResults.Problem(
            statusCode: StatusCodes.Status409Conflict,
            title: $"This {Name} has been saved elsewhere since you opened it.",
            detail: WhenChanged,
            extensions: new Dictionary<string, object?> { ["current"] = current, ["sent"] = sent }
        );
}

/// <summary>What is the same for every kind of record that is stored: making one, changing one, reading one from a file.</summary>
internal static class RecordStore
{
    /// <summary>Stores a new one, and answers with it and its address.</summary>
    public static async Task<Created<TResult>> CreateAsync<TRecord, TResult>(
        this DeepBaizeContext db,
        TRecord record,
        Func<TRecord, string> address,
        Func<TRecord, TResult> result,
        CancellationToken cancel
    )
        where TRecord : class
    {
        db.Add(record);
        await db.SaveChangesAsync(cancel);
        return TypedResults.Created(address(record), result(record));
    }

    /// <summary>Changes one, unless it has been changed by somebody else since it was read: then 409, with the newer one inside.</summary>
    /// <param name="own">The rows that may be changed.</param>
    /// <param name="which">With its version as it was read, and what was sent, for whoever has to put the two together.</param>
    public static async Task<Results<Ok<TResult>, ProblemHttpResult>> ChangeAsync<TRecord, TResult>(
        this DeepBaizeContext db,
        RecordKind kind,
        IQueryable<TRecord> own,
        (Guid Id, uint Version, object Sent) which,
        Action<TRecord> change,
        Func<TRecord, TResult> result,
        CancellationToken cancel
    )
        where TRecord : class, IVersioned
        where TResult : notnull
    {
        if (await own.SingleOrDefaultAsync(r => r.Id == which.Id, cancel) is not { } record)
            return kind.Missing();
        db.Entry(record).Property(r => r.Version).OriginalValue = which.Version;
        change(record);
        try
        {
            await db.SaveChangesAsync(cancel);
        }
        catch (DbUpdateConcurrencyException)
        {
            db.ChangeTracker.Clear();
            var current = await own.AsNoTracking().SingleOrDefaultAsync(r => r.Id == which.Id, cancel);
            return current is null ? kind.Missing() : kind.Conflict(result(current), which.Sent);
        }
        return TypedResults.Ok(result(record));
    }

    /// <summary>Deletes one for good, unless it has been changed since it was read.</summary>
    /// <param name="own">The rows that may be deleted.</param>
    public static async Task<Results<NoContent, ProblemHttpResult>> DeleteAsync<TRecord, TResult>(
        this DeepBaizeContext db,
        RecordKind kind,
        IQueryable<TRecord> own,
        (Guid Id, uint Version) which,
        Func<TRecord, TResult> result,
        CancellationToken cancel
    )
        where TRecord : class, IVersioned
        where TResult : notnull
    {
        if (await own.Where(r => r.Id == which.Id && r.Version == which.Version).ExecuteDeleteAsync(cancel) > 0)
            return TypedResults.NoContent();
        return await own.NotAsReadAsync(kind, which.Id, result, cancel);
    }

    /// <summary>Puts a row into the bin, unless it has been changed since it was read.</summary>
    /// <param name="atHand">The rows that are not in the bin.</param>
    public static async Task<Results<NoContent, ProblemHttpResult>> BinAsync<TRecord, TResult>(
        this IQueryable<TRecord> atHand,
        RecordKind kind,
        (Guid Id, uint Version) which,
        TimeProvider time,
        Func<TRecord, TResult> result,
        CancellationToken cancel
    )
        where TRecord : class, IBinned
        where TResult : notnull
    {
        var binned = await atHand
            .Where(r => r.Id == which.Id && r.Version == which.Version)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.DeletedAt, time.GetUtcNow()), cancel);
        return binned > 0 ? TypedResults.NoContent() : await atHand.NotAsReadAsync(kind, which.Id, result, cancel);
    }

    /// <summary>Takes a row out of the bin; one that is not in it stays as it is.</summary>
    public static Task UnbinAsync<TRecord>(this IQueryable<TRecord> own, Guid id, CancellationToken cancel)
        where TRecord : class, IBinned =>
        own.Where(r => r.Id == id && r.DeletedAt != null)
            .ExecuteUpdateAsync(set => set.SetProperty(r => r.DeletedAt, (DateTimeOffset?)null), cancel);

    /// <summary>What is said of a row that was not there as it was read: that it is gone, or what it is now.</summary>
    public static async Task<ProblemHttpResult> NotAsReadAsync<TRecord, TResult>(
        this IQueryable<TRecord> own,
        RecordKind kind,
        Guid id,
        Func<TRecord, TResult> result,
        CancellationToken cancel
    )
        where TRecord : class, IVersioned
        where TResult : notnull =>
        await own.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id, cancel) is { } current
            ? kind.Conflict(result(current), sent: null)
            : kind.Missing();

    /// <summary>A file that was sent as the body.</summary>
    /// <exception cref="InputException">There is nothing in it.</exception>
    /// <exception cref="JsonException">It is no file of this kind.</exception>
    public static async Task<TFile> ReadFileAsync<TFile>(
        this HttpRequest request,
        JsonSerializerOptions json,
        string kind,
        CancellationToken cancel
    )
        where TFile : class =>
        await JsonSerializer.DeserializeAsync<TFile>(request.Body, json, cancel)
        ?? throw new InputException("body", "The file is empty.", $"a {kind} file as in docs/formats.md");

    /// <summary>Whether a file is of the kind and version that is read here.</summary>
    /// <exception cref="InputException">It is not.</exception>
    public static void CheckFile(string kind, (string Format, int Version) file, (string Format, int Latest) known)
    {
        var checks = new Checks();
        checks.That(file.Format == known.Format, "format", $"This is not a {kind} file.", known.Format);
        checks.That(
            file.Version >= 1 && file.Version <= known.Latest,
            "version",
            $"Version {file.Version} is not known.",
            known.Latest == 1 ? "1" : $"1 to {known.Latest}"
        );
        checks.ThrowIfAny();
    }
}
