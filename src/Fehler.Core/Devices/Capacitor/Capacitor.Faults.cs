using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it fails and is repaired.</content>
internal sealed partial class Capacitor
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var replace = $"Discharge and replace {device.Tag}: same capacitance and duty, same or higher voltage.";
        yield return Common.Open(device, Elements(device)[0], $"Capacitor {device.Tag} is open", 1, replace);
        foreach (var share in new[] { 0.55, 0.2 })
        {
            yield return new FaultMode(
                $"{device.Tag}/weak",
                device.Tag,
                $"Capacitor {device.Tag} has lost capacitance",
                [new ParameterIs(device.Tag, Plate.Microfarads.Name, device[Plate.Microfarads] * share)],
                0.5,
                replace
            )
            {
                Variant = FormattableString.Invariant($"{100 * share:0} % left"),
                SizeFactor = 1.4,
                ProofLook = (device.Tag, "can"),
            };
        }

        foreach (
            var mode in Common.Bridged(
                $"{device.Tag}/shorted",
                device.Tag,
                $"Capacitor {device.Tag} is shorted",
                device.At("1"),
                device.At("2"),
                device.At("2"),
                0.4,
                replace
            )
        )
        {
            yield return mode;
        }
    }

    public override RepairNotes Repair(Device device, FaultMode fault) =>
        new()
        {
            Steps =
            [
                "Discharge it through a resistor.",
                "Running: its current over its voltage and 2 π f is its capacitance (25 µF at 270 V and 50 Hz: 2.1 A). Dead: measure it "
                    + "with a meter that has a capacitance range, one lead off.",
                fault.Remedy,
            ],
            Parts = [$"Capacitor {device.Tag}: same µF and duty (start or run), same or higher voltage"],
            Causes =
            [
                new RootCause("Age and heat", "Bulged or leaking can"),
                new RootCause(
                    "Too many starts, or the centrifugal switch does not open",
                    "Starts an hour; current in the auxiliary winding while running"
                ),
            ],
        };
}
