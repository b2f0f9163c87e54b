using System.Security.Cryptography;
using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>What became of an entry that somebody wants to record.</summary>
/// <param name="Entry">As it goes into the journal; null when it was refused.</param>
/// <param name="Refused">Why not, and what to do.</param>
public readonly record struct Taken(JournalEntry? Entry, string? Refused);

/// <summary>
/// How an entry gets into a journal, wherever that is kept: what was typed is understood, the rules are asked, number and time are stamped.
/// The same on the service and on a device without a connection, so that what was taken there is taken here.
/// </summary>
public static class EntryTaking
{
    /// <summary>Takes an entry, or says why not.</summary>
    /// <param name="job">The job as its journal stands.</param>
    /// <param name="entry">What is to be recorded.</param>
    /// <param name="sequence">The number that it gets.</param>
    /// <param name="now">The time of whoever keeps the journal.</param>
    public static Taken Take(JobState job, JournalEntry entry, int sequence, DateTimeOffset now)
    {
        if (Understand(entry, out var meant) is { } unclear)
        {
            return new Taken(null, unclear);
        }

        if (meant is CircuitCorrected)
        {
            return new Taken(null, "A circuit is corrected by its own request; the entry follows from it.");
        }

        return (EntryRules.Refuse(meant, now) ?? job.Refuse(meant)) is { } reason
            ? new Taken(null, reason)
            : new Taken(
                meant with
                {
                    Id = meant.Id == Guid.Empty ? Guid.CreateVersion7() : meant.Id,
                    Sequence = sequence,
                    At = meant.At == default ? now : meant.At,
                    Received = now,
                    Origin = "",
                },
                null
            );
    }

    /// <summary>What a typed value was meant to be; the reason when it cannot be understood.</summary>
    public static string? Understand(JournalEntry entry, out JournalEntry meant)
    {
        meant = entry;
        if (entry is not ReadingAsTyped typed)
        {
            return null;
        }

        try
        {
            meant = typed.Typed is null || typed.Held.IsDefault ? entry : typed.Understood();
            return typed.Typed is null ? "Type what the meter shows." : null;
        }
        catch (RefusedException e)
        {
            return e.Message;
        }
    }

    /// <summary>What a job begins with.</summary>
    /// <param name="complaint">What was reported, in words.</param>
    /// <param name="left">How the job before left the panel, a sentence each; null when nothing was left.</param>
    /// <param name="reported">What was reported as evidence.</param>
    public static IEnumerable<JournalEntry> FirstEntries(
        string complaint,
        IReadOnlyCollection<string>? left,
        IEnumerable<JournalEntry> reported
    ) =>
        [
            new Complaint(complaint.Trim()),
            .. left is null ? Array.Empty<JournalEntry>() : [new Note($"Handed over before this: {string.Join(" ", left)}")],
            .. reported,
        ];

    /// <summary>The first entries of a job as they go into its journal.</summary>
    /// <param name="empty">The circuit's job before anything is in its journal.</param>
    /// <param name="job">Id of the job; ids of its first entries follow from it, the same wherever it is opened.</param>
    /// <param name="entries">The entries, in order.</param>
    /// <param name="at">When.</param>
    /// <param name="who">By whom.</param>
    /// <param name="now">The time of whoever keeps the journal.</param>
    /// <exception cref="RefusedException">One of them cannot be taken.</exception>
    public static JobState Open(
        JobState empty,
        Guid job,
        IEnumerable<JournalEntry> entries,
        DateTimeOffset at,
        string who,
        DateTimeOffset now
    )
    {
        var state = empty;
        foreach (var entry in entries)
        {
            var stamped = entry with
            {
                Id = IdOf(job, state.Entries.Length + 1),
                Sequence = state.Entries.Length + 1,
                At = at,
                Who = who,
                Received = now,
            };
            if ((EntryRules.Refuse(stamped, now) ?? state.Refuse(stamped)) is { } reason)
            {
                throw new RefusedException(reason);
            }

            state = state.With(stamped);
        }

        return state;
    }

    private static Guid IdOf(Guid job, int number)
    {
        Span<byte> bytes = stackalloc byte[20];
        job.TryWriteBytes(bytes);
        BitConverter.TryWriteBytes(bytes[16..], number);
        return new Guid(SHA256.HashData(bytes).AsSpan(0, 16));
    }
}
