using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>What every device of a circuit is doing, and which conductors are lifted. Immutable.</summary>
/// <param name="Devices">In the order of <see cref="Circuit.Devices"/>.</param>
/// <param name="Lifted">Ids of conductors lifted at one end.</param>
public sealed record CircuitState(ImmutableArray<DeviceState> Devices, ImmutableHashSet<string> Lifted)
{
    /// <summary>Every device as it is before anyone touches it, supply on.</summary>
    public static CircuitState AtRest(Circuit circuit) =>
        new([.. circuit.Devices.Select(d => new DeviceState(d.Kind.InitialPosition(d)))], []);

    public CircuitState With(int device, DeviceState state) => this with { Devices = Devices.SetItem(device, state) };

    public bool Equals(CircuitState? other) =>
        other is not null && Devices.AsSpan().SequenceEqual(other.Devices.AsSpan()) && Lifted.SetEquals(other.Lifted);

    public override int GetHashCode()
    {
        var hash = new HashCode();
        foreach (var device in Devices)
        {
            hash.Add(device);
        }

        return hash.ToHashCode();
    }
}
