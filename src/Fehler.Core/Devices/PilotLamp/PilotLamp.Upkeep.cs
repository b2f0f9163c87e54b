using Fehler.Core.Circuits;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What tells a dark lamp from a good state.</content>
internal sealed partial class PilotLamp
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule("lamps", "Lamps light", 12, 0.5, UpkeepState.Live)
            {
                Steps = ["Each lamp by its test button or by what it tells of; a dark lamp lies."],
            },
        ];
}
