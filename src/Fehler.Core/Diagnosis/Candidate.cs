using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

/// <summary>A test that could be made, with what each hypothesis foretells of it.</summary>
/// <param name="Kind">Reading, look or operation.</param>
/// <param name="Setup">State it is made in.</param>
/// <param name="Bits">Expected information about the unit, bits.</param>
/// <param name="Minutes">Effort, minutes.</param>
internal sealed record Candidate(ProposalKind Kind, Setup Setup, double Bits, double Minutes)
{
    public Quantity Quantity { get; init; }
    public TerminalId From { get; init; }
    public TerminalId To { get; init; }
    public string Device { get; init; } = "";
    public string Look { get; init; } = "";
    public ImmutableArray<Step> Steps { get; init; } = [];
    public string Text { get; init; } = "";

    /// <summary>Why it is made where that is not what it would tell; empty otherwise.</summary>
    public string Why { get; init; } = "";

    /// <summary>Looks only: a reset would wipe what it shows.</summary>
    public bool ShowsWhatResetWipes { get; init; }
    public string GoodText { get; init; } = "";
    public Prediction Good { get; init; }

    /// <summary>Readings: what each hypothesis foretells, by hypothesis and pair of points; shared by all pairs of a state.</summary>
    public Prediction[][] Table { get; init; } = [];

    /// <summary>Readings: this pair's column of the table.</summary>
    public int Column { get; init; }

    /// <summary>Looks and operations: what each hypothesis shows.</summary>
    public string[]? Shown { get; init; }

    /// <summary>Operations: where each hypothesis says that they lead to.</summary>
    public Arrival[] Foreseen { get; init; } = [];

    /// <summary>Operations: where they lead a good circuit to.</summary>
    public Arrival? GoodArrival { get; init; }

    public Prediction Foretold(int hypothesis) => Table[hypothesis][Column];
}
