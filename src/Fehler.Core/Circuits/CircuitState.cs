using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>What every device of a circuit is doing, and which conductors are lifted. Immutable.</summary>
/// <param name="Devices">In the order of <see cref="Circuit.Devices"/>.</param>
/// <param name="Lifted">Ends of conductors that are off their terminals.</param>
public sealed record CircuitState(ImmutableArray<DeviceState> Devices, ImmutableHashSet<ConductorEnd> Lifted)
{
    /// <summary>Asked for at every look into what is known of a state; 0 until then.</summary>
    private int _hash;

    private CircuitState(CircuitState original)
    {
        (Devices, Lifted) = (original.Devices, original.Lifted);
    }

    /// <summary>Every device as it is before anyone touches it, supply on.</summary>
    public static CircuitState AtRest(Circuit circuit) =>
        new([.. circuit.Devices.Select(d => new DeviceState(d.Kind.InitialPosition(d)))], []);

    /// <summary>Every device by itself: at rest, every conductor off at both ends.</summary>
    public static CircuitState WiresOff(Circuit circuit) =>
        AtRest(circuit) with
        {
            Lifted = [.. circuit.Conductors.SelectMany(c => new[] { c.EndAt(c.From), c.EndAt(c.To) })],
        };

    /// <summary>What stands how, whatever has passed of delays and is left of heat: voltages and currents follow from this alone.</summary>
    public CircuitState Timeless =>
        Devices.All(d => d is { Progress: 0, Heat: 0 }) ? this : this with { Devices = [.. Devices.Select(d => d.Timeless)] };

    /// <summary>The same after everything has cooled.</summary>
    public CircuitState Cooled =>
        Devices.All(d => d.Heat == 0) ? this : this with { Devices = [.. Devices.Select(d => d with { Heat = 0 })] };

    /// <summary>Name of the position that a device of the circuit stands in.</summary>
    public string PositionOf(Circuit circuit, Device device) =>
        device.Kind.Positions(device)[Devices[circuit.Devices.IndexOf(device)].Position];

    /// <summary>After somebody has turned to something else: where nothing turns everything has cooled.</summary>
    public CircuitState Rested => Devices.All(d => d.Speed == 0) ? Cooled : this;

    /// <summary>Whether a conductor is off at one of its ends, or both.</summary>
    public bool IsOff(Conductor conductor) =>
        Lifted.Count > 0 && (Lifted.Contains(conductor.EndAt(conductor.From)) || Lifted.Contains(conductor.EndAt(conductor.To)));

    /// <summary>The same with an end of a conductor off its terminal.</summary>
    public CircuitState Lift(ConductorEnd end) => this with { Lifted = Lifted.Add(end) };

    /// <summary>The same with a conductor on at both ends.</summary>
    public CircuitState Land(string conductor) => this with { Lifted = [.. Lifted.Where(l => l.Conductor != conductor)] };

    public CircuitState With(int device, DeviceState state) => this with { Devices = Devices.SetItem(device, state) };

    public bool Equals(CircuitState? other) =>
        ReferenceEquals(this, other)
        || (
            other is not null
            && GetHashCode() == other.GetHashCode()
            && Devices.AsSpan().SequenceEqual(other.Devices.AsSpan())
            && Lifted.SetEquals(other.Lifted)
        );

    public override int GetHashCode()
    {
        if (_hash == 0)
        {
            var hash = new HashCode();
            foreach (var device in Devices)
            {
                hash.Add(device);
            }

            _hash = hash.ToHashCode() is not 0 and var code ? code : 1;
        }

        return _hash;
    }
}
