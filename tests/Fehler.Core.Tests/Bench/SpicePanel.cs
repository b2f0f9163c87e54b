using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Bench;

/// <summary>
/// A panel whose meter is ngspice: what stands how is kept here, every voltage and resistance is worked out by it from the exported netlist
/// with
/// the fault and the meter's own 10 megohm in it. A clamp or an insulation tester is not at hand.
/// </summary>
internal sealed class SpicePanel
{
    private readonly Circuit _circuit;
    private readonly FaultMode _fault;
    private readonly Simulator _simulator;
    private readonly Random _hand;
    private readonly double _wrong,
        _missing;
    private CircuitState _state;

    /// <param name="circuit">The healthy circuit.</param>
    /// <param name="fault">What is wrong with the panel.</param>
    /// <param name="wrong">Share of readings that are taken of something else.</param>
    /// <param name="missing">Share of readings that nobody is sure of.</param>
    /// <param name="seed">Of scatter, mistakes and missing readings.</param>
    public SpicePanel(Circuit circuit, FaultMode fault, double wrong, double missing, int seed)
    {
        (_circuit, _fault, _wrong, _missing) = (circuit, fault, wrong, missing);
        _simulator = new Simulator(Network.Of(circuit).With(fault.Alterations));
        _hand = new Random(seed);
        _state = _simulator.Start().State;
    }

    public ImmutableSortedDictionary<string, string> Operate(IEnumerable<Step> steps)
    {
        var outcome = Done(steps);
        _state = outcome.State;
        return outcome.Appearances;
    }

    /// <summary>Who presses Reset has waited until it holds.</summary>
    private Outcome Done(IEnumerable<Step> steps)
    {
        Outcome? outcome = null;
        foreach (var step in steps)
        {
            var from = outcome?.State ?? _state;
            outcome = _simulator.Do(_simulator.IsReset(step) ? from.Cooled : from, step);
        }

        return outcome ?? _simulator.Observe(_state);
    }

    public void Isolate() => Operate(_circuit.Compiled().Isolation.Off);

    public void Energise() => Operate(_circuit.Compiled().Isolation.On);

    public void Lift(ConductorEnd end) => _state = _simulator.Observe(_state.Lift(end)).State;

    public void Land(string conductor) => _state = _simulator.Observe(_state.Land(conductor)).State;

    public string Look(string tag, string id) =>
        _simulator.Look(_state, tag, id, _circuit.Device(tag), () => _simulator.Network.Solve(_state));

    public ReadingValue Measure(Quantity quantity, TerminalId from, TerminalId to, ImmutableArray<Step> held)
    {
        _state = _simulator.Do(_state, Step.Meanwhile(20)).State.Rested;
        var state = held.IsEmpty ? _state : Done(held).State;
        var value = (quantity, _hand.NextDouble() < _missing) switch
        {
            (_, true) or (Quantity.Amps or Quantity.StartingAmps or Quantity.Insulation, _) => new ReadingValue(ReadingKind.NotSure),
            (Quantity.Ohms, _) => Ohms(state, from, to),
            _ => Volts(state, quantity, from, to),
        };
        if (!held.IsEmpty)
        {
            _state = _simulator.Do(state, held.Select(Released)).State;
        }

        return value.Kind == ReadingKind.NotSure || _hand.NextDouble() >= _wrong ? value
            : quantity == Quantity.Ohms ? new ReadingValue(_hand.Next(2) == 0 ? ReadingKind.OverLimit : ReadingKind.Number, 0)
            : ReadingValue.Of(_hand.Next(2) == 0 ? 0 : 230 * _hand.NextDouble());
    }

    private ReadingValue Volts(CircuitState state, Quantity quantity, TerminalId from, TerminalId to)
    {
        var network = Network.Of(_circuit).With([.. _fault.Alterations, new Bridge(from, to, 10e6)]);
        double volts;
        if (quantity == Quantity.Volts)
        {
            var nodes = Ngspice.Ac(SpiceNetlist.Ac(network, state));
            volts = (
                nodes.GetValueOrDefault(SpiceNetlist.NodeName(network, from), Complex.Zero)
                - nodes.GetValueOrDefault(SpiceNetlist.NodeName(network, to), Complex.Zero)
            ).Magnitude;
        }
        else
        {
            var nodes = Ngspice.Op(SpiceNetlist.Dc(network, state));
            volts = Math.Abs(
                nodes.GetValueOrDefault(SpiceNetlist.NodeName(network, from)) - nodes.GetValueOrDefault(SpiceNetlist.NodeName(network, to))
            );
        }

        return ReadingValue.Of(Math.Round(volts * Scatter(), volts < 20 ? 2 : 0));
    }

    private ReadingValue Ohms(CircuitState state, TerminalId from, TerminalId to)
    {
        var nodes = Ngspice.Op(SpiceNetlist.Ohms(_simulator.Network, state, from, to));
        var ohms = Math.Abs(
            nodes.GetValueOrDefault(SpiceNetlist.NodeName(_simulator.Network, from))
                - nodes.GetValueOrDefault(SpiceNetlist.NodeName(_simulator.Network, to))
        );
        return ohms > 40e6 ? new ReadingValue(ReadingKind.OverLimit) : ReadingValue.Of(ohms * Scatter() + 0.1);
    }

    private double Scatter() => 1 + 0.02 * (_hand.NextDouble() - 0.5);

    private Step Released(Step held)
    {
        var device = _circuit.Device(held.Device);
        return held with { Position = device.Kind.Positions(device)[device.Kind.InitialPosition(device)] };
    }
}
