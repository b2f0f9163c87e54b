using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Nodes;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Families;

/// <summary>A line of a register list.</summary>
/// <param name="Line">Where it stands in the list.</param>
/// <param name="Tag">Its designation; empty where the line has none.</param>
/// <param name="Family">Id of the family it is built as; empty where there is none.</param>
/// <param name="Circuit">The circuit; null when the line cannot be used.</param>
/// <param name="Problem">Why it cannot be used; empty otherwise.</param>
public sealed record RegisterLine(long Line, string Tag, string Family, Circuit? Circuit, string Problem);

/// <summary>
/// A plant's list of starters as its office has it, a row each: <c>tag</c>, <c>title</c>, <c>area</c>, <c>enclosure</c>, <c>drawing</c>,
/// <c>family</c>, and columns called as the family's options or their labels. Each row becomes the circuit of its family; what the panel has
/// otherwise is corrected at the first job. One row that cannot be used does not stop the others.
/// </summary>
/// <param name="Lines">The rows.</param>
/// <param name="Unused">Headings that nothing is called as; their columns are passed over.</param>
public sealed record RegisterList(ImmutableArray<RegisterLine> Lines, ImmutableArray<string> Unused)
{
    private const int MostLines = 2_000,
        MostCharacters = 2_000_000;

    /// <summary>Columns of every family that are no options, each with what else it may be headed.</summary>
    private static readonly (string Name, string[] Headings)[] Head =
    [
        ("tag", ["tag", "designation"]),
        ("title", ["title", "name", "what it drives"]),
        ("area", ["area", "plant area"]),
        ("enclosure", ["enclosure", "panel"]),
        ("drawing", ["drawing", "drawing number"]),
    ];

    private static readonly string[] FamilyHeadings = ["family", "starter"];

    /// <summary>Whether a text is such a list: its first line names a tag and a title or a family.</summary>
    public static bool IsOne(string text)
    {
        var head = text.TrimStart('\uFEFF', ' ', '\r', '\n', '\t')
            .Split('\n', 2)[0]
            .Split(',', ';', '\t')
            .Select(h => h.Trim('"', ' ', '\r'));
        return head.Any(h => Is(h, "tag", "designation")) && head.Any(h => Is(h, "title", "name", "family"));
    }

    /// <summary>Reads a list.</summary>
    /// <exception cref="CircuitException">The text is no such list, or too long.</exception>
    public static RegisterList Read(string text)
    {
        CircuitException.Require(text.Length <= MostCharacters, "list", "is larger than 2 MB; split it.");
        var rows = SeparatedText.Rows(text).Take(MostLines + 2).ToList();
        CircuitException.Require(rows.Count > 0 && IsOne(text), "list", "has no line of headings with tag, title and family.");
        CircuitException.Require(rows.Count <= MostLines + 1, "list", $"has more than {MostLines} lines; split it.");
        var headings = rows[0].Fields.Select(h => h.Trim()).ToArray();
        var lines = rows.Skip(1).Select(r => Of(r.Line, r.Fields, headings)).ToImmutableArray();
        var families = lines.Select(l => l.Family).ToHashSet();
        var known = Head.SelectMany(h => h.Headings)
            .Concat(FamilyHeadings)
            .Concat(
                FamilyCatalogue
                    .All.Where(f => families.Contains(f.Id))
                    .SelectMany(f => f.Options)
                    .SelectMany(o => new[] { o.Name, o.Label })
            )
            .ToArray();
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        return new RegisterList(
            [
                .. lines.Select(l =>
                    l.Circuit is null || taken.Add(l.Tag) ? l : l with { Circuit = null, Problem = $"{l.Tag} stands in the list twice." }
                ),
            ],
            [.. headings.Where(h => h.Length > 0 && !Is(h, known)).Distinct()]
        );
    }

    private static RegisterLine Of(long line, string[] fields, string[] headings)
    {
        string Field(params string[] names)
        {
            var i = Array.FindIndex(headings, h => Is(h, names));
            return i >= 0 && i < fields.Length ? fields[i].Trim() : "";
        }

        var tag = Field(Head[0].Headings);
        var named = Field(FamilyHeadings);
        var family =
            named.Length == 0 ? FamilyCatalogue.All[0] : FamilyCatalogue.All.FirstOrDefault(f => Is(f.Id, named) || Is(f.Name, named));
        try
        {
            if (tag.Length == 0)
            {
                return new RegisterLine(line, "", "", null, "It has no tag.");
            }

            if (family is null)
            {
                return new RegisterLine(
                    line,
                    tag,
                    "",
                    null,
                    $"'{named}' is no family; there are: {string.Join(", ", FamilyCatalogue.All.Select(f => f.Id))}."
                );
            }

            var options = new JsonObject();
            foreach (var (name, names) in Head)
            {
                options[name] = Field(names);
            }

            if (options["title"]!.GetValue<string>().Length == 0)
            {
                options["title"] = tag;
            }

            foreach (var option in family.Options)
            {
                if (Field(option.Name, option.Label) is { Length: > 0 } given)
                {
                    options[option.Name] = Value(option, given);
                }
            }

            using var json = System.Text.Json.JsonDocument.Parse(options.ToJsonString());
            return new RegisterLine(line, tag, family.Id, FamilyCatalogue.Build(family.Id, json.RootElement), "");
        }
        catch (RefusedException e)
        {
            return new RegisterLine(line, tag, family?.Id ?? "", null, e.Message);
        }
    }

    private static JsonValue Value(OptionDescription option, string given) =>
        option.Type switch
        {
            "yes-no" => Is(given, "yes", "y", "true", "1", "x") ? JsonValue.Create(true)
            : Is(given, "no", "n", "false", "0", "-") ? JsonValue.Create(false)
            : throw new RefusedException($"{option.Label} is yes or no, not '{given}'."),
            "number" or "whole" => double.TryParse(
                given.Replace(',', '.'),
                NumberStyles.Float,
                CultureInfo.InvariantCulture,
                out var number
            ) && double.IsFinite(number)
                ? option.Type == "whole"
                    ? JsonValue.Create((int)Math.Clamp(Math.Round(number), int.MinValue, int.MaxValue))
                    : JsonValue.Create(number)
                : throw new RefusedException($"{option.Label} is a number, not '{given}'."),
            "choice" => option.Choices.FirstOrDefault(c => Is(c.Value, given) || Is(c.Text, given)) is { } choice
                ? JsonValue.Create(choice.Value)!
                : throw new RefusedException(
                    $"{option.Label} is one of: {string.Join(", ", option.Choices.Select(c => c.Value))}; not '{given}'."
                ),
            _ => JsonValue.Create(given)!,
        };

    private static bool Is(string text, params string[] names) =>
        names.Any(n => string.Equals(n, text, StringComparison.OrdinalIgnoreCase));
}
