using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>Where the overload relay of a star-delta starter stands.</summary>
public enum StarDeltaOverload
{
    [Word("in the phase leads: set to 0.577 of the nameplate current")]
    PhaseLeads,

    [Word("in the line: set to the nameplate current")]
    Line,
}

/// <summary>
/// Star-delta with open transition: line, star and delta contactor, a timer with a dwell, six motor leads. A third of the current and
/// of the torque in star (circuit theory).
/// </summary>
[Family("star-delta", "Star-delta", "Starts in star with a third of the current, runs in delta; open transition.")]
public sealed record StarDelta : Starter
{
    public StarDelta()
    {
        MotorKilowatts = 15;
        MotorAmps = 29;
        MotorRpm = 1460;
        MotorCosPhi = 0.84;
        Load = 0.25;
    }

    [Option("Starting", "Stop stands")]
    public StopPlace StopPlace { get; init; }

    [Option("Starting", "Time in star", Unit = "s", Minimum = 0.5, Maximum = 120)]
    public double StarSeconds { get; init; } = 6;

    [Option("Starting", "Dwell between star and delta", Unit = "s", Maximum = 5)]
    public double DwellSeconds { get; init; } = 0.05;

    [Option(
        "Starting",
        "Overload relay",
        Help = "In the line it carries the nameplate current and does not protect a winding that stays in star."
    )]
    public StarDeltaOverload Overloads { get; init; }

    [Option("Reversing", "Electrical interlock of star and delta")]
    public bool ElectricalInterlock { get; init; } = true;

    [Option("Reversing", "Mechanical interlock of star and delta")]
    public bool MechanicalInterlock { get; init; }

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (LocalIsolator)
        {
            throw new CircuitException("options", "A local isolator would need six poles here; isolate at the panel.");
        }

        if (Protection == MotorProtection.MotorBreaker)
        {
            throw new CircuitException(
                "options",
                "Choose fuses or a circuit-breaker: the overload relay of a star-delta starter stands by itself."
            );
        }
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Contactor("KM1", "Line contactor", "13-14", RunLamp ? "53-54" : null, StopLamp ? "61-62" : null);
        yield return Locked(Contactor("KM2", "Delta contactor", ElectricalInterlock ? "21-22" : null), "KM3");
        yield return Locked(Contactor("KM3", "Star contactor", ElectricalInterlock ? "21-22" : null), "KM2");
        yield return Device(
            "KT1",
            "timer-relay",
            "panel",
            "Star-delta timer",
            [
                .. Coil,
                ("coilPullInVa", 3),
                ("coilSealedVa", 3),
                ("function", "star-delta"),
                ("seconds", StarSeconds),
                ("dwellSeconds", DwellSeconds),
            ]
        );
        yield return Overload("F2", Overloads == StarDeltaOverload.PhaseLeads ? Math.Round(FullLoadAmps / Math.Sqrt(3), 1) : FullLoadAmps);
        yield return Device("S1", "push-button", "station", "Stop", ("contacts", Contacts("21-22")));
        yield return Device("S2", "push-button", "station", "Start");
        yield return RunLamp ? Lamp("H1", "Running", "green") : null;
        yield return StopLamp ? Lamp("H4", "Stopped", "red") : null;
        yield return Motor(more: [("leads", 6), ("connection", "delta")]);
    }

    private Device Locked(Device contactor, string other) => MechanicalInterlock ? contactor.With("interlockedWith", other) : contactor;

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        var inLine = Overloads == StarDeltaOverload.Line;
        // Winding by winding: U1 stands on L1 and U2, in delta, on L2; in star the three second leads meet behind KM3.
        yield return Power(
            "Motor",
            Incoming,
            ["KM3:2", "KM3:2", "KM3:2"],
            Series(
                PowerHead,
                If(inLine, ThreePoles("F2")),
                ThreePoles("KM1"),
                If(!inLine, ThreePoles("F2")),
                "M1:U1-U2,V1-V2,W1-W2",
                ThreePoles("KM3")
            )
        );
        yield return Power("Delta", inLine ? ["F2:2", "F2:4", "F2:6"] : Protected, ["M1:W2", "M1:U2", "M1:V2"], Series(ThreePoles("KM2")));
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var magnets = Parallel(
            "KM1:A1-A2",
            "KT1:A1-A2",
            Series("KT1:17-18", If(ElectricalInterlock, "KM2:21-22"), "KM3:A1-A2"),
            Series("KT1:17-28", If(ElectricalInterlock, "KM3:21-22"), "KM2:A1-A2")
        );
        var command = Series(
            SafetyContacts,
            Started(StopPlace, "S1:21-22", Parallel("S2:13-14", "KM1:13-14")),
            OverloadAt(OverloadContactPlace.BeforeCoil),
            magnets,
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
