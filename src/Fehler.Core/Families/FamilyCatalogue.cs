using System.Collections.Immutable;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Families;

/// <summary>One thing to choose about a family.</summary>
/// <param name="Name">Name in the options' JSON.</param>
/// <param name="Group">Heading it stands under.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Type">choice, number, whole, yes-no or text.</param>
/// <param name="Choices">Allowed words of a choice with what they mean.</param>
/// <param name="Default">Value when nothing is chosen.</param>
public sealed record FamilyOption(
    string Name,
    string Group,
    string Label,
    string Type,
    string Unit,
    double Minimum,
    double Maximum,
    string Help,
    ImmutableArray<FamilyChoice> Choices,
    string Default
);

public sealed record FamilyChoice(string Value, string Text);

/// <summary>A family as it is offered for choice.</summary>
public sealed record FamilyDescription(string Id, string Name, string Description, ImmutableArray<FamilyOption> Options);

/// <summary>Every family of starters, found in this assembly, with its options read from its properties.</summary>
public static class FamilyCatalogue
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        NumberHandling = JsonNumberHandling.Strict,
    };

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
        try
        {
            var starter = (Starter)options.Deserialize(type, Json)!;
            CheckRanges(starter);
            return starter.Build();
        }
        catch (JsonException e)
        {
            throw new CircuitException(
                "options",
                $"{e.Path ?? "$"} is not understood: give a value of the kind that the family's options name."
            );
        }
    }

    private static void CheckRanges(Starter starter)
    {
        foreach (var (property, option) in Options(starter.GetType()))
        {
            if (property.PropertyType == typeof(double) || property.PropertyType == typeof(int))
            {
                var value = Convert.ToDouble(property.GetValue(starter), System.Globalization.CultureInfo.InvariantCulture);
                if (!(value >= option.Minimum && value <= option.Maximum) && value != 0)
                {
                    throw new CircuitException(
                        $"options.{Camel(property.Name)}",
                        FormattableString
                            .Invariant(
                                $"is {value}; {option.Label} goes from {option.Minimum:0.###} to {option.Maximum:0.###} {option.Unit}"
                            )
                            .TrimEnd() + "."
                    );
                }
            }
        }
    }

    private static FamilyDescription Describe(Type type)
    {
        var family = type.GetCustomAttribute<FamilyAttribute>()!;
        var defaults = JsonSerializer.Deserialize("""{"tag":"?","title":"?"}""", type, Json)!;
        return new FamilyDescription(
            family.Id,
            family.Name,
            family.Description,
            [.. Options(type).Select(o => Describe(o.Property, o.Option, defaults))]
        );
    }

    /// <summary>What is the family's own comes first, then what every starter has.</summary>
    private static IEnumerable<(PropertyInfo Property, OptionAttribute Option)> Options(Type type) =>
        type.GetProperties()
            .OrderBy(p => p.DeclaringType == typeof(StarterOptions) ? 1 : 0)
            .Select(p => (Property: p, Option: p.GetCustomAttribute<OptionAttribute>()!))
            .Where(x => x.Option is not null);

    private static FamilyOption Describe(PropertyInfo property, OptionAttribute option, object defaults)
    {
        var value = property.GetValue(defaults)!;
        var type = property.PropertyType;
        return new FamilyOption(
            Camel(property.Name),
            option.Group,
            option.Label,
            type.IsEnum ? "choice"
                : type == typeof(bool) ? "yes-no"
                : type == typeof(int) ? "whole"
                : type == typeof(double) ? "number"
                : "text",
            option.Unit,
            option.Minimum,
            option.Maximum,
            option.Help,
            type.IsEnum
                ?
                [
                    .. Enum.GetNames(type)
                        .Select(n => new FamilyChoice(Camel(n), type.GetField(n)!.GetCustomAttribute<WordAttribute>()?.Text ?? n)),
                ]
                : [],
            type.IsEnum ? Camel(value.ToString()!)
                : value is bool yes
                    ? yes ? "true"
                        : "false"
                : Convert.ToString(value, System.Globalization.CultureInfo.InvariantCulture)!
        );
    }

    private static string Camel(string name) => JsonNamingPolicy.CamelCase.ConvertName(name);
}
