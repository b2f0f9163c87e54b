using System.Text;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Evaluate;

/// <summary>
/// Panels that are not what the drawing says: parameters scattered as make, age and place have it, mistakes with the meter, faults that
/// strike during a run, wires exchanged that no catalogue lists. The diagnosis knows the description only.
/// </summary>
/// <param name="every">One fault in this many is tried.</param>
/// <param name="only">The name of the kind of panel that is tried, or part of the names of those that are; empty for all of them.</param>
/// <param name="faults">Part of the ids of the faults that are tried; empty for all of them.</param>
internal sealed class DifferingPanels(int every, string only, string faults)
{
    private const double WrongShare = 0.1,
        Sure = 0.99;

    private const int LongReadings = 10;

    /// <summary>What became of one job.</summary>
    /// <param name="Weight">How often such a fault happens.</param>
    /// <param name="Repeated">Readings of the same two points in a state in which they had been read.</param>
    /// <param name="Ended">Circuit, fault and how it ended, for a list of the jobs that somebody should look at.</param>
    private sealed record Job(double Said, bool Right, bool Proved, int Readings, int Repeated, double Weight, string Ended);

    private sealed record Kind(string What, Func<CompiledCircuit, IEnumerable<FaultMode>> Faults, Func<int, GuidedRunOptions> Options);

    private IEnumerable<Kind> Kinds =>
        [
            new("as drawn", Drawn, seed => new GuidedRunOptions { Seed = seed }),
            new("scattered", Drawn, seed => new GuidedRunOptions { Seed = seed, Differs = true }),
            new(
                "scattered, one reading in ten wrong",
                Drawn,
                seed => new GuidedRunOptions
                {
                    Seed = seed,
                    Differs = true,
                    WrongShare = WrongShare,
                }
            ),
            new(
                "scattered, strikes during a run",
                Drawn,
                seed => new GuidedRunOptions
                {
                    Seed = seed,
                    Differs = true,
                    StrikesWhileRunning = true,
                }
            ),
            new(
                "scattered, one operation in ten not as written",
                Drawn,
                seed => new GuidedRunOptions
                {
                    Seed = seed,
                    Differs = true,
                    MistakenShare = WrongShare,
                }
            ),
            new(
                "scattered, begins with a machine that somebody started",
                Drawn,
                seed => new GuidedRunOptions
                {
                    Seed = seed,
                    Differs = true,
                    BeginsRunning = true,
                    StrikesWhileRunning = seed % 2 == 0,
                }
            ),
            new("scattered, two wires exchanged", Exchanged, seed => new GuidedRunOptions { Seed = seed, Differs = true }),
            new(
                "scattered, two wires exchanged, work on it told",
                Exchanged,
                seed => new GuidedRunOptions
                {
                    Seed = seed,
                    Differs = true,
                    Told = [new Told(Circumstance.WorkedOn)],
                }
            ),
        ];

    /// <summary>Tries every kind of panel on every circuit.</summary>
    public string Report(IReadOnlyList<(string Name, Circuit Circuit)> circuits, Action<string> progress)
    {
        var text = new StringBuilder(
            "| panels | jobs | right | proved | readings (90 %) | above 99 % and wrong | calibration error | read again |\n"
                + "|---|---|---|---|---|---|---|---|\n"
        );
        var missed = new StringBuilder();
        var compiled = circuits.Select(c => (c.Name, Compiled: c.Circuit.Compile())).ToList();
        var isName = Kinds.Any(k => k.What == only);
        foreach (var kind in Kinds.Where(k => isName ? k.What == only : k.What.Contains(only, StringComparison.OrdinalIgnoreCase)))
        {
            var jobs = new List<Job>();
            foreach (var (name, circuit) in compiled)
            {
                progress($"{kind.What}: {name}");
                foreach (var (fault, i) in kind.Faults(circuit).Select((f, i) => (f, i)))
                {
                    var run = GuidedRun.On(circuit, [fault], kind.Options(1000 + i));
                    if (run.HasSymptom)
                    {
                        var job = Of(name, fault, run);
                        jobs.Add(job);
                        if (!job.Proved || job.Readings > LongReadings)
                        {
                            progress($"  to be looked at: {job.Ended}");
                        }
                    }
                }
            }

            var sure = jobs.Where(j => j.Said > Sure).ToList();
            var readings = jobs.Select(j => j.Readings).Order().ToList();
            text.AppendLine(
                $"| {kind.What} | {jobs.Count} | {jobs.Count(j => j.Right)} ({jobs.Average(j => j.Right ? 1.0 : 0):P0}) | "
                    + $"{jobs.Count(j => j.Proved)} | {readings.Average():0.0} ({readings[(int)(0.9 * readings.Count)]}) | "
                    + $"{sure.Count(j => !j.Right)} of {sure.Count} | {Calibration(jobs):0.000} | {jobs.Sum(j => j.Repeated)} |"
            );
            missed.AppendLine($"- {kind.What}, missed: {Listed(jobs.Where(j => !j.Right))}");
            missed.AppendLine($"  - right and not proved: {Listed(jobs.Where(j => j is { Right: true, Proved: false }))}");
            missed.AppendLine($"  - more than {LongReadings} readings: {Listed(jobs.Where(j => j.Readings > LongReadings))}");
        }

        return $"{text}\n{missed}";
    }

