using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <content>What can be entered in this state, and what to do first where it cannot.</content>
public sealed partial class JobState
{
    /// <summary>
    /// Why an entry cannot be taken now, in words that say what to do; null when it can.
    /// </summary>
    public string? Refuse(JournalEntry entry) => Refuse(entry, false);

    /// <summary>
    /// The same for an entry of a job that was done elsewhere: what was closed there as proved is not held to the function test of today, which
    /// may have steps that the one of then had not.
    /// </summary>
    public string? RefuseCarried(JournalEntry entry) => Refuse(entry, true);

    private string? Refuse(JournalEntry entry, bool isCarried)
    {
        if (Closing is not null)
        {
            return "The job is closed; open a new job on the circuit.";
        }

        if (Entries.Length >= EntryRules.Entries && entry is not Closed)
        {
            return $"The journal has {EntryRules.Entries} entries, which is all that it holds; close the job and open another.";
        }

        return entry switch
        {
            Reading reading => RefuseReading(reading),
            OperationSeen operation => RefuseSteps(operation.Steps) ?? RefuseSeen(operation.Seen),
            LookSeen look => RefuseLook(look),
            Told told => RefuseTold(told),
            ProvedDead proof => Liveness != Liveness.IsolatedNotProved ? "Isolate and lock off first, then prove dead."
            : proof is not { DetectorCheckedBefore: true, DetectorCheckedAfter: true }
                ? "Check the voltage detector on a known source before and after; without both the proof does not count."
            : proof.Readings.IsDefaultOrEmpty ? null
            : Compiled.AbsenceOfVoltage.Refuse(proof.Readings),
            LockHung hung => !IsIsolated ? "A lock goes on what is isolated."
            : Locks.Contains(hung.Who) ? "Your lock is on already."
            : null,
            LockTaken taken => RefuseLockTaken(taken),
            Isolated isolated => Compiled.Isolation.Points.Except(isolated.Points).Any()
            || isolated.Points.Except(Compiled.Isolation.Points).Any()
                ? $"To isolate this circuit open: {string.Join(", ", Compiled.Isolation.Points)}."
                : null,
            WireLifted lifted => RefuseLift(lifted),
            WireLanded landed => !Lifted.ContainsKey(landed.Conductor) ? $"Conductor {landed.Conductor} is not recorded as lifted."
            : Liveness != Liveness.ProvedDead ? "Land wires only on a circuit that is isolated and proved dead."
            : null,
            Tightened tightened => _circuit.Conductors.All(c => c.From != tightened.Terminal && c.To != tightened.Terminal)
                ? $"No conductor ends at {tightened.Terminal}."
            : Liveness != Liveness.ProvedDead ? "A screwdriver goes on terminals only when the circuit is isolated and proved dead."
            : null,
            ConductorsCounted counted => _circuit.ConductorsAt(counted.Terminal).Any() ? null : $"No conductor ends at {counted.Terminal}.",
            Energised on => !IsIsolated ? "The circuit is not recorded as isolated."
            : OthersLocks(on.Who) is { Count: > 0 } others
                ? $"{string.Join(" and ", others)} {(others.Count > 1 ? "have their locks" : "has a lock")} on it: only who hung a lock takes it off."
            : null,
            StruckOut struck => Valid.FirstOrDefault(e => e.Id == struck.Entry) is not { } meant
                ? "There is no such entry, or it is struck out already."
            : CanBeStruck(meant) ? null
            : "What the job began with, where it came from and how its circuit was corrected stays; add a note instead.",
            Repair repair => repair.Action.Trim().Length == 0 ? "Say what was done."
            : repair.Minutes is < 0 or > 100000 ? "Minutes must be 0 or more."
            : !isCarried && repair.NotIsolated.Trim().Length == 0 && SafetyRules.BeforeDead(this) is not null
                ? "Hands go into a panel that is isolated and proved dead: do that first, or say why this work did not need it."
            : null,
            Restored restored => RestoreList.Of(this).All(i => i.Id != restored.Item)
                ? $"There is nothing to restore called '{restored.Item}'."
                : null,
            Finding finding => _circuit.FindDevice(finding.Unit) is null
            && _circuit.Conductors.All(c => c.Id != finding.Unit)
            && finding.Unit.Length > 0
                ? $"{finding.Unit} is neither a device nor a conductor of this circuit."
                : null,
            FunctionTested test => RefuseSeen(test.Seen) is { } wrong ? wrong
            : Lifted.Count > 0 ? $"Land the lifted wires first: {string.Join(", ", Lifted.Keys)}."
            : Makeshifts.FirstOrDefault(m => m.ChangesCircuit) is { } made
                ? $"{made.Stands}. Undo that first: it would not prove this circuit."
            : Compiled.FunctionTest.Find(test.Step) is null ? $"The function test has no step '{test.Step}'."
            : null,
            Closed closed => RefuseClose(closed, isCarried),
            TripTimed trip => trip.Refusal(_circuit),
            CounterRead counter => counter.Refusal(_circuit),
            Makeshift made => RefuseMakeshift(made),
            MakeshiftUndone undone => Makeshifts.Any(m => m.IsUndoneBy(undone)) ? null : $"Nothing of that kind stands at {undone.Where}.",
            Complaint complaint => complaint.Text.Trim().Length == 0 ? "Say what is wrong in a few words." : null,
            Note note => note.Text.Trim().Length == 0 ? "The note is empty." : null,
            _ => null,
        };
    }

