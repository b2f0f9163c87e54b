using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>What feeds the brake.</summary>
public enum BrakeFeed
{
    [Word("no brake")]
    None,

    [Word("from the motor's load side, over a rectifier")]
    LoadSide,

    [Word("own contactor, over a rectifier")]
    OwnContactor,
}

/// <summary>
/// Up and down, held to run: end limits, safety edge, brake, and a control-on relay with its own on, off and emergency buttons;
/// several motions may hang on one control-on relay.
/// </summary>
[Family("up-down", "Up and down", "Hold-to-run motions with limits and a brake under one control-on relay.")]
public sealed record UpDown : Starter
{
    [Option("Starting", "Motions", Minimum = 1, Maximum = 3)]
    public int Motions { get; init; } = 1;

    [Option("Starting", "Control-on relay")]
    public bool ControlOn { get; init; } = true;

    [Option("Limits", "Upper limit")]
    public bool UpperLimit { get; init; } = true;

    [Option("Limits", "Lower limit")]
    public bool LowerLimit { get; init; } = true;

    [Option("Limits", "Safety edge")]
    public bool SafetyEdge { get; init; }

    [Option("Brake", "Brake")]
    public BrakeFeed Brake { get; init; } = BrakeFeed.LoadSide;

    [Option("Reversing", "Exchanged phases")]
    public SwappedPhases Swapped { get; init; }

    [Option("Reversing", "Electrical interlock")]
    public bool ElectricalInterlock { get; init; } = true;

    [Option("Reversing", "Button interlock")]
    public bool ButtonInterlock { get; init; } = true;

    [Option("Reversing", "Mechanical interlock")]
    public bool MechanicalInterlock { get; init; } = true;

    private protected override double FeedAmps => FullLoadAmps * Motions;

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (Motions is < 1 or > 3)
        {
            throw new CircuitException("options", "Give one to three motions.");
        }

        if (Motions > 1 && Protection == MotorProtection.MotorBreaker)
        {
            throw new CircuitException("options", "Several motions need an overload relay each: choose fuses or a circuit-breaker.");
        }

