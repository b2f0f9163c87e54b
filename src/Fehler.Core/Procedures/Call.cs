using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Procedures;

/// <summary>Something that can be reported of a circuit, in its own words, and what it means as evidence.</summary>
/// <param name="Id">Stable name.</param>
/// <param name="Text">As a dispatcher would write it down: "Chain forward: runs only while its button is held".</param>
/// <param name="Entries">What the journal holds once it was reported.</param>
public sealed record Symptom(string Id, string Text, ImmutableArray<JournalEntry> Entries)
{
    /// <summary>It came by itself after a time, which the caller may know.</summary>
    public bool TakesTime => Entries.OfType<OperationSeen>().Any(IsWait);

    /// <summary>The same, with the time that the caller told.</summary>
    /// <param name="seconds">How long it ran, s.</param>
    public Symptom After(double seconds) =>
        this with
        {
            Entries = [.. Entries.Select(e => e is OperationSeen seen && IsWait(seen) ? seen with { Steps = [Step.Wait(seconds)] } : e)],
        };

    private static bool IsWait(OperationSeen seen) => seen.Steps is [{ Seconds: > 0 }];
}

/// <summary>Symptoms of one thing: a motion in one direction, the stop, a lamp.</summary>
/// <param name="Of">What it is about.</param>
/// <param name="Symptoms">What can be reported of it.</param>
public sealed record SymptomGroup(string Of, ImmutableArray<Symptom> Symptoms);

/// <summary>
/// What a dispatcher asks before anybody sets out: every way in which each motion of this circuit, its stops and its lamps can go wrong, as a
/// touch. What a caller says is evidence like any other: it was tried, and this was seen. Derived from how the good circuit is started, never
/// written by family.
/// </summary>
public sealed class Call
{
    /// <summary>Between a start and a stop "by itself", s: people are seldom exact, and the diagnosis takes half and double as well.</summary>
    private const double ByItselfSeconds = 30;

    /// <summary>By then what starts in steps has come up to speed, s (common practice: a star-delta starter within half of that).</summary>
    private const double UpToSpeedSeconds = 60;

    private readonly CompiledCircuit _compiled;
    private readonly Circuit _circuit;
    private readonly Simulator _simulator;

    internal Call(CompiledCircuit compiled)
    {
        (_compiled, _circuit, _simulator) = (compiled, compiled.Circuit, new Simulator(compiled.Network));
        Groups = [.. Motions().Concat(Stopping()).Concat(Lamps()).Where(g => g.Symptoms.Length > 0)];
    }

    public ImmutableArray<SymptomGroup> Groups { get; }

    /// <summary>The symptom of this id; null when there is none.</summary>
    public Symptom? Find(string id) => Groups.SelectMany(g => g.Symptoms).FirstOrDefault(s => s.Id == id);

    private IEnumerable<SymptomGroup> Motions()
    {
        var rest = _simulator.Start();
        foreach (var start in _compiled.RunUp.Starts)
        {
            var name = Named(start.Act, start.LetGo is null ? start.Act.Position : "");
            var still = start.Working.ToImmutableSortedDictionary(w => w.Key, w => rest.Appearances[w.Key]);
            var runs = start.Working;
            ImmutableArray<Step> press = [.. start.Prepare, start.Act];
            ImmutableArray<JournalEntry> ran = start is { Holds: true, LetGo: { } letGo }
                ? [new OperationSeen(press, runs), new OperationSeen([letGo], runs)]
                : [new OperationSeen(press, runs)];
            var group = new List<Symptom>();
            void Add(string id, string text, params JournalEntry[] entries) =>
                group.Add(new Symptom($"{start.Act.Device}-{start.Act.Position}-{id}".Replace(' ', '-'), $"{name}: {text}", [.. entries]));

            Add(
                "not",
                "does not start",
                start.LetGo is { } off
                    ? [new OperationSeen(press, still), new OperationSeen([off], Nothing)]
                    : [new OperationSeen(press, still)]
            );
            if (start is { Holds: true, LetGo: { } release })
            {
                Add("held", "runs only while its button is held", new OperationSeen(press, runs), new OperationSeen([release], still));
            }

            Add("stops", "starts, then stops by itself", [.. ran, new OperationSeen([Step.Wait(ByItselfSeconds)], still)]);
            foreach (var (device, look, answer) in Trips())
            {
                ImmutableArray<JournalEntry> tripped =
                [
                    .. ran,
                    new OperationSeen([Step.Wait(ByItselfSeconds)], still),
                    new LookSeen(device.Tag, look.Id, answer),
                ];
                Add($"trips-{device.Tag}", $"trips {device.Tag}", [.. tripped]);
                if (device.Kind.Actuations(device).FirstOrDefault(a => a.Resets) is { } reset)
                {
                    // Who comes finds the flag in its place: that it stood there is told, not seen.
                    Add(
                        $"trips-{device.Tag}-reset",
                        $"trips {device.Tag}; somebody has reset it",
                        [.. tripped, new OperationSeen([new Step(device.Tag, reset.Position)], Nothing)]
                    );
                }
            }

            if (SlowAtFirst(rest, start) is { Count: > 0 } slow)
            {
                Add("slow", "starts, but does not come up to speed", [.. ran, new OperationSeen([Step.Wait(UpToSpeedSeconds)], slow)]);
            }

            var driven = start.Working.Keys.Select(_circuit.Device).ToList();
            if (Instead(driven, (d, a) => d.Kind.IsStalled(a)) is { Count: > 0 } hums)
            {
                Add("hums", "hums and does not turn", new OperationSeen(press, hums));
            }

            if (Instead(driven, (d, a) => a == Other(start.Working[d.Tag])) is { Count: > 0 } wrong)
            {
                Add("direction", "turns the wrong way", new OperationSeen(press, wrong));
            }

            yield return new SymptomGroup(name, [.. group]);
        }

        if (_compiled.RunUp.WorksAtRest)
        {
            var working = _compiled.RunUp.Working(rest);
            yield return new SymptomGroup(
                _circuit.Title,
                [
                    new Symptom(
                        "rest-not",
                        $"{_circuit.Title}: does not run with the supply on",
                        [new OperationSeen([], working.ToImmutableSortedDictionary(w => w.Key, w => Still(w.Key)))]
                    ),
                ]
            );
        }
    }

