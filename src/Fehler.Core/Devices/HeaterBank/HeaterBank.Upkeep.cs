using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What burns out in it.</content>
internal sealed partial class HeaterBank
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("heater", "Elements of the heater bank", 12, 5, UpkeepState.Dead)
            {
                Steps = ["Ohms from lead to lead: three alike; insulation to the frame."],
                Readings =
                [
                    .. new[] { (0, 1), (1, 2), (2, 0) }.Select(p => new AskedReading(
                        Quantity.Ohms,
                        device.Terminal(Terminals(device)[p.Item1]),
                        device.Terminal(Terminals(device)[p.Item2])
                    )),
                ],
                Follows = [Followed.WindingOhms],
            },
        ];
}
