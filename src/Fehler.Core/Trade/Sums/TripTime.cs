using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>How long an overload takes at a measured current, cold and warm, with what its class allows around it.</summary>
[Sum(
    "trip-time",
    "Motor",
    "Trip time at a current",
    Source = "One time constant through the gates of IEC 60947-4-1 (from memory); 16 A on a dial of 10 A, class 10: 3 to 4 min, common practice"
)]
public sealed record TripTime : Sum
{
    [Option("Relay", "Dial", Unit = "A", Maximum = 5000)]
    public double DialAmps { get; init; } = 10;

    [Option("Relay", "Trip class", Minimum = 5, Maximum = 40)]
    public double TripClass { get; init; } = 10;

    [Option("Relay", "Trips early with a phase lost")]
    public bool PhaseLossSensitive { get; init; } = true;

    [Option("Measured", "Highest line current", Unit = "A", Maximum = 50000)]
    public double Amps { get; init; } = 16;

    [Option("Measured", "One line draws nothing")]
    public bool PhaseLost { get; init; }

    /// <summary>Warm: after hours at its setting.</summary>
    private const double Warm = 1;

    public override SumResult Work()
    {
        Positive(("Dial", DialAmps), ("Trip class", TripClass), ("Line current", Amps));
        var multiple = Amps / DialAmps;
        var line = Line("Current over the dial", $"{N(Amps)} A / {N(DialAmps)} A", multiple, "times");
        var carries = TripCurve.UltimateOf(PhaseLost, PhaseLossSensitive);
        if (multiple <= carries)
        {
            return Result([line], $"It does not trip: up to {N(carries)} times its dial it carries for ever.") with { Plot = Plot(null) };
        }

        var (cold, warm) = (
            TripCurve.Time(multiple, TripClass, PhaseLost, PhaseLossSensitive),
            TripCurve.Time(multiple, TripClass, PhaseLost, PhaseLossSensitive, Warm)
        );
        return Result(
            [
                Line("From cold", $"τ · ln(m² / (m² − {N(carries)}²)), τ = {N(TripCurve.TimeConstant(TripClass))} s", cold.Value, "s"),
                Line("Soonest by its class", $"{N(TripCurve.Soonest)} · {N(cold.Value)} s", TripCurve.Soonest * cold.Value, "s"),
                Line("Latest by its class", $"{N(TripCurve.Latest)} · {N(cold.Value)} s", TripCurve.Latest * cold.Value, "s"),
                Line("Warm from hours at its dial", $"τ · ln((m² − 1) / (m² − {N(carries)}²))", warm.Value, "s"),
                line,
            ],
            cold.Value > 60 ? $"From cold that is {N(cold.Value / 60)} min." : "",
            "If it takes longer than the latest: wrong class, a dial higher than drawn, or a worn relay."
        ) with
        {
            Plot = Plot((multiple, cold.Value)),
        };
    }

    private SumPlot Plot((double, double)? mark)
    {
        var from = TripCurve.UltimateOf(PhaseLost, PhaseLossSensitive);
        var multiples = Enumerable.Range(1, 60).Select(i => from * Math.Pow(10 / from, i / 60.0)).ToList();
        SumCurve Curve(string name, double share, double heat) =>
            new(
                name,
                [.. multiples.Select(m => new SumPoint(m, share * TripCurve.Time(m, TripClass, PhaseLost, PhaseLossSensitive, heat).Value))]
            );
        return new SumPlot(
            "current over the dial",
            "s",
            true,
            [
                Curve("cold", 1, 0),
                Curve("soonest by class", TripCurve.Soonest, 0),
                Curve("latest by class", TripCurve.Latest, 0),
                Curve("warm", 1, Warm),
            ],
            mark is { } m ? new SumPoint(m.Item1, m.Item2) : null
        );
    }
}