    /// <summary>Whether an entry can be struck out now: what the journal rests on cannot.</summary>
    public bool CanBeStruck(JournalEntry entry) =>
        Closing is null && entry is not (Complaint or StruckOut or CarriedIn or CircuitCorrected) && !Struck.Contains(entry.Id);

    /// <summary>What the longest range of a meter shows, and of an insulation tester, ohm (common practice: 1 GΩ, 1 TΩ).</summary>
    private const double MostShown = 1e9,
        MostInsulation = 1e12;

    private string? RefuseReading(Reading reading)
    {
        foreach (var terminal in new[] { reading.From, reading.To })
        {
            if (_circuit.FindDevice(terminal.Device) is not { } device || !TerminalExists(device, terminal))
            {
                return $"The circuit has no terminal {terminal}.";
            }
        }

        if (reading.From == reading.To != reading.Quantity.IsAmps())
        {
            return reading.From == reading.To
                ? "Both leads are on the same terminal; pick two points."
                : "A clamp goes around one lead: name its terminal twice.";
        }

        if (RefuseLeads(reading) is { } wrong)
        {
            return wrong;
        }

        if (
            reading.Value.Kind == ReadingKind.Number
            && (
                !double.IsFinite(reading.Value.Number)
                || Math.Abs(reading.Value.Number) > (reading.Quantity == Quantity.Insulation ? MostInsulation : MostShown)
                || (!reading.Quantity.IsVolts() && reading.Value.Number < 0)
            )
        )
        {
            return "The value is not a number a meter shows; type volts or ohms, e.g. 230 or 4k7, or choose OL.";
        }

        if (reading is { Quantity: Quantity.Volts, Value: { Kind: ReadingKind.Number, Number: < 0 } })
        {
            return "AC volts have no sign: set the meter to AC, or record it as DC volts.";
        }

        if (reading.Quantity.IsVolts() && reading.Value.Kind == ReadingKind.Number && Math.Abs(reading.Value.Number) > MostVolts())
        {
            return $"{ReadingText.Show(reading.Value, reading.Quantity)} is more than any point of this circuit can show; type it in volts.";
        }

        if (reading.Quantity.IsLive())
        {
            return
                reading.Value.Kind is ReadingKind.Number or ReadingKind.Unsteady or ReadingKind.NotSure
                || (reading.Quantity.IsVolts() && reading.Value.Kind == ReadingKind.Full)
                ? (Liveness is Liveness.Unknown || (Liveness == Liveness.Live && !LiveAcknowledged))
                    ? "Acknowledge live work first: the circuit counts as live."
                    : RefuseSteps(reading.Held)
                : $"'{ReadingText.Show(reading.Value, reading.Quantity)}' is not a {(reading.Quantity.IsAmps() ? "current" : "voltage")}.";
        }

        if (
            reading.Quantity is Quantity.Ohms or Quantity.Insulation
            && reading.Value.Kind is not (ReadingKind.Number or ReadingKind.OverLimit or ReadingKind.Unsteady or ReadingKind.NotSure)
        )
        {
            return $"'{ReadingText.Show(reading.Value, reading.Quantity)}' is not a resistance.";
        }

        if (
            reading.Quantity == Quantity.Continuity
            && reading.Value.Kind is not (ReadingKind.Beep or ReadingKind.Silent or ReadingKind.OverLimit or ReadingKind.NotSure)
        )
        {
            return "A continuity test either beeps or stays silent.";
        }

        if (Liveness != Liveness.ProvedDead)
        {
            return "A resistance needs a dead circuit: isolate, lock off and prove dead first. Nothing has been recorded.";
        }

        var live = Compiled.Isolation.LiveTerminals;
        return new[] { reading.From, reading.To }
                .Where(live.Contains)
                .Select(t => $"{t} stays live when the circuit is isolated: no resistance reading there.")
                .FirstOrDefault()
            ?? RefuseSteps(reading.Held);
    }

