using Fehler.Data;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Photos;

internal static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder routes)
    {
        routes
            .MapPut("/api/jobs/{id:guid}/photos/{picture:guid}", Keep)
            .WithTags("Jobs")
            .Accepts<object>("image/jpeg", "image/png")
            .WithName("keepPhoto")
            .Needs(Rights.Jobs)
            .WithSummary("Keeps a picture of a job, before the entry that shows it")
            .WithDescription(
                "The body is the picture, at most 2 MB, under an id of your own; then record an entry of the type 'photo' with this id and "
                    + "a caption. Sent again after a lost answer, it is kept once."
            )
            .ProducesProblem(404)
            .ProducesProblem(422);
        routes
            .MapGet("/api/photos/{id:guid}", Get)
            .WithTags("Jobs")
            .WithName("getPhoto")
            .WithSummary("A picture as it was kept")
            .Produces(200, contentType: "image/jpeg", additionalContentTypes: "image/png")
            .ProducesProblem(404);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Keep(
        Guid id,
        Guid picture,
        HttpRequest request,
        PhotoStore photos,
        CancellationToken cancellation
    )
    {
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancellation);
        return await photos.KeepAsync(id, picture, bytes.ToArray(), cancellation) ? TypedResults.NoContent() : NotHere.Job();
    }

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Get(
        Guid id,
        HttpResponse response,
        PhotoStore photos,
        CancellationToken cancellation
    )
    {
        if (await photos.FindAsync(id, cancellation) is not { } found)
        {
            return NotHere.Photo();
        }

        // A picture never changes, and is a picture whatever a browser might take it for.
        response.Headers.CacheControl = "private, max-age=31536000, immutable";
        response.Headers.XContentTypeOptions = "nosniff";
        return TypedResults.File(found.Bytes, found.Type);
    }
}
