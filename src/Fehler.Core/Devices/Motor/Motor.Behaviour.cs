using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class Motor
{
    private static readonly Complex A = Complex.FromPolarCoordinates(1, 2 * Math.PI / 3);

    private static readonly Complex[] Rotations = [Complex.One, A, A * A];

    /// <summary>Below this share of synchronous speed it is standing, as a person sees it.</summary>
    private const double Standing = 0.02;

    private const int Coasting = 1;

    /// <summary>A spring-applied brake holds about twice to three times the rated torque (common practice).</summary>
    private const double BrakeTorque = 2.6;

    private const double LeadOhms = 0.005;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / LeadOhms;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var machine = Machine.Of(device);
        var windings = Windings(device);
        // A phase of an equivalent star is a third of a delta winding.
        var scale = IsDelta(device) ? 1.0 / 3 : 1.0;
        var y = new Complex[9];
        if (domain != Domain.Ac)
        {
            for (var i = 0; i < 3; i++)
            {
                y[4 * i] = scale / device[Plate.WindingOhms];
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
                    y[3 * i + j] = scale / 3 * (y0 + y1 * Rotations[(j - i + 3) % 3] + y2 * Rotations[(i - j + 3) % 3]);
                }
            }
        }

        stamp.Windings(windings, y);
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var machine = Machine.Of(device);
        var braked = CoupledTo(device).Any(b => meter.StateOf(b) is { Position: 0 });
        var load = (braked ? Math.Max(device[Plate.Load], BrakeTorque) : device[Plate.Load]) * machine.RatedTorque;
        double Driving(double speed) =>
            Torque(device, machine, speed == state.Speed ? meter : meter.With(new DeviceState(0, Speed: speed)), speed);

        var (v1, v2) = SequenceVolts(device, meter);
        if (Math.Max(v1, v2) < 0.02 * device[Plate.Volts])
        {
            return braked || device[Plate.CoastSeconds] == 0 || Math.Abs(state.Speed) < Standing
                ? new Transition(default)
                : new Transition(state with { Position = Coasting });
        }

        // What is jammed does not turn, however lightly it was loaded.
        if (device[Plate.Shaft] == "jammed")
        {
            return new Transition(default);
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
        var holding = Math.Max(load, device[Plate.BreakawayLoad] * machine.RatedTorque);
        if (Math.Abs(starting) <= holding)
        {
            return new Transition(default);
        }

        var way = Math.Sign(starting);
        return new Transition(new DeviceState(0, Speed: way * Balance(speed => way * Driving(way * speed) - load, 0)));
    }

    public override Seconds RunUpTime(Device device) => new(device[Plate.StartSeconds]);

    public override TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position == Coasting ? new TimedTransition(new(device[Plate.CoastSeconds]), default) : null;

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        var rated = device[Plate.Amps];
        var (first, second, third) = (Magnitude(meter.Amps(0)) / rated, Magnitude(meter.Amps(1)) / rated, Magnitude(meter.Amps(2)) / rated);
        var (least, most) = (Math.Min(Math.Min(first, second), third), Math.Max(Math.Max(first, second), third));
        if (most < 0.1)
        {
            return state.Position == Coasting ? "coasts" : "stopped";
        }

        if (Math.Abs(state.Speed) < Standing)
        {
            return most < 0.5 ? "stopped" : "hums, does not start";
        }

        return most - least > 0.6 * most ? "runs rough"
            : state.Speed < 0 ? "runs reverse"
            : HasSixLeads(device) && SequenceVolts(device, meter).Positive < 0.75 * device[Plate.Volts] ? "runs in star"
            : "runs";
    }

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        device[Plate.Shaft] == "jammed"
            ? "jammed"
            : (device[Plate.Load] / Math.Max(0.05, drawn[Plate.Load])) switch
            {
                > 2.5 => "jammed",
                > 1.3 => "heavy",
                < 0.2 => "drives nothing",
                _ => "turns freely",
            };

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
        var (u, v, x) = (meter.Volts(w[0].From, w[0].To), meter.Volts(w[1].From, w[1].To), meter.Volts(w[2].From, w[2].To));
        return ((u + A * v + A * A * x).Magnitude / 3, (u + A * A * v + A * x).Magnitude / 3);
    }

    /// <summary>Whether the nameplate's voltage stands over a winding; a star-delta motor's does.</summary>
    private static bool IsDelta(Device device) => HasSixLeads(device) || device[Plate.Connection] == "delta";

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
}
