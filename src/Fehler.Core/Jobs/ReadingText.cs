using System.Globalization;
using System.Text.RegularExpressions;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Jobs;

/// <summary>
/// Readings as people write them down, both ways: the one place where a typed value is understood and where a value is put into words. What
/// is typed anywhere in the product comes here as it was typed.
/// </summary>
public static partial class ReadingText
{
    /// <summary>Nobody writes a longer value.</summary>
    private const int Longest = 40;

    private const string Examples = "Type a number like 230, 0.3 or 4k7, or OL, full, beep, stray.";

    private static readonly Dictionary<string, ReadingKind> Words = new(StringComparer.OrdinalIgnoreCase)
    {
        ["ol"] = ReadingKind.OverLimit,
        ["0l"] = ReadingKind.OverLimit,
        ["o.l"] = ReadingKind.OverLimit,
        ["open"] = ReadingKind.OverLimit,
        ["full"] = ReadingKind.Full,
        ["beep"] = ReadingKind.Beep,
        ["silent"] = ReadingKind.Silent,
        ["no beep"] = ReadingKind.Silent,
        ["stray"] = ReadingKind.Unsteady,
        ["unsteady"] = ReadingKind.Unsteady,
        ["not sure"] = ReadingKind.NotSure,
        ["?"] = ReadingKind.NotSure,
    };

    /// <summary>
    /// Understands <c>230</c>, <c>230 V</c>, <c>.5</c>, <c>0,3</c>, <c>4k7</c>, <c>4.7k</c>, <c>2M2</c>, or one of the words OL, full,
    /// beep,
    /// no beep, stray, not sure; <c>&lt; 1</c> and <c>&gt; 200</c>. A bare number of an insulation tester is in megohm, as its display is.
    /// </summary>
    /// <exception cref="RefusedException">It is none of these, or does not go with the quantity; says what to type.</exception>
    public static ReadingValue Parse(string text, Quantity quantity)
    {
        var trimmed = text.Trim();
        if (trimmed.Length == 0)
        {
            throw new RefusedException("Type what the meter shows.");
        }

        if (trimmed.Length > Longest)
        {
            throw new RefusedException($"That is longer than any meter shows. {Examples}");
        }

        if (trimmed[0] is '<' or '>')
        {
            return Bounded(trimmed[0], Parse(trimmed[1..], quantity), quantity);
        }

        if (Words.TryGetValue(trimmed, out var word))
        {
            return Fits(word, quantity)
                ? new ReadingValue(word)
                : throw new RefusedException($"“{trimmed}” does not go with {Name(quantity)}.");
        }

        if (
            Number().Match(trimmed) is not { Success: true } match
            || (match.Groups["after"].Length > 0 && match.Groups["prefix"].Length == 0)
        )
        {
            throw new RefusedException($"“{trimmed}” is not a reading. {Examples}");
        }

        if (quantity == Quantity.Continuity)
        {
            throw new RefusedException("A continuity test beeps or stays silent; switch to ohms for a number.");
        }

        var (whole, prefix, after) = (
            match.Groups["whole"].Value.Replace(',', '.'),
            match.Groups["prefix"].Value,
            match.Groups["after"].Value
        );
        if (after.Length > 0 && whole.Contains('.', StringComparison.Ordinal))
        {
            throw new RefusedException($"“{trimmed}” has two decimal points. {Examples}");
        }

        var digits = after.Length > 0 ? $"{whole}.{after}" : whole;
        var scale = prefix switch
        {
            "k" or "K" => 1e3,
            "M" => 1e6,
            // No hand meter shows a thousandth of an ohm: who writes 2 m of a resistance means two million.
            "m" => quantity.IsLive() ? 1e-3 : 1e6,
            _ => quantity == Quantity.Insulation ? 1e6 : 1,
        };
        return ReadingValue.Of(double.Parse(digits, CultureInfo.InvariantCulture) * scale);
    }

    /// <summary>"Less than" is half of it; "more than" is what a meter shows by OL.</summary>
    private static ReadingValue Bounded(char sign, ReadingValue value, Quantity quantity) =>
        (sign, value.Kind) switch
        {
            ('<', ReadingKind.Number) => value with { Number = value.Number / 2 },
            ('>', ReadingKind.Number) when !quantity.IsLive() => new ReadingValue(ReadingKind.OverLimit),
            _ => throw new RefusedException($"“{sign}” does not go with {Name(quantity)} here: type the number that the meter shows."),
        };

    /// <summary>What a person wrote down as a resistance; infinite is OL.</summary>
    /// <exception cref="RefusedException">Neither a number of ohm nor OL.</exception>
    public static Ohms ParseOhms(string text) =>
        Parse(text, Quantity.Ohms) switch
        {
            { Kind: ReadingKind.OverLimit } => Ohms.Open,
            { Kind: ReadingKind.Number, Number: >= 0 and var ohms } => new Ohms(ohms),
            _ => throw new RefusedException($"“{text.Trim()}” is not a resistance: write ohms as 0.3, 460, 4.7k, 2M, or OL."),
        };

    /// <summary>As shown to a person, with its unit.</summary>
    public static string Show(ReadingValue value, Quantity quantity) =>
        value.Kind switch
        {
            ReadingKind.Number => quantity.IsVolts() ? $"{Digits(value.Number)} V"
            : quantity.IsAmps() ? $"{Digits(value.Number)} A"
            : Show(new Ohms(value.Number)),
            ReadingKind.OverLimit => "OL",
            ReadingKind.Full => "full",
            ReadingKind.Beep => "beep",
            ReadingKind.Silent => "no beep",
            ReadingKind.NotSure => "not sure",
            _ => "unsteady",
        };

    /// <summary>A resistance as shown to a person, in Ω, kΩ or MΩ.</summary>
    public static string Show(Ohms ohms) =>
        ohms.Value switch
        {
            double.PositiveInfinity => "OL",
            >= 1e6 => $"{Digits(ohms.Value / 1e6)} MΩ",
            >= 1000 => $"{Digits(ohms.Value / 1000)} kΩ",
            _ => $"{Digits(ohms.Value)} Ω",
        };

    /// <summary>To the digits that a usual meter shows.</summary>
    public static string Digits(double value) =>
        value.ToString(
            Math.Abs(value) >= 100 ? "0"
                : Math.Abs(value) >= 10 ? "0.#"
                : "0.##",
            CultureInfo.InvariantCulture
        );

    /// <summary>What is measured, in the words of the trade.</summary>
    public static string Name(Quantity quantity) =>
        quantity switch
        {
            Quantity.Volts => "volts",
            Quantity.DcVolts => "volts DC",
            Quantity.Amps => "amps",
            Quantity.StartingAmps => "starting amps",
            Quantity.Insulation => "insulation",
            Quantity.Continuity => "continuity",
            _ => "ohms",
        };

    private static bool Fits(ReadingKind kind, Quantity quantity) =>
        kind switch
        {
            ReadingKind.NotSure => true,
            ReadingKind.Full => quantity.IsVolts(),
            ReadingKind.OverLimit => !quantity.IsLive(),
            ReadingKind.Beep or ReadingKind.Silent => quantity == Quantity.Continuity,
            _ => quantity != Quantity.Continuity,
        };

    [GeneratedRegex(
        @"^(?<whole>-?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*(?<prefix>[kKmM])?(?<after>\d*)\s*(?:v|vac|vdc|v~|v=|a|aac|ω|ohm|ohms|r)?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Number();
}
