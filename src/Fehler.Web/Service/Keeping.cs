using System.Globalization;
using System.Net;
using Fehler.Web.People;
using Microsoft.AspNetCore.HttpOverrides;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;
using Serilog;
using Serilog.Formatting.Json;

namespace Fehler.Web.Service;

/// <summary>What keeps the service running for years: its configuration, logs, figures for a collector, a proxy before it, its end.</summary>
internal static class Keeping
{
    private const long LargestLog = 20_000_000;
    private const int LogsKept = 14;
    private static readonly TimeSpan Farewell = TimeSpan.FromSeconds(10);

    /// <summary>The configuration file, below what the environment and the command line say (docs/operations.md).</summary>
    public static void AddConfigurationFile(this WebApplicationBuilder builder, string[] args)
    {
        if (builder.Configuration["Fehler:Configuration"] is { Length: > 0 } file)
        {
            builder.Configuration.AddJsonFile(Path.GetFullPath(file), optional: true, reloadOnChange: false);
            builder.Configuration.AddEnvironmentVariables().AddCommandLine(args);
        }
    }

    /// <summary>Logs to the console, and as JSON to files that rotate where a folder is given. Bodies, headers and cookies are in neither.</summary>
    public static void AddLogs(this WebApplicationBuilder builder) =>
        builder.Services.AddSerilog(log =>
        {
            log.ReadFrom.Configuration(builder.Configuration).WriteTo.Console(formatProvider: CultureInfo.InvariantCulture);
            if (builder.Configuration["Fehler:LogFolder"] is { Length: > 0 } folder)
            {
                log.WriteTo.File(
                    new JsonFormatter(),
                    Path.Combine(Path.GetFullPath(folder), "fehler-.log"),
                    rollingInterval: RollingInterval.Day,
                    rollOnFileSizeLimit: true,
                    fileSizeLimitBytes: LargestLog,
                    retainedFileCountLimit: LogsKept
                );
            }
        });

    /// <summary>Metrics and traces, where a collector is given (OTEL_EXPORTER_OTLP_ENDPOINT); nothing is sent otherwise.</summary>
    public static void AddTelemetry(this WebApplicationBuilder builder)
    {
        if (string.IsNullOrEmpty(builder.Configuration["OTEL_EXPORTER_OTLP_ENDPOINT"]))
        {
            return;
        }

        builder
            .Services.AddOpenTelemetry()
            .ConfigureResource(r => r.AddService("fehler"))
            .WithMetrics(m => m.AddAspNetCoreInstrumentation().AddRuntimeInstrumentation().AddMeter(Figures.Meter).AddOtlpExporter())
            .WithTracing(t => t.AddAspNetCoreInstrumentation().AddOtlpExporter());
    }

    /// <summary>Ends within seconds when it is told to: what is being written is finished, who listens is let go.</summary>
    public static void AddEnd(this WebApplicationBuilder builder) =>
        builder.Services.Configure<HostOptions>(o =>
        {
            o.ShutdownTimeout = Farewell;
            o.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore;
        });

    /// <summary>Behind a proxy that is named the visitor's address and https are what the proxy says; nobody else is believed.</summary>
    public static void UseProxies(this WebApplication app, AccessSettings access)
    {
        var proxies = app.Configuration.GetSection("Fehler:Proxies").Get<string[]>() ?? [];
        if (proxies.Length > 0)
        {
            var options = new ForwardedHeadersOptions
            {
                ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto,
            };
            options.KnownProxies.Clear();
            options.KnownIPNetworks.Clear();
            foreach (var proxy in proxies)
            {
                options.KnownProxies.Add(IPAddress.Parse(proxy));
            }

            app.UseForwardedHeaders(options);
        }

        if (!access.IsDemo)
        {
            app.UseHsts();
        }
    }
}
