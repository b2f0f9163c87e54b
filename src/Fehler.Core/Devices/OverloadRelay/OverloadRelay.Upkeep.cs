using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What proves that it would trip.</content>
internal sealed partial class OverloadRelay
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("overload", "Test trip and reset of the overload", 12, 3, UpkeepState.Live)
            {
                Steps =
                [
                    $"Running: operate the test trip of {device.Tag}; it stops and does not start again by itself.",
                    "Dial as the plate; class and reset mode as drawn.",
                    "With a test set: time to trip from cold at a known current.",
                ],
                Follows = [Followed.TripTime],
                IsInFunctionTest = true,
            },
        ];
}