    /// <summary>What is driven and runs otherwise once it has been running for a while, as it is at first; empty for what starts in one step.</summary>
    private ImmutableSortedDictionary<string, string> SlowAtFirst(Outcome rest, Start start)
    {
        var soon = _simulator.Do(rest.State, start.Run).Appearances;
        var later = _simulator.Do(rest.State, [.. start.Run, Step.Wait(UpToSpeedSeconds)]).Appearances;
        return start.Working.Keys.Where(tag => soon[tag] != later[tag]).ToImmutableSortedDictionary(tag => tag, tag => soon[tag]);
    }

    private IEnumerable<SymptomGroup> Stopping()
    {
        var start = _compiled.RunUp.Starts.FirstOrDefault(s => s.Holds);
        if (start is null)
        {
            yield break;
        }

        var runs = start.Working;
        var symptoms = _compiled
            .RunUp.Stops.Where(s =>
                _compiled.RunUp.Working(_simulator.Do(_simulator.Start().State, [.. start.Run, new Step(s.Tag, "pressed")])).Count == 0
            )
            .Select(stop => new Symptom(
                $"{stop.Tag}-no-stop",
                $"{Named(new Step(stop.Tag, "pressed"), "")}: does not stop it",
                [
                    new OperationSeen(start.Run, runs),
                    new OperationSeen([new Step(stop.Tag, "pressed"), new Step(stop.Tag, "released")], runs),
                ]
            ));
        yield return new SymptomGroup(
            "Stopping",
            [.. symptoms, new Symptom("by-itself", "It starts by itself", [new OperationSeen([], runs)])]
        );
    }

    /// <summary>Lamps that a good circuit has on while it runs, and such as it has off.</summary>
    private IEnumerable<SymptomGroup> Lamps()
    {
        var rest = _simulator.Start();
        var start = _compiled.RunUp.Starts.FirstOrDefault();
        var run = start is null ? rest : _simulator.Do(rest.State, start.Run);
        var symptoms = new List<Symptom>();
        foreach (var lamp in _circuit.Devices.Where(d => d.Kind.Appearances.Contains("on") && d.Kind.Appearances.Contains("off")))
        {
            foreach (
                var (state, outcome, steps) in new[]
                {
                    ("at rest", rest, ImmutableArray<Step>.Empty),
                    ("while it runs", run, start?.Run ?? []),
                }
            )
            {
                var good = outcome.Appearances.GetValueOrDefault(lamp.Tag, "");
                if (good is "on" or "off" && (state == "at rest" || good != rest.Appearances.GetValueOrDefault(lamp.Tag)))
                {
                    var seen = ImmutableSortedDictionary<string, string>.Empty.Add(lamp.Tag, good == "on" ? "off" : "on");
                    symptoms.Add(
                        new Symptom(
                            $"{lamp.Tag}-{state.Replace(' ', '-')}",
                            $"{Named(new Step(lamp.Tag, ""), "")}: {(good == "on" ? "dark" : "lit")} {state}",
                            [new OperationSeen(steps, start is null || steps.IsEmpty ? seen : seen.AddRange(start.Working))]
                        )
                    );
                }
            }
        }

        yield return new SymptomGroup("Lamps", [.. symptoms]);
    }

    /// <summary>What trips and shows it until it is reset.</summary>
    private IEnumerable<(Device Device, Look Look, string Answer)> Trips() =>
        _circuit.Devices.SelectMany(d =>
            d.Kind.Looks(d).Where(l => l.WipedByReset && l.Answers.Contains("tripped")).Select(l => (d, l, "tripped")).Take(1)
        );

    private static ImmutableSortedDictionary<string, string> Instead(List<Device> driven, Func<Device, string, bool> isIt) =>
        driven
            .Select(d => (d.Tag, Appearance: d.Kind.Appearances.FirstOrDefault(a => isIt(d, a))))
            .Where(x => x.Appearance is not null)
            .ToImmutableSortedDictionary(x => x.Tag, x => x.Appearance!);

    private static string Other(string runs) =>
        runs == "runs" ? "runs reverse"
        : runs == "runs reverse" ? "runs"
        : "";

    private string Still(string tag) => _circuit.Device(tag).Kind.Appearances[0];

    private static readonly ImmutableSortedDictionary<string, string> Nothing = ImmutableSortedDictionary<string, string>.Empty;

    private string Named(Step act, string position)
    {
        var device = _circuit.Device(act.Device);
        var name = device.Function.Length > 0 ? $"{device.Function} ({act.Device})" : act.Device;
        return position.Length > 0 ? $"{name} {position}" : name;
    }
}
