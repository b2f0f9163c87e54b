namespace Fehler.Web.People;

/// <summary>What a browser says of itself, shortened to what a person would call it.</summary>
internal static class BrowserNames
{
    private static readonly (string Sign, string Name)[] Systems =
    [
        ("iPad", "tablet"),
        ("iPhone", "phone"),
        ("Android", "phone or tablet"),
        ("Windows", "Windows computer"),
        ("Mac OS", "computer"),
        ("Linux", "Linux computer"),
    ];

    public static string Of(string agent) =>
        Systems.FirstOrDefault(s => agent.Contains(s.Sign, StringComparison.OrdinalIgnoreCase)).Name ?? "another browser";
}
