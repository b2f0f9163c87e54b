using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Motor
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var machine = Machine.Of(device);
        var leads = Leads(device);
        for (var k = 0; k < leads.Length; k++)
        {
            // With six leads a winding ends at its own second lead, with three at the next winding.
            var (lead, next) = (leads[k], leads[(k + 1) % leads.Length]);
            yield return new FaultMode(
                $"{device.Tag}/winding-{lead}-open",
                device.Tag,
                $"Winding {lead} of the motor {device.Tag} is open",
                [new ElementOpen(device.Tag, $"{lead}-{Inner(lead)}")],
                0.4,
                "Replace or rewind the motor; check its terminal box first."
            )
            {
                ProofPoints = (device.Terminal(lead), device.Terminal(HasSixLeads(device) ? $"{lead[0]}2" : next)),
            };
            foreach (
                var mode in Common.Bridged(
                    $"{device.Tag}/winding-{lead}-earth",
                    device.Tag,
                    $"Winding {lead} of the motor {device.Tag} has {Term.EarthFault.WithArticle}",
                    device.Terminal(lead),
                    null,
                    device.Terminal("PE"),
                    0.4,
                    "Lift the motor's leads to tell it from the cable; look for water in the terminal box; replace or rewind the motor."
                )
            )
            {
                yield return mode;
            }

            yield return new FaultMode(
                $"{device.Tag}/winding-{lead}-breakdown",
                device.Tag,
                $"Insulation of winding {lead} of the motor {device.Tag} breaks down to {Term.Earth} under voltage",
                [new Bridge(device.Terminal(lead), device.Terminal("PE"), 3) { UnderVoltage = true }],
                0.15,
                "Lift the motor's leads; measure its insulation and the cable's apart; replace or rewind the motor."
            )
            {
                SizeFactor = 2.5,
                ProofPoints = (device.Terminal(lead), device.Terminal("PE")),
            };
            yield return new FaultMode(
                $"{device.Tag}/winding-{lead}-{next}-short",
                device.Tag,
                $"Windings {lead} and {next} of the motor {device.Tag} are shorted",
                [new Bridge(device.Terminal(lead), device.Terminal(next), 0.25 * device[Plate.WindingOhms])],
                0.25,
                "Replace or rewind the motor."
            )
            {
                ProofPoints = (device.Terminal(lead), device.Terminal(next)),
                SizeFactor = 1.5,
            };
        }

        yield return new FaultMode(
            $"{device.Tag}/damp",
            device.Tag,
            $"Insulation of the motor {device.Tag} is low: damp or dirty",
            [new Bridge(device.Terminal(leads[0]), device.Terminal("PE"), 150e3)],
            0.2,
            "Dry and clean the motor and its terminal box; measure the insulation again before it is switched on."
        )
        {
            SizeFactor = 3,
            ProofPoints = (device.Terminal(leads[0]), device.Terminal("PE")),
        };
        yield return new FaultMode(
            $"{device.Tag}/stalled",
            device.Tag,
            $"The load of {device.Tag} is jammed or its brake is on",
            [new ParameterIs(device.Tag, Plate.Shaft.Name, "jammed")],
            1,
            "Isolate; turn the shaft by hand; clear the jam, check bearings and brake."
        )
        {
            ProofLook = (device.Tag, "shaft"),
        };
        yield return new FaultMode(
            $"{device.Tag}/overloaded",
            device.Tag,
            $"The motor {device.Tag} is overloaded",
            [new ParameterIs(device.Tag, Plate.Load.Name, 1.35)],
            0.8,
            "Reduce the load; check bearings and drive; measure the current in each phase against the nameplate."
        )
        {
            ProofLook = (device.Tag, "shaft"),
        };
    }
}
