using System.Text.Json.Serialization;

namespace Fehler.Core.Circuits;

/// <summary>
/// One terminal of one device, as it is written on the drawing: <c>KM1:A1</c>. It names a screw, not a
/// potential: two terminals that carry the same wire number are still two terminals.
/// </summary>
/// <param name="Device">Tag of the device, e.g. <c>KM1</c>.</param>
/// <param name="Name">Terminal marking on the device, e.g. <c>A1</c>, <c>13</c>, <c>L2</c>.</param>
[JsonConverter(typeof(TerminalIdJsonConverter))]
public readonly record struct TerminalId(string Device, string Name) : IComparable<TerminalId>
{
    /// <summary>Reads <c>device:terminal</c>.</summary>
    /// <exception cref="FormatException">The text is not of that form.</exception>
    public static TerminalId Parse(string text) =>
        TryParse(text, out var id) ? id : throw new FormatException($"'{text}' is not a terminal: write device:terminal, e.g. KM1:A1.");

    /// <summary>Reads <c>device:terminal</c> and tells whether the text had that form.</summary>
    public static bool TryParse(string? text, out TerminalId id)
    {
        var colon = text?.LastIndexOf(':') ?? -1;
        id = colon > 0 && colon < text!.Length - 1 ? new TerminalId(text[..colon], text[(colon + 1)..]) : default;
        return id != default;
    }

    public int CompareTo(TerminalId other)
    {
        var byDevice = string.CompareOrdinal(Device, other.Device);
        return byDevice != 0 ? byDevice : string.CompareOrdinal(Name, other.Name);
    }

    public static bool operator <(TerminalId a, TerminalId b) => a.CompareTo(b) < 0;

    public static bool operator >(TerminalId a, TerminalId b) => a.CompareTo(b) > 0;

    public static bool operator <=(TerminalId a, TerminalId b) => a.CompareTo(b) <= 0;

    public static bool operator >=(TerminalId a, TerminalId b) => a.CompareTo(b) >= 0;

    public override string ToString() => $"{Device}:{Name}";
}
