using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>How a trip is told to the controller.</summary>
public enum TripInput
{
    [Word("break contact: a broken wire reads as a trip")]
    BreakContact,

    [Word("make contact: a broken wire goes unnoticed")]
    MakeContact,
}

/// <summary>How the breaker's position is told to the controller.</summary>
public enum BreakerInput
{
    [Word("not told")]
    None,

    [Word("contact made while it is on: a broken wire reads as tripped")]
    MakeContact,

    [Word("contact made while it is off: a broken wire goes unnoticed")]
    BreakContact,
}

/// <summary>
/// A controller's relay outputs work the coils through the interlocks; buttons, trip and the contactors' auxiliary contacts come back
/// on its 24 V inputs.
/// </summary>
[Family("plc", "Controller-driven", "A programmable controller switches the contactor, direct or reversing.")]
public sealed record PlcDriven : Starter
{
    [Option("Starting", "Reversing")]
    public bool IsReversing { get; init; }

    [Option("Starting", "Trip status to the controller")]
    public TripInput Trip { get; init; }

    [Option("Starting", "Feedback of the contactor")]
    public bool Feedback { get; init; } = true;

    [Option("Starting", "Breaker's auxiliary contact to the controller")]
    public BreakerInput Breaker { get; init; }

    [Option(
        "Starting",
        "An output works the breaker's shunt release",
        Help = "When a contactor stays in although it is let go: the last way to stop the motor."
    )]
    public bool ShuntOutput { get; init; }

    [Option(
        "Starting",
        "Run-down lock-out",
        Unit = "s",
        Maximum = 600,
        Help = "After a run no start is taken until the load has run down; a lamp blinks meanwhile. 0: none."
    )]
    public double LockOutSeconds { get; init; }

    [Option("Starting", "With a make contact to the controller: the break contact stands in the coil circuit")]
    public bool TripInCoilCircuit { get; init; } = true;

    [Option("Control", "Coil suppressor")]
    public bool Suppressor { get; init; } = true;

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (IsDirect || Protection == MotorProtection.MotorBreaker || Permissive != Permissive.None || TripLamp)
        {
            throw new CircuitException(
                "options",
                "The controller has its own 24 V supply and an overload relay on its input: choose an AC control supply, fuses "
                    + "or a breaker, no permissives, no trip lamp."
            );
        }

        if ((Breaker != BreakerInput.None || ShuntOutput) && Protection != MotorProtection.Breaker)
        {
            throw new CircuitException("options", "An auxiliary contact and a shunt release need a circuit-breaker for the motor circuit.");
        }

