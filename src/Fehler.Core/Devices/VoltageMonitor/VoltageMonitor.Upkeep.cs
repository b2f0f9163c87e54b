using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What proves that it watches.</content>
internal sealed partial class VoltageMonitor
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("monitor", "Trip and return of the voltage monitor", 24, 5, UpkeepState.Live)
            {
                Steps =
                [
                    $"Take one phase away from {device.Tag}: it lets go within its delay, and nothing starts when it comes back "
                        + $"unless it is drawn so.",
                    "Thresholds and delays as written on the drawing.",
                ],
                IsInFunctionTest = true,
            },
        ];
}
