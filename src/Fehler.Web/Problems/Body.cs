using System.Text.Json;
using Fehler.Core.Jobs;

namespace Fehler.Web.Problems;

/// <summary>
/// A JSON body, read in one way for every address: what cannot be read is said with its place, and is never a mistake of the program.
/// </summary>
internal sealed record Body<T>(T Value)
    where T : class
{
    /// <summary>Called by the framework.</summary>
    public static async ValueTask<Body<T>?> BindAsync(HttpContext context)
    {
        try
        {
            return new Body<T>(
                await JsonSerializer.DeserializeAsync<T>(context.Request.Body, JournalJson.Options, context.RequestAborted)
                    ?? throw new JsonException("null is not enough.")
            );
        }
        catch (NotSupportedException e)
        {
            // What the serializer says of an object whose "type" is missing.
            throw Unreadable(new JsonException("The object has no 'type'; see /api/openapi.json for the types there are.", e));
        }
        catch (InvalidOperationException e)
        {
            // What it says of half a character in a name.
            throw Unreadable(new JsonException("A name holds half a character; write it again.", e));
        }
        catch (JsonException e)
        {
            throw Unreadable(e);
        }
    }

    private static BadHttpRequestException Unreadable(JsonException e) => new(e.Message, StatusCodes.Status400BadRequest, e);
}
