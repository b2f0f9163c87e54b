using System.Text.Json.Nodes;

namespace Fehler.Core.Circuits;

/// <summary>The published schema of the circuit file (docs/formats), with the device kinds that there are in this version.</summary>
public static class CircuitSchema
{
    /// <summary>JSON Schema, draft 2020-12.</summary>
    public static JsonNode Read()
    {
        using var published = typeof(CircuitSchema).Assembly.GetManifestResourceStream("circuit.schema.json")!;
        var schema = JsonNode.Parse(published)!;
        var kinds = DeviceKinds.All.Select(k => (JsonNode?)k.Id).ToArray();
        schema["properties"]!["devices"]!["items"]!["properties"]!["kind"]!["enum"] = new JsonArray(kinds);
        return schema;
    }
}
