using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A lockable switch-disconnector; opening it isolates what follows.</summary>
internal sealed class Isolator : SwitchingDevice
{
    public override string Id => "isolator";
    public override string Term => "isolator";
    public override ImmutableArray<string> Positions(Device device) => ["off", "on"];
    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 0);

    public override ImmutableArray<Actuation> Actuations(Device device) => [new("off", "Switch off", false), new("on", "Switch on", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("handle", $"Handle of {device.Tag}", "on", "off")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 1 ? "on" : "off";

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        base.FaultModes(device).Append(new FaultMode($"{device.Tag}/left-off", device.Tag, $"Isolator {device.Tag} was left off",
            [new FoundInPosition(device.Tag, 0)], 0.6, "Find out why it is off and whether someone works on the circuit before it is switched on.")
        {
            ProofLook = (device.Tag, "handle"),
            AskWhy = "Someone switched it off: ask who, and why, before switching on.",
        });
}
