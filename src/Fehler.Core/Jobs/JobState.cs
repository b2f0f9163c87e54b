using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>Whether the circuit may be touched.</summary>
public enum Liveness
{
    /// <summary>Nobody has said; treated as live.</summary>
    Unknown,

    /// <summary>Known to be live, live work acknowledged.</summary>
    Live,

    /// <summary>Isolated, but not yet proved dead; treated as live.</summary>
    IsolatedNotProved,

    /// <summary>Isolated, locked and proved dead at the point of work.</summary>
    ProvedDead,
}

/// <summary>What a journal amounts to at its end. A pure function of circuit and entries.</summary>
public sealed partial class JobState
{
    private readonly Circuit _circuit;

    private JobState(CompiledCircuit compiled, ImmutableArray<JournalEntry> entries)
    {
        (Compiled, _circuit) = (compiled, compiled.Circuit);
        Entries = entries;
        var struck = entries.OfType<StruckOut>().Select(s => s.Entry).ToImmutableHashSet();
        Struck = struck;
        Valid = [.. entries.Where(e => e is not StruckOut && !struck.Contains(e.Id))];
        foreach (var entry in Valid)
        {
            Follow(entry);
        }

        Void = MadeMeanwhile().Concat(VoidReadings()).DistinctBy(v => v.Entry).ToImmutableDictionary(v => v.Entry, v => v.Why);
    }

    public static JobState Of(CompiledCircuit compiled, IEnumerable<JournalEntry> entries) =>
        new(compiled, [.. entries.OrderBy(e => e.Sequence)]);

    /// <summary>The same with one more entry.</summary>
    public JobState With(JournalEntry entry) => new(Compiled, Entries.Add(entry));

    public CompiledCircuit Compiled { get; }

    public Circuit Circuit => _circuit;

    /// <summary>All entries, struck ones included.</summary>
    public ImmutableArray<JournalEntry> Entries { get; }

    /// <summary>Entries that count, in order.</summary>
    public ImmutableArray<JournalEntry> Valid { get; }

    public ImmutableHashSet<Guid> Struck { get; }

    /// <summary>Entries that are visible but no evidence, with why: the meter was found wrong, a bridge was in.</summary>
    public ImmutableDictionary<Guid, string> Void { get; }

    public Liveness Liveness { get; private set; } = Liveness.Unknown;

    /// <summary>Whether the isolating devices stand open.</summary>
    public bool IsIsolated => Liveness is Liveness.IsolatedNotProved or Liveness.ProvedDead;

    /// <summary>Whether live work has been acknowledged since the circuit was last switched on.</summary>
    public bool LiveAcknowledged { get; private set; }

    /// <summary>Conductors lifted and not landed, with the terminal each was lifted from.</summary>
    public ImmutableSortedDictionary<string, TerminalId> Lifted { get; private set; } = ImmutableSortedDictionary<string, TerminalId>.Empty;

    /// <summary>What was done to the panel for a time and is not undone.</summary>
    public ImmutableArray<Makeshift> Makeshifts { get; private set; } = [];

    /// <summary>Whose locks are on the isolating devices, by name.</summary>
    public ImmutableSortedSet<string> Locks { get; private set; } = [];

    public Closed? Closing { get; private set; }

    public Finding? LastFinding { get; private set; }

    public ImmutableArray<Repair> Repairs { get; private set; } = [];

    /// <summary>Function test steps passed since the last repair.</summary>
    public ImmutableDictionary<string, bool> FunctionTest { get; private set; } = ImmutableDictionary<string, bool>.Empty;

    public ImmutableHashSet<string> RestoredItems { get; private set; } = [];

