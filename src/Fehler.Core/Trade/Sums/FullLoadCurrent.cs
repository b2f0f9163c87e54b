using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>What a motor draws at its rated power: P / (√3 U η cos φ), single-phase without the root.</summary>
[Sum("full-load-current", "Motor", "Full-load current", Source = "Definition of power; hp = 746 W")]
public sealed record FullLoadCurrent : Sum
{
    [Option("Plate", "Rated power", Unit = "kW", Maximum = 5000)]
    public double Kilowatts { get; init; } = 7.5;

    [Option("Plate", "or in horsepower; 0: in kW", Unit = "hp", Maximum = 5000)]
    public double Horsepower { get; init; }

    [Option("Plate", "Voltage", Unit = "V", Minimum = 12, Maximum = 15000)]
    public double Volts { get; init; } = 400;

    [Option("Plate", "Efficiency", Minimum = 0.1, Maximum = 1)]
    public double Efficiency { get; init; } = 0.88;

    [Option("Plate", "Power factor", Minimum = 0.1, Maximum = 1)]
    public double CosPhi { get; init; } = 0.85;

    [Option("Plate", "Single-phase")]
    public bool IsSinglePhase { get; init; }

    /// <summary>Full-load current of a three-phase motor.</summary>
    public static Amps ThreePhase(double watts, Volts volts, double efficiency, double cosPhi) =>
        new(watts / (Root3 * volts.Value * efficiency * cosPhi));

    public override SumResult Work()
    {
        const double wattsPerHorsepower = 746;
        var watts = Horsepower > 0 ? Horsepower * wattsPerHorsepower : Kilowatts * 1000;
        Positive(("Rated power", watts), ("Voltage", Volts), ("Efficiency", Efficiency), ("Power factor", CosPhi));
        var amps = IsSinglePhase ? watts / (Volts * Efficiency * CosPhi) : ThreePhase(watts, new Volts(Volts), Efficiency, CosPhi).Value;
        return Result(
            [
                Line(
                    "Full-load current",
                    $"{N(watts)} W / ({(IsSinglePhase ? "" : "√3 · ")}{N(Volts)} V · {N(Efficiency)} · {N(CosPhi)})",
                    amps,
                    "A"
                ),
            ],
            "The plate counts; this is for a motor whose plate cannot be read."
        );
    }

    /// <summary>Efficiency of a cage motor around its rated point, rising with its size (common practice).</summary>
    public static double UsualEfficiency(double kilowatts) =>
        kilowatts switch
        {
            < 0.75 => 0.72,
            < 2.2 => 0.8,
            < 7.5 => 0.86,
            < 22 => 0.9,
            _ => 0.93,
        };
}
