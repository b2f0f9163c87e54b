namespace Fehler.Core.Circuits;

/// <summary>The plant's supply.</summary>
/// <param name="LineVolts">Phase to phase; of a single phase, to neutral.</param>
/// <param name="Hertz">Frequency.</param>
public sealed record SourceRating(Volts LineVolts, double Hertz);
