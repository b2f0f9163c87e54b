using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What ages in it.</content>
internal sealed partial class Capacitor
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("capacitor", "Capacitance of the motor's capacitor", 24, 6, UpkeepState.Dead)
            {
                Steps =
                [
                    "Discharged through a resistor and measured to be so, then one wire off.",
                    "Within 10 % of what is printed; not bulged, no oil.",
                ],
            },
        ];
}
