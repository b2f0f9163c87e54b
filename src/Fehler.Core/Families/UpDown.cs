using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
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

/// <summary>Whether a direction keeps running by itself.</summary>
public enum Retained
{
    [Word("none: held to run")]
    None,

    [Word("both directions, until the limit or Stop")]
    Both,

    [Word("the first direction only; the second is held")]
    First,
}

/// <summary>
/// Up and down, held to run: end limits, safety edge, brake, and a control-on relay with its own on, off and emergency buttons;
/// several motions may hang on one control-on relay. A door may keep running until its limit, a Stop or its safety edge.
/// </summary>
[Family(
    "up-down",
    "Up and down",
    "Motions with limits, safety edge and brake under one control-on relay, held to run or retained like a door."
)]
public sealed record UpDown : Starter
{
    [Option("Starting", "Motions", Minimum = 1, Maximum = 3)]
    public int Motions { get; init; } = 1;

    [Option("Starting", "Names of the motions, separated by ;", Help = "For a crane: Hoist; Trolley; Bridge.")]
    public string MotionNames { get; init; } = "";

    [Option("Starting", "Directions of the motions, separated by ;", Help = "up/down; left/right; forward/back. Empty: up/down.")]
    public string Directions { get; init; } = "";

    [Option("Starting", "Retained", Help = "A door that closes by itself needs its safety edge; some codes want the closing held.")]
    public Retained Retained { get; init; }

    [Option("Starting", "Control-on relay")]
    public bool ControlOn { get; init; } = true;

    [Option("Limits", "Upper limit")]
    public bool UpperLimit { get; init; } = true;

    [Option("Limits", "Lower limit")]
    public bool LowerLimit { get; init; } = true;

    [Option("Limits", "Safety edge")]
    public bool SafetyEdge { get; init; }

    [Option("Limits", "Motions that have limits, by number; empty: all")]
    public string LimitsOn { get; init; } = "";

    [Option("Brake", "Motions that have a brake, by number; empty: all")]
    public string BrakeOn { get; init; } = "";

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

        Numbers(LimitsOn, "limits");
        Numbers(BrakeOn, "a brake");
        if (Directions.Length > 0 && Parts(Directions).Any(d => d.Split('/') is not [{ Length: > 0 }, { Length: > 0 }]))
        {
            throw new CircuitException("options.directions", "Give the two directions of each motion like up/down; left/right.");
        }

        if (Parts(Directions).Length > Motions || Parts(MotionNames).Length > Motions)
        {
            throw new CircuitException(
                "options",
                $"Names or directions are given for more than {Motions} motion{(Motions == 1 ? "" : "s")}."
            );
        }

        if (Motions > 1 && Protection == MotorProtection.MotorBreaker)
        {
            throw new CircuitException("options", "Several motions need an overload relay each: choose fuses or a circuit-breaker.");
        }

