using PdfSharp;
using PdfSharp.Drawing;
using PdfSharp.Fonts;
using PdfSharp.Pdf;

namespace Fehler.Web.Print;

/// <summary>Paper that a page is printed on.</summary>
internal enum Paper
{
    A4,
    Letter,
}

/// <summary>A table as a PDF that hangs in a panel door: a head on every page, rows that do not break, page numbers.</summary>
internal sealed class TablePdf : IDisposable
{
    private const double Margin = 36,
        RowHeight = 15,
        HeadHeight = 52;

    private static readonly Lock FontsLock = new();

    private readonly PdfDocument _document = new();
    private readonly string _title;
    private readonly string _under;
    private readonly string _foot;
    private readonly (string Head, double Share)[] _columns;
    private readonly Paper _paper;
    private readonly XFont _plain,
        _bold,
        _large;
    private XGraphics? _page;
    private double _y;

    /// <param name="title">Large, at the head of every page.</param>
    /// <param name="under">Below it.</param>
    /// <param name="foot">At the foot of every page, with the page number.</param>
    /// <param name="columns">Heads of the columns and their shares of the width.</param>
    /// <param name="paper">A4 or Letter, landscape.</param>
    public TablePdf(string title, string under, string foot, (string Head, double Share)[] columns, Paper paper)
    {
        lock (FontsLock)
        {
            GlobalFontSettings.FontResolver ??= new ShippedFonts();
        }

        (_title, _under, _foot, _columns, _paper) = (title, under, foot, columns, paper);
        (_plain, _bold, _large) = (
            new XFont(ShippedFonts.Family, 8),
            new XFont(ShippedFonts.Family, 8, XFontStyleEx.Bold),
            new XFont(ShippedFonts.Family, 14, XFontStyleEx.Bold)
        );
        _document.Info.Title = title;
    }

    /// <summary>A row over the whole width that heads those below it.</summary>
    public void Group(string text)
    {
        // A heading does not stand alone at the foot of a page.
        Room(3 * RowHeight);
        _page!.DrawString(text, _bold, XBrushes.Black, new XRect(Margin, _y + 2, Width, RowHeight), XStringFormats.CenterLeft);
        _y += RowHeight;
    }

    public void Row(params string[] cells)
    {
        Room(RowHeight);
        var x = Margin;
        for (var i = 0; i < _columns.Length; i++)
        {
            var width = Width * _columns[i].Share;
            _page!.DrawString(
                Fitted(cells[i], width - 4),
                _plain,
                XBrushes.Black,
                new XRect(x + 2, _y, width - 4, RowHeight),
                XStringFormats.CenterLeft
            );
            x += width;
        }

        _page!.DrawLine(XPens.LightGray, Margin, _y + RowHeight, Margin + Width, _y + RowHeight);
        _y += RowHeight;
    }

    public void Dispose() => _document.Dispose();

    public byte[] Save()
    {
        if (_page is null)
        {
            Room(RowHeight);
        }

        _page!.Dispose();
        for (var i = 0; i < _document.PageCount; i++)
        {
            using var page = XGraphics.FromPdfPage(_document.Pages[i]);
            page.DrawString(
                $"{_foot}   {i + 1} / {_document.PageCount}",
                _plain,
                XBrushes.DimGray,
                new XRect(Margin, _document.Pages[i].Height.Point - Margin + 4, Width, 12),
                XStringFormats.CenterLeft
            );
        }

        using var stream = new MemoryStream();
        _document.Save(stream);
        return stream.ToArray();
    }

    private double Width { get; set; }

    private void Room(double height)
    {
        if (_page is not null && _y + height <= _document.Pages[^1].Height.Point - Margin)
        {
            return;
        }

        _page?.Dispose();
        var page = _document.AddPage();
        page.Size = _paper == Paper.A4 ? PageSize.A4 : PageSize.Letter;
        page.Orientation = PageOrientation.Landscape;
        Width = page.Width.Point - 2 * Margin;
        _page = XGraphics.FromPdfPage(page);
        _page.DrawString(_title, _large, XBrushes.Black, new XRect(Margin, Margin, Width, 18), XStringFormats.CenterLeft);
        _page.DrawString(_under, _plain, XBrushes.Black, new XRect(Margin, Margin + 20, Width, 12), XStringFormats.CenterLeft);
        _y = Margin + HeadHeight - RowHeight;
        var x = Margin;
        foreach (var (head, share) in _columns)
        {
            _page.DrawString(head, _bold, XBrushes.Black, new XRect(x + 2, _y, Width * share - 4, RowHeight), XStringFormats.CenterLeft);
            x += Width * share;
        }

        _page.DrawLine(new XPen(XColors.Black, 1.2), Margin, _y + RowHeight, Margin + Width, _y + RowHeight);
        _y += RowHeight;
    }

    private string Fitted(string text, double width)
    {
        while (text.Length > 1 && _page!.MeasureString(text, _plain).Width > width)
        {
            text = text[..^2] + "…";
        }

        return text;
    }
}
