namespace Fehler.Core.Circuits;

/// <summary>One end of a conductor.</summary>
/// <param name="Conductor">Id of the conductor.</param>
/// <param name="End">The terminal that it ends at.</param>
public readonly record struct ConductorEnd(string Conductor, TerminalId End);
