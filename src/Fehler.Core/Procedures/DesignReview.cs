using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>How grave a finding is.</summary>
public enum FindingKind
{
    /// <summary>The circuit as described cannot do its work.</summary>
    CannotWork,

    /// <summary>It works, but does something that surprises or endangers people.</summary>
    Caution,

    /// <summary>What it does well, and is good to know.</summary>
    Note,
}

/// <summary>Something that simulation finds out about the healthy circuit.</summary>
/// <param name="Kind">How grave.</param>
/// <param name="Id">Stable name of the rule with what it was found on.</param>
/// <param name="Text">In the words of the trade.</param>
public sealed record DesignFinding(FindingKind Kind, string Id, string Text);

/// <summary>
/// Tries the healthy circuit as drawn, every start, stop, trip and power cut, and says what cannot work and what may surprise:
/// restarts, contactors that can close together, an overload that stops nothing, contacts whose broken wire goes unnoticed.
/// Everything here is found by simulation; a rule says only what to try.
/// </summary>
public sealed partial class DesignReview
{
    private readonly Circuit _circuit;
    private readonly RunUp _runUp;
    private readonly Simulator _simulator;
    private readonly ImmutableArray<DesignFinding>.Builder _findings = ImmutableArray.CreateBuilder<DesignFinding>();

    internal DesignReview(CompiledCircuit compiled)
    {
        _circuit = compiled.Circuit;
        _runUp = compiled.RunUp;
        _simulator = new Simulator(compiled.Network);
        CanStart();
        foreach (var start in _runUp.Starts)
        {
            StaysUp(start);
            Stops(start);
        }

        if (_runUp.Starts.Length > 0 || _runUp.WorksAtRest)
        {
            Restarts();
            ContactorsTogether();
            Trips();
            OverloadInReturn();
            EarthFaults();
            BrakesAgainstLimits();
            Unprotected();
        }

        Findings = [.. _findings.DistinctBy(f => f.Id)];
    }

    public ImmutableArray<DesignFinding> Findings { get; }

    private CircuitState AtRest => _simulator.Start().State;

    private void CanStart()
    {
        var rest = _simulator.Start();
        foreach (var happened in rest.Events)
        {
            CannotWork($"at-rest/{happened}", $"With the supply on and nothing touched, {happened}.");
        }

        if (_runUp.Starts.Length == 0 && !_runUp.WorksAtRest)
        {
            CannotWork("never-works", "No button or switch makes it run.");
            foreach (var (device, volts) in BestCoilVolts())
            {
                var coil = device.Kind.CoilOf(device)!;
                CannotWork(
                    $"coil/{device.Tag}",
                    volts < 1
                        ? $"{device.Tag} can never pull in: its coil gets no voltage in any state that was tried."
                        : string.Create(
                            CultureInfo.InvariantCulture,
                            $"{device.Tag} can never pull in: its coil sees {volts:0} V {(coil.IsDirect ? "DC" : "AC")}, it is "
                                + $"rated {coil.Volts.Value:0} V."
                        )
                );
            }
        }
    }

    /// <summary>Coils that never pull in, with the greatest voltage that any start brings to them.</summary>
    private IEnumerable<(Device Device, double Volts)> BestCoilVolts()
    {
        var best = new Dictionary<Device, double>();
        var pulled = new HashSet<Device>();
        foreach (var steps in Tries())
        {
            var outcome = _simulator.Do(AtRest, steps);
            foreach (
                var (device, coil) in _circuit.Devices.Where(d => d.Kind.CoilOf(d) is not null).Select(d => (d, d.Kind.CoilOf(d)!.Element))
            )
            {
                var index = _simulator.Network.DeviceIndex(device.Tag);
                var (a, b) = (device.Terminal(coil.A), device.Terminal(coil.B));
                // A coil of the wrong sort sees the voltage that is there, not the one that it could use.
                best[device] = Math.Max(
                    best.GetValueOrDefault(device),
                    Math.Max(outcome.Solution.Volts(a, b).Magnitude, outcome.Solution.DcVolts(a, b).Magnitude.Value)
                );
                if (outcome.State.Devices[index].Position != 0)
                {
                    pulled.Add(device);
                }
            }
        }

        return best.Where(b => !pulled.Contains(b.Key)).Select(b => (b.Key, b.Value));
    }

    private IEnumerable<ImmutableArray<Step>> Tries()
    {
        ImmutableArray<Step> all = [];
        foreach (
            var device in _circuit.Devices.Where(d =>
                d.Kind.IsolatingPositions is null && d.Kind.Elements(d).FirstOrDefault()?.Role == ElementRole.NormallyOpen
            )
        )
        {
            var actuation = device
                .Kind.Actuations(device)
                .FirstOrDefault(a => !a.DeadOnly && a.Position != device.Kind.Positions(device)[device.Kind.InitialPosition(device)]);
            if (actuation is not null)
            {
                yield return [new Step(device.Tag, actuation.Position)];
                all = all.Add(new Step(device.Tag, actuation.Position));
            }
        }

        yield return all;
    }

