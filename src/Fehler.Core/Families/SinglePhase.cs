using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>Which conductor is looped through the spare pole so that all three overload elements carry the current.</summary>
public enum LoopedConductor
{
    [Word("neutral")]
    Neutral,

    [Word("line")]
    Line,

    [Word("none: one element carries nothing")]
    None,
}

/// <summary>Where the capacitor of the auxiliary winding is.</summary>
public enum CapacitorPlace
{
    [Word("inside the motor")]
    Inside,

    [Word("on the motor, in circuit for good")]
    Run,

    [Word("on the motor, to start with; a centrifugal switch takes it out")]
    Start,
}

/// <summary>
/// A single-phase motor on a three-pole starter. The coil returns to the permanent neutral, not to one behind a pole; a relay
/// that is sensitive to a lost phase needs the loop or trips early.
/// </summary>
[Family(
    "single-phase",
    "Single-phase direct on line",
    "A single-phase motor on a three-pole contactor and overload, one conductor looped."
)]
public sealed record SinglePhase : Starter
{
    public SinglePhase()
    {
        MotorKilowatts = 0.75;
        MotorAmps = 5;
    }

    [Option("Starting", "Stop stands")]
    public StopPlace StopPlace { get; init; }

    [Option(
        "Starting",
        "Looped conductor",
        Help = "Practitioners differ. Looped, all three elements are warm, and a relay that watches for a lost phase does not trip early. "
            + "Not looped there are fewer joints; then the relay must not watch for one."
    )]
    public LoopedConductor Looped { get; init; }

    [Option("Motor", "Capacitor")]
    public CapacitorPlace Capacitor { get; init; }

    [Option("Motor", "Capacitance; 0: about what a motor of this power has", Unit = "µF", Maximum = 2000)]
    public double Microfarads { get; init; }

    /// <summary>A two-pole isolator switches line and neutral; the fuse is in the line alone. Behind it the coil's neutral is permanent.</summary>
    private protected override int IsolatorPoles => 2;

    private protected override int FusePoles => 1;

    private protected override string Neutral => "Q1:4";

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (System != SupplySystem.Star || Control != ControlSupply.LineToNeutral || ControlPhases != ControlPhases.L1L2)
        {
            throw new CircuitException(
                "options",
                "This family works from L1 to neutral on a star supply; choose these, or another family."
            );
        }

        if (
            Protection != MotorProtection.Fuses
            || VoltageMonitor
            || LocalIsolator
            || ControlProtection == ControlProtection.SeparateBreaker
        )
        {
            throw new CircuitException(
                "options",
                "This family has fuses with an overload relay, control behind them, and neither monitoring relay nor local isolator."
            );
        }
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Contactor("KM1", "Motor contactor", "13-14", RunLamp ? "53-54" : null, StopLamp ? "61-62" : null);
        yield return Overload();
        yield return Device("S1", "push-button", "station", "Stop", ("contacts", Contacts("21-22")));
        yield return Device("S2", "push-button", "station", "Start");
        yield return RunLamp ? Lamp("H1", "Running", "green") : null;
        yield return StopLamp ? Lamp("H4", "Stopped", "red") : null;
        yield return Device(
            "M1",
            "single-phase-motor",
            "motor",
            Title,
            ("kilowatts", MotorKilowatts),
            ("volts", CoilVolts),
            ("amps", FullLoadAmps),
            ("cosPhi", MotorCosPhi),
            ("load", Load),
            (
                "auxiliary",
                Capacitor switch
                {
                    CapacitorPlace.Run => "run",
                    CapacitorPlace.Start => "start",
                    _ => "inside",
                }
            )
        );
        yield return Capacitor == CapacitorPlace.Inside
            ? null
            : Device("C1", "capacitor", "motor", "Motor capacitor", ("microfarads", UsualMicrofarads), ("frequency", Frequency));
    }

    /// <summary>Some 33 µF a kilowatt in circuit for good, four times that to start with (common practice).</summary>
    private double UsualMicrofarads =>
        Microfarads > 0 ? Microfarads : Math.Round((Capacitor == CapacitorPlace.Start ? 133 : 33) * MotorKilowatts);

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        var motor = Capacitor == CapacitorPlace.Inside ? Series("M1:U1-U2") : Parallel("M1:U1-U2", Series("C1:1-2", "M1:Z1-Z2"));
        object?[] loop = Looped switch
        {
            LoopedConductor.Neutral => ["KM1:1-2", "F2:1-2", motor, "F2:6-5", "KM1:6-5", "F2:4-3", "KM1:4-3"],
            LoopedConductor.Line => ["KM1:1-2", "F2:1-2", "KM1:3-4", "F2:3-4", motor, "F2:6-5", "KM1:6-5"],
            _ => ["KM1:1-2", "F2:1-2", motor, "F2:6-5", "KM1:6-5"],
        };
        yield return Power("Motor", ["INC:L1"], ["INC:N"], Series("Q1:1-2", "F1:1-2", loop, "Q1:4-3"));
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var command = Series(
            SafetyContacts,
            Started(StopPlace, "S1:21-22", Parallel("S2:13-14", "KM1:13-14")),
            OverloadAt(OverloadContactPlace.BeforeCoil),
            "KM1:A1-A2",
            OverloadAt(OverloadContactPlace.AfterCoil)
        );
        yield return Wiring.Control(
            "Control",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                Parallel(command, If(RunLamp, Series("KM1:53-54", "H1:X1-X2")), If(StopLamp, Series("KM1:61-62", "H4:X1-X2")), CommonRungs)
            )
        );
    }
}
