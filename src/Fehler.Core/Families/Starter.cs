using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Trade;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>
/// What all starters have in common: supply, isolator, protection, control supply, places, motor. A family adds its own devices
/// and paths.
/// </summary>
public abstract partial record Starter : StarterOptions
{
    /// <exception cref="CircuitException">The options do not go together; says which and why.</exception>
    public Circuit Build()
    {
        CheckOptions();
        return new CircuitBuilder
        {
            Tag = Tag,
            Title = Title,
            Area = Area,
            Enclosure = Enclosure,
            Drawing = Drawing,
            PowerSquareMillimetres = MotorCable.SectionFor(FeedAmps),
            Locations = [.. Locations()],
            Devices =
            [
                .. FeedDevices(),
                .. OwnDevices().Where(d => d is not null).Select(d => d!),
                Device("X1", "terminal-strip", "panel", "Panel terminals"),
            ],
            Paths = [.. PowerPaths(), .. FeedPaths(), .. ControlPaths()],
            Reference = TerminalId.Parse(Return),
            FieldWiring = FieldWiring,
        }.Build();
    }

    private protected virtual FieldWiring FieldWiring => FieldWiring.Usual;

    /// <summary>Devices of the family, its motor included; null for one that an option leaves out.</summary>
    private protected abstract IEnumerable<Device?> OwnDevices();

    private protected abstract IEnumerable<CircuitPath> PowerPaths();

    private protected abstract IEnumerable<CircuitPath> ControlPaths();

    private protected virtual IEnumerable<Location> Locations()
    {
        yield return new Location("panel", Enclosure.Length > 0 ? Enclosure : "Panel", LocationType.Enclosure, 0);
        yield return new Location("station", StationName, LocationType.FieldStation, StationMetres);
        yield return new Location("motor", "Motor", LocationType.Motor, MotorMetres);
    }

    private protected virtual void CheckOptions()
    {
        static void Refuse(bool wrong, string message)
        {
            if (wrong)
            {
                throw new CircuitException("options", message);
            }
        }

        var hasNeutral = System is SupplySystem.Star or SupplySystem.HighLeg;
        Refuse(
            Control == ControlSupply.LineToNeutral && !hasNeutral,
            "A delta supply has no neutral: take the control line to line or from a transformer."
        );
        Refuse(ShuntTrip && Protection != MotorProtection.Breaker, "A shunt release needs a circuit-breaker for the motor circuit.");
        Refuse(MonitorNeutral && !hasNeutral, "A delta supply has no neutral that a relay could watch.");
        Refuse(ShuntTrip && !EmergencyStop, "The shunt release is worked by the emergency stop: switch the emergency stop on.");
        Refuse(Earthing == ControlEarthing.CentreTap && IsDirect, "A DC supply has no centre tap: earth one side or none.");
        Refuse(
            System == SupplySystem.HighLeg && Control == ControlSupply.LineToNeutral && ControlPhases == ControlPhases.L2L3,
            "L2 is the high leg, 1.7 times the others to neutral: take the control from L1 or L3."
        );
    }

    // What follows from the options.

    private protected double FullLoadAmps =>
        MotorAmps > 0
            ? MotorAmps
            : Math.Round(FullLoadCurrent.ThreePhase(MotorKilowatts * 1000, new Volts(LineVolts), UsualEfficiency, MotorCosPhi).Value, 2);

    /// <summary>Of a cage motor whose plate says nothing of it (common practice).</summary>
    private const double UsualEfficiency = 0.85;

    private protected bool IsDirect => Control is ControlSupply.DcSupply or ControlSupply.TransformerAndDcSupply;

    /// <summary>Voltage of the control circuit: as chosen, or what the supply gives.</summary>
    private protected double CoilVolts =>
        Control switch
        {
            ControlSupply.LineToNeutral => Math.Round((System == SupplySystem.HighLeg ? LineVolts / 2 : LineVolts / Math.Sqrt(3)) / 10)
                * 10,
            ControlSupply.LineToLine => LineVolts,
            ControlSupply.Transformer => ControlVolts > 0 ? ControlVolts : 230,
            _ => ControlVolts > 0 ? ControlVolts : 24,
        };

    private protected (string, ParameterValue)[] Coil =>
        IsDirect ? [("coilVolts", CoilVolts), ("coil", "dc"), ("coilPullInVa", 5.0)] : [("coilVolts", CoilVolts)];

    private protected bool HasOverloadRelay => Protection != MotorProtection.MotorBreaker;

    /// <summary>Tag of what protects the motor circuit.</summary>
    private protected string Protector => Protection == MotorProtection.MotorBreaker ? "Q2" : "F1";

    private protected static string ThreePoles(string tag) => $"{tag}:1-2,3-4,5-6";

    /// <summary>Terminals below the protection, where power goes on.</summary>
    private protected string[] Protected => [$"{Protector}:2", $"{Protector}:4", $"{Protector}:6"];

    /// <summary>Isolator and protection, the head of every power path.</summary>
    private protected object?[] PowerHead => [ThreePoles("Q1"), ThreePoles(Protector)];

    private protected static readonly string[] Incoming = ["INC:L1", "INC:L2", "INC:L3"];

    private protected virtual object? OverloadAt(OverloadContactPlace place) => OverloadContact == place ? OverloadPart : null;

