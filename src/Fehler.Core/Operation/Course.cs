using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>
/// What a healthy circuit does when something is done: where it ends, what is seen then, and every state on the way. A circuit
/// with a fault that none of these states notices does the same.
/// </summary>
internal sealed class Course
{
    private readonly List<Solution> _way = [];

    public Course(Network healthy, CircuitState from, Step step)
    {
        Outcome = new Simulator(healthy) { Solved = _way.Add }.Do(from, step);
    }

    public Outcome Outcome { get; }

    /// <summary>About how much memory it holds: the solution of every state on the way.</summary>
    public long Bytes => _way.Sum(s => s.Bytes) + 1000;

    /// <summary>Whether a circuit with this fault, begun in the same state, goes the same way.</summary>
    public bool IsThatOf(Network faulty) =>
        faulty.IsUpdate && faulty.Alterations.All(a => IsUnnoticed(faulty, a)) && _way.TrueForAll(faulty.Leaves);

    private bool IsUnnoticed(Network faulty, Alteration alteration) =>
        alteration switch
        {
            ParameterIs or AppearsAs => false,
            FoundInPosition => true,
            PositionLocked locked => Stands(faulty.DeviceIndex(locked.Device))
                && _way[0].State.Devices[faulty.DeviceIndex(locked.Device)] is var state
                && state.Position == locked.Position
                && state is { Held: false, Moving: false },
            DoesNotReturn sticking => Stands(faulty.DeviceIndex(sticking.Device)),
            DoesNotReach missed => IsNever(faulty.DeviceIndex(missed.Device), missed.Position),
            // What only changes conductances shows in the solutions themselves.
            ElementOpen or ElementMade or ContactInverted or ElementSeriesOhms or ElementImpedance or Bridge => true,
            ConductorOpen or ConductorSeriesOhms => true,
            _ => false,
        };

    private bool IsNever(int device, int position) =>
        _way.TrueForAll(s => s.State.Devices[device].Position != position) && Outcome.State.Devices[device].Position != position;

    /// <summary>The device is in one and the same state all the way.</summary>
    private bool Stands(int device) =>
        _way.TrueForAll(s => s.State.Devices[device].Timeless == _way[0].State.Devices[device].Timeless)
        && Outcome.State.Devices[device].Timeless == _way[0].State.Devices[device].Timeless;
}
