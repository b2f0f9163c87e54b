using System.Collections.Immutable;
using Fehler.Core.Circuits;

namespace Fehler.Core.Families;

/// <summary>
/// Words to write a circuit down with, so that a family reads like its drawing. Parts are given as text (<c>KM1:13-14</c>);
/// null stands for a part that an option leaves out.
/// </summary>
internal static class Wiring
{
    /// <summary>One after the other; null when nothing is left.</summary>
    public static PathExpression? Series(params object?[] parts) => Joined(parts, series: true);

    /// <summary>Side by side; null when nothing is left.</summary>
    public static PathExpression? Parallel(params object?[] branches) => Joined(branches, series: false);

    /// <summary>The part, or null when the option is off.</summary>
    public static object? If(bool option, object? part) => option ? part : null;

    public static CircuitPath Control(string name, string[] from, string[] to, PathExpression? path) =>
        Path(name, PathType.Control, from, to, path);

    public static CircuitPath Power(string name, string[] from, string[] to, PathExpression? path) =>
        Path(name, PathType.Power, from, to, path);

    /// <summary>A device; of a parameter given twice the last one counts.</summary>
    public static Device Device(
        string tag,
        string kind,
        string location,
        string function,
        params (string Name, ParameterValue Value)[] parameters
    ) =>
        new(
            tag,
            DeviceKinds.Get(kind),
            location,
            Circuits.Device.NoParameters.SetItems(parameters.Select(p => KeyValuePair.Create(p.Name, p.Value))),
            function
        );

    public static ParameterValue Contacts(params string?[] contacts) =>
        ParameterValue.FromWords(contacts.Where(c => !string.IsNullOrEmpty(c))!);

    private static CircuitPath Path(string name, PathType type, string[] from, string[] to, PathExpression? path) =>
        new(
            name,
            type,
            [.. from.Select(TerminalId.Parse)],
            [.. to.Select(TerminalId.Parse)],
            path ?? throw new InvalidOperationException($"The path {name} is empty.")
        );

    private static PathExpression? Joined(object?[] parts, bool series)
    {
        // Series within series and parallel within parallel are one.
        var children = parts
            .SelectMany(Expressions)
            .SelectMany(c =>
                (c, series) switch
                {
                    (InSeries s, true) => s.Children,
                    (InParallel p, false) => p.Children,
                    _ => [c],
                }
            )
            .ToImmutableArray();
        return children.Length switch
        {
            0 => null,
            1 => children[0],
            _ => series ? new InSeries(children) : new InParallel(children),
        };
    }

    private static IEnumerable<PathExpression> Expressions(object? part) =>
        part switch
        {
            null => [],
            string text => [Part.Parse(text)],
            PathExpression expression => [expression],
            IEnumerable<object?> several => several.SelectMany(Expressions),
            _ => throw new InvalidOperationException($"'{part}' is not a part."),
        };
}
