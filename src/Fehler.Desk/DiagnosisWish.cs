using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Language;

namespace Fehler.Desk;

/// <summary>How a diagnosis is wanted.</summary>
/// <param name="Strategy">Way of working.</param>
/// <param name="Without">What cannot be done now.</param>
/// <param name="Learn">Whether earlier repairs count.</param>
/// <param name="Dialect">The dialect of who asks.</param>
public sealed record DiagnosisWish(Strategy Strategy, Without Without, bool Learn, Dialect Dialect)
{
    public static DiagnosisWish Usual { get; } = new(Strategy.MostTelling, Without.None, true, Dialect.Iec);

    /// <exception cref="RefusedException">A word that is not known; says which are.</exception>
    public static DiagnosisWish Parse(string? strategy, string? without, bool? learn, string? words)
    {
        if (!TryNamed(strategy, Strategy.MostTelling, out var way))
        {
            throw new RefusedException(
                $"'{Short(strategy)}' is not a way of working; expected mostTelling, fromSupply, deadFirst or halving."
            );
        }

        if (!TryNamed(without, Without.None, out var left))
        {
            throw new RefusedException(
                $"'{Short(without)}' is not something to do without; expected live, isolating, operating, field, clamp, lifting "
                    + "or insulationTester, with commas."
            );
        }

        return words is null or "iec" or "american"
            ? new DiagnosisWish(way, left, learn ?? true, words == "american" ? Dialect.American : Dialect.Iec)
            : throw new RefusedException($"'{Short(words)}' is not a dialect; expected iec or american.");
    }

    /// <summary>By name, never by number.</summary>
    private static bool TryNamed<T>(string? text, T otherwise, out T value)
        where T : struct, Enum
    {
        value = otherwise;
        return string.IsNullOrEmpty(text) || (!text.Any(char.IsDigit) && Enum.TryParse(text, ignoreCase: true, out value));
    }

    private static string Short(string? text) => text is { Length: > 40 } ? text[..40] + "..." : text ?? "";
}
