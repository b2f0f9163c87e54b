using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A miniature or moulded-case circuit-breaker; one pole's short circuit opens all poles.</summary>
internal sealed class CircuitBreaker : SwitchingDevice
{
    /// <summary>Magnetic release of a type C breaker: at most 10 times rated current (IEC 60898-1, from memory).</summary>
    private const double MagneticMultiple = 10;

    /// <summary>A shunt release trips from about 70 % of its voltage (IEC 60947-2, from memory).</summary>
    private const double ShuntReleases = 0.7;

    public override ImmutableArray<ParameterSpec> Parameters =>
    [
        .. base.Parameters,
        ParameterSpec.Number("shuntVolts", "Voltage of the shunt release at C1-C2; 0: none", "V", 0, 0, 690),
        ParameterSpec.Words("contacts", "Auxiliary contacts that follow the poles; last digits 3-4 close, 1-2 open"),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        .. base.Elements(device),
        .. device.Words("contacts").Select(w => w.Split('-')).Select(e => new Element(e[0], e[1], e[1][^1] == '2' ? ElementRole.NormallyClosed : ElementRole.NormallyOpen)),
        .. device.Number("shuntVolts") > 0 ? [new Element("C1", "C2", ElementRole.Load)] : Array.Empty<Element>(),
    ];

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        element.Role == ElementRole.NormallyClosed ? state.Position != 1 : state.Position == 1;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 20 / Math.Pow(device.Number("shuntVolts"), 2);

    public override string Id => "circuit-breaker";
    public override string Term => "circuit-breaker";
    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "tripped"];

    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 1);

    public override ImmutableArray<Actuation> Actuations(Device device) => [new("off", "Switch off", false), new("on", "Switch on", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("toggle", $"Toggle of {device.Tag}", "on", "off", "tripped")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position != 1)
        {
            return new Transition(state);
        }

        var elements = Elements(device);
        if (elements[^1].Role == ElementRole.Load && Magnitude(meter.Volts(elements.Length - 1)) > ShuntReleases * device.Number("shuntVolts"))
        {
            return new Transition(state with { Position = 2 });
        }

        var worst = Enumerable.Range(0, (int)device.Number("poles")).Max(k => Magnitude(meter.Amps(k))) / device.Number("ratedAmps");
        return worst > MagneticMultiple ? new Transition(state with { Position = 2 }, worst / MagneticMultiple) : new Transition(state);
    }

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        base.FaultModes(device).Append(new FaultMode($"{device.Tag}/tripped", device.Tag, $"Circuit-breaker {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, 2)], 1.5, "Find the cause before switching on again.")
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy = "A breaker trips because of a short circuit, an earth fault or an overload: find it before switching on.",
        }).Concat(Elements(device).Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)
            .SelectMany(c => ContactFaults.Of(device, c, $"Auxiliary contact {c.Name} of {device.Tag}", $"Replace the auxiliary contact of {device.Tag}.", 0.6)))
        .Concat(Elements(device).Where(e => e.Role == ElementRole.Load)
            .Select(c => Common.Open(device, c, $"Shunt release of {device.Tag} is open", 0.6, $"Replace the shunt release of {device.Tag}.")));

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind == "tripped"
        ? new RepairNotes
        {
            Steps = ["Isolate what follows; measure it to earth and across before the breaker is closed again.", "Disconnect branch by branch until the fault is found.", fault.Remedy],
            Parts = [$"{device.Kind.ReplaceableUnit} {device.Tag}, same rating and curve, if it does not hold without load"],
            Causes = [new RootCause("Short circuit or earth fault behind it", "Ohms behind it with the loads lifted"), new RootCause("Too many loads, or an inrush it is not made for", "Clamp current; curve against transformer or motor")],
            Cautions = ["Never close a breaker again and again to see whether it holds."],
        }
        : base.Repair(device, fault);
}