        if (Retained != Retained.None && !(UpperLimit && (LowerLimit || Retained == Retained.First) && LimitsOn.Length == 0))
        {
            throw new CircuitException("options", "A direction that is retained needs a limit that ends it: switch the limits on.");
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
            yield return new Location(
                Place(m),
                NameOf(m) is { Length: > 1 } name ? $"Motor {name}" : $"Motor{Suffix(m)}",
                LocationType.Motor,
                MotorMetres
            );
        }
    }

    private static string[] Parts(string text) => text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    /// <summary>Numbers of motions in a text such as "1, 2"; all where it is empty.</summary>
    private HashSet<int> Numbers(string text, string what)
    {
        var all = Enumerable.Range(1, Motions).ToHashSet();
        if (string.IsNullOrWhiteSpace(text))
        {
            return all;
        }

        var given = text.Split([',', ';', ' '], StringSplitOptions.RemoveEmptyEntries);
        return
            given
                .Select(g => int.TryParse(g, NumberStyles.None, CultureInfo.InvariantCulture, out var n) && all.Contains(n) ? n : 0)
                .ToHashSet()
                is var numbers
            && numbers.Contains(0)
            ? throw new CircuitException("options", $"Name the motions that have {what} by their numbers, 1 to {Motions}, like \"1, 2\".")
            : numbers;
    }

    private bool HasLimits(int motion) => Numbers(LimitsOn, "limits").Contains(motion);

    private bool HasBrake(int motion) => Brake != BrakeFeed.None && Numbers(BrakeOn, "a brake").Contains(motion);

    private bool IsRetained(bool first) => Retained == Retained.Both || (Retained == Retained.First && first);

    private string NameOf(int motion) =>
        Parts(MotionNames) is var names && motion <= names.Length ? names[motion - 1]
        : Motions == 1 ? ""
        : $"{motion}";

    /// <summary>" hoist", " 2", or nothing where there is one motion without a name.</summary>
    private string Suffix(int motion) => NameOf(motion) is { Length: > 0 } name ? $" {char.ToLowerInvariant(name[0])}{name[1..]}" : "";

    private (string First, string Second) DirectionsOf(int motion) =>
        Parts(Directions) is var given && motion <= given.Length && given[motion - 1].Split('/') is [var first, var second]
            ? (Capital(first.Trim()), Capital(second.Trim()))
            : ("Up", "Down");

    private static string Capital(string word) => word.Length == 0 ? word : char.ToUpperInvariant(word[0]) + word[1..];

    private string LimitName(string direction, int motion) =>
        direction switch
        {
            "Up" => $"Upper limit{Suffix(motion)}",
            "Down" => $"Lower limit{Suffix(motion)}",
            _ => $"Limit {direction.ToLowerInvariant()}{Suffix(motion)}",
        };

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
            var suffix = Suffix(m);
            var (first, second) = DirectionsOf(m);
            yield return Directional(m, Up(m), $"{first} contactor{suffix}", Down(m), IsRetained(first: true));
            yield return Directional(m, Down(m), $"{second} contactor{suffix}", Up(m), IsRetained(first: false));
            yield return Retained != Retained.None
                ? Device($"S{m}5", "push-button", "station", $"Stop{suffix}", ("contacts", Contacts("21-22")))
                : null;
            yield return HasOverloadRelay ? Overload(OverloadOf(m)) : null;
            yield return Device(
                $"S{m}3",
                "push-button",
                "station",
                $"{first}{suffix}",
                ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null))
            );
            yield return Device(
                $"S{m}4",
                "push-button",
                "station",
                $"{second}{suffix}",
                ("contacts", Contacts("13-14", ButtonInterlock ? "21-22" : null))
            );
            yield return UpperLimit && HasLimits(m)
                ? Device($"B{m}1", "process-switch", Place(m), LimitName(first, m), ("senses", "limit"), ("contacts", Contacts("21-22")))
                : null;
            yield return LowerLimit && HasLimits(m)
                ? Device($"B{m}2", "process-switch", Place(m), LimitName(second, m), ("senses", "limit"), ("contacts", Contacts("21-22")))
                : null;
            yield return SafetyEdge
                ? Device($"B{m}3", "process-switch", Place(m), $"Safety edge{suffix}", ("senses", "edge"), ("contacts", Contacts("21-22")))
                : null;
            if (HasBrake(m))
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

            yield return Brake == BrakeFeed.OwnContactor && HasBrake(m) ? Contactor(BrakeContactor(m), $"Brake contactor{suffix}") : null;
            yield return Motor(
                $"M{m}",
                Place(m),
                Motions == 1 ? null
                    : NameOf(m) is { Length: > 1 } motion ? $"{Title}, {motion}"
                    : $"{Title}, motion {m}",
                HasBrake(m) ? [("brake", $"Y{m}")] : []
            );
        }
    }

    private Device Directional(int motion, string tag, string function, string other, bool isRetained)
    {
        var contactor = Contactor(
            tag,
            function,
            isRetained ? "13-14" : null,
            ElectricalInterlock ? "21-22" : null,
            Brake == BrakeFeed.OwnContactor && HasBrake(motion) ? "53-54" : null
        );
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
            if (Brake == BrakeFeed.LoadSide && HasBrake(m))
            {
                yield return Power($"Brake {m}", [$"M{m}:U", $"M{m}:V"], [], Series($"V{m}:1,2"));
            }
            else if (Brake == BrakeFeed.OwnContactor && HasBrake(m))
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
                            .Where(HasBrake)
                            .Select(m => Series(Parallel($"{Up(m)}:53-54", $"{Down(m)}:53-54"), $"{BrakeContactor(m)}:A1-A2"))
                    ),
                    CommonRungs
                )
            )
        );
        foreach (var m in Enumerable.Range(1, Motions).Where(HasBrake))
        {
            yield return Wiring.Control($"Brake coil {m}", [$"V{m}:L+"], [$"V{m}:M"], Series($"Y{m}:B1-B2"));
        }
    }

    private PathExpression? Motion(int m)
    {
        // Only the first motion's overload contact has a choice of place; the others stand before their coils.
        var before = m == 1 ? OverloadAt(OverloadContactPlace.BeforeCoil) : $"{OverloadOf(m)}:95-96";
        var after = m == 1 ? OverloadAt(OverloadContactPlace.AfterCoil) : null;
        var edge = $"B{m}3:21-22";
        return Series(
            // Held, whoever holds sees what the edge has met; a door that runs by itself still opens when its edge is pressed.
            If(SafetyEdge && Retained == Retained.None, edge),
            before,
            If(Retained != Retained.None, $"S{m}5:21-22"),
            Parallel(
                Direction(m, first: true, [UpperLimit && HasLimits(m) ? $"B{m}1:21-22" : null]),
                Direction(
                    m,
                    first: false,
                    [LowerLimit && HasLimits(m) ? $"B{m}2:21-22" : null, If(SafetyEdge && Retained != Retained.None, edge)]
                )
            ),
            after
        );
    }

    private PathExpression? Direction(int m, bool first, object?[] ends)
    {
        var (button, otherButton) = first ? ($"S{m}3", $"S{m}4") : ($"S{m}4", $"S{m}3");
        var (contactor, other) = first ? (Up(m), Down(m)) : (Down(m), Up(m));
        return Series(
            Parallel($"{button}:13-14", If(IsRetained(first), $"{contactor}:13-14")),
            If(ButtonInterlock, $"{otherButton}:21-22"),
            ends,
            If(ElectricalInterlock, $"{other}:21-22"),
            $"{contactor}:A1-A2"
        );
    }
}
