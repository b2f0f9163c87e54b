using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>Mistakes of wiring, each of several alterations.</summary>
public static class Miswiring
{
    /// <summary>Two conductors that begin as drawn and end on each other's terminal.</summary>
    public static ImmutableArray<Alteration> Exchanged(Conductor a, Conductor b) =>
        [new ConductorOpen(a.Id), new ConductorOpen(b.Id), new Bridge(a.From, b.To, a.Ohms.Value), new Bridge(b.From, a.To, b.Ohms.Value)];
}
