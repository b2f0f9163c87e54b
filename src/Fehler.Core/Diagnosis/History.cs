using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What was found and proved before: on this circuit by fault mode, on the plant's other circuits by kind of device and of fault. It moves
/// what is suspected before anything is measured, and is outweighed by a few readings.
/// </summary>
/// <param name="Here">Times found on this circuit, by fault mode id.</param>
/// <param name="Plant">Times found on other circuits, by <see cref="KeyOf"/>.</param>
/// <remarks>A Dirichlet prior: the catalogue's weights count as <see cref="CatalogueRepairs"/> repairs, the recorded ones are added.</remarks>
public sealed record History(ImmutableSortedDictionary<string, int> Here, ImmutableSortedDictionary<string, int> Plant)
{
    /// <summary>How many recorded repairs the catalogue's own weights are worth.</summary>
    public const double CatalogueRepairs = 20;

    /// <summary>What a repair elsewhere in the plant is worth here.</summary>
    public const double PlantShare = 0.2;

    public static History None { get; } = new(ImmutableSortedDictionary<string, int>.Empty, ImmutableSortedDictionary<string, int>.Empty);

    public int RepairsHere => Here.Values.Sum();

    public int RepairsInPlant => Plant.Values.Sum();

    /// <summary>Kind of device and of fault, the same on every circuit: <c>contactor/13-14-open</c>.</summary>
    public static string KeyOf(Circuit circuit, FaultMode fault) => $"{circuit.FindDevice(fault.Unit)?.Kind.Id ?? "conductor"}/{fault.Kind}";

    /// <summary>How much more likely each mode of a circuit is than the catalogue alone says, by mode id.</summary>
    public IReadOnlyDictionary<string, double> Factors(Circuit circuit)
    {
        var modes = FaultCatalogue.Of(circuit).GroupBy(f => f.Id).Select(g => (g.Key, Kind: KeyOf(circuit, g.First()), Weight: g.Sum(f => f.Weight))).ToList();
        var total = modes.Sum(m => m.Weight);
        var alike = modes.ToLookup(m => m.Kind);
        var counts = modes.ToDictionary(m => m.Key, m => Here.GetValueOrDefault(m.Key) + PlantShare * Plant.GetValueOrDefault(m.Kind) / alike[m.Kind].Count());
        var repairs = counts.Values.Sum();
        return modes.ToDictionary(m => m.Key, m => (CatalogueRepairs * m.Weight / total + counts[m.Key]) / ((CatalogueRepairs + repairs) * m.Weight / total));
    }

    public bool Equals(History? other) => other is not null && Here.SequenceEqual(other.Here) && Plant.SequenceEqual(other.Plant);

    public override int GetHashCode() => HashCode.Combine(RepairsHere, RepairsInPlant);
}
