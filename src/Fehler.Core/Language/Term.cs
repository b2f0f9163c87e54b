using System.Collections.Immutable;
using Fehler.Core.Devices;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;

namespace Fehler.Core.Language;

/// <summary>The two dialects of the trade.</summary>
public enum Dialect
{
    /// <summary>IEC 60050-441 and -826.</summary>
    Iec,

    /// <summary>NEMA ICS and the North American code.</summary>
    American,
}

/// <summary>
/// A word that the two dialects of the trade call differently. It is put into a <see cref="Wording"/> as itself,
/// <c>$"Measure it to {Term.Earth}"</c>, and becomes a word only when it is known who reads it.
/// </summary>
/// <remarks>
/// A ref struct on purpose: it cannot be put into a plain string, in which it would be one dialect's word for ever. The words of both
/// sides are from memory.
/// </remarks>
public readonly ref struct Term
{
    private static readonly ImmutableArray<(string Iec, string American)> Words =
    [
        ("protective conductor", "equipment grounding conductor"),
        ("protective conductors", "equipment grounding conductors"),
        ("retaining contact", "seal-in contact"),
        ("earth", "ground"),
        ("earth fault", "ground fault"),
        ("earth link", "grounding jumper"),
        ("earthing", "grounding"),
        ("isolating", "disconnecting"),
        ("isolator", "disconnect"),
        ("star-delta", "wye-delta"),
        ("push-button", "pushbutton"),
        ("pilot lamp", "pilot light"),
        ("lamp", "light"),
        ("nameplate current", "nameplate full-load amps"),
        ("end sleeve", "ferrule"),
        ("end sleeves", "ferrules"),
        ("time relay", "timing relay"),
        ("star", "wye"),
    ];

    private const int Capitals = 1,
        Articles = 2,
        Forms = 4;

    private readonly int _word,
        _form;

    private Term(int word, int form = 0) => (_word, _form) = (word, form);

    public static Term ProtectiveConductor => new(0);
    public static Term ProtectiveConductors => new(1);
    public static Term RetainingContact => new(2);
    public static Term Earth => new(3);
    public static Term EarthFault => new(4);
    public static Term EarthLink => new(5);
    public static Term Earthing => new(6);
    public static Term Isolating => new(7);
    public static Term Isolator => new(8);
    public static Term StarDelta => new(9);
    public static Term PushButton => new(10);
    public static Term PilotLamp => new(11);
    public static Term Lamp => new(12);
    public static Term NameplateCurrent => new(13);
    public static Term EndSleeve => new(14);
    public static Term EndSleeves => new(15);
    public static Term TimeRelay => new(16);
    public static Term Star => new(17);

    /// <summary>As a sentence begins with it.</summary>
    public Term Capital => new(_word, _form | Capitals);

    /// <summary>With its indefinite article: "an earth fault", "a ground fault".</summary>
    public Term WithArticle => new(_word, _form | Articles);

    /// <summary>The sign that stands for it in a <see cref="Wording"/>: one that no typed text has, from the private use area.</summary>
    internal char Sign => (char)(FirstSign + Forms * _word + _form);

    private const char FirstSign = '\uE000';

    internal static bool IsSign(char c) => c >= FirstSign && c < FirstSign + Forms * Words.Length;

    internal static string Of(char sign, Dialect dialect)
    {
        var (iec, american) = Words[(sign - FirstSign) / Forms];
        var form = (sign - FirstSign) % Forms;
        var word = dialect == Dialect.Iec ? iec : american;
        if ((form & Articles) != 0)
        {
            word = ("aeiou".Contains(word[0], StringComparison.Ordinal) ? "an " : "a ") + word;
        }

        return (form & Capitals) != 0 ? char.ToUpperInvariant(word[0]) + word[1..] : word;
    }
}
