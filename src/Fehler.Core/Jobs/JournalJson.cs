using System.Text.Json;
using System.Text.Json.Serialization;

namespace Fehler.Core.Jobs;

/// <summary>How journal entries are written as JSON: in the database, over the wire and in exports alike.</summary>
public static class JournalJson
{
    public static JsonSerializerOptions Options { get; } = Configure(new JsonSerializerOptions());

    public static JsonSerializerOptions Configure(JsonSerializerOptions options)
    {
        options.PropertyNamingPolicy = JsonNamingPolicy.CamelCase;
        options.PropertyNameCaseInsensitive = true;
        options.NumberHandling = JsonNumberHandling.Strict;
        options.AllowOutOfOrderMetadataProperties = true;
        options.RespectRequiredConstructorParameters = true;
        options.RespectNullableAnnotations = true;
        options.Converters.Add(new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false));
        options.Converters.Add(new PlainTextConverter());
        return options;
    }

    public static string Write(JournalEntry entry) => JsonSerializer.Serialize(entry, Options);

    /// <exception cref="JsonException">The text is not a journal entry.</exception>
    public static JournalEntry Read(string json) =>
        JsonSerializer.Deserialize<JournalEntry>(json, Options) ?? throw new JsonException("is null; expected a journal entry");
}
