using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;

namespace Fehler.Desk;

/// <summary>What a call amounts to: the title of a job, and the evidence that it begins with.</summary>
/// <param name="Complaint">What was reported, in words.</param>
/// <param name="Reported">What was reported, as entries.</param>
public sealed record JobOpening(string Complaint, ImmutableArray<JournalEntry> Reported)
{
    /// <summary>A day: what runs longer is not waited for.</summary>
    private const int MostSeconds = 86_400;

    /// <summary>What a call amounts to on a circuit.</summary>
    /// <exception cref="RefusedException">It says something that cannot be reported of this circuit, or nothing.</exception>
    public static JobOpening Of(CompiledCircuit compiled, OpenJob request)
    {
        var symptoms = Given(request.Symptoms).Distinct().Select(id => (Id: id, Symptom: compiled.Call.Find(id))).ToList();
        if (symptoms.Find(s => s.Symptom is null) is { Id: { } unknown })
        {
            throw new RefusedException($"Nothing called '{unknown}' can be reported of {compiled.Circuit.Tag}.");
        }

        var complaint = string.IsNullOrWhiteSpace(request.Complaint)
            ? Shortened(string.Join("; ", symptoms.Select(s => s.Symptom!.Text)))
            : request.Complaint;
        if (complaint.Length == 0)
        {
            throw new RefusedException("Say what the circuit does wrong: touch it, or write it in a few words.");
        }

        if (request.AfterSeconds is { } after && after is not (> 0 and <= MostSeconds))
        {
            throw new RefusedException($"It ran for more than 0 and at most {MostSeconds} s before that; or leave the time out.");
        }

        var counted = request.Tries == 0 && request.Failed == 0 ? Array.Empty<Told>() : [Told.Counted(request.Failed, request.Tries)];
        return new JobOpening(
            complaint.Trim(),
            [
                .. Given(request.Told),
                .. counted,
                .. symptoms.SelectMany(s => (request.AfterSeconds is { } seconds ? s.Symptom!.After(seconds) : s.Symptom!).Entries),
            ]
        );
    }

    private static string Shortened(string title) => title.Length > EntryRules.Text ? title[..EntryRules.Text] : title;

    private static ImmutableArray<T> Given<T>(ImmutableArray<T> list) => list.IsDefault ? [] : list;
}
