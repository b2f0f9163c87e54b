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
/// <remarks>A Dirichlet prior: the catalogue's weights count as <see cref="CatalogueRepairs"/> repairs, the recorded ones are
/// added.</remarks>
public sealed record History(ImmutableSortedDictionary<string, int> Here, ImmutableSortedDictionary<string, int> Plant)
{
    /// <summary>How many recorded repairs the catalogue's own weights are worth.</summary>
    public const double CatalogueRepairs = 20;

    /// <summary>What a repair elsewhere in the plant is worth here.</summary>
    public const double PlantShare = 0.2;

    /// <summary>What was measured of good coils and windings of this circuit, ohm, by the two terminals: <c>KM1:A1 KM1:A2</c>.</summary>
    public ImmutableSortedDictionary<string, double> Ohms { get; init; } = ImmutableSortedDictionary<string, double>.Empty;

    /// <summary>Years in service by device, since it was fitted or last replaced; devices of unknown age are not in it.</summary>
    public ImmutableSortedDictionary<string, double> Years { get; init; } = ImmutableSortedDictionary<string, double>.Empty;

    public static History None { get; } = new(ImmutableSortedDictionary<string, int>.Empty, ImmutableSortedDictionary<string, int>.Empty);

    public int RepairsHere => Here.Values.Sum();

    public int RepairsInPlant => Plant.Values.Sum();

    /// <summary>Kind of device and of fault, the same on every circuit: <c>contactor/13-14-open</c>.</summary>
    public static string KeyOf(Circuit circuit, FaultMode fault) =>
        $"{circuit.FindDevice(fault.Unit)?.Kind.Id ?? "conductor"}/{fault.Kind}";

    /// <summary>How much more likely each mode of a circuit is than the catalogue alone says, by mode id.</summary>
    public IReadOnlyDictionary<string, double> Factors(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        var modes = compiled
            .Faults.GroupBy(f => f.Id)
            .Select(g => (g.Key, Kind: KeyOf(circuit, g.First()), Weight: g.Sum(f => f.Weight), Age: AgeFactor(g.First().Unit)))
            .ToList();
        var total = modes.Sum(m => m.Weight);
        var alike = modes.ToLookup(m => m.Kind);
        var counts = modes.ToDictionary(
            m => m.Key,
            m => Here.GetValueOrDefault(m.Key) + PlantShare * Plant.GetValueOrDefault(m.Kind) / alike[m.Kind].Count()
        );
        var repairs = counts.Values.Sum();
        return modes.ToDictionary(
            m => m.Key,
            m => m.Age * (CatalogueRepairs * m.Weight / total + counts[m.Key]) / ((CatalogueRepairs + repairs) * m.Weight / total)
        );
    }

    /// <summary>New devices fail less often than the catalogue says, old ones more; five years are usual (common practice).</summary>
    private double AgeFactor(string unit) => Years.TryGetValue(unit, out var years) ? Math.Min(2.2, 0.6 + 0.08 * years) : 1;

    /// <summary>Key of <see cref="Ohms"/>.</summary>
    public static string KeyOf(TerminalId from, TerminalId to) => $"{from} {to}";

    internal static (TerminalId From, TerminalId To) Pair(string key) =>
        (TerminalId.Parse(key.Split(' ')[0]), TerminalId.Parse(key.Split(' ')[1]));

    public bool Equals(History? other) =>
        other is not null
        && Here.SequenceEqual(other.Here)
        && Plant.SequenceEqual(other.Plant)
        && Ohms.SequenceEqual(other.Ohms)
        && Years.SequenceEqual(other.Years);

    public override int GetHashCode() => HashCode.Combine(RepairsHere, RepairsInPlant);
}