        if (ShuntOutput && (ShuntTrip || !Feedback))
        {
            throw new CircuitException(
                "options",
                "The shunt release is worked either by the emergency stop or by an output, and the output goes by the feedback: "
                    + "switch the feedback on and the emergency stop's release off."
            );
        }
    }

    /// <summary>A controller that watches the motor's breaker is fed from before it.</summary>
    private bool StaysUp => Breaker != BreakerInput.None || ShuntOutput;

    private static string OnIsolator(string tap) => $"Q1:{tap.Split(':')[1]}";

    private protected override bool HasShuntRelease => base.HasShuntRelease || ShuntOutput;

    private protected override string? BreakerContact =>
        Breaker switch
        {
            BreakerInput.MakeContact => "13-14",
            BreakerInput.BreakContact => "11-12",
            _ => null,
        };

    public PlcDriven()
    {
        TripLamp = false;
    }

    private protected override string[] MoreStopContacts => ["21-22"];

    private IEnumerable<string> Contactors => IsReversing ? ["KM1", "KM2"] : ["KM1"];

    /// <summary>The break contact either tells the controller or stands in the coil circuit; it is one contact.</summary>
    private protected override object? OverloadAt(OverloadContactPlace place) =>
        Trip == TripInput.MakeContact && TripInCoilCircuit ? base.OverloadAt(place) : null;

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return StaysUp
            ? Device("F6", "circuit-breaker", "panel", "Breaker of the 24 V supply", ("poles", 2), ("ratedAmps", 4))
            : null;
        yield return Device("F5", "fuse", "panel", "Fuse of the controller's supply", ("poles", 1), ("ratedAmps", 2));
        yield return Device(
            "PS2",
            "dc-supply",
            "panel",
            "24 V supply",
            ("inputVolts", Control == ControlSupply.LineToNeutral ? CoilVolts : LineVolts),
            ("outputVolts", 24)
        );
        yield return Device(
            "A1",
            "controller",
            "panel",
            "Controller",
            ("program", IsReversing ? "reversing" : "direct"),
            ("tripInput", Trip == TripInput.BreakContact ? "nc" : "no"),
            ("feedback", Feedback ? "yes" : "no"),
            (
                "breakerInput",
                Breaker switch
                {
                    BreakerInput.MakeContact => "no",
                    BreakerInput.BreakContact => "nc",
                    _ => "none",
                }
            ),
            ("shuntOutput", ShuntOutput ? "yes" : "no"),
            ("lockOutSeconds", LockOutSeconds)
        );
        yield return LockOutSeconds > 0 ? Lamp("H5", "Runs down, wait", "yellow").With("light", "flashing") : null;
        foreach (var tag in Contactors)
        {
            var contactor = Contactor(
                tag,
                IsReversing
                    ? tag == "KM1"
                        ? "Forward contactor"
                        : "Reverse contactor"
                    : "Motor contactor",
                Feedback ? "13-14" : null,
                IsReversing ? "21-22" : null,
                RunLamp ? "53-54" : null
            );
            yield return IsReversing ? contactor.With("interlockedWith", tag == "KM1" ? "KM2" : "KM1") : contactor;
            yield return Suppressor ? Device($"R{tag[^1]}", "suppressor", "panel", $"Suppressor of {tag}", ("volts", CoilVolts)) : null;
        }

        yield return Overload();
        yield return Device("S1", "push-button", "station", "Stop", ("contacts", Contacts("21-22")));
        yield return Device("S2", "push-button", "station", IsReversing ? "Forward" : "Start");
        yield return IsReversing ? Device("S3", "push-button", "station", "Reverse") : null;
        yield return RunLamp ? Lamp("H1", IsReversing ? "Running forward" : "Running", "green") : null;
        yield return RunLamp && IsReversing ? Lamp("H4", "Running in reverse", "blue") : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Motor();
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        var poles = IsReversing
            ? Parallel(ThreePoles("KM1"), Reversing.Exchanging(SwappedPhases.L1L3, SwapSide.Load, "KM2"))
            : Series(ThreePoles("KM1"));
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(PowerHead, poles, ThreePoles("F2"), If(LocalIsolator, ThreePoles("Q3")), "M1:U,V,W")
        );
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var outputs = Contactors.Select(
            (tag, k) =>
                Series(
                    $"A1:QL-Q{k}",
                    If(IsReversing, $"{(tag == "KM1" ? "KM2" : "KM1")}:21-22"),
                    Parallel($"{tag}:A1-A2", If(Suppressor, $"R{tag[^1]}:1-2"))
                )
        );
        var further = Contactors.Count();
        var shunt = If(ShuntOutput, Series($"A1:QL-Q{further}", "F1:C1-C2"));
        var lockOut = If(LockOutSeconds > 0, Series($"A1:QL-Q{further + (ShuntOutput ? 1 : 0)}", "H5:X1-X2"));
        var lamps = Contactors.Select((tag, k) => If(RunLamp, Series($"{tag}:53-54", k == 0 ? "H1:X1-X2" : "H4:X1-X2")));
        // The emergency stop takes the coils out whatever the controller does; its second contact takes the command back.
        yield return Wiring.Control(
            "Outputs",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                Parallel(
                    Series(
                        SafetyContacts,
                        OverloadAt(OverloadContactPlace.BeforeCoil),
                        Parallel(outputs, shunt, lockOut),
                        OverloadAt(OverloadContactPlace.AfterCoil)
                    ),
                    lamps,
                    CommonRungs
                )
            )
        );
        yield return Wiring.Control(
            "24 V supply",
            StaysUp
                ? [OnIsolator(FirstTap), Control == ControlSupply.LineToNeutral ? "INC:N" : OnIsolator(SecondTap)]
                : [FirstTap, Control == ControlSupply.LineToNeutral ? "INC:N" : SecondTap],
            [],
            Series(If(StaysUp, "F6:1-2,3-4"), "PS2:L,N")
        );
        var input = 0;
        yield return Wiring.Control(
            "Inputs",
            ["PS2:L+"],
            ["PS2:M"],
            Series(
                "F5:1-2",
                Parallel(
                    Series(If(EmergencyStop, "S0:21-22"), "S1:21-22", $"A1:I{input++}-IM"),
                    Series("S2:13-14", $"A1:I{input++}-IM"),
                    If(IsReversing, Series("S3:13-14", $"A1:I{(IsReversing ? input++ : 0)}-IM")),
                    Series(Trip == TripInput.BreakContact ? "F2:95-96" : "F2:97-98", $"A1:I{input++}-IM"),
                    Contactors.Select(tag => If(Feedback, Series($"{tag}:13-14", $"A1:I{(Feedback ? input++ : 0)}-IM"))).ToArray(),
                    BreakerContact is { } contact ? Series($"F1:{contact}", $"A1:I{input}-IM") : null
                )
            )
        );
    }
}
