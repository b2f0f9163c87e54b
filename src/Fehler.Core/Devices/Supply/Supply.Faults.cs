using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class Supply
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        if (Phases(device) == 3)
        {
            yield return new FaultMode(
                $"{device.Tag}/sequence",
                device.Tag,
                "Two phases of the supply are exchanged",
                [new ParameterIs(device.Tag, Plate.Sequence.Name, device[Plate.Sequence] == "L1-L3-L2" ? "L1-L2-L3" : "L1-L3-L2")],
                0.1,
                "Find who worked on the feeder; exchange two phases where they were exchanged, not at the motor."
            )
            {
                ProofLook = (device.Tag, "rotation"),
            };
        }

        var elements = Elements(device);
        for (var k = 0; k < Phases(device); k++)
        {
            yield return new FaultMode(
                $"{device.Tag}/L{k + 1}-missing",
                device.Tag,
                $"Phase L{k + 1} is missing from the supply",
                [new ElementOpen(device.Tag, elements[k].Name)],
                0.8,
                "Find where the phase is lost upstream: supply fuse, breaker pole, joint."
            )
            {
                ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal(Phases(device) == 1 ? "N" : $"L{(k + 1) % 3 + 1}")),
            };
        }

        if (elements.FirstOrDefault(e => e.B == "N") is { } neutral)
        {
            yield return new FaultMode(
                $"{device.Tag}/neutral-missing",
                device.Tag,
                "The neutral is missing from the supply",
                [new ElementOpen(device.Tag, neutral.Name)],
                0.3,
                $"What should be the neutral may be live: find where it is lost upstream, link, terminal, joint, before anything else."
            )
            {
                ProofPoints = (device.At("N"), device.At("PE")),
            };
        }

        for (var k = 0; k < Phases(device); k++)
        {
            // A bad joint upstream: full voltage without load, next to nothing with it.
            foreach (var ohms in new[] { 2.0, 30, 2_000 })
            {
                yield return new FaultMode(
                    $"{device.Tag}/L{k + 1}-weak",
                    device.Tag,
                    $"Phase L{k + 1} of the supply has a bad joint upstream: it sags under load",
                    [new ElementSeriesOhms(device.Tag, Elements(device)[k].Name, ohms)],
                    0.06,
                    "Measure the phase under load back to its source; find the burnt joint, fuse contact or pole."
                )
                {
                    Variant = FormattableString.Invariant($"{ohms:0} ohm"),
                    SizeFactor = 2.5,
                    ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal(Phases(device) == 1 ? "N" : $"L{(k + 1) % 3 + 1}")),
                };
            }
        }

        for (var k = 0; k < Phases(device) && Phases(device) > 1; k++)
        {
            foreach (var percent in new[] { 12.0, 30 })
            {
                yield return new FaultMode(
                    $"{device.Tag}/L{k + 1}-low",
                    device.Tag,
                    $"Phase L{k + 1} of the supply is low, loaded or not: the supply is unbalanced",
                    [
                        new ParameterIs(device.Tag, Plate.LowPhase.Name, $"L{k + 1}"),
                        new ParameterIs(device.Tag, Plate.LowPercent.Name, percent),
                    ],
                    0.05,
                    "Measure the three line voltages here and at the source; tell whoever runs the supply; do not run the motor on it."
                )
                {
                    Variant = FormattableString.Invariant($"{percent:0} %"),
                    SizeFactor = 1.4,
                    ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal($"L{(k + 1) % 3 + 1}")),
                };
            }
        }

        yield return new FaultMode(
            $"{device.Tag}/high-voltage",
            device.Tag,
            "Supply voltage is high",
            [new ParameterIs(device.Tag, Plate.LineVolts.Name, device[Plate.LineVolts] * 1.18)],
            0.08,
            "Measure the supply at its source; a transformer tap or a lost neutral upstream: tell whoever runs the supply."
        )
        {
            SizeFactor = 1.05,
            ProofPoints = (device.At("L1"), device.Terminal(Phases(device) == 1 ? "N" : "L2")),
        };
        foreach (var share in new[] { 0.55, 0.72 })
        {
            yield return new FaultMode(
                $"{device.Tag}/low-voltage",
                device.Tag,
                "Supply voltage is low",
                [new ParameterIs(device.Tag, Plate.LineVolts.Name, device[Plate.LineVolts] * share)],
                0.1,
                "Measure the supply under load at the source; find the overload or bad joint upstream."
            )
            {
                Variant = $"{share * 100:0} %",
                SizeFactor = 1.1,
                ProofPoints = (device.At("L1"), device.Terminal(Phases(device) == 1 ? "N" : "L2")),
            };
        }
    }
}
