using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Speed of a motor's field, and its slip: 120 f / p.</summary>
[Sum("field-speed", "Motor", "Speed, slip, poles", Source = "Definition")]
public sealed record FieldSpeed : Sum
{
    [Option("Motor", "Poles", Minimum = 2, Maximum = 48)]
    public int Poles { get; init; } = 4;

    [Option("Supply", "Frequency", Unit = "Hz", Maximum = 400)]
    public double Hertz { get; init; } = 50;

    [Option("Measured", "Speed; 0: not measured", Unit = "1/min", Maximum = 20000)]
    public double Rpm { get; init; }

    public override SumResult Work()
    {
        Positive(("Frequency", Hertz), ("Poles", Poles));
        Expect(Poles % 2 == 0, "Poles come in pairs: 2, 4, 6 and so on.");
        var field = 120 * Hertz / Poles;
        return Rpm > 0
            ? Result([
                Line("Speed of the field", $"120 · {N(Hertz)} Hz / {Poles}", field, "1/min"),
                Line("Slip", $"({N(field)} − {N(Rpm)}) / {N(field)}", 100 * (field - Rpm) / field, "%"),
            ])
            : Result([Line("Speed of the field", $"120 · {N(Hertz)} Hz / {Poles}", field, "1/min")]);
    }
}
