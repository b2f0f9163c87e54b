namespace Fehler.Core.Circuits;

/// <summary>A motor's nameplate.</summary>
/// <param name="Kilowatts">Rated power at the shaft.</param>
/// <param name="Volts">Voltage of the connection fitted.</param>
/// <param name="Amps">Current at that voltage and power.</param>
/// <param name="CosPhi">Power factor.</param>
/// <param name="AmpsParameter">Name of the parameter that holds the current.</param>
public sealed record MotorPlate(double Kilowatts, Volts Volts, Amps Amps, double CosPhi, string AmpsParameter);
