using System.Collections.Immutable;
using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Circuits;

/// <summary>
/// The open circuit file (docs/formats/circuit.schema.json). Writing states everything, defaults and conductors
/// included, so that another program can compute the circuit; reading what was written gives the same circuit.
/// </summary>
public static class CircuitFile
{
    public const string FormatName = "fehler-circuit";

    /// <summary>
    /// Version that is written. Version 2 has terminals as printed, contacts that say what they do, coils that read OL and supplies without
    /// neutral; version 1 is still read.
    /// </summary>
    public const int FormatVersion = 2;

    private static readonly JsonSerializerOptions Pretty = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>Writes the whole circuit as JSON.</summary>
    public static string Write(Circuit circuit) => ToJson(circuit).ToJsonString(Pretty);

    /// <summary>Reads a circuit file.</summary>
    /// <exception cref="CircuitException">The text is not JSON (names the line) or not a circuit (names the path).</exception>
    public static Circuit Read(string json)
    {
        if (json.Length > CircuitLimits.FileBytes)
        {
            throw new CircuitException("file", "is larger than 2 MB; a circuit file has some tens of kilobytes.");
        }

        try
        {
            using var document = JsonDocument.Parse(
                json,
                new JsonDocumentOptions
                {
                    CommentHandling = JsonCommentHandling.Skip,
                    AllowTrailingCommas = true,
                    MaxDepth = 64,
                }
            );
            return CircuitFileReader.Read(document.RootElement);
        }
        catch (InvalidOperationException)
        {
            // What the reader says of half a character in a text.
            throw new CircuitException("file", "holds half a character somewhere; save it again as UTF-8.");
        }
        catch (JsonException e)
        {
            throw new CircuitException(
                $"line {(e.LineNumber ?? 0) + 1}",
                "The text stops being JSON here; the file may be cut off or damaged. Expected a complete circuit file."
            );
        }
    }

    private static JsonObject ToJson(Circuit circuit) =>
        new()
        {
            ["format"] = FormatName,
            ["version"] = FormatVersion,
            ["tag"] = circuit.Tag,
            ["title"] = circuit.Title,
            ["area"] = circuit.Area,
            ["enclosure"] = circuit.Enclosure,
            ["drawing"] = circuit.Drawing,
            ["notes"] = circuit.Notes,
            ["reference"] = circuit.Reference.ToString(),
            ["locations"] = new JsonArray([
                .. circuit.Locations.Select(l => new JsonObject
                {
                    ["id"] = l.Id,
                    ["name"] = l.Name,
                    ["type"] = TypeName(l.Type),
                    ["cableMetres"] = l.CableMetres,
                }),
            ]),
            ["devices"] = new JsonArray([
                .. circuit.Devices.Select(d => new JsonObject
                {
                    ["tag"] = d.Tag,
                    ["kind"] = d.Kind.Id,
                    ["location"] = d.Location,
                    ["function"] = d.Function,
                    ["parameters"] = new JsonObject(
                        d.Parameters.Select(p => KeyValuePair.Create<string, JsonNode?>(p.Key, ToJson(p.Value)))
                    ),
                }),
            ]),
            ["paths"] = new JsonArray([
                .. circuit.Paths.Select(p => new JsonObject
                {
                    ["name"] = p.Name,
                    ["type"] = p.Type == PathType.Power ? "power" : "control",
                    ["from"] = ToJson(p.From),
                    ["to"] = ToJson(p.To),
                    ["path"] = ToJson(p.Expression),
                }),
            ]),
            ["conductors"] = new JsonArray([
                .. circuit.Conductors.Select(c => new JsonObject
                {
                    ["id"] = c.Id,
                    ["wire"] = c.Wire,
                    ["from"] = c.From.ToString(),
                    ["to"] = c.To.ToString(),
                    ["metres"] = c.Metres,
                    ["mm2"] = c.SquareMillimetres,
                }),
            ]),
        };

    private static JsonNode ToJson(ParameterValue value) =>
        value switch
        {
            { Number: { } number } => JsonValue.Create(number),
            { Word: { } word } => JsonValue.Create(word)!,
            _ => new JsonArray([.. value.Words!.Value.Select(w => (JsonNode)w)]),
        };

    private static JsonArray ToJson(ImmutableArray<TerminalId> terminals) => new([.. terminals.Select(t => (JsonNode)t.ToString())]);

    private static JsonNode ToJson(PathExpression expression) =>
        expression switch
        {
            Part part => part.ToString(),
            InSeries s => new JsonObject { ["series"] = new JsonArray([.. s.Children.Select(ToJson)]) },
            InParallel p => new JsonObject { ["parallel"] = new JsonArray([.. p.Children.Select(ToJson)]) },
            _ => throw new InvalidOperationException("Unknown path expression."),
        };

    internal static string TypeName(LocationType type) =>
        type switch
        {
            LocationType.Enclosure => "enclosure",
            LocationType.FieldStation => "field",
            _ => "motor",
        };
}
