using System.Net;
using DeepBaize.Data;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace DeepBaize.Web.Watching;

/// <summary>
/// Three questions, each with an address of its own: does it run, can it serve, can it save. A full disk leaves the first two as they are.
/// </summary>
internal static class Health
{
    private const string Ready = "ready",
        Save = "save";

    public static void AddHealth(this IServiceCollection services) =>
        services.AddHealthChecks().AddCheck<CanServe>(Ready, tags: [Ready]).AddCheck<CanSave>(Save, tags: [Save]);

    public static void MapHealth(this WebApplication app)
    {
        app.MapHealthChecks("/health/live", Of(null));
        app.MapHealthChecks("/health/ready", Of(Ready));
        // It writes each time that it is asked.
        app.MapHealthChecks("/health/save", Of(Save)).ForWatchers();
        app.MapHealthChecks("/health", new() { Predicate = check => check.Tags.Contains(Ready) });
    }

    private static HealthCheckOptions Of(string? tag) =>
        new()
        {
            Predicate = check => tag is not null && check.Tags.Contains(tag),
            ResponseWriter = (http, report) =>
                http.Response.WriteAsJsonAsync(
                    new
                    {
                        status = report.Status.ToString(),
                        checks = report.Entries.ToDictionary(
                            e => e.Key,
                            e => new { status = e.Value.Status.ToString(), cause = e.Value.Description }
                        ),
                    }
                ),
        };

    /// <summary>Only for who asks from this machine: others get no answer but that there is nothing.</summary>
    public static TBuilder ForWatchers<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder
    {
        endpoint.Add(builder =>
        {
            var answer = builder.RequestDelegate!;
            builder.RequestDelegate = http =>
            {
                if (http.Connection.RemoteIpAddress is null || IPAddress.IsLoopback(http.Connection.RemoteIpAddress))
                    return answer(http);
                http.Response.StatusCode = StatusCodes.Status404NotFound;
                return Task.CompletedTask;
            };
        });
        return endpoint;
    }

    /// <summary>The database answers, and is of the form that this version expects.</summary>
    private sealed class CanServe(DeepBaizeContext db) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
            TriedAsync(async () =>
                (await db.Database.GetPendingMigrationsAsync(cancellationToken)).Any() ? "The database is of an older form." : null
            );
    }

    /// <summary>A row is written and is on the disk.</summary>
    private sealed class CanSave(DeepBaizeContext db, TimeProvider time) : IHealthCheck
    {
        public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
            TriedAsync(async () =>
            {
                await db.Database.ExecuteSqlAsync(
                    $"""
                    INSERT INTO save_checks (owner_id, checked_at) VALUES ({User.LocalId}, {time.GetUtcNow()})
                    ON CONFLICT (owner_id) DO UPDATE SET checked_at = excluded.checked_at
                    """,
                    cancellationToken
                );
                return null;
            });
    }

    private static async Task<HealthCheckResult> TriedAsync(Func<Task<string?>> check)
    {
        try
        {
            return await check() is { } fault ? HealthCheckResult.Unhealthy(fault) : HealthCheckResult.Healthy();
        }
        catch (Exception e) when (e is not OperationCanceledException)
        {
            return HealthCheckResult.Unhealthy(Problems.DatabaseProblems.Of(e)?.Title ?? e.GetBaseException().Message);
        }
    }
}
