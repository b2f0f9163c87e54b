using Fehler.Web.People;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.Net.Http.Headers;

namespace Fehler.Web.Client;

/// <summary>
/// The client as files: what carries its hash in its name never changes and is kept by browsers for good; the page that names them is asked for
/// each time. Both, and the answers of the interface, go compressed over the wire.
/// </summary>
internal static class ClientFiles
{
    /// <summary>Where the build puts files whose names, or whose folder's name, carry their hash.</summary>
    private static readonly string[] Hashed = ["/assets", "/field"];

    /// <summary>What says where the core for devices is now.</summary>
    private const string Changing = "/field/core.json";

    public static void AddClientFiles(this IServiceCollection services)
    {
        // Nothing secret stands beside what a stranger chooses in any answer: compressed under TLS nothing can be guessed from its length.
        services.AddResponseCompression(o => o.EnableForHttps = true);
        services.Configure<BrotliCompressionProviderOptions>(o => o.Level = System.IO.Compression.CompressionLevel.Fastest);
    }

    /// <summary>Serves the files; before anything else that answers.</summary>
    public static void UseClientFiles(this WebApplication app)
    {
        app.UseResponseCompression();
        app.UseDefaultFiles();
        app.UseStaticFiles(Kept);
    }

    /// <summary>Every address that is none of the interface's belongs to the client, which finds its way itself.</summary>
    public static void MapClient(this WebApplication app) =>
        app.MapFallbackToFile("{*path:regex(^(?!api/).*$)}", "index.html", Kept).ForAnybody();

    private static StaticFileOptions Kept { get; } =
        new()
        {
            OnPrepareResponse = file =>
                file.Context.Response.Headers[HeaderNames.CacheControl] = IsKept(file.Context.Request.Path)
                    ? "public, max-age=31536000, immutable"
                    : "no-cache",
        };

    private static bool IsKept(PathString path) =>
        path != Changing && Hashed.Any(folder => path.StartsWithSegments(folder, StringComparison.Ordinal));
}
