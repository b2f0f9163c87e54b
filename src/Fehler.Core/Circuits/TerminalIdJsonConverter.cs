using System.Text.Json;
using System.Text.Json.Serialization;

namespace Fehler.Core.Circuits;

/// <summary>A terminal is written as <c>"KM1:A1"</c>.</summary>
public sealed class TerminalIdJsonConverter : JsonConverter<TerminalId>
{
    public override TerminalId Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType == JsonTokenType.String && TerminalId.TryParse(reader.GetString(), out var id)
            ? id
            : throw new JsonException("is not a terminal; expected device:terminal, e.g. \"KM1:A1\"");

    public override void Write(Utf8JsonWriter writer, TerminalId value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString());
}
