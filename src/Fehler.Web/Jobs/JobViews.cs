using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Web.Jobs;

/// <summary>What opening a job takes.</summary>
/// <param name="CircuitId">The circuit.</param>
/// <param name="Complaint">What was reported.</param>
/// <param name="Who">Who opens it.</param>
public sealed record OpenJob(Guid CircuitId, string Complaint, string Who = "");

/// <summary>A line of the logbook.</summary>
public sealed record JobListItem(
    Guid Id, Guid CircuitId, string CircuitTag, string CircuitTitle, string Area, string Title, DateTimeOffset OpenedAt, DateTimeOffset? ClosedAt,
    string? Outcome, string? FoundUnit, string? FoundText, int Entries);

/// <summary>A job with its journal and what the journal amounts to.</summary>
public sealed record JobView(
    Guid Id, Guid CircuitId, int CircuitVersion, string CircuitTag, string CircuitTitle, string Title, DateTimeOffset OpenedAt, int Sequence,
    Liveness Liveness, bool IsIsolated, bool LiveAcknowledged, ImmutableArray<LiftedView> Lifted, bool IsClosed,
    ImmutableArray<EntryView> Entries, ImmutableArray<FunctionTestView> FunctionTest, ImmutableArray<RestoreView> Restore,
    ImmutableArray<string> RepairedUnits);

public sealed record LiftedView(string Conductor, TerminalId End);

/// <summary>A journal entry; <paramref name="Struck"/> ones stay visible and no longer count.</summary>
/// <param name="Void">A reading of a meter that was then found wrong: no evidence either.</param>
public sealed record EntryView(JournalEntry Entry, bool Struck, bool Void);

public sealed record FunctionTestView(FunctionTestStep Step, bool? Passed);

public sealed record RestoreView(string Id, string Text, bool Done);

/// <summary>Answer to a recorded entry.</summary>
public sealed record Recorded(int Sequence, bool WasKnown);

internal static class JobMapping
{
    public static JobView ToView(this OpenedJob job)
    {
        var state = job.State;
        return new JobView(
            job.Row.Id, job.Row.CircuitId, job.Row.CircuitVersion!.Number, job.Circuit.Tag, job.Circuit.Title, job.Row.Title, job.Row.OpenedAt,
            state.Entries.Length, state.Liveness, state.IsIsolated, state.LiveAcknowledged,
            [.. state.Lifted.Select(l => new LiftedView(l.Key, l.Value))], state.Closing is not null,
            [.. state.Entries.Select(e => new EntryView(e, state.Struck.Contains(e.Id), state.Void.Contains(e.Id)))],
            [.. job.State.Compiled.FunctionTest.Steps.Select(s => new FunctionTestView(s, state.FunctionTest.TryGetValue(s.Id, out var passed) ? passed : null))],
            [.. RestoreList.Of(job.Circuit).Select(i => new RestoreView(i.Id, i.Text, state.RestoredItems.Contains(i.Id)))],
            [.. state.Repairs.Select(r => r.Unit)]);
    }
}
