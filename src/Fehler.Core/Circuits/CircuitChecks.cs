using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using static Fehler.Core.Circuits.CircuitException;

namespace Fehler.Core.Circuits;

/// <summary>What a description must keep to before a circuit is built of it; each refusal names its place in the file.</summary>
/// <param name="given">The description.</param>
internal sealed class CircuitChecks(CircuitBuilder given)
{
    public void Size()
    {
        AtMost(given.Devices.Length, CircuitLimits.Devices, "$.devices", "devices");
        AtMost(given.Conductors.Length, CircuitLimits.Conductors, "$.conductors", "conductors");
        AtMost(given.Paths.Length, CircuitLimits.Paths, "$.paths", "paths");
        AtMost(
            given.Paths.Sum(p => p.Expression.Parts().Take(CircuitLimits.Parts + 1).Count()),
            CircuitLimits.Parts,
            "$.paths",
            "parts in all paths"
        );
        AtMost(given.Locations.Length, CircuitLimits.Locations, "$.locations", "places");
        Fits(given.Tag, CircuitLimits.Name, "$.tag");
        Fits(given.Title, CircuitLimits.Text, "$.title");
        Fits(given.Area, CircuitLimits.Text, "$.area");
        Fits(given.Enclosure, CircuitLimits.Text, "$.enclosure");
        Fits(given.Drawing, CircuitLimits.Text, "$.drawing");
        Fits(given.Notes, CircuitLimits.Notes, "$.notes");
        Require(given.PowerSquareMillimetres is > 0 and <= 1000, "$.powerMm2", "must be above 0 and at most 1000 mm².");
        for (var i = 0; i < given.Locations.Length; i++)
        {
            Require(given.Locations[i].Id.Length > 0, $"$.locations[{i}].id", "is empty.");
            Fits(given.Locations[i].Id, CircuitLimits.Name, $"$.locations[{i}].id");
            Fits(given.Locations[i].Name, CircuitLimits.Text, $"$.locations[{i}].name");
            Require(given.Locations[i].CableMetres is >= 0 and <= 5000, $"$.locations[{i}].cableMetres", "must be 0 to 5000 m.");
        }

        for (var i = 0; i < given.Paths.Length; i++)
        {
            Fits(given.Paths[i].Name, CircuitLimits.Text, $"$.paths[{i}].name");
        }

        for (var i = 0; i < given.Conductors.Length; i++)
        {
            Fits(given.Conductors[i].Id, CircuitLimits.Name, $"$.conductors[{i}].id");
            Fits(given.Conductors[i].Wire, CircuitLimits.Name, $"$.conductors[{i}].wire");
            Fits(given.Conductors[i].From.Name, CircuitLimits.Name, $"$.conductors[{i}].from");
            Fits(given.Conductors[i].To.Name, CircuitLimits.Name, $"$.conductors[{i}].to");
            Require(
                given.Conductors[i].Id.Length > 0 && given.Conductors[i].Wire.Length > 0,
                $"$.conductors[{i}]",
                "needs an id and a wire number."
            );
        }

        foreach (var (terminal, number) in given.WireNumbers)
        {
            Require(number.Trim().Length > 0, "$.wireNumbers", $"{terminal} has no number.");
            Fits(number, CircuitLimits.Name, $"$.wireNumbers.{terminal}");
        }
    }

    private static void AtMost(int count, int most, string at, string what) =>
        Require(count <= most, at, $"has {count} {what}; at most {most} are taken. Describe a larger plant as several circuits.");

    private static void Fits(string text, int longest, string at)
    {
        var wrong = CircuitLimits.Refuse(text, longest);
        Require(wrong is null, at, wrong ?? "");
    }

