using Fehler.Core.Circuits;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Jobs;

/// <summary>A job as somebody reads it who was not there, and what has to be put back by what was really done.</summary>
public class JobStoryTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static JobState Of(params JournalEntry[] entries) =>
        JobState.Of(
            Circuit.Compiled(),
            entries.Select((e, i) => e with { Id = e.Id == Guid.Empty ? Guid.NewGuid() : e.Id, Sequence = i + 1, Who = "R. Halvar" })
        );

    private static readonly Guid Slipped = Guid.NewGuid();

    private static JobState Repaired() =>
        Of(
            new Complaint("pump dead"),
            new LiveWorkAcknowledged(),
            Reading("S1:21", 17) with
            {
                Id = Slipped,
            },
            new StruckOut(Slipped, "slipped probe"),
            Reading("KM1:A1", 231),
            new Isolated(["Q1"]),
            new ProvedDead(true, true),
            new Finding("KM1", "KM1/A1-A2-open", "Coil of KM1 is open"),
            new Repair("KM1", "coil replaced", ["coil 230 V"], 25, "overvoltage"),
            new FunctionTested("rest", true, System.Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty),
            new Note("cabinet is warm")
        );

    [Fact]
    public void The_story_begins_with_what_came_of_it()
    {
        var story = JobStory.Of(Repaired());
        story.Outcome[0].ShouldStartWith("Found: Coil of KM1 is open (");
        story.Outcome[1].ShouldBe("Repaired: KM1, coil replaced; parts: coil 230 V; cause: overvoltage; 25 min.");
        story.Outcome[2].ShouldStartWith("Function test: 1 of ");
        story.Outcome[^1].ShouldBe("The job is open.");
    }

    /// <summary>Who was not there reads what was tried, looked at and confirmed, not the names that a file has for it.</summary>
    [Fact]
    public void A_line_of_the_journal_says_what_was_tried_and_confirmed()
    {
        var job = Repaired();
        var none = System.Collections.Immutable.ImmutableSortedDictionary<string, string>.Empty;
        EntryWords
            .Of(job, new FunctionTested("rest", true, none))
            .ShouldBe("Function test: At rest, supply on: nothing starts by itself: passed");
        EntryWords.Of(job, new FunctionTested("rest", false, none.Add("M1", "runs"))).ShouldEndWith("FAILED, seen: M1 runs");
        EntryWords.Of(job, new FunctionTested("of-another-circuit", true, none)).ShouldBe("Function test: of-another-circuit: passed");
        EntryWords.Of(job, new LookSeen("F2", "flag", "not tripped")).ShouldBe("Looked: Trip flag of F2: not tripped");
        EntryWords.Of(job, new LookSeen("X9", "lid", "open")).ShouldBe("Looked: X9 lid: open");
        EntryWords.Of(job, new Restored("tools")).ShouldBe("Confirmed: Tools and test leads are out of the panel.");
        EntryWords
            .Of(job, new OperationSeen([new Step("S2", "pressed")], none.Add("KM1", "out")) { AllAlong = true })
            .ShouldBe("S2 pressed → nothing happened: KM1 out");
    }

    [Fact]
    public void Chapters_hold_every_entry_once_and_in_order()
    {
        var job = Repaired();
        var story = JobStory.Of(job);
        story.Chapters.Select(c => c.Title).ShouldBe(["Reported", "Searched", "Found", "Repaired", "Proved", "Notes"]);
        story
            .Chapters.SelectMany(c => c.Lines)
            .Select(l => l.Sequence)
            .Order()
            .ShouldBe(job.Entries.Where(e => e is not StruckOut).Select(e => e.Sequence));
        story.Chapters.ShouldAllBe(c => c.Lines.Select(l => l.Sequence).SequenceEqual(c.Lines.Select(l => l.Sequence).Order()));
    }

    /// <summary>Nothing that was recorded disappears: it is read with why it no longer counts.</summary>
    [Fact]
    public void What_was_struck_out_is_read_with_its_reason()
    {
        var line = JobStory.Of(Repaired()).Chapters[1].Lines.Single(l => l.Struck.Length > 0);
        line.Text.ShouldContain("17 V");
        line.Struck.ShouldBe("slipped probe");
    }

    [Fact]
    public void How_the_panel_was_left_stands_beside_the_outcome() =>
        JobStory.Of(Repaired()).Leftovers.ShouldContain(l => l.StartsWith("Isolated at Q1"));

    /// <summary>The commonest second fault is the wire left off after a test (common practice): it is asked for by its number and place.</summary>
    [Fact]
    public void What_has_to_be_put_back_is_what_this_job_took_off()
    {
        var wire = Circuit.Conductors.First(c => c.To == TerminalId.Parse("KM1:A1") || c.From == TerminalId.Parse("KM1:A1"));
        var plain = RestoreList.Of(Of());
        var list = RestoreList.Of(
            Of(
                new Isolated(["Q1"]),
                new ProvedDead(true, true),
                new WireLifted(wire.Id, TerminalId.Parse("KM1:A1")),
                new WireLanded(wire.Id),
                new Tightened(TerminalId.Parse("S2:14"), true),
                new Reading(Quantity.Ohms, TerminalId.Parse("F3:1"), TerminalId.Parse("F3:2"), [], ReadingValue.Of(0.1)) { Alone = true }
            )
        );
        list.Select(i => i.Id).ShouldBe(plain.Select(i => i.Id));
        list[0].Text.ShouldContain($"{wire.Wire} ({wire.Id}) on KM1:A1");
        list[0].Text.ShouldContain("back in with every wire on: F3");
        list[0].Text.ShouldContain("tight: S2:14");
        list.Single(i => i.Id == "locks").Text.ShouldContain("R. Halvar");
    }

    private static Reading Reading(string from, double volts) =>
        new(Quantity.Volts, TerminalId.Parse(from), Circuit.Reference, [], ReadingValue.Of(volts));
}
