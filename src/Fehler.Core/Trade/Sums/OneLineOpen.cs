using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>What the two other lines draw when one is open: √3/2 of the locked-rotor current standing, some 1.7 to 2 times running.</summary>
[Sum("one-line-open", "Motor", "One line open", Source = "Two windings in series on line volts: √3/2; running: common practice")]
public sealed record OneLineOpen : Sum
{
    [Option("Plate", "Rated current", Unit = "A", Maximum = 5000)]
    public double Amps { get; init; } = 8.1;

    [Option("Plate", "Starting current over rated", Minimum = 1, Maximum = 15)]
    public double StartingMultiple { get; init; } = 6;

    [Option("Now", "It draws with all lines", Unit = "A", Maximum = 5000, Help = "0: the rated current.")]
    public double RunningAmps { get; init; }

    public override SumResult Work()
    {
        Positive(("Rated current", Amps), ("Starting current over rated", StartingMultiple));
        var running = RunningAmps > 0 ? RunningAmps : Amps;
        return Result(
            [
                Line("Standing, in two lines, over rated", $"√3/2 · {N(StartingMultiple)}", Root3 / 2 * StartingMultiple, "times"),
                Line("Standing, in two lines", $"√3/2 · {N(StartingMultiple)} · {N(Amps)} A", Root3 / 2 * StartingMultiple * Amps, "A"),
                Line("Running on, at least", $"1.7 · {N(running)} A", 1.7 * running, "A"),
                Line("Running on, up to", $"2 · {N(running)} A", 2 * running, "A"),
            ],
            "It hums and does not start, or runs on hot until the overload trips: the open line reads 0 A."
        );
    }
}
