using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Fehler.Web.Security;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Fehler.Web.Bundles;

internal static class BundleEndpoints
{
    private const long LargestBundle = 200_000_000;

    public static void MapBundles(this IEndpointRouteBuilder routes)
    {
        var bundles = routes.MapGroup("/api/bundle").WithTags("Bundle");
        bundles
            .MapGet("", Download)
            .WithName("downloadBundle")
            .WithSummary("Circuits with their history as one zip; circuit=id for one of them")
            .Produces<Stream>(200, "application/zip");
        bundles
            .MapPost("", Import)
            .WithName("importBundle")
            .RequireRateLimiting(RateLimits.TakingIn)
            .Needs(Rights.Planning)
            .WithSummary("Takes a bundle in; a second time changes nothing")
            .WithDescription("'from' says where it comes from, as the journals will show it. What cannot be used is set aside and said.")
            .Accepts<Stream>("application/zip")
            .WithMetadata(new RequestSizeLimitAttribute(LargestBundle))
            .ProducesProblem(413)
            .ProducesProblem(415)
            .ProducesProblem(422);
    }

    /// <summary>Written as it goes along: a whole plant is not held in memory.</summary>
    private static PushStreamHttpResult Download(
        Guid? circuit,
        HttpContext context,
        Bundle bundle,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        // The last block of a compressed file is written when it is closed, which the archive does without waiting.
        context.Features.Get<IHttpBodyControlFeature>()!.AllowSynchronousIO = true;
        return TypedResults.Stream(
            target => bundle.WriteAsync(target, circuit, cancellation),
            "application/zip",
            FormattableString.Invariant($"fehler-{time.GetUtcNow():yyyy-MM-dd}.bundle.zip")
        );
    }

    private static async Task<Ok<BundleResult>> Import(
        HttpRequest request,
        string? from,
        Bundle bundle,
        TimeProvider time,
        CancellationToken cancellation
    )
    {
        // The directory of a zip is at its end: it has to be here whole, on disk rather than in memory.
        var file = Path.Combine(Path.GetTempPath(), $"fehler-{Guid.NewGuid():N}.zip");
        await using var stream = new FileStream(
            file,
            new FileStreamOptions
            {
                Mode = FileMode.CreateNew,
                Access = FileAccess.ReadWrite,
                Options = FileOptions.DeleteOnClose | FileOptions.Asynchronous,
            }
        );
        await request.Body.CopyToAsync(stream, cancellation);
        stream.Position = 0;
        var origin = string.IsNullOrWhiteSpace(from)
            ? FormattableString.Invariant($"a bundle taken in on {time.GetUtcNow():yyyy-MM-dd}")
            : from.Trim();
        return TypedResults.Ok(await bundle.ReadAsync(stream, origin[..Math.Min(origin.Length, 60)], cancellation));
    }
}
