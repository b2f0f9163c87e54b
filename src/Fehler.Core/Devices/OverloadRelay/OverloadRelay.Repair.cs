using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal sealed partial class OverloadRelay
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Kind switch
        {
            "tripped" or "no-reset" => AfterTrip(
                device,
                fault.Kind == "no-reset" ? [$"Overload relay {device.Tag}, same type and range"] : []
            ),
            "set-low" => AfterTrip(device, []) with
            {
                Steps =
                [
                    fault.Remedy,
                    "With an overload in the phase leads of a star-delta starter: 0.577 of the nameplate current (IEC). North "
                        + "America: the ceiling is a percentage of the nameplate; never add it twice.",
                ],
            },
            _ => RepairNotes.Of(device, fault) with
            {
                Parts =
                [
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"Overload relay {device.Tag}: same type, range around {device[Plate.SettingAmps]:0.##} A, class "
                            + $"{device[Plate.TripClass]:0}"
                    ),
                ],
            },
        };

    /// <summary>A trip is a consequence: what it is of decides what is repaired.</summary>
    internal static RepairNotes AfterTrip(Device device, ImmutableArray<string> parts) =>
        new()
        {
            Steps =
            [
                "Write down what the device shows before anything is reset.",
                "Feel the motor; let motor and relay cool.",
                FormattableString.Invariant($"Compare the dial with the nameplate: {device[Plate.SettingAmps]:0.##} A as described here."),
                "Look for the cause below, then reset, with everybody clear of the machine.",
                "Clamp each phase at the first start: starting current, how long it takes, running current.",
            ],
            Parts = parts,
            Causes =
            [
                new RootCause(
                    "The load is jammed, stiff or too heavy",
                    "Turn the shaft by hand; running current in all phases high and alike"
                ),
                new RootCause(
                    "A phase is missing: fuse, contact, joint, winding",
                    "One phase carries nothing, the others some 1.7 times; volts across each pole"
                ),
                new RootCause("Low or unbalanced voltage", "Volts between phases under load"),
                new RootCause(
                    "Earth fault or shorted turns in the motor or its cable",
                    "One phase carries more than the others; insulation, windings"
                ),
                new RootCause("Set too low, wrong heater or class", "Dial, class and starting time"),
                new RootCause("Hot cabinet, or too many starts", "Temperature; starts an hour"),
            ],
            Cautions = [$"A reset may start the motor. Do not reset again and again: each time heats the motor further."],
            Isolated = false,
        };
}
