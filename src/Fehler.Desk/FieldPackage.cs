using System.Collections.Immutable;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;

namespace Fehler.Desk;

/// <summary>A circuit as a device takes it along: everything that a job on it needs without a connection.</summary>
/// <param name="CircuitId">The circuit.</param>
/// <param name="Newest">Number of its newest version.</param>
/// <param name="Versions">The newest version and those that open jobs keep.</param>
/// <param name="Jobs">Its open jobs.</param>
/// <param name="History">What a job that is opened now learns from earlier ones.</param>
/// <param name="Leftovers">How the last job left the panel; null when nothing was left.</param>
public sealed record FieldPackage(
    Guid CircuitId,
    int Newest,
    ImmutableArray<FieldVersion> Versions,
    ImmutableArray<FieldJob> Jobs,
    FieldHistory History,
    ImmutableArray<string>? Leftovers
);

/// <summary>A version of a circuit, as its file.</summary>
public sealed record FieldVersion(int Number, string File);

/// <summary>A job as a device takes it along.</summary>
/// <param name="Version">Number of the circuit's version that it keeps.</param>
/// <param name="History">What it learns from earlier jobs; null: what a job that is opened now does.</param>
public sealed record FieldJob(
    Guid Id,
    Guid CircuitId,
    int Version,
    string Title,
    DateTimeOffset OpenedAt,
    ImmutableArray<JournalEntry> Entries,
    FieldHistory? History = null
);

/// <summary>A history over the wire.</summary>
public sealed record FieldHistory(
    ImmutableSortedDictionary<string, int> Here,
    ImmutableSortedDictionary<string, int> Plant,
    ImmutableSortedDictionary<string, double> Ohms,
    ImmutableSortedDictionary<string, double> Years
)
{
    public static FieldHistory Of(History history) => new(history.Here, history.Plant, history.Ohms, history.Years);

    public History Read() => new(Here, Plant) { Ohms = Ohms, Years = Years };
}
