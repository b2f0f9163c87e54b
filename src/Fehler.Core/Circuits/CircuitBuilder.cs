using System.Collections.Immutable;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Circuits;

/// <summary>
/// Makes a <see cref="Circuit"/> from a description and refuses one that cannot be a circuit. Conductors that the
/// description gives are taken as the routes of their wires; where it gives none they are derived.
/// </summary>
public sealed class CircuitBuilder
{
    public required string Tag { get; init; }
    public required string Title { get; init; }
    public string Area { get; init; } = "";
    public string Enclosure { get; init; } = "";
    public string Drawing { get; init; } = "";
    public string Notes { get; init; } = "";
    public TerminalId? Reference { get; init; }
    public double PowerSquareMillimetres { get; init; } = 2.5;

    /// <summary>How wires run between places where the description gives no route.</summary>
    public FieldWiring FieldWiring { get; init; }

    public required ImmutableArray<Location> Locations { get; init; }
    public required ImmutableArray<Device> Devices { get; init; }
    public required ImmutableArray<CircuitPath> Paths { get; init; }
    public ImmutableArray<Conductor> Conductors { get; init; } = [];

    /// <summary>Wire number by any terminal it is landed on.</summary>
    public ImmutableDictionary<TerminalId, string> WireNumbers { get; init; } = ImmutableDictionary<TerminalId, string>.Empty;

    /// <exception cref="CircuitException">The description cannot be a circuit; says where and why.</exception>
    public Circuit Build()
    {
        CheckSize();
        CheckPlacesAndDevices();
        var devices = Devices.Select(d => d.Kind.WithDefaults(d)).ToImmutableArray();
        CheckPaths(devices);
        CheckClosed(devices);
        CheckCouplings(devices);
        var nets = Numbered(NetDerivation.Of(Paths, [.. devices.Where(d => d.Kind.IsSupply).Select(d => d.Tag)]));
        var given = CheckedConductors(nets, devices);
        var derived = Routing.Derive(
            [.. nets.Where(n => !given.Any(c => n.Terminals.Contains(c.From) || n.Terminals.Contains(c.To)))],
            Locations,
            devices,
            PowerSquareMillimetres,
            FieldWiring
        );
        var reference =
            Reference
            ?? Paths.Where(p => p.Type == PathType.Control).SelectMany(p => p.To).Cast<TerminalId?>().FirstOrDefault()
            ?? throw new CircuitException(
                "$.reference",
                "No control path returns anywhere; name the terminal that readings refer to, e.g. \"INC:N\"."
            );
        CheckTerminal(devices, reference, "$.reference");
        Require(
            devices.All(d => !d.Kind.IsStrip || d.Tag != reference.Device)
                || derived.Concat(given).Any(c => c.From == reference || c.To == reference),
            "$.reference",
            $"{reference} is a clamp that no conductor ends at."
        );
        return new Circuit
        {
            Tag = Tag,
            Title = Title,
            Area = Area,
            Enclosure = Enclosure,
            Drawing = Drawing,
            Notes = Notes,
            Locations = Locations,
            Devices = devices,
            Paths = Paths,
            Conductors = [.. given, .. derived],
            Reference = reference,
        };
    }