    /// <summary>A path that is open at its end leads on somewhere: into another path, or over a conductor that is given.</summary>
    public void Closed(ImmutableArray<Device> devices)
    {
        var used = given
            .Paths.SelectMany(p => p.From.Concat(p.To))
            .Concat(given.Conductors.SelectMany(c => new[] { c.From, c.To }))
            .ToHashSet();
        if (given.Reference is { } reference)
        {
            used.Add(reference);
        }

        for (var i = 0; i < given.Paths.Length; i++)
        {
            var open = given.Paths[i].To.IsEmpty ? Ends(given.Paths[i].Expression).FirstOrDefault(t => !used.Contains(t)) : default;
            Require(
                open == default,
                $"$.paths[{i}].to",
                $"is empty, but {open} leads nowhere; name the terminal that the path returns to."
            );
        }

        Require(
            devices.Any(d => d.Kind.SourceOf(d) is not null),
            "$.devices",
            "has no supply; the circuit needs a device of kind 'supply'."
        );
    }

    /// <summary>Terminals that an expression leaves by.</summary>
    private static IEnumerable<TerminalId> Ends(PathExpression expression) =>
        expression switch
        {
            Part part => part.Out.Select(t => new TerminalId(part.Device, t)),
            InSeries series => Ends(series.Children[^1]),
            InParallel parallel => Ends(parallel.Children[0]),
            _ => [],
        };

    public void PlacesAndDevices()
    {
        Require(given.Tag.Length > 0, "$.tag", "is empty; give the circuit's designation, e.g. \"P-301\".");
        Require(given.Title.Length > 0, "$.title", "is empty; say what the circuit drives.");
        Require(given.Locations.Length > 0, "$.locations", "is empty; name at least the enclosure.");
        Require(
            given.Locations.Any(l => l.Type == LocationType.Enclosure),
            "$.locations",
            "has no enclosure; the place where the contactors sit is one of type 'enclosure'."
        );
        Unique(given.Locations.Select(l => l.Id), "$.locations", "location id");
        Unique(given.Devices.Select(d => d.Tag), "$.devices", "device tag");
        for (var i = 0; i < given.Devices.Length; i++)
        {
            var device = given.Devices[i];
            var at = $"$.devices[{i}]";
            Require(
                device.Tag.Length > 0 && !device.Tag.Contains(':', StringComparison.Ordinal),
                $"{at}.tag",
                "must not be empty and must not contain a colon."
            );
            Fits(device.Tag, CircuitLimits.Name, $"{at}.tag");
            Fits(device.Function, CircuitLimits.Text, $"{at}.function");
            Require(
                given.Locations.Any(l => l.Id == device.Location),
                $"{at}.location",
                $"'{device.Location}' is not one of the locations: {string.Join(", ", given.Locations.Select(l => l.Id))}."
            );
            foreach (var (name, value) in device.Parameters)
            {
                Parameter(device, name, value, $"{at}.parameters.{name}");
            }
        }

        foreach (var device in given.Devices)
        {
            Names(device, $"$.devices[{given.Devices.IndexOf(device)}].parameters.{DeviceKind.TerminalNames.Name}");

            // A change-over contact or a supply's star point shares a terminal by its kind; contacts that a description lists do not.
            var twice = device.Kind.WithDefaults(device).Parameters.TryGetValue(DeviceKind.ContactsParameter, out var listed)
                ? device
                    .Kind.Elements(device.Kind.WithDefaults(device))
                    .SelectMany(e => new[] { e.A, e.B })
                    .GroupBy(t => t)
                    .FirstOrDefault(g =>
                        g.Count() > 1
                        && listed.Words!.Value.Any(w => Element.FromContact(w) is var c && (c.A == g.Key || c.B == g.Key))
                        && !device.Kind.SharesTerminals
                    )
                : null;
            Require(
                twice is null,
                $"$.devices[{given.Devices.IndexOf(device)}].parameters",
                $"terminal {twice?.Key} of {device.Tag} belongs to two contacts; terminals of a device are numbered apart."
            );
        }

        Require(given.Devices.Any(d => d.Kind.IsSupply), "$.devices", "has no supply; the circuit needs a device of kind 'supply'.");
    }