    /// <summary>Where leads are said to be that are not on two terminals of the circuit as it is wired.</summary>
    private string? RefuseLeads(Reading reading) =>
        reading.Alone && reading.From.Device != reading.To.Device ? "By itself a device is measured between two of its own terminals."
        : reading.Alone && reading.Quantity.IsLive() ? "What is pulled out or has its wires off has no voltage; measure ohms."
        : reading.FreeEnd.Length == 0 ? null
        : reading.Alone ? "A lead is on the free end of a wire or on the device by itself, not both."
        : reading.Quantity.IsAmps() ? "No current flows in a wire with a free end."
        : !Lifted.TryGetValue(reading.FreeEnd, out var off) ? $"Conductor {reading.FreeEnd} is not recorded as lifted."
        : off != reading.From ? $"Conductor {reading.FreeEnd} was lifted off {off}: the first lead is named by that."
        : null;

    /// <summary>Several times what the supply has between its lines: coils that let go and resonance stay below that.</summary>
    private double MostVolts() => 4 * _circuit.Supply.Kind.SourceOf(_circuit.Supply)!.LineVolts.Value;

    private bool TerminalExists(Device device, TerminalId terminal) =>
        device.Kind.IsStrip
            ? _circuit.Conductors.Any(c => c.From == terminal || c.To == terminal)
            : device.Kind.HasTerminal(device, terminal.Name);

    private string? RefuseSteps(ImmutableArray<Step> steps) =>
        StepRules.Refuse(_circuit, steps) ?? steps.Select(RefuseByHand).FirstOrDefault(r => r is not null);

    /// <summary>What a hand does to a live armature starts a motor.</summary>
    private string? RefuseByHand(Step step)
    {
        var device = _circuit.FindDevice(step.Device);
        var actuation = device?.Kind.Actuations(device).FirstOrDefault(a => a.Position == step.Position);
        return actuation?.DeadOnly == true && Liveness != Liveness.ProvedDead
            ? $"{actuation.Verb} only on a circuit that is isolated and proved dead."
            : null;
    }

    private string? RefuseSeen(ImmutableSortedDictionary<string, string> seen) =>
        seen.Select(s =>
                _circuit.FindDevice(s.Key) is not { } device ? $"The circuit has no device {s.Key}."
                : device.Kind.Appearances.Contains(s.Value) ? null
                : $"{s.Key} cannot be seen as '{s.Value}'; expected one of: {string.Join(", ", device.Kind.Appearances)}."
            )
            .FirstOrDefault(r => r is not null);

    private string? RefuseTold(Told told) =>
        Circumstances.All.First(c => c.What == told.What).AtDevice
            ? _circuit.FindDevice(told.Device) is null
                ? $"Say which device that is about; the circuit has no '{told.Device}'."
                : null
            : told.Device.Length > 0
                ? "That is about the whole circuit, not about one device."
                : Circumstances.Refusal(told);

