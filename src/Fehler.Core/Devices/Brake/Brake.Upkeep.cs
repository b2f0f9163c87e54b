using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What wears in it.</content>
internal sealed partial class Brake
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule(
                "brake",
                "Brake: lining, air gap, holding",
                12,
                15,
                UpkeepState.Dead,
                "common practice; the maker's figures come first"
            )
            {
                Steps =
                [
                    "Load secured before the brake is opened.",
                    "Lining and air gap by the maker's figures; dust out.",
                    "Coil ohms; afterwards it holds the load and does not drag.",
                ],
                Readings = [new AskedReading(Quantity.Ohms, device.At("B1"), device.At("B2"))],
                Follows = [Followed.CoilOhms],
                AfterFaults = ["not-holding"],
            },
        ];
}
