using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <content>What ages in it.</content>
internal sealed partial class Motor
{
    public override IEnumerable<UpkeepRule> Upkeep(Device device) =>
        [
            new UpkeepRule(
                "insulation",
                "Insulation and windings of the motor",
                24,
                12,
                UpkeepState.Dead,
                "IEEE 43, from memory, for the limit; the interval is common practice"
            )
            {
                Steps =
                [
                    "At the panel's terminals with the cable on; only if that is low, at the motor by itself.",
                    "One minute at 500 V, winding's warmth beside it; discharge afterwards.",
                    "Ohms from lead to lead: three alike.",
                ],
                Readings =
                [
                    .. Leads(device).Select(t => new AskedReading(Quantity.Insulation, device.At(t), device.At("PE"))),
                    .. WindingPairs(device).Select(p => new AskedReading(Quantity.Ohms, p.From, p.To)),
                ],
                Follows = [Followed.Insulation, Followed.WindingOhms],
                AfterFaults = ["earth", "wet", "damp"],
                AfterTold = [Circumstance.Water],
            },
        ];

    /// <summary>Three leads each against the next; of six, each winding from its beginning to its end.</summary>
    private static IEnumerable<(TerminalId From, TerminalId To)> WindingPairs(Device device)
    {
        TerminalId[] begins = [.. Leads(device).Select(device.At)];
        TerminalId[] ends = HasSixLeads(device) ? [device.At("U2"), device.At("V2"), device.At("W2")] : [begins[1], begins[2], begins[0]];
        return begins.Zip(ends);
    }
}
