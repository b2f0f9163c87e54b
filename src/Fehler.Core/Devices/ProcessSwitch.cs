using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A switch that the process operates: limit, float, pressure, door, safety edge, thermostat. A two-wire control by one of these
/// restarts by itself.
/// </summary>
internal sealed class ProcessSwitch : ControlSwitch
{
    public override string Id => "process-switch";
    public override string Term => "limit or process switch";
    private protected override string DefaultContact => "13-14";

    public override ImmutableArray<ParameterSpec> Parameters =>
    [
        .. base.Parameters,
        ParameterSpec.Word("senses", "What operates it", "limit", "limit", "float", "pressure", "door", "edge", "temperature", "flow"),
    ];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "operated"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
    [
        new("operated", device.Word("senses") switch
        {
            "limit" => "Reach the limit",
            "float" => "Raise the float",
            "pressure" => "Let the pressure reach its point",
            "door" => "Open the door",
            "edge" => "Press the safety edge",
            "flow" => "Let it flow",
            _ => "Let the temperature reach its point",
        }, false),
        new("rest", device.Word("senses") switch
        {
            "limit" => "Leave the limit",
            "float" => "Lower the float",
            "door" => "Close the door",
            "edge" => "Let go of the safety edge",
            "flow" => "Stop the flow",
            _ => "Let it fall back",
        }, false),
    ];

    public override ImmutableArray<Look> Looks(Device device) => [new("operator", $"Lever or sensor of {device.Tag} ({device.Function})", "at rest", "operated")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 0 ? "at rest" : "operated";

    public override IEnumerable<FaultMode> FaultModes(Device device) => BlockFaults(device, $"{device.Word("senses")} switch").Concat(
    [
        new FaultMode($"{device.Tag}/never-operates", device.Tag, $"{device.Tag} does not operate: lever loose, float stuck, wrong set point", [new PositionLocked(device.Tag, 0)], 0.8, $"Adjust or replace {device.Tag}.")
        {
            ProofPoints = Common.Points(device, Elements(device)[0]),
        },
        new FaultMode($"{device.Tag}/stays-operated", device.Tag, $"{device.Tag} stays operated: lever bent, float stuck, wrong set point", [new PositionLocked(device.Tag, 1)], 1.2, $"Adjust or replace {device.Tag}.")
        {
            ProofLook = (device.Tag, "operator"),
        },
    ]);

    public override IEnumerable<string> Cautions(Device device) => device.Word("senses") is "float" or "pressure" or "temperature" or "flow"
        ? [$"{device.Tag} may start the motor at any time without warning."]
        : device.Word("senses") is "door" or "edge" or "limit" ? [$"Never bridge {device.Tag}: volts across it, or ohms when dead, tell the same."] : [];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] is PositionLocked
        ? base.Repair(device, fault) with
        {
            Steps = [fault.Remedy, "Move what moves it by hand, slowly, both ways, with a meter on the contact: where does it switch?", "Fasten and mark its place; check that nothing runs past it."],
            Causes = [new RootCause("Bent, loose or out of place", "Compare with its mark; look at the cam or float"), new RootCause("Resin, sawdust or ice in it", "Open it"), RepairNotes.Moisture],
            Cautions = ["Never bridge a limit or a safety switch, not even for a test: volts across it or ohms when dead tell the same."],
        }
        : base.Repair(device, fault);
}
