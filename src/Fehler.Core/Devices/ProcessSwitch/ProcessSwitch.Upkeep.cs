using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What is knocked, soaked and worn.</content>
internal sealed partial class ProcessSwitch
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("limits", "Limits, floats, pressure and door switches", 12, 3, UpkeepState.Live)
            {
                Steps = ["Each by what moves it, not by hand: it opens where it is drawn to open, and comes back."],
            },
        ];
}
