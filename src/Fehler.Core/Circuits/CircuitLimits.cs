namespace Fehler.Core.Circuits;

/// <summary>
/// How large a circuit may be, so that whatever is accepted can be drawn, solved and diagnosed in the time that a person waits. Several
/// times
/// what the largest starter of the families has.
/// </summary>
public static class CircuitLimits
{
    /// <summary>Most devices of one circuit; a crane with six motions has some eighty.</summary>
    public const int Devices = 150;

    /// <summary>Most conductors, each from one terminal to another.</summary>
    public const int Conductors = 1_500;

    /// <summary>Most paths, and most parts in all of them.</summary>
    public const int Paths = 100,
        Parts = 600;

    /// <summary>Most places.</summary>
    public const int Locations = 60;

    /// <summary>Most contacts of one device.</summary>
    public const int Contacts = 40;

    /// <summary>How deep series and parallel may stand in each other.</summary>
    public const int Depth = 24;

    /// <summary>Longest tag, terminal, wire number or id; longest title, name or function; longest notes; in characters.</summary>
    public const int Name = 40,
        Text = 200,
        Notes = 4_000;

    /// <summary>Largest circuit file, bytes.</summary>
    public const int FileBytes = 2_000_000;

    /// <summary>Why a text cannot be taken; null when it can.</summary>
    public static string? Refuse(string text, int longest) =>
        text.Length > longest ? $"has {text.Length} characters; at most {longest} fit."
        : text.Any(char.IsControl) && text.Any(c => char.IsControl(c) && c is not ('\n' or '\t' or '\r'))
            ? "holds characters that cannot be shown; write plain text."
        : HasHalfCharacter(text) ? "holds half a character; write it again."
        : null;

    /// <summary>A surrogate without its other half: it can be neither shown nor stored.</summary>
    private static bool HasHalfCharacter(string text)
    {
        for (var i = 0; i < text.Length; i++)
        {
            if (char.IsHighSurrogate(text[i]) && i + 1 < text.Length && char.IsLowSurrogate(text[i + 1]))
            {
                i++;
            }
            else if (char.IsSurrogate(text[i]))
            {
                return true;
            }
        }

        return false;
    }
}
