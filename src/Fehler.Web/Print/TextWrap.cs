namespace Fehler.Web.Print;

/// <summary>Text broken into lines that fit a width.</summary>
internal static class TextWrap
{
    /// <param name="text">The text.</param>
    /// <param name="width">Width of a line.</param>
    /// <param name="measure">How wide a piece of text is.</param>
    /// <returns>At least one line; a word that is wider than a line is cut.</returns>
    public static IEnumerable<string> Lines(string text, double width, Func<string, double> measure)
    {
        var line = "";
        foreach (var word in text.Split(' '))
        {
            var longer = line.Length == 0 ? word : $"{line} {word}";
            if (line.Length > 0 && measure(longer) > width)
            {
                yield return Fitted(line, width, measure);
                line = word;
            }
            else
            {
                line = longer;
            }
        }

        yield return Fitted(line, width, measure);
    }

    /// <summary>A text cut to a width, with a sign that it was.</summary>
    public static string Fitted(string text, double width, Func<string, double> measure)
    {
        while (text.Length > 1 && measure(text) > width)
        {
            text = text[..^2] + "…";
        }

        return text;
    }
}
