using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Bench;

/// <summary>What doing something on a practice panel came to.</summary>
/// <param name="Entry">The entry with what was really seen or measured in it.</param>
/// <param name="Stops">Why that stops the exercise; null when it does not.</param>
/// <param name="Mistake">What was against good practice; null for nothing.</param>
public sealed record PanelAnswer(JournalEntry Entry, string? Stops = null, string? Mistake = null);

/// <summary>
/// The simulated panel of an exercise: an entry of its journal says what is done, the panel says what comes of it. Made anew from the
/// journal it stands as it stood, scatter of the meter included.
/// </summary>
public sealed class ExercisePanel
{
    private readonly CompiledCircuit _compiled;
    private readonly SimulatedPanel _panel;
    private readonly List<FaultMode> _left;

    /// <summary>Whether a fault that comes and goes is there now; drawn anew for every look, reading and operation.</summary>
    private readonly Random? _comesAndGoes;
    private bool _isMeterFlat;

    /// <summary>It is there more often than not: nobody practises on what never shows.</summary>
    private const double ThereShare = 0.6;

    /// <param name="compiled">The circuit as it is drawn.</param>
    /// <param name="exercise">What is hidden.</param>
    /// <param name="entries">What was done so far, struck entries too: what was done was done.</param>
    public ExercisePanel(CompiledCircuit compiled, Exercise exercise, IEnumerable<JournalEntry> entries)
    {
        _compiled = compiled;
        _left = [.. exercise.Faults.Select(f => f.In(compiled)).OfType<FaultMode>()];
        _panel = new SimulatedPanel(compiled, [.. _left.SelectMany(f => f.Alterations)], exercise.Seed, differs: true);
        _comesAndGoes = exercise.Difficulty == Difficulty.Intermittent ? new Random(exercise.Seed) : null;
        _isMeterFlat = exercise.HasFlatMeter;
        foreach (var entry in entries)
        {
            Do(entry);
        }
    }

    /// <summary>Faults that are still in the panel.</summary>
    public IReadOnlyList<FaultMode> Left => _left;

    /// <summary>Does what an entry says, after asking whether it can be done without anybody being hurt.</summary>
    /// <param name="entry">What somebody says he does; what he says he saw does not count.</param>
    /// <param name="job">The journal so far.</param>
    public PanelAnswer Answer(JournalEntry entry, JobState job)
    {
        // Judged by how the panel stands before it is done.
        var (stops, mistake) = (Hurts(entry, job), Mistake(entry, job));
        return stops is not null ? new PanelAnswer(entry, stops) : new PanelAnswer(Do(entry), null, mistake);
    }

    /// <summary>Why this hurts somebody; null when it does not.</summary>
    private string? Hurts(JournalEntry entry, JobState job)
    {
        var isDead = job.Liveness == Liveness.ProvedDead;
        return entry switch
        {
            ReadingAsTyped { Quantity: Quantity.Ohms or Quantity.Continuity or Quantity.Insulation } when !isDead =>
                "Ohms on a circuit that is not proved dead: the meter is destroyed, and an arc may follow. Isolate, lock, prove dead first.",
            OperationSeen operation when !isDead && operation.Steps.Any(IsDeadOnly) =>
                "An armature was pressed by hand on a circuit that is not proved dead: the motor starts, or two phases meet.",
            Tightened or WireLifted or WireLanded when !isDead => "A screwdriver on terminals of a circuit that is not proved dead.",
            Makeshift { Kind: MakeshiftKind.Bridge } when !isDead => "A bridge was put into a live circuit.",
            _ => null,
        };
    }

    private string? Mistake(JournalEntry entry, JobState job) =>
        entry switch
        {
            OperationSeen operation
                when operation.Steps.Any(IsReset)
                    && !job.Valid.OfType<LookSeen>().Any(l => operation.Steps.Any(s => s.Device == l.Device)) =>
                "Reset was pressed before anybody had looked: what it wiped was evidence, and it may start the motor.",
            ProvedDead { DetectorCheckedBefore: false } or ProvedDead { DetectorCheckedAfter: false } =>
                "Proved dead with a detector that was not checked on a known source before and after.",
            Closed { Outcome: not CloseOutcome.HandedOver } when job.Lifted.Count > 0 => "A wire was left lifted.",
            Repair repair when _left.TrueForAll(f => f.Unit != repair.Unit) && Stands(repair.Unit) is null => $"{repair.Unit} was good.",
            _ => null,
        };

    private bool IsDeadOnly(Step step) =>
        _compiled.Circuit.FindDevice(step.Device) is { } device
        && device.Kind.Actuations(device).Any(a => a.Position == step.Position && a.DeadOnly);

    private bool IsReset(Step step) =>
        _compiled.Circuit.FindDevice(step.Device) is { } device
        && device.Kind.Actuations(device).Any(a => a.Position == step.Position && a.Resets);

