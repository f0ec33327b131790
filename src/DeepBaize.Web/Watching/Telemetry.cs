using OpenTelemetry.Metrics;
using OpenTelemetry.Trace;
using Prometheus;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace DeepBaize.Web.Watching;

/// <summary>What is seen from outside: the log, traces and figures. docs/operating.md says what to look at.</summary>
internal static class Telemetry
{
    /// <summary>By OpenTelemetry's own environment variable: where traces and figures are sent, if anywhere.</summary>
    private const string Receiver = "OTEL_EXPORTER_OTLP_ENDPOINT";

    /// <summary>The one place that Npgsql names what it counts and traces by.</summary>
    private const string Npgsql = "Npgsql";

    public static void AddTelemetry(this WebApplicationBuilder builder)
    {
        // A line of JSON an event: time, level, message, cause, trace and span.
        builder.Services.AddSerilog(log =>
            log.ReadFrom.Configuration(builder.Configuration).Enrich.FromLogContext().WriteTo.Console(new CompactJsonFormatter())
        );
        builder.Services.AddSingleton<SearchMeter>();
        var telemetry = builder
            .Services.AddOpenTelemetry()
            .WithTracing(traces => traces.AddAspNetCoreInstrumentation().AddSource(SearchMeter.Name, Npgsql))
            .WithMetrics(figures =>
                figures.AddMeter(SearchMeter.Name, "Microsoft.AspNetCore.Hosting", "Microsoft.AspNetCore.Server.Kestrel", Npgsql)
            );
        if (builder.Configuration[Receiver] is not (null or ""))
        {
            telemetry.WithTracing(traces => traces.AddOtlpExporter());
            telemetry.WithMetrics(figures => figures.AddOtlpExporter());
        }
    }

    /// <summary>Each request that was refused or failed is a line of the log, with path, status and how long it took.</summary>
    public static void UseRequestLog(this WebApplication app) =>
        app.UseSerilogRequestLogging(options =>
        {
            options.IncludeQueryInRequestPath = false;
            options.GetLevel = (http, _, failure) =>
                http.Response.StatusCode switch
                {
                    >= 500 => LogEventLevel.Error,
                    StatusCodes.Status403Forbidden or StatusCodes.Status429TooManyRequests => LogEventLevel.Warning,
                    _ => failure is null ? LogEventLevel.Debug : LogEventLevel.Information,
                };
        });

    /// <summary>The same figures for Prometheus, for whoever asks from this machine.</summary>
    public static void MapFigures(this WebApplication app) => app.MapMetrics("/metrics").ForWatchers();
}
