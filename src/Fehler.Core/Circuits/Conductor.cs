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
    /// <summary>Control wiring, where nothing else is stated, mm² (common practice).</summary>
    public const double DefaultSquareMillimetres = 1.5;

    /// <summary>Length of a conductor whose length nobody states: it follows from the places of its ends.</summary>
    public const double NotStated = double.NaN;

    /// <summary>Its end at a terminal.</summary>
    public ConductorEnd EndAt(TerminalId terminal) => new(Id, terminal);

    /// <summary>Where it goes to from one of its terminals.</summary>
    public TerminalId FarFrom(TerminalId terminal) => From == terminal ? To : From;

    /// <summary>Resistance at 20 °C, ohm, from <see cref="OhmsPerKilometre"/>.</summary>
    public Ohms Ohms => new(OhmsPerKilometre(SquareMillimetres) * Metres / 1000);

    /// <summary>
    /// Greatest resistance of a copper conductor at 20 °C, ohm per km: IEC 60228, from memory. Sections between the
    /// standard ones are taken as if resistance times section were that of 1.5 mm².
    /// </summary>
    public static double OhmsPerKilometre(double squareMillimetres) =>
        squareMillimetres switch
        {
            0.5 => 36.0,
            0.75 => 24.5,
            1 => 18.1,
            1.5 => 12.1,
            2.5 => 7.41,
            4 => 4.61,
            6 => 3.08,
            10 => 1.83,
            16 => 1.15,
            25 => 0.727,
            35 => 0.524,
            50 => 0.387,
            _ => 18.15 / squareMillimetres,
        };

    public override string ToString() => $"wire {Wire}, {From} to {To}";
}
