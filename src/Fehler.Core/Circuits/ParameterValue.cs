using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Circuits;

/// <summary>
/// A device parameter: a number (in the unit its specification states), a word, or a list of words.
/// Exactly one of the three is set.
/// </summary>
public sealed record ParameterValue
{
    private ParameterValue() { }

    public double? Number { get; private init; }
    public string? Word { get; private init; }
    public ImmutableArray<string>? Words { get; private init; }

    public static implicit operator ParameterValue(double number) => FromDouble(number);

    public static implicit operator ParameterValue(string word) => FromString(word);

    public static ParameterValue FromDouble(double number) => new() { Number = number };

    public static ParameterValue FromString(string word) => new() { Word = word };

    public static ParameterValue FromWords(IEnumerable<string> words) => new() { Words = [.. words] };

    public bool Equals(ParameterValue? other) =>
        other is not null
        && Number == other.Number
        && Word == other.Word
        && (Words is { } mine ? other.Words is { } theirs && mine.SequenceEqual(theirs) : other.Words is null);

    public override int GetHashCode() => HashCode.Combine(Number, Word, Words?.Length);

    public override string ToString() => Number?.ToString(CultureInfo.InvariantCulture) ?? Word ?? string.Join(", ", Words ?? []);
}
