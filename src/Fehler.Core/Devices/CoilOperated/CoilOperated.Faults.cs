using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <content>How it fails.</content>
internal abstract partial class CoilOperated
{
    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        [
            .. CoilFaults(device),
            .. ArmatureFaults(device),
            .. Contacts(device)
                .Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)
                .SelectMany(c =>
                    ContactFaults
                        .Of(
                            device,
                            c,
                            $"Auxiliary contact {c.Name} of {device.Tag}",
                            $"Replace the auxiliary contact block of {device.Tag}.",
                            1
                        )
                        .Append(ContactFaults.Exchanged(device, c, $"Auxiliary contact {c.Name} of {device.Tag}", 0.08))
                ),
        ];

    private protected IEnumerable<FaultMode> CoilFaults(Device device)
    {
        var coil = Elements(device)[CoilElement];
        var volts = device[CoilPlate.Volts];
        var sort = FormattableString.Invariant($"{volts:0} V {(IsDirect(device) ? "DC" : "AC")}");
        yield return Common.Open(device, coil, $"Coil of {device.Tag} is open", 3, $"Replace the coil of {device.Tag}: same type, {sort}.");
        yield return new FaultMode(
            $"{device.Tag}/coil-shorted",
            device.Tag,
            $"Coil of {device.Tag} has shorted turns",
            [new ElementImpedance(device.Tag, coil.Name, 0.02)],
            0.6,
            $"Replace the coil of {device.Tag}: same type, {sort}."
        )
        {
            ProofPoints = Common.Points(device, coil),
            SizeFactor = 2.5,
        };
        var wrong =
            volts < 60 ? 230.0
            : volts < 300 ? 400.0
            : 690.0;
        yield return new FaultMode(
            $"{device.Tag}/coil-wrong",
            device.Tag,
            $"Coil of {device.Tag} is for another voltage ({wrong:0} V)",
            [
                new ParameterIs(device.Tag, CoilPlate.Volts.Name, wrong),
                new ParameterIs(device.Tag, CoilPlate.Ohms.Name, device[CoilPlate.Ohms] * Math.Pow(wrong / volts, 2)),
            ],
            0.2,
            $"Fit a coil for {sort}."
        )
        {
            ProofPoints = Common.Points(device, coil),
            ProofLook = (device.Tag, "coil-label"),
        };
    }

    private protected (string Device, string Look)? ProofByHand(Device device) =>
        Looks(device).Any(l => l.Id == ArmatureLook) ? (device.Tag, ArmatureLook) : null;

    private protected virtual IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        yield return new FaultMode(
            $"{device.Tag}/jammed",
            device.Tag,
            $"Armature of {device.Tag} is jammed: it does not pull in",
            [new PositionLocked(device.Tag, Out)],
            0.7,
            $"Free or replace the {Name} {device.Tag}."
        )
        {
            ProofLook = ProofByHand(device),
        };
        yield return new FaultMode(
            $"{device.Tag}/sticks",
            device.Tag,
            $"Armature of {device.Tag} stays in with the coil dead",
            [new DoesNotReturn(device.Tag)],
            0.6,
            $"Replace the {Name} {device.Tag}; sticky faces or residual magnetism come back."
        )
        {
            ProofLook = ProofByHand(device),
        };
        if (!IsDirect(device))
        {
            yield return new FaultMode(
                $"{device.Tag}/shading-ring",
                device.Tag,
                $"Shading ring of {device.Tag} is broken: it hums loudly when in",
                [new AppearsAs(device.Tag, "in", "hums")],
                0.3,
                $"Replace the {Name} {device.Tag} or its magnet."
            );
        }
    }
}
