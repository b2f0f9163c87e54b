using System.Text;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Evaluate;

/// <summary>Writes the trials as a report to read.</summary>
internal sealed class ReportWriter(IReadOnlyList<FamilyReport> reports, int every, int pairs)
{
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web) { WriteIndented = true };

    public string Text()
    {
        var text = new StringBuilder();
        text.AppendLine(
            $"Every {every}. fault (with its sizes) of each catalogue, {pairs} pairs a circuit, fixed seed. Readings and "
                + "minutes are means; right is the unit or one that nothing on offer tells from it."
        );
        text.AppendLine();
        text.AppendLine(
            "| circuit | with a symptom | right | proved | readings to isolate | with proof (90 %) | bits to name the unit | "
                + "from the supply | halving | looks | minutes (from the supply) | right with 1 in 10 wrong | both of two |"
        );
        text.AppendLine("|---|---|---|---|---|---|---|---|---|---|---|---|---|");
        foreach (var r in reports.Append(All()))
        {
            text.AppendLine(
                $"| {r.Circuit} | {r.Shown} of {r.Tried} | {r.Right} | {r.Proved} | {Mean(r.ReadingsToIsolate):0.0} | "
                    + $"{Mean(r.Readings):0.0} ({Percentile(Doubles(r.Readings), 0.9):0}) | "
                    + $"{r.BitsOfFault.DefaultIfEmpty().Average():0.0} | {Mean(r.WalkedReadings):0.0} | {Mean(r.HalvedReadings):0.0} "
                    + $"| {Mean(r.Looks):0.0} | {r.Minutes.DefaultIfEmpty().Average():0} "
                    + $"({r.WalkedMinutes.DefaultIfEmpty().Average():0}) | {r.RightWithMistakes} of {r.WithMistakes} | {r.BothFound} "
                    + $"of {r.Doubles} |"
            );
        }

        var all = All();
        text.AppendLine()
            .AppendLine(
                "Readings to isolate over bits to name the unit: "
                    + $"{Mean(all.ReadingsToIsolate) / all.BitsOfFault.DefaultIfEmpty().Average():0.00}; with proof: "
                    + $"{Mean(all.Readings) / all.BitsOfFault.DefaultIfEmpty().Average():0.00}. With proof over walking from the "
                    + $"supply: {Mean(all.Readings) / Mean(all.WalkedReadings):P0}; over halving: "
                    + $"{Mean(all.Readings) / Mean(all.HalvedReadings):P0}."
            );
        text.AppendLine().AppendLine(Calibration()).AppendLine(Times());
        foreach (var r in reports.Where(r => r.Missed.Length > 0))
        {
            text.AppendLine($"- {r.Circuit}, missed: {string.Join("; ", r.Missed)}");
        }

        return text.ToString();
    }

    private FamilyReport All() =>
        new()
        {
            Circuit = "**all**",
            Faults = reports.Sum(r => r.Faults),
            Tried = reports.Sum(r => r.Tried),
            Shown = reports.Sum(r => r.Shown),
            Right = reports.Sum(r => r.Right),
            Proved = reports.Sum(r => r.Proved),
            SilentRight = reports.Sum(r => r.SilentRight),
            Readings = [.. reports.SelectMany(r => r.Readings)],
            ReadingsToIsolate = [.. reports.SelectMany(r => r.ReadingsToIsolate)],
            Looks = [.. reports.SelectMany(r => r.Looks)],
            Minutes = [.. reports.SelectMany(r => r.Minutes)],
            BitsAfterSymptom = [.. reports.SelectMany(r => r.BitsAfterSymptom)],
            BitsOfFault = [.. reports.SelectMany(r => r.BitsOfFault)],
            WalkedReadings = [.. reports.SelectMany(r => r.WalkedReadings)],
            WalkedMinutes = [.. reports.SelectMany(r => r.WalkedMinutes)],
            HalvedReadings = [.. reports.SelectMany(r => r.HalvedReadings)],
            WithMistakes = reports.Sum(r => r.WithMistakes),
            RightWithMistakes = reports.Sum(r => r.RightWithMistakes),
            Doubles = reports.Sum(r => r.Doubles),
            BothFound = reports.Sum(r => r.BothFound),
            Sure = [.. reports.SelectMany(r => r.Sure)],
            ColdMilliseconds = [.. reports.SelectMany(r => r.ColdMilliseconds)],
            WarmMilliseconds = [.. reports.SelectMany(r => r.WarmMilliseconds)],
            Missed = [],
        };

    /// <summary>
    /// Expected calibration error: how far the probability said at the end is from the share that was right, over ten bins, faults
    /// counted by how often they happen.
    /// </summary>
    private string Calibration()
    {
        var sure = reports.SelectMany(r => r.Sure).ToList();
        var total = sure.Sum(s => s.Weight);
        var bins = sure.GroupBy(s => Math.Min(9, (int)(10 * s.Probability)))
            .OrderBy(g => g.Key)
            .Select(g =>
                (
                    Bin: g.Key,
                    Said: g.Sum(s => s.Probability * s.Weight) / g.Sum(s => s.Weight),
                    Was: g.Sum(s => s.Right ? s.Weight : 0) / g.Sum(s => s.Weight),
                    Weight: g.Sum(s => s.Weight),
                    Count: g.Count()
                )
            )
            .ToList();
        var text = new StringBuilder("| said at the end | was right | runs |\n|---|---|---|\n");
        foreach (var bin in bins)
        {
            text.Append($"| {bin.Said:P0} | {bin.Was:P0} | {bin.Count} |\n");
        }

        return text.Append(
                $"\nExpected calibration error {bins.Sum(b => b.Weight / total * Math.Abs(b.Said - b.Was)):0.000} over "
                    + $"{sure.Count} runs; above 99 % and wrong: {sure.Count(s => s.Probability > 0.99 && !s.Right)} of "
                    + $"{sure.Count(s => s.Probability > 0.99)}.\n"
            )
            .ToString();
    }

    private string Times()
    {
        var (cold, warm) = (reports.SelectMany(r => r.ColdMilliseconds).ToList(), reports.SelectMany(r => r.WarmMilliseconds).ToList());
        return $"Time to a proposal: the first of a job median {Percentile(cold, 0.5):0} ms, 95 % {Percentile(cold, 0.95):0} "
            + $"ms, longest {cold.Max():0} ms; later ones median {Percentile(warm, 0.5):0} ms, 95 % {Percentile(warm, 0.95):0} ms, "
            + $"longest {warm.Max():0} ms.\n";
    }

    private static double Mean(int[] values) => values.Length == 0 ? double.NaN : values.Average();

    private static double[] Doubles(int[] values) => [.. values.Select(v => (double)v)];

    private static double Percentile(IEnumerable<double> values, double share)
    {
        var sorted = values.Order().ToList();
        return sorted.Count == 0 ? double.NaN : sorted[(int)Math.Min(sorted.Count - 1, share * sorted.Count)];
    }
}
