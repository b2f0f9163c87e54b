using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A three-phase heater bank in star: each element from its lead to the star point.</summary>
internal sealed class HeaterBank : DeviceKind
{
    public override string Id => "heater-bank";
    public override string Term => "heater bank";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("kilowatts", "Rated power", "kW", 6, 0.1, 500),
        ParameterSpec.Number("volts", "Voltage phase to phase", "V", 400, 50, 1000),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
        [new("U", "~star", ElementRole.Load), new("V", "~star", ElementRole.Load), new("W", "~star", ElementRole.Load)];

    public override ImmutableArray<string> Terminals(Device device) => ["U", "V", "W", "PE"];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override bool IsWorking(string appearance) => appearance == "heats";
    public override ImmutableArray<string> Appearances => ["cold", "heats", "heats weakly"];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        device.Number("kilowatts") * 1000 / Math.Pow(device.Number("volts"), 2);

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        var watts = Enumerable.Range(0, 3).Sum(k => Math.Pow(Magnitude(meter.Amps(k)), 2)) / device.Number("kilowatts") / 1000 * Math.Pow(device.Number("volts"), 2) / device.Number("kilowatts") / 1000;
        return watts switch { > 0.7 => "heats", > 0.1 => "heats weakly", _ => "cold" };
    }

    public override IEnumerable<FaultMode> FaultModes(Device device) => Elements(device).SelectMany(e => new[]
    {
        Common.Open(device, e, $"Heater element {e.A} of {device.Tag} is open", 1, "Replace the element.") with { ProofPoints = (device.Terminal(e.A), device.Terminal(e.A == "U" ? "V" : "U")) },
    }.Concat(Common.Bridged($"{device.Tag}/{e.A}-earth", device.Tag, $"Heater element {e.A} of {device.Tag} has an earth fault", device.Terminal(e.A), null, device.Terminal("PE"), 0.5, "Replace the element.")));
}
