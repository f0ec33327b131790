using DeepBaize.Data;
using DeepBaize.Web;
using DeepBaize.Web.Comparing;
using DeepBaize.Web.Cues;
using DeepBaize.Web.Devices;
using DeepBaize.Web.Drawing;
using DeepBaize.Web.Frames;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Learning;
using DeepBaize.Web.Photo;
using DeepBaize.Web.Planning;
using DeepBaize.Web.Players;
using DeepBaize.Web.Positions;
using DeepBaize.Web.Practice;
using DeepBaize.Web.Problems;
using DeepBaize.Web.Records;
using DeepBaize.Web.Safeguards;
using DeepBaize.Web.Safety;
using DeepBaize.Web.Searches;
using DeepBaize.Web.Shots;
using DeepBaize.Web.Simulation;
using DeepBaize.Web.StandIns;
using DeepBaize.Web.Tables;
using DeepBaize.Web.Watching;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.HttpOverrides;

// Judgements wait for the searches' threads on threads of their own: with some at hand, requests and their cancelling are still answered
// at once.
ThreadPool.SetMinThreads(64, 64);

var builder = WebApplication.CreateBuilder(args);
var connection =
    builder.Configuration.GetConnectionString("DeepBaize")
    ?? throw new InvalidOperationException("Set ConnectionStrings__DeepBaize to the PostgreSQL database; ./start does.");

builder.AddTelemetry();
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.AddServerHeader = false;
    kestrel.Limits.MaxRequestBodySize = Limits.BodyBytes;
    kestrel.Limits.RequestHeadersTimeout = TimeSpan.FromSeconds(15);
});

// Searches end by themselves when the application does: nothing else takes longer.
builder.Services.Configure<HostOptions>(host => host.ShutdownTimeout = TimeSpan.FromSeconds(2));
builder.Services.Configure<HostFilteringOptions>(hosts => hosts.IncludeFailureMessage = false);
builder.Services.Configure<ForwardedHeadersOptions>(proxy =>
    proxy.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto
);
builder.Services.Configure<SearchLimits>(builder.Configuration.GetSection("Searches"));
builder.Services.AddDbContext<DeepBaizeContext>(options => DeepBaizeContext.Configure(options, Connections.ForServing(connection)));
builder.Services.AddHealth();
builder.Services.AddRateLimits(builder.Configuration.GetSection("Rates").Get<Rates>() ?? new());
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton<SearchDesk>();
builder.Services.AddSingleton<StandInCameras>();
builder.Services.AddHostedService<SearchWarmUp>();
builder.Services.AddResponseCompression();
builder.Services.AddOpenApi(OpenApiDescription.Configure);
builder.Services.AddProblems();
builder.Services.ConfigureHttpJsonOptions(json => json.SerializerOptions.Strict());

var app = builder.Build();

// Only then what a proxy says of its clients is believed, and only by a proxy on this machine.
if (app.Configuration.GetValue("BehindProxy", false))
    app.UseForwardedHeaders();
app.UseHeaders();
app.UseResponseCompression();
app.UseRequestLog();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UsePage();
app.UseRouting();
app.UseReadableBodies();
app.UseRateLimiter();
app.UseOwnPagesOnly();
app.MapHealth();
app.MapFigures();
app.MapOpenApi("/openapi/{documentName}.json");
app.MapSimulation();
app.MapShots();
app.MapTraces();
app.MapJudgements();
app.MapFans();
app.MapWays();
app.MapSavedShots();
app.MapShotCards();
app.MapPlanning();
app.MapSavedPlans();
app.MapFrames();
app.MapSafety();
app.MapComparing();
app.MapPlayer();
app.MapClubTables();
app.MapCues();
app.MapInHand();
app.MapPhoto();
app.MapRoutines();
app.MapSessions();
app.MapGuesses();
app.MapStatistics();
app.MapPlayerPage();
app.MapSheets();
app.MapAttemptFiles();
app.MapSkills();
app.MapLearning();
app.MapTrials();
app.MapTaken();
app.MapStandIns();
app.MapStandInDevices();
app.MapCameras();
app.MapCueStrokes();
app.MapTables();
app.MapLaying();
app.MapPositions();
app.MapLibrary();

await Preparation.RunAsync(
    connection,
    app.Services.GetRequiredService<TimeProvider>().GetUtcNow(),
    withDemo: app.Configuration.GetValue("Demo", true),
    CancellationToken.None
);
app.Run();

/// <summary>The application's entry point, public so that tests can host it.</summary>
public partial class Program;
