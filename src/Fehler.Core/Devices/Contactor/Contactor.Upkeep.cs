using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What wears in it.</content>
internal sealed partial class Contactor
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("contacts", "Contacts and armature of the contactors", 36, 6, UpkeepState.Dead)
            {
                Steps =
                [
                    "Look at the contact tips: metal gone, beads, one unlike the others; replace all of one contactor together.",
                    "Press the armature in: free, over-travels, comes back by itself; pole faces clean.",
                    "Coil by itself: ohms as before.",
                ],
                Readings = [new AskedReading(Quantity.Ohms, device.At("A1"), device.At("A2"))],
                Follows = [Followed.CoilOhms, Followed.Starts],
                AfterFaults = ["welded"],
            },
        ];
}
