using System.Collections.Immutable;
using Fehler.Core.Faults;

namespace Fehler.Core.Diagnosis;

/// <summary>A fault mode with its probability and the reasons.</summary>
/// <param name="Fault">The fault; null for "nothing is wrong now" and "none of these".</param>
/// <param name="Unit">Device tag or conductor id; empty for the two special ones.</param>
/// <param name="Title">What it is, in words.</param>
/// <param name="Probability">0 to 1.</param>
/// <param name="Reasons">Evidence for and against, strongest first.</param>
public sealed record Suspect(FaultMode? Fault, string Unit, Wording Title, double Probability, ImmutableArray<Reason> Reasons)
{
    /// <summary>Of its probability the share of a fault that comes and goes: there at one observation, away at another.</summary>
    public double ComesAndGoes { get; init; }
}

/// <summary>What one piece of evidence says about a suspect.</summary>
/// <param name="Entry">The journal entry.</param>
/// <param name="Text">In words with numbers: "KM1:A1 to INC:N should be 230 V; you read 0 V".</param>
/// <param name="Weight">Natural logarithm of how much better (above 0) or worse it fits this suspect than the whole of the others.</param>
public sealed record Reason(Guid Entry, string Text, double Weight);

/// <summary>What is replaced or repaired as one piece, with the suspects in it.</summary>
/// <param name="Unit">Device tag or conductor id.</param>
/// <param name="Name">What it is: "contactor", "conductor".</param>
/// <param name="Place">Where it is.</param>
/// <param name="Alike">Other units that no available test can tell from it.</param>
public sealed record SuspectUnit(
    string Unit,
    Wording Name,
    string Place,
    double Probability,
    ImmutableArray<Suspect> Suspects,
    ImmutableArray<string> Alike
)
{
    /// <summary>A fault that holds less than this share of its unit does not stand for it.</summary>
    private const double MostOfIt = 0.8;

    /// <summary>Words behind its likeliest fault where the probability is not that one's alone; else empty.</summary>
    internal string Others => Suspects[0].Probability < MostOfIt * Probability ? ", or others of it" : "";

    /// <summary>Its likeliest fault, and whether there are others.</summary>
    public Wording Title => $"{Suspects[0].Title}{Others}";
}
