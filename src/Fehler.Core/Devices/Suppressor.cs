using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A coil suppressor: resistor and capacitor, varistor, or a free-wheeling diode on direct current.</summary>
internal sealed class Suppressor : DeviceKind
{
    private const double SeriesOhms = 100, Farads = 0.1e-6, IdleOhms = 50e6;

    public override string Id => "suppressor";
    public override string Term => "coil suppressor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Word("type", "Resistor and capacitor, varistor, or diode", "rc", "rc", "varistor", "diode"),
        ParameterSpec.Number("volts", "Rated voltage", "V", 230, 5, 690),
    ];

    public override ImmutableArray<Element> Elements(Device device) => [new("1", "2", ElementRole.Load)];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    /// <summary>At supply frequency only the capacitor carries anything; for direct current and the ohmmeter all three are open.</summary>
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ac && device.Word("type") == "rc" ? 1 / new Complex(SeriesOhms, -1 / (2 * Math.PI * 50 * Farads)) : 1 / IdleOhms;

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        foreach (var mode in Common.Bridged($"{device.Tag}/shorted", device.Tag, $"Suppressor {device.Tag} is shorted", device.Terminal("1"), device.Terminal("2"), device.Terminal("2"), 0.6,
            $"Take {device.Tag} off, measure the coil without it, fit a new one of the same type."))
        {
            yield return mode;
        }

        if (device.Word("type") == "diode")
        {
            yield return new FaultMode($"{device.Tag}/reversed", device.Tag, $"Diode {device.Tag} is fitted the wrong way round", [new Bridge(device.Terminal("1"), device.Terminal("2"), 0.4)], 0.3,
                $"Fit {device.Tag} with its bar to the positive side.")
            {
                ProofPoints = (device.Terminal("1"), device.Terminal("2")),
                SizeFactor = 1.5,
            };
        }
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => new()
    {
        Steps = [fault.Remedy, "On direct current: the diode's bar to plus. Measure the coil with the suppressor off."],
        Parts = [$"Suppressor for {device.Tag}: same sort (RC, diode or varistor) and voltage"],
        Causes = [new RootCause("Put in the wrong way round, or for another voltage", "Bar to plus; voltage printed on it"), new RootCause("Voltage peaks from the supply", "Other suppressors and lamps that fail")],
    };
}
