using PdfSharp.Fonts;

namespace Fehler.Web.Print;

/// <summary>The fonts that ship with the application: a printed page needs none from the machine.</summary>
internal sealed class ShippedFonts : IFontResolver
{
    public const string Family = "DejaVu Sans Condensed";

    private static readonly Lock Once = new();

    /// <summary>Before anything is written on a page.</summary>
    public static void Use()
    {
        lock (Once)
        {
            GlobalFontSettings.FontResolver ??= new ShippedFonts();
        }
    }

    public byte[]? GetFont(string faceName)
    {
        using var stream =
            typeof(ShippedFonts).Assembly.GetManifestResourceStream(faceName)
            ?? throw new InvalidOperationException($"The font {faceName} is not in the application.");
        using var memory = new MemoryStream();
        stream.CopyTo(memory);
        return memory.ToArray();
    }

    public FontResolverInfo? ResolveTypeface(string familyName, bool bold, bool italic) =>
        new(bold ? "DejaVuSansCondensed-Bold.ttf" : "DejaVuSansCondensed.ttf");
}
