using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What proves that it stops.</content>
internal sealed partial class EmergencyStop
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule(
                "emergency-stop",
                "Emergency stop",
                12,
                2,
                UpkeepState.Live,
                "common practice; a machine's own rules may ask for it sooner"
            )
            {
                Steps =
                [
                    $"Running: press {device.Tag}; it stops, and Start does nothing while it is in.",
                    "Release it: nothing starts by itself.",
                ],
                IsInFunctionTest = true,
            },
        ];
}
