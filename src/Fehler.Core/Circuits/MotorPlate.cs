namespace Fehler.Core.Circuits;

/// <summary>A motor's nameplate.</summary>
/// <param name="Kilowatts">Rated power at the shaft.</param>
/// <param name="Volts">Voltage of the connection fitted.</param>
/// <param name="Amps">Current at that voltage and power.</param>
/// <param name="CosPhi">Power factor.</param>
/// <param name="AmpsParameter">Name of the parameter that holds the current.</param>
public sealed record MotorPlate(double Kilowatts, Volts Volts, Amps Amps, double CosPhi, string AmpsParameter)
{
    /// <summary>Current at standstill over the rated one; 0 where nobody says.</summary>
    public double StartingMultiple { get; init; }

    /// <summary>Rated speed, 1/min, and that of its field.</summary>
    public double Rpm { get; init; }

    /// <inheritdoc cref="Rpm"/>
    public double SynchronousRpm { get; init; }

    /// <summary>Current in one of its leads over the nameplate's: below 1 where each winding has a lead of its own, in delta.</summary>
    public double LeadShare { get; init; } = 1;

    /// <summary>Name of the parameter with the rated speed.</summary>
    public string RpmParameter { get; init; } = "";
}
