using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Jobs;

/// <summary>A line of a job's story.</summary>
/// <param name="Sequence">Number of the entry in the journal.</param>
/// <param name="At">When.</param>
/// <param name="Who">By whom; may be empty.</param>
/// <param name="Text">What, as a colleague would say it.</param>
/// <param name="Struck">Why it no longer counts; empty for one that does.</param>
/// <param name="Picture">Picture of a photo; null for any other.</param>
public sealed record StoryLine(int Sequence, DateTimeOffset At, string Who, string Text, string Struck, Guid? Picture);

/// <summary>A part of a job's story: what was reported, how it was searched, what was found.</summary>
public sealed record StoryChapter(string Title, ImmutableArray<StoryLine> Lines);

/// <summary>
/// A job as somebody reads it who was not there: what came of it first, then what was reported, how it was searched, what was found and
/// done, how that was proved, and how the circuit was left.
/// </summary>
/// <param name="Outcome">What came of it, in sentences: the finding, the repair, the proof, the time.</param>
/// <param name="Leftovers">What was left that somebody has to know of.</param>
/// <param name="Chapters">The journal by what its entries are about; within a chapter in order.</param>
public sealed record JobStory(ImmutableArray<string> Outcome, ImmutableArray<string> Leftovers, ImmutableArray<StoryChapter> Chapters)
{
    private const string Searched = "Searched",
        Proved = "Proved";

    /// <summary>The chapters in which a job is read.</summary>
    private static readonly string[] Titles = ["Reported", Searched, "Found", "Repaired", Proved, "Notes", "Closed"];

    /// <summary>What belongs to no other chapter is part of the search.</summary>
    private static string ChapterOf(JournalEntry entry) =>
        entry switch
        {
            Complaint or Told => "Reported",
            Finding => "Found",
            Repair => "Repaired",
            FunctionTested or TripTimed or Restored => Proved,
            Note or Photo => "Notes",
            Closed => "Closed",
            _ => Searched,
        };

    /// <summary>The story of a journal.</summary>
    public static JobStory Of(JobState job)
    {
        var struck = job.Entries.OfType<StruckOut>().GroupBy(s => s.Entry).ToDictionary(g => g.Key, g => g.First().Reason);
        StoryLine Line(JournalEntry e) =>
            new(
                e.Sequence,
                e.At,
                e.Second.Length > 0 ? $"{e.Who} with {e.Second}" : e.Who,
                Text(job, e),
                !struck.TryGetValue(e.Id, out var reason) ? job.Void.GetValueOrDefault(e.Id, "")
                    : reason.Length > 0 ? reason
                    : "struck out",
                (e as Photo)?.Picture
            );
        var proofs = TakenInTheTest(job.Entries).ToHashSet();
        return new JobStory(
            [.. OutcomeOf(job)],
            job.Leftovers,
            [
                .. job
                    .Entries.Where(e => e is not StruckOut)
                    .GroupBy(e => proofs.Contains(e) ? Proved : ChapterOf(e))
                    .OrderBy(g => Array.IndexOf(Titles, g.Key))
                    .Select(g => new StoryChapter(g.Key, [.. g.Select(Line)])),
            ]
        );
    }

    /// <summary>Readings that follow a passed step of the function test belong to the proof: the currents of the run.</summary>
    private static IEnumerable<JournalEntry> TakenInTheTest(IEnumerable<JournalEntry> entries)
    {
        var isInTest = false;
        foreach (var entry in entries)
        {
            isInTest = entry is FunctionTested test ? test.Passed : isInTest && entry is Reading or Note or Photo or StruckOut;
            if (isInTest && entry is Reading)
            {
                yield return entry;
            }
        }
    }

    private static IEnumerable<string> OutcomeOf(JobState job)
    {
        if (job.LastFinding is { Unit.Length: > 0 } found)
        {
            yield return $"Found: {(found.Text.Length > 0 ? found.Text : found.Unit)}{Place(job.Circuit, found.Unit)}.";
        }

        foreach (var repair in job.Repairs)
        {
            yield return $"Repaired: {repair.Unit}, {repair.Action}{(repair.Parts.IsEmpty ? "" : $"; parts: {string.Join(", ", repair.Parts)}")}"
                + $"{(repair.Cause.Length > 0 ? $"; cause: {repair.Cause}" : "")}"
                + $"{(repair.Minutes > 0 ? FormattableString.Invariant($"; {repair.Minutes:0} min") : "")}.";
        }

        var steps = job.Compiled.FunctionTest.Steps;
        if (job.FunctionTest.Count > 0)
        {
            var passed = steps.Count(s => job.FunctionTest.GetValueOrDefault(s.Id));
            yield return $"Function test: {passed} of {steps.Length} steps passed.";
        }

        yield return job.Closing is { } closing
            ? $"Closed: {EntryWords.Of(closing.Outcome)}{(closing.Text.Length > 0 ? $", {closing.Text}" : "")}"
                + $"{(closing.MinutesDown > 0 ? FormattableString.Invariant($"; {closing.MinutesDown:0} min down") : "")}."
            : "The job is open.";
    }

    private static string Place(Circuit circuit, string unit) =>
        circuit.FindDevice(unit) is { } device ? $" ({circuit.Location(device.Location).Name})" : "";

    /// <summary>Under its own heading an entry needs no word in front.</summary>
    private static string Text(JobState job, JournalEntry entry) =>
        entry switch
        {
            Complaint complaint => complaint.Text,
            Finding { Text.Length: > 0 } finding => finding.Text,
            Note note => note.Text,
            Photo { Caption.Length: > 0 } photo => photo.Caption,
            FunctionTested test => EntryWords.Tried(job, test),
            Restored restored => EntryWords.Confirmed(job, restored),
            _ => EntryWords.Of(job, entry),
        };
}
