using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>What a motor's cable takes of its volts: √3 I (r cos φ + x sin φ) L.</summary>
[Sum(
    "volt-drop",
    "Supply",
    "Volt drop of a motor cable",
    Source = "IEC 60364-5-52 annex G and IEC 60228, from memory; copper at 20 °C, warm a fifth more"
)]
public sealed record VoltDrop : Sum
{
    [Option("Motor", "Current", Unit = "A", Maximum = 5000)]
    public double Amps { get; init; } = 14.5;

    [Option("Motor", "Power factor", Minimum = 0.1, Maximum = 1)]
    public double CosPhi { get; init; } = 0.85;

    [Option("Cable", "Length", Unit = "m", Maximum = 5000)]
    public double Metres { get; init; } = 60;

    [Option("Cable", "Section", Unit = "mm²", Minimum = 0.5, Maximum = 400)]
    public double SquareMillimetres { get; init; } = 2.5;

    [Option("Supply", "Volts", Unit = "V", Maximum = 1000)]
    public double Volts { get; init; } = 400;

    [Option("Motor", "Starting current over rated", Minimum = 1, Maximum = 15)]
    public double StartingMultiple { get; init; } = 6;

    /// <summary>Power factor of a motor that stands (common practice).</summary>
    private const double StartingCosPhi = 0.35;

    /// <summary>Of a cable's core, Ω/km (IEC 60364-5-52 annex G, from memory).</summary>
    private const double Reactance = 0.08;

    public override SumResult Work()
    {
        Positive(("Current", Amps), ("Power factor", CosPhi), ("Length", Metres), ("Section", SquareMillimetres), ("Volts", Volts));
        double Drop(double amps, double cosPhi) =>
            Root3
            * amps
            * (Conductor.OhmsPerKilometre(SquareMillimetres) * cosPhi + Reactance * Math.Sqrt(1 - cosPhi * cosPhi))
            * Metres
            / 1000;
        var running = Drop(Amps, CosPhi);
        var starting = Drop(Amps * StartingMultiple, StartingCosPhi);
        string Formula(double amps, double cosPhi) =>
            $"√3 · {N(amps)} A · ({N(Conductor.OhmsPerKilometre(SquareMillimetres))} · {N(cosPhi)} + 0.08 · "
            + $"{N(Math.Sqrt(1 - cosPhi * cosPhi))}) Ω/km · {N(Metres / 1000)} km";
        return Result([
            Line("Running", Formula(Amps, CosPhi), running, "V"),
            Line("Running, of the supply", $"{N(running)} V / {N(Volts)} V", 100 * running / Volts, "%"),
            Line("Starting", Formula(Amps * StartingMultiple, StartingCosPhi), starting, "V"),
            Line(
                "Torque that is left at the start",
                $"(1 − {N(starting)} V / {N(Volts)} V)²",
                100 * Math.Pow(1 - starting / Volts, 2),
                "%"
            ),
        ]);
    }
}
