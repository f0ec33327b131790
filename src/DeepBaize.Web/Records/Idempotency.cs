using System.Net.Mime;
using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Data;
using DeepBaize.Data.Answers;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Safeguards;
using DeepBaize.Web.Watching;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace DeepBaize.Web.Records;

/// <summary>Filters of all requests that change what is stored: counted, rate-limited, and created only once per key.</summary>
internal static class Idempotency
{
    /// <summary>Header that marks a request as a retry of an earlier one (IETF draft "The Idempotency-Key HTTP Header Field").</summary>
    public const string Header = "Idempotency-Key";

    /// <summary>Marks an endpoint that changes something: counted, and rate-limited per client.</summary>
    /// <param name="kind">position, shot …</param>
    public static RouteHandlerBuilder Saves(this RouteHandlerBuilder endpoint, string kind) =>
        endpoint
            .RequireRateLimiting(RateLimits.Saves)
            .ProducesProblem(StatusCodes.Status429TooManyRequests)
            .AddEndpointFilter(
                async (context, next) =>
                {
                    var result = await next(context);
                    if (StatusOf(result) < 300)
                        context.HttpContext.RequestServices.GetRequiredService<SearchMeter>().Saved(kind);
                    return result;
                }
            );

    /// <summary>
    /// Marks an endpoint that creates something, with an Idempotency-Key only once: a retry with the same key gets the same answer. The key
    /// is stored in the same transaction as what was created.
    /// </summary>
    public static RouteHandlerBuilder Creates(this RouteHandlerBuilder endpoint, string kind) =>
        endpoint.Saves(kind).AddEndpointFilter(CreateAsync).WithMetadata(new TakesKey());

    /// <summary>Marks the endpoints that take the header, for the API's description.</summary>
    internal sealed record TakesKey;

    private static async ValueTask<object?> CreateAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var http = context.HttpContext;
        if (!http.Request.Headers.TryGetValue(Header, out var sent))
            return await next(context);
        var key = CheckedKey(sent.ToString());
        var db = http.RequestServices.GetRequiredService<DeepBaizeContext>();
        var now = http.RequestServices.GetRequiredService<TimeProvider>().GetUtcNow();
        var request = await FingerprintAsync(http);
        await using var transaction = await db.Database.BeginTransactionAsync(http.RequestAborted);
        // A concurrent retry waits here until the first request is done.
        var isFirst = await db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO answers (owner_id, key, request, status, location, body, created_at)
            VALUES ({User.LocalId}, {key}, {request}, 0, '', '', {now}) ON CONFLICT DO NOTHING
            """,
            http.RequestAborted
        );
        if (isFirst == 0)
            return await RetryAsync(db, key, request, http);
        var result = await next(context);
        // A refused request may be sent again with the same key.
        if (StatusOf(result) is var status && status >= 300)
            return result;
        var (location, body) = (LocationOf(result), BodyOf(result, http));
        await db
            .Answers.Where(a => a.OwnerId == User.LocalId && a.Key == key)
            .ExecuteUpdateAsync(
                set => set.SetProperty(a => a.Status, status).SetProperty(a => a.Location, location).SetProperty(a => a.Body, body),
                http.RequestAborted
            );
        // Commit even if the client has gone.
        await transaction.CommitAsync(CancellationToken.None);
        return result;
    }

    private static async Task<IResult> RetryAsync(DeepBaizeContext db, string key, byte[] request, HttpContext http)
    {
        var kept = await db.Answers.AsNoTracking().SingleAsync(a => a.OwnerId == User.LocalId && a.Key == key, http.RequestAborted);
        if (!kept.Request.AsSpan().SequenceEqual(request))
            throw new RefusedException(
                StatusCodes.Status422UnprocessableEntity,
                "keyReused",
                "This Idempotency-Key belongs to another request.",
                "Choose a new key for each request, and the same one only to ask the same again."
            );
        if (kept.Location != "")
            http.Response.Headers.Location = kept.Location;
        return TypedResults.Text(kept.Body, MediaTypeNames.Application.Json, Encoding.UTF8, kept.Status);
    }

    private static string CheckedKey(string key)
    {
        if (key.Length is 0 or > KeptAnswer.MaxKey || key.Any(c => c is < '!' or > '~'))
            throw new InputException(Header, "This is not a valid key.", $"1 to {KeptAnswer.MaxKey} letters, figures and signs of ASCII");
        return key;
    }

    private static async Task<byte[]> FingerprintAsync(HttpContext http)
    {
        using var all = new MemoryStream();
        all.Write(Encoding.UTF8.GetBytes($"{http.Request.Method} {http.Request.Path}\n"));
        // The body may have been read already: it is buffered.
        http.Request.Body.Position = 0;
        await http.Request.Body.CopyToAsync(all, http.RequestAborted);
        http.Request.Body.Position = 0;
        return SHA256.HashData(all.GetBuffer().AsSpan(0, (int)all.Length));
    }

    private static object? Plain(object? result) => result is INestedHttpResult nested ? nested.Result : result;

    private static int StatusOf(object? result) =>
        Plain(result) is IStatusCodeHttpResult { StatusCode: { } status } ? status : StatusCodes.Status200OK;

    private static string LocationOf(object? result) =>
        Plain(result)?.GetType().GetProperty("Location")?.GetValue(Plain(result)) as string ?? "";

    private static string BodyOf(object? result, HttpContext http)
    {
        var json = http.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        var plain = Plain(result);
        return JsonSerializer.Serialize(plain is IValueHttpResult of ? of.Value : plain, json);
    }
}
