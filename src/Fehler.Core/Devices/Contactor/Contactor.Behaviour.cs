using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Contactor
{
    public override double MadeOhms(Device device, Element element) =>
        element.Role == ElementRole.Pole ? IElectrical.PoleOhms(device[Plate.RatedAmps]) : base.MadeOhms(device, element);

    /// <summary>
    /// A mechanical interlock keeps the armature out while the other one is in: the coil then draws its pull-in current and buzzes.
    /// </summary>
    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var wanted = base.Settle(device, state, meter);
        var locked = CoupledTo(device).Any(other => meter.StateOf(other) is { Position: In });
        return locked && wanted.Next.Position == In && (state.Position == Out || state.Moving)
            ? new Transition(state with { Position = Out, Moving = false })
            : wanted;
    }
}
