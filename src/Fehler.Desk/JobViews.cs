using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Desk;

/// <summary>What opening a job takes.</summary>
/// <param name="CircuitId">The circuit.</param>
/// <param name="Complaint">What was reported.</param>
/// <param name="Who">Who opens it.</param>
public sealed record OpenJob(Guid CircuitId, string Complaint, string Who = "")
{
    /// <summary>Id that the job gets when whoever opens it gives one, so that one sent twice is one job; null: the service gives it.</summary>
    public Guid? Id { get; init; }

    /// <summary>When it was opened, where that was without a connection; null: now.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>Symptoms that were reported, by the ids that the circuit's call lists.</summary>
    public ImmutableArray<string> Symptoms { get; init; } = [];

    /// <summary>What was told beside them: since when, how often, what was done before.</summary>
    public ImmutableArray<Told> Told { get; init; } = [];

    /// <summary>With a symptom that came by itself: after how many seconds; null where nobody knows.</summary>
    public double? AfterSeconds { get; init; }

    /// <summary>How many of the last <see cref="Tries"/> failed; 0 where nobody counted.</summary>
    public int Failed { get; init; }

    /// <summary>How many tries were counted; 0 where nobody counted.</summary>
    public int Tries { get; init; }
}

/// <summary>What can be reported of a circuit: symptoms in its own words, and circumstances.</summary>
public sealed record CallView(ImmutableArray<SymptomGroupView> Groups, ImmutableArray<CircumstanceInWords> Circumstances);

/// <param name="Of">What it is about.</param>
/// <param name="Symptoms">What can be reported of it.</param>
public sealed record SymptomGroupView(string Of, ImmutableArray<SymptomView> Symptoms);

/// <param name="Id">What is sent when the job is opened.</param>
/// <param name="Text">As it is written down.</param>
/// <param name="TakesTime">It came by itself after a time that the caller may know.</param>
public sealed record SymptomView(string Id, string Text, bool TakesTime);

/// <summary>A job with its journal and what the journal amounts to.</summary>
/// <param name="State">Whether the circuit may be touched, in words that can be read from afar.</param>
/// <param name="MayTouch">Isolated and proved dead: wires may be lifted, screws tried, resistances measured.</param>
/// <param name="Possible">Safety steps that can be done now, with what has to be confirmed.</param>
/// <param name="RepairedLive">Usual reasons for work that is done without isolating; empty once it is proved dead, when none is asked for.</param>
/// <param name="Before">What has to come first before a quantity is measured, by quantity; quantities that can be measured now are not in
/// it.</param>
/// <param name="Holdable">What can be held while a reading is taken, as things stand.</param>
/// <param name="Meter">Settings of the meter.</param>
/// <param name="Locks">Whose locks are on.</param>
/// <param name="Leftovers">How the panel stands that somebody else would find now, a sentence each.</param>
/// <param name="Makeshifts">What was done to the panel for a time and is not undone.</param>
/// <param name="Exercise">Set for an exercise on a simulated panel; null for a job.</param>
/// <param name="SetAside">Numbers of entries that can no longer be read; they do not count.</param>
public sealed record JobView(
    Guid Id,
    Guid CircuitId,
    int CircuitVersion,
    string CircuitTag,
    string CircuitTitle,
    string Title,
    DateTimeOffset OpenedAt,
    int Sequence,
    string Origin,
    Liveness Liveness,
    string State,
    bool IsIsolated,
    bool LiveAcknowledged,
    bool MayTouch,
    ImmutableArray<LiftedView> Lifted,
    bool IsClosed,
    ImmutableArray<SafetyProcedure> Possible,
    ImmutableArray<string> RepairedLive,
    ImmutableSortedDictionary<Quantity, SafetyStep> Before,
    ImmutableArray<Trial> Holdable,
    ImmutableArray<MeterSetting> Meter,
    ImmutableArray<EntryView> Entries,
    ImmutableArray<FunctionTestView> FunctionTest,
    ImmutableArray<RestoreView> Restore,
    ImmutableArray<string> RepairedUnits,
    ImmutableArray<string> Locks,
    ImmutableArray<string> Leftovers,
    ImmutableArray<MakeshiftView> Makeshifts,
    ImmutableArray<int> SetAside,
    ExerciseView? Exercise
);

/// <summary>That a job is an exercise on a simulated panel, and how it stands.</summary>
/// <param name="WithAdvice">Suspects and next tests are shown.</param>
/// <param name="Stopped">Why it was stopped; empty while it goes on.</param>
/// <param name="Mistakes">What was done against good practice.</param>
/// <param name="Minutes">What it has cost by the cost model.</param>
/// <param name="Heard">What the last operation sounded like, a sentence; empty when the last entry was none.</param>
public sealed record ExerciseView(
    bool WithAdvice,
    string Stopped,
    ImmutableArray<string> Mistakes,
    double Minutes,
    int Readings,
    int Places,
    int GoodParts,
    string Heard
);

/// <param name="Text">How it stands.</param>
/// <param name="ChangesCircuit">Nothing measured meanwhile is evidence.</param>
public sealed record MakeshiftView(MakeshiftKind Kind, string Where, string Text, bool ChangesCircuit);

public sealed record LiftedView(string Conductor, TerminalId End);

