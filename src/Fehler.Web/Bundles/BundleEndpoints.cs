using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Bundles;

internal static class BundleEndpoints
{
    private const int LargestBundle = 200_000_000;

    public static void MapBundles(this IEndpointRouteBuilder routes)
    {
        var bundles = routes.MapGroup("/api/bundle").WithTags("Bundle");
        bundles.MapGet("", Download).WithName("downloadBundle").WithSummary("Circuits with their history as one zip; circuit=id for one of them");
        bundles.MapPost("", Import).WithName("importBundle").WithSummary("Takes a bundle in; a second time changes nothing").Accepts<Stream>("application/zip").ProducesProblem(413).ProducesProblem(422);
    }

    private static async Task<FileContentHttpResult> Download(Guid? circuit, Bundle bundle, TimeProvider time, CancellationToken cancellation)
    {
        using var memory = new MemoryStream();
        await bundle.WriteAsync(memory, circuit, cancellation);
        return TypedResults.File(memory.ToArray(), "application/zip", FormattableString.Invariant($"fehler-{time.GetUtcNow():yyyy-MM-dd}.bundle.zip"));
    }

    private static async Task<Results<Ok<BundleResult>, ProblemHttpResult>> Import(HttpRequest request, Bundle bundle, CancellationToken cancellation)
    {
        if (request.ContentLength > LargestBundle)
        {
            return TypedResults.Problem("The file is larger than 200 MB.", statusCode: 413);
        }

        // The central directory of a zip is at its end: it has to be here whole.
        using var memory = new MemoryStream();
        await request.Body.CopyToAsync(memory, cancellation);
        memory.Position = 0;
        return TypedResults.Ok(await bundle.ReadAsync(memory, cancellation));
    }
}
