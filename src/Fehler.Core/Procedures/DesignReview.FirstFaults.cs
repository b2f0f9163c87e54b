using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <content>What a first earth fault or a short circuit of the control wiring does, and what protects against it.</content>
public sealed partial class DesignReview
{
    /// <summary>
    /// An earth fault at a coil's return side must not take a trip out of the circuit; on a floating supply the first one is silent.
    /// </summary>
    private void OverloadInReturn()
    {
        if (_runUp.Starts.FirstOrDefault(s => s.Holds) is not { } start)
        {
            return;
        }

        var healthy = _simulator.Network;
        foreach (var contactor in Contactors(start))
        {
            var coil = contactor.Kind.CoilOf(contactor)!.Element;
            foreach (var terminal in new[] { coil.A, coil.B })
            {
                var point = contactor.Terminal(terminal);
                var faulty = new Simulator(healthy.With([new Bridge(point, null, 0.5)]));
                var running = faulty.Do(faulty.Start().State, start.Run);
                if (_runUp.Working(running).Count == 0 || !running.Events.IsEmpty)
                {
                    continue;
                }

                foreach (
                    var overload in _circuit.Devices.Where(d =>
                        d.Kind.Actuations(d).Any(a => a.Position == "tripped") && d.Kind.IsolatingPositions is null
                    )
                )
                {
                    if (_runUp.Working(faulty.Do(running.State, new Step(overload.Tag, "tripped"))).Count > 0)
                    {
                        Caution(
                            $"earth-bypass/{overload.Tag}",
                            $"With the contact of {overload.Tag} in the return, an earth fault at {point} bypasses it: a trip "
                                + "then does not stop the motor."
                        );
                    }
                }

                if (terminal == coil.A && point != _circuit.Reference)
                {
                    Caution(
                        $"silent-earth/{_circuit.Reference}",
                        $"The first earth fault of the control circuit (say at {point}) is silent; a second one can defeat "
                            + "every Stop. Watch the insulation."
                    );
                }
            }
        }
    }

    /// <summary>
    /// Every control wire with its first earth fault: nothing may start by it, no Stop may fail by it. That a fuse clears it at once is what
    /// an earthed control circuit is earthed for.
    /// </summary>
    private void EarthFaults()
    {
        var cleared = new List<string>();
        var power = Cable.PowerTerminals(_circuit);
        foreach (
            var wire in _circuit
                .Conductors.Where(c =>
                    c.Wire != _circuit.WireAt(_circuit.Earth) && !Cable.IsPowerConductor(power, c) && c.From.Device != _circuit.Supply.Tag
                )
                .GroupBy(c => c.Wire)
        )
        {
            var faulty = new Simulator(_simulator.Network.With([new Bridge(wire.First().From, null, 0.5)]));
            var rest = faulty.Start();
            var clears = Shorts(rest);
            if (_runUp.Working(rest).Count > 0 && !_runUp.WorksAtRest)
            {
                Caution($"earth-starts/{wire.Key}", $"An earth fault of wire {wire.Key} starts the machine with nothing pressed.");
            }

            foreach (var start in _runUp.Starts.Where(s => s.Holds).Take(2))
            {
                // It comes while the machine runs: what it blows does not let go of a coil that earth now feeds.
                var running = faulty.Observe(_simulator.Do(AtRest, start.Run).State);
                clears |= Shorts(running);
                foreach (var stop in _runUp.Stops.Where(_ => _runUp.Working(running).Count > 0))
                {
                    var stopped = faulty.Do(running.State, new Step(stop.Tag, "pressed"));
                    if (_runUp.Working(stopped).Count > 0 && IsStoppedBy(start, stop))
                    {
                        Caution(
                            $"earth-stop/{stop.Tag}/{wire.Key}",
                            $"With an earth fault of wire {wire.Key}, {Named(stop)} does not stop what {start.Act} started{CoilVolts(stopped)}."
                        );
                    }
                }
            }

            if (clears)
            {
                cleared.Add(wire.Key);
            }
        }

        if (cleared.Count > 0)
        {
            Note(
                "earth-clears",
                $"A dead earth fault of wire {string.Join(", ", cleared)} opens a protective device and is found at once."
            );
        }
    }

    private bool IsStoppedBy(Start start, Device stop) =>
        _runUp.Working(_simulator.Do(_simulator.Do(AtRest, start.Run).State, new Step(stop.Tag, "pressed"))).Count == 0;

    /// <summary>What keeps a coil in that should be dead.</summary>
    private string CoilVolts(Outcome outcome) =>
        string.Concat(
            _circuit
                .Devices.Where(d =>
                    d.Kind.CoilOf(d) is not null
                    && !d.Kind.Poles(d).IsEmpty
                    && outcome.State.Devices[_simulator.Network.DeviceIndex(d.Tag)].Position != 0
                )
                .Take(1)
                .Select(d => (Device: d, Coil: d.Kind.CoilOf(d)!.Element))
                .Select(x =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $": {outcome.Solution.Volts(x.Device.Terminal(x.Coil.A), x.Device.Terminal(x.Coil.B)).Magnitude:0} V stay on {x.Device.Tag}"
                    )
                )
        );

    /// <summary>Greatest protection of control wiring of 1.5 mm², A (IEC 60204-1, from memory: some 13 to 16 A by how it is laid).</summary>
    private const double MostControlAmps = 16,
        ShortOhms = 0.05;

    /// <summary>A short circuit over a coil has to open something, and something that protects the thin wires.</summary>
    private void Unprotected()
    {
        foreach (
            var (device, coil) in _circuit
                .Devices.Where(d => d.Kind.CoilOf(d) is not null && !d.Kind.Poles(d).IsEmpty)
                .Select(d => (d, d.Kind.CoilOf(d)!.Element))
        )
        {
            if (_runUp.Starts.FirstOrDefault(s => Contactors(s).Contains(device)) is not { } start)
            {
                continue;
            }

            var shorted = new Simulator(_simulator.Network.With([new Bridge(device.Terminal(coil.A), device.Terminal(coil.B), ShortOhms)]));
            var held = shorted.Do(shorted.Start().State, [.. start.Prepare, start.Act]);
            var outcome = shorted.Do(held.State, Step.Wait(5));
            var before = AtRest;
            var opened = _circuit
                .Devices.Where(
                    (d, i) =>
                        d.Kind.CoilOf(d) is null
                        && double.IsFinite(RatedAmps(d))
                        && outcome.State.Devices[i].Position != before.Devices[i].Position
                )
                .ToList();
            var flows = new Amps(outcome.Solution.Volts(device.Terminal(coil.A), device.Terminal(coil.B)).Magnitude / ShortOhms);
            if (opened.Count == 0 && flows.Value > MostControlAmps)
            {
                Caution(
                    $"unprotected/{device.Tag}",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"A short circuit at the coil of {device.Tag} draws {flows.Value:0} A and nothing opens within 5 s: wires of 1.5 mm² burn."
                    )
                );
            }
            else if (opened.Count > 0 && opened.Min(RatedAmps) is var amps && amps > MostControlAmps)
            {
                Caution(
                    $"unprotected/{device.Tag}",
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"The control wires to {device.Tag} have no protection of their own: a short circuit there is left to "
                            + $"{opened.MinBy(RatedAmps)!.Tag} with {amps:0.#} A, more than wires of 1.5 mm² stand."
                    )
                );
            }
        }
    }

    private static double RatedAmps(Device device) => device.Parameters.GetValueOrDefault("ratedAmps")?.Number ?? double.PositiveInfinity;
}
