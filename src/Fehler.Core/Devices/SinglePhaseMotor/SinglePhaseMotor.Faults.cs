using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal sealed partial class SinglePhaseMotor
{
    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var replace = "Replace or rewind the motor; check its terminal box first.";
        yield return Common.Open(device, Elements(device)[0], $"Main winding of {device.Tag} is open", 0.6, replace);
        foreach (
            var mode in Common.Bridged(
                $"{device.Tag}/winding-earth",
                device.Tag,
                $"Winding of {device.Tag} has {Term.EarthFault.WithArticle}",
                device.At("U1"),
                null,
                device.At("PE"),
                0.5,
                replace
            )
        )
        {
            yield return mode;
        }

        yield return new FaultMode(
            $"{device.Tag}/stalled",
            device.Tag,
            $"The load of {device.Tag} is jammed",
            [new ParameterIs(device.Tag, Plate.Load.Name, 3.0)],
            0.8,
            "Isolate; turn the shaft by hand; clear the jam."
        )
        {
            ProofLook = (device.Tag, "shaft"),
        };
        if (HasAuxiliary(device))
        {
            yield return Common.Open(
                device,
                Elements(device)[1],
                $"Auxiliary winding of {device.Tag}, or its switch, is open",
                0.5,
                replace
            ) with
            {
                ProofPoints = Common.Points(device, Elements(device)[1]),
            };
            if (device[Plate.Auxiliary] == "start")
            {
                yield return new FaultMode(
                    $"{device.Tag}/switch-stuck",
                    device.Tag,
                    $"Centrifugal switch of {device.Tag} does not open: the starting winding stays in",
                    [new ParameterIs(device.Tag, Plate.Switch.Name, "stuck closed")],
                    0.5,
                    "Clamp the auxiliary lead while it runs: there should be nothing. Clean or replace the switch before the winding burns."
                );
            }

            yield break;
        }

        yield return new FaultMode(
            $"{device.Tag}/capacitor",
            device.Tag,
            $"Capacitor of {device.Tag} has failed: it hums and does not start",
            [new ParameterIs(device.Tag, Plate.Capacitor.Name, "open")],
            1,
            "Discharge and replace the capacitor, same value and voltage."
        );
    }
}