    /// <summary>The contact that takes the coil out on a trip.</summary>
    private protected string OverloadPart => HasOverloadRelay ? "F2:95-96" : "Q2:13-14";

    /// <summary>Where the control path begins behind its own protection, and where it returns to.</summary>
    private protected string[] ControlFrom =>
        Control switch
        {
            ControlSupply.Transformer => ["T1:3"],
            ControlSupply.DcSupply or ControlSupply.TransformerAndDcSupply => ["PS1:L+"],
            _ => [FirstTap],
        };

    private protected string Return =>
        Control switch
        {
            ControlSupply.LineToNeutral => Neutral,
            ControlSupply.LineToLine => ControlProtection == ControlProtection.SeparateBreaker ? "F3:4" : SecondTap,
            ControlSupply.Transformer => "T1:4",
            _ => "PS1:M",
        };

    /// <summary>Where the control circuit finds its neutral.</summary>
    private protected virtual string Neutral => "INC:N";

    /// <summary>Poles of the isolator and of the motor fuses.</summary>
    private protected virtual int IsolatorPoles => 3;

    private protected virtual int FusePoles => 3;

    /// <summary>The control path up to where the rungs begin: protection, emergency stop, monitoring relay, permissives.</summary>
    private protected object?[] ControlHead =>
        [
            If(
                ControlProtection != ControlProtection.None && !(ControlProtection == ControlProtection.SeparateBreaker && HasOwnSource),
                "F3:1-2"
            ),
        ];

    /// <summary>What stands before every Stop.</summary>
    private protected object?[] SafetyContacts =>
        [
            OverloadAt(OverloadContactPlace.First),
            If(EmergencyStop, "S0:11-12"),
            If(VoltageMonitor, "KF1:11-14"),
            Permissive switch
            {
                Permissive.One => "B8:13-14",
                Permissive.TwoInSeries => Series("B8:13-14", "B9:13-14"),
                Permissive.TwoInParallel => Parallel("B8:13-14", "B9:13-14"),
                _ => null,
            },
        ];

    /// <summary>Rungs that any family may have: lamps and the shunt release.</summary>
    private protected object?[] CommonRungs =>
        [
            If(TripLamp, Series(HasOverloadRelay ? "F2:97-98" : "Q2:97-98", "H2:X1-X2")),
            If(PowerLamp, "H3:X1-X2"),
            If(ShuntTrip, Series("S0:23-24", "F1:C1-C2")),
        ];

    private protected Device Lamp(string tag, string function, string colour) =>
        Device(
            tag,
            "pilot-lamp",
            "panel",
            function,
            ("volts", CoilVolts),
            ("lamp", FilamentLamps ? "filament" : "led"),
            ("colour", colour)
        );

    private protected Device Contactor(string tag, string function, params string?[] contacts) =>
        Device(
            tag,
            "contactor",
            "panel",
            function,
            [.. Coil, ("ratedAmps", Math.Max(9, Math.Ceiling(FullLoadAmps * 1.2))), ("contacts", Contacts(contacts))]
        );

    private protected Device Motor(
        string tag = "M1",
        string location = "motor",
        string? function = null,
        params (string, ParameterValue)[] more
    ) =>
        Device(
            tag,
            "motor",
            location,
            function ?? Title,
            [
                ("kilowatts", MotorKilowatts),
                ("volts", LineVolts),
                ("amps", FullLoadAmps),
                ("cosPhi", MotorCosPhi),
                ("rpm", MotorRpm),
                ("synchronousRpm", Ratings.SynchronousRpm(MotorRpm, Frequency)),
                ("connection", MotorDelta ? "delta" : "star"),
                ("load", Load),
                ("startSeconds", StartSeconds),
                ("coastSeconds", CoastSeconds),
                .. more,
            ]
        );

    private protected Device Overload(string tag = "F2", double? setting = null) =>
        Device(tag, "overload-relay", "panel", "Motor overload", ("settingAmps", setting ?? FullLoadAmps));

    /// <summary>Start with what retains it, and Stop before or after.</summary>
    private protected static PathExpression? Started(StopPlace place, object? stop, PathExpression? start) =>
        place == StopPlace.BeforeStart ? Series(stop, start) : Series(start, stop);

    private protected static CircuitPath EarthPath(string motor = "M1") =>
        Power("Protective conductor", ["INC:PE"], [], Series($"{motor}:PE"));

    /// <summary>The control supply has windings or electronics of its own, fed over F4.</summary>
    private bool HasOwnSource => HasTransformer || IsDirect;

    private bool HasTransformer => Control is ControlSupply.Transformer or ControlSupply.TransformerAndDcSupply;

    /// <summary>Secondary voltage of a control transformer that only feeds a DC supply.</summary>
    private const double BetweenVolts = 230;

    /// <summary>Where the control circuit is tapped off the power circuit.</summary>
    private protected string FirstTap => ControlTap(ControlPhases);

    private protected string SecondTap => ControlTap((ControlPhases)(((int)ControlPhases + 1) % 3));

    private string ControlTap(ControlPhases first) =>
        $"{(ControlProtection == ControlProtection.SeparateBreaker ? "Q1" : Protector)}:{2 * ((int)first + 1)}";
}
