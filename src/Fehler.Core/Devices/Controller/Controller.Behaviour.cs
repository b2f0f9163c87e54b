using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Controller
{
    /// <summary>An input takes some 5 mA at 24 V and reads 1 from about 15 V (type 1 of IEC 61131-2, from memory).</summary>
    private const double InputOhms = 4_800,
        ReadsOne = 0.6;

    private const double FeedbackSeconds = 1;

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Appearances[state.Position];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Appearances[state.Position];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ohms ? 0 : 1 / InputOhms;

    /// <summary>By the current through it: a dead input has its voltage and reads nothing.</summary>
    private static bool Reads(Device device, IDeviceMeter meter, int input) =>
        meter.DcAmps(input) * InputOhms > ReadsOne * device[Plate.InputVolts];

    /// <summary>An input that watches something with either contact; false where there is none.</summary>
    private static bool Says(Device device, IDeviceMeter meter, int input, bool whenMade) =>
        input >= 0 && Reads(device, meter, input) == whenMade;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var channels = ChannelsOf(device);
        var isTripped =
            Says(device, meter, channels.Trip, whenMade: device[Plate.TripInput] == "no")
            || Says(device, meter, channels.Breaker, whenMade: device[Plate.BreakerInput] == "nc");
        var (stop, forward) = (!Reads(device, meter, 0), Reads(device, meter, 1));
        var reverse = channels.IsReversing && Reads(device, meter, 2);
        var ended = channels.Lamp >= 0 ? RunDown : Stopped;
        return new Transition(
            state with
            {
                Position = state.Position switch
                {
                    Fault => stop ? Stopped : Fault,
                    Forward or Reverse when stop || isTripped => ended,
                    Stopped when !stop && !isTripped && forward && !reverse => Forward,
                    Stopped when !stop && !isTripped && reverse && !forward => Reverse,
                    var position => position,
                },
            }
        );
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        var channels = ChannelsOf(device);
        bool Back(int contactor) => Reads(device, meter, channels.Feedback + contactor);
        var isIn = channels.Feedback >= 0 && Enumerable.Range(0, channels.IsReversing ? 2 : 1).Any(Back);
        return state.Position switch
        {
            Forward or Reverse when channels.Feedback >= 0 && !Back(state.Position - Forward) => new(
                new(FeedbackSeconds),
                state with
                {
                    Position = Fault,
                }
            ),
            Stopped or RunDown when isIn && channels.Shunt >= 0 => new(new(FeedbackSeconds), state with { Position = Releasing }),
            Releasing => new(new(FeedbackSeconds), state with { Position = Fault }),
            RunDown => new(new(device[Plate.LockOutSeconds]), state with { Position = Stopped }),
            _ => null,
        };
    }

    public override string Measured(Device device, Look look, DeviceState state, IDeviceMeter meter)
    {
        var elements = Elements(device);
        var channel = elements.First(e => Channel(e) == look.Id);
        var isLit = channel.IsContact ? IsMade(device, channel, state) : Reads(device, meter, elements.IndexOf(channel));
        return isLit ? "lit" : "dark";
    }
}
