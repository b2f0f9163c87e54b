using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A motor-protective circuit-breaker (also the manual motor starter): thermal trip on the dial, magnetic trip at about
/// thirteen times it, trip-free, and it breaks the motor's current itself. Off, then on, to reset.
/// </summary>
internal sealed class MotorBreaker : DeviceKind
{
    private const int Off = 0, On = 1, Tripped = 2;

    /// <summary>Magnetic release over the dial's top, common practice about 13.</summary>
    private const double MagneticMultiple = 13;

    private const double PoleOhms = 0.03;

    public override string Id => "motor-breaker";
    public override string Term => "motor-protective breaker";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("settingAmps", "Current on the dial", "A", 8, 0.05, 630),
        ParameterSpec.Number("tripClass", "Trip class", "", 10, 5, 40),
        ParameterSpec.Words("contacts", "Auxiliary contacts that follow the poles; last digits 3-4 close, 1-2 open", "13-14"),
        ParameterSpec.Word("tripContact", "Change-over signal of a trip at 97-98 and 95-96", "no", "yes", "no"),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        .. Enumerable.Range(0, 3).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole)),
        .. device.Words("contacts").Select(w => w.Split('-')).Select(e => new Element(e[0], e[1], e[1][^1] == '2' ? ElementRole.NormallyClosed : ElementRole.NormallyOpen)),
        .. device.Word("tripContact") == "yes" ? [new Element("95", "96", ElementRole.NormallyClosed), new Element("97", "98", ElementRole.NormallyOpen)] : Array.Empty<Element>(),
    ];

    public override bool IsMade(Device device, Element element, DeviceState state) => element.A switch
    {
        "95" => state.Position != Tripped,
        "97" => state.Position == Tripped,
        _ => element.Role == ElementRole.NormallyClosed ? state.Position != On : state.Position == On,
    };

    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "tripped"];
    public override int InitialPosition(Device device) => On;
    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 1);
    public override ImmutableArray<string> Appearances => ["on", "off", "tripped"];
    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => Positions(device)[state.Position];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("off", "Switch off", false), new("on", "Switch on", false), new("tripped", "Operate the test trip", false)];

    public override ImmutableArray<Look> Looks(Device device) =>
    [
        new("toggle", $"Knob of {device.Tag}", "on", "off", "tripped"),
        new("dial", FormattableString.Invariant($"Dial of {device.Tag}: set to {device.Number("settingAmps"):0.##} A?"), "as it should be", "lower", "higher"),
    ];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => look.Id == "toggle"
        ? Positions(device)[state.Position]
        : (device.Number("settingAmps") / drawn.Number("settingAmps")) switch { < 0.9 => "lower", > 1.1 => "higher", _ => "as it should be" };

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var worst = Currents(device, meter).Max();
        return state.Position == On && worst > MagneticMultiple ? new Transition(state with { Position = Tripped }, worst / MagneticMultiple) : new Transition(state);
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        var amps = Currents(device, meter);
        var seconds = OverloadRelay.TripSeconds(amps.Max(), amps.Min(), device.Number("tripClass"), phaseLossSensitive: true);
        return state.Position == On && double.IsFinite(seconds) ? new TimedTransition(seconds, state with { Position = Tripped }) : null;
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var replace = $"Replace {device.Tag}, same type and range; set it to the nameplate current.";
        yield return new FaultMode($"{device.Tag}/tripped", device.Tag, $"Motor-protective breaker {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, Tripped)], 3, "Let it cool, find the cause, then off and on again.")
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy = "A trip is a consequence: a short circuit trips at once, an overload or a lost phase after a while. Measure the current in each phase and the motor's insulation.",
        };
        yield return new FaultMode($"{device.Tag}/left-off", device.Tag, $"Motor-protective breaker {device.Tag} was left off",
            [new FoundInPosition(device.Tag, Off)], 0.6, "Find out who switched it off and why.")
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy = "Someone switched it off: ask who, and why, before switching on.",
        };
        yield return new FaultMode($"{device.Tag}/set-low", device.Tag, $"{device.Tag} is set too low",
            [new ParameterIs(device.Tag, "settingAmps", device.Number("settingAmps") * 0.45)], 0.4, FormattableString.Invariant($"Set the dial to the motor's nameplate current ({device.Number("settingAmps"):0.##} A)."))
        {
            ProofLook = (device.Tag, "dial"),
        };
        foreach (var element in Elements(device))
        {
            if (element.Role == ElementRole.Pole)
            {
                yield return Common.Open(device, element, $"Pole {element.Name} of {device.Tag} does not close", 0.5, replace);
                foreach (var mode in Common.HighResistance(device, element, $"Pole {element.Name} of {device.Tag} is burnt (high resistance)", 0.2, replace, power: true))
                {
                    yield return mode;
                }
            }
            else
            {
                foreach (var mode in ContactFaults.Of(device, element, $"Auxiliary contact {element.Name} of {device.Tag}", $"Replace the auxiliary contact block of {device.Tag}.", 0.7))
                {
                    yield return mode;
                }
            }
        }
    }

    public override IEnumerable<string> Cautions(Device device) =>
        [$"{device.Tag} stays made through a power cut: what it feeds directly starts by itself when the supply comes back."];

    private static List<double> Currents(Device device, IDeviceMeter meter) =>
        [.. Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device.Number("settingAmps"))];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind is "tripped" or "set-low" or "left-off"
        ? OverloadRelay.AfterTrip(device, []) with
        {
            Steps = ["Write down whether it shows a short circuit or an overload.", "After a short circuit: isolate, measure cable and motor to earth and phase to phase before it is closed again.", fault.Remedy],
            Cautions = ["Closing it may start the motor. Never close it a second time on a short circuit."],
        }
        : base.Repair(device, fault);
}
