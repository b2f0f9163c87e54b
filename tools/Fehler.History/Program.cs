using System.Globalization;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.History;

// Writes two years of the demo plant: jobs that a simulated panel and the diagnosis made between them, and rounds with values that drift.
// Fixed seed: the same circuits give the same history. Usage: demo folder, jobs (default 110; 0: rounds only).
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var folder = args.Length > 0 ? args[0] : "demo";
var count = args.Length > 1 ? int.Parse(args[1], CultureInfo.InvariantCulture) : 110;
var circuits = Directory
    .GetFiles(Path.Combine(folder, "circuits"), "*.json")
    .Order(StringComparer.Ordinal)
    .Select(f => CircuitFile.Read(File.ReadAllText(f)).Compile())
    .ToList();
var history = Path.Combine(folder, "history");
Directory.CreateDirectory(history);
var compact = new JsonSerializerOptions(JournalJson.Options) { WriteIndented = false };

var jobs = Path.Combine(history, "jobs.jsonl");
if (count > 0)
{
    var made = new PastJobs(circuits, seed: 20241127).Make(count, (done, what) => Console.Error.WriteLine($"{done} of {count}: {what}"));
    File.WriteAllLines(jobs, made.Select(j => JsonSerializer.Serialize(j, compact)));
}

File.WriteAllLines(
    Path.Combine(history, "rounds.jsonl"),
    new PastRounds(circuits, [.. File.ReadLines(jobs).Select(l => JsonSerializer.Deserialize<PastJob>(l, compact)!)], seed: 11)
        .Make()
        .Select(r => JsonSerializer.Serialize(r, compact))
);
