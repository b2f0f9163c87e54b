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
            var (lead, next) = (device.Printed(leads[k]), device.Printed(leads[(k + 1) % leads.Length]));
            yield return new FaultMode(
                $"{device.Tag}/winding-{lead}-open",
                device.Tag,
                $"Winding {lead} of the motor {device.Tag} is open",
                [new ElementOpen(device.Tag, Elements(device)[k].Name)],
                0.4,
                "Replace or rewind the motor; check its terminal box first."
            )
            {
                ProofPoints = (device.Terminal(lead), HasSixLeads(device) ? device.At($"{leads[k][0]}2") : device.Terminal(next)),
            };
            foreach (
                var mode in Common.Bridged(
                    $"{device.Tag}/winding-{lead}-earth",
                    device.Tag,
                    $"Winding {lead} of the motor {device.Tag} has {Term.EarthFault.WithArticle}",
                    device.Terminal(lead),
                    null,
                    device.At("PE"),
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
                [new Bridge(device.Terminal(lead), device.At("PE"), 3) { UnderVoltage = true }],
                0.15,
                "Lift the motor's leads; measure its insulation and the cable's apart; replace or rewind the motor."
            )
            {
                SizeFactor = 2.5,
                ProofPoints = (device.Terminal(lead), device.At("PE")),
            };
            // As many sizes as a short in its cable has: only lifting its leads tells the two apart.
            foreach (
                var mode in Common.Bridged(
                    $"{device.Tag}/winding-{lead}-{next}-short",
                    device.Tag,
                    $"Windings {lead} and {next} of the motor {device.Tag} are shorted",
                    device.Terminal(lead),
                    device.Terminal(next),
                    device.Terminal(next),
                    0.25,
                    "Lift the motor's leads to tell it from the cable; replace or rewind the motor."
                )
            )
            {
                yield return mode;
            }

            foreach (var mode in ShortedTurns(device, k))
            {
                yield return mode;
            }
        }

        yield return new FaultMode(
            $"{device.Tag}/damp",
            device.Tag,
            $"Insulation of the motor {device.Tag} is low: damp or dirty",
            [new Bridge(device.At(leads[0]), device.At("PE"), 150e3)],
            0.2,
            "Dry and clean the motor and its terminal box; measure the insulation again before it is switched on."
        )
        {
            SizeFactor = 3,
            ProofPoints = (device.At(leads[0]), device.At("PE")),
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
        foreach (var mode in OfTheLoad(device))
        {
            yield return mode;
        }
    }

    /// <summary>Faults of what it drives.</summary>
    private IEnumerable<FaultMode> OfTheLoad(Device device)
    {
        // A brake that drags is seen in the motor's current; it is the brake that is put right.
        foreach (var brake in CoupledTo(device))
        {
            foreach (var share in new[] { 0.35, 0.9 })
            {
                yield return new FaultMode(
                    $"{brake}/drags",
                    brake,
                    $"Brake {brake} lifts but drags: gap too small, lining swollen or linkage stiff",
                    [new ParameterIs(device.Tag, Plate.Load.Name, device[Plate.Load] + share)],
                    0.2,
                    $"Secure the load; isolate; lift the brake {brake} by its lever and turn the shaft by hand; set the gap as the maker says."
                )
                {
                    Variant = FormattableString.Invariant($"{100 * share:0} % of the rated torque"),
                    ProofLook = (device.Tag, "shaft"),
                };
            }
        }

        yield return new FaultMode(
            $"{device.Tag}/unloaded",
            device.Tag,
            $"The motor {device.Tag} drives nothing: coupling, belt or key gone",
            [new ParameterIs(device.Tag, Plate.Load.Name, 0.03)],
            0.3,
            "Isolate; look at coupling, belt and key; the current is near that without load."
        )
        {
            ProofLook = (device.Tag, "shaft"),
        };
        yield return new FaultMode(
            $"{device.Tag}/starts-slowly",
            device.Tag,
            $"The motor {device.Tag} takes too long to start: blocked, wet or badly greased load",
            [new ParameterIs(device.Tag, Plate.StartSeconds.Name, Math.Min(120, Math.Max(15, 5 * device[Plate.StartSeconds])))],
            0.15,
            "Time the start and clamp its current; free the load; compare with the class of the overload relay."
        );
    }

    /// <summary>
    /// Some turns of one winding are shorted. A share s of the turns, with a resistance of s R, carries what the whole winding would through
    /// s R / s² = R / s beside it; an ohmmeter finds R (1 - s), about R beside R / s. A few turns hardly show in ohms and soon in the current
    /// (common practice).
    /// </summary>
    private static IEnumerable<FaultMode> ShortedTurns(Device device, int winding)
    {
        double[] shares = [0.03, 0.12, 0.5];
        var (from, to) = Windings(device)[winding];
        var lead = device.Printed(Leads(device)[winding]);
        // Three times the winding of an equivalent star in delta.
        var ohms = device[Plate.WindingOhms] * (IsDelta(device) ? 3 : 1);
        return shares.Select(share => new FaultMode(
            $"{device.Tag}/winding-{lead}-turns",
            device.Tag,
            $"Turns of winding {lead} of the motor {device.Tag} are shorted",
            [new Bridge(device.At(from), device.At(to), ohms / share)],
            0.3 / shares.Length,
            "Compare the three windings with each other and the three currents; replace or rewind the motor."
        )
        {
            Variant = FormattableString.Invariant($"{100 * share:0} % of the turns"),
            SizeFactor = 2,
            ShowsInCurrents = true,
            ProofPoints = (
                device.Terminal(lead),
                device.At(HasSixLeads(device) ? $"{Leads(device)[winding][0]}2" : Leads(device)[(winding + 1) % 3])
            ),
        });
    }
}
