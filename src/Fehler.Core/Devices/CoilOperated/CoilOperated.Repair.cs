using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Core.Devices;

/// <content>How it is repaired, and why it usually fails.</content>
internal abstract partial class CoilOperated
{
    public override RepairNotes Repair(Device device, FaultMode fault) =>
        fault.Alterations[0] switch
        {
            ElementOpen
            or ElementImpedance
                when fault.Kind == "coil-shorted" || fault.Kind.StartsWith(Elements(device)[CoilElement].Name, StringComparison.Ordinal) =>
                Coil(device, fault),
            ParameterIs when fault.Kind == "coil-wrong" => Coil(device, fault) with
            {
                Causes = [new RootCause("The wrong spare was fitted", "Read the log; look through the store for more of them")],
            },
            DoesNotReturn => base.Repair(device, fault) with
            {
                Causes =
                [
                    new RootCause(
                        "Grease or resin on the magnet's faces, or the rust protection of a new one not wiped off",
                        "Open it: the faces are dry and bright"
                    ),
                    new RootCause("Residual magnetism: the air gap is worn away", "It falls off when the contactor is knocked; replace it"),
                ],
                Cautions = [$"{device.Tag} stays in with its coil dead: the machine does not stop. Keep it isolated until it is replaced."],
            },
            AppearsAs => base.Repair(device, fault) with
            {
                Causes =
                [
                    new RootCause("Dirt between the magnet's faces, or a broken shading ring", "Open it: faces clean, copper ring whole"),
                ],
            },
            _ => base.Repair(device, fault),
        };

    private static RepairNotes Coil(Device device, FaultMode fault) =>
        new()
        {
            Choices = device.Kind.RatingOf(device) is null
                ? []
                : RepairNotes.PartOrWhole(
                    "The coil alone",
                    "Contacts and magnet are good, the housing is not brown, and the cause is known"
                ),
            Steps =
            [
                $"Measure A1 to A2 with one lead lifted: what is in parallel ({Term.Lamp}, suppressor) is not in the reading.",
                $"{fault.Remedy} The whole device, if its housing is brown.",
            ],
            Parts =
            [
                FormattableString.Invariant(
                    $"Coil for {device.Tag}: {device[CoilPlate.Volts]:0} V {(IsDirect(device) ? "DC" : "AC")}, same type"
                ),
            ],
            Causes =
            [
                new RootCause(
                    "Control voltage too high, or too low to pull the magnet shut",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"Volts at the coil while it is in: {0.85 * device[CoilPlate.Volts]:0} to "
                            + $"{1.1 * device[CoilPlate.Volts]:0} V (0.85 to 1.1 of rated)"
                    )
                ),
                new RootCause(
                    "The magnet does not close: an AC coil then keeps its pull-in current and burns",
                    "Press the armature by hand, dead: it moves its whole way, faces clean"
                ),
                new RootCause(
                    "It chatters: a contact ahead of it bounces",
                    "Listen and watch while it is operated; try Start, limits and relays ahead"
                ),
                RepairNotes.Heat,
            ],
        };
}
