using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Jobs;

/// <summary>What a caller says, in touches: it can be recorded on every circuit, and it points where it should.</summary>
public class CallTests
{
    public static TheoryData<string> Samples => [.. FamilySamples.Names.Select(n => n.Data)];

    [Theory]
    [MemberData(nameof(Samples))]
    public void Whatever_can_be_reported_can_be_recorded(string sample)
    {
        var compiled = FamilySamples.Of(sample).Compiled();
        compiled.Call.Groups.ShouldNotBeEmpty();
        var symptoms = compiled.Call.Groups.SelectMany(g => g.Symptoms).ToList();
        symptoms.Select(s => s.Id).ShouldBeUnique();
        symptoms.Select(s => s.Text).ShouldBeUnique();
        foreach (var symptom in symptoms)
        {
            var state = JobState.Of(compiled, []);
            foreach (var entry in symptom.Entries)
            {
                var stamped = entry with { Id = Guid.NewGuid(), Sequence = state.Entries.Length + 1 };
                (EntryRules.Refuse(stamped, DateTimeOffset.UtcNow) ?? state.Refuse(stamped)).ShouldBeNull($"{symptom.Text}: {entry}");
                state = state.With(stamped);
            }
        }
    }

    /// <summary>Each motion is named by its own button: a reversing starter has two, each with its direction.</summary>
    [Fact]
    public void A_hoist_is_asked_about_both_motions_in_its_own_words()
    {
        var groups = FamilySamples.Of("hoist").Compiled().Call.Groups;
        groups.Count(g => g.Symptoms.Any(s => s.Text.EndsWith("turns the wrong way", StringComparison.Ordinal))).ShouldBe(2);
        groups
            .SelectMany(g => g.Symptoms)
            .ShouldNotContain(s => s.Id.EndsWith("-held", StringComparison.Ordinal), "it runs only while held");
    }

    /// <summary>A starter that starts in steps may stay in the first one; one that starts at once cannot (common practice).</summary>
    [Fact]
    public void What_starts_in_star_may_not_come_up_to_speed()
    {
        var compiled = FamilySamples.Of("star-delta").Compiled();
        var slow = compiled.Call.Groups.SelectMany(g => g.Symptoms).Single(s => s.Id.EndsWith("-slow", StringComparison.Ordinal));
        slow.Text.ShouldContain("does not come up to speed");
        var journal = new Diagnosis.Journal(compiled.Circuit);
        foreach (var entry in slow.Entries)
        {
            journal.Add(entry);
        }

        // The timer, its contact, the two contactors that change places and what lies between them: not the line, not the load.
        var units = journal.Diagnose().Units;
        units[0].Unit.ShouldBeOneOf("KT1", "KM2", "KM3");
        units.Where(u => u.Unit is "KT1" or "KM2" or "KM3").Sum(u => u.Probability).ShouldBeGreaterThan(0.5);
        Starters.LineToNeutral.Compiled().Call.Groups.SelectMany(g => g.Symptoms).ShouldNotContain(s => s.Id.EndsWith("-slow"));
    }

    /// <summary>
    /// “Runs only while Start is held” is the retaining contact or its wires before anything was measured (common practice).
    /// </summary>
    [Fact]
    public void What_was_called_in_is_evidence()
    {
        var compiled = Starters.LineToNeutral.Compiled();
        var held = compiled.Call.Find("S2-pressed-held").ShouldNotBeNull();
        held.Text.ShouldContain("only while its button is held");
        var journal = new Diagnosis.Journal(Starters.LineToNeutral);
        foreach (var entry in held.Entries)
        {
            journal.Add(entry);
        }

        var top = journal.Diagnose().Units[0];
        top.Suspects[0].Fault!.Id.ShouldContain("13-14", Case.Sensitive, $"{top.Unit} {top.Suspects[0].Fault!.Id}");
        compiled.Call.Find("nonsense").ShouldBeNull();
    }
}
