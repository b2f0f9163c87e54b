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

internal static class PaperNames
{
    /// <summary>The paper that is meant by a word in an address: A4 unless it says Letter.</summary>
    public static Paper ToPaper(this string? name) =>
        string.Equals(name, "letter", StringComparison.OrdinalIgnoreCase) ? Paper.Letter : Paper.A4;
}

/// <summary>A table as a PDF that hangs in a panel door: a head on every page, rows that do not break, page numbers.</summary>
internal sealed class TablePdf : IDisposable
{
    private const double Margin = 36,
        RowHeight = 15,
        LineHeight = 11,
        HeadHeight = 52,
        PictureHeight = 170;

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
        ShippedFonts.Use();
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

    /// <summary>A row as high as its longest cell needs, words wrapped; one that no page holds goes on the next.</summary>
    public void Paragraph(params string[] cells)
    {
        Room(RowHeight);
        var lines = cells.Select((c, i) => Wrapped(c, Width * _columns[i].Share - 4).ToList()).ToList();
        for (var line = 0; line < lines.Max(l => l.Count); line++)
        {
            Room(LineHeight);
            var x = Margin;
            for (var i = 0; i < _columns.Length; i++)
            {
                var width = Width * _columns[i].Share;
                if (line < lines[i].Count)
                {
                    var place = new XRect(x + 2, _y, width - 4, LineHeight);
                    _page!.DrawString(lines[i][line], _plain, XBrushes.Black, place, XStringFormats.CenterLeft);
                }

                x += width;
            }

            _y += LineHeight;
        }

        _page!.DrawLine(XPens.LightGray, Margin, _y + 1, Margin + Width, _y + 1);
        _y += 3;
    }

    /// <summary>A picture with what it shows below it, at most a third of the page high.</summary>
    public void Picture(byte[] bytes, string caption)
    {
        try
        {
            using var stream = new MemoryStream(bytes);
            using var image = XImage.FromStream(stream);
            Room(PictureHeight + LineHeight);
            var scale = Math.Min(PictureHeight / image.PointHeight, Width / image.PointWidth);
            _page!.DrawImage(image, Margin, _y, image.PointWidth * scale, image.PointHeight * scale);
            _y += PictureHeight + 2;
        }
        catch (Exception e) when (e is not OutOfMemoryException)
        {
            caption = $"{caption} (this picture cannot be printed; see it on the screen)";
        }

        Paragraph([.. Enumerable.Repeat("", _columns.Length - 1), caption]);
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

    private IEnumerable<string> Wrapped(string text, double width) => TextWrap.Lines(text, width, WidthOf);

    private string Fitted(string text, double width) => TextWrap.Fitted(text, width, WidthOf);

    private double WidthOf(string text) => _page!.MeasureString(text, _plain).Width;
}
