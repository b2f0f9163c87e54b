namespace Fehler.Core.Tests.Language;

/// <summary>What is asked of a string, asked of a wording in the words of the IEC world.</summary>
internal static class WordingSearch
{
    public static bool Contains(this Wording wording, string text) => $"{wording}".Contains(text, StringComparison.Ordinal);

    public static bool Contains(this Wording wording, string text, StringComparison how) => $"{wording}".Contains(text, how);

    public static bool StartsWith(this Wording wording, string text, StringComparison how) => $"{wording}".StartsWith(text, how);

    public static void ShouldContain(this Wording wording, string text) => $"{wording}".ShouldContain(text);

    public static void ShouldNotContain(this Wording wording, string text) => $"{wording}".ShouldNotContain(text);

    public static void ShouldNotBeNullOrWhiteSpace(this Wording wording) => $"{wording}".ShouldNotBeNullOrWhiteSpace();
}
