using System.Collections.Immutable;
using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Options;

/// <summary>One thing to give or choose.</summary>
/// <param name="Name">Name in the options' JSON.</param>
/// <param name="Group">Heading it stands under.</param>
/// <param name="Label">What it is called.</param>
/// <param name="Type">choice, number, whole, yes-no or text.</param>
/// <param name="Choices">Allowed words of a choice with what they mean.</param>
/// <param name="Default">Value when nothing is chosen.</param>
public sealed record OptionDescription(
    string Name,
    string Group,
    string Label,
    string Type,
    string Unit,
    double Minimum,
    double Maximum,
    string Help,
    ImmutableArray<OptionChoice> Choices,
    string Default
);

public sealed record OptionChoice(string Value, string Text);

/// <summary>Records whose properties people give: described for a form, read from JSON, held to their ranges.</summary>
public static class OptionReader
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        NumberHandling = JsonNumberHandling.Strict,
    };

    /// <summary>The record with these options; what is left out has its default.</summary>
    /// <exception cref="CircuitException">An option that does not exist, of another kind, or out of its range.</exception>
    public static object Read(Type type, JsonElement options)
    {
        try
        {
            var read = options.Deserialize(type, Json) ?? throw new CircuitException("options", "are missing: send an object.");
            CheckRanges(read);
            return read;
        }
        catch (JsonException e)
        {
            throw new CircuitException(
                "options",
                $"{e.Path ?? "$"} is not understood: give a value of the kind that the options of this name."
            );
        }
    }

    /// <summary>Options as <see cref="Read(Type, JsonElement)"/> takes them.</summary>
    public static JsonElement Write(object options) => JsonSerializer.SerializeToElement(options, options.GetType(), Json);

    /// <summary>What can be given, in the order of <paramref name="order"/> and then as it is written down.</summary>
    /// <param name="type">The record.</param>
    /// <param name="required">JSON of what has no default.</param>
    /// <param name="order">Smaller comes first.</param>
    public static ImmutableArray<OptionDescription> Describe(Type type, string required, Func<PropertyInfo, int> order)
    {
        var defaults = JsonSerializer.Deserialize(required, type, Json)!;
        return [.. Of(type).OrderBy(o => order(o.Property)).Select(o => Describe(o.Property, o.Option, defaults))];
    }

    private static IEnumerable<(PropertyInfo Property, OptionAttribute Option)> Of(Type type) =>
        type.GetProperties().Select(p => (Property: p, Option: p.GetCustomAttribute<OptionAttribute>()!)).Where(x => x.Option is not null);

    private static void CheckRanges(object given)
    {
        foreach (var (property, option) in Of(given.GetType()))
        {
            if (property.PropertyType == typeof(double) || property.PropertyType == typeof(int))
            {
                var value = Convert.ToDouble(property.GetValue(given), CultureInfo.InvariantCulture);
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

    private static OptionDescription Describe(PropertyInfo property, OptionAttribute option, object defaults)
    {
        var value = property.GetValue(defaults)!;
        var type = property.PropertyType;
        return new OptionDescription(
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
                        .Select(n => new OptionChoice(Camel(n), type.GetField(n)!.GetCustomAttribute<WordAttribute>()?.Text ?? n)),
                ]
                : [],
            type.IsEnum ? Camel(value.ToString()!)
                : value is bool yes
                    ? yes ? "true"
                        : "false"
                : Convert.ToString(value, CultureInfo.InvariantCulture)!
        );
    }

    private static string Camel(string name) => JsonNamingPolicy.CamelCase.ConvertName(name);
}
