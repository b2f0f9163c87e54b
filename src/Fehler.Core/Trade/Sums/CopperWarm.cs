using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>Copper at another temperature, and the temperature from the ohms: (234.5 + t₂) / (234.5 + t₁).</summary>
[Sum(
    "copper-warm",
    "Motor",
    "Copper, warm and cold",
    Source = "IEC 60034-1, 8.6.2, from memory: 235 for copper; 234.5 as in North American rules"
)]
public sealed record CopperWarm : Sum
{
    [Option("Cold", "Resistance", Unit = "Ω", Maximum = 1000000)]
    public double ColdOhms { get; init; } = 1;

    [Option("Cold", "Temperature", Unit = "°C", Minimum = -60, Maximum = 250)]
    public double ColdCelsius { get; init; } = 20;

    [Option("Warm", "Temperature", Unit = "°C", Minimum = -60, Maximum = 250)]
    public double WarmCelsius { get; init; } = 100;

    [Option("Warm", "Resistance that was read; 0: none", Unit = "Ω", Maximum = 1000000)]
    public double WarmOhms { get; init; }

    public override SumResult Work()
    {
        const double zero = 234.5;
        Positive(("Resistance when cold", ColdOhms));
        var ohms = ColdOhms * (zero + WarmCelsius) / (zero + ColdCelsius);
        var line = Line("Resistance warm", $"{N(ColdOhms)} Ω · (234.5 + {N(WarmCelsius)}) / (234.5 + {N(ColdCelsius)})", ohms, "Ω");
        if (WarmOhms <= 0)
        {
            return Result([line]);
        }

        var celsius = (zero + ColdCelsius) * WarmOhms / ColdOhms - zero;
        return Result([
            line,
            Line("Temperature by the ohms", $"(234.5 + {N(ColdCelsius)}) · {N(WarmOhms)} / {N(ColdOhms)} − 234.5", celsius, "°C"),
            Line("Rise", $"{N(celsius)} − {N(ColdCelsius)}", celsius - ColdCelsius, "K"),
        ]);
    }
}
