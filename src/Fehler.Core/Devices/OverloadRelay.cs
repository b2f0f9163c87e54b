using System.Collections.Immutable;
using System.Globalization;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A thermal overload relay. It does not break the motor's current itself: its contact 95-96 has to stand in the
/// control circuit.
/// </summary>
internal sealed class OverloadRelay : DeviceKind
{
    private const int Set = 0, Tripped = 1;

    /// <summary>Current it carries for ever, as a multiple of the setting: between 1.05 (no trip) and 1.2 (trip), IEC 60947-4-1, from memory.</summary>
    private const double Ultimate = 1.12;

    /// <summary>With one phase lost a sensitive relay trips at 1.15 times, an insensitive one at 1.32 times (IEC 60947-4-1, from memory).</summary>
    private const double UltimatePhaseLossSensitive = 1.08, UltimateTwoPoles = 1.25;

    /// <summary>Time a bimetal relay takes to cool so far that it resets by itself (common practice: some minutes).</summary>
    private const double CoolingSeconds = 180;

    private const double HeaterOhms = 0.03;

    public override string Id => "overload-relay";
    public override string Term => "overload relay";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("settingAmps", "Current on the dial", "A", 8, 0.05, 1600),
        ParameterSpec.Number("tripClass", "Trip class", "", 10, 5, 40),
        ParameterSpec.Word("type", "How it senses the current", "bimetal", "bimetal", "melting alloy", "electronic"),
        ParameterSpec.Word("reset", "Reset mode", "hand", "hand", "automatic"),
        ParameterSpec.Word("phaseLossSensitive", "Trips early with a phase lost", "yes", "yes", "no"),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("1", "2", ElementRole.Link), new("3", "4", ElementRole.Link), new("5", "6", ElementRole.Link),
        new("95", "96", ElementRole.NormallyClosed), new("97", "98", ElementRole.NormallyOpen),
    ];

    public override ImmutableArray<string> Positions(Device device) => ["reset", "tripped"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("tripped", "Operate the test trip", false), new("reset", "Press Reset", false, Resets: true)];

    public override ImmutableArray<Look> Looks(Device device) =>
    [
        new("flag", $"Trip flag of {device.Tag}", "not tripped", "tripped") { WipedByReset = true },
        new("dial", FormattableString.Invariant($"Dial of {device.Tag}: set to {device.Number("settingAmps"):0.##} A?"), "as it should be", "lower", "higher"),
    ];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => look.Id == "flag"
        ? state.Position == Tripped ? "tripped" : "not tripped"
        : (device.Number("settingAmps") / drawn.Number("settingAmps")) switch { < 0.9 => "lower", > 1.1 => "higher", _ => "as it should be" };

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / HeaterOhms;

    /// <summary>
    /// One thermal time constant: t = tau ln(m² / (m² - u²)), calibrated to the middle of the class band at 7.2 times
    /// the setting, cold (class 10: 4 to 10 s; IEC 60947-4-1, from memory).
    /// </summary>
    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == Tripped)
        {
            return device.Word("reset") == "automatic" ? new TimedTransition(CoolingSeconds, state with { Position = Set }) : null;
        }

        var currents = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device.Number("settingAmps")).ToList();
        var seconds = TripSeconds(currents.Max(), currents.Min(), device.Number("tripClass"), device.Word("phaseLossSensitive") == "yes");
        return double.IsFinite(seconds) ? new TimedTransition(seconds, state with { Position = Tripped }) : null;
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        var setting = device.Number("settingAmps");
        yield return new FaultMode($"{device.Tag}/tripped", device.Tag, $"Overload {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, Tripped)], 4, "Let it cool, find the cause, then reset.")
        {
            ProofLook = (device.Tag, "flag"),
            AskWhy = "A trip is a consequence: measure the current in each phase against the nameplate, look for a lost phase, a jammed load, a wrong setting, a hot panel.",
        };
        yield return new FaultMode($"{device.Tag}/no-reset", device.Tag, $"Overload {device.Tag} will not reset",
            [new PositionLocked(device.Tag, Tripped)], 0.5, $"Let it cool; check that the reset rod reaches; replace {device.Tag}.")
        {
            ProofLook = (device.Tag, "flag"),
        };
        yield return new FaultMode($"{device.Tag}/set-low", device.Tag, $"Overload {device.Tag} is set too low",
            [new ParameterIs(device.Tag, "settingAmps", setting * 0.45)], 0.5, FormattableString.Invariant($"Set the dial to the motor's nameplate current ({setting:0.##} A)."))
        {
            ProofLook = (device.Tag, "dial"),
        };
        foreach (var heater in elements.Take(3))
        {
            yield return Common.Open(device, heater, $"Heater {heater.Name} of {device.Tag} is open", 0.3, $"Replace the overload relay {device.Tag}; set it to the nameplate current.");
            foreach (var mode in Common.HighResistance(device, heater, $"Terminal of heater {heater.Name} of {device.Tag} is burnt (high resistance)", 0.2, $"Replace the overload relay {device.Tag}.", power: true))
            {
                yield return mode;
            }
        }

        foreach (var contact in elements.Skip(3))
        {
            foreach (var mode in ContactFaults.Of(device, contact, $"Overload contact {contact.Name} of {device.Tag}", $"Replace the overload relay {device.Tag}; set it to the nameplate current.", 0.8))
            {
                yield return mode;
            }
        }
    }

    public override IEnumerable<string> Cautions(Device device) =>
        device.Word("reset") == "automatic"
            ? [$"{device.Tag} resets by itself when it has cooled: a motor without retaining contact then starts."]
            : [$"Resetting {device.Tag} may start the motor and wipes the evidence: look and measure first."];

    /// <summary>Time to trip from cold, seconds; infinite below the ultimate current.</summary>
    /// <param name="highest">Highest pole current over the setting.</param>
    /// <param name="lowest">Lowest pole current over the setting.</param>
    /// <param name="tripClass">Trip class.</param>
    /// <param name="phaseLossSensitive">Whether a lost phase makes it trip earlier.</param>
    internal static double TripSeconds(double highest, double lowest, double tripClass, bool phaseLossSensitive)
    {
        var phaseLost = lowest < 0.3 * highest;
        var ultimate = !phaseLost ? Ultimate : phaseLossSensitive ? UltimatePhaseLossSensitive : UltimateTwoPoles;
        if (highest <= ultimate)
        {
            return double.PositiveInfinity;
        }

        var tau = 0.7 * tripClass / Math.Log(7.2 * 7.2 / (7.2 * 7.2 - Ultimate * Ultimate));
        return tau * Math.Log(highest * highest / (highest * highest - ultimate * ultimate));
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind switch
    {
        "tripped" or "no-reset" => AfterTrip(device, fault.Kind == "no-reset" ? [$"Overload relay {device.Tag}, same type and range"] : []),
        "set-low" => AfterTrip(device, []) with { Steps = [fault.Remedy, "With an overload in the phase leads of a star-delta starter: 0.577 of the nameplate current (IEC). North America: the ceiling is a percentage of the nameplate; never add it twice."] },
        _ => RepairNotes.Of(device, fault) with { Parts = [FormattableString.Invariant($"Overload relay {device.Tag}: same type, range around {device.Number("settingAmps"):0.##} A, class {device.Number("tripClass"):0}")] },
    };

    /// <summary>A trip is a consequence: what it is of decides what is repaired.</summary>
    internal static RepairNotes AfterTrip(Device device, ImmutableArray<string> parts) => new()
    {
        Steps =
        [
            "Write down what the device shows before anything is reset.",
            "Feel the motor; let motor and relay cool.",
            FormattableString.Invariant($"Compare the dial with the nameplate: {device.Number("settingAmps"):0.##} A as described here."),
            "Look for the cause below, then reset, with everybody clear of the machine.",
            "Clamp each phase at the first start: starting current, how long it takes, running current.",
        ],
        Parts = parts,
        Causes =
        [
            new RootCause("The load is jammed, stiff or too heavy", "Turn the shaft by hand; running current in all phases high and alike"),
            new RootCause("A phase is missing: fuse, contact, joint, winding", "One phase carries nothing, the others some 1.7 times; volts across each pole"),
            new RootCause("Low or unbalanced voltage", "Volts between phases under load"),
            new RootCause("Earth fault or shorted turns in the motor or its cable", "One phase carries more than the others; insulation, windings"),
            new RootCause("Set too low, wrong heater or class", "Dial, class and starting time"),
            new RootCause("Hot cabinet, or too many starts", "Temperature; starts an hour"),
        ],
        Cautions = [$"A reset may start the motor. Do not reset again and again: each time heats the motor further."],
        Isolated = false,
    };
}
