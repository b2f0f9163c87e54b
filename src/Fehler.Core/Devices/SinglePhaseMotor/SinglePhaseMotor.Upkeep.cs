using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What ages in it.</content>
internal sealed partial class SinglePhaseMotor
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule(
                "insulation",
                "Insulation of the motor",
                24,
                8,
                UpkeepState.Dead,
                "IEEE 43, from memory, for the limit; the interval is common practice"
            )
            {
                Steps = ["One minute at 500 V from a lead to the frame, winding's warmth beside it; discharge afterwards."],
                Readings = [new AskedReading(Quantity.Insulation, device.Terminal(Terminals(device)[0]), device.At("PE"))],
                Follows = [Followed.Insulation],
                AfterFaults = ["earth", "wet", "damp"],
                AfterTold = [Circumstance.Water],
            },
        ];
}
