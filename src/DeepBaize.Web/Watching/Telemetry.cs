using OpenTelemetry.Trace;
using Prometheus;
using Serilog;
using Serilog.Events;
using Serilog.Formatting.Compact;

namespace DeepBaize.Web.Watching;

/// <summary>Logs (Serilog), traces (OpenTelemetry) and metrics (prometheus-net). docs/operating.md says what to watch.</summary>
internal static class Telemetry
{
    /// <summary>OpenTelemetry's environment variable for the address that traces are sent to, if any.</summary>
    private const string Receiver = "OTEL_EXPORTER_OTLP_ENDPOINT";

    /// <summary>Name of Npgsql's activity source.</summary>
    private const string Npgsql = "Npgsql";

    public static void AddTelemetry(this WebApplicationBuilder builder)
    {
        // One line of JSON per event: time, level, message, exception, trace and span.
        builder.Services.AddSerilog(log =>
            log.ReadFrom.Configuration(builder.Configuration).Enrich.FromLogContext().WriteTo.Console(new CompactJsonFormatter())
        );
        builder.Services.AddSingleton<SearchMeter>();
        var telemetry = builder
            .Services.AddOpenTelemetry()
            .WithTracing(traces => traces.AddAspNetCoreInstrumentation().AddSource(SearchMeter.Name, Npgsql));
        if (builder.Configuration[Receiver] is not (null or ""))
            telemetry.WithTracing(traces => traces.AddOtlpExporter());
    }

    /// <summary>Logs each request that was refused or failed, with path, status and duration.</summary>
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

    /// <summary>Serves the metrics in Prometheus' format, to requests from this machine only.</summary>
    public static void MapFigures(this WebApplication app) => app.MapMetrics("/metrics").ForWatchers();
}