/// <summary>A journal entry; <paramref name="Struck"/> ones stay visible and no longer count.</summary>
/// <param name="Text">The entry in one line.</param>
/// <param name="Shown">Of a reading the value as shown; empty otherwise.</param>
/// <param name="CanBeStruck">It may be struck out now.</param>
/// <param name="Void">Why it is no evidence although it stands: the meter was found wrong, a bridge was in; empty otherwise.</param>
public sealed record EntryView(JournalEntry Entry, string Text, string Shown, bool Struck, bool CanBeStruck, string Void);

public sealed record FunctionTestView(FunctionTestStep Step, bool? Passed);

public sealed record RestoreView(string Id, string Text, bool Done);

/// <summary>A job with its diagnosis.</summary>
/// <param name="Diagnosis">Null while it takes longer than one waits: ask for it.</param>
public sealed record JobScreen(JobView Job, DiagnosisView? Diagnosis);

/// <summary>Answer to a recorded entry: that it is on disk, and what follows from it.</summary>
/// <param name="Sequence">Its place in the journal.</param>
/// <param name="WasKnown">It had been recorded before.</param>
/// <param name="Job">The job with it.</param>
/// <param name="Diagnosis">Null while it takes longer than one waits: ask for it.</param>
public sealed record Recorded(int Sequence, bool WasKnown, JobView Job, DiagnosisView? Diagnosis);

public static class JobMapping
{
    /// <summary>What can be reported of a circuit.</summary>
    public static CallView ToCallView(this CompiledCircuit compiled) =>
        new(
            [
                .. compiled.Call.Groups.Select(g => new SymptomGroupView(
                    g.Of,
                    [.. g.Symptoms.Select(s => new SymptomView(s.Id, s.Text, s.TakesTime))]
                )),
            ],
            Circumstances.All
        );

    /// <summary>A job as the interface shows it.</summary>
    public static JobView ToView(this ShownJob job)
    {
        var state = job.State;
        return new JobView(
            job.Id,
            job.CircuitId,
            job.CircuitVersion,
            job.Circuit.Tag,
            job.Circuit.Title,
            job.Title,
            job.OpenedAt,
            job.Sequence,
            job.Origin,
            state.Liveness,
            Words(state.Liveness),
            state.IsIsolated,
            state.LiveAcknowledged,
            state.Liveness == Liveness.ProvedDead,
            [.. state.Lifted.Select(l => new LiftedView(l.Key, l.Value))],
            state.Closing is not null,
            [.. SafetyRules.Possible(state)],
            SafetyRules.RepairedLive(state),
            // Who practises without advice has to think of what comes first.
            job.Exercise
                is { WithAdvice: false, Stopped: "" }
                ? ImmutableSortedDictionary<Quantity, SafetyStep>.Empty
                : Before(state),
            [.. Trial.Holdable(job.Circuit, state.Liveness == Liveness.ProvedDead)],
            MeterSetting.All,
            [.. state.Entries.Select(e => ToView(state, e))],
            [
                .. job.Compiled.FunctionTest.Steps.Select(s => new FunctionTestView(
                    s,
                    state.FunctionTest.TryGetValue(s.Id, out var passed) ? passed : null
                )),
            ],
            [.. RestoreList.Of(state).Select(i => new RestoreView(i.Id, i.Text, state.RestoredItems.Contains(i.Id)))],
            [.. state.Repairs.Select(r => r.Unit)],
            [.. state.Locks],
            state.Leftovers,
            [.. state.Makeshifts.Select(m => new MakeshiftView(m.Kind, m.Where, m.Stands, m.ChangesCircuit))],
            job.SetAside,
            job.Exercise is { } exercise ? ToView(state, exercise) : null
        );
    }

    private static ExerciseView ToView(JobState state, Exercise exercise)
    {
        var ledger = Ledger.Of(state, exercise);
        return new ExerciseView(
            exercise.WithAdvice,
            exercise.Stopped,
            exercise.Mistakes,
            ledger.Minutes,
            ledger.Readings,
            ledger.Places,
            ledger.GoodParts,
            PanelSounds.Last(state)
        );
    }

    private static EntryView ToView(JobState state, JournalEntry entry) =>
        new(
            entry,
            EntryWords.Of(state, entry),
            entry is Reading reading ? ReadingText.Show(reading.Value, reading.Quantity) : "",
            state.Struck.Contains(entry.Id),
            state.CanBeStruck(entry),
            state.Void.GetValueOrDefault(entry.Id, "")
        );

    private static ImmutableSortedDictionary<Quantity, SafetyStep> Before(JobState state) =>
        Enum.GetValues<Quantity>()
            .Select(q => (Quantity: q, First: SafetyRules.Before(state, q)))
            .Where(x => x.First is not null)
            .ToImmutableSortedDictionary(x => x.Quantity, x => x.First!.Value);

    private static string Words(Liveness liveness) =>
        liveness switch
        {
            Liveness.Live => "LIVE",
            Liveness.IsolatedNotProved => "ISOLATED, NOT PROVED – TREAT AS LIVE",
            Liveness.ProvedDead => "ISOLATED AND PROVED DEAD",
            _ => "NOT KNOWN – TREAT AS LIVE",
        };
}
