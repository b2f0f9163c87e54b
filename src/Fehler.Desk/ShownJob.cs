using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Desk;

/// <summary>A job as it is shown, wherever its journal is kept: in the service's database or on the device.</summary>
/// <param name="CircuitVersion">Number of the circuit's version that the job keeps.</param>
/// <param name="Sequence">Number of the last entry.</param>
/// <param name="Origin">Where it comes from when it was carried in; empty otherwise.</param>
/// <param name="State">What the journal amounts to.</param>
/// <param name="SetAside">Entries that cannot be read any more, by number.</param>
/// <param name="Exercise">What is hidden in the panel of an exercise; null for a job.</param>
public sealed record ShownJob(
    Guid Id,
    Guid CircuitId,
    int CircuitVersion,
    string Title,
    DateTimeOffset OpenedAt,
    int Sequence,
    string Origin,
    JobState State,
    ImmutableArray<int> SetAside,
    Exercise? Exercise
)
{
    /// <summary>The circuit, compiled.</summary>
    public CompiledCircuit Compiled => State.Compiled;

    /// <summary>The circuit.</summary>
    public Circuit Circuit => State.Circuit;

    /// <summary>The suspects and the next test may be seen: of an exercise without advice only once it has ended.</summary>
    public bool ShowsAdvice => Exercise is null or { WithAdvice: true } or { Stopped.Length: > 0 } || State.Closing is not null;

    /// <summary>The job as somebody reads it who was not there.</summary>
    public JobReport Report() =>
        new(
            Id,
            CircuitId,
            Circuit.Tag,
            Circuit.Title,
            Circuit.Area,
            Circuit.Enclosure,
            CircuitVersion,
            Title,
            OpenedAt,
            State.Closing?.At,
            JobStory.Of(State)
        );
}

/// <summary>A job as somebody reads it who was not there.</summary>
public sealed record JobReport(
    Guid Id,
    Guid CircuitId,
    string CircuitTag,
    string CircuitTitle,
    string Area,
    string Enclosure,
    int CircuitVersion,
    string Title,
    DateTimeOffset OpenedAt,
    DateTimeOffset? ClosedAt,
    JobStory Story
);
