using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Upkeep;

namespace Fehler.History;

/// <summary>Upkeep of the demo plant's past, as the demo brings it in.</summary>
internal sealed record PastRound(
    string Circuit,
    string Rule,
    string Who,
    double DaysAgo,
    string Text,
    double Minutes,
    string Working,
    IReadOnlyList<JournalEntry> Readings
);

/// <summary>
/// Rounds of two years: each rule somewhere near its interval, with what it measures. Most values only scatter; on a few circuits something
/// drifts, as it does in a sawmill: damp creeps into a pump, a conveyor gets heavier, a joint gets worse.
/// </summary>
internal sealed class PastRounds(IReadOnlyList<CompiledCircuit> circuits, IReadOnlyList<PastJob> jobs, int seed)
{
    private const double Days = 730;

    /// <summary>Factor by which a value changes in a year.</summary>
    private sealed record Drift(Followed What, double AYear);

    private static readonly Dictionary<string, Drift> Drifts = new()
    {
        ["WP-301"] = new(Followed.Insulation, 0.33),
        ["WP-303"] = new(Followed.Insulation, 0.45),
        ["LD-102"] = new(Followed.RunningAmps, 1.08),
        ["CH-110"] = new(Followed.AmpsUnbalance, 2.2),
        ["KF-402"] = new(Followed.CoilOhms, 1.04),
    };

    private static readonly string[] People = ["R. Halvar", "M. Okonjo", "T. Brenn", "A. Werning"];

    private readonly Random _chance = new(seed);

    public List<PastRound> Make() => [.. circuits.SelectMany(OfCircuit).OrderByDescending(r => r.DaysAgo)];

    private IEnumerable<PastRound> OfCircuit(CompiledCircuit compiled)
    {
        var drift = Drifts.GetValueOrDefault(compiled.Circuit.Tag);
        var megohms = 30 + 200 * _chance.NextDouble();
        foreach (var upkeep in compiled.Upkeep.All)
        {
            // What is followed closely is looked at each quarter; the rest near its interval, now and then forgotten.
            var isClose = drift is not null && upkeep.Rule.Follows.Contains(drift.What);
            var months = isClose ? 3 : upkeep.Rule.Months * (0.8 + 0.5 * _chance.NextDouble());
            for (var ago = Days - 30 * months * _chance.NextDouble(); ago > 5; ago -= 30.44 * months)
            {
                if (!isClose && _chance.NextDouble() < 0.08)
                {
                    continue;
                }

                yield return Round(compiled, upkeep, drift, ago, megohms);
            }

            // What a job asked for is done some weeks after it, mostly.
            foreach (var job in jobs.Where(j => j.Circuit == compiled.Circuit.Tag && j.DaysAgo > 30 && Asks(upkeep.Rule, j)))
            {
                if (_chance.NextDouble() < 0.85)
                {
                    yield return Round(compiled, upkeep, drift, job.DaysAgo - 5 - 20 * _chance.NextDouble(), megohms);
                }
            }
        }
    }

    private static bool Asks(UpkeepRule rule, PastJob job) =>
        job.Entries.OfType<Finding>().Any(f => rule.AfterFaults.Any(w => f.Fault.Contains(w, StringComparison.Ordinal)));

    private PastRound Round(CompiledCircuit compiled, CircuitUpkeep upkeep, Drift? drift, double ago, double megohms)
    {
        var working = "";
        var readings = new List<JournalEntry>();
        if (!upkeep.Rule.Readings.IsEmpty)
        {
            (working, readings) = Measured(compiled, upkeep.Rule, drift, (Days - ago) / 365.25, megohms);
        }

        return new PastRound(
            compiled.Circuit.Tag,
            upkeep.Rule.Id,
            People[_chance.Next(People.Length)],
            Math.Round(ago, 1),
            "",
            Math.Round(upkeep.Minutes * (0.8 + 0.6 * _chance.NextDouble())),
            working,
            readings
        );
    }

    private (string Working, List<JournalEntry> Readings) Measured(
        CompiledCircuit compiled,
        UpkeepRule rule,
        Drift? drift,
        double years,
        double megohms
    )
    {
        var runs = compiled.FunctionTest.Steps.FirstOrDefault(s => !s.Currents.IsEmpty);
        var working = rule.State == UpkeepState.Live && runs is not null ? SeriesValues.Working(compiled.Circuit, runs.Expected) : "";
        var (readings, celsius, line) = (new List<JournalEntry>(), Math.Round(8 + 20 * _chance.NextDouble()), 0);
        double Factor(Followed what) => drift?.What == what ? Math.Pow(drift.AYear, years) : 1;
        double Scatter(double share) => 1 + share * (2 * _chance.NextDouble() - 1);
        var amps = Scatter(0.04);
        foreach (var asked in rule.Readings)
        {
            double? value = asked.Quantity switch
            {
                // The same winding, colder or warmer: it doubles for every 10 K colder.
                Quantity.Insulation => megohms * 1e6 * Factor(Followed.Insulation) * Math.Pow(2, (40 - celsius) / 10) * Scatter(0.08),
                Quantity.Ohms => Ohms(compiled, asked) is { } ohms ? ohms * Factor(Followed.CoilOhms) * Scatter(0.012) : null,
                Quantity.Volts => compiled.Circuit.Supply.Kind.SourceOf(compiled.Circuit.Supply)!.LineVolts.Value * Scatter(0.015),
                Quantity.Amps when runs?.Currents.FirstOrDefault(c => c.Terminal == asked.From) is { } current => current.Amps
                    * amps
                    * Factor(Followed.RunningAmps)
                    * (1 + (line++ == 0 ? 0.02 * Factor(Followed.AmpsUnbalance) : 0))
                    * Scatter(0.008),
                _ => null,
            };
            if (value is { } read)
            {
                readings.Add(
                    new Reading(asked.Quantity, asked.From, asked.To, [], ReadingValue.Of(Rounded(read)))
                    {
                        Celsius = asked.Quantity == Quantity.Insulation ? celsius : null,
                    }
                );
            }
        }

        return (working, readings);
    }

    private static double? Ohms(CompiledCircuit compiled, AskedReading asked)
    {
        var simulator = new Simulator(compiled.Network);
        var dead = simulator.Do(CircuitState.AtRest(compiled.Circuit), compiled.Isolation.Off).State;
        var ohms = compiled.Network.Ohms(dead, asked.From, asked.To);
        return ohms.IsOpen ? null : ohms.Value;
    }

    private static double Rounded(double value) =>
        value == 0
            ? 0
            : Math.Round(value / Math.Pow(10, Math.Floor(Math.Log10(value)) - 2)) * Math.Pow(10, Math.Floor(Math.Log10(value)) - 2);
}
