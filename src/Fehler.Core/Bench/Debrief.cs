using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Bench;

/// <summary>A step of an exercise with what it told.</summary>
/// <param name="Sequence">Number of the entry.</param>
/// <param name="Text">What was done and seen.</param>
/// <param name="Bits">How much less uncertain the faulty unit was after it, bits; below 0 where it misled.</param>
/// <param name="Left">Units that were still thinkable after it.</param>
/// <param name="Best">What the diagnosis would have done instead; empty where it would have done this.</param>
public sealed record DebriefStep(int Sequence, string Text, double Bits, int Left, string Best);

/// <summary>What an exercise cost.</summary>
/// <param name="Minutes">By the cost model: looking, measuring, isolating, walking, opening; the repair is not counted.</param>
/// <param name="Readings">Readings taken.</param>
/// <param name="Places">Enclosures and stations opened.</param>
/// <param name="GoodParts">Units repaired that were good.</param>
public sealed record Ledger(double Minutes, int Readings, int Places, int GoodParts)
{
    /// <summary>Adds up a journal.</summary>
    public static Ledger Of(JobState job, Exercise exercise)
    {
        var circuit = job.Circuit;
        var (minutes, last, isolated) = (0.0, (TerminalId?)null, false);
        var places = new HashSet<string>();
        foreach (var entry in job.Entries)
        {
            var cost = new CostModel(circuit, last, Strategy.MostTelling);
            switch (entry)
            {
                case Reading reading:
                    minutes += cost.OfReading(reading.Quantity, reading.From, reading.To, Setup.AsItIs with { Held = reading.Held });
                    last = reading.From;
                    places.UnionWith(
                        new[] { reading.From, reading.To }.Where(t => t != circuit.Reference).Select(t => circuit.LocationOf(t).Id)
                    );
                    break;
                case LookSeen look when circuit.FindDevice(look.Device) is { } device:
                    minutes += cost.OfLook(device, device.Kind.Looks(device).First(l => l.Id == look.Look), SetupChange.None);
                    places.Add(device.Location);
                    break;
                case OperationSeen { Steps.IsEmpty: false }:
                    minutes += cost.OfOperation(isolated);
                    break;
                case Isolated:
                    (isolated, minutes) = (true, minutes + CostModel.IsolateMinutes);
                    break;
                case Energised:
                    (isolated, minutes) = (false, minutes + CostModel.EnergiseMinutes);
                    break;
                case WireLifted or WireLanded:
                    minutes += CostModel.LiftMinutes / 2;
                    break;
            }
        }

        return new Ledger(
            Math.Round(minutes, 1),
            job.Entries.Count(e => e is Reading),
            places.Count,
            exercise.Mistakes.Count(m => m.EndsWith("was good.", StringComparison.Ordinal))
        );
    }
}

/// <summary>
/// An exercise looked at afterwards: what was wrong, what each step told, what the diagnosis would have done, and par.
/// </summary>
/// <param name="Faults">What was hidden, in words.</param>
/// <param name="Found">It was found: the unit that was named is one of them.</param>
/// <param name="Steps">Step by step.</param>
/// <param name="FirstIdle">Number of the first step that told nothing; null for none.</param>
/// <param name="Ledger">What it cost.</param>
/// <param name="ParReadings">Readings by following every proposal.</param>
/// <param name="ParMinutes">Minutes by following every proposal, without the repair.</param>
public sealed record Debrief(
    ImmutableArray<string> Faults,
    bool Found,
    ImmutableArray<DebriefStep> Steps,
    int? FirstIdle,
    Ledger Ledger,
    int ParReadings,
    double ParMinutes
)
{
    /// <summary>Less told than this is nothing, bits.</summary>
    private const double Nothing = 0.05;

    /// <summary>Less likely units are no longer thinkable.</summary>
    private const double Thinkable = 0.01;

    /// <summary>Looks at an exercise from the beginning.</summary>
    public static Debrief Of(JobState job, Exercise exercise, CancellationToken cancellation = default)
    {
        var compiled = job.Compiled;
        var faults = exercise.Faults.Select(f => f.In(compiled)).OfType<FaultMode>().ToList();
        var session = new DiagnosisSession(compiled);
        var (steps, before) = (new List<DebriefStep>(), (DiagnosisResult?)null);
        var search = job.Valid.TakeWhile(e => e is not (Finding or Repair)).ToList();
        for (var i = 0; i < search.Count; i++)
        {
            if (search[i] is not (Reading or LookSeen or OperationSeen))
            {
                continue;
            }

            before ??= session.Diagnose(JobState.Of(compiled, search.Take(i)), cancellation: cancellation);
            var after = session.Diagnose(JobState.Of(compiled, search.Take(i + 1)), cancellation: cancellation);
            steps.Add(
                new DebriefStep(
                    search[i].Sequence,
                    EntryWords.Of(job, search[i]),
                    Math.Round(before.Entropy - after.Entropy, 2),
                    after.Units.Count(u => u.Probability > Thinkable),
                    before.Proposals.IsEmpty || IsIt(before.Proposals[0], search[i]) ? "" : before.Proposals[0].Title.ToString()
                )
            );
            before = after;
        }

        var par = GuidedRun.On(compiled, faults, new GuidedRunOptions { Seed = exercise.Seed });
        return new Debrief(
            [
                .. faults.Select(f => $"{f.Title}{(exercise.Difficulty == Difficulty.Intermittent ? ", now and then" : "")}"),
                .. exercise.HasFlatMeter
                    ? ["The battery of the meter was flat until it was checked on a known source"]
                    : Array.Empty<string>(),
            ],
            job.LastFinding is { } finding && faults.Exists(f => f.Unit == finding.Unit),
            [.. steps],
            steps.Find(s => s.Bits < Nothing)?.Sequence,
            Ledger.Of(job, exercise),
            par.Readings,
            Math.Round(par.Minutes, 1)
        );
    }

    private static bool IsIt(Proposal proposal, JournalEntry entry) =>
        entry switch
        {
            Reading reading => proposal.Kind == ProposalKind.Reading
                && proposal.Quantity == reading.Quantity
                && (proposal.From, proposal.To) == (reading.From, reading.To),
            LookSeen look => proposal.Kind == ProposalKind.Look && (proposal.Device, proposal.Look) == (look.Device, look.Look),
            OperationSeen operation => proposal.Kind == ProposalKind.Operation && proposal.Steps.SequenceEqual(operation.Steps),
            _ => false,
        };
}
