namespace Fehler.Core.Families;

/// <summary>What is usually fitted for a motor of a current: fuses and the feeder ahead of it.</summary>
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

    /// <summary>Rated current of the fuses, A: about two to two and a half times the motor's carry its start (common practice).</summary>
    public static double Fuse(double amps) => Fuses.FirstOrDefault(r => r >= amps * 1.9, 1250);

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