    private string? RefuseLook(LookSeen seen)
    {
        var device = _circuit.FindDevice(seen.Device);
        var look = device?.Kind.Looks(device).FirstOrDefault(l => l.Id == seen.Look);
        return look is null ? $"There is nothing to look at called {seen.Device}/{seen.Look}."
            : seen.Answer != LookSeen.NotSure && !look.Answers.Contains(seen.Answer)
                ? $"'{seen.Answer}' is no answer; expected one of: {string.Join(", ", look.Answers)}, {LookSeen.NotSure}."
            : look.DeadOnly && Liveness != Liveness.ProvedDead ? $"{look.Question}: only on a circuit that is isolated and proved dead."
            : null;
    }

    private string? RefuseLift(WireLifted lifted)
    {
        var conductor = _circuit.Conductors.FirstOrDefault(c => c.Id == lifted.Conductor);
        return conductor is null ? $"The circuit has no conductor {lifted.Conductor}."
            : conductor.From != lifted.End && conductor.To != lifted.End
                ? $"Conductor {lifted.Conductor} ends at {conductor.From} and {conductor.To}, not at {lifted.End}."
            : Liveness != Liveness.ProvedDead ? "Lift wires only on a circuit that is isolated and proved dead."
            : Lifted.ContainsKey(lifted.Conductor) ? $"Conductor {lifted.Conductor} is lifted already."
            : null;
    }

    private List<string> OthersLocks(string who) => [.. Locks.Where(l => l != who)];

    private string? RefuseLockTaken(LockTaken taken)
    {
        var of = taken.Of.Length > 0 ? taken.Of : taken.Who;
        return !Locks.Contains(of) ? $"No lock of {(of.Length > 0 ? of : "yours")} is on."
            : of != taken.Who && taken.Reason.Trim().Length == 0
                ? $"The lock is {of}'s. Taking it off needs the site's procedure; say who decided and why."
            : null;
    }

    private string? RefuseMakeshift(Makeshift made) =>
        made.Where.Trim().Length == 0 ? "Say where, as somebody would look for it: a device with its terminals, a door."
        : Makeshifts.Any(m => m.IsUndoneBy(new MakeshiftUndone(made.Kind, made.Where))) ? "That is recorded already and not undone."
        : made.Kind == MakeshiftKind.Bridge && Liveness != Liveness.ProvedDead
            ? "A bridge is put in on the dead circuit: isolate and prove dead first."
        : null;

    private string? RefuseClose(Closed closed, bool isCarried)
    {
        if (closed.Outcome != CloseOutcome.HandedOver)
        {
            if (Lifted.Count > 0)
            {
                return $"Wires are still lifted: {string.Join(", ", Lifted.Keys)}. Land them first, or hand the job over as it is.";
            }

            if (!Makeshifts.IsEmpty)
            {
                return $"{Makeshifts[0].Stands}. Undo it first, or hand the job over as it is.";
            }

            if (IsIsolated)
            {
                return "The circuit is isolated. Switch it on again, or hand the job over as it is.";
            }
        }

        if (closed.Outcome == CloseOutcome.NothingFound && !Repairs.IsEmpty)
        {
            return $"{Repairs[^1].Unit} was repaired: prove that by the function test, or hand the job over. That is not “nothing found”.";
        }

        if (closed.Outcome != CloseOutcome.RepairedAndProved)
        {
            return closed.Text.Trim().Length == 0 ? "Say why the job is closed without a proved repair." : null;
        }

        if (Repairs.IsEmpty)
        {
            return "No repair is recorded. Record it, or close as 'nothing found' or 'handed over'.";
        }

        if (isCarried)
        {
            return null;
        }

        var open = Compiled.FunctionTest.Steps.Where(s => !FunctionTest.TryGetValue(s.Id, out var passed) || !passed).ToList();
        if (open.Count > 0)
        {
            return $"The function test is not complete: {open.Count} step(s) missing or failed, next: {open[0].Title}.";
        }

        var notRestored = RestoreList.Of(this).Where(i => !RestoredItems.Contains(i.Id)).ToList();
        return notRestored.Count > 0 ? $"Not confirmed yet: {notRestored[0].Text}" : null;
    }
}
