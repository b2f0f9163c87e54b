using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Devices;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Circuits;

/// <summary>Reads the JSON of a circuit file and names the path of whatever is wrong in it.</summary>
internal static class CircuitFileReader
{
    private static readonly string[] Known =
    [
        "$schema",
        "format",
        "version",
        "tag",
        "title",
        "area",
        "enclosure",
        "drawing",
        "notes",
        "reference",
        "locations",
        "devices",
        "paths",
        "conductors",
        "wireNumbers",
        "powerMm2",
    ];

    public static Circuit Read(JsonElement root)
    {
        Expect(root, JsonValueKind.Object, "$", "an object");
        var format = Text(root, "format", "$");
        if (format != CircuitFile.FormatName)
        {
            throw new CircuitException("$.format", $"is '{format}'; expected '{CircuitFile.FormatName}'.");
        }

        var version = Number(root, "version", "$");
        if (version is not (1 or CircuitFile.FormatVersion))
        {
            throw new CircuitException(
                "$.version",
                FormattableString.Invariant($"is {version}; this program reads versions 1 and {CircuitFile.FormatVersion}.")
            );
        }

        OnlyKnown(root, "$", Known);
        return new CircuitBuilder
        {
            Tag = Text(root, "tag", "$"),
            Title = Text(root, "title", "$"),
            Area = Text(root, "area", "$", ""),
            Enclosure = Text(root, "enclosure", "$", ""),
            Drawing = Text(root, "drawing", "$", ""),
            Notes = Text(root, "notes", "$", ""),
            Reference = root.TryGetProperty("reference", out var reference) ? Terminal(reference, "$.reference") : null,
            PowerSquareMillimetres = Number(root, "powerMm2", "$", 2.5),
            Locations = List(root, "locations", "$", ReadLocation),
            Devices = List(root, "devices", "$", ReadDevice),
            Paths = List(root, "paths", "$", ReadPath),
            Conductors = root.TryGetProperty("conductors", out _) ? List(root, "conductors", "$", ReadConductor) : [],
            WireNumbers = ReadWireNumbers(root),
        }.Build();
    }

    private static Location ReadLocation(JsonElement e, string at)
    {
        OnlyKnown(e, at, "id", "name", "type", "cableMetres");
        var id = Text(e, "id", at);
        var type = Text(e, "type", at, "enclosure") switch
        {
            "enclosure" => LocationType.Enclosure,
            "field" => LocationType.FieldStation,
            "motor" => LocationType.Motor,
            var other => throw new CircuitException($"{at}.type", $"is '{other}'; expected enclosure, field or motor."),
        };
        return new Location(id, Text(e, "name", at, id), type, Number(e, "cableMetres", at, type == LocationType.Enclosure ? 0 : 20));
    }

    private static Device ReadDevice(JsonElement e, string at)
    {
        OnlyKnown(e, at, "tag", "kind", "location", "function", "parameters");
        var kindName = Text(e, "kind", at);
        var kind =
            DeviceKinds.Find(kindName)
            ?? throw new CircuitException(
                $"{at}.kind",
                $"is '{kindName}'; expected one of: {string.Join(", ", DeviceKinds.All.Select(k => k.Id))}."
            );
        var parameters = Device.NoParameters;
        if (e.TryGetProperty("parameters", out var given))
        {
            Expect(given, JsonValueKind.Object, $"{at}.parameters", "an object");
            foreach (var property in given.EnumerateObject())
            {
                parameters = parameters.SetItem(property.Name, ReadParameter(property.Value, $"{at}.parameters.{property.Name}"));
            }
        }

        return new Device(Text(e, "tag", at), kind, Text(e, "location", at), parameters, Text(e, "function", at, ""));
    }

    private static ParameterValue ReadParameter(JsonElement value, string at) =>
        value.ValueKind switch
        {
            JsonValueKind.Number => value.GetDouble(),
            JsonValueKind.String => value.GetString()!,
            JsonValueKind.Array => ParameterValue.FromWords(
                value
                    .EnumerateArray()
                    .Select(
                        (w, i) =>
                            w.ValueKind == JsonValueKind.String
                                ? w.GetString()!
                                : throw new CircuitException($"{at}[{i}]", "is not text; expected terminal numbers like \"13-14\".")
                    )
            ),
            _ => throw new CircuitException(at, "is neither a number, text, nor a list of text."),
        };

    private static CircuitPath ReadPath(JsonElement e, string at)
    {
        OnlyKnown(e, at, "name", "type", "from", "to", "path");
        var type = Text(e, "type", at) switch
        {
            "power" => PathType.Power,
            "control" => PathType.Control,
            var other => throw new CircuitException($"{at}.type", $"is '{other}'; expected power or control."),
        };
        var from = List(e, "from", at, Terminal);
        if (from.IsEmpty)
        {
            throw new CircuitException($"{at}.from", "is empty; name the terminals the path is taken from.");
        }

        if (!e.TryGetProperty("path", out var path))
        {
            throw new CircuitException(at, "has no 'path'; expected a part or a series.");
        }

        return new CircuitPath(
            Text(e, "name", at, type.ToString()),
            type,
            from,
            e.TryGetProperty("to", out _) ? List(e, "to", at, Terminal) : [],
            ReadExpression(path, $"{at}.path")
        );
    }

    private static PathExpression ReadExpression(JsonElement e, string at) => ReadExpression(e, at, 0);

