using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>Journal entries in one line each, as a colleague would say them: on screen, in reports and in exports alike.</summary>
public static class EntryWords
{
    /// <summary>
    /// With what the circuit says of it: the question of a look, what a step of the function test tries, how a trip was for its class.
    /// </summary>
    public static string Of(JobState job, JournalEntry entry) =>
        entry switch
        {
            LookSeen look when LookOf(job.Circuit, look) is { } asked => $"Looked: {asked.Question.TrimEnd('?')}: {look.Answer}",
            FunctionTested test => $"Function test: {Tried(job, test)}",
            TripTimed trip => trip.InWords(job.Circuit),
            Restored restored => $"Confirmed: {Confirmed(job, restored)}",
            _ => Of(entry),
        };

    /// <summary>What a step of the function test tries and how it went; of a failed one what was seen.</summary>
    internal static string Tried(JobState job, FunctionTested test) =>
        $"{job.Compiled.FunctionTest.Find(test.Step)?.Title ?? test.Step}: {(test.Passed ? "passed" : "FAILED")}"
        + $"{(test.Passed || test.Seen.IsEmpty ? "" : $", seen: {Of(test.Seen)}")}";

    /// <summary>The item of the restore list that was confirmed.</summary>
    internal static string Confirmed(JobState job, Restored restored) =>
        RestoreList.Of(job).FirstOrDefault(i => i.Id == restored.Item)?.Text ?? restored.Item;

    private static Look? LookOf(Circuit circuit, LookSeen seen) =>
        circuit.FindDevice(seen.Device) is { } device ? device.Kind.Looks(device).FirstOrDefault(l => l.Id == seen.Look) : null;

    /// <summary>An entry by itself, without its circuit.</summary>
    public static string Of(JournalEntry entry) =>
        entry switch
        {
            Complaint complaint => $"Reported: {complaint.Text}",
            OperationSeen { Steps.IsEmpty: true } standing => $"As it stands: {Of(standing.Seen)}",
            OperationSeen { AllAlong: true } nothing => $"{Of(nothing.Steps)} → nothing happened: {Of(nothing.Seen)}",
            OperationSeen operation => operation.Seen.IsEmpty ? Of(operation.Steps) : $"{Of(operation.Steps)} → {Of(operation.Seen)}",
            Told told => $"Told: {Circumstances.Of(told)}",
            LookSeen look => $"Looked: {look.Device} {look.Look}: {look.Answer}",
            LiveWorkAcknowledged => "Live tests agreed to",
            Isolated isolated => $"Isolated and locked off: {string.Join(", ", isolated.Points)}",
            ProvedDead { Readings.IsDefaultOrEmpty: true } =>
                "Proved dead, detector checked before and after; readings were not written down",
            ProvedDead proof => $"Proved dead at {proof.Readings.Length} pairs of points, detector checked before and after: "
                + string.Join("; ", proof.Readings.Select(r => $"{r.From}–{r.To} {r.Typed}")),
            LockHung hung => $"Lock of {(hung.Who.Length > 0 ? hung.Who : "somebody")} on",
            LockTaken taken => taken.Of.Length > 0 && taken.Of != taken.Who
                ? $"Lock of {taken.Of} taken off by the site's procedure: {taken.Reason}"
                : $"Lock of {(taken.Who.Length > 0 ? taken.Who : "somebody")} off",
            Energised => "Switched on again",
            Reading reading =>
                $"{Where(reading)}: {ReadingText.Show(reading.Value, reading.Quantity)}{(reading.Held.IsEmpty ? "" : $" with {Of(reading.Held)}")}",
            CarriedIn carried => $"Carried in from {carried.From}: the state of the circuit is not known here, treat as live",
            WireLifted lifted => $"Lifted {lifted.Conductor} at {lifted.End}",
            Makeshift made => made.Stands,
            MakeshiftUndone undone => undone.Kind switch
            {
                MakeshiftKind.CoverOff => $"Cover back on: {undone.Where}",
                MakeshiftKind.Bridge => $"Bridge out: {undone.Where}",
                _ => $"Tape or wedge off: {undone.Where}",
            },
            WireLanded landed => $"Landed {landed.Conductor}",
            Tightened tightened => $"Screw of {tightened.Terminal}: {(tightened.WasLoose ? "was loose, tightened" : "tight")}",
            CircuitCorrected corrected =>
                $"The panel differs: {corrected.What} (circuit version {corrected.To}, before it {corrected.From})",
            ConductorsCounted counted => $"Conductors under {counted.Terminal}: {counted.Found}",
            MeterChecked check =>
                $"Meter {(check.Meter.Length > 0 ? check.Meter + " " : "")}{(check.Good
            ? "checked on a known source: good" : "found wrong: its readings since the check before do not count")}",
            Finding finding => $"Found: {(finding.Text.Length > 0 ? finding.Text : finding.Unit)}",
            Repair repair => $"Repaired {repair.Unit}: {repair.Action}{(repair.Cause.Length > 0 ? $" (cause: {repair.Cause})" : "")}"
                + (repair.NotIsolated.Length > 0 ? $"; not isolated for it: {repair.NotIsolated}" : ""),
            FunctionTested test => $"Function test {test.Step}: {(test.Passed ? "passed" : "FAILED")}",
            TripTimed trip => FormattableString.Invariant($"{trip.Device} tripped after {trip.Seconds:0.#} s at {trip.Amps:0.##} A"),
            CounterRead counter => FormattableString.Invariant(
                $"{counter.Device}: {counter.Value:0} {(counter.Counter == Counter.Hours ? "hours run" : "starts")} on the counter"
            ),
            Restored restored => $"Confirmed: {restored.Item}",
            Note note => $"Note: {note.Text}",
            Photo photo => photo.Caption.Length > 0 ? $"Photo: {photo.Caption}" : "Photo",
            StruckOut struck => $"Struck out: {(struck.Reason.Length > 0 ? struck.Reason : "no reason given")}",
            Closed closed => $"Closed: {Of(closed.Outcome)}{(closed.Text.Length > 0 ? $", {closed.Text}" : "")}",
            _ => entry.GetType().Name,
        };

    public static string Of(CloseOutcome outcome) =>
        outcome switch
        {
            CloseOutcome.RepairedAndProved => "repaired and proved",
            CloseOutcome.NothingFound => "nothing found",
            _ => "handed over",
        };

    private static string Where(Reading reading) =>
        reading.Quantity switch
        {
            Quantity.Amps => $"clamp at {reading.From}",
            Quantity.StartingAmps => $"clamp at {reading.From}, starting",
            Quantity.Insulation =>
                $"{reading.From} – {reading.To} insulation{(reading.Celsius is { } warm ? FormattableString.Invariant($" at {warm:0} °C") : "")}",
            _ => $"{(reading.FreeEnd.Length > 0 ? $"free end of {reading.FreeEnd}" : reading.From)} – "
                + $"{reading.To}{(reading.LowImpedance ? " (low impedance)" : "")}{(reading.Alone ? " (by itself)" : "")}",
        };

    private static string Of(ImmutableArray<Step> steps) =>
        string.Join(
            ", then ",
            steps.Select(s => s.Device.Length > 0 ? $"{s.Device} {s.Position}" : FormattableString.Invariant($"waited {s.Seconds:0.#} s"))
        );

    private static string Of(ImmutableSortedDictionary<string, string> seen) => string.Join(", ", seen.Select(s => $"{s.Key} {s.Value}"));
}