    private void StaysUp(Start start)
    {
        var outcome = _simulator.Do(AtRest, start.Run);
        foreach (var (tag, seen) in outcome.Appearances.Where(a => a.Value is "chatters" or "buzzes"))
        {
            CannotWork($"{seen}/{tag}/{start.Act}", $"With {start.Act}, {tag} {seen}.");
        }

        foreach (var happened in outcome.Events.Where(e => e.Contains("overcurrent", StringComparison.Ordinal)))
        {
            CannotWork($"short/{start.Act}/{happened}", $"With {start.Act}, {happened}.");
        }

        var later = _simulator.Do(outcome.State, Step.Wait(7200));
        if (_runUp.Working(outcome).Count > 0 && _runUp.Working(later).Count == 0)
        {
            CannotWork($"trips/{start.Act}", $"It does not keep running after {start.Act}: {string.Join("; ", later.Events)}.");
        }
    }

    private void Stops(Start start)
    {
        var running = _simulator.Do(AtRest, start.Run);
        if (!start.Holds)
        {
            return;
        }

        foreach (var stop in _runUp.Stops)
        {
            if (_runUp.Working(_simulator.Do(running.State, new Step(stop.Tag, "pressed"))).Count > 0)
            {
                CannotWork($"stop/{stop.Tag}/{start.Act}", $"{Named(stop)} does not stop what {start.Act} started.");
            }
        }
    }

    private void Restarts()
    {
        var start = _runUp.Starts.FirstOrDefault();
        // Switching on an isolator is the supply coming back once more.
        foreach (var device in _circuit.Devices.Where(d => d.Kind.IsolatingPositions is null || d.Kind.IsSupply))
        {
            var rest = device.Kind.Positions(device)[device.Kind.InitialPosition(device)];
            foreach (
                var actuation in device
                    .Kind.Actuations(device)
                    .Where(a =>
                        a is { DeadOnly: false, Returns: false, IsHarsh: false }
                        && a.Position != rest
                        && _runUp.Starts.All(s => s.Act.Device != device.Tag)
                    )
            )
            {
                var running = _simulator.Do(AtRest, start is { Holds: true } ? start.Run : []);
                if (_runUp.Working(running).Count == 0)
                {
                    continue;
                }

                var off = _simulator.Do(running.State, new Step(device.Tag, actuation.Position));
                var back = device.Kind.Actuations(device).FirstOrDefault(a => a.Position == rest);
                if (_runUp.Working(off).Count == 0 && back is not null)
                {
                    var again = _simulator.Do(off.State, [new Step(device.Tag, rest), Step.Wait(_runUp.TimeToSettle(off.State).Value + 5)]);
                    if (_runUp.Working(again).Count > 0)
                    {
                        var what = device.Kind.IsSupply ? "when the supply comes back" : $"after {Lower(back.Verb)} ({Named(device)})";
                        Caution($"restart/{device.Tag}", $"The motor starts by itself {what}.");
                    }
                }
            }
        }

        var automatic = _circuit.Devices.FirstOrDefault(d => d.Kind.ResetsByItself(d));
        if (automatic is not null && start is { Holds: true })
        {
            var tripped = _simulator.Do(AtRest, [.. start.Run, new Step(automatic.Tag, "tripped")]);
            if (_runUp.Working(_simulator.Do(tripped.State, Step.Wait(600))).Count > 0)
            {
                Caution(
                    $"restart-cooled/{automatic.Tag}",
                    $"{automatic.Tag} resets by itself when it has cooled, and the motor starts again."
                );
            }
        }
    }

    /// <summary>Two starts of different outcome: together, and with one contactor stuck in.</summary>
    private void ContactorsTogether()
    {
        foreach (
            var (first, second) in _runUp.Starts.SelectMany(a =>
                _runUp.Starts.Where(b => b.Act != a.Act && !b.Working.SequenceEqual(a.Working)).Select(b => (a, b))
            )
        )
        {
            var both = _simulator.Do(AtRest, [.. first.Run, second.Act]);
            if (Shorts(both))
            {
                Caution(
                    $"both/{first.Act.Device}",
                    $"{second.Act} while {first.Act} has it running closes both contactors: a short circuit between phases "
                        + $"({string.Join("; ", both.Events)})."
                );
            }

            foreach (var contactor in Contactors(first))
            {
                var stuck = new Simulator(_simulator.Network.With([new DoesNotReturn(contactor.Tag)]));
                var running = stuck.Do(stuck.Start().State, first.Run);
                var stopped = stuck.Do(
                    running.State,
                    [
                        .. first.End,
                        .. _runUp.Stops.Take(1).SelectMany(s => new[] { new Step(s.Tag, "pressed"), new Step(s.Tag, "released") }),
                    ]
                );
                if (Shorts(stuck.Do(stopped.State, [.. second.Prepare, second.Act])))
                {
                    Caution(
                        $"stuck/{contactor.Tag}",
                        $"If {contactor.Tag} stays in, {second.Act} makes a short circuit between phases: neither an electrical "
                            + "nor a mechanical interlock prevents it."
                    );
                }
            }
        }
    }

