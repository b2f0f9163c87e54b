using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A three-phase cage induction motor with three leads, or with six for star-delta starting. Its windings are coupled through the rotor: positive- and
/// negative-sequence impedance differ once it turns, which is why a running motor feeds a lost phase back. Speed
/// follows from the torque balance, the negative sequence included.
/// </summary>
internal sealed class Motor : DeviceKind
{
    private static readonly Complex A = Complex.FromPolarCoordinates(1, 2 * Math.PI / 3);

    private static readonly Complex[] Rotations = [Complex.One, A, A * A];

    /// <summary>Below this share of synchronous speed it is standing, as a person sees it.</summary>
    private const double Standing = 0.02;

    private const int Coasting = 1;

    /// <summary>A spring-applied brake holds about twice to three times the rated torque (common practice).</summary>
    private const double BrakeTorque = 2.6;

    private const double LeadOhms = 0.005;

    public override string Id => "motor";
    public override string Term => "motor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("kilowatts", "Rated power", "kW", 4, 0.02, 1000),
        ParameterSpec.Number("volts", "Voltage phase to phase of the connection fitted", "V", 400, 100, 1000),
        ParameterSpec.Number("amps", "Nameplate current at that voltage", "A", 8.1, 0.05, 2000),
        ParameterSpec.Number("cosPhi", "Nameplate power factor", "", 0.82, 0.4, 0.99),
        ParameterSpec.Number("rpm", "Nameplate speed", "1/min", 1440, 100, 3600),
        ParameterSpec.Number("synchronousRpm", "Synchronous speed", "1/min", 1500, 125, 3600),
        ParameterSpec.Number("startingMultiple", "Starting current over nameplate current", "", 6, 3, 10),
        ParameterSpec.Number("load", "Load torque over rated torque", "", 0.7, 0, 3),
        ParameterSpec.Number("statorOhms", "Stator resistance per phase of an equivalent star; 0: from the nameplate", "ohm", 0, 0, 10000),
        ParameterSpec.Number("rotorOhms", "Rotor resistance, referred to the stator; 0: from the nameplate", "ohm", 0, 0, 10000),
        ParameterSpec.Number("rotorLockedOhms", "Rotor resistance at standstill, referred; 0: as running, or from the nameplate", "ohm", 0, 0, 10000),
        ParameterSpec.Number("statorReactance", "Stator leakage reactance; 0: from the nameplate", "ohm", 0, 0, 10000),
        ParameterSpec.Number("rotorReactance", "Rotor leakage reactance, referred; 0: from the nameplate", "ohm", 0, 0, 10000),
        ParameterSpec.Number("magnetisingReactance", "Magnetising reactance; 0: from the nameplate", "ohm", 0, 0, 100000),
        ParameterSpec.Word("connection", "How the windings are connected; with six leads the starter connects them", "star", "star", "delta"),
        ParameterSpec.Number("leads", "Leads brought out; six for star-delta", "", 3, 3, 6),
        ParameterSpec.Number("coastSeconds", "Time it runs down in", "s", 0, 0, 600),
        ParameterSpec.Word("brake", "Tag of the brake on its shaft; none when empty", ""),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
        [.. Leads(device).Select(lead => new Element(lead, Inner(lead), ElementRole.Link))];

    private static ImmutableArray<string> Leads(Device device) => HasSixLeads(device) ? ["U1", "V1", "W1"] : ["U", "V", "W"];

    private static bool HasSixLeads(Device device) => device.Number("leads") == 6;

    private static string Inner(string lead) => $"~{char.ToLowerInvariant(lead[0])}";

    public override bool IsSlow => true;

    public override bool IsWorking(string appearance) => appearance.StartsWith("runs", StringComparison.Ordinal);

    public override Device Complete(Device device) => device.Number("statorOhms") > 0 ? device : Machine.Fit(device).Describe(device);

    public override ImmutableArray<string> Terminals(Device device) => HasSixLeads(device)
        ? [.. Leads(device), "U2", "V2", "W2", "PE"]
        : [.. Leads(device), "PE"];

    public override ImmutableArray<string> Positions(Device device) => ["rest", "coasting"];

