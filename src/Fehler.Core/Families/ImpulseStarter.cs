using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>
/// One-button stations on an impulse relay: each press starts or stops. The relay remembers with the power off, so the motor starts
/// by itself when the supply comes back.
/// </summary>
[Family(
    "impulse",
    "One-button stations, impulse relay",
    "Each press toggles; any number of buttons in parallel; it remembers through a power cut."
)]
public sealed record ImpulseStarter : Starter
{
    [Option("Starting", "Buttons", Minimum = 1, Maximum = 12)]
    public int Buttons { get; init; } = 2;

    [Option("Starting", "Selector that switches the control off")]
    public bool Selector { get; init; }

    [Option(
        "Control",
        "Overload contact in the common return of impulse relay and contactor",
        Help = "A trip then blocks the buttons too: the relay keeps what it remembers, and Reset starts the motor if that was on."
    )]
    public bool CommonReturn { get; init; }

    private protected override FieldWiring FieldWiring => FieldWiring.Chained;

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (Buttons is < 1 or > 12)
        {
            throw new CircuitException("options", "Give one to twelve buttons.");
        }

        if (CommonReturn && OverloadContact != OverloadContactPlace.AfterCoil)
        {
            throw new CircuitException("options", "In the common return the overload contact stands after the coil: choose that place.");
        }
    }

    private protected override IEnumerable<Location> Locations()
    {
        yield return base.Locations().First();
        for (var n = 1; n <= Buttons; n++)
        {
            yield return new Location(
                n == 1 ? "station" : $"station{n}",
                $"{StationName} {n}",
                LocationType.FieldStation,
                StationMetres + (n - 1) * 15
            );
        }

        yield return base.Locations().Last();
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Device("K1", "impulse-relay", "panel", "Impulse relay", [.. Coil, ("coilPullInVa", IsDirect ? 6 : 19)]);
        yield return Contactor("KM1", "Motor contactor", RunLamp ? "53-54" : null, StopLamp ? "61-62" : null);
        yield return HasOverloadRelay ? Overload() : null;
        for (var n = 1; n <= Buttons; n++)
        {
            yield return Device($"S{n}", "push-button", n == 1 ? "station" : $"station{n}", $"Start and stop {n}");
        }

        yield return Selector ? Device("SA1", "selector-switch", "panel", "Control off or on", ("foundIn", 1)) : null;
        yield return RunLamp ? Lamp("H1", "Running", "green") : null;
        yield return StopLamp ? Lamp("H4", "Stopped", "red") : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Motor();
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(PowerHead, ThreePoles("KM1"), If(HasOverloadRelay, ThreePoles("F2")), If(LocalIsolator, ThreePoles("Q3")), "M1:U,V,W")
        );
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var press = Series(Parallel(Enumerable.Range(1, Buttons).Select(n => $"S{n}:13-14")), "K1:A1-A2");
        var run = Series(
            SafetyContacts,
            "K1:13-14",
            OverloadAt(OverloadContactPlace.BeforeCoil),
            "KM1:A1-A2",
            If(!CommonReturn, OverloadAt(OverloadContactPlace.AfterCoil))
        );
        yield return Wiring.Control(
            "Control",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                If(Selector, "SA1:13-14"),
                Parallel(
                    CommonReturn ? [Series(Parallel(press, run), OverloadPart)] : new object?[] { press, run },
                    If(RunLamp, Series("KM1:53-54", "H1:X1-X2")),
                    If(StopLamp, Series("KM1:61-62", "H4:X1-X2")),
                    CommonRungs
                )
            )
        );
    }
}