    private IEnumerable<Device> Contactors(Start start)
    {
        var state = _simulator.Do(AtRest, start.Run).State;
        return _circuit.Devices.Where((d, i) => d.Kind.CoilOf(d) is not null && !d.Kind.Poles(d).IsEmpty && state.Devices[i].Position != 0);
    }

    private static bool Shorts(Outcome outcome) => outcome.Events.Any(e => e.Contains("overcurrent", StringComparison.Ordinal));

    /// <summary>A trip has to stop the motor, and a broken wire of its contact has to be noticed.</summary>
    private void Trips()
    {
        foreach (var start in _runUp.Starts.Where(s => s.Holds).Take(2))
        {
            var running = _simulator.Do(AtRest, start.Run);
            foreach (var trip in StepRules.TestTrips(_circuit))
            {
                if (_runUp.Working(_simulator.Do(running.State, trip)).Count > 0)
                {
                    Caution($"trip/{trip.Device}", $"A trip of {trip.Device} does not stop the motor: its contact is not in the circuit.");
                    continue;
                }

                foreach (var conductor in _circuit.Conductors.Where(c => c.From.Device == trip.Device || c.To.Device == trip.Device))
                {
                    var broken = new Simulator(_simulator.Network.With([new ConductorOpen(conductor.Id)]));
                    var runs = broken.Do(broken.Start().State, start.Run);
                    if (
                        _runUp.Working(runs).SequenceEqual(start.Working)
                        && runs.Appearances.SequenceEqual(running.Appearances)
                        && _runUp.Working(broken.Do(runs.State, [trip, Step.Wait(5)])).Count > 0
                    )
                    {
                        Caution(
                            $"unnoticed/{conductor.Id}",
                            $"If wire {conductor.Wire} from {conductor.From} to {conductor.To} breaks, nobody notices, and a "
                                + $"trip of {trip.Device} no longer stops the motor."
                        );
                    }
                }
            }
        }
    }

    /// <summary>
    /// Every held button with every limit: a brake that is lifted while its motor pulls nothing lets the load run away.
    /// </summary>
    private void BrakesAgainstLimits()
    {
        var motors = _circuit.Devices.Where(d =>
            d.Kind.CoupledTo(d).Any(b => _circuit.FindDevice(b)?.Kind.CoilOf(_circuit.Device(b)) is not null)
        );
        foreach (var motor in motors.Where(m => !m.Kind.Poles(m).Any() && m.Kind.CoilOf(m) is null))
        {
            var brake = motor.Kind.CoupledTo(motor).First();
            foreach (var pressed in Tries().SkipLast(1).Concat(_runUp.Starts.Select(st => st.Prepare.Add(st.Act))))
            {
                foreach (var limit in LimitsAndTrips().Prepend(null))
                {
                    var held = _simulator.Do(AtRest, limit is null ? pressed : [limit, .. pressed]);
                    if (
                        held.State.Devices[_simulator.Network.DeviceIndex(brake)].Position != 0
                        && !motor.Kind.IsWorking(held.Appearances.GetValueOrDefault(motor.Tag, ""))
                    )
                    {
                        Caution(
                            $"brake/{brake}",
                            $"{string.Join(" and ", pressed)}{(limit is null ? "" : $" with {limit}")} lifts brake {brake} while {motor.Tag} "
                                + "does not pull: the load is not held."
                        );
                    }
                }
            }
        }
    }

    private IEnumerable<Step?> LimitsAndTrips() =>
        _circuit
            .Devices.Where(d =>
                d.Kind.Positions(d).Contains("tripped")
                || (d.Kind.Elements(d).FirstOrDefault()?.Role == ElementRole.NormallyClosed && !d.Kind.Actuations(d).Any(a => a.Returns))
            )
            .Where(d => d.Kind.IsolatingPositions is null && d.Kind.CoilOf(d) is null)
            .SelectMany(d =>
                d.Kind.Actuations(d)
                    .Where(a => !a.DeadOnly && !a.Resets && a.Position != d.Kind.Positions(d)[d.Kind.InitialPosition(d)])
                    .Take(1)
                    .Select(a => (Step?)new Step(d.Tag, a.Position))
            );

    private void Note(string id, string text) => _findings.Add(new DesignFinding(FindingKind.Note, id, text));

    private void CannotWork(string id, string text) => _findings.Add(new DesignFinding(FindingKind.CannotWork, id, text));

    private void Caution(string id, string text) => _findings.Add(new DesignFinding(FindingKind.Caution, id, text));

    private static string Named(Device device) => device.Function.Length > 0 ? $"{device.Function} {device.Tag}" : device.Tag;

    private static string Lower(string verb) => char.ToLowerInvariant(verb[0]) + verb[1..];
}
