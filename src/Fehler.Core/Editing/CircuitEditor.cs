using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using static Fehler.Core.Circuits.CircuitException;
using static Fehler.Core.Editing.PathSurgery;

namespace Fehler.Core.Editing;

/// <summary>
/// Applies edits to a circuit. The structure is changed and the circuit built again; wires that the edit does not touch keep their
/// numbers and routes.
/// </summary>
public static partial class CircuitEditor
{
    /// <exception cref="CircuitException">The edit names something that is not there, or leads to what cannot be a circuit.</exception>
    public static Circuit Apply(Circuit circuit, CircuitEdit edit) =>
        edit switch
        {
            InsertBeside e => Insert(circuit, e),
            RemovePart e => Remove(circuit, e.Part),
            RenameDevice e => Rename(circuit, e),
            RenameContact e => Rename(circuit, e),
            RenumberWire e => Renumber(circuit, e),
            RenumberWires e => Renumber(circuit, e),
            SetParameter e => Set(circuit, e),
            DescribeDevice e => Rebuilt(
                circuit,
                devices: Changed(circuit, e.Tag, d => d with { Function = e.Function, Location = e.Location })
            ),
            SetPlace e => Place(circuit, e),
            RouteChained e => Route(circuit, e.Wire, Chain(circuit, e)),
            RouteOverStrip e => Route(circuit, e.Wire, OverStrip(circuit, e)),
            MoveEnd e => Move(circuit, e),
            DescribeCircuit e => Rebuilt(
                circuit with
                {
                    Tag = e.Tag,
                    Title = e.Title,
                    Area = e.Area,
                    Enclosure = e.Enclosure,
                    Drawing = e.Drawing,
                    Notes = e.Notes,
                }
            ),
            _ => throw new CircuitException("edit", "is of no known type."),
        };

    private static Circuit Insert(Circuit circuit, InsertBeside edit)
    {
        var beside = PartOf(circuit, edit.Part);
        Require(
            beside.In.Length == 1 && beside.Out.Length == 1,
            "edit.part",
            $"{edit.Part} has several poles; put the device beside a two-terminal part."
        );
        var added = Parse($"{edit.Tag}:{edit.Contact}", "edit.contact");
        Require(added.In.Length == 1 && added.Out.Length == 1, "edit.contact", $"'{edit.Contact}' is not a contact like 13-14.");
        Require(!circuit.Paths.Any(p => p.Expression.Parts().Contains(added)), "edit.contact", $"{added} is already wired.");
        var devices = circuit.FindDevice(edit.Tag) is { } there
            ? Changed(circuit, edit.Tag, _ => WithContact(there, edit.Contact))
            : circuit.Devices.Add(NewDevice(circuit, edit));
        PathExpression With(PathExpression part) =>
            edit.How switch
            {
                Beside.SeriesBefore => new InSeries([added, part]),
                Beside.SeriesAfter => new InSeries([part, added]),
                _ => new InParallel([part, added]),
            };
        return Rebuilt(
            circuit,
            devices,
            [.. circuit.Paths.Select(p => p with { Expression = Flat(Replaced(p.Expression, beside, With)) })]
        );
    }

    private static Device NewDevice(Circuit circuit, InsertBeside edit)
    {
        var kind =
            DeviceKinds.Find(edit.Kind)
            ?? throw new CircuitException(
                "edit.kind",
                $"is '{edit.Kind}'; expected one of: {string.Join(", ", DeviceKinds.All.Select(k => k.Id))}."
            );
        var device = new Device(edit.Tag, kind, edit.Location, Device.NoParameters, edit.Function);
        device = kind.TakesContacts ? device.With(DeviceKind.ContactsParameter, ParameterValue.FromWords([edit.Contact])) : device;
        // A lamp or coil put into a circuit is one for its voltage.
        var like = circuit.Devices.Select(d => d.Kind.CoilOf(d)).FirstOrDefault(c => c is not null);
        return kind.RatedVoltsParameter is { } volts && like is not null ? device.With(volts, like.Volts.Value) : device;
    }

