using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What drifts in it.</content>
internal sealed partial class TimerRelay
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("timer", "Time of the timer", 24, 2, UpkeepState.Live)
            {
                Steps = [$"Stop-watch on {device.Tag}: its time as drawn; star-delta: not before the current has fallen."],
            },
        ];
}
