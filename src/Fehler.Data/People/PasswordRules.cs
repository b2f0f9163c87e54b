using System.Collections.Frozen;
using Fehler.Core.Circuits;

namespace Fehler.Data;

/// <summary>
/// What a password or PIN has to be: long rather than odd, not one that everybody tries first, not the name (NIST SP 800-63B, 5.1.1.2; from
/// memory).
/// </summary>
public static class PasswordRules
{
    public const int Shortest = 12,
        Longest = 128,
        ShortestPin = 4,
        LongestPin = 12;

    private static readonly FrozenSet<string> Common = Read();

    /// <summary>Why a password will not do; null when it will.</summary>
    public static string? Refuse(string password, string name)
    {
        var bare = new string([.. password.ToLowerInvariant().Where(char.IsLetterOrDigit)]);
        return password.Length is < Shortest or > Longest
                ? $"A password has {Shortest} to {Longest} characters; a few words in a row are easier to keep than signs."
            : password.Distinct().Count() < 5 || IsRun(bare)
                ? "Repeated signs and rows of keys are tried first; choose a few words in a row."
            : Common.Contains(bare) || Common.Contains(bare.TrimEnd([.. "0123456789"]))
                ? "This password is among those that everybody tries first; choose another."
            : name.Length > 2
            && bare.Replace(new string([.. name.ToLowerInvariant().Where(char.IsLetterOrDigit)]), "", StringComparison.Ordinal).Length < 6
                ? "A password that is little more than the name is tried first; choose another."
            : null;
    }

    /// <summary>Why a PIN will not do; null when it will.</summary>
    public static string? RefusePin(string pin) =>
        pin.Length is < ShortestPin or > LongestPin || !pin.All(char.IsAsciiDigit) ? $"A PIN has {ShortestPin} to {LongestPin} digits."
        : pin.Distinct().Count() < 2 || IsRun(pin) ? "A PIN of one digit repeated, or of digits in a row, is tried first; choose another."
        : null;

    /// <summary>Each sign one further, or one back, than the one before.</summary>
    private static bool IsRun(string text) =>
        text.Length > 2
        && text[1] - text[0] is (1 or -1) and var step
        && Enumerable.Range(1, text.Length - 1).All(i => text[i] - text[i - 1] == step);

    private static FrozenSet<string> Read()
    {
        using var list =
            typeof(PasswordRules).Assembly.GetManifestResourceStream("common-passwords.txt")
            ?? throw new InvalidOperationException("The list of common passwords is not in the program.");
        using var reader = new StreamReader(list);
        return reader
            .ReadToEnd()
            .Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
            .Where(line => line[0] != '#')
            .ToFrozenSet(StringComparer.Ordinal);
    }

    /// <summary>Why a name will not do.</summary>
    internal static string? RefuseName(string name) =>
        CircuitLimits.Refuse(name, LongestName)
        ?? (name.Trim().Length < 2 ? "Give a name of at least two letters; it stands in the journals." : null);

    private const int LongestName = 60;
}
