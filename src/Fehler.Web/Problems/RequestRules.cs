using System.Net.Mime;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Net.Http.Headers;

namespace Fehler.Web.Problems;

/// <summary>
/// What a request to the API has to be before anybody reads it: of a type that its address takes, in UTF-8, and not larger than that
/// address
/// allows, whether it says its length or comes in chunks.
/// </summary>
internal static class RequestRules
{
    /// <summary>Largest body unless an address says otherwise, bytes.</summary>
    private const long UsualBytes = 2_000_000;

    public const string TooLarge = "The request is larger than this address takes: 2 MB for a circuit or an entry, 200 MB for a bundle.";

    public static void UseRequestRules(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                var request = context.Request;
                if (context.GetEndpoint() is null && request.Path.StartsWithSegments("/api"))
                {
                    await TypedResults
                        .Problem("There is nothing at this address; see /api/openapi.json.", statusCode: 404)
                        .ExecuteAsync(context);
                    return;
                }

                if (!request.Path.StartsWithSegments("/api") || HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
                {
                    await next(context);
                    return;
                }

                // Routing itself turns away a type that no address of this name takes, without a word.
                var accepts = context.GetEndpoint()?.Metadata.GetMetadata<IAcceptsMetadata>();
                if (
                    context.GetEndpoint()?.DisplayName == "415 HTTP Unsupported Media Type"
                    || (accepts is not null && !Fits(request.ContentType, accepts))
                )
                {
                    var wanted = accepts is null ? "JSON (or, for a bundle, a zip)" : string.Join(" or ", accepts.ContentTypes);
                    await TypedResults
                        .Problem($"Send {wanted}, in UTF-8, and say so in Content-Type.", statusCode: 415)
                        .ExecuteAsync(context);
                    return;
                }

                var most = context.GetEndpoint()?.Metadata.GetMetadata<IRequestSizeLimitMetadata>()?.MaxRequestBodySize ?? UsualBytes;
                if (request.ContentLength > most)
                {
                    await TypedResults.Problem(TooLarge, statusCode: 413).ExecuteAsync(context);
                    return;
                }

                if (context.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } feature)
                {
                    feature.MaxRequestBodySize = most;
                }

                request.Body = new BoundedStream(request.Body, most);
                await next(context);
            }
        );

    private static bool Fits(string? contentType, IAcceptsMetadata accepts) =>
        MediaTypeHeaderValue.TryParse(contentType, out var given)
        && accepts.ContentTypes.Any(t =>
            string.Equals(t, given.MediaType.Value, StringComparison.OrdinalIgnoreCase)
            || (
                t == MediaTypeNames.Application.Json && given.MediaType.Value?.EndsWith("+json", StringComparison.OrdinalIgnoreCase) == true
            )
        )
        && (!given.Charset.HasValue || string.Equals(given.Charset.Value!.Trim('"'), "utf-8", StringComparison.OrdinalIgnoreCase));
}
