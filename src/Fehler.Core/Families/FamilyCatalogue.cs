using System.Collections.Immutable;
using System.Reflection;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Families;

/// <summary>A family as it is offered for choice.</summary>
public sealed record FamilyDescription(string Id, string Name, string Description, ImmutableArray<OptionDescription> Options);

/// <summary>Every family of starters, found in this assembly, with its options read from its properties.</summary>
public static class FamilyCatalogue
{
    private static readonly ImmutableArray<Type> Types =
    [
        typeof(DirectOnLine),
        typeof(SinglePhase),
        typeof(MultiStation),
        typeof(ImpulseStarter),
        typeof(Reversing),
        typeof(UpDown),
        typeof(StarDelta),
        typeof(ManualStarter),
        typeof(PlcDriven),
    ];

    public static ImmutableArray<FamilyDescription> All { get; } = [.. Types.Select(Describe)];

    /// <summary>The family's starter with the options of a JSON object; tag and title are among them.</summary>
    /// <exception cref="CircuitException">No such family, an option that does not exist, or options that do not go together.</exception>
    public static Circuit Build(string family, JsonElement options)
    {
        var type =
            Types.FirstOrDefault(t => t.GetCustomAttribute<FamilyAttribute>()!.Id == family)
            ?? throw new CircuitException("family", $"is '{family}'; expected one of: {string.Join(", ", All.Select(f => f.Id))}.");
        return ((Starter)OptionReader.Read(type, options)).Build();
    }

    private static FamilyDescription Describe(Type type)
    {
        var family = type.GetCustomAttribute<FamilyAttribute>()!;
        return new FamilyDescription(
            family.Id,
            family.Name,
            family.Description,
            OptionReader.Describe(type, """{"tag":"?","title":"?"}""", p => p.DeclaringType == typeof(StarterOptions) ? 1 : 0)
        );
    }
}
