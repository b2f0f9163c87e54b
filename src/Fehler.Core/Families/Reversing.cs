using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>The two phases that the reverse contactor exchanges.</summary>
public enum SwappedPhases
{
    [Word("L1 and L3")]
    L1L3,

    [Word("L1 and L2")]
    L1L2,

    [Word("L2 and L3")]
    L2L3,
}

/// <summary>Which side of the reverse contactor they are exchanged on.</summary>
public enum SwapSide
{
    [Word("load side")]
    Load,

    [Word("line side")]
    Line,
}

/// <summary>
/// Two contactors, forward and reverse, that exchange two phases. Both in at once is a short circuit between phases; electrical,
/// button and mechanical interlocks each prevent it on their own, and some codes demand electrical and mechanical.
/// </summary>
[Family("reversing", "Reversing", "Forward and reverse contactor with interlocks.")]
public sealed record Reversing : Starter
{
    [Option("Starting", "Hold to run: no retaining contacts")]
    public bool HoldToRun { get; init; }

    [Option("Reversing", "Exchanged phases")]
    public SwappedPhases Swapped { get; init; }

    [Option("Reversing", "Exchanged on the")]
    public SwapSide Side { get; init; }

    [Option("Reversing", "Electrical interlock")]
    public bool ElectricalInterlock { get; init; } = true;

    [Option(
        "Reversing",
        "Button interlock: straight through without Stop",
        Help = "Without it the other direction starts only after Stop."
    )]
    public bool ButtonInterlock { get; init; }

    [Option("Reversing", "Mechanical interlock")]
    public bool MechanicalInterlock { get; init; } = true;

    [Option("Reversing", "Run-down lock-out", Unit = "s", Maximum = 600, Help = "Blocks both starts until the load has run down; 0: none.")]
    public double LockOutSeconds { get; init; }

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (LockOutSeconds > 0 && HoldToRun)
        {
            throw new CircuitException(
                "options",
                "A run-down lock-out opens the start branch while the motor runs: it needs a retaining contact, not hold to run."
            );
        }
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Directional("KM1", "Forward contactor", "KM2", "53-54", RunLamp ? "63-64" : null);
        yield return Directional("KM2", "Reverse contactor", "KM1", "53-54", RunLamp ? "63-64" : null);
        yield return LockOutSeconds > 0
            ? Device(
                "KT1",
                "timer-relay",
                "panel",
                "Run-down lock-out",
                [
                    .. Coil,
                    ("coilPullInVa", 3),
                    ("coilSealedVa", 3),
                    ("function", "off-delay"),
                    ("seconds", LockOutSeconds),
                    ("contacts", Contacts("55-56", "65-66")),
                ]
            )
            : null;
        yield return HasOverloadRelay ? Overload() : null;
        yield return HoldToRun ? null : Device("S1", "push-button", "station", "Stop", ("contacts", Contacts("21-22")));
        yield return Device("S2", "push-button", "station", "Forward", ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null)));
        yield return Device("S3", "push-button", "station", "Reverse", ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null)));
        yield return RunLamp ? Lamp("H1", "Running forward", "green") : null;
        yield return RunLamp ? Lamp("H4", "Running in reverse", "blue") : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Motor();
    }

    private Device Directional(string tag, string function, string other, string lockOut, string? lamp)
    {
        var contactor = Contactor(
            tag,
            function,
            HoldToRun ? null : "13-14",
            ElectricalInterlock ? "21-22" : null,
            LockOutSeconds > 0 ? lockOut : null,
            lamp
        );
        return MechanicalInterlock ? contactor.With("interlockedWith", other) : contactor;
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(
                PowerHead,
                Parallel(ThreePoles("KM1"), Exchanging(Swapped, Side, "KM2")),
                If(HasOverloadRelay, ThreePoles("F2")),
                If(LocalIsolator, ThreePoles("Q3")),
                "M1:U,V,W"
            )
        );
        yield return EarthPath();
    }

    /// <summary>The reverse contactor's poles: the conductors enter in order and leave exchanged, or the other way round.</summary>
    internal static string Exchanging(SwappedPhases swapped, SwapSide side, string tag)
    {
        int[] order = swapped switch
        {
            SwappedPhases.L1L3 => [2, 1, 0],
            SwappedPhases.L1L2 => [1, 0, 2],
            _ => [0, 2, 1],
        };
        return $"{tag}:"
            + string.Join(
                ',',
                order.Select((other, k) => side == SwapSide.Load ? $"{2 * k + 1}-{2 * other + 2}" : $"{2 * other + 1}-{2 * k + 2}")
            );
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var rungs = new[] { Direction("S2", "S3", "KM1", "KM2"), Direction("S3", "S2", "KM2", "KM1") };
        yield return Wiring.Control(
            "Control",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                Parallel(
                    Series(
                        SafetyContacts,
                        If(!HoldToRun, "S1:21-22"),
                        If(OverloadContact == OverloadContactPlace.BeforeCoil, OverloadPart),
                        Parallel(rungs),
                        OverloadAt(OverloadContactPlace.AfterCoil)
                    ),
                    If(LockOutSeconds > 0, Series(Parallel("KM1:53-54", "KM2:53-54"), "KT1:A1-A2")),
                    If(RunLamp, Series("KM1:63-64", "H1:X1-X2")),
                    If(RunLamp, Series("KM2:63-64", "H4:X1-X2")),
                    CommonRungs
                )
            )
        );
    }

    private PathExpression? Direction(string start, string otherStart, string contactor, string other)
    {
        var lockOut = If(LockOutSeconds > 0, start == "S2" ? "KT1:55-56" : "KT1:65-66");
        return Series(
            If(ButtonInterlock, $"{otherStart}:21-22"),
            Parallel(Series(lockOut, $"{start}:13-14"), If(!HoldToRun, $"{contactor}:13-14")),
            If(ElectricalInterlock, $"{other}:21-22"),
            $"{contactor}:A1-A2"
        );
    }
}
