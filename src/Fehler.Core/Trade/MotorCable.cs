namespace Fehler.Core.Trade;

/// <summary>
/// What three loaded conductors carry for ever: in a conduit or tray, PVC, 30 °C (IEC 60364-5-52, method B2, from memory); the last ones are
/// cables side by side.
/// </summary>
public static class MotorCable
{
    private static readonly (double SquareMillimetres, double Amps)[] Table =
    [
        (0.75, 8),
        (1, 11),
        (1.5, 15),
        (2.5, 20),
        (4, 27),
        (6, 34),
        (10, 46),
        (16, 62),
        (25, 80),
        (35, 99),
        (50, 118),
        (70, 149),
        (95, 179),
        (120, 206),
        (150, 236),
        (185, 268),
        (240, 313),
        (300, 360),
        (2 * 240, 626),
        (3 * 240, 939),
    ];

    /// <summary>Thinnest copper that is laid to a motor, mm² (common practice).</summary>
    private const double Thinnest = 2.5;

    /// <summary>What a section carries, A; one between two of the table as the thinner.</summary>
    public static double Carries(double squareMillimetres) =>
        Table.Where(c => c.SquareMillimetres <= squareMillimetres).Select(c => c.Amps).DefaultIfEmpty(Table[0].Amps).Last();

    /// <summary>Copper of a motor's cable, mm²: the first that carries a tenth more than the motor takes.</summary>
    public static double SectionFor(double amps) =>
        Table.FirstOrDefault(c => c.SquareMillimetres >= Thinnest && c.Amps >= 1.1 * amps, (1000, 0)).SquareMillimetres;
}
