using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Bench;

/// <summary>
/// A simulated panel with a fault in it and a simulated meter: it is operated, looked at and measured like the real one.
/// Stands in for the installed starter when training and when the diagnosis is measured.
/// </summary>
public sealed class SimulatedPanel
{
    private readonly CompiledCircuit _compiled;
    private readonly Circuit _circuit;
    private readonly Network _sound;
    private readonly double _meterError;
    private Simulator _simulator;
    private readonly Random _meter;

    /// <param name="compiled">The healthy circuit.</param>
    /// <param name="fault">What is wrong with the panel; empty for nothing.</param>
    /// <param name="seed">Seed of the meter's scatter.</param>
    /// <param name="differs">
    /// What stands in the panel differs from its description as make, age and place have it, and the meter has an error of its own.
    /// </param>
    public SimulatedPanel(CompiledCircuit compiled, ImmutableArray<Alteration> fault, int seed = 1, bool differs = false)
    {
        (_compiled, _circuit) = (compiled, compiled.Circuit);
        var scatter = new Scatter(seed);
        _sound = differs ? Network.Of(Installed(compiled.Circuit, scatter)) : compiled.Network;
        _meterError = differs ? MeterShare * scatter.Normal() : 0;
        _simulator = new Simulator(_sound.With(fault));
        _meter = new Random(seed);
        State = _simulator.Start().State;
    }

    /// <summary>One standard deviation of a meter's own error, as a share of what it shows (common practice: 0.5 to 1.5 %).</summary>
    private const double MeterShare = 0.01;

    /// <summary>Lengths of wires and cables are guesses: to half and double.</summary>
    private const double LengthSpread = 1.6;

    private static Circuit Installed(Circuit circuit, Scatter scatter) =>
        circuit with
        {
            Devices = [.. circuit.Devices.Select(d => d.Kind.AsInstalled(d, scatter))],
            Conductors =
            [
                .. circuit.Conductors.Select(c => c with { Metres = Math.Clamp(c.Metres * scatter.Factor(LengthSpread), 0.2, 5000) }),
            ],
        };

    /// <summary>A fault that strikes now, in whatever state the panel is.</summary>
    public void Strike(ImmutableArray<Alteration> fault)
    {
        _simulator = new Simulator(_sound.With(fault));
        State = _simulator.Observe(State).State;
    }

    public CircuitState State { get; private set; }

    public bool IsIsolated { get; private set; }

    /// <summary>Operates the panel and says what is seen.</summary>
    public ImmutableSortedDictionary<string, string> Operate(IEnumerable<Step> steps)
    {
        var outcome = Done(steps);
        State = outcome.State;
        return outcome.Appearances;
    }

    /// <summary>Something has been repaired: what is left of the fault stays, and the devices of the repaired unit are as new.</summary>
    public void Repair(string unit, ImmutableArray<Alteration> left)
    {
        _simulator = new Simulator(_sound.With(left));
        var index = _circuit.Devices.ToList().FindIndex(d => d.Tag == unit);
        if (index >= 0 && !_compiled.Isolation.Points.Contains(unit))
        {
            var device = _circuit.Devices[index];
            State = State.With(index, State.Devices[index] with { Position = device.Kind.InitialPosition(device) });
        }

        State = _simulator.Observe(State).State;
    }

    public void Isolate()
    {
        Operate(_compiled.Isolation.Off);
        IsIsolated = true;
    }

    public void Energise()
    {
        Operate(_compiled.Isolation.On);
        IsIsolated = false;
    }

    /// <summary>Takes a conductor off one of its terminals.</summary>
    public void Lift(ConductorEnd end) => State = _simulator.Observe(State.Lift(end)).State;

    /// <summary>Lands a conductor again.</summary>
    public void Land(string conductor) => State = _simulator.Observe(State.Land(conductor)).State;

