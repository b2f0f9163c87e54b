using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;

namespace Fehler.Evaluate;

/// <summary>Every trial on one circuit: single faults in three ways of working and with mistakes, and two faults at once.</summary>
/// <param name="name">Name in the report.</param>
/// <param name="circuit">The healthy circuit.</param>
/// <param name="every">One fault in this many (with its sizes) is tried.</param>
/// <param name="pairs">How many pairs of faults are tried.</param>
internal sealed class Trials(string name, Circuit circuit, int every, int pairs)
{
    private const double WrongShare = 0.1;
    private const int Seed = 1;

    // As in the service: what follows from the circuit is worked out once for all jobs on it.
    private readonly CompiledCircuit _compiled = circuit.Compile();

    /// <summary>What is tried, how many are done, of how many.</summary>
    public event Action<string, int, int>? Progress;

    public FamilyReport Run()
    {
        var all = _compiled.Faults;
        var faults = all.Where((_, i) => i % Math.Max(1, every) == 0).ToList();
        var best = Each("most telling first", faults, f => GuidedRun.On(_compiled, f, seed: Seed));
        // Those without a symptom are found by a function test or a bench check, not by diagnosis.
        var shown = faults.Zip(best).Where(x => x.Second.HasSymptom).ToList();
        List<FaultMode> symptomatic = [.. shown.Select(x => x.First)];
        var walked = Each("from the supply", symptomatic, f => GuidedRun.On(_compiled, f, Strategy.FromSupply, Seed));
        var halved = Each("halving", symptomatic, f => GuidedRun.On(_compiled, f, Strategy.Halving, Seed));
        var mistaken = Each(
            "one in ten wrong",
            symptomatic,
            f => GuidedRun.On(_compiled, [f], new GuidedRunOptions { Seed = Seed, WrongShare = WrongShare })
        );
        var doubles = Each("two faults", [.. Two(all)], f => GuidedRun.On(_compiled, f, new GuidedRunOptions { Seed = Seed }));
        return new FamilyReport
        {
            Circuit = name,
            Faults = all.Count,
            Tried = faults.Count,
            Shown = shown.Count,
            Right = shown.Count(x => IsRight(x.Second, x.First)),
            Proved = shown.Count(x => x.Second.Result.Status == DiagnosisStatus.Found),
            SilentRight = faults.Zip(best).Count(x => !x.Second.HasSymptom && IsRight(x.Second, x.First)),
            Readings = [.. shown.Select(x => x.Second.Readings)],
            ReadingsToIsolate = [.. shown.Select(x => x.Second.ReadingsToIsolate < 0 ? x.Second.Readings : x.Second.ReadingsToIsolate)],
            Looks = [.. shown.Select(x => x.Second.Looks)],
            Minutes = [.. shown.Select(x => x.Second.Minutes)],
            BitsAfterSymptom = [.. shown.Select(x => x.Second.BitsAfterSymptom)],
            BitsOfFault = [.. shown.Select(x => x.Second.BitsOfFault)],
            WalkedReadings = [.. walked.Select(r => r.Readings)],
            WalkedMinutes = [.. walked.Select(r => r.Minutes)],
            HalvedReadings = [.. halved.Select(r => r.Readings)],
            WithMistakes = mistaken.Count,
            RightWithMistakes = symptomatic.Zip(mistaken).Count(x => IsRight(x.Second, x.First)),
            Doubles = doubles.Count(r => r.HasSymptom),
            BothFound = doubles.Count(r => r.HasSymptom && IsDone(r)),
            Sure =
            [
                .. shown
                    .Concat(symptomatic.Zip(mistaken))
                    .Select(x => new Sureness(Top(x.Second)?.Probability ?? 0, IsRight(x.Second, x.First), x.First.Weight)),
            ],
            ColdMilliseconds = [.. best.Select(r => r.Thinking[0].TotalMilliseconds)],
            WarmMilliseconds = [.. best.SelectMany(r => r.Thinking.Skip(1)).Select(t => t.TotalMilliseconds)],
            Missed =
            [
                .. shown.Where(x => !IsRight(x.Second, x.First)).Select(x => Missed("", x.First.Id + x.First.Variant, x.Second)),
                .. symptomatic
                    .Zip(mistaken)
                    .Where(x => !IsRight(x.Second, x.First))
                    .Select(x => Missed("with mistakes: ", x.First.Id + x.First.Variant, x.Second)),
                .. doubles
                    .Where(r => r.HasSymptom && !IsDone(r))
                    .Select(r => Missed("of two: ", string.Join(", ", r.Left.Select(f => f.Id + f.Variant)), r)),
            ],
        };
    }

    private List<GuidedRun> Each<T>(string what, List<T> items, Func<T, GuidedRun> run)
    {
        var runs = new List<GuidedRun>();
        foreach (var item in items)
        {
            runs.Add(run(item));
            Progress?.Invoke(what, runs.Count, items.Count);
        }

        return runs;
    }

    /// <summary>Pairs drawn by how often each fault happens.</summary>
    private IEnumerable<FaultMode[]> Two(IReadOnlyList<FaultMode> all)
    {
        var random = new Random(Seed);
        FaultMode Draw()
        {
            var at = random.NextDouble() * all.Sum(f => f.Weight);
            return all.First(f => (at -= f.Weight) <= 0);
        }

        for (var n = 0; n < pairs; n++)
        {
            var (a, b) = (Draw(), Draw());
            while (a.Unit == b.Unit)
            {
                b = Draw();
            }

            yield return [a, b];
        }
    }

    private static string Missed(string how, string fault, GuidedRun run) =>
        $"{how}{fault}: {Top(run)?.Unit ?? "nothing"} {Top(run)?.Probability:P0}, {run.Result.Status}";

    /// <summary>Every fault was named and repaired, or what is left shows in nothing that an operator does.</summary>
    private static bool IsDone(GuidedRun run) => run.Left.Count == 0 || run.WorksAgain;

    private static SuspectUnit? Top(GuidedRun run) => run.Result.Units.FirstOrDefault(u => u.Unit.Length > 0);

    /// <summary>What is named is the unit itself or one that no reading on offer tells from it.</summary>
    private static bool IsRight(GuidedRun run, FaultMode fault) =>
        Top(run) is { } top && (top.Unit == fault.Unit || top.Alike.Contains(fault.Unit));
}
