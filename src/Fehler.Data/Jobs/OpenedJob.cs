using System.Collections.Immutable;
using System.Text.Json;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Data;

/// <summary>A job as loaded: its row, its circuit version and the state its journal amounts to.</summary>
/// <param name="Row">The row, not tracked.</param>
/// <param name="CircuitVersion">Number of the circuit's version that the job keeps.</param>
/// <param name="State">What the journal amounts to.</param>
/// <param name="SetAside">Entries that cannot be read any more, by number.</param>
public sealed record OpenedJob(JobRow Row, int CircuitVersion, JobState State, ImmutableArray<int> SetAside)
{
    public CompiledCircuit Compiled => State.Compiled;

    public Circuit Circuit => State.Circuit;

    /// <summary>What is hidden in the panel of an exercise; null for a job.</summary>
    public Exercise? Exercise { get; } = Row.Exercise is { } json ? JsonSerializer.Deserialize<Exercise>(json, JournalJson.Options) : null;
}
