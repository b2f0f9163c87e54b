using Fehler.Core.Jobs;
using Fehler.Data;
using Fehler.Web.BenchChecks;
using Fehler.Web.Bundles;
using Fehler.Web.Circuits;
using Fehler.Web.Demo;
using Fehler.Web.Diagnosis;
using Fehler.Web.Jobs;
using Fehler.Web.Operation;
using Fehler.Web.Print;
using Fehler.Web.Problems;
using Fehler.Web.Setup;
using Microsoft.EntityFrameworkCore;
using Serilog;

var builder = WebApplication.CreateBuilder(args);
builder.Services.AddSerilog(log => log.ReadFrom.Configuration(builder.Configuration).WriteTo.Console(formatProvider: System.Globalization.CultureInfo.InvariantCulture));

var database = builder.Configuration["Fehler:Database"] ?? "fehler.db";
builder.Services.AddDbContext<FehlerDb>(o => o.UseSqlite($"Data Source={database};Cache=Private;Default Timeout=10"));
builder.Services.ConfigureHttpJsonOptions(o => JournalJson.Configure(o.SerializerOptions));
builder.Services.Configure<RouteHandlerOptions>(o => o.ThrowOnBadRequest = true);
builder.Services.AddProblemDetails();
builder.Services.AddExceptionHandler<BadInputHandler>();
builder.Services.AddOpenApi("v1", OpenApiShapes.Configure);
builder.Services.AddSingleton<CircuitCache>();
builder.Services.AddSingleton<JobSessions>();
builder.Services.AddScoped<CircuitStore>();
builder.Services.AddScoped<JobStore>();
builder.Services.AddScoped<Bundle>();
builder.Services.AddSingleton(TimeProvider.System);
if (!OpenApiShapes.IsDocumentBuild)
{
    builder.Services.AddHostedService<WarmUp>();
}

var app = builder.Build();
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseDefaultFiles();
app.UseStaticFiles();
app.MapOpenApi("/api/openapi.json");
app.MapCircuits();
app.MapJobs();
app.MapDiagnosis();
app.MapSetup();
app.MapOperation();
app.MapPrint();
app.MapBundles();
app.MapBenchChecks();
app.Map("/api/{**rest}", () => TypedResults.Problem("There is nothing at this address; see /api/openapi.json.", statusCode: 404));
app.MapFallbackToFile("index.html");

// The build asks a running host for the OpenAPI document; it has no database.
if (!OpenApiShapes.IsDocumentBuild)
{
    using var scope = app.Services.CreateScope();
    await scope.ServiceProvider.GetRequiredService<FehlerDb>().PrepareAsync();
    if (builder.Configuration["Fehler:DemoFolder"] is { Length: > 0 } folder)
    {
        await DemoImport.RunAsync(scope.ServiceProvider, folder);
    }
}

await app.RunAsync();

/// <summary>Entry point, named for the tests' host.</summary>
public partial class Program
{
    protected Program() { }
}
