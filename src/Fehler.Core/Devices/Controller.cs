using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A programmable controller with relay outputs. Its program is one of a starter: Stop on I0 (a broken wire stops), Start on I1
/// and, reversing, I2; trip and feedback of the contactors after them. Feedback that stays away for a second is a fault until
/// Stop is pressed.
/// </summary>
internal sealed class Controller : DeviceKind
{
    // Position: bit 0 forward commanded, bit 1 reverse commanded, bit 2 feedback missing.
    private const int Forward = 1, Reverse = 2, Fault = 4;

    private const double InputOhms = 4_800, FeedbackSeconds = 1;

    public override string Id => "controller";
    public override string Term => "controller";
    public override bool SharesTerminals => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Word("program", "What it does", "direct", "direct", "reversing"),
        ParameterSpec.Number("inputVolts", "Input voltage, direct current", "V", 24, 5, 230),
        ParameterSpec.Word("tripInput", "The overload's contact: nc reads a broken wire as a trip, no does not notice it, none has no input", "nc", "nc", "no", "none"),
        ParameterSpec.Word("feedback", "Whether the contactors' auxiliary contacts are watched", "yes", "yes", "no"),
    ];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["stop", "forward", "reverse", "both", "fault", "fault, forward", "fault, reverse", "fault, both"];
    public override ImmutableArray<string> Appearances => ["stop", "run", "run reverse", "fault"];

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        (state.Position & Fault) != 0 ? "fault" : (state.Position & Reverse) != 0 ? "run reverse" : (state.Position & Forward) != 0 ? "run" : "stop";

    public override ImmutableArray<Element> Elements(Device device)
    {
        var reversing = device.Word("program") == "reversing";
        var inputs = 2 + (reversing ? 1 : 0) + (device.Word("tripInput") == "none" ? 0 : 1) + (device.Word("feedback") == "yes" ? reversing ? 2 : 1 : 0);
        return
        [
            .. Enumerable.Range(0, inputs).Select(i => new Element($"I{i}", "IM", ElementRole.Load)),
            new("QL", "Q0", ElementRole.NormallyOpen),
            .. reversing ? [new Element("QL", "Q1", ElementRole.NormallyOpen)] : Array.Empty<Element>(),
        ];
    }

    public override bool IsMade(Device device, Element element, DeviceState state) =>
        (state.Position & Fault) == 0 && (state.Position & (element.B == "Q0" ? Forward : Reverse)) != 0;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ohms ? 0 : 1 / InputOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var reversing = device.Word("program") == "reversing";
        bool Input(int i) => meter.DcAmps(i) * InputOhms > 0.6 * device.Number("inputVolts");
        var trip = reversing ? 3 : 2;
        var tripped = device.Word("tripInput") switch { "nc" => !Input(trip), "no" => Input(trip), _ => false };
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
        if (device.Word("feedback") != "yes" || state.Position is not (Forward or Reverse))
        {
            return null;
        }

        var reversing = device.Word("program") == "reversing";
        var first = (reversing ? 3 : 2) + (device.Word("tripInput") == "none" ? 0 : 1);
        var feedback = first + (state.Position == Reverse ? 1 : 0);
        return meter.DcAmps(feedback) * InputOhms > 0.6 * device.Number("inputVolts") ? null : new TimedTransition(FeedbackSeconds, state with { Position = Fault });
    }

    public override ImmutableArray<Look> Looks(Device device) => [new("indicator", $"State shown by {device.Tag}", "stop", "run", "run reverse", "fault")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (state.Position & Fault) != 0 ? "fault" : (state.Position & Reverse) != 0 ? "run reverse" : (state.Position & Forward) != 0 ? "run" : "stop";

    public override IEnumerable<FaultMode> FaultModes(Device device) => Elements(device).SelectMany(e => e.Role == ElementRole.Load
        ? [Common.Open(device, e, $"Input {e.A} of {device.Tag} is dead", 0.3, $"Check its indicator; replace the input module of {device.Tag}.")]
        : ContactFaults.Of(device, e, $"Output {e.B} of {device.Tag}", $"Replace the output module of {device.Tag}.", 0.5));
}
