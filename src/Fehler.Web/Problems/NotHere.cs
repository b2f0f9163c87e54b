using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Problems;

/// <summary>What is answered where an address names something that is not kept here.</summary>
internal static class NotHere
{
    public static ProblemHttpResult Circuit() => TypedResults.Problem("There is no such circuit in the register.", statusCode: 404);

    public static ProblemHttpResult Job() => TypedResults.Problem("There is no such job.", statusCode: 404);

    public static ProblemHttpResult Photo() => TypedResults.Problem("There is no such photo.", statusCode: 404);

    public static ProblemHttpResult Shutdown() => TypedResults.Problem("There is no such shutdown list.", statusCode: 404);

    public static ProblemHttpResult Exercise() => TypedResults.Problem("There is no such exercise.", statusCode: 404);

    public static ProblemHttpResult FollowUp() => TypedResults.Problem("There is no such follow-up.", statusCode: 404);
}
