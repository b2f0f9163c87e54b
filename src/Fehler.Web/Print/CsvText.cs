using System.Globalization;
using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fehler.Web.Print;

/// <summary>Rows as CSV that a spreadsheet opens as they are.</summary>
internal static class CsvText
{
    public const string Type = "text/csv";

    /// <summary>A cell that a spreadsheet would take for a formula is escaped.</summary>
    private static readonly CsvWriterOptions Options = new() { Injection = CsvInjection.Escape };

    /// <summary>Spreadsheets tell UTF-8 by its mark at the beginning.</summary>
    public static byte[] Mark => Encoding.UTF8.GetPreamble();

    /// <summary>Rows as a file to be taken along.</summary>
    /// <param name="name">Name of the file.</param>
    /// <param name="heads">Heads of the columns.</param>
    /// <param name="rows">The rows below them.</param>
    public static FileContentHttpResult File(string name, string[] heads, IEnumerable<string[]> rows) =>
        TypedResults.Bytes([.. Mark, .. Of(rows.Prepend(heads))], Type, name);

    public static byte[] Of(IEnumerable<string[]> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = CsvWriter.Create(text, Options, leaveOpen: true))
        {
            foreach (var row in rows)
            {
                csv.WriteRecord(row);
            }
        }

        return Encoding.UTF8.GetBytes(text.ToString());
    }
}
