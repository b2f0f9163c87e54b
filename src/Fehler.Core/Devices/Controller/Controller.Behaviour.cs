using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Controller
{
    private const double InputOhms = 4_800,
        FeedbackSeconds = 1;

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        (state.Position & Fault) != 0 ? "fault"
        : (state.Position & Reverse) != 0 ? "run reverse"
        : (state.Position & Forward) != 0 ? "run"
        : "stop";

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ohms ? 0 : 1 / InputOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var reversing = device[Plate.Program] == "reversing";
        bool Input(int i) => meter.DcAmps(i) * InputOhms > 0.6 * device[Plate.InputVolts];
        var trip = reversing ? 3 : 2;
        var tripped = device[Plate.TripInput] switch
        {
            "nc" => !Input(trip),
            "no" => Input(trip),
            _ => false,
        };
        var position = state.Position;
        if (!Input(0))
        {
            position = 0;
        }
        else if (tripped || (position & Fault) != 0)
        {
            position &= Fault;
        }
        else if (Input(1) && !(reversing && (Input(2) || position == Reverse)))
        {
            position = Forward;
        }
        else if (reversing && Input(2) && !Input(1) && position != Forward)
        {
            position = Reverse;
        }

        return new Transition(state with { Position = position });
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (device[Plate.Feedback] != "yes" || state.Position is not (Forward or Reverse))
        {
            return null;
        }

        var reversing = device[Plate.Program] == "reversing";
        var first = (reversing ? 3 : 2) + (device[Plate.TripInput] == "none" ? 0 : 1);
        var feedback = first + (state.Position == Reverse ? 1 : 0);
        return meter.DcAmps(feedback) * InputOhms > 0.6 * device[Plate.InputVolts]
            ? null
            : new TimedTransition(new(FeedbackSeconds), state with { Position = Fault });
    }

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (state.Position & Fault) != 0 ? "fault"
        : (state.Position & Reverse) != 0 ? "run reverse"
        : (state.Position & Forward) != 0 ? "run"
        : "stop";
}