    /// <summary>Printed names are of terminals that there are, and leave no two terminals with one name.</summary>
    private static void Names(Device device, string at)
    {
        if (!device.HasOwnNames)
        {
            return;
        }

        var named = device.Kind.WithDefaults(device);
        var own = device.Kind.Terminals(named with { Parameters = named.Parameters.Remove(DeviceKind.TerminalNames.Name) });
        foreach (var name in device.Given(DeviceKind.TerminalNames.Name).Words!.Value.Select(n => n.Split('=')[0]))
        {
            Require(own.Contains(name), at, $"names terminal {name}, which {device.Tag} does not have; it has {string.Join(", ", own)}.");
        }

        var elements = device.Kind.Elements(named);
        var listed = elements.Where(e => e.IsListed).SelectMany(e => new[] { e.A, e.B }).ToHashSet();
        var twice = elements
            .Where(e => !e.IsListed)
            .SelectMany(e => new[] { (Own: e.OwnA, Printed: e.A), (Own: e.OwnB, Printed: e.B) })
            .Distinct()
            .GroupBy(t => t.Printed)
            .FirstOrDefault(g => g.Count() > 1 || listed.Contains(g.Key))
            ?.Key;
        Require(twice is null, at, $"leave two terminals of {device.Tag} with the name {twice}; name the other one too.");
    }

    /// <summary>Two terminals, then words that say what it does.</summary>
    private static bool IsContact(string listed) =>
        listed.Split(' ', StringSplitOptions.RemoveEmptyEntries) is [var ends, ..]
        && ends.Split('-') is [{ Length: > 0 } a, { Length: > 0 } b]
        && IsName(a)
        && IsName(b);

    /// <summary>What may stand in <c>KM1:13-14,23-24</c> without being taken for something else.</summary>
    private static bool IsName(string name) =>
        name.Length <= CircuitLimits.Name && name[0] != '~' && name.IndexOfAny([':', ',', '-', '=', ' ']) < 0;

