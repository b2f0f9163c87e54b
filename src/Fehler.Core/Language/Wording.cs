using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;

namespace Fehler.Core.Language;

/// <summary>
/// A sentence of the trade in which the words that the dialects call differently are kept apart from the rest: tags, names and whatever a
/// person typed are never taken for one. <see cref="In"/> says it in a dialect.
/// </summary>
/// <remarks>Written as an interpolated string, <c>Wording w = $"{Term.Lamp.Capital} {device.Tag} is dead"</c>; numbers are invariant.</remarks>
[InterpolatedStringHandler]
public sealed class Wording : IEquatable<Wording>
{
    private readonly StringBuilder? _writing;
    private string? _text;

    /// <summary>Called by the compiler for an interpolated string.</summary>
    public Wording(int literalLength, int formattedCount) => _writing = new StringBuilder(literalLength + 8 * formattedCount);

    private Wording(string text) => _text = text;

    /// <summary>No sentence.</summary>
    public static Wording None { get; } = new("");

    private string Text => _text ??= _writing!.ToString();

    /// <summary>Whether nothing is said.</summary>
    public bool IsEmpty => Text.Length == 0;

    /// <summary>The sentence in one of the dialects.</summary>
    public string In(Dialect dialect)
    {
        if (!Text.Any(Term.IsSign))
        {
            return Text;
        }

        var said = new StringBuilder(Text.Length + 32);
        foreach (var c in Text)
        {
            _ = Term.IsSign(c) ? said.Append(Term.Of(c, dialect)) : said.Append(c);
        }

        return said.ToString();
    }

    /// <summary>The sentence in the words of the IEC world.</summary>
    public override string ToString() => In(Dialect.Iec);

    /// <summary>Text without terms; a sign of the private use area in it is none of ours and is dropped.</summary>
    public static implicit operator Wording(string text) => FromString(text);

    /// <inheritdoc cref="op_Implicit(string)"/>
    public static Wording FromString(string text) => text.Length == 0 ? None : new(Plain(text));

    /// <summary>Called by the compiler for what stands between the holes.</summary>
    public void AppendLiteral(string value) => _writing!.Append(value);

    public void AppendFormatted(Term term) => _writing!.Append(term.Sign);

    public void AppendFormatted(Wording? wording) => _writing!.Append(wording?.Text);

    public void AppendFormatted(string? text) => _writing!.Append(Plain(text ?? ""));

    public void AppendFormatted<T>(T value, string? format = null) =>
        _writing!.Append(value is IFormattable number ? number.ToString(format, CultureInfo.InvariantCulture) : Plain($"{value}"));

    /// <summary>Several in a row.</summary>
    public static Wording Join(string between, IEnumerable<Wording> wordings) => new(string.Join(between, wordings.Select(w => w.Text)));

    public bool Equals(Wording? other) => other is not null && Text == other.Text;

    public override bool Equals(object? obj) => Equals(obj as Wording);

    public override int GetHashCode() => Text.GetHashCode(StringComparison.Ordinal);

    private static string Plain(string text) => text.Any(Term.IsSign) ? string.Concat(text.Where(c => !Term.IsSign(c))) : text;
}
