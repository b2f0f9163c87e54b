namespace Fehler.Core.Circuits;

/// <summary>
/// One physical conductor between two terminals. Several conductors carry the same wire number when the number
/// goes to more than two terminals; which of them is broken decides what is dead.
/// </summary>
/// <param name="Id">Unique in the circuit: wire number and position along it, e.g. <c>4.2</c>.</param>
/// <param name="Wire">Wire number as marked at both ends.</param>
/// <param name="From">One end.</param>
/// <param name="To">The other end.</param>
/// <param name="Metres">Length, metres.</param>
/// <param name="SquareMillimetres">Copper cross-section, mm².</param>
public sealed record Conductor(string Id, string Wire, TerminalId From, TerminalId To, double Metres, double SquareMillimetres)
{
    /// <summary>The default of the trade for control wiring: 5 m of 1.5 mm².</summary>
    public const double DefaultMetres = 5, DefaultSquareMillimetres = 1.5;

    /// <summary>
    /// Resistance at 20 °C, ohm. 12.1 ohm per km at 1.5 mm² (IEC 60228, from memory) is taken as the constant
    /// product of resistance and section, 18.15 ohm mm² per km; it includes the stranding the standard allows for.
    /// </summary>
    public double Ohms => 18.15e-3 * Metres / SquareMillimetres;

    public override string ToString() => $"wire {Wire}, {From} to {To}";
}
