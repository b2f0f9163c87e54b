using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A single-phase motor with a capacitor-fed auxiliary winding: without it the motor hums and does not start.</summary>
internal sealed class SinglePhaseMotor : DeviceKind
{
    private const int Standing = 0, Running = 1;

    /// <summary>Starting current over nameplate, and its power factor (common practice).</summary>
    private const double StartMultiple = 5, StartCos = 0.6;

    /// <summary>Least share of rated voltage at which it starts, and at which it keeps turning.</summary>
    private const double Starts = 0.6, Keeps = 0.4;

    public override string Id => "single-phase-motor";
    public override string Term => "single-phase motor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("kilowatts", "Rated power", "kW", 0.75, 0.02, 15),
        ParameterSpec.Number("volts", "Rated voltage", "V", 230, 50, 500),
        ParameterSpec.Number("amps", "Nameplate current", "A", 5, 0.1, 100),
        ParameterSpec.Number("cosPhi", "Nameplate power factor", "", 0.85, 0.4, 0.99),
        ParameterSpec.Number("windingOhms", "Main winding at direct current; 0: from the nameplate", "ohm", 0, 0, 1000),
        ParameterSpec.Number("load", "Load torque over rated torque", "", 0.7, 0, 3),
        ParameterSpec.Word("capacitor", "Whether the auxiliary winding's capacitor is sound", "sound", "sound", "open"),
    ];

    public override ImmutableArray<Element> Elements(Device device) => [new("U1", "U2", ElementRole.Load)];
    public override ImmutableArray<string> Terminals(Device device) => ["U1", "U2", "PE"];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["standing", "running"];
    public override ImmutableArray<string> Appearances => ["stopped", "runs", "hums, does not start"];
    public override bool IsSlow => true;
    public override bool IsWorking(string appearance) => appearance == "runs";

    public override Device Complete(Device device) => device.Number("windingOhms") > 0
        ? device
        : device.With("windingOhms", Math.Round(0.5 * device.Number("volts") / (StartMultiple * device.Number("amps")) * StartCos, 2));

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        if (domain != Domain.Ac)
        {
            return 1 / device.Number("windingOhms");
        }

        var rated = device.Number("amps") / device.Number("volts");
        return state.Position == Running
            ? Complex.FromPolarCoordinates(rated * Math.Max(0.5, device.Number("load")), -Math.Acos(device.Number("cosPhi")))
            : Complex.FromPolarCoordinates(rated * StartMultiple, -Math.Acos(StartCos));
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var volts = Magnitude(meter.Volts(0)) / device.Number("volts");
        var able = state.Position == Running ? volts > Keeps : volts > Starts && device.Word("capacitor") == "sound" && device.Number("load") < 2;
        return new Transition(state with { Position = able ? Running : Standing });
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position == Running && Magnitude(meter.Amps(0)) > 0.1 * device.Number("amps") ? "runs"
        : Magnitude(meter.Amps(0)) > 0.5 * device.Number("amps") ? "hums, does not start" : "stopped";

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("shaft", $"Turn the shaft of {device.Tag} by hand", "turns freely", "heavy", "jammed") { DeadOnly = true, Minutes = 2 }];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (device.Number("load") / drawn.Number("load")) switch { > 2.5 => "jammed", > 1.3 => "heavy", _ => "turns freely" };

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var replace = "Replace or rewind the motor; check its terminal box first.";
        yield return Common.Open(device, Elements(device)[0], $"Main winding of {device.Tag} is open", 0.6, replace);
        foreach (var mode in Common.Bridged($"{device.Tag}/winding-earth", device.Tag, $"Winding of {device.Tag} has an earth fault", device.Terminal("U1"), null, device.Terminal("PE"), 0.5, replace))
        {
            yield return mode;
        }

        yield return new FaultMode($"{device.Tag}/capacitor", device.Tag, $"Capacitor of {device.Tag} has failed: it hums and does not start",
            [new ParameterIs(device.Tag, "capacitor", "open")], 1, "Discharge and replace the capacitor, same value and voltage.");
        yield return new FaultMode($"{device.Tag}/stalled", device.Tag, $"The load of {device.Tag} is jammed", [new ParameterIs(device.Tag, "load", 3.0)], 0.8, "Isolate; turn the shaft by hand; clear the jam.")
        {
            ProofLook = (device.Tag, "shaft"),
        };
    }

    public override IEnumerable<string> Cautions(Device device) => [$"The capacitor of {device.Tag} keeps its charge: discharge it before touching its terminals."];

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind == "capacitor"
        ? new RepairNotes
        {
            Steps = ["Discharge it through a resistor; measure its capacitance, or compare with a good one.", fault.Remedy],
            Parts = [$"Capacitor for {device.Tag}: same capacitance, same or higher voltage, same duty (start or run)"],
            Causes = [new RootCause("Age and heat", "Bulged or leaking can"), new RootCause("Too many starts", "Starts an hour")],
        }
        : base.Repair(device, fault);
}
