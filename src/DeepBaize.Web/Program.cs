using System.Text.Json.Serialization;
using DeepBaize.Data;
using DeepBaize.Data.Demo;
using DeepBaize.Web;
using DeepBaize.Web.Drawing;
using DeepBaize.Web.Frames;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using DeepBaize.Web.Safety;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;
using DeepBaize.Web.Tables;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

// Searches keep every core busy: with threads at hand, requests and their cancelling are still answered at once, and the system shares the
// cores.
ThreadPool.SetMinThreads(64, 64);

var builder = WebApplication.CreateBuilder(args);
var connection =
    builder.Configuration.GetConnectionString("DeepBaize")
    ?? throw new InvalidOperationException("Set ConnectionStrings__DeepBaize to the PostgreSQL database; ./start does.");

builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = Limits.BodyBytes;
});
builder.Services.AddDbContext<DeepBaizeContext>(options => DeepBaizeContext.Configure(options, connection));
builder.Services.AddHealthChecks().AddCheck<DatabaseHealth>("database");
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<PlanDesk>();
builder.Services.AddHostedService<PlanWarmUp>();
builder.Services.AddResponseCompression();
builder.Services.AddOpenApi(OpenApiDescription.Configure);
builder.Services.AddProblems();
builder.Services.ConfigureHttpJsonOptions(json =>
{
    json.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
    json.SerializerOptions.RespectNullableAnnotations = true;
    json.SerializerOptions.Converters.Add(new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase));
});

var app = builder.Build();
app.UseResponseCompression();
app.UseExceptionHandler();
app.UseReadableBodies();
app.UseStatusCodePages();
app.UsePage();
app.MapHealthChecks("/health");
app.MapOpenApi("/openapi/{documentName}.json");
app.MapSimulation();
app.MapShots();
app.MapJudgements();
app.MapWays();
app.MapSavedShots();
app.MapShotCards();
app.MapPlanning();
app.MapSavedPlans();
app.MapFrames();
app.MapSafety();
app.MapPlayer();
app.MapSkills();
app.MapTables();
app.MapPositions();
app.MapLibrary();

await using (var scope = app.Services.CreateAsyncScope())
{
    var db = scope.ServiceProvider.GetRequiredService<DeepBaizeContext>();
    await db.Database.MigrateAsync();
    await DemoPositions.SeedAsync(db, app.Services.GetRequiredService<TimeProvider>().GetUtcNow());
}
app.Run();

/// <summary>Whether the database answers.</summary>
internal sealed class DatabaseHealth(DeepBaizeContext db) : IHealthCheck
{
    public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
        await db.Database.CanConnectAsync(cancellationToken)
            ? HealthCheckResult.Healthy()
            : HealthCheckResult.Unhealthy("The database does not answer.");
}

/// <summary>The application's entry point, public so that tests can host it.</summary>
public partial class Program;
