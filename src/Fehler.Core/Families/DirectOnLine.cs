using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>What a direct-on-line starter switches.</summary>
public enum Driven
{
    [Word("motor")]
    Motor,

    [Word("heater bank")]
    HeaterBank,
}

/// <summary>
/// The direct-on-line starter: three-wire (Stop in series, Start with the retaining contact in parallel), two-wire by a switch of
/// the process, or held to run. A control relay may stand between buttons and contactor.
/// </summary>
[Family("dol", "Direct on line", "One contactor switches the motor straight to the supply.")]
public sealed record DirectOnLine : Starter
{
    [Option("Starting", "Start and stop")]
    public StartMode Mode { get; init; }

    [Option("Starting", "Stop stands")]
    public StopPlace StopPlace { get; init; }

    [Option("Starting", "A switch of the process ends the run")]
    public bool EndSwitch { get; init; }

    [Option(
        "Starting",
        "Control relay between buttons and contactor",
        Help = "Long button cables and a DC control supply then carry only a relay's coil."
    )]
    public bool ControlRelay { get; init; }

    [Option("Motor", "Drives")]
    public Driven Driven { get; init; }

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (ControlRelay && IsDirect && System is not (SupplySystem.Star or SupplySystem.HighLeg))
        {
            throw new CircuitException(
                "options",
                "The contactor behind the control relay is fed line to neutral; this supply has no neutral."
            );
        }
    }

    /// <summary>The device that the buttons work: the contactor, or the relay before it.</summary>
    private string Switched => ControlRelay ? "KA1" : "KM1";

    private protected override IEnumerable<Device?> OwnDevices()
    {
        // Behind a control relay on direct current the contactor has an alternating-current coil of its own circuit.
        (string, ParameterValue)[] coil = RelaySwitchesMains ? [("coilVolts", Math.Round(LineVolts / Math.Sqrt(3) / 10) * 10)] : Coil;
        yield return Device(
            "KM1",
            "contactor",
            "panel",
            "Motor contactor",
            [
                .. coil,
                ("ratedAmps", Math.Max(9, Math.Ceiling(FullLoadAmps * 1.2))),
                (
                    "contacts",
                    Contacts(
                        Mode == StartMode.ThreeWire && !ControlRelay ? "13-14" : null,
                        RunLamp ? "53-54" : null,
                        StopLamp ? "61-62" : null
                    )
                ),
            ]
        );
        yield return ControlRelay
            ? Device(
                "KA1",
                "control-relay",
                "panel",
                "Control relay",
                [
                    .. Coil,
                    ("coilPullInVa", IsDirect ? 1.5 : 20),
                    ("contacts", Contacts(Mode == StartMode.ThreeWire ? "13-14" : null, "23-24")),
                ]
            )
            : null;
        yield return HasOverloadRelay ? Overload() : null;
        yield return Mode == StartMode.ThreeWire ? Device("S1", "push-button", "station", "Stop", ("contacts", Contacts("21-22"))) : null;
        yield return Mode == StartMode.TwoWire
            ? Device("B1", "process-switch", "station", "Process switch", ("senses", "float"))
            : Device("S2", "push-button", "station", "Start");
        yield return EndSwitch
            ? Device("B2", "process-switch", "station", "End of run", ("senses", "limit"), ("contacts", Contacts("21-22")))
            : null;
        yield return RunLamp ? Lamp("H1", "Running", "green") : null;
        yield return StopLamp ? Lamp("H4", "Stopped", "red") : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Driven == Driven.Motor
            ? Motor()
            : Device("E1", "heater-bank", "motor", Title, ("kilowatts", MotorKilowatts), ("volts", LineVolts));
    }

    private bool RelaySwitchesMains => ControlRelay && IsDirect;

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(
                PowerHead,
                ThreePoles("KM1"),
                If(HasOverloadRelay, ThreePoles("F2")),
                If(LocalIsolator, ThreePoles("Q3")),
                Driven == Driven.Motor ? "M1:U,V,W" : "E1:U,V,W"
            )
        );
        yield return EarthPath(Driven == Driven.Motor ? "M1" : "E1");
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var start = Mode switch
        {
            StartMode.ThreeWire => Started(StopPlace, "S1:21-22", Parallel("S2:13-14", $"{Switched}:13-14")),
            StartMode.TwoWire => Series("B1:13-14"),
            _ => Series("S2:13-14"),
        };
        var command = Series(
            SafetyContacts,
            If(EndSwitch, "B2:21-22"),
            start,
            OverloadAt(OverloadContactPlace.BeforeCoil),
            $"{Switched}:A1-A2",
            OverloadAt(OverloadContactPlace.AfterCoil)
        );
        var lamps = new[] { If(RunLamp, Series("KM1:53-54", "H1:X1-X2")), If(StopLamp, Series("KM1:61-62", "H4:X1-X2")) };
        var coil = If(ControlRelay && !RelaySwitchesMains, Series("KA1:23-24", "KM1:A1-A2"));
        yield return Wiring.Control("Control", ControlFrom, [Return], Series(ControlHead, Parallel(command, coil, lamps, CommonRungs)));
        if (RelaySwitchesMains)
        {
            yield return Wiring.Control("Contactor", [$"{Protector}:2"], ["INC:N"], Series("KA1:23-24", "KM1:A1-A2"));
        }
    }
}
