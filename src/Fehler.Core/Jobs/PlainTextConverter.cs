using System.Text.Json;
using System.Text.Json.Serialization;
using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>Texts that can be shown, stored and printed: no control characters, no halves of characters.</summary>
internal sealed class PlainTextConverter : JsonConverter<string>
{
    /// <summary>Longer than anything that a person writes; single entries have limits of their own.</summary>
    private const int Longest = 2_000_000;

    public override string? Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        if (reader.TokenType != JsonTokenType.String)
        {
            throw new JsonException("Text was expected here.");
        }

        return Checked(ref reader);
    }

    public override string ReadAsPropertyName(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        Checked(ref reader);

    public override void Write(Utf8JsonWriter writer, string value, JsonSerializerOptions options) => writer.WriteStringValue(value);

    public override void WriteAsPropertyName(Utf8JsonWriter writer, string value, JsonSerializerOptions options) =>
        writer.WritePropertyName(value);

    private static string Checked(ref Utf8JsonReader reader)
    {
        try
        {
            var text = reader.GetString()!;
            return CircuitLimits.Refuse(text, Longest) is { } wrong ? throw new JsonException($"The text {wrong}") : text;
        }
        catch (InvalidOperationException)
        {
            // What the reader says of an escape that is half a character, or of bytes that are not UTF-8.
            throw new JsonException("The text holds half a character; write it again.");
        }
    }
}