    /// <summary>How the panel stands that somebody else would find now, each as a short sentence; empty when nothing was left.</summary>
    public ImmutableArray<string> Leftovers =>
        [
            .. IsIsolated
                ?
                [
                    $"Isolated at {string.Join(", ", Compiled.Isolation.Points)}"
                        + $"{(Locks.IsEmpty ? "" : $", locked by {string.Join(" and ", Locks)}")}.",
                ]
                : Array.Empty<string>(),
            .. Lifted.Select(l => $"Wire {_circuit.Conductors.First(c => c.Id == l.Key).Wire} ({l.Key}) is lifted off {l.Value}."),
            .. Makeshifts.Select(m => $"{m.Stands}."),
            .. Valid.LastOrDefault(e => e is Finding or Repair) is Finding { Unit.Length: > 0 } found
                ? [$"Found and not repaired: {(found.Text.Length > 0 ? found.Text : found.Unit)}."]
                : Array.Empty<string>(),
            .. !Repairs.IsEmpty && Closing?.Outcome != CloseOutcome.RepairedAndProved
                ? [$"{Repairs[^1].Unit} was repaired and the function test is not complete."]
                : Array.Empty<string>(),
        ];

    /// <summary>What was found while the circuit was another one than it is drawn.</summary>
    private IEnumerable<(Guid Entry, string Why)> MadeMeanwhile()
    {
        var standing = new List<Makeshift>();
        foreach (var entry in Valid)
        {
            if (entry is Makeshift { ChangesCircuit: true } made)
            {
                standing.Add(made);
            }
            else if (entry is MakeshiftUndone undone)
            {
                standing.RemoveAll(m => m.IsUndoneBy(undone));
            }
            else if (standing.Count > 0 && entry is Reading or OperationSeen or LookSeen)
            {
                yield return (entry.Id, char.ToLowerInvariant(standing[0].Stands[0]) + standing[0].Stands[1..]);
            }
        }
    }

    private IEnumerable<(Guid Entry, string Why)> VoidReadings()
    {
        for (var i = 0; i < Valid.Length; i++)
        {
            if (Valid[i] is MeterChecked { Good: false } check)
            {
                for (var k = i - 1; k >= 0 && !(Valid[k] is MeterChecked earlier && earlier.Meter == check.Meter); k--)
                {
                    if (Valid[k] is Reading reading && (check.Meter.Length == 0 || reading.Meter == check.Meter))
                    {
                        yield return (reading.Id, "the meter was found wrong");
                    }
                }
            }
        }
    }

    private void Follow(JournalEntry entry)
    {
        switch (entry)
        {
            case LiveWorkAcknowledged:
                LiveAcknowledged = true;
                Liveness = Liveness == Liveness.Unknown ? Liveness.Live : Liveness;
                break;
            case Isolated:
                Liveness = Liveness.IsolatedNotProved;
                Locks = entry.Who.Length > 0 ? Locks.Add(entry.Who) : Locks;
                break;
            case LockHung:
                Locks = Locks.Add(entry.Who);
                break;
            case LockTaken taken:
                Locks = Locks.Remove(taken.Of.Length > 0 ? taken.Of : taken.Who);
                break;
            case ProvedDead when Liveness == Liveness.IsolatedNotProved:
                Liveness = Liveness.ProvedDead;
                break;
            case Energised:
                Locks = [];
                Liveness = Liveness.Live;
                LiveAcknowledged = false;
                break;
            case CarriedIn:
                Liveness = Liveness.Unknown;
                LiveAcknowledged = false;
                break;
            case WireLifted lifted:
                Lifted = Lifted.SetItem(lifted.Conductor, lifted.End);
                break;
            case WireLanded landed:
                Lifted = Lifted.Remove(landed.Conductor);
                break;
            case Makeshift made:
                Makeshifts = Makeshifts.Add(made);
                break;
            case MakeshiftUndone undone:
                Makeshifts = Makeshifts.RemoveAll(m => m.IsUndoneBy(undone));
                break;
            case Finding finding:
                LastFinding = finding;
                break;
            case Repair repair:
                Repairs = Repairs.Add(repair);
                FunctionTest = FunctionTest.Clear();
                RestoredItems = [];
                break;
            case FunctionTested test:
                FunctionTest = FunctionTest.SetItem(test.Step, test.Passed);
                break;
            case Restored restored:
                RestoredItems = RestoredItems.Add(restored.Item);
                break;
            case Closed closed:
                Closing = closed;
                break;
        }
    }
}