    private static string Listed(IEnumerable<Job> jobs) => string.Join("; ", jobs.Select(j => j.Ended));

    private IEnumerable<FaultMode> Drawn(CompiledCircuit circuit) =>
        circuit.Faults.Where(f => f.Id.Contains(faults, StringComparison.Ordinal)).Where((_, i) => i % Math.Max(1, every) == 0);

    /// <summary>Two control wires of one place with their ends exchanged: not in any catalogue, drawn by chance.</summary>
    private IEnumerable<FaultMode> Exchanged(CompiledCircuit compiled)
    {
        var (circuit, chance) = (compiled.Circuit, new Random(1));
        var control = circuit
            .Conductors.Where(c => c.Wire != "PE" && circuit.Location(circuit.Device(c.To.Device).Location).Type == LocationType.Enclosure)
            .Where(c =>
                circuit.Device(c.To.Device).Kind.Poles(circuit.Device(c.To.Device)).All(p => p.Line != c.To.Name && p.Load != c.To.Name)
            )
            .ToList();
        for (var i = 0; i < Math.Max(2, 200 / Math.Max(1, every)) && control.Count > 3; i++)
        {
            var (a, b) = (control[chance.Next(control.Count)], control[chance.Next(control.Count)]);
            if (a.Wire != b.Wire && a.To != b.To)
            {
                yield return new FaultMode(
                    $"{a.Id}/exchanged-with-{b.Id}",
                    a.Id,
                    $"Wires {a.Wire} and {b.Wire} are exchanged",
                    Miswiring.Exchanged(a, b),
                    0.1,
                    "Land them as drawn."
                );
            }
        }
    }

    private static Job Of(string circuit, FaultMode fault, GuidedRun run)
    {
        var top = run.Result.Units.FirstOrDefault(u => u.Unit.Length > 0);
        // Of exchanged wires either names the place.
        string[] right = fault.Id.Contains("/exchanged-with-", StringComparison.Ordinal)
            ? [fault.Unit, fault.Id.Split("/exchanged-with-")[1]]
            : [fault.Unit];
        var isRight = top is not null && top.Alike.Append(top.Unit).Intersect(right).Any();
        return new Job(
            top?.Probability ?? 0,
            isRight,
            isRight && run.Result.Status == DiagnosisStatus.Found,
            run.Readings,
            Repeated(run.Entries),
            fault.Weight,
            $"{circuit} {fault.Id}{fault.Variant} → {top?.Unit} {top?.Probability:P0} {run.Result.Status} {run.Readings}"
        );
    }

    private static int Repeated(IEnumerable<JournalEntry> entries)
    {
        var (again, known) = (0, new HashSet<string>());
        foreach (var entry in entries)
        {
            switch (entry)
            {
                case Reading r:
                    again += known.Add($"{r.Quantity} {r.From} {r.To} {string.Join(' ', r.Held)}") ? 0 : 1;
                    break;
                case not LookSeen:
                    known.Clear();
                    break;
            }
        }

        return again;
    }

    private static double Calibration(List<Job> jobs)
    {
        var total = jobs.Sum(j => j.Weight);
        return jobs.GroupBy(j => Math.Min(19, (int)(20 * j.Said)))
            .Sum(g => Math.Abs(g.Sum(j => j.Weight * j.Said) - g.Sum(j => j.Right ? j.Weight : 0)) / total);
    }
}
