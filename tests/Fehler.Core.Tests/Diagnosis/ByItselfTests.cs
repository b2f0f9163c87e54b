using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// Readings that are not of two terminals as they are wired: a device by itself, the free end of a lifted wire; conductors counted under a
/// screw; and currents that share their motor's load.
/// </summary>
public class ByItselfTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static Journal DoesNotPullIn() =>
        new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped").Dead();

    private static double Share(Journal journal, string unit) =>
        journal.Diagnose().Units.Where(u => u.Unit == unit).Sum(u => u.Probability);

    /// <summary>A coil on the bench that reads OL is open, whatever it was connected to (common practice).</summary>
    [Fact]
    public void A_coil_that_reads_OL_by_itself_is_open()
    {
        var result = DoesNotPullIn().Add(ByItself("KM1:A1", "KM1:A2", null)).Diagnose();
        result.Units[0].Unit.ShouldBe("KM1");
        result.Units[0].Suspects[0].Fault!.Id.ShouldBe("KM1/A1-A2-open");
    }

    /// <summary>A fuse that is rung out good is not blown, and the search goes on elsewhere (common practice).</summary>
    [Fact]
    public void A_fuse_that_rings_out_good_is_cleared()
    {
        var fuse = Circuit.Devices.First(d => d.Kind.Id == "fuse" && d.Kind.Poles(d).Length == 1).Tag;
        var before = Share(DoesNotPullIn(), fuse);
        var after = Share(DoesNotPullIn().Add(ByItself($"{fuse}:1", $"{fuse}:2", 0.1)), fuse);
        before.ShouldBeGreaterThan(0.02);
        after.ShouldBeLessThan(before / 5);
        var blown = DoesNotPullIn().Add(ByItself($"{fuse}:1", $"{fuse}:2", null)).Diagnose();
        blown.Units[0].Unit.ShouldBe(fuse);
    }

    [Fact]
    public void Only_one_device_stands_by_itself_and_it_has_no_voltage()
    {
        var dead = JobState.Of(Circuit.Compiled(), [new Isolated(["Q1"]) { Sequence = 1 }, new ProvedDead(true, true) { Sequence = 2 }]);
        dead.Refuse(ByItself("KM1:A1", "S2:14", 10))!.ShouldContain("two of its own terminals");
        dead.Refuse(ByItself("KM1:A1", "KM1:A2", 10) with { Quantity = Quantity.Volts })!.ShouldContain("no voltage");
        dead.Refuse(ByItself("KM1:A1", "KM1:A2", 460)).ShouldBeNull();
    }

    /// <summary>
    /// A wire is rung out from its free end to its other end: OL is the wire itself, next to nothing clears it; what else is on the terminal
    /// that it was lifted off has no say (common practice). One OL may be a lead that slipped: the wire leads, it is not certain.
    /// </summary>
    [Fact]
    public void A_lifted_wire_is_rung_out_from_its_free_end()
    {
        var wire = Circuit.Conductors.First(c => c.To == TerminalId.Parse("KM1:A1") || c.From == TerminalId.Parse("KM1:A1"));
        var (off, far) = (TerminalId.Parse("KM1:A1"), wire.From == TerminalId.Parse("KM1:A1") ? wire.To : wire.From);
        Journal Lifted() => DoesNotPullIn().Add(new WireLifted(wire.Id, off));
        Journal RungOut(double? ohms) => Lifted().Add(new Reading(Quantity.Ohms, off, far, [], Value(ohms)) { FreeEnd = wire.Id });
        var open = RungOut(null).Diagnose();
        open.Units[0].Unit.ShouldBe(wire.Id);
        open.Units[0].Probability.ShouldBeGreaterThan(0.15);
        Share(RungOut(0.2), wire.Id).ShouldBeLessThan(0.002);
    }

    [Fact]
    public void A_free_end_is_that_of_a_wire_that_was_lifted_off_this_terminal()
    {
        var wire = Circuit.Conductors.First(c => c.To == TerminalId.Parse("KM1:A1") || c.From == TerminalId.Parse("KM1:A1"));
        JournalEntry[] dead = [new Isolated(["Q1"]) { Sequence = 1 }, new ProvedDead(true, true) { Sequence = 2 }];
        var reading = new Reading(Quantity.Ohms, TerminalId.Parse("KM1:A1"), Circuit.Reference, [], Value(1)) { FreeEnd = wire.Id };
        JobState.Of(Circuit.Compiled(), dead).Refuse(reading)!.ShouldContain("not recorded as lifted");
        var lifted = JobState.Of(Circuit.Compiled(), [.. dead, new WireLifted(wire.Id, TerminalId.Parse("KM1:A1")) { Sequence = 3 }]);
        lifted.Refuse(reading).ShouldBeNull();
        lifted.Refuse(reading with { From = TerminalId.Parse("KM1:A2") })!.ShouldContain("was lifted off KM1:A1");
    }

    /// <summary>One conductor fewer than drawn under a screw: one of those came off, and is worth a look before any reading.</summary>
    [Fact]
    public void A_conductor_missing_under_a_screw_points_to_those_drawn_there()
    {
        var at = TerminalId.Parse("KM1:13");
        var drawn = Circuit.ConductorsAt(at).ToList();
        double AtScrew(Journal journal) => drawn.Sum(c => Share(journal, c.Id));
        Journal OnlyHeld() =>
            new Journal(Circuit)
                .Add(new LiveWorkAcknowledged())
                .Did(Starters.Press, "KM1 in, M1 runs")
                .Did(Starters.Release, "KM1 out, M1 stopped");
        var before = AtScrew(OnlyHeld());
        AtScrew(OnlyHeld().Add(new ConductorsCounted(at, drawn.Count - 1))).ShouldBeGreaterThan(3 * before);
        AtScrew(OnlyHeld().Add(new ConductorsCounted(at, drawn.Count))).ShouldBeLessThan(before);
    }

    /// <summary>
    /// A motor at half of its load draws less in all three lines alike: that is one thing, not three, and no fault (common practice).
    /// </summary>
    [Fact]
    public void Three_currents_that_are_low_alike_speak_against_nothing()
    {
        var journal = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs");
        var plate = Circuit.Devices.Select(d => d.Kind.PlateOf(d)).First(p => p is not null)!;
        foreach (var terminal in new[] { "KM1:2", "KM1:4", "KM1:6" })
        {
            journal.Add(
                new Reading(
                    Quantity.Amps,
                    TerminalId.Parse(terminal),
                    TerminalId.Parse(terminal),
                    [],
                    ReadingValue.Of(0.6 * plate.Amps.Value)
                )
            );
        }

        journal.Diagnose().Summary.ShouldContain("what a good circuit does");
    }

    /// <summary>Nobody looked which way it turns: it runs, and every way of running fits it alike.</summary>
    [Fact]
    public void A_motor_that_runs_some_way_is_a_motor_that_runs()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Add(new OperationSeen([Starters.Press], Known("in", "runs, way not known")))
            .Add(new OperationSeen([Starters.Release], Known("out", "stopped")))
            .Diagnose();
        var plain = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Diagnose();
        result.Units[0].Unit.ShouldBe(plain.Units[0].Unit);
    }

    /// <summary>
    /// What a bench check of good parts reads is what the healthy circuit foretells: no item speaks against it, whatever stands how.
    /// </summary>
    [Theory]
    [MemberData(nameof(Families.FamilySamples.Names), MemberType = typeof(Families.FamilySamples))]
    public void A_bench_check_of_good_parts_fits_a_good_circuit(string sample)
    {
        var compiled = Families.FamilySamples.Of(sample).Compiled();
        var isolated = new Isolated(compiled.Isolation.Points) { Sequence = 1 };
        var dead = JobState.Of(compiled, [isolated, new ProvedDead(true, true) { Sequence = 2 }]);
        var session = new DiagnosisSession(compiled);
        var judge = new EntryJudge(session);
        judge.Judge(session.Healthy, isolated);
        var panel = new Simulator(compiled.Network);
        var entries = compiled
            .BenchCheck.Items.Where(i => i.IsMeasured)
            .Select(i => i.AsEntry(ReadingText.Show(new Ohms(Math.Round(i.ReadOn(panel).Value, 1)))))
            .Where(e => dead.Refuse(e) is null)
            .ToList();
        entries.Count.ShouldBeGreaterThan(15);
        entries.Where(e => !judge.Explains(session.Healthy, e)).Select(e => EntryWords.Of(e)).ShouldBeEmpty();
    }

    private static ImmutableSortedDictionary<string, string> Known(string contactor, string motor) =>
        ImmutableSortedDictionary<string, string>.Empty.Add("KM1", contactor).Add("M1", motor);

    private static Reading ByItself(string from, string to, double? ohms) =>
        new(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), [], Value(ohms)) { Alone = true };

    private static ReadingValue Value(double? ohms) => ohms is { } value ? ReadingValue.Of(value) : new ReadingValue(ReadingKind.OverLimit);
}
