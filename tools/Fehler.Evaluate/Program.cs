using System.Diagnostics;
using System.Globalization;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Faults;

// Follows the proposals on simulated panels: every Nth fault of a circuit of each family, fixed seed. Prints a report.
// Arguments: N, strategy, and part of a circuit's name to take that one only.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var every = args.Length > 0 ? int.Parse(args[0], CultureInfo.InvariantCulture) : 1;
var strategy = args.Length > 1 ? Enum.Parse<Strategy>(args[1], ignoreCase: true) : Strategy.MostTelling;
var only = args.Length > 2 ? args[2] : "";
foreach (var (name, circuit) in Circuits().Where(c => c.Item1.Contains(only, StringComparison.OrdinalIgnoreCase)))
{
    var faults = FaultCatalogue.Of(circuit).Where((_, i) => i % every == 0).ToList();
    var clock = Stopwatch.StartNew();
    var results = new List<(FaultMode Fault, GuidedRun Run, bool Right)>();
    foreach (var fault in faults)
    {
        var run = GuidedRun.On(circuit, fault, strategy);
        results.Add((fault, run, IsRight(run, fault)));
        if (!Console.IsErrorRedirected)
        {
            Console.Error.Write($"\r{name}: {results.Count} of {faults.Count}   ");
        }
    }

    var shown = results.Where(r => r.Run.HasSymptom).ToList();
    var silent = results.Where(r => !r.Run.HasSymptom).ToList();
    Console.WriteLine($"\n## {name}\n");
    Console.WriteLine($"- faults tried: {results.Count} ({faults.Select(f => f.Id).Distinct().Count()} modes), strategy {strategy}, {clock.Elapsed.TotalSeconds:0} s");
    Console.WriteLine($"- with a symptom: {shown.Count}; right unit or its indistinguishable group: {shown.Count(r => r.Right)}; proved by its own reading: {shown.Count(r => r.Run.Result.Status == DiagnosisStatus.Found)}");
    Console.WriteLine($"- readings, mean {shown.Average(r => r.Run.Readings):0.0}, 90th percentile {Percentile(shown.Select(r => (double)r.Run.Readings), 0.9):0}; looks, mean {shown.Average(r => r.Run.Looks):0.0}; estimated minutes, mean {shown.Average(r => r.Run.Minutes):0}");
    var thinking = results.SelectMany(r => r.Run.Thinking).Select(t => t.TotalMilliseconds).ToList();
    Console.WriteLine($"- time to a proposal: median {Percentile(thinking, 0.5):0} ms, 95th percentile {Percentile(thinking, 0.95):0} ms, longest {thinking.Max():0} ms");
    Console.WriteLine($"- without a symptom (only a function test, look or bench check shows them): {silent.Count}; found all the same: {silent.Count(r => r.Right)}");
    Console.WriteLine($"- confident (95 %) and wrong: {results.Count(r => !r.Right && Top(r.Run)?.Probability >= 0.95)}");
    foreach (var (fault, run, _) in shown.Where(r => !r.Right))
    {
        Console.WriteLine($"  - missed: {fault.Id} {fault.Variant}: {Top(run)?.Unit} {Top(run)?.Probability:P0}, {run.Result.Status}");
    }
}

static SuspectUnit? Top(GuidedRun run) => run.Result.Units.FirstOrDefault(u => u.Unit.Length > 0);

// What is named is the unit itself or one that no reading on offer tells from it.
static bool IsRight(GuidedRun run, FaultMode fault) => Top(run) is { } top && (top.Unit == fault.Unit || top.Alike.Contains(fault.Unit));

static double Percentile(IEnumerable<double> values, double share)
{
    var sorted = values.Order().ToList();
    return sorted.Count == 0 ? double.NaN : sorted[(int)Math.Min(sorted.Count - 1, share * sorted.Count)];
}

static IEnumerable<(string, Circuit)> Circuits() =>
[
    ("230 V line to neutral", new DirectOnLine { Tag = "E-1", Title = "Line to neutral" }.Build()),
    ("400 V line to line, overload contact after the coil", new DirectOnLine { Tag = "E-2", Title = "Line to line", Control = ControlSupply.LineToLine, OverloadContact = OverloadContactPlace.AfterCoil }.Build()),
    ("110 V transformer, earthed", new DirectOnLine { Tag = "E-3", Title = "Transformer", Control = ControlSupply.Transformer, ControlVolts = 110 }.Build()),
    ("24 V DC with control relay", new DirectOnLine { Tag = "E-4", Title = "DC", Control = ControlSupply.DcSupply, ControlRelay = true }.Build()),
    ("two-wire", new DirectOnLine { Tag = "E-5", Title = "Two-wire", Mode = StartMode.TwoWire }.Build()),
    ("single-phase, neutral looped", new SinglePhase { Tag = "E-6", Title = "Single-phase" }.Build()),
    ("four stations", new MultiStation { Tag = "E-7", Title = "Stations", Stations = 4 }.Build()),
    ("impulse relay", new ImpulseStarter { Tag = "E-8", Title = "Impulse" }.Build()),
    ("reversing", new Reversing { Tag = "E-9", Title = "Reversing", ButtonInterlock = true }.Build()),
    ("up and down, brake on the load side", new UpDown { Tag = "E-10", Title = "Hoist" }.Build()),
    ("star-delta", new StarDelta { Tag = "E-11", Title = "Star-delta" }.Build()),
    ("drum switch", new ManualStarter { Tag = "E-12", Title = "Drum", Drum = true }.Build()),
    ("controller-driven", new PlcDriven { Tag = "E-13", Title = "Controller" }.Build()),
];
