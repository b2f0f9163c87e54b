namespace Fehler.Core.Families;

/// <summary>What is usually fitted for a motor of a current: fuses, copper and the feeder ahead of it.</summary>
internal static class Ratings
{
    private static readonly double[] Fuses =
    [
        6,
        10,
        16,
        20,
        25,
        32,
        40,
        50,
        63,
        80,
        100,
        125,
        160,
        200,
        250,
        315,
        400,
        500,
        630,
        800,
        1000,
        1250,
    ];

    /// <summary>
    /// Square millimetres and what three loaded conductors of them carry for ever, A: in a conduit or tray, PVC, 30 °C (IEC 60364-5-52,
    /// method B2, from memory); the last ones are cables side by side.
    /// </summary>
    private static readonly (double SquareMillimetres, double Amps)[] Cables =
    [
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

    /// <summary>Rated current of the fuses, A: about two to two and a half times the motor's carry its start (common practice).</summary>
    public static double Fuse(double amps) => Fuses.FirstOrDefault(r => r >= amps * 1.9, 1250);

    /// <summary>Copper of a motor's cable, mm²: the first that carries a tenth more than the motor takes.</summary>
    public static double Cable(double amps) => Cables.FirstOrDefault(c => c.Amps >= 1.1 * amps, (1000, 0)).SquareMillimetres;

    /// <summary>
    /// Resistance of the feeder per line, ohm: laid so that a start drops some 3 % on it (common practice); what a small motor hangs on is
    /// what a plant has anyway.
    /// </summary>
    public static double FeederOhms(double lineVolts, double amps) =>
        Math.Round(Math.Min(0.05, 0.03 * lineVolts / Math.Sqrt(3) / (6 * amps)), 4);

    /// <summary>Speed of the field of a motor with this rated speed, 1/min.</summary>
    public static double SynchronousRpm(double rpm, double hertz) =>
        new double[] { 3000, 1500, 1000, 750, 600, 500 }
            .Select(r => r * hertz / 50)
            .LastOrDefault(r => r > rpm, 3600);
}