    /// <summary>The device of this tag where it stands tripped or blown; null where it is as new.</summary>
    private Device? Stands(string unit) =>
        _compiled.Faults.Protective.FirstOrDefault(d =>
            d.Tag == unit && _panel.State.Devices[_compiled.Circuit.Devices.IndexOf(d)].Position != d.Kind.InitialPosition(d)
        );

    /// <summary>Does it, and writes into the entry what came of it.</summary>
    private JournalEntry Do(JournalEntry entry)
    {
        if (
            _comesAndGoes is not null
            && _left.Count > 0
            && entry is (OperationSeen or LookSeen or Reading or ReadingAsTyped or FunctionTested)
        )
        {
            _panel.Strike(_comesAndGoes.NextDouble() < ThereShare ? [.. _left.SelectMany(f => f.Alterations)] : []);
        }

        switch (entry)
        {
            case OperationSeen operation:
                return operation with { Seen = _panel.Operate(operation.Steps), AllAlong = false };
            case LookSeen look:
                return look with { Answer = _panel.Look(look.Device, look.Look) };
            case ReadingAsTyped typed:
                return Measured(typed);
            case Reading reading:
                return Measured(reading);
            case Isolated:
                _panel.Isolate();
                return entry;
            case Energised:
                _panel.Energise();
                return entry;
            case WireLifted lifted:
                _panel.Lift(new ConductorEnd(lifted.Conductor, lifted.End));
                return entry;
            case WireLanded landed:
                _panel.Land(landed.Conductor);
                return entry;
            case Tightened tightened:
                return tightened with { WasLoose = IsLoose(tightened.Terminal) };
            case ConductorsCounted counted:
                return counted with { Found = _compiled.Circuit.ConductorsAt(counted.Terminal).Count() };
            case MeterChecked check:
                // A flat battery is found by the check, and changed.
                var wasFlat = _isMeterFlat;
                _isMeterFlat = false;
                return check with { Good = !wasFlat };
            case Repair repair:
                _left.RemoveAll(f => f.Unit == repair.Unit);
                _panel.Repair(repair.Unit, [.. _left.SelectMany(f => f.Alterations)]);
                return entry;
            case FunctionTested test when _compiled.FunctionTest.Find(test.Step) is { } step:
                return Tested(test, step);
            default:
                return entry;
        }
    }

    private FunctionTested Tested(FunctionTested test, FunctionTestStep step)
    {
        _panel.Operate(step.Before);
        var seen = _panel.Operate(step.Steps);
        var otherwise = step.Expected.Where(e => seen.GetValueOrDefault(e.Key) != e.Value).ToList();
        return test with
        {
            Passed = otherwise.Count == 0,
            Seen = otherwise.ToImmutableSortedDictionary(e => e.Key, e => seen.GetValueOrDefault(e.Key, ""), StringComparer.Ordinal),
        };
    }

    private Reading Measured(ReadingAsTyped typed) =>
        Measured(
            new Reading(typed.Quantity, typed.From, typed.To, typed.Held, ReadingValue.Of(0), typed.Meter)
            {
                Id = typed.Id,
                At = typed.At,
                Who = typed.Who,
                LowImpedance = typed.LowImpedance,
                Alone = typed.Alone,
                FreeEnd = typed.FreeEnd,
                Celsius = typed.Celsius,
            }
        );

    private Reading Measured(Reading reading)
    {
        var others = reading.Alone
            ? _compiled
                .Circuit.Conductors.Where(c => (c.From.Device == reading.From.Device) != (c.To.Device == reading.From.Device))
                .Where(c => !_panel.State.IsOff(c))
                .Select(c => c.EndAt(c.From.Device == reading.From.Device ? c.From : c.To))
                .ToList()
            : [];
        others.ForEach(_panel.Lift);
        var value = reading.LowImpedance
            ? _panel.MeasureLoaded(reading.Quantity, reading.From, reading.To, reading.Held)
            : _panel.Measure(reading.Quantity, reading.From, reading.To, reading.Held);
        others.ForEach(c => _panel.Land(c.Conductor));
        if (_isMeterFlat)
        {
            value = Flat(reading.Quantity);
        }

        return reading with
        {
            Value = value,
            Typed = ReadingText.Show(value, reading.Quantity),
        };
    }

    /// <summary>What a meter shows that measures nothing.</summary>
    private static ReadingValue Flat(Quantity quantity) =>
        quantity switch
        {
            Quantity.Continuity => new ReadingValue(ReadingKind.Silent),
            Quantity.Ohms or Quantity.Insulation => new ReadingValue(ReadingKind.OverLimit),
            _ => ReadingValue.Of(0),
        };

    private bool IsLoose(TerminalId terminal) =>
        _left.Exists(f =>
            f.Kind == "high-resistance" && _compiled.Circuit.Conductors.Any(c => c.Id == f.Unit && (c.From == terminal || c.To == terminal))
        );
}
