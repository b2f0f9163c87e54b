using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Whether a contactor pulls in at the end of a long control cable: coil and conductors as a divider at the pull-in burden.</summary>
[Sum("coil-pull-in", "Control", "Does the coil pull in", Source = "Ohm's law at the pull-in burden; 85 %: IEC 60947-4-1, from memory")]
public sealed record CoilPullIn : Sum
{
    [Option("Coil", "Rated volts", Unit = "V", Minimum = 6, Maximum = 690)]
    public double Volts { get; init; } = 24;

    [Option("Coil", "Pull-in", Unit = "VA", Maximum = 5000)]
    public double PullInVa { get; init; } = 70;

    [Option("Coil", "Power factor at pull-in", Minimum = 0.1, Maximum = 1)]
    public double CosPhi { get; init; } = 0.75;

    [Option("Cable", "Length one way", Unit = "m", Maximum = 5000)]
    public double Metres { get; init; } = 100;

    [Option("Cable", "Section", Unit = "mm²", Minimum = 0.2, Maximum = 16)]
    public double SquareMillimetres { get; init; } = 1.5;

    [Option("Supply", "Volts where the cable begins; 0: as rated", Unit = "V", Maximum = 690)]
    public double SupplyVolts { get; init; }

    public const double Guaranteed = 0.85;

    public override SumResult Work()
    {
        Positive(("Rated volts", Volts), ("Pull-in", PullInVa), ("Power factor", CosPhi), ("Section", SquareMillimetres));
        var supply = SupplyVolts > 0 ? SupplyVolts : Volts;
        var impedance = Volts * Volts / PullInVa;
        var coil = Complex.FromPolarCoordinates(impedance, Math.Acos(CosPhi));
        var wires = 2 * Metres / 1000 * Conductor.OhmsPerKilometre(SquareMillimetres);
        var atCoil = supply * (coil / (coil + wires)).Magnitude;
        var share = atCoil / Volts;
        return Result(
            [
                Line(
                    "At the coil while it pulls in",
                    $"{N(supply)} V · |Z| / |Z + {N(wires)} Ω|, Z = {N(impedance)} Ω at cos φ {N(CosPhi)}",
                    atCoil,
                    "V"
                ),
                Line("Of its rated volts", $"{N(atCoil)} V / {N(Volts)} V", 100 * share, "%"),
                Line("Both conductors", $"2 · {N(Metres)} m · {N(Conductor.OhmsPerKilometre(SquareMillimetres))} Ω/km", wires, "Ω"),
            ],
            share >= Guaranteed
                ? "At least 85 %: it pulls in."
                : "Below 85 %: not guaranteed. A relay near the panel, thicker conductors or a higher control voltage."
        );
    }
}
