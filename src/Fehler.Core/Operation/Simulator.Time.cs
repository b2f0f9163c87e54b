using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <content>What passes while somebody waits: delays run, bimetals warm and cool, rotors come to their speed.</content>
public sealed partial class Simulator
{
    /// <summary>Things that happen by themselves in one wait until it is plain that there is no end, and those that are told.</summary>
    private const int MostEvents = 600,
        MostTold = 60;

    /// <summary>Time until something happens by itself (a timer, a trip); null when nothing will.</summary>
    public Seconds? NextEvent(Outcome outcome) => Timed(outcome).Select(t => (Seconds?)new Seconds(Left(outcome, t))).Min();

    private Outcome Wait(CircuitState state, double seconds, bool onlyDelays)
    {
        var outcome = Settle(state);
        var events = outcome.Events;
        var been = new Dictionary<CircuitState, double>();
        var happened = 0;
        for (var left = Math.Min(seconds, StepRules.LongestWait); left > 0; )
        {
            var running = Timed(outcome, onlyDelays);
            var next = running.Count > 0 ? running.MinBy(t => Left(outcome, t)) : default;
            var due = running.Count > 0 ? Left(outcome, next) : double.PositiveInfinity;
            var passed = Passed(outcome, running, Math.Min(due, left));
            left -= due;
            if (left < 0)
            {
                outcome = outcome with { State = passed };
                break;
            }

            if (++happened > MostEvents)
            {
                return outcome with { Events = events.Add("it goes on switching without an end") };
            }

            if (events.Length < MostTold)
            {
                events = events.Add(
                    FormattableString.Invariant(
                        $"{_devices[next.Device].Tag} {PositionName(next.Device, next.Timed.Next)} after {seconds - left:0.#} s"
                    )
                );
            }

            outcome = Settle(
                Constrain(passed.With(next.Device, next.Timed.Next with { Progress = 0, Heat = passed.Devices[next.Device].Heat }))
            );
            events = events.Length < MostTold ? events.AddRange(outcome.Events) : events;
            left = Beyond(been, outcome.State, left);
        }

        return outcome with
        {
            Events = events,
        };
    }

    /// <summary>
    /// Time that is left when a circuit comes back to a state in which it has been: timers that clock each other go round and round, and
    /// whole rounds change nothing but some degrees.
    /// </summary>
    private static double Beyond(Dictionary<CircuitState, double> been, CircuitState state, double left)
    {
        state = state.Cooled;
        if (been.Remove(state, out var before) && before - left is > 0 and var round)
        {
            return left % round;
        }

        been[state] = left;
        return left;
    }

    private static double Left(Outcome outcome, (int Device, TimedTransition Timed) t) =>
        Math.Max(1e-6, t.Timed.After.Value * (1 - (t.Timed.IsLeft ? 0 : outcome.State.Devices[t.Device].Progress)));

    /// <summary>Every delay that runs has come further; what no longer runs begins again from nothing. Bimetals have warmed or cooled.</summary>
    private CircuitState Passed(Outcome outcome, List<(int Device, TimedTransition Timed)> running, double seconds)
    {
        var devices = outcome.State.Devices.ToBuilder();
        for (var i = 0; i < devices.Count; i++)
        {
            devices[i] = devices[i] with { Progress = 0, Heat = Heated(outcome.Solution, i, devices[i], new(seconds)) };
        }

        foreach (var (i, timed) in running)
        {
            if (!timed.IsLeft)
            {
                var progress = Math.Round(outcome.State.Devices[i].Progress + seconds / timed.After.Value, 9);
                devices[i] = devices[i] with { Progress = progress };
            }
        }

        return outcome.State with
        {
            Devices = devices.MoveToImmutable(),
        };
    }

    private double Heated(Solution solution, int device, DeviceState state, Seconds time) =>
        _devices[device].Kind.Heated(_devices[device], state, solution.MeterOf(device), time);

    private List<(int Device, TimedTransition Timed)> Timed(Outcome outcome, bool onlyDelays = false)
    {
        var running = new List<(int Device, TimedTransition Timed)>();
        for (var i = 0; i < _devices.Length; i++)
        {
            if (
                (!onlyDelays || _devices[i].Kind.HasDelays)
                && !IsLocked(i)
                && _devices[i].Kind.Timed(_devices[i], outcome.State.Devices[i], outcome.Solution.MeterOf(i)) is { } timed
            )
            {
                running.Add((i, timed));
            }
        }

        return running;
    }

    /// <summary>
    /// A rotor comes to another speed. While it runs up it draws its starting current, which warms what protects it; what trips in that time
    /// trips before the speed is reached.
    /// </summary>
    private CircuitState RunUp(CircuitState state, Solution solution, ImmutableArray<string>.Builder events, int rotor, DeviceState next)
    {
        var gain = Math.Max(0, Math.Abs(next.Speed) - Math.Abs(state.Devices[rotor].Speed));
        var time = new Seconds(gain * _devices[rotor].Kind.RunUpTime(_devices[rotor]).Value);
        var reached = state.With(rotor, next);
        for (var i = 0; i < _devices.Length && time.Value > 0; i++)
        {
            var (device, before) = (_devices[i], state.Devices[i]);
            var heat = Heated(solution, i, before, time);
            if (heat == before.Heat)
            {
                continue;
            }

            if (
                !IsLocked(i)
                && device.Kind.Timed(device, before, solution.MeterOf(i)) is { IsLeft: true } trip
                && trip.After.Value < time.Value
            )
            {
                events.Add($"{device.Tag} {PositionName(i, trip.Next)} before {_devices[rotor].Tag} has reached its speed");
                return state.With(i, trip.Next with { Heat = Heated(solution, i, before, trip.After) });
            }

            reached = reached.With(i, before with { Heat = heat });
        }

        return reached;
    }
}