    private void CheckSize()
    {
        AtMost(Devices.Length, CircuitLimits.Devices, "$.devices", "devices");
        AtMost(Conductors.Length, CircuitLimits.Conductors, "$.conductors", "conductors");
        AtMost(Paths.Length, CircuitLimits.Paths, "$.paths", "paths");
        AtMost(
            Paths.Sum(p => p.Expression.Parts().Take(CircuitLimits.Parts + 1).Count()),
            CircuitLimits.Parts,
            "$.paths",
            "parts in all paths"
        );
        AtMost(Locations.Length, CircuitLimits.Locations, "$.locations", "places");
        Fits(Tag, CircuitLimits.Name, "$.tag");
        Fits(Title, CircuitLimits.Text, "$.title");
        Fits(Area, CircuitLimits.Text, "$.area");
        Fits(Enclosure, CircuitLimits.Text, "$.enclosure");
        Fits(Drawing, CircuitLimits.Text, "$.drawing");
        Fits(Notes, CircuitLimits.Notes, "$.notes");
        Require(PowerSquareMillimetres is > 0 and <= 1000, "$.powerMm2", "must be above 0 and at most 1000 mm².");
        for (var i = 0; i < Locations.Length; i++)
        {
            Require(Locations[i].Id.Length > 0, $"$.locations[{i}].id", "is empty.");
            Fits(Locations[i].Id, CircuitLimits.Name, $"$.locations[{i}].id");
            Fits(Locations[i].Name, CircuitLimits.Text, $"$.locations[{i}].name");
            Require(Locations[i].CableMetres is >= 0 and <= 5000, $"$.locations[{i}].cableMetres", "must be 0 to 5000 m.");
        }

        for (var i = 0; i < Paths.Length; i++)
        {
            Fits(Paths[i].Name, CircuitLimits.Text, $"$.paths[{i}].name");
        }

        for (var i = 0; i < Conductors.Length; i++)
        {
            Fits(Conductors[i].Id, CircuitLimits.Name, $"$.conductors[{i}].id");
            Fits(Conductors[i].Wire, CircuitLimits.Name, $"$.conductors[{i}].wire");
            Fits(Conductors[i].From.Name, CircuitLimits.Name, $"$.conductors[{i}].from");
            Fits(Conductors[i].To.Name, CircuitLimits.Name, $"$.conductors[{i}].to");
            Require(Conductors[i].Id.Length > 0 && Conductors[i].Wire.Length > 0, $"$.conductors[{i}]", "needs an id and a wire number.");
        }

        foreach (var (terminal, number) in WireNumbers)
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
    private void CheckClosed(ImmutableArray<Device> devices)
    {
        var used = Paths.SelectMany(p => p.From.Concat(p.To)).Concat(Conductors.SelectMany(c => new[] { c.From, c.To })).ToHashSet();
        if (Reference is { } reference)
        {
            used.Add(reference);
        }

        for (var i = 0; i < Paths.Length; i++)
        {
            var open = Paths[i].To.IsEmpty ? Ends(Paths[i].Expression).FirstOrDefault(t => !used.Contains(t)) : default;
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

    private void CheckPlacesAndDevices()
    {
        Require(Tag.Length > 0, "$.tag", "is empty; give the circuit's designation, e.g. \"P-301\".");
        Require(Title.Length > 0, "$.title", "is empty; say what the circuit drives.");
        Require(Locations.Length > 0, "$.locations", "is empty; name at least the enclosure.");
        Require(
            Locations.Any(l => l.Type == LocationType.Enclosure),
            "$.locations",
            "has no enclosure; the place where the contactors sit is one of type 'enclosure'."
        );
        Unique(Locations.Select(l => l.Id), "$.locations", "location id");
        Unique(Devices.Select(d => d.Tag), "$.devices", "device tag");
        for (var i = 0; i < Devices.Length; i++)
        {
            var device = Devices[i];
            var at = $"$.devices[{i}]";
            Require(
                device.Tag.Length > 0 && !device.Tag.Contains(':', StringComparison.Ordinal),
                $"{at}.tag",
                "must not be empty and must not contain a colon."
            );
            Fits(device.Tag, CircuitLimits.Name, $"{at}.tag");
            Fits(device.Function, CircuitLimits.Text, $"{at}.function");
            Require(
                Locations.Any(l => l.Id == device.Location),
                $"{at}.location",
                $"'{device.Location}' is not one of the locations: {string.Join(", ", Locations.Select(l => l.Id))}."
            );
            foreach (var (name, value) in device.Parameters)
            {
                CheckParameter(device, name, value, $"{at}.parameters.{name}");
            }
        }

        foreach (var device in Devices)
        {
            // A change-over contact or a supply's star point shares a terminal by its kind; contacts that a description lists do not.
            var twice = device.Kind.WithDefaults(device).Parameters.TryGetValue(DeviceKind.ContactsParameter, out var listed)
                ? device
                    .Kind.Elements(device.Kind.WithDefaults(device))
                    .SelectMany(e => new[] { e.A, e.B })
                    .GroupBy(t => t)
                    .FirstOrDefault(g =>
                        g.Count() > 1 && listed.Words!.Value.Any(w => w.Split('-').Contains(g.Key)) && !device.Kind.SharesTerminals
                    )
                : null;
            Require(
                twice is null,
                $"$.devices[{Devices.IndexOf(device)}].parameters",
                $"terminal {twice?.Key} of {device.Tag} belongs to two contacts; terminals of a device are numbered apart."
            );
        }

        Require(Devices.Any(d => d.Kind.IsSupply), "$.devices", "has no supply; the circuit needs a device of kind 'supply'.");
    }

    private static void CheckParameter(Device device, string name, ParameterValue value, string at)
    {
        var spec = device.Kind.AllParameters.FirstOrDefault(p => p.Name == name);
        Require(
            spec is not null,
            at,
            $"a {device.Kind.Term} has no parameter '{name}'; it has: {string.Join(", ", device.Kind.AllParameters.Select(p => p.Name))}."
        );
        Fits(value.Word ?? "", CircuitLimits.Text, at);
        switch (spec)
        {
            case NumberSpec number:
                Require(
                    value.Number is { } given && given >= number.Minimum && given <= number.Maximum,
                    at,
                    FormattableString.Invariant(
                        $"'{value}' is not a number from {number.Minimum:0.###} to {number.Maximum:0.###} ({spec.Description}{(spec.Unit.Length > 0 ? ", " + spec.Unit : "")})."
                    )
                );
                break;
            case ContactsSpec:
                Require(
                    value.Words is { } words && words.All(w => w.Split('-').Length == 2 && w.Split('-').All(e => e.Length > 0)),
                    at,
                    $"'{value}' is not a list of terminal pairs like [\"13-14\"]."
                );
                AtMost(value.Words!.Value.Length, CircuitLimits.Contacts, at, "contacts");
                Fits(string.Concat(value.Words.Value.Select(w => w.Length > CircuitLimits.Name ? w : "")), CircuitLimits.Name, at);
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

    private static void CheckCouplings(ImmutableArray<Device> devices)
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

    private void CheckPaths(ImmutableArray<Device> devices)
    {
        Require(Paths.Length > 0, "$.paths", "is empty; a circuit has at least one path.");
        for (var i = 0; i < Paths.Length; i++)
        {
            var at = $"$.paths[{i}]";
            foreach (var terminal in Paths[i].From.Concat(Paths[i].To))
            {
                CheckTerminal(devices, terminal, at);
            }

            foreach (var part in Paths[i].Expression.Parts())
            {
                foreach (var terminal in part.In.Concat(part.Out))
                {
                    CheckTerminal(devices, new TerminalId(part.Device, terminal), $"{at}.path");
                }
            }

            var (width, _) = Width(Paths[i].Expression, Paths[i].From.Length, $"{at}.path");
            Require(
                Paths[i].To.Length == 0 || Paths[i].To.Length == width,
                $"{at}.to",
                $"names {Paths[i].To.Length} terminals, but the path ends with {width}."
            );
        }

        var twice = Paths.SelectMany(p => p.Expression.Parts()).GroupBy(p => p.ToString()).FirstOrDefault(g => g.Count() > 1);
        Require(twice is null, "$.paths", $"{twice?.Key} stands in two places; a part can be wired once.");
    }

    private static void CheckTerminal(ImmutableArray<Device> devices, TerminalId terminal, string at)
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

    private ImmutableArray<Net> Numbered(ImmutableArray<Net> nets)
    {
        foreach (var terminal in WireNumbers.Keys)
        {
            Require(nets.Any(n => n.Terminals.Contains(terminal)), "$.wireNumbers", $"{terminal} is not part of any path.");
        }

        var numbered = nets.Select(n =>
                n.Terminals.Where(WireNumbers.ContainsKey).Select(t => WireNumbers[t]).FirstOrDefault() is { } number
                    ? n with
                    {
                        Wire = number,
                    }
                    : n
            )
            .ToImmutableArray();
        var used = new HashSet<string>();
        return
        [
            .. numbered.Select(n =>
            {
                var wire = n.Wire;
                for (var i = 2; !used.Add(wire); i++)
                {
                    wire = $"{n.Wire}/{i}";
                }

                return n with
                {
                    Wire = wire,
                };
            }),
        ];
    }

    private ImmutableArray<Conductor> CheckedConductors(ImmutableArray<Net> nets, ImmutableArray<Device> devices)
    {
        Unique(Conductors.Select(c => c.Id), "$.conductors", "conductor id");
        Net? NetOf(TerminalId t) => nets.FirstOrDefault(n => n.Terminals.Contains(t));
        var strips = new Dictionary<TerminalId, Net?>();
        for (var i = 0; i < Conductors.Length; i++)
        {
            var conductor = Conductors[i];
            var at = $"$.conductors[{i}]";
            Require(conductor.Metres is > 0 and <= 5000, $"{at}.metres", "must be above 0 and at most 5000 m.");
            Require(conductor.SquareMillimetres is > 0 and <= 1000, $"{at}.mm2", "must be above 0 and at most 1000 mm².");
            Require(conductor.From != conductor.To, at, "begins and ends at the same terminal.");
            CheckTerminal(devices, conductor.From, $"{at}.from");
            CheckTerminal(devices, conductor.To, $"{at}.to");
        }

        // A route may pass over clamps that are in no path; what one net's conductors reach must be that net and all of it.
        foreach (var net in nets)
        {
            var reached = Reached(net.Terminals[0]);
            var stranger = reached.FirstOrDefault(t => NetOf(t) is { } other && other != net);
            Require(stranger == default, "$.conductors", $"join {net.Terminals[0]} to {stranger}, but the paths keep them apart.");
            if (reached.Count > 1)
            {
                var missing = net.Terminals.FirstOrDefault(t => !reached.Contains(t));
                Require(missing == default, "$.conductors", $"do not reach {missing}, which the paths join to {net.Terminals[0]}.");
            }
            else
            {
                var partial = net.Terminals.FirstOrDefault(t => Conductors.Any(c => c.From == t || c.To == t));
                Require(partial == default, "$.conductors", $"do not reach {net.Terminals[0]}, which the paths join to {partial}.");
            }
        }

        return Conductors;
    }

    private HashSet<TerminalId> Reached(TerminalId from)
    {
        var reached = new HashSet<TerminalId> { from };
        for (var grown = true; grown; )
        {
            grown = false;
            foreach (var conductor in Conductors)
            {
                if (reached.Contains(conductor.From) != reached.Contains(conductor.To))
                {
                    grown |= reached.Add(conductor.From) | reached.Add(conductor.To);
                }
            }
        }

        return reached;
    }

    private static void Unique(IEnumerable<string> names, string at, string what)
    {
        var twice = names.GroupBy(n => n).FirstOrDefault(g => g.Count() > 1)?.Key;
        Require(twice is null, at, $"has the {what} '{twice}' twice.");
    }

    private static void Require([System.Diagnostics.CodeAnalysis.DoesNotReturnIf(false)] bool condition, string at, string message)
    {
        if (!condition)
        {
            throw new CircuitException(at, message);
        }
    }
}