    private static void Parameter(Device device, string name, ParameterValue value, string at)
    {
        var spec = device.Kind.AllParameters.FirstOrDefault(p => p.Name == name);
        Require(
            spec is not null,
            at,
            $"a {device.Kind.Name} has no parameter '{name}'; it has: {string.Join(", ", device.Kind.AllParameters.Select(p => p.Name))}."
        );
        Fits(value.Word ?? "", CircuitLimits.Text, at);
        switch (spec)
        {
            case NumberSpec number:
                Require(
                    value.Number is { } entered && entered >= number.Minimum && entered <= number.Maximum,
                    at,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"'{value}' is not a number from {number.Minimum:0.###} to {number.Maximum:0.###} "
                            + $"({spec.Description}{(spec.Unit.Length > 0 ? ", " + spec.Unit : "")})."
                    )
                );
                break;
            case ContactsSpec:
                Require(
                    value.Words is { } words && words.All(IsContact),
                    at,
                    $"'{value}' is not a list of terminal pairs like [\"13-14\"], with no, nc or delayed behind where the digits do not say it."
                );
                AtMost(value.Words!.Value.Length, CircuitLimits.Contacts, at, "contacts");
                Fits(string.Concat(value.Words.Value.Select(w => w.Length > CircuitLimits.Name ? w : "")), CircuitLimits.Name, at);
                break;
            case NamesSpec:
                Require(
                    value.Words is { } names
                        && names.All(n => n.Split('=') is [{ Length: > 0 }, { Length: > 0 } printed] && IsName(printed)),
                    at,
                    $"'{value}' is not a list of names like [\"1=L1\", \"2=T1\"]."
                );
                AtMost(value.Words!.Value.Length, CircuitLimits.Contacts, at, "names");
                Require(
                    value.Words.Value.Select(n => n.Split('=')[0]).Distinct().Count() == value.Words.Value.Length
                        && value.Words.Value.Select(n => n.Split('=')[1]).Distinct().Count() == value.Words.Value.Length,
                    at,
                    $"'{value}' names a terminal twice."
                );
                Require(
                    value.Words.Value.All(n => n.Split('=')[0] != "PE"),
                    at,
                    "names PE otherwise; the terminal of the protective conductor is called PE everywhere, so that nobody mistakes it."
                );
                break;
            case WordSpec choice:
                Require(
                    value.Word is { } word && (choice.Choices.Length == 0 || choice.Choices.Contains(word)),
                    at,
                    $"'{value}' is not one of: {string.Join(", ", choice.Choices)}."
                );
                break;
        }
    }

    public static void Couplings(ImmutableArray<Device> devices)
    {
        for (var i = 0; i < devices.Length; i++)
        {
            foreach (var other in devices[i].Kind.CoupledTo(devices[i]))
            {
                Require(
                    devices.Any(d => d.Tag == other && d.Tag != devices[i].Tag),
                    $"$.devices[{i}].parameters",
                    $"{devices[i].Tag} is coupled to '{other}', which is not another device of the circuit."
                );
            }
        }
    }

    public void PathsOf(ImmutableArray<Device> devices)
    {
        Require(given.Paths.Length > 0, "$.paths", "is empty; a circuit has at least one path.");
        for (var i = 0; i < given.Paths.Length; i++)
        {
            var at = $"$.paths[{i}]";
            foreach (var terminal in given.Paths[i].From.Concat(given.Paths[i].To))
            {
                Terminal(devices, terminal, at);
            }

            foreach (var part in given.Paths[i].Expression.Parts())
            {
                foreach (var terminal in part.In.Concat(part.Out))
                {
                    Terminal(devices, new TerminalId(part.Device, terminal), $"{at}.path");
                }
            }

            var (width, _) = Width(given.Paths[i].Expression, given.Paths[i].From.Length, $"{at}.path");
            Require(
                given.Paths[i].To.Length == 0 || given.Paths[i].To.Length == width,
                $"{at}.to",
                $"names {given.Paths[i].To.Length} terminals, but the path ends with {width}."
            );
        }

        var twice = given.Paths.SelectMany(p => p.Expression.Parts()).GroupBy(p => p.ToString()).FirstOrDefault(g => g.Count() > 1);
        Require(twice is null, "$.paths", $"{twice?.Key} stands in two places; a part can be wired once.");
    }

    public static void Terminal(ImmutableArray<Device> devices, TerminalId terminal, string at)
    {
        var device = devices.FirstOrDefault(d => d.Tag == terminal.Device);
        Require(device is not null, at, $"{terminal} names a device that is not in $.devices.");
        Require(
            device!.Kind.HasTerminal(device, terminal.Name),
            at,
            $"{terminal} does not exist: {device.Tag} has {string.Join(", ", device.Kind.Terminals(device))}."
        );
    }

    /// <summary>Number of conductors an expression leaves by; 0 after a part that ends the path.</summary>
    private static (int Width, bool Ends) Width(PathExpression expression, int entering, string at)
    {
        switch (expression)
        {
            case Part part:
                Require(part.In.Length == entering, at, $"{part} takes {part.In.Length} conductors, but {entering} arrive.");
                return (part.Out.Length, part.Out.Length == 0);
            case InSeries series:
                Require(series.Children.Length > 0, at, "has an empty series.");
                var width = entering;
                for (var i = 0; i < series.Children.Length; i++)
                {
                    (width, var ends) = Width(series.Children[i], width, $"{at}.series[{i}]");
                    Require(!ends || i == series.Children.Length - 1, $"{at}.series[{i}]", "ends the path, but more parts follow it.");
                }

                return (width, width == 0);
            case InParallel parallel:
                Require(parallel.Children.Length > 1, at, "needs at least two branches in parallel.");
                var widths = parallel.Children.Select((c, i) => Width(c, entering, $"{at}.parallel[{i}]").Width).Distinct().ToList();
                Require(widths.Count == 1, at, "has branches that leave with different numbers of conductors.");
                return (widths[0], widths[0] == 0);
            default:
                throw new CircuitException(at, "is not a path expression.");
        }
    }

    public static void Unique(IEnumerable<string> names, string at, string what)
    {
        var twice = names.GroupBy(n => n).FirstOrDefault(g => g.Count() > 1)?.Key;
        Require(twice is null, at, $"has the {what} '{twice}' twice.");
    }
}
