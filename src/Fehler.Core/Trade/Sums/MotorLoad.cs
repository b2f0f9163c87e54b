using Fehler.Core.Options;

namespace Fehler.Core.Trade;

/// <summary>How far a motor is loaded, by its slip; and what low volts leave of its torque, which goes with the square.</summary>
[Sum(
    "motor-load",
    "Motor",
    "Load from the speed",
    Source = "Slip goes with torque and with the inverse square of the volts: common practice"
)]
public sealed record MotorLoad : Sum
{
    [Option("Motor", "Speed of its field", Unit = "1/min", Maximum = 20000)]
    public double SynchronousRpm { get; init; } = 1500;

    [Option("Motor", "Speed on the plate", Unit = "1/min", Maximum = 20000)]
    public double RatedRpm { get; init; } = 1440;

    [Option("Measured", "Speed", Unit = "1/min", Maximum = 20000)]
    public double Rpm { get; init; } = 1455;

    [Option("Motor", "Volts on the plate", Unit = "V", Maximum = 15000)]
    public double RatedVolts { get; init; } = 400;

    [Option("Measured", "Volts", Unit = "V", Maximum = 15000)]
    public double Volts { get; init; } = 400;

    public override SumResult Work()
    {
        Positive(
            ("Speed of its field", SynchronousRpm),
            ("Speed on the plate", RatedRpm),
            ("Volts", Volts),
            ("Volts on the plate", RatedVolts)
        );
        Expect(RatedRpm < SynchronousRpm, "A motor's plate says less than the speed of its field: 1440 where the field turns at 1500.");
        Expect(
            Rpm > 0 && Rpm <= SynchronousRpm,
            $"Without a load it turns at {N(SynchronousRpm)} at most; a faster one is driven by its load, or the speed was misread."
        );
        var volts = Volts / RatedVolts;
        var load = (SynchronousRpm - Rpm) / (SynchronousRpm - RatedRpm) * volts * volts;
        return Result(
            [
                Line(
                    "Load over rated",
                    $"({N(SynchronousRpm)} − {N(Rpm)}) / ({N(SynchronousRpm)} − {N(RatedRpm)}) · ({N(Volts)} V / {N(RatedVolts)} V)²",
                    100 * load,
                    "%"
                ),
                Line("Torque that is left at these volts", $"({N(Volts)} V / {N(RatedVolts)} V)²", 100 * volts * volts, "%"),
            ],
            load > 1.05 ? "It is loaded beyond its plate: look at the machine before the motor." : "",
            "A plate rounds its speed: between 25 and 100 % this is good to some ten percent."
        ) with
        {
            Plot = new SumPlot(
                "volts over the plate's, %",
                "torque left, %",
                false,
                [new SumCurve("torque", [.. Enumerable.Range(0, 25).Select(i => 2.0 * i + 60).Select(p => new SumPoint(p, p * p / 100))])],
                new SumPoint(100 * volts, 100 * volts * volts)
            ),
        };
    }
}
