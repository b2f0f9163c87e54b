using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Jobs;

/// <summary>How an entry gets into a journal, on the service and on a device alike.</summary>
public class EntryTakingTests
{
    private static readonly DateTimeOffset Now = new(2026, 3, 4, 5, 6, 7, TimeSpan.Zero);

    private static JobState Empty =>
        JobState.Of(
            new DirectOnLine { Tag = "D-1", Title = "Pump" }
                .Build()
                .Compile(),
            []
        );

    [Fact]
    public void It_is_numbered_and_stamped_and_keeps_the_id_and_time_that_it_came_with()
    {
        var (id, made) = (Guid.NewGuid(), Now.AddMinutes(-3));
        var taken = EntryTaking.Take(
            Empty,
            new Note("Cover was off")
            {
                Id = id,
                At = made,
                Origin = "elsewhere",
            },
            7,
            Now
        );
        taken.Refused.ShouldBeNull();
        (taken.Entry!.Id, taken.Entry.Sequence, taken.Entry.At, taken.Entry.Received, taken.Entry.Origin).ShouldBe((id, 7, made, Now, ""));
        EntryTaking.Take(Empty, new Note("No id"), 1, Now).Entry!.Id.ShouldNotBe(Guid.Empty);
    }

    [Fact]
    public void What_was_typed_is_understood_or_refused_with_what_to_type()
    {
        var typed = new ReadingAsTyped(Quantity.Volts, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), [], "lots");
        EntryTaking.Understand(typed, out _).ShouldNotBeNull();
        EntryTaking.Understand(new Note("as it is"), out var meant).ShouldBeNull();
        meant.ShouldBeOfType<Note>();
    }

    [Fact]
    public void A_correction_of_the_circuit_is_no_entry_of_its_own() =>
        EntryTaking.Take(Empty, new CircuitCorrected(1, 2, "wire 5"), 1, Now).Refused!.ShouldContain("its own request");

    [Fact]
    public void A_full_journal_takes_nothing_more_but_its_close()
    {
        var notes = Enumerable.Range(1, EntryRules.Entries).Select(i => new Note($"{i}") { Id = Guid.NewGuid(), Sequence = i });
        var full = JobState.Of(Empty.Compiled, notes);
        EntryTaking.Take(full, new Note("one more"), EntryRules.Entries + 1, Now).Refused!.ShouldContain("5000 entries");
        (
            EntryTaking.Take(full, new Closed(CloseOutcome.HandedOver, "to the late shift"), EntryRules.Entries + 1, Now).Refused ?? ""
        ).ShouldNotContain("5000");
    }

    [Fact]
    public void A_job_begins_the_same_wherever_it_is_opened()
    {
        var job = Guid.NewGuid();
        var first = EntryTaking.FirstEntries(" Hums ", ["Wire 5 is lifted."], [new Told(Circumstance.Water)]).ToList();
        first.Select(e => e.GetType()).ShouldBe([typeof(Complaint), typeof(Note), typeof(Told)]);
        var (here, there) = (
            EntryTaking.Open(Empty, job, first, Now, "tester", Now),
            EntryTaking.Open(Empty, job, first, Now, "tester", Now.AddHours(5))
        );
        here.Entries.Select(e => e.Id).ShouldBe(there.Entries.Select(e => e.Id));
        here.Entries.Select(e => e.Sequence).ShouldBe([1, 2, 3]);
        here.Entries.Select(e => e.Id).Distinct().Count().ShouldBe(3);
        EntryTaking.Open(Empty, Guid.NewGuid(), first, Now, "tester", Now).Entries[0].Id.ShouldNotBe(here.Entries[0].Id);
    }

    [Fact]
    public void What_cannot_begin_a_job_refuses_it() =>
        Should.Throw<RefusedException>(() =>
            EntryTaking.Open(Empty, Guid.NewGuid(), [new LookSeen("KM9", "coil", "burnt")], Now, "x", Now)
        );
}