    public override IEnumerable<string> CoupledTo(Device device) => device.Word("brake") is { Length: > 0 } brake ? [brake] : [];

    /// <summary>A motor ends the path: three leads, no way on.</summary>
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<string> Appearances => ["stopped", "runs", "runs rough", "hums, does not start", "runs reverse", "runs in star", "coasts"];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / LeadOhms;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var machine = Machine.Of(device);
        var windings = Windings(device);
        // A phase of an equivalent star is a third of a delta winding.
        var scale = IsDelta(device) ? 1.0 / 3 : 1.0;
        var y = new Complex[3, 3];
        if (domain != Domain.Ac)
        {
            for (var i = 0; i < 3; i++)
            {
                y[i, i] = scale / machine.R1;
            }
        }
        else
        {
            var (y0, y1, y2) = machine.Sequence(1 - state.Speed);
            for (var i = 0; i < 3; i++)
            {
                for (var j = 0; j < 3; j++)
                {
                    // Symmetrical components: Fortescue 1918. V of winding j = V0 + a^-j V1 + a^j V2.
                    y[i, j] = scale / 3 * (y0 + y1 * Rotations[(j - i + 3) % 3] + y2 * Rotations[(i - j + 3) % 3]);
                }
            }
        }

        stamp.Windings(windings, y);
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var machine = Machine.Of(device);
        var braked = CoupledTo(device).Any(b => meter.StateOf(b) is { Position: 0 });
        var load = (braked ? Math.Max(device.Number("load"), BrakeTorque) : device.Number("load")) * machine.RatedTorque;
        double Driving(double speed) => Torque(device, machine, speed == state.Speed ? meter : meter.With(new DeviceState(0, Speed: speed)), speed);

        var (v1, v2) = SequenceVolts(device, meter);
        if (Math.Max(v1, v2) < 0.02 * device.Number("volts"))
        {
            return braked || device.Number("coastSeconds") == 0 || Math.Abs(state.Speed) < Standing
                ? new Transition(default)
                : new Transition(state with { Position = Coasting });
        }

        var now = Math.Abs(state.Speed) <= Standing ? 0 : state.Speed;
        if (now != 0)
        {
            var direction = Math.Sign(now);
            double Surplus(double speed) => direction * Driving(direction * speed) - load;
            if (Math.Abs(Surplus(Math.Abs(now))) < 2e-3 * machine.RatedTorque)
            {
                return new Transition(state with { Position = 0 });
            }

            // Accelerates (or slows) from where it is to the first balance of torque.
            var balance = Balance(Surplus, Math.Abs(now));
            if (balance > Standing)
            {
                return new Transition(new DeviceState(0, Speed: direction * balance));
            }
        }

        // Standing, or brought to a stand by a field the other way: it starts to the side that pulls more than the load holds.
        var starting = Driving(0);
        if (Math.Abs(starting) <= load)
        {
            return new Transition(default);
        }

