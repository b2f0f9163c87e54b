using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Jobs;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Jobs;

/// <summary>How a circuit is proved dead, locked and left. Common practice, EN 50110-1 6.2 (from memory).</summary>
public class HandOverTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static JobState After(params JournalEntry[] entries) =>
        JobState.Of(
            Circuit.Compiled(),
            entries.Select((e, i) => e with { Id = e.Id == Guid.Empty ? Guid.NewGuid() : e.Id, Sequence = i + 1 })
        );

    private static Isolated Off(string who) => new(["Q1"]) { Who = who };

    private static ProvedDead Dead(Func<ProvingPoint, string>? typed = null) =>
        new(true, true)
        {
            Readings =
            [
                .. Circuit
                    .Compiled()
                    .AbsenceOfVoltage.Points.Select(p => new ProvingReading(
                        p.From,
                        p.To,
                        typed?.Invoke(p) ?? (p.Quantity == Quantity.Volts ? "0" : "0.3")
                    )),
            ],
        };

    /// <summary>Three phases behind the isolator: three pairs, each to neutral and to earth, the control supply, and neutral to earth.</summary>
    [Fact]
    public void The_table_asks_for_every_pair_behind_the_isolator()
    {
        var points = Circuit.Compiled().AbsenceOfVoltage.Points;
        points[0].Quantity.ShouldBe(Quantity.Ohms, "the protective conductor before “dead to earth” counts");
        var volts = points.Where(p => p.Quantity == Quantity.Volts).ToList();
        volts.Count(p => p.From.Device == "Q1" && p.To.Device == "Q1").ShouldBe(3);
        volts.Count(p => p.From.Device == "Q1" && p.To == Circuit.Earth).ShouldBe(3);
        volts.Count(p => p.From.Device == "Q1" && p.To == TerminalId.Parse("INC:N")).ShouldBe(3);
        volts.ShouldContain(p => p.From == TerminalId.Parse("INC:N") && p.To == Circuit.Earth);
        volts.ShouldContain(p => p.Text.StartsWith("Control supply", StringComparison.Ordinal));
    }

    public static TheoryData<string> Samples => [.. FamilySamples.Names.Select(n => n.Data)];

    /// <summary>On an isolated good circuit every pair of the table is dead, and the protective conductor below an ohm.</summary>
    [Theory]
    [MemberData(nameof(Samples))]
    public void On_a_good_isolated_circuit_the_table_is_dead(string sample)
    {
        var compiled = FamilySamples.Of(sample).Compiled();
        var panel = new SimulatedPanel(compiled, []);
        panel.Isolate();
        compiled.AbsenceOfVoltage.Points.Length.ShouldBeGreaterThan(2);
        ReadingsOf(panel.MeasureLoaded).ShouldBeNull();

        string? ReadingsOf(Func<Quantity, TerminalId, TerminalId, System.Collections.Immutable.ImmutableArray<Step>, ReadingValue> meter) =>
            compiled.AbsenceOfVoltage.Refuse([
                .. compiled.AbsenceOfVoltage.Points.Select(p => new ProvingReading(
                    p.From,
                    p.To,
                    ReadingText.Show(meter(p.Quantity, p.From, p.To, []), p.Quantity)
                )),
            ]);
    }

    [Fact]
    public void A_reading_that_is_missing_or_not_dead_is_no_proof()
    {
        var isolated = After(Off("Anna"));
        isolated.Refuse(Dead()).ShouldBeNull();
        isolated.Refuse(Dead() with { Readings = [.. Dead().Readings.Skip(1)] })!.ShouldContain("Not measured yet: Protective conductor");
        isolated.Refuse(Dead(p => p.Quantity == Quantity.Volts ? "230" : "0.3"))!.ShouldContain("not dead");
        isolated.Refuse(Dead(p => p.Quantity == Quantity.Volts ? "0" : "OL"))!.ShouldContain("proves nothing");
        isolated.Refuse(Dead(p => "soon"))!.ShouldContain("is not a reading");
        var words = EntryWords.Of(Dead());
        words.ShouldContain("13 pairs");
        words.ShouldContain("INC:N–INC:PE 0");
    }

    /// <summary>What was on when an impulse relay was isolated is on again when the supply comes back (common practice).</summary>
    [Fact]
    public void An_impulse_relay_is_stopped_by_its_own_button_before_it_is_isolated()
    {
        string Notes(Circuit circuit) =>
            string.Join(" ", SafetyRules.Possible(JobState.Of(circuit.Compiled(), [])).First(p => p.Step == SafetyStep.Isolate).Notes);
        var latching = FamilySamples.Names.Select(n => FamilySamples.Of(n.Data)).First(c => c.Devices.Any(d => d.Kind.KeepsPosition));
        Notes(latching).ShouldContain("keeps its position");
        Notes(Circuit).ShouldNotContain("keeps its position");
    }

    [Fact]
    public void Another_persons_lock_holds()
    {
        var both = After(Off("Anna"), new LockHung { Who = "Ben" });
        both.Locks.ShouldBe(["Anna", "Ben"]);
        both.Refuse(new Energised { Who = "Anna" })!.ShouldContain("Ben has a lock");
        both.Refuse(new LockHung { Who = "Ben" })!.ShouldContain("already");
        both.Refuse(new LockTaken("Ben") { Who = "Anna" })!.ShouldContain("procedure");
        both.Refuse(new LockTaken("Cleo", "gone") { Who = "Anna" })!.ShouldContain("No lock");
        After(Off("Anna"), new LockHung { Who = "Ben" }, new LockTaken { Who = "Ben" })
            .Refuse(new Energised { Who = "Anna" })
            .ShouldBeNull();
        After(Off("Anna"), new LockHung { Who = "Ben" }, new LockTaken("Ben", "went home, shift lead decided") { Who = "Anna" })
            .Refuse(new Energised { Who = "Anna" })
            .ShouldBeNull();
        After().Refuse(new LockHung { Who = "Ben" })!.ShouldContain("isolated");
    }

    [Fact]
    public void A_job_ends_isolated_or_with_a_wire_lifted_only_when_it_is_handed_over()
    {
        var lifted = After(Off("Anna"), Dead(), new WireLifted("5.1", TerminalId.Parse("KM1:A1")));
        lifted.Refuse(new Closed(CloseOutcome.NothingFound, "no time"))!.ShouldContain("hand the job over");
        lifted.Refuse(new Closed(CloseOutcome.HandedOver, ""))!.ShouldContain("why");
        lifted.Refuse(new Closed(CloseOutcome.HandedOver, "late shift looks for the core")).ShouldBeNull();
        lifted.Leftovers.ShouldBe(["Isolated at Q1, locked by Anna.", "Wire 5 (5.1) is lifted off KM1:A1."]);
        After(Off("Anna")).Refuse(new Closed(CloseOutcome.NothingFound, "no time"))!.ShouldContain("isolated");
        After().Leftovers.ShouldBeEmpty();
    }

    [Fact]
    public void Nothing_found_is_no_end_of_a_job_with_a_repair()
    {
        var repaired = After(new Repair("KM1", "coil changed", []));
        repaired.Refuse(new Closed(CloseOutcome.NothingFound, "runs again"))!.ShouldContain("That is not “nothing found”");
        repaired.Leftovers.ShouldHaveSingleItem().ShouldContain("function test is not complete");
        After(new Finding("KM1", "", "coil open")).Leftovers.ShouldHaveSingleItem().ShouldContain("Found and not repaired: coil open");
    }
}
