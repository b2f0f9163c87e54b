namespace Fehler.Core.Circuits;

/// <summary>Between which volts a monitoring relay holds, as it is set.</summary>
/// <param name="Volts">Set point, phase to phase.</param>
/// <param name="Parameter">Name of the parameter that holds it.</param>
/// <param name="UnderPercent">Lower limit, of the set point.</param>
/// <param name="OverPercent">Upper limit, of the set point.</param>
public sealed record SetPoint(Volts Volts, string Parameter, double UnderPercent, double OverPercent);
