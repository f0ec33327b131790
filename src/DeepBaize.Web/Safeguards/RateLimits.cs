using System.Threading.RateLimiting;

namespace DeepBaize.Web.Safeguards;

/// <summary>How much one client may ask: the section <c>Rates</c> of the settings. A drag is some thirty requests a second.</summary>
public sealed record Rates
{
    /// <summary>Requests a second that may go on for ever.</summary>
    public int PerSecond { get; init; } = 600;

    /// <summary>Requests at once.</summary>
    public int Burst { get; init; } = 6000;

    /// <summary>Of requests that change what is stored, a second.</summary>
    public int SavesPerSecond { get; init; } = 200;

    /// <summary>Of requests that change what is stored, at once.</summary>
    public int SavesBurst { get; init; } = 2000;
}

internal static class RateLimits
{
    public const string Saves = "saves";

    public static void AddRateLimits(this IServiceCollection services, Rates rates) =>
        services.AddRateLimiter(limiter =>
        {
            limiter.RejectionStatusCode = StatusCodes.Status429TooManyRequests;
            limiter.OnRejected = (context, _) =>
            {
                context.HttpContext.Response.Headers.RetryAfter = "1";
                return ValueTask.CompletedTask;
            };
            limiter.GlobalLimiter = PartitionedRateLimiter.Create<HttpContext, string>(http =>
                IsWatching(http.Request)
                    ? RateLimitPartition.GetNoLimiter("watching")
                    : RateLimitPartition.GetTokenBucketLimiter(Clients.Of(http), _ => Bucket(rates.PerSecond, rates.Burst))
            );
            limiter.AddPolicy(Saves, http =>
                RateLimitPartition.GetTokenBucketLimiter(Clients.Of(http), _ => Bucket(rates.SavesPerSecond, rates.SavesBurst))
            );
        });

    /// <summary>Whoever watches over the application is never turned away.</summary>
    private static bool IsWatching(HttpRequest request) =>
        request.Path.StartsWithSegments("/health") || request.Path.StartsWithSegments("/metrics");

    private static TokenBucketRateLimiterOptions Bucket(int perSecond, int burst) =>
        new()
        {
            TokenLimit = Math.Max(burst, perSecond),
            // Ten times a second, so that nobody waits a whole one.
            TokensPerPeriod = Math.Max(1, perSecond / 10),
            ReplenishmentPeriod = TimeSpan.FromMilliseconds(100),
            QueueLimit = 0,
        };
}
