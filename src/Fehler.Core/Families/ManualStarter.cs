using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>
/// A manual motor starter, alone or with a drum reversing switch behind it. Both stay made through a power cut: the motor starts by
/// itself when the supply comes back.
/// </summary>
[Family("manual", "Manual starter", "A motor-protective breaker by hand, with or without a drum reversing switch.")]
public sealed record ManualStarter : Starter
{
    public ManualStarter()
    {
        MotorKilowatts = 1.5;
        MotorAmps = 3.4;
        MotorRpm = 1420;
        MotorCosPhi = 0.79;
        Protection = MotorProtection.MotorBreaker;
        EmergencyStop = RunLamp = TripLamp = false;
        ControlProtection = ControlProtection.None;
    }

    [Option("Reversing", "Drum reversing switch")]
    public bool Drum { get; init; }

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (
            Protection != MotorProtection.MotorBreaker
            || EmergencyStop
            || RunLamp
            || TripLamp
            || PowerLamp
            || StopLamp
            || VoltageMonitor
            || Permissive != Permissive.None
            || Control != ControlSupply.LineToNeutral
        )
        {
            throw new CircuitException(
                "options",
                "A manual starter has no control circuit: no lamps, emergency stop, monitoring relay or permissives; for these "
                    + "choose another family."
            );
        }
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Drum ? Device("S1", "drum-switch", "station", "Forward and reverse", ("ratedAmps", 16)) : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Motor();
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(PowerHead, If(Drum, ThreePoles("S1")), If(LocalIsolator, ThreePoles("Q3")), "M1:U,V,W")
        );
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths() => [];
}