    private static Device WithContact(Device device, string contact)
    {
        if (device.Kind.Elements(device).Any(e => e.Name == contact))
        {
            return device;
        }

        Require(device.Kind.TakesContacts, "edit.contact", $"{device.Tag} has no contact {contact} and takes no further ones.");
        return device.With(DeviceKind.ContactsParameter, ParameterValue.FromWords(ContactsOf(device).Add(contact)));
    }

    private static Circuit Remove(Circuit circuit, string text)
    {
        var part = PartOf(circuit, text);
        var path = circuit.Paths.First(p => p.Expression.Parts().Contains(part));
        Require(
            part.In.Length == part.Out.Length,
            "edit.part",
            $"{text} ends its path; without it the path has no purpose. Remove what stands before it instead."
        );
        var left = Without(path.Expression, part);
        Require(left is not null, "edit.part", $"{text} is all there is in the path {path.Name}.");
        ImmutableArray<CircuitPath> paths = [.. circuit.Paths.Select(p => p == path ? p with { Expression = Flat(left!) } : p)];
        var used = paths
            .SelectMany(p => p.Expression.Parts().Select(x => x.Device).Concat(p.From.Concat(p.To).Select(t => t.Device)))
            .ToHashSet();
        var isGone = !used.Contains(part.Device) && !circuit.Device(part.Device).Kind.IsStrip;
        return Rebuilt(circuit, isGone ? circuit.Devices.RemoveAll(d => d.Tag == part.Device) : circuit.Devices, paths);
    }

    private static Circuit Rename(Circuit circuit, RenameDevice edit)
    {
        Known(circuit, edit.Tag);
        Require(
            edit.NewTag.Trim().Length > 0 && edit.NewTag == edit.Tag | circuit.FindDevice(edit.NewTag) is null,
            "edit.newTag",
            $"'{edit.NewTag}' is empty or taken by another device."
        );
        TerminalId At(TerminalId t) => t.Device == edit.Tag ? t with { Device = edit.NewTag } : t;
        Device Named(Device d) =>
            (d.Tag == edit.Tag ? d with { Tag = edit.NewTag } : d) is var device && d.Kind.CoupledTo(d).Contains(edit.Tag)
                ? device.Parameters.Where(p => p.Value.Word == edit.Tag).Aggregate(device, (x, p) => x.With(p.Key, edit.NewTag))
                : device;
        return Mapped(circuit, [.. circuit.Devices.Select(Named)], At, p => p.Device == edit.Tag ? p with { Device = edit.NewTag } : p);
    }

    private static Circuit Rename(Circuit circuit, RenameContact edit)
    {
        var device = Known(circuit, edit.Tag);
        Require(
            device.Kind.TakesContacts && ContactsOf(device).Contains(edit.Contact),
            "edit.contact",
            $"{edit.Tag} has no contact {edit.Contact} that can be renumbered."
        );
        var (old, fresh) = (edit.Contact.Split('-'), edit.NewContact.Split('-'));
        Require(fresh.Length == 2 && fresh.All(f => f.Length > 0), "edit.newContact", $"'{edit.NewContact}' is not a contact like 13-14.");
        var role = ElementOf(device, edit.Contact).Role;
        var renamed = device.With(
            DeviceKind.ContactsParameter,
            ParameterValue.FromWords(ContactsOf(device).Select(w => w == edit.Contact ? edit.NewContact : w))
        );
        Require(
            ElementOf(renamed, edit.NewContact).Role == role,
            "edit.newContact",
            $"{edit.Contact} {(role == ElementRole.NormallyClosed ? "opens" : "closes")}; by its last digits {edit.NewContact} "
                + "does the opposite (EN 50005). Take another number, or replace the contact."
        );
        string Name(string name) =>
            name == old[0] ? fresh[0]
            : name == old[1] ? fresh[1]
            : name;
        TerminalId At(TerminalId t) => t.Device == edit.Tag ? t with { Name = Name(t.Name) } : t;
        return Mapped(
            circuit,
            Changed(circuit, edit.Tag, _ => renamed),
            At,
            p => p.Device == edit.Tag ? p with { In = [.. p.In.Select(Name)], Out = [.. p.Out.Select(Name)] } : p
        );
    }

