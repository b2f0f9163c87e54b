using Fehler.Data;
using Fehler.Desk;
using Fehler.Web.People;
using Fehler.Web.Problems;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Photos;

/// <summary>A photo that was kept.</summary>
/// <param name="Sequence">Place of its entry in the journal.</param>
public sealed record PhotoKept(int Sequence);

internal static class PhotoEndpoints
{
    public static void MapPhotos(this IEndpointRouteBuilder routes)
    {
        routes
            .MapPost("/api/jobs/{id:guid}/photos", Add)
            .WithTags("Jobs")
            .Accepts<object>("image/jpeg", "image/png")
            .WithName("addPhoto")
            .Needs(Rights.Jobs)
            .WithSummary("Keeps a photo with a job and records that it was taken")
            .WithDescription("The body is the picture, at most 2 MB; 'caption' is what it shows, 'who' who took it.")
            .ProducesProblem(404)
            .ProducesProblem(409)
            .ProducesProblem(422);
        routes
            .MapGet("/api/photos/{id:guid}", Get)
            .WithTags("Jobs")
            .WithName("getPhoto")
            .WithSummary("A picture as it was kept")
            .Produces(200, contentType: "image/jpeg", additionalContentTypes: "image/png")
            .ProducesProblem(404);
    }

    private static async Task<Results<Ok<PhotoKept>, ProblemHttpResult>> Add(
        Guid id,
        HttpRequest request,
        PhotoStore photos,
        Caller caller,
        CancellationToken cancellation,
        string? caption = null,
        string? who = null
    )
    {
        using var bytes = new MemoryStream();
        await request.Body.CopyToAsync(bytes, cancellation);
        return await photos.AddAsync(id, bytes.ToArray(), caption ?? "", caller.Named(who), CancellationToken.None) switch
        {
            DoorAnswer.Recorded recorded => TypedResults.Ok(new PhotoKept(recorded.Sequence)),
            DoorAnswer.Refused refused => TypedResults.Problem(
                refused.Reason,
                statusCode: refused.IsConflict ? 409 : 422,
                title: "Not recorded"
            ),
            _ => NotHere.Job(),
        };
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
