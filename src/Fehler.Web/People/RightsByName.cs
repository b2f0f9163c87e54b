using Fehler.Core.Circuits;
using Fehler.Data;

namespace Fehler.Web.People;

/// <summary>Rights as the interface names them.</summary>
internal static class RightsByName
{
    /// <summary>Rights of a list of names.</summary>
    /// <exception cref="RefusedException">There is no such right.</exception>
    public static Rights Of(IReadOnlyList<string>? names) =>
        (names ?? []).Aggregate(
            Rights.None,
            (all, name) =>
                all
                | name switch
                {
                    "jobs" => Rights.Jobs,
                    "planning" => Rights.Planning,
                    "administration" => Rights.Administration,
                    _ => throw new RefusedException("Rights are jobs, planning and administration; none of them: looks only."),
                }
        );

    /// <summary>The names of rights.</summary>
    public static IReadOnlyList<string> Names(Rights rights) =>
        [
            .. new[] { (Rights.Jobs, "jobs"), (Rights.Planning, "planning"), (Rights.Administration, "administration") }
                .Where(r => rights.HasFlag(r.Item1))
                .Select(r => r.Item2),
        ];
}
