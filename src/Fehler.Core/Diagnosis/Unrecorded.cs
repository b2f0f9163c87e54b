using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>Something that may have happened before what was written down, and that nobody wrote down.</summary>
/// <param name="Share">How often.</param>
/// <param name="Course">What happened.</param>
/// <param name="Trips">The device that has tripped by it; empty where somebody operated something.</param>
internal sealed record Unrecorded(double Share, ImmutableArray<Step> Course, string Trips = "");

/// <summary>A trip that nothing foretells: to the circuit it is as if the test trip were operated.</summary>
internal sealed class UnforetoldTrip
{
    /// <summary>
    /// Share of the trips that come a little earlier than the curve has it: warm from the tries before, loaded or set otherwise than on the
    /// plate (common practice: one in fifty); and of those that come for nothing, of which whoever is called thinks first without them.
    /// </summary>
    private const double EarlyShare = 0.02,
        ForNothingShare = 0.001;

    /// <summary>A relay that is warmer than usual by this much is on its way to a trip, see <see cref="DeviceState.Heat"/>.</summary>
    private const double Warmer = 0.05;

    /// <summary>Long enough to be as warm as it gets, s.</summary>
    private const double LongRun = 3600;

    private readonly int _device;

    /// <summary>How warm it gets in a good circuit.</summary>
    private readonly Lazy<double> _usual;

    /// <summary>What is seen of a circuit at rest that has tripped, and not of one that has not: a lamp.</summary>
    private readonly ImmutableHashSet<(string Tag, string Seen)> _signs;

    /// <param name="compiled">The circuit.</param>
    /// <param name="step">The test trip.</param>
    public UnforetoldTrip(CompiledCircuit compiled, Step step)
    {
        Step = step;
        _device = compiled.Network.DeviceIndex(step.Device);
        var simulator = new Simulator(compiled.Network);
        var rest = simulator.Start();
        _signs =
        [
            .. simulator
                .Do(rest.State, step)
                .Appearances.Where(seen => rest.Appearances.GetValueOrDefault(seen.Key) != seen.Value)
                .Select(seen => (seen.Key, seen.Value)),
        ];
        _usual = new Lazy<double>(() =>
            compiled
                .RunUp.Starts.Select(start => simulator.Do(rest.State, [.. start.Run, Step.Wait(LongRun)]).State.Devices[_device].Heat)
                .Append(0)
                .Max()
        );
    }

    public Step Step { get; }

    /// <summary>
    /// Whether to think of it: time passed in which something may trip, or there is a sign of it. What happens at the very moment at which a
    /// button is let go is no trip.
    /// </summary>
    public bool MayHaveHappened(ImmutableArray<Step> steps, ImmutableSortedDictionary<string, string> seen) =>
        steps.Any(s => s.Seconds >= DiagnosisSession.TakesTime) || seen.Any(s => _signs.Contains((s.Key, s.Value)));

    /// <summary>Share of the times that it trips all the same.</summary>
    /// <param name="foretold">Where what was done leads to without the trip.</param>
    public double Share(CircuitState foretold) => foretold.Devices[_device].Heat > _usual.Value + Warmer ? EarlyShare : ForNothingShare;
}
