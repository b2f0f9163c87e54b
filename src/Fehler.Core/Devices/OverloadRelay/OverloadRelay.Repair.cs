using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
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
            "tripped" or "no-reset" => ThermalTrip.Aftermath(
                device[Plate.SettingAmps],
                fault.Kind == "no-reset" ? [$"Overload relay {device.Tag}, same type and range"] : []
            ),
            "set-low" or "set-high" => ThermalTrip.Aftermath(device[Plate.SettingAmps], []) with
            {
                Steps =
                [
                    fault.Remedy,
                    $"With an overload in the phase leads of a {Term.StarDelta} starter: 0.577 of the {Term.NameplateCurrent} (IEC). North "
                        + $"America: the ceiling is a percentage of the nameplate; never add it twice.",
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
}
