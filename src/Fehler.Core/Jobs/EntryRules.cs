using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;

namespace Fehler.Core.Jobs;

/// <summary>
/// What an entry has to be by itself, whatever the journal says: complete, of this world, and not longer than anybody writes.
/// </summary>
public static class EntryRules
{
    /// <summary>
    /// Whether somebody who learns makes an entry only with a second person beside them: agreeing to live tests, switching on, handing back
    /// (common practice).
    /// </summary>
    public static bool WantsSecondPerson(JournalEntry entry) => entry is LiveWorkAcknowledged or Energised or Closed;

    /// <summary>Longest note, and longest of every other text, characters.</summary>
    public const int Note = 4_000,
        Text = 500;

    /// <summary>Most parts of one repair, most things seen at once, most conductors under one screw, most entries of one journal.</summary>
    public const int Parts = 50,
        Seen = 150,
        Conductors = 12,
        Entries = 5_000;

    private static readonly DateTimeOffset Earliest = new(2000, 1, 1, 0, 0, 0, TimeSpan.Zero);

    /// <summary>Why an entry cannot be taken, in words that say what to do; null when nothing is wrong with it by itself.</summary>
    /// <param name="entry">The entry.</param>
    /// <param name="now">The time here: an entry is made before it arrives, by a clock that may be a day wrong.</param>
    public static string? Refuse(JournalEntry entry, DateTimeOffset now) =>
        entry.At != default && (entry.At < Earliest || entry.At > now.AddDays(1))
            ? "The time of the entry is not of this job; set the clock of the device."
            : Incomplete(entry) ?? TooLong(entry.Who, 60, "The name") ?? TooLong(entry);

    /// <summary>
    /// Why an entry is not even whole; what was seen may be missing, since the panel of an exercise says that. Null when it is.
    /// </summary>
    public static string? RefuseIncomplete(JournalEntry entry) =>
        entry is OperationSeen { Steps.IsDefault: false } ? null : Incomplete(entry);

    /// <summary>What JSON may leave out of an entry although it cannot do without.</summary>
    private static string? Incomplete(JournalEntry entry) =>
        entry switch
        {
            OperationSeen { Steps.IsDefault: true } => "Say what was operated; an empty list for what stands as it is.",
            OperationSeen { Seen: null } or FunctionTested { Seen: null } => "Say what was seen; an empty object for nothing.",
            OperationSeen { Steps.IsEmpty: true, Seen.IsEmpty: true } => "Say what was operated, or what is seen.",
            OperationSeen operation => IncompleteSeen(operation.Seen),
            FunctionTested test => IncompleteSeen(test.Seen),
            Isolated { Points.IsDefault: true } => "Name the isolating devices that were opened.",
            Isolated isolated when isolated.Points.Any(p => p is null) => "An isolating device has a tag.",
            Reading { Held.IsDefault: true } or ReadingAsTyped { Held.IsDefault: true } =>
                "Say what was held during the reading; an empty list for nothing.",
            Reading reading when IsNowhere(reading.From) || IsNowhere(reading.To) => "A reading has two terminals.",
            ReadingAsTyped reading when IsNowhere(reading.From) || IsNowhere(reading.To) => "A reading has two terminals.",
            Repair { Parts.IsDefault: true } => "Say which parts were used; an empty list for none.",
            Repair repair when repair.Parts.Any(p => p is null) => "A part has a name.",
            ProvedDead { Readings.IsDefault: false } proof
                when proof.Readings.Any(r => r is null || IsNowhere(r.From) || IsNowhere(r.To)) => "A reading has two terminals.",
            WireLifted lifted when IsNowhere(lifted.End) => "Say which terminal the wire was lifted off.",
            Tightened tightened when IsNowhere(tightened.Terminal) => "Say which terminal was tried.",
            ConductorsCounted counted when IsNowhere(counted.Terminal) => "Say at which terminal they were counted.",
            ConductorsCounted { Found: < 0 or > Conductors } => $"Under one screw there are 0 to {Conductors} conductors.",
            TripTimed { Device: null } or CounterRead { Device: null } => "Say of which device.",
            Reading { Celsius: < -40 or > 200 } or ReadingAsTyped { Celsius: < -40 or > 200 } => "A winding has -40 to 200 °C.",
            Reading { Celsius: not null, Quantity: not Quantity.Insulation }
            or ReadingAsTyped { Celsius: not null, Quantity: not Quantity.Insulation } =>
                "A temperature goes with an insulation reading only.",
            Makeshift { Where: null } or MakeshiftUndone { Where: null } => "Say where.",
            CarriedIn => "That an entry was carried in is for the program to say.",
            CircuitCorrected { What: null } => "Say how the panel differs.",
            _ => null,
        };

    private static string? IncompleteSeen(ImmutableSortedDictionary<string, string> seen) =>
        seen.Values.Any(v => v is null) ? "What was seen of a device is a word."
        : seen.Count > Seen ? "More was seen than a circuit has devices."
        : null;

    private static bool IsNowhere(TerminalId terminal) => string.IsNullOrEmpty(terminal.Device) || string.IsNullOrEmpty(terminal.Name);

    private static string? TooLong(JournalEntry entry) =>
        entry switch
        {
            Complaint complaint => TooLong(complaint.Text, Text, "The complaint"),
            Fehler.Core.Jobs.Note note => TooLong(note.Text, Note, "The note"),
            Photo photo => TooLong(photo.Caption, Text, "What the photo shows"),
            CircuitCorrected corrected => TooLong(corrected.What, Text, "How the panel differs"),
            Makeshift made => TooLong(made.Where, 80, "Where it is"),
            MakeshiftUndone undone => TooLong(undone.Where, 80, "Where it was"),
            Told told => TooLong(told.Device, Text, "The device"),
            Finding finding => TooLong(finding.Text, Text, "The finding") ?? TooLong(finding.Unit + finding.Fault, Text, "The finding"),
            Repair repair => repair.Parts.Length > Parts
                ? $"At most {Parts} parts fit in one entry; record the rest in another."
                : TooLong(repair.Action, Text, "What was done")
                    ?? TooLong(repair.Cause, Text, "The cause")
                    ?? TooLong(repair.NotIsolated, Text, "The reason")
                    ?? TooLong(string.Concat(repair.Parts), Note, "The list of parts"),
            StruckOut struck => TooLong(struck.Reason, Text, "The reason"),
            Closed closed => TooLong(closed.Text, Text, "The remark")
                ?? (
                    double.IsFinite(closed.MinutesDown) && closed.MinutesDown is >= 0 and <= 10_000_000
                        ? null
                        : "Minutes down are 0 or more."
                ),
            Reading reading => TooLong(reading.Meter, 60, "The meter's name") ?? TooLong(reading.FreeEnd, Text, "The conductor"),
            ReadingAsTyped reading => TooLong(reading.Meter, 60, "The meter's name") ?? TooLong(reading.FreeEnd, Text, "The conductor"),
            MeterChecked check => TooLong(check.Meter, 60, "The meter's name"),
            ProvedDead proof when proof.Readings.Length > Seen => "That is more than any table holds.",
            LockTaken taken => TooLong(taken.Of, 60, "The name") ?? TooLong(taken.Reason, Text, "The reason"),
            _ => null,
        };

    private static string? TooLong(string? text, int most, string what) =>
        text is null ? $"{what} is missing."
        : text.Length > most ? $"{what} has {text.Length} characters; at most {most} fit. Say it shorter."
        : null;
}
