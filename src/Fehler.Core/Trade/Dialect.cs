using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Trade;

/// <summary>
/// The two dialects of the trade. Texts are written in the words of the IEC world; the North American ones are put in their place where
/// they are shown. Tags, terminals, wire numbers and ids are no words and stay as they are.
/// </summary>
/// <remarks>Terms: IEC 60050-441 and -826 on one side, NEMA ICS and the code's on the other, from memory.</remarks>
public static partial class Dialect
{
    private static readonly ImmutableArray<(string Iec, string American)> Terms =
    [
        ("protective conductor", "equipment grounding conductor"),
        ("retaining contact", "seal-in contact"),
        ("earth fault", "ground fault"),
        ("earth link", "grounding jumper"),
        ("earthed", "grounded"),
        ("unearthed", "ungrounded"),
        ("earthing", "grounding"),
        ("earth", "ground"),
        ("isolating", "disconnecting"),
        ("isolator", "disconnect"),
        ("star-delta", "wye-delta"),
        ("star", "wye"),
        ("push-button", "pushbutton"),
        ("pilot lamp", "pilot light"),
        ("lamp", "light"),
        ("nameplate current", "nameplate full-load amps"),
        ("end sleeves", "ferrules"),
        ("end sleeve", "ferrule"),
        ("time relay", "timing relay"),
        ("make contact", "normally open contact"),
        ("break contact", "normally closed contact"),
    ];

    private static readonly Dictionary<string, string> American = Terms.ToDictionary(
        t => t.Iec,
        t => t.American,
        StringComparer.OrdinalIgnoreCase
    );

    /// <summary>The same sentence in North American words.</summary>
    public static string ToAmerican(string text) =>
        Words()
            .Replace(
                text,
                m =>
                {
                    var word = American[m.Value];
                    return char.IsUpper(m.Value[0]) ? char.ToUpperInvariant(word[0]) + word[1..] : word;
                }
            );

    /// <summary>Whole words only, the longest first; not part of an id (KM1/earth) and not a tag.</summary>
    [GeneratedRegex(
        "(?<![/\\w-])(protective conductor|retaining contact|earth fault|earth link|unearthed|earthed|earthing|earth|isolating|isolator|star-delta|star|push-button|pilot lamp|lamp|nameplate current|end sleeves|end sleeve|time relay|make contact|break contact)(?![\\w-]|/)",
        RegexOptions.IgnoreCase
    )]
    private static partial Regex Words();
}