    public string Look(string device, string look)
    {
        State = Later(State);
        return _simulator.Look(State, device, look, _circuit.Device(device), () => _simulator.Network.Solve(State));
    }

    /// <summary>Takes a reading with devices held meanwhile and let go afterwards; a meter's scatter of 1 % is on it.</summary>
    public ReadingValue Measure(Quantity quantity, TerminalId from, TerminalId to, ImmutableArray<Step> held) =>
        Measure(quantity, from, to, held, MeterOhms);

    /// <summary>The same with a two-pole tester, which loads the point it is put to.</summary>
    public ReadingValue MeasureLoaded(Quantity quantity, TerminalId from, TerminalId to, ImmutableArray<Step> held) =>
        Measure(quantity, from, to, held, TwoPoleOhms);

    /// <summary>What a multimeter and a two-pole tester load a point with, ohm (common practice).</summary>
    private const double MeterOhms = 10e6,
        TwoPoleOhms = 20e3;

    private ReadingValue Measure(Quantity quantity, TerminalId from, TerminalId to, ImmutableArray<Step> held, double load)
    {
        var before = State = Later(State);
        var outcome = Done(held);
        var value = quantity switch
        {
            Quantity.Volts or Quantity.DcVolts => Volts(outcome.Solution, quantity, from, to, load),
            Quantity.Amps => ReadingValue.Of(Scattered(outcome.Solution.Amps(from).Value, 0.02)),
            Quantity.StartingAmps => ReadingValue.Of(
                Scattered(
                    _simulator
                        .Network.Solve(outcome.State with { Devices = [.. outcome.State.Devices.Select(d => d with { Speed = 0 })] })
                        .Amps(from)
                        .Value,
                    0.1
                )
            ),
            Quantity.Insulation => Ohms(
                quantity,
                new OhmTable(_sound, outcome.State, underVoltage: true).Read(_simulator.Network, [(from, to)])[0]
            ),
            _ => Ohms(quantity, _simulator.Network.Ohms(outcome.State, from, to).Value),
        };
        State = _simulator.Do(outcome.State, held.Select(h => StepRules.PutBack(_circuit, before, h))).State;
        return value;
    }

    /// <summary>Fetching a meter and looking take time, and nobody knows how much.</summary>
    private CircuitState Later(CircuitState state) => _simulator.Do(state, Step.Meanwhile(10 + 40 * _meter.NextDouble())).State.Rested;

    private ReadingValue Volts(Solution solution, Quantity quantity, TerminalId from, TerminalId to, double load)
    {
        // The meter's own load is part of the circuit: it matters where nothing holds the point.
        var loaded = _sound.With([.. _simulator.Network.Alterations, new Bridge(from, to, load)]).Solve(solution.State);
        return ReadingValue.Of(
            Scattered(quantity == Quantity.Volts ? loaded.Volts(from, to).Magnitude : loaded.DcVolts(from, to).Magnitude.Value, 0.1)
        );
    }

    private ReadingValue Ohms(Quantity quantity, double ohms) =>
        quantity == Quantity.Continuity ? new ReadingValue(ohms < 30 ? ReadingKind.Beep : ReadingKind.Silent)
        : double.IsInfinity(ohms) ? new ReadingValue(ReadingKind.OverLimit)
        : ReadingValue.Of(Scattered(ohms, 0.1));

    private double Scattered(double value, double digits) =>
        Math.Round(Math.Abs(value * (1 + _meterError + 0.01 * (2 * _meter.NextDouble() - 1)) + digits * (2 * _meter.NextDouble() - 1)), 2);

    /// <summary>Who presses Reset has waited until it holds.</summary>
    private Outcome Done(IEnumerable<Step> steps)
    {
        Outcome? outcome = null;
        foreach (var step in steps)
        {
            var from = outcome?.State ?? State;
            outcome = _simulator.Do(_simulator.IsReset(step) ? from.Cooled : from, step);
        }

        return outcome ?? _simulator.Do(State, []);
    }
}
