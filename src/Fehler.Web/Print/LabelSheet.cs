using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Pdf;
using QRCoder;

namespace Fehler.Web.Print;

/// <summary>Labels of 70 by 37 mm, three beside each other, as sheets of adhesive labels are cut.</summary>
internal sealed class LabelSheet : IDisposable
{
    private const double Millimetre = 72 / 25.4,
        LabelWidth = 70 * Millimetre,
        LabelHeight = 37 * Millimetre,
        Code = 31 * Millimetre,
        Inset = 3 * Millimetre;

    private readonly PdfDocument _document = new();
    private readonly Paper _paper;
    private readonly XFont _large,
        _plain;
    private XGraphics? _page;
    private int _place;

    public LabelSheet(Paper paper)
    {
        ShippedFonts.Use();
        _paper = paper;
        (_large, _plain) = (new XFont(ShippedFonts.Family, 13, XFontStyleEx.Bold), new XFont(ShippedFonts.Family, 8));
        _document.Info.Title = "Labels";
    }

    /// <summary>The next label.</summary>
    public void Add(QRCodeData code, string large, string under, string foot)
    {
        var (columns, rows) = Room();
        var (x, y) = (Margin(columns, PageWidth, LabelWidth) + _place % columns * LabelWidth, Top(rows) + _place / columns * LabelHeight);
        Draw(code, x + Inset, y + Inset);
        var text = x + Code + Inset;
        var width = LabelWidth - Code - 2 * Inset;
        var lines = TextWrap
            .Lines(large, width, t => _page!.MeasureString(t, _large).Width)
            .Take(2)
            .Select(l => (l, _large, 16.0))
            .Concat(Wrapped(under, width).Take(4).Select(l => (l, _plain, 11.0)))
            .Append((Wrapped(foot, width).First(), _plain, 14.0));
        var at = y + Inset;
        foreach (var (line, font, height) in lines)
        {
            _page!.DrawString(line, font, XBrushes.Black, new XRect(text, at, width, height), XStringFormats.CenterLeft);
            at += height;
        }

        _page!.DrawRectangle(XPens.LightGray, x, y, LabelWidth, LabelHeight);
        _place++;
    }

    public byte[] Save()
    {
        if (_page is null)
        {
            Room();
        }

        _page!.Dispose();
        using var stream = new MemoryStream();
        _document.Save(stream);
        return stream.ToArray();
    }

    public void Dispose() => _document.Dispose();

    private double PageWidth => _document.Pages[^1].Width.Point;

    private double PageHeight => _document.Pages[^1].Height.Point;

    private double Top(int rows) => Margin(rows, PageHeight, LabelHeight);

    private static double Margin(int count, double whole, double one) => (whole - count * one) / 2;

    private (int Columns, int Rows) Room()
    {
        if (_page is null || _place >= Fitting().Columns * Fitting().Rows)
        {
            _page?.Dispose();
            var page = _document.AddPage();
            page.Size = _paper == Paper.A4 ? PageSize.A4 : PageSize.Letter;
            _page = XGraphics.FromPdfPage(page);
            _place = 0;
        }

        return Fitting();
    }

    private (int Columns, int Rows) Fitting() => ((int)((PageWidth + 1) / LabelWidth), (int)((PageHeight + 1) / LabelHeight));

    /// <summary>The dark modules, those of a row that touch as one bar; the quiet zone is part of the code.</summary>
    private void Draw(QRCodeData code, double x, double y)
    {
        var modules = code.ModuleMatrix;
        var size = Code / modules.Count;
        for (var row = 0; row < modules.Count; row++)
        {
            for (var from = 0; from < modules.Count; from++)
            {
                var to = from;
                while (to < modules.Count && modules[row][to])
                {
                    to++;
                }

                if (to > from)
                {
                    _page!.DrawRectangle(XBrushes.Black, x + from * size, y + row * size, (to - from) * size, size);
                    from = to;
                }
            }
        }
    }

    private IEnumerable<string> Wrapped(string text, double width) =>
        TextWrap.Lines(text, width, t => _page!.MeasureString(t, _plain).Width);
}
