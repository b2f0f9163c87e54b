using Microsoft.VisualBasic.FileIO;

namespace Fehler.Core.Circuits;

/// <summary>Tables as spreadsheets and other programs write them: fields apart by comma, semicolon or tab, texts in quotation marks.</summary>
internal static class SeparatedText
{
    /// <summary>Rows that are not empty, each with the line that it begins on and its fields without the spaces around.</summary>
    /// <exception cref="CircuitException">A quotation mark that does not close; names the line.</exception>
    public static IEnumerable<(long Line, string[] Fields)> Rows(string text)
    {
        using var parser = new TextFieldParser(new StringReader(text.TrimStart('\uFEFF')))
        {
            HasFieldsEnclosedInQuotes = true,
            TrimWhiteSpace = true,
        };
        var first = text.Split('\n').FirstOrDefault(l => l.Trim().Length > 0) ?? "";
        parser.SetDelimiters(
            first.Contains('\t', StringComparison.Ordinal) ? "\t"
            : first.Contains(';', StringComparison.Ordinal) ? ";"
            : ","
        );
        while (!parser.EndOfData)
        {
            var line = parser.LineNumber;
            string[] fields;
            try
            {
                fields = parser.ReadFields() ?? [];
            }
            catch (MalformedLineException)
            {
                throw new CircuitException(
                    $"line {line}",
                    "has a quotation mark that does not close; write fields with commas in quotation marks."
                );
            }

            if (!fields.All(string.IsNullOrWhiteSpace))
            {
                yield return (line, fields);
            }
        }
    }
}
