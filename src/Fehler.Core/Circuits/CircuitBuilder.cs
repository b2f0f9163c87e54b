using System.Collections.Immutable;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using static Fehler.Core.Circuits.CircuitException;

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
        var checks = new CircuitChecks(this);
        checks.Size();
        checks.PlacesAndDevices();
        var devices = Devices.Select(d => d.Kind.WithDefaults(d)).ToImmutableArray();
        checks.PathsOf(devices);
        checks.Closed(devices);
        CircuitChecks.Couplings(devices);
        var nets = Numbered(NetDerivation.Of(Paths, devices));
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
        CircuitChecks.Terminal(devices, reference, "$.reference");
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
        CircuitChecks.Unique(Conductors.Select(c => c.Id), "$.conductors", "conductor id");
        Net? NetOf(TerminalId t) => nets.FirstOrDefault(n => n.Terminals.Contains(t));
        var strips = new Dictionary<TerminalId, Net?>();
        for (var i = 0; i < Conductors.Length; i++)
        {
            var conductor = Conductors[i];
            var at = $"$.conductors[{i}]";
            Require(
                double.IsNaN(conductor.Metres) || conductor.Metres is > 0 and <= 5000,
                $"{at}.metres",
                "must be above 0 and at most 5000 m."
            );
            Require(conductor.SquareMillimetres is > 0 and <= 1000, $"{at}.mm2", "must be above 0 and at most 1000 mm².");
            Require(conductor.From != conductor.To, at, "begins and ends at the same terminal.");
            CircuitChecks.Terminal(devices, conductor.From, $"{at}.from");
            CircuitChecks.Terminal(devices, conductor.To, $"{at}.to");
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

        Location PlaceOf(TerminalId t) => Locations.First(l => l.Id == devices.First(d => d.Tag == t.Device).Location);
        return
        [
            .. Conductors.Select(c =>
                double.IsNaN(c.Metres) ? c with { Metres = Location.MetresBetween(PlaceOf(c.From), PlaceOf(c.To)) } : c
            ),
        ];
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
}
