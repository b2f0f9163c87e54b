using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Operation;

/// <summary>What a step led to.</summary>
/// <param name="State">The stable state, or one of the states it chatters between.</param>
/// <param name="Solution">Voltages and currents in that state.</param>
/// <param name="Appearances">What is seen and heard, by device tag.</param>
/// <param name="Events">What happened by itself on the way, e.g. "F2 trips after 92 s".</param>
public sealed record Outcome(
    CircuitState State,
    Solution Solution,
    ImmutableSortedDictionary<string, string> Appearances,
    ImmutableArray<string> Events
);
