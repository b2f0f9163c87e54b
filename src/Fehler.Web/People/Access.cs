using Fehler.Data;
using Microsoft.AspNetCore.Authorization;

namespace Fehler.Web.People;

/// <summary>
/// What an address asks of whoever calls it. Reading asks for somebody who is signed in; everything else says by itself which right it
/// needs.
/// </summary>
internal static class Access
{
    /// <summary>Needs one of the rights; none: whoever is signed in, since nothing is changed by it.</summary>
    public static TBuilder Needs<TBuilder>(this TBuilder endpoint, Rights anyOf)
        where TBuilder : IEndpointConventionBuilder => endpoint.RequireAuthorization(PolicyOf(anyOf)).WithMetadata(new NeededRights(anyOf));

    /// <summary>For anybody: what is needed before somebody has signed in, and what watches the service.</summary>
    public static TBuilder ForAnybody<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder => endpoint.AllowAnonymous();

    /// <summary>Registers the rules.</summary>
    public static void AddAccess(this IServiceCollection services) =>
        services.AddAuthorizationBuilder().SetFallbackPolicy(new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build());

    private static AuthorizationPolicy PolicyOf(Rights anyOf)
    {
        var policy = new AuthorizationPolicyBuilder().RequireAuthenticatedUser();
        return (
            anyOf == Rights.None ? policy : policy.RequireAssertion(context => (Caller.RightsOf(context.User) & anyOf) != Rights.None)
        ).Build();
    }

    /// <summary>What to say to somebody who may not.</summary>
    public static string Words(Rights anyOf) =>
        anyOf switch
        {
            Rights.Jobs => "This is for electricians: jobs, readings and repairs. Ask an administrator for the right.",
            Rights.Planning => "This is for planners: circuits, register, plan and spares. Ask an administrator for the right.",
            Rights.Administration => "This is for administrators: people, devices and backup.",
            _ => "This is for electricians and planners. Ask an administrator for the right.",
        };
}

/// <summary>Which rights an address asks for, one of them.</summary>
internal sealed record NeededRights(Rights AnyOf);
