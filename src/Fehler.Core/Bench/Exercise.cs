using System.Collections.Immutable;
using System.Security.Cryptography;
using System.Text;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Bench;

/// <summary>What kind of fault is hidden in a panel for practice.</summary>
public enum Difficulty
{
    /// <summary>One fault, as often as it happens.</summary>
    Single,

    /// <summary>Two faults at once, in two units.</summary>
    Two,

    /// <summary>The panel is wired otherwise than it is drawn.</summary>
    Wiring,

    /// <summary>Something is wrong with the supply, its fuses or its transformer.</summary>
    Supply,

    /// <summary>Something is set wrongly.</summary>
    Setting,

    /// <summary>A fault that is there at one moment and away at the next.</summary>
    Intermittent,

    /// <summary>What stands tripped or blown is only the consequence; its cause is the fault.</summary>
    Consequence,
}

/// <summary>A hidden fault, by the name it has in its circuit's catalogue.</summary>
public sealed record HiddenFault(string Id, string Variant)
{
    /// <summary>The fault of a circuit that is meant; null when the circuit has none such.</summary>
    public FaultMode? In(CompiledCircuit compiled) => compiled.Faults.Find(Id, Variant);

    /// <summary>The first variant of the fault of this id; null when the circuit has none such.</summary>
    public static HiddenFault? Named(CompiledCircuit compiled, string id) =>
        compiled.Faults.Find(id) is { } fault ? new HiddenFault(fault.Id, fault.Variant) : null;
}

/// <summary>
/// A panel with a hidden fault that somebody practises on. What he says he does is done on a simulated panel, and what is seen and measured
/// comes from there; an act that hurts people ends it. Its journal is a job's journal, so that everything that reads one reads this.
/// </summary>
/// <param name="Faults">What is wrong with the panel.</param>
/// <param name="Seed">Seed of what make and age make of the panel, and of the meter's scatter.</param>
/// <param name="Difficulty">What kind of fault it is.</param>
/// <param name="Code">The word by which everybody in a class gets the same; empty for one of its own.</param>
/// <param name="WithAdvice">The diagnosis may be seen while it goes on.</param>
public sealed record Exercise(ImmutableArray<HiddenFault> Faults, int Seed, Difficulty Difficulty, string Code, bool WithAdvice)
{
    /// <summary>The battery of the meter is flat until somebody checks it on a known source: it shows nothing, whatever is there.</summary>
    public bool HasFlatMeter { get; init; }

    /// <summary>Why it was stopped; empty while it goes on.</summary>
    public string Stopped { get; init; } = "";

    /// <summary>What was done against good practice without stopping it, in the order in which it was done.</summary>
    public ImmutableArray<string> Mistakes { get; init; } = [];

    /// <summary>Words in the kinds of faults that are wrong settings.</summary>
    private static readonly string[] Settings = ["set-", "wrong-class", "wrong-tap", "long", "at-once", "resets-itself"];

    /// <summary>One meter in so many has a flat battery.</summary>
    private const int FlatMeterOneIn = 10;

    private const int MostDraws = 400;

    /// <summary>Hides a fault that shows when the circuit is tried.</summary>
    /// <param name="compiled">The circuit.</param>
    /// <param name="difficulty">What kind of fault.</param>
    /// <param name="code">The same word gives the same fault on the same circuit; empty for chance.</param>
    /// <param name="withAdvice">The diagnosis may be seen.</param>
    /// <exception cref="RefusedException">This circuit has no such fault that anybody would notice.</exception>
    public static Exercise Hide(CompiledCircuit compiled, Difficulty difficulty, string code, bool withAdvice) =>
        (
            Hidden(compiled, difficulty, code, withAdvice, _ => true) is { } hidden
                ? hidden with
                {
                    HasFlatMeter = new Random(hidden.Seed).Next(FlatMeterOneIn) == 0,
                }
                : null
        )
        ?? throw new RefusedException("This circuit has no fault of that kind that anybody would notice; choose another kind or circuit.");