    private static PathExpression ReadExpression(JsonElement e, string at, int depth)
    {
        if (depth > CircuitLimits.Depth)
        {
            throw new CircuitException(at, $"stands in more than {CircuitLimits.Depth} series and parallels; a path is flatter than that.");
        }

        if (e.ValueKind == JsonValueKind.String)
        {
            try
            {
                return Part.Parse(e.GetString()!);
            }
            catch (FormatException problem)
            {
                throw new CircuitException(at, problem.Message);
            }
        }

        Expect(e, JsonValueKind.Object, at, "a part like \"KM1:13-14\", {\"series\": [...]} or {\"parallel\": [...]}");
        OnlyKnown(e, at, "series", "parallel");
        var isSeries = e.TryGetProperty("series", out _);
        if (isSeries == e.TryGetProperty("parallel", out _))
        {
            throw new CircuitException(at, "must have either 'series' or 'parallel'.");
        }

        var children = List(e, isSeries ? "series" : "parallel", at, (child, place) => ReadExpression(child, place, depth + 1));
        return isSeries ? new InSeries(children) : new InParallel(children);
    }

    private static Conductor ReadConductor(JsonElement e, string at)
    {
        OnlyKnown(e, at, "id", "wire", "from", "to", "metres", "mm2");
        return new Conductor(
            Text(e, "id", at),
            Text(e, "wire", at),
            Terminal(Member(e, "from", at), $"{at}.from"),
            Terminal(Member(e, "to", at), $"{at}.to"),
            Number(e, "metres", at, Conductor.NotStated),
            Number(e, "mm2", at, Conductor.DefaultSquareMillimetres)
        );
    }

    private static ImmutableDictionary<TerminalId, string> ReadWireNumbers(JsonElement root)
    {
        if (!root.TryGetProperty("wireNumbers", out var numbers))
        {
            return ImmutableDictionary<TerminalId, string>.Empty;
        }

        Expect(numbers, JsonValueKind.Object, "$.wireNumbers", "an object of terminal: wire number");
        return numbers
            .EnumerateObject()
            .DistinctBy(p => p.Name)
            .ToImmutableDictionary(
                p =>
                    TerminalId.TryParse(p.Name, out var t)
                        ? t
                        : throw new CircuitException("$.wireNumbers", $"'{p.Name}' is not a terminal like \"KM1:A1\"."),
                p =>
                    p.Value.ValueKind == JsonValueKind.String
                        ? p.Value.GetString()!
                        : throw new CircuitException($"$.wireNumbers.{p.Name}", "is not text.")
            );
    }

    private static TerminalId Terminal(JsonElement e, string at) =>
        e.ValueKind == JsonValueKind.String && TerminalId.TryParse(e.GetString(), out var id)
            ? id
            : throw new CircuitException(at, $"'{Short(e)}' is not a terminal; expected device:terminal, e.g. \"KM1:A1\".");

    private static ImmutableArray<T> List<T>(JsonElement e, string name, string at, Func<JsonElement, string, T> read)
    {
        var list = Member(e, name, at);
        Expect(list, JsonValueKind.Array, $"{at}.{name}", "a list");
        return [.. list.EnumerateArray().Select((item, i) => read(item, $"{at}.{name}[{i}]"))];
    }

    private static JsonElement Member(JsonElement e, string name, string at)
    {
        Expect(e, JsonValueKind.Object, at, "an object");
        return e.TryGetProperty(name, out var value) ? value : throw new CircuitException(at, $"has no '{name}'.");
    }

    private static string Text(JsonElement e, string name, string at, string? otherwise = null)
    {
        Expect(e, JsonValueKind.Object, at, "an object");
        if (!e.TryGetProperty(name, out var value))
        {
            return otherwise ?? throw new CircuitException(at, $"has no '{name}'.");
        }

        Expect(value, JsonValueKind.String, $"{at}.{name}", "text");
        return value.GetString()!;
    }

    private static double Number(JsonElement e, string name, string at, double? otherwise = null)
    {
        if (!e.TryGetProperty(name, out var value))
        {
            return otherwise ?? throw new CircuitException(at, $"has no '{name}'.");
        }

        Expect(value, JsonValueKind.Number, $"{at}.{name}", "a number");
        return value.GetDouble();
    }

    private static void OnlyKnown(JsonElement e, string at, params string[] known)
    {
        Expect(e, JsonValueKind.Object, at, "an object");
        foreach (var property in e.EnumerateObject())
        {
            if (!known.Contains(property.Name))
            {
                throw new CircuitException($"{at}.{property.Name}", $"is not known here; expected one of: {string.Join(", ", known)}.");
            }
        }
    }

    private static void Expect(JsonElement e, JsonValueKind kind, string at, string what)
    {
        if (e.ValueKind != kind)
        {
            throw new CircuitException(at, $"is {Words(e.ValueKind)}; expected {what}.");
        }
    }

    /// <summary>As much of a value as a sentence can hold.</summary>
    private static string Short(JsonElement e) => e.ToString() is { Length: > 60 } text ? text[..57] + "..." : e.ToString();

    private static string Words(JsonValueKind kind) =>
        kind switch
        {
            JsonValueKind.Object => "an object",
            JsonValueKind.Array => "a list",
            JsonValueKind.String => "text",
            JsonValueKind.Number => "a number",
            JsonValueKind.Null => "null",
            _ => "true or false",
        };
}
