using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Jobs;

/// <summary>A panel that differs from its description, found in a job: what was recorded has to fit the corrected circuit too.</summary>
public class CorrectionTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static JobState Job(params JournalEntry[] entries) =>
        JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));

    private static CompiledCircuit After(params CircuitEdit[] edits) => edits.Aggregate(Circuit, CircuitEditor.Apply).Compile();

    [Fact]
    public void Readings_stay_when_a_wire_has_another_number()
    {
        var job = Job(
            new LiveWorkAcknowledged(),
            new Reading(Quantity.Volts, TerminalId.Parse("S1:22"), Circuit.Reference, [], ReadingValue.Of(231))
        );
        Correction.Refuse(job, After(new RenumberWire(Circuit.WireAt(TerminalId.Parse("S1:22")), "17"))).ShouldBeNull();
    }

    /// <summary>A wire that is lifted at this moment is named by its number: it is landed first.</summary>
    [Fact]
    public void What_a_journal_has_named_does_not_disappear_under_it()
    {
        var wire = Circuit.Conductors.First(c => c.To == TerminalId.Parse("KM1:A1") || c.From == TerminalId.Parse("KM1:A1"));
        var job = Job(new Isolated(["Q1"]), new ProvedDead(true, true), new WireLifted(wire.Id, TerminalId.Parse("KM1:A1")));
        var refused = Correction.Refuse(job, After(new RenumberWire(wire.Wire, "17")))!;
        refused.ShouldContain("Entry 3");
        refused.ShouldContain($"no conductor {wire.Id}");
    }

    [Fact]
    public void A_device_that_was_looked_at_cannot_turn_out_not_to_be_there()
    {
        var lamp = Circuit.Devices.First(d => d.Kind.Id == "pilot-lamp");
        var job = Job(
            new OperationSeen([], System.Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty.Add(lamp.Tag, "on"))
        );
        var part = Circuit.Paths.SelectMany(p => p.Expression.Parts()).First(p => p.Device == lamp.Tag);
        Correction.Refuse(job, After(new RemovePart(part.ToString())))!.ShouldContain($"no device {lamp.Tag}");
    }

    /// <summary>The version was changed on disk: striking the line out would not change it back.</summary>
    [Fact]
    public void A_correction_is_not_struck_out_but_corrected_again()
    {
        var job = Job(new Complaint("dead"), new CircuitCorrected(1, 2, "wire 5 is numbered 15"));
        job.CanBeStruck(job.Entries[1]).ShouldBeFalse();
        job.Refuse(new StruckOut(job.Entries[1].Id, "wrong"))!.ShouldContain("stays");
    }

    [Fact]
    public void Each_edit_is_told_in_words()
    {
        EditWords.Of(new RenumberWire("5", "15")).ShouldBe("wire 5 is numbered 15");
        EditWords.Of(new RemovePart("S3:13-14")).ShouldBe("S3:13-14 is not there");
        EditWords.Of(new MoveEnd("3.1", true, "X1:3")).ShouldBe("3.1 is on X1:3");
        EditWords.Of(new RenameContact("KM1", "13-14", "43-44")).ShouldBe("contact 13-14 of KM1 is 43-44");
    }
}
