using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A spring-applied brake: its coil lifts it. Without voltage it holds; not lifted, it makes the motor stall.</summary>
internal sealed class Brake : CoilOperated
{
    public override string Id => "brake";
    public override string Term => "brake";
    private protected override (double Volts, double PullInVa, double SealedVa) UsualCoil => (180, 60, 60);
    private protected override ImmutableArray<ParameterSpec> OwnParameters { get; } = [];
    private protected override (string A, string B) CoilTerminals => ("B1", "B2");
    private protected override ImmutableArray<Element> Contacts(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["applied", "lifted"];
    public override ImmutableArray<string> Appearances => ["applied", "lifted"];
    public override ImmutableArray<Actuation> Actuations(Device device) => [new("lifted", "Lift the brake by its hand lever", true, DeadOnly: true)];

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];

    private protected override IEnumerable<FaultMode> ArmatureFaults(Device device) =>
    [
        new($"{device.Tag}/not-lifted", device.Tag, $"Brake {device.Tag} does not lift: worn, jammed or air gap too wide", [new PositionLocked(device.Tag, Out)], 1, $"Secure the load; adjust or replace the brake {device.Tag}."),
        new($"{device.Tag}/not-holding", device.Tag, $"Brake {device.Tag} does not hold: lining worn or lever left lifted", [new PositionLocked(device.Tag, In)], 0.6, $"Secure the load first; adjust or replace the brake {device.Tag}."),
    ];

    public override IEnumerable<string> Cautions(Device device) =>
        [$"A raised load falls when {device.Tag} is lifted: secure it before touching the brake or its circuit."];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind is "not-lifted" or "not-holding"
        ? new RepairNotes
        {
            Steps = [fault.Remedy, "Set the air gap and the torque as the maker says; replace worn linings on both sides."],
            Parts = [$"Linings and springs for {device.Tag}", "Feeler gauge"],
            Causes = [new RootCause("Air gap too large: the magnet no longer pulls", "Feeler gauge"), new RootCause("No voltage or half of it at the brake's coil", "Volts DC at the coil; the rectifier ahead of it"), new RootCause("Oil or rust on the linings", "Look inside")],
            Cautions = ["Put the load down or hold it by other means before the brake is touched."],
        }
        : base.Repair(device, fault);
}