    /// <summary>The same among some of the faults; null where none of them shows.</summary>
    internal static Exercise? Hidden(
        CompiledCircuit compiled,
        Difficulty difficulty,
        string code,
        bool withAdvice,
        Func<FaultMode, bool> isMeant
    )
    {
        var seed =
            code.Length == 0
                ? Random.Shared.Next()
                : BitConverter.ToInt32(SHA256.HashData(Encoding.UTF8.GetBytes($"{compiled.Circuit.Tag} {difficulty} {code}")))
                    & int.MaxValue;
        var chance = new Random(seed);
        var kinds = compiled.Faults.Where(f => IsOfKind(compiled.Circuit, f, difficulty) && isMeant(f)).ToList();
        for (var i = 0; i < MostDraws && kinds.Count > 0; i++)
        {
            var first = Drawn(kinds, chance);
            FaultMode[] faults = difficulty == Difficulty.Two ? [first, Drawn(kinds, chance)] : [first];
            if (
                faults.DistinctBy(f => f.Unit).Count() == faults.Length
                && Array.TrueForAll(faults, f => Suits(PanelTrial.Of(compiled, [f]), difficulty, f))
            )
            {
                return new Exercise([.. faults.Select(f => new HiddenFault(f.Id, f.Variant))], seed, difficulty, code, withAdvice);
            }

            kinds.RemoveAll(f => difficulty != Difficulty.Two && f == first);
        }

        return null;
    }

    /// <summary>It shows; and where a consequence is asked for, something else than what is at fault stands tripped or blown at the end.</summary>
    private static bool Suits(PanelTrial trial, Difficulty difficulty, FaultMode fault) =>
        trial.Shows && (difficulty != Difficulty.Consequence || trial.Tripped.Any(t => t != fault.Unit));

    private static bool IsOfKind(Circuit circuit, FaultMode fault, Difficulty difficulty) =>
        difficulty switch
        {
            Difficulty.Wiring => fault.IsWiring,
            Difficulty.Supply => !fault.IsWiring
                && circuit.FindDevice(fault.Unit) is { } device
                && (
                    device.Kind.IsSupply
                    || device.Kind.TransformerVaOf(device) is not null
                    || device.Kind.RatingOf(device)?.Duty == Duty.Fuses
                ),
            Difficulty.Intermittent => fault.CanComeAndGo,
            Difficulty.Setting => Settings.Any(s => fault.Kind.Contains(s, StringComparison.Ordinal)),
            _ => !fault.IsWiring,
        };

    private static FaultMode Drawn(List<FaultMode> faults, Random chance)
    {
        var at = chance.NextDouble() * faults.Sum(f => f.Weight);
        return faults.FirstOrDefault(f => (at -= f.Weight) <= 0) ?? faults[^1];
    }
}

/// <summary>What trying a panel the way an operator would shows.</summary>
/// <param name="Shows">Something else than a good circuit does.</param>
/// <param name="Complaint">What an operator says of it.</param>
/// <param name="Tripped">Tags of what tripped or blew.</param>
public sealed record PanelTrial(bool Shows, string Complaint, ImmutableArray<string> Tripped)
{
    /// <summary>Tries a panel with faults in it.</summary>
    public static PanelTrial Of(CompiledCircuit compiled, IReadOnlyCollection<FaultMode> faults)
    {
        var panel = new SimulatedPanel(compiled, [.. faults.SelectMany(f => f.Alterations)]);
        var healthy = new SimulatedPanel(compiled, []);
        var seen = new List<ImmutableSortedDictionary<string, string>>();
        var shows = false;
        foreach (var steps in GuidedRun.Trials(compiled))
        {
            seen.Add(panel.Operate(steps));
            shows |= !healthy.Operate(steps).SequenceEqual(seen[^1]);
        }

        return new PanelTrial(
            shows,
            Said(compiled.Circuit, seen),
            [
                .. compiled
                    .Faults.Protective.Where(d =>
                        !compiled.Isolation.Points.Contains(d.Tag)
                        && panel.State.Devices[compiled.Circuit.Devices.IndexOf(d)].Position != d.Kind.InitialPosition(d)
                    )
                    .Select(d => d.Tag),
            ]
        );
    }

    /// <summary>What an operator says who saw this, one look after the other.</summary>
    public static string Said(Circuit circuit, IReadOnlyList<ImmutableSortedDictionary<string, string>> seen)
    {
        bool Any(ImmutableSortedDictionary<string, string> s, Func<DeviceKind, string, bool> holds) =>
            s.Any(x => holds(circuit.Device(x.Key).Kind, x.Value));
        return seen.Any(s => Any(s, (kind, look) => kind.IsStalled(look))) ? "Hums and does not start"
            : !seen.Any(s => Any(s, (kind, look) => kind.IsWorking(look))) ? "Does not start"
            : Any(seen[^1], (kind, look) => kind.IsWorking(look)) ? "Does not stop"
            : "Does not run as it should";
    }
}
