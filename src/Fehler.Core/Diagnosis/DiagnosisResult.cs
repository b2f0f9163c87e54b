using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

public enum DiagnosisStatus
{
    /// <summary>Nothing has been recorded that tells anything.</summary>
    NoEvidence,
    Searching,

    /// <summary>One unit holds 95 % or more, but the reading that shows the fault directly has not been made.</summary>
    AlmostFound,

    /// <summary>One unit holds 95 % or more and its own proof was made.</summary>
    Found,

    /// <summary>No single fault explains what was recorded.</summary>
    Contradiction,

    /// <summary>A repair was made and nothing recorded since speaks against it.</summary>
    Repaired,
}

/// <summary>What the evidence amounts to.</summary>
public sealed record DiagnosisResult
{
    public required DiagnosisStatus Status { get; init; }

    /// <summary>The state of things in one or two sentences.</summary>
    public required Wording Summary { get; init; }
    public required ImmutableArray<SuspectUnit> Units { get; init; }
    public required ImmutableArray<Proposal> Proposals { get; init; }

    /// <summary>
    /// Pieces of evidence it rests on. While only the circuit is being set up for a test this stays as it was, and so does that test.
    /// </summary>
    public required int Observations { get; init; }

    /// <summary>Uncertainty about the unit, bits.</summary>
    public required double Entropy { get; init; }

    /// <summary>How every device stands, by what was seen: where whatever is tried next begins.</summary>
    public required CircuitState Standing { get; init; }

    /// <summary>What is seen of the devices as they stand, by tag: with what is wrong in the circuit, not as a good one would go on.</summary>
    public required ImmutableSortedDictionary<string, string> Seen { get; init; }

    /// <summary>Wires that are live in a good circuit as it now stands, by number.</summary>
    public required ImmutableSortedSet<string> LiveWires { get; init; }

    /// <summary>
    /// What stands tripped or blown because of the leading suspect, "F1 1-2 blown": a consequence, to be put right with it.
    /// </summary>
    public ImmutableArray<string> Consequences { get; init; } = [];

    /// <summary>The leading suspect only tripped or blew: what may have made it, likeliest first; empty otherwise.</summary>
    public ImmutableArray<TripCause> Causes { get; init; } = [];

    /// <summary>Earlier repairs that moved the weights.</summary>
    public History History { get; init; } = History.None;

    /// <summary>When nothing fits: what to repeat and what may be behind it.</summary>
    public ImmutableArray<Wording> WaysOut { get; init; } = [];

    /// <summary>What to do about the leading suspect and what to ask next, once it is found.</summary>
    public Wording Remedy { get; init; } = Wording.None;
    public Wording AskWhy { get; init; } = Wording.None;

    /// <summary>The leading suspect once it leads clearly: the one whose repair guide is worth reading. Null before.</summary>
    public FaultMode? Lead { get; init; }
}
