using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Diagnosis;

public enum ProposalKind
{
    Reading,
    Look,
    Operation,
}

/// <summary>A test that could be made now, and what it is worth.</summary>
public sealed record Proposal
{
    public required ProposalKind Kind { get; init; }

    /// <summary>Readings only.</summary>
    public Quantity Quantity { get; init; }
    public TerminalId From { get; init; }
    public TerminalId To { get; init; }

    /// <summary>State to set up for a reading.</summary>
    public required Setup Setup { get; init; }

    /// <summary>Looks only: device and look.</summary>
    public string Device { get; init; } = "";
    public string Look { get; init; } = "";

    /// <summary>Operations only.</summary>
    public ImmutableArray<Step> Steps { get; init; } = [];

    /// <summary>Operations only: devices whose looks tell the answers apart, the most telling first.</summary>
    public ImmutableArray<string> Watched { get; init; } = [];

    /// <summary>What to do, one sentence.</summary>
    public required string Title { get; init; }

    /// <summary>What a good circuit shows.</summary>
    public required string Good { get; init; }

    /// <summary>V or ohm a good circuit shows; null when it is OL, stray or not a number.</summary>
    public double? GoodValue { get; init; }

    public required ImmutableArray<ProposalOutcome> Outcomes { get; init; }

    /// <summary>Expected information about which unit it is, bits.</summary>
    public required double Bits { get; init; }

    /// <summary>Effort, minutes; live work counts extra.</summary>
    public required double Minutes { get; init; }

    /// <summary>Why this one, one sentence with figures.</summary>
    public required string Why { get; init; }

    /// <summary>Readings made once more: what was read here before, "0.1 V"; empty for a new one.</summary>
    public string Before { get; init; } = "";

    /// <summary>It is the reading that shows the leading suspect directly.</summary>
    public bool IsProof { get; init; }

    public ImmutableArray<string> Cautions { get; init; } = [];
}

/// <summary>One answer a test may give.</summary>
/// <param name="Shows">What is read or seen.</param>
/// <param name="Probability">How likely.</param>
/// <param name="Leaves">Units that remain likely, with their probability.</param>
/// <param name="IsGood">A good circuit may show it as well: by this answer nobody tells the two apart.</param>
public sealed record ProposalOutcome(
    string Shows,
    double Probability,
    ImmutableArray<(string Unit, double Probability)> Leaves,
    bool IsGood
);
