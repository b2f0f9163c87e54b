using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>An emergency stop: stays operated until it is released on purpose.</summary>
internal sealed class EmergencyStop : ControlSwitch
{
    public override string Id => "emergency-stop";
    public override string Term => "emergency stop";
    private protected override string DefaultContact => "11-12";
    public override ImmutableArray<string> Positions(Device device) => ["released", "operated"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("operated", "Operate", false), new("released", "Release", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("operator", $"Operator of {device.Tag}", "released", "operated")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        BlockFaults(device, "emergency stop").Append(new FaultMode($"{device.Tag}/left-operated", device.Tag, $"Emergency stop {device.Tag} was left operated",
            [new FoundInPosition(device.Tag, 1)], 1.5, $"Find out why {device.Tag} was operated; make sure nobody is in danger; then release it.")
        {
            ProofLook = (device.Tag, "operator"),
            AskWhy = "Someone operated it: ask why before releasing it.",
        });

    public override IEnumerable<string> Cautions(Device device) =>
        [$"Never bridge {device.Tag}: volts across it, or ohms when dead, tell the same."];
}