        if (Brake == BrakeFeed.OwnContactor && IsDirect)
        {
            throw new CircuitException("options", "With a DC control supply feed the brake from the load side.");
        }
    }

    private protected override IEnumerable<Location> Locations()
    {
        yield return base.Locations().First();
        yield return base.Locations().Skip(1).First();
        for (var m = 1; m <= Motions; m++)
        {
            yield return new Location(Place(m), Motions == 1 ? "Motor" : $"Motor {m}", LocationType.Motor, MotorMetres);
        }
    }

    private static string Place(int motion) => motion == 1 ? "motor" : $"motor{motion}";

    private static string Up(int motion) => $"KM{2 * motion - 1}";

    private static string Down(int motion) => $"KM{2 * motion}";

    private static string BrakeContactor(int motion) => $"KM1{motion}";

    /// <summary>The first motion's overload has the usual tag, so that its contact may stand in any of the three places.</summary>
    private static string OverloadOf(int motion) => motion == 1 ? "F2" : $"F2{motion}";

    private protected override IEnumerable<Device?> OwnDevices()
    {
        if (ControlOn)
        {
            yield return Device(
                "KA1",
                "control-relay",
                "panel",
                "Control on",
                [.. Coil, ("coilPullInVa", IsDirect ? 1.5 : 40), ("contacts", Contacts("13-14", "23-24"))]
            );
            yield return Device("S1", "push-button", "station", "Control off", ("contacts", Contacts("21-22")));
            yield return Device("S2", "push-button", "station", "Control on");
        }

        for (var m = 1; m <= Motions; m++)
        {
            var suffix = Motions == 1 ? "" : $" {m}";
            yield return Directional(Up(m), $"Up contactor{suffix}", Down(m));
            yield return Directional(Down(m), $"Down contactor{suffix}", Up(m));
            yield return HasOverloadRelay ? Overload(OverloadOf(m)) : null;
            yield return Device(
                $"S{m}3",
                "push-button",
                "station",
                $"Up{suffix}",
                ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null))
            );
            yield return Device(
                $"S{m}4",
                "push-button",
                "station",
                $"Down{suffix}",
                ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null))
            );
            yield return UpperLimit
                ? Device($"B{m}1", "process-switch", Place(m), $"Upper limit{suffix}", ("senses", "limit"), ("contacts", Contacts("21-22")))
                : null;
            yield return LowerLimit
                ? Device($"B{m}2", "process-switch", Place(m), $"Lower limit{suffix}", ("senses", "limit"), ("contacts", Contacts("21-22")))
                : null;
            yield return SafetyEdge
                ? Device($"B{m}3", "process-switch", Place(m), $"Safety edge{suffix}", ("senses", "edge"), ("contacts", Contacts("21-22")))
                : null;
            if (Brake != BrakeFeed.None)
            {
                yield return Device($"V{m}", "rectifier", Place(m), $"Brake rectifier{suffix}", ("inputVolts", LineVolts));
                yield return Device(
                    $"Y{m}",
                    "brake",
                    Place(m),
                    $"Brake{suffix}",
                    ("coil", "dc"),
                    ("coilVolts", Math.Round(LineVolts * 0.45)),
                    ("coilPullInVa", 60)
                );
            }

            yield return Brake == BrakeFeed.OwnContactor ? Contactor(BrakeContactor(m), $"Brake contactor{suffix}") : null;
            yield return Motor(
                $"M{m}",
                Place(m),
                Motions == 1 ? null : $"{Title}, motion {m}",
                Brake == BrakeFeed.None ? [] : [("brake", $"Y{m}")]
            );
        }
    }

    private Device Directional(string tag, string function, string other)
    {
        var contactor = Contactor(tag, function, ElectricalInterlock ? "21-22" : null, Brake == BrakeFeed.OwnContactor ? "53-54" : null);
        return MechanicalInterlock ? contactor.With("interlockedWith", other) : contactor;
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        for (var m = 1; m <= Motions; m++)
        {
            var motion = Series(
                Parallel(ThreePoles(Up(m)), Reversing.Exchanging(Swapped, SwapSide.Load, Down(m))),
                If(HasOverloadRelay, ThreePoles(OverloadOf(m))),
                $"M{m}:U,V,W"
            );
            yield return m == 1 ? Power("Motion", Incoming, [], Series(PowerHead, motion)) : Power($"Motion {m}", Protected, [], motion);
            yield return EarthPath($"M{m}");
            if (Brake == BrakeFeed.LoadSide)
            {
                yield return Power($"Brake {m}", [$"M{m}:U", $"M{m}:V"], [], Series($"V{m}:1,2"));
            }
            else if (Brake == BrakeFeed.OwnContactor)
            {
                yield return Power($"Brake {m}", [Protected[0], Protected[1]], [], Series($"{BrakeContactor(m)}:1-2,3-4", $"V{m}:1,2"));
            }
        }
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var on = ControlOn ? Series("S1:21-22", Parallel("S2:13-14", "KA1:13-14"), "KA1:A1-A2") : null;
        var motions = Enumerable.Range(1, Motions).Select(Motion).ToList();
        var run = Series(If(ControlOn, "KA1:23-24"), Parallel(motions));
        yield return Wiring.Control(
            "Control",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                Parallel(
                    Series(SafetyContacts, Parallel(on, run)),
                    If(
                        Brake == BrakeFeed.OwnContactor,
                        Enumerable
                            .Range(1, Motions)
                            .Select(m => Series(Parallel($"{Up(m)}:53-54", $"{Down(m)}:53-54"), $"{BrakeContactor(m)}:A1-A2"))
                    ),
                    CommonRungs
                )
            )
        );
        for (var m = 1; m <= Motions && Brake != BrakeFeed.None; m++)
        {
            yield return Wiring.Control($"Brake coil {m}", [$"V{m}:L+"], [$"V{m}:M"], Series($"Y{m}:B1-B2"));
        }
    }

    private PathExpression? Motion(int m)
    {
        // Only the first motion's overload contact has a choice of place; the others stand before their coils.
        var before = m == 1 ? OverloadAt(OverloadContactPlace.BeforeCoil) : $"{OverloadOf(m)}:95-96";
        var after = m == 1 ? OverloadAt(OverloadContactPlace.AfterCoil) : null;
        return Series(
            If(SafetyEdge, $"B{m}3:21-22"),
            before,
            Parallel(
                Direction(m, $"S{m}3", $"S{m}4", UpperLimit ? $"B{m}1:21-22" : null, Up(m), Down(m)),
                Direction(m, $"S{m}4", $"S{m}3", LowerLimit ? $"B{m}2:21-22" : null, Down(m), Up(m))
            ),
            after
        );
    }

    private PathExpression? Direction(int m, string button, string otherButton, string? limit, string contactor, string other) =>
        Series(
            $"{button}:13-14",
            If(ButtonInterlock, $"{otherButton}:21-22"),
            limit,
            If(ElectricalInterlock, $"{other}:21-22"),
            $"{contactor}:A1-A2"
        );
}
