using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Web.BenchChecks;
using Fehler.Web.Bundles;
using Fehler.Web.Circuits;
using Fehler.Web.Client;
using Fehler.Web.Demo;
using Fehler.Web.Diagnosis;
using Fehler.Web.Field;
using Fehler.Web.FollowUps;
using Fehler.Web.Jobs;
using Fehler.Web.Operation;
using Fehler.Web.People;
using Fehler.Web.Photos;
using Fehler.Web.Practice;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Fehler.Web.Service;
using Fehler.Web.Setup;
using Fehler.Web.Trade;
using Fehler.Web.Upkeep;

var builder = WebApplication.CreateBuilder(args);
builder.AddConfigurationFile(args);
builder.AddLogs();
builder.AddTelemetry();
builder.AddEnd();

var database = builder.Configuration["Fehler:Database"] ?? "fehler.db";

if (await Commands.RunAsync(args, database) is { } exit)
{
    return exit;
}

// Compiled circuits and diagnoses take the larger part of the service's memory; the rest is requests and the framework.
var memory = MemoryShares.From(builder.Configuration);
builder.Services.AddSingleton(memory);
var access = AccessSettings.From(builder.Configuration);
builder.AddSignIn(database, access);
builder.Services.AddFehlerData(database, memory.CircuitBytes);
builder.Services.ConfigureHttpJsonOptions(o => JournalJson.Configure(o.SerializerOptions));
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
builder.Services.AddProblemDetails();
builder.Services.AddExceptionHandler<ProblemHandler>();
builder.Services.AddOpenApi("v1", OpenApiShapes.Configure);
builder.Services.AddOutputCache();
builder.Services.AddHealthChecks().AddCheck<DatabaseCheck>("database");
builder.Services.AddClientFiles();
builder.Services.AddForgeryGuard();
builder.Services.AddRateLimits(access);
builder.Services.AddSingleton<YieldingThreads>();
builder.Services.AddSingleton<DiagnosisDesk>();
builder.Services.AddSingleton(BackupSettings.From(builder.Configuration, database, access.IsDemo));
builder.Services.AddSingleton<NightlyBackup>();
builder.Services.AddScoped<DemoImport>();
builder.Services.AddSingleton<Figures>();
if (!OpenApiShapes.IsDocumentBuild)
{
    builder.Services.AddHostedService<WarmUp>();
    builder.Services.AddHostedService<CatchUp>();
    builder.Services.AddHostedService(services => services.GetRequiredService<NightlyBackup>());
}

var app = builder.Build();
app.UseProxies(access);
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseSecurityHeaders();
app.UseLoopbackOnly(access);
app.UseClientFiles();
app.UseRouting();
app.UseRequestRules();
app.UseAuthentication();
app.UseMaker();
app.UseForgeryGuard();
app.UseAuthorization();
app.UseRateLimiter();
app.UseOutputCache();

// The description of the interface is made once; it cannot change while the service runs.
app.MapOpenApi("/api/openapi.json").CacheOutput(p => p.Expire(TimeSpan.FromDays(365))).ForAnybody();
app.MapSession();
app.MapSecondFactor();
app.MapPeople();
app.MapService();
app.MapCircuits();
app.MapJobs();
app.MapJobEvents();
app.MapCorrections();
app.MapDiagnosis();
app.MapSetup();
app.MapOperation();
app.MapPrint();
app.MapJobPrint();
app.MapPhotos();
app.MapFollowUps();
app.MapSums();
app.MapLabels();
app.MapBundles();
app.MapBenchChecks();
app.MapThreeLines();
app.MapTrends();
app.MapUpkeep();
app.MapPlan();
app.MapSpares();
app.MapInsight();
app.MapExercises();
app.MapField();

// Whether the process answers, and whether people can work with it.
app.MapHealthChecks("/api/health/live", new() { Predicate = _ => false }).ForAnybody();
app.MapHealthChecks("/api/health/ready").ForAnybody();
app.MapClient();

if (await Commands.PasswordAsync(args, app.Services) is { } done)
{
    return done;
}

// The build asks a running host for the OpenAPI document; it has no database.
if (OpenApiShapes.IsDocumentBuild)
{
    await app.RunAsync();
    return 0;
}

try
{
    using var file = DatabaseFile.Hold(database);
    using (var scope = app.Services.CreateScope())
    {
        await file.PrepareAsync(scope.ServiceProvider.GetRequiredService<FehlerDb>());
        if (builder.Configuration["Fehler:DemoFolder"] is { Length: > 0 } folder)
        {
            await scope
                .ServiceProvider.GetRequiredService<DemoImport>()
                .RunAsync(folder, builder.Configuration.GetValue("Fehler:DemoHistory", false));
        }

        await app.Services.GetRequiredService<FirstStart>().TellAsync(scope.ServiceProvider.GetRequiredService<PeopleStore>(), default);
    }

    await app.RunAsync();
    return 0;
}
catch (DatabaseException e)
{
    await Console.Error.WriteLineAsync($"fehler: {e.Message}");
    return 1;
}

/// <summary>Entry point, named for the tests' host.</summary>
public partial class Program
{
    protected Program() { }
}
