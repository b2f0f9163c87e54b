using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What proves that it would trip.</content>
internal sealed partial class MotorBreaker
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("overload", "Test trip and reset of the overload", 12, 3, UpkeepState.Live)
            {
                Steps = [$"Operate the test trip of {device.Tag}; off, then on, resets it. Dial as the plate."],
                Follows = [Followed.TripTime],
                IsInFunctionTest = true,
            },
        ];
}