        var way = Math.Sign(starting);
        return new Transition(new DeviceState(0, Speed: way * Balance(speed => way * Driving(way * speed) - load, 0)));
    }

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position == Coasting ? new TimedTransition(device.Number("coastSeconds"), default) : null;

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        var amps = Enumerable.Range(0, 3).Select(k => Magnitude(meter.Amps(k)) / device.Number("amps")).ToList();
        if (amps.Max() < 0.1)
        {
            return state.Position == Coasting ? "coasts" : "stopped";
        }

        if (Math.Abs(state.Speed) < Standing)
        {
            return amps.Max() < 0.5 ? "stopped" : "hums, does not start";
        }

        return amps.Max() - amps.Min() > 0.6 * amps.Max() ? "runs rough" : state.Speed < 0 ? "runs reverse"
            : HasSixLeads(device) && SequenceVolts(device, meter).Positive < 0.75 * device.Number("volts") ? "runs in star" : "runs";
    }

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("shaft", $"Turn the shaft of {device.Tag} by hand", "turns freely", "heavy", "jammed") { DeadOnly = true, Minutes = 2 }];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        (device.Number("load") / drawn.Number("load")) switch { > 2.5 => "jammed", > 1.3 => "heavy", _ => "turns freely" };

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var machine = Machine.Of(device);
        var leads = Leads(device);
        for (var k = 0; k < leads.Length; k++)
        {
            // With six leads a winding ends at its own second lead, with three at the next winding.
            var (lead, next) = (leads[k], leads[(k + 1) % leads.Length]);
            yield return new FaultMode($"{device.Tag}/winding-{lead}-open", device.Tag, $"Winding {lead} of the motor {device.Tag} is open",
                [new ElementOpen(device.Tag, $"{lead}-{Inner(lead)}")], 0.4, "Replace or rewind the motor; check its terminal box first.")
            {
                ProofPoints = (device.Terminal(lead), device.Terminal(HasSixLeads(device) ? $"{lead[0]}2" : next)),
            };
            foreach (var mode in Common.Bridged($"{device.Tag}/winding-{lead}-earth", device.Tag, $"Winding {lead} of the motor {device.Tag} has an earth fault", device.Terminal(lead), null,
                device.Terminal("PE"), 0.4, "Lift the motor's leads to tell it from the cable; look for water in the terminal box; replace or rewind the motor."))
            {
                yield return mode;
            }

            yield return new FaultMode($"{device.Tag}/winding-{lead}-breakdown", device.Tag, $"Insulation of winding {lead} of the motor {device.Tag} breaks down to earth under voltage",
                [new Bridge(device.Terminal(lead), device.Terminal("PE"), 3) { UnderVoltage = true }], 0.15, "Lift the motor's leads; measure its insulation and the cable's apart; replace or rewind the motor.")
            {
                SizeFactor = 2.5,
                ProofPoints = (device.Terminal(lead), device.Terminal("PE")),
            };
            yield return new FaultMode($"{device.Tag}/winding-{lead}-{next}-short", device.Tag, $"Windings {lead} and {next} of the motor {device.Tag} are shorted",
                [new Bridge(device.Terminal(lead), device.Terminal(next), 0.25 * machine.R1)], 0.25, "Replace or rewind the motor.")
            {
                ProofPoints = (device.Terminal(lead), device.Terminal(next)),
                SizeFactor = 1.5,
            };
        }

        yield return new FaultMode($"{device.Tag}/damp", device.Tag, $"Insulation of the motor {device.Tag} is low: damp or dirty",
            [new Bridge(device.Terminal(leads[0]), device.Terminal("PE"), 150e3)], 0.2, "Dry and clean the motor and its terminal box; measure the insulation again before it is switched on.")
        {
            SizeFactor = 3,
            ProofPoints = (device.Terminal(leads[0]), device.Terminal("PE")),
        };
        yield return new FaultMode($"{device.Tag}/stalled", device.Tag, $"The load of {device.Tag} is jammed or its brake is on",
            [new ParameterIs(device.Tag, "load", 3.0)], 1, "Isolate; turn the shaft by hand; clear the jam, check bearings and brake.")
        {
            ProofLook = (device.Tag, "shaft"),
        };
        yield return new FaultMode($"{device.Tag}/overloaded", device.Tag, $"The motor {device.Tag} is overloaded",
            [new ParameterIs(device.Tag, "load", 1.35)], 0.8, "Reduce the load; check bearings and drive; measure the current in each phase against the nameplate.")
        {
            ProofLook = (device.Tag, "shaft"),
        };
    }

    /// <summary>Torque over the base torque of one watt per rad/s of synchronous speed: air-gap power forward less backward, W.</summary>
    private static double Torque(Device device, Machine machine, IDeviceMeter meter, double speed)
    {
        var (v1, v2) = SequenceVolts(device, meter);
        var phase = IsDelta(device) ? Math.Sqrt(3) : 1;
        return machine.AirGapWatts(v1 / phase, 1 - speed) - machine.AirGapWatts(v2 / phase, 1 + speed);
    }

    private static (double Positive, double Negative) SequenceVolts(Device device, IDeviceMeter meter)
    {
        var w = Windings(device);
        var v = w.Select(x => meter.Volts(x.From, x.To)).ToArray();
        return ((v[0] + A * v[1] + A * A * v[2]).Magnitude / 3, (v[0] + A * A * v[1] + A * v[2]).Magnitude / 3);
    }

    /// <summary>Whether the nameplate's voltage stands over a winding; a star-delta motor's does.</summary>
    private static bool IsDelta(Device device) => HasSixLeads(device) || device.Word("connection") == "delta";

    private static (string From, string To)[] Windings(Device device) => HasSixLeads(device)
        ? [("~u", "U2"), ("~v", "V2"), ("~w", "W2")]
        : device.Word("connection") == "delta"
            ? [("~u", "V"), ("~v", "W"), ("~w", "U")]
            : [("~u", "~star"), ("~v", "~star"), ("~w", "~star")];

    private static double Balance(Func<double, double> surplus, double from)
    {
        var step = surplus(from) > 0 ? 1 : -1;
        double[] marks = [0.25, 0.5, 0.7, 0.8, 0.87, 0.92, 0.95, 0.965, 0.975, 0.985, 0.999];
        var previous = from;
        foreach (var mark in step > 0 ? marks.Where(m => m > from) : marks.Where(m => m < from).Reverse().Append(0))
        {
            if (surplus(mark) * step <= 0)
            {
                return Root(surplus, previous, mark);
            }

            previous = mark;
        }

        return previous;
    }

    /// <summary>Regula falsi, Illinois variant: the torque curve is smooth between the marks.</summary>
    private static double Root(Func<double, double> surplus, double a, double b)
    {
        var (fa, fb) = (surplus(a), surplus(b));
        var kept = 0;
        for (var i = 0; i < 30 && Math.Abs(b - a) > 2e-5 && fb != fa; i++)
        {
            var c = (a * fb - b * fa) / (fb - fa);
            var fc = surplus(c);
            if (Math.Abs(fc) < 1e-6 * (Math.Abs(fa) + Math.Abs(fb)))
            {
                return c;
            }

            if (fc > 0 == fb > 0)
            {
                (b, fb) = (c, fc);
                fa = kept == -1 ? fa / 2 : fa;
                kept = -1;
            }
            else
            {
                (a, fa) = (c, fc);
                fb = kept == 1 ? fb / 2 : fb;
                kept = 1;
            }
        }

        return Math.Abs(fa) < Math.Abs(fb) ? a : b;
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind switch
    {
        "stalled" or "overloaded" => Load(device, fault),
        _ => Winding(device, fault),
    };

    private static RepairNotes Load(Device device, FaultMode fault) => new()
    {
        Steps = [fault.Remedy, "Uncouple it if it stays stiff: that tells the motor's bearings from the machine.", "Clear, grease or replace what is stiff; turn it by hand again."],
        Parts = ["Bearings, belts or chain, by what is found"],
        Causes =
        [
            new RootCause("Material jammed, belt too tight, bearing gone", "Turn the shaft by hand; listen; feel for heat"),
            new RootCause("The brake does not lift", "Watch it when the motor is switched on"),
            new RootCause("Low or unbalanced voltage: the motor draws more for the same work", "Volts between all three phases under load: within some 2 % of each other"),
            new RootCause("The work has become heavier", "Current in each phase against the nameplate, with and without material"),
        ],
        Cautions = ["A jammed drive may move when it is freed: secure it and stand clear.", $"{device.Tag} is hot after stalling: let it cool before it is tried again."],
    };

    private static RepairNotes Winding(Device device, FaultMode fault) => new()
    {
        Steps =
        [
            "Open the motor's terminal box first: a loose or wet terminal there looks like a bad winding.",
            "Lift the cable off the motor and measure both by themselves: windings to each other, each to earth; then the cable.",
            $"Replace {device.Tag} or have it rewound; mark the leads so that it turns the same way.",
        ],
        Parts = [FormattableString.Invariant($"Motor for {device.Tag}: same power, speed, voltage and mounting"), "Terminal gaskets and glands"],
        Causes =
        [
            new RootCause("It has run on two phases", "Two of three windings dark: fuses, contacts and joints of the third phase"),
            new RootCause("Overload that nothing switched off", "Overload set to the nameplate? Right class? Does its contact open the control circuit?"),
            RepairNotes.Moisture,
            new RootCause("Dust on the fan cover, fan broken", "Look; feel the air"),
        ],
        Cautions = ["Insulation is measured at 500 V DC with electronics disconnected; discharge afterwards."],
    };
}
