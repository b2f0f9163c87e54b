using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Editing;

/// <summary>What a dial belongs at: the nameplate current of what it protects, times the share that flows in its place.</summary>
/// <param name="Motors">Tags of the motors behind it.</param>
/// <param name="Plate">Their nameplate current.</param>
/// <param name="Share">Current in its place over theirs: 1 in the line, 0.58 in the phase leads of a delta.</param>
internal readonly record struct MotorPlace(string Motors, Amps Plate, double Share)
{
    public Amps Amps => Share * Plate;

    public bool IsInDelta => Share < 1;

    /// <summary>Shares that a place can have: the line, or the phase leads of a delta (circuit theory: 1 over the root of 3).</summary>
    private static readonly double[] Shares = [1, 1 / Math.Sqrt(3)];

    /// <summary>
    /// Where a device stands in the motors' leads; null where none is behind it. The plate decides how much, the simulation only where: a current that is worked out from a wrong plate, speed or frequency would
    /// put the dial above what the motor stands.
    /// </summary>
    public static MotorPlace? Of(Circuit circuit, IReadOnlyList<Solution> loaded, string tag, string element)
    {
        MotorPlace? best = null;
        var nearest = 0.12;
        foreach (var solution in loaded)
        {
            var through = solution.Amps(tag, element).Magnitude;
            var motors = circuit
                .Devices.Select(d => (Device: d, Plate: d.Kind.PlateOf(d)))
                .Where(x => x.Plate is not null)
                .Select(x =>
                    (
                        x.Device.Tag,
                        x.Plate!.Amps,
                        Taken: solution.Amps(x.Device.Tag, x.Device.Kind.Elements(x.Device)[0].Name).Magnitude / x.Plate.LeadShare
                    )
                )
                .Where(x => x.Taken > 0.05)
                .ToList();
            foreach (var behind in motors.Select(m => new[] { m }).Append([.. motors]).Where(b => b.Length > 0))
            {
                var ratio = through / behind.Sum(m => m.Taken);
                var share = Shares.MinBy(s => Math.Abs(s - ratio));
                if (through > 0.05 && Math.Abs(ratio - share) < nearest)
                {
                    nearest = Math.Abs(ratio - share);
                    best = new MotorPlace(string.Join(" and ", behind.Select(m => m.Tag)), new(behind.Sum(m => m.Amps.Value)), share);
                }
            }
        }

        return best;
    }

    /// <summary>The circuit with its motors at their rated load, after each way to start them.</summary>
    public static IReadOnlyList<Solution> FullyLoaded(CompiledCircuit compiled) => [.. Loaded(compiled)];

    private static IEnumerable<Solution> Loaded(CompiledCircuit compiled)
    {
        // Started as it is loaded, then loaded fully: a star-delta motor could not start at full load.
        var circuit = compiled.Circuit;
        var loaded = new Simulator(Network.Of(circuit with { Devices = [.. circuit.Devices.Select(d => d.Kind.FullyLoaded(d))] }));
        var (runUp, simulator) = (compiled.RunUp, new Simulator(compiled.Network));
        foreach (
            var steps in runUp.WorksAtRest
                ?
                [
                    [],
                ]
                : runUp.Starts.Select(s => s.Run)
        )
        {
            var outcome = simulator.Do(simulator.Start().State, steps);
            outcome = simulator.Do(outcome.State, Step.Wait(runUp.TimeToSettle(outcome.State).Value));
            yield return loaded.Observe(outcome.State).Solution;
        }
    }
}
