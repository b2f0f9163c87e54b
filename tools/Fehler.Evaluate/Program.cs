using System.Globalization;
using System.Text.Json;
using Fehler.Core.Diagnosis;
using Fehler.Evaluate;

// Follows the proposals on simulated panels and reports how well that goes. Fixed seeds: the same arguments give the same faults.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
string[] known = ["--every", "--pairs", "--circuit", "--json", "--report", "--panels", "--kind", "--faults"];
if (args.FirstOrDefault(a => a[0] == '-' && !known.Contains(a)) is { } unknown)
{
    // A typing mistake must not start an hour of work.
    Console.Error.WriteLine($"{unknown} is not known. Use: evaluate [EVERY] {string.Join(" ", known)}; see docs/diagnosis-quality.md.");
    return 2;
}

var every = Number("--every", args.Length > 0 && args[0][0] != '-' ? args[0] : "10");
var pairs = Number("--pairs", "6");
var only = Text("--circuit", "");
var json = Text("--json", "");
var report = Text("--report", "");
if (args.Contains("--panels"))
{
    var chosen = Circuits
        .All.Where(c => c.Name.Contains(only, StringComparison.OrdinalIgnoreCase))
        .Select(c => (c.Name, c.Circuit))
        .ToList();
    var panels = new DifferingPanels(every, Text("--kind", ""), Text("--faults", "")).Report(chosen, what => Console.Error.WriteLine(what));
    Console.WriteLine(panels);
    if (report.Length > 0)
    {
        File.WriteAllText(report, panels);
    }

    return 0;
}

var reports = new List<FamilyReport>();
foreach (var (name, circuit) in Circuits.All.Where(c => c.Name.Contains(only, StringComparison.OrdinalIgnoreCase)))
{
    var trials = new Trials(name, circuit, every, pairs);
    trials.Progress += (what, done, all) =>
    {
        if (!Console.IsErrorRedirected)
        {
            var bar = new string('#', 30 * done / Math.Max(1, all));
            Console.Error.Write($"\r{name, -52} {what, -22} [{bar, -30}] {done} of {all} ");
        }
    };
    reports.Add(trials.Run());
    Console.Error.WriteLine();
}

var text = new ReportWriter(reports, every, pairs).Text();
Console.WriteLine(text);
if (report.Length > 0)
{
    File.WriteAllText(report, text);
}

if (json.Length > 0)
{
    File.WriteAllText(json, JsonSerializer.Serialize(reports, ReportWriter.Json));
}

return 0;

string Text(string name, string fallback)
{
    var i = Array.IndexOf(args, name);
    return i < 0 ? fallback
        : i + 1 < args.Length ? args[i + 1]
        : throw new ArgumentException($"{name} needs a value.");
}

int Number(string name, string fallback) =>
    int.TryParse(Text(name, fallback), out var n) && n >= 0 ? n : throw new ArgumentException($"{name} needs a whole number.");