    private static Circuit Set(Circuit circuit, SetParameter edit)
    {
        var device = Known(circuit, edit.Tag);
        var spec =
            device.Kind.AllParameters.FirstOrDefault(p => p.Name == edit.Name)
            ?? throw new CircuitException("edit.name", $"A {device.Kind.Name} has no '{edit.Name}'.");
        ParameterValue value = spec switch
        {
            NumberSpec => double.TryParse(edit.Value.Replace(',', '.'), NumberStyles.Float, CultureInfo.InvariantCulture, out var number)
                ? number
                : throw new CircuitException("edit.value", $"'{edit.Value}' is not a number; {spec.Description} is given in {spec.Unit}."),
            ContactsSpec or NamesSpec => ParameterValue.FromWords(
                edit.Value.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
            ),
            _ => edit.Value,
        };
        // What the old value led to is worked out again from the new one.
        return Rebuilt(
            circuit,
            Changed(
                circuit,
                edit.Tag,
                d =>
                    d.Kind.FollowFrom(edit.Name)
                        .Aggregate(d, (x, name) => x with { Parameters = x.Parameters.Remove(name) })
                        .With(edit.Name, value)
            )
        );
    }

    private static Circuit Place(Circuit circuit, SetPlace edit)
    {
        var place = new Location(edit.Id, edit.Name, edit.Kind, edit.CableMetres);
        Require(edit.Id.Length > 0 && edit.Name.Length > 0, "edit.name", "Give the place a name.");
        Require(edit.CableMetres is >= 0 and <= 5000, "edit.cableMetres", "The cable is 0 to 5000 m long.");
        var before = circuit.Locations.FirstOrDefault(l => l.Id == edit.Id);
        return before is null
            ? circuit with
            {
                Locations = circuit.Locations.Add(place),
            }
            : circuit with
            {
                Locations = circuit.Locations.Replace(before, place),
                Conductors =
                [
                    .. circuit.Conductors.Select(c =>
                        edit.CableMetres > 0
                        && circuit.LocationOf(c.From).Id != circuit.LocationOf(c.To).Id
                        && (circuit.LocationOf(c.From).Id == edit.Id || circuit.LocationOf(c.To).Id == edit.Id)
                        && c.Metres == before.CableMetres
                            ? c with
                            {
                                Metres = edit.CableMetres,
                            }
                            : c
                    ),
                ],
            };
    }

    /// <summary>Renames everywhere: devices, paths, conductors, reference.</summary>
    private static Circuit Mapped(
        Circuit circuit,
        ImmutableArray<Device> devices,
        Func<TerminalId, TerminalId> at,
        Func<Part, Part> part
    ) =>
        Checked(
            circuit with
            {
                Devices = devices,
                Paths =
                [
                    .. circuit.Paths.Select(p =>
                        p with
                        {
                            From = [.. p.From.Select(at)],
                            To = [.. p.To.Select(at)],
                            Expression = Each(p.Expression, part),
                        }
                    ),
                ],
                Conductors = [.. circuit.Conductors.Select(c => c with { From = at(c.From), To = at(c.To) })],
                Reference = at(circuit.Reference),
            }
        );

    /// <summary>Builds a circuit again with all its conductors as given, so that nothing impossible gets through.</summary>
    private static Circuit Checked(Circuit circuit) =>
        Builder(circuit, circuit.Devices, circuit.Paths, circuit.Conductors, ImmutableDictionary<TerminalId, string>.Empty).Build();

