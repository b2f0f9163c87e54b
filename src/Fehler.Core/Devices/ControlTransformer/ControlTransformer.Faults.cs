using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class ControlTransformer
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        const string replace =
            "Find out why it burnt out (a shorted coil, a wrong tap), then replace the transformer: same voltages, same VA.";
        var (primary, secondary) = ((device.At("1"), device.At("2")), (device.At("3"), device.At("4")));
        yield return Common.Open(device, Elements(device)[0], $"Primary winding of {device.Tag} is open", 0.8, replace) with
        {
            ProofPoints = primary,
        };
        yield return Common.Open(device, Elements(device)[1], $"Secondary winding of {device.Tag} is open", 0.8, replace) with
        {
            ProofPoints = secondary,
        };
        foreach (var (name, side, points) in new[] { ("primary", "Primary", primary), ("secondary", "Secondary", secondary) })
        {
            foreach (
                var mode in Common.Bridged(
                    $"{device.Tag}/{name}-shorted",
                    device.Tag,
                    $"{side} winding of {device.Tag} is shorted",
                    points.Item1,
                    points.Item2,
                    points.Item2,
                    0.3,
                    replace
                )
            )
            {
                yield return mode;
            }
        }

        yield return new FaultMode(
            $"{device.Tag}/wrong-tap",
            device.Tag,
            $"{device.Tag} is connected to the tap of another primary voltage",
            [new ParameterIs(device.Tag, Plate.PrimaryVolts.Name, device[Plate.PrimaryVolts] * Math.Sqrt(3))],
            0.15,
            "Connect the primary to the tap of the supply that is there."
        )
        {
            ProofPoints = secondary,
        };
    }
}
