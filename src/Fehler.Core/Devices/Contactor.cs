using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A contactor: main poles and auxiliary contacts on one armature, perhaps locked mechanically against another's.</summary>
internal sealed class Contactor : CoilOperated
{
    public override string Id => "contactor";
    public override string Term => "contactor";

    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } =
    [
        ParameterSpec.Number("poles", "Main poles", "", 3, 0, 4),
        ParameterSpec.Words("contacts", "Auxiliary contacts by terminal numbers; last digits 3-4 close, 1-2 open", "13-14"),
        ParameterSpec.Number("ratedAmps", "Rated current AC-3", "A", 12, 1, 1600),
        ParameterSpec.Word("interlockedWith", "Contactor that a mechanical interlock locks this one against; none when empty", ""),
    ];

    private protected override ImmutableArray<Element> Contacts(Device device) =>
    [
        .. Enumerable.Range(0, (int)device.Number("poles")).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole)),
        .. device.Words("contacts").Select(Auxiliary),
    ];

    public override IEnumerable<string> CoupledTo(Device device) => device.Word("interlockedWith") is { Length: > 0 } other ? [other] : [];

    /// <summary>A mechanical interlock keeps the armature out while the other one is in: the coil then draws its pull-in current and buzzes.</summary>
    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var wanted = base.Settle(device, state, meter);
        var locked = CoupledTo(device).Any(other => meter.StateOf(other) is { Position: In });
        return locked && wanted.Next.Position == In && (state.Position == Out || state.Moving) ? new Transition(state with { Position = Out, Moving = false }) : wanted;
    }

    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        foreach (var mode in base.ArmatureFaults(device))
        {
            yield return mode;
        }

        if (CoupledTo(device).Any())
        {
            yield return new FaultMode($"{device.Tag}/interlock-jammed", device.Tag, $"Mechanical interlock holds {device.Tag} out",
                [new PositionLocked(device.Tag, Out)], 0.3, $"Free or replace the mechanical interlock of {device.Tag}.");
        }

        var poles = Elements(device).Where(e => e.Role == ElementRole.Pole).ToList();
        foreach (var pole in poles)
        {
            yield return Common.Open(device, pole, $"Pole {pole.Name} of {device.Tag} stays open", 0.8, $"Replace the main contacts or the contactor {device.Tag}.");
            yield return Common.Made(device, pole, $"Pole {pole.Name} of {device.Tag} is welded", 0.5, $"Replace the contactor {device.Tag}; find out what overloaded it.");
            foreach (var mode in Common.HighResistance(device, pole, $"Pole {pole.Name} of {device.Tag} is burnt (high resistance)", 0.3, $"Replace the main contacts or the contactor {device.Tag}.", power: true))
            {
                yield return mode;
            }
        }

        if (poles.Count > 1)
        {
            yield return new FaultMode($"{device.Tag}/all-welded", device.Tag, $"All poles of {device.Tag} are welded",
                [.. poles.Select(p => new ElementMade(device.Tag, p.Name))], 0.3, $"Replace the contactor {device.Tag}; find out what overloaded it.")
            {
                ProofPoints = Common.Points(device, poles[0]),
            };
        }
    }

    public override IEnumerable<string> Cautions(Device device) =>
    [
        "Pressing the armature in by hand closes the main poles: the motor starts unless the circuit is isolated.",
        .. CoupledTo(device).Select(other => $"Never press {device.Tag} and {other} in together: with the supply on that is a short circuit between phases."),
    ];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind == "interlock-jammed"
        ? base.Repair(device, fault) with { Parts = [$"Mechanical interlock for {device.Tag}, same type"], Cautions = ["Never leave the interlock off to get the machine running."] }
        : base.Repair(device, fault);
}