    /// <summary>
    /// Builds a circuit again after its structure has changed. A wire whose terminals are the same as before keeps its route; one that
    /// has gained or lost terminals keeps its number and is routed afresh; a new one gets the next free number.
    /// </summary>
    private static Circuit Rebuilt(Circuit circuit, ImmutableArray<Device>? devices = null, ImmutableArray<CircuitPath>? paths = null)
    {
        var before = NetDerivation.Of(circuit.Paths, circuit.Devices).ToDictionary(n => n.Terminals[0], n => n);
        var after = NetDerivation.Of(paths ?? circuit.Paths, devices ?? circuit.Devices);
        var kept = before
            .Values.Where(old => after.Any(n => n.Terminals.ToHashSet().SetEquals(old.Terminals)))
            .Select(n => circuit.WireAt(n.Terminals[0]))
            .ToHashSet();
        var numbers = ImmutableDictionary.CreateBuilder<TerminalId, string>();
        var used = new HashSet<string>(kept);
        var next = 1;
        foreach (var net in after)
        {
            var number = net.Terminals.Select(circuit.WireAt).FirstOrDefault(w => w.Length > 0 && (kept.Contains(w) || !used.Contains(w)));
            while (number is null || number.Length == 0)
            {
                var candidate = (next++).ToString(CultureInfo.InvariantCulture);
                number = used.Contains(candidate) || circuit.Conductors.Any(c => c.Wire == candidate) ? null : candidate;
            }

            used.Add(number);
            numbers[net.Terminals[0]] = number;
        }

        return Builder(
                circuit,
                devices ?? circuit.Devices,
                paths ?? circuit.Paths,
                [.. circuit.Conductors.Where(c => kept.Contains(c.Wire))],
                numbers.ToImmutable()
            )
            .Build();
    }

    private static CircuitBuilder Builder(
        Circuit circuit,
        ImmutableArray<Device> devices,
        ImmutableArray<CircuitPath> paths,
        ImmutableArray<Conductor> conductors,
        ImmutableDictionary<TerminalId, string> numbers
    ) =>
        new()
        {
            Tag = circuit.Tag,
            Title = circuit.Title,
            Area = circuit.Area,
            Enclosure = circuit.Enclosure,
            Drawing = circuit.Drawing,
            Notes = circuit.Notes,
            Reference = circuit.Reference,
            Locations = circuit.Locations,
            Devices = devices,
            Paths = paths,
            Conductors = conductors,
            WireNumbers = numbers,
            PowerSquareMillimetres = circuit.Conductors.Select(c => c.SquareMillimetres).DefaultIfEmpty(2.5).Max(),
        };

    private static ImmutableArray<Device> Changed(Circuit circuit, string tag, Func<Device, Device> change)
    {
        Known(circuit, tag);
        return [.. circuit.Devices.Select(d => d.Tag == tag ? change(d) : d)];
    }

    private static Device Known(Circuit circuit, string tag) =>
        circuit.FindDevice(tag) ?? throw new CircuitException("edit.tag", $"The circuit has no device {tag}.");

    private static ImmutableArray<string> ContactsOf(Device device) => device.Given(DeviceKind.ContactsParameter).Words!.Value;

    private static Element ElementOf(Device device, string contact) => device.Kind.Elements(device).First(e => e.Name == contact);

    /// <summary>The part of a path that is meant, whichever way round it is written.</summary>
    private static Part PartOf(Circuit circuit, string text)
    {
        var part = Parse(text, "edit.part");
        return circuit
                .Paths.SelectMany(p => p.Expression.Parts())
                .FirstOrDefault(p =>
                    p.Equals(part) || (p.Device == part.Device && p.In.SequenceEqual(part.Out) && p.Out.SequenceEqual(part.In))
                )
            ?? throw new CircuitException("edit.part", $"{text} is not a part of any path.");
    }

    private static Part Parse(string text, string at)
    {
        try
        {
            return Part.Parse(text);
        }
        catch (FormatException e)
        {
            throw new CircuitException(at, e.Message);
        }
    }
}
