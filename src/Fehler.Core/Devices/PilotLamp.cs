using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A pilot lamp, filament or LED.</summary>
internal sealed class PilotLamp : DeviceKind
{
    /// <summary>A cold filament has about a tenth of its hot resistance (common practice).</summary>
    private const double ColdShare = 0.1;

    /// <summary>An LED lamp's electronics do not conduct at an ohmmeter's voltage.</summary>
    private const double LedOhms = 100e6;

    public override string Id => "pilot-lamp";
    public override string Term => "pilot lamp";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("volts", "Rated voltage", "V", 230, 6, 690),
        ParameterSpec.Number("watts", "Power at rated voltage", "W", 1.5, 0.05, 60),
        ParameterSpec.Word("lamp", "Kind of lamp", "led", "led", "filament"),
        ParameterSpec.Word("light", "Steady or flashing", "steady", "steady", "flashing"),
        ParameterSpec.Word("colour", "Colour of the lens", "white", "white", "red", "green", "yellow", "blue"),
    ];

    public override ImmutableArray<Element> Elements(Device device) => [new("X1", "X2", ElementRole.Load)];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Appearances => ["off", "on", "dim", "flashes"];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        var hot = Math.Pow(device.Number("volts"), 2) / device.Number("watts");
        return domain != Domain.Ohms ? 1 / hot : device.Word("lamp") == "led" ? 1 / LedOhms : 1 / (ColdShare * hot);
    }

    /// <summary>It is its current that makes a lamp burn: a dead one has its voltage and stays dark.</summary>
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        (Math.Max(Magnitude(meter.Amps(0)), Math.Abs(meter.DcAmps(0))) * device.Number("volts") / device.Number("watts")) switch { >= 0.7 => device.Word("light") == "flashing" ? "flashes" : "on", >= 0.3 => "dim", _ => "off" };

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
    [
        Common.Open(device, Elements(device)[0], $"Lamp {device.Tag} is dead", 1.5, $"Replace the lamp {device.Tag}, same voltage.") with { ProofPoints = (device.Terminal("X1"), device.Terminal("X2")) },
    ];

    public override RepairNotes Repair(Device device, FaultMode fault) => new()
    {
        Steps = [fault.Remedy, "Prove it by its test button or by operating the circuit: a dark lamp is not a dead circuit."],
        Parts = [$"Lamp for {device.Tag}, same voltage"],
        Causes = [RepairNotes.Vibration, new RootCause("Voltage too high for it", "Volts at the lamp against what is printed on it")],
        Isolated = false,
    };
}
