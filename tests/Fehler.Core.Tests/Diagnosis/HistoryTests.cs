using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Earlier repairs move what is suspected first, and readings outweigh them.</summary>
public class HistoryTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static DiagnosisResult After(History history, params JournalEntry[] entries)
    {
        var session = new DiagnosisSession(Circuit.Compiled());
        session.Learn(history);
        return session.Diagnose(
            JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }))
        );
    }

    private static double Share(DiagnosisResult result, string unit) => result.Units.FirstOrDefault(u => u.Unit == unit)?.Probability ?? 0;

    private static readonly JournalEntry Dead = new OperationSeen([Starters.Press], Journal.Seen("KM1 out, M1 stopped"));

    private static History Here(string fault, int times) =>
        History.None with
        {
            Here = ImmutableSortedDictionary<string, int>.Empty.Add(fault, times),
        };

    [Fact]
    public void What_failed_here_before_is_suspected_sooner()
    {
        var before = Share(After(History.None, Dead), "S2");
        var after = Share(After(Here("S2/13-14-open", 3), Dead), "S2");
        after.ShouldBeGreaterThan(2 * before);
    }

    /// <summary>A Dirichlet prior by hand: (20 · 0.5 + 3) / 23 over 0.5 for a mode that is half of everything (Bayes' rule).</summary>
    [Fact]
    public void The_weight_is_that_of_counted_repairs()
    {
        var factors = Here("S2/13-14-open", 3).Factors(Circuit.Compiled());
        var faults = FaultCatalogue.Of(Circuit);
        var total = faults.Sum(f => f.Weight);
        var share = faults.Where(f => f.Id == "S2/13-14-open").Sum(f => f.Weight) / total;
        factors["S2/13-14-open"].ShouldBe((20 * share + 3) / (23 * share), 1e-9);
        faults.Sum(f => f.Weight / total * factors[f.Id]).ShouldBe(1, 1e-9);
    }

    [Fact]
    public void A_repair_elsewhere_in_the_plant_counts_less_than_one_here()
    {
        var fault = Starters.Fault(Circuit, "S2/13-14-open");
        var plant = History.None with { Plant = ImmutableSortedDictionary<string, int>.Empty.Add(History.KeyOf(Circuit, fault), 3) };
        var (none, elsewhere, here) = (
            Share(After(History.None, Dead), "S2"),
            Share(After(plant, Dead), "S2"),
            Share(After(Here(fault.Id, 3), Dead), "S2")
        );
        elsewhere.ShouldBeInRange(none, here);
        elsewhere.ShouldNotBe(none);
    }

    [Fact]
    public void A_reading_outweighs_what_was_repaired_before()
    {
        var passes = new Reading(
            Quantity.Ohms,
            TerminalId.Parse("S2:13"),
            TerminalId.Parse("S2:14"),
            [Starters.Press],
            ReadingValue.Of(0.1)
        );
        var result = After(Here("S2/13-14-open", 10), Dead, new Isolated(["Q1"]), new ProvedDead(true, true), passes);
        Share(result, "S2").ShouldBeLessThan(0.1);
    }

    /// <summary>
    /// The coil of this very contactor measured 10 % above the description when it was good: 25 % less than that is shorted turns sooner.
    /// </summary>
    [Fact]
    public void What_this_coil_measured_when_it_was_good_narrows_what_it_should_measure_now()
    {
        var described = new Core.Bench.SimulatedPanel(Circuit.Compiled(), []);
        described.Isolate();
        var ohms = described.Measure(Quantity.Ohms, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), []).Number;
        var known = History.None with { Ohms = ImmutableSortedDictionary<string, double>.Empty.Add("KM1:A1 KM1:A2", 1.1 * ohms) };
        var low = new Reading(Quantity.Ohms, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), [], ReadingValue.Of(0.84 * ohms));
        JournalEntry[] entries = [Dead, new Isolated(["Q1"]), new ProvedDead(true, true), low];
        Healthy(After(known, entries)).ShouldBeLessThan(0.7 * Healthy(After(History.None, entries)));
        After(known, [.. entries[..3], low with { Value = ReadingValue.Of(1.1 * ohms) }])
            .Units.ShouldNotContain(u => u.Suspects[0].Fault != null && u.Suspects[0].Fault!.Id == "KM1/coil-shorted");

        // How well the reading fits a coil that is as it should be, seen by what else in the path keeps its share.
        static double Healthy(DiagnosisResult result) =>
            result.Units.Where(u => u.Unit is "S2" or "S1").Sum(u => u.Probability)
            / Math.Max(1e-9, result.Units.Where(u => u.Unit == "KM1").Sum(u => u.Probability));
    }

    [Fact]
    public void Only_good_windings_measured_by_themselves_are_learned_from()
    {
        Reading Coil(double ohms) => new(Quantity.Ohms, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"), [], ReadingValue.Of(ohms));
        JobState State(params JournalEntry[] entries) =>
            JobState.Of(Circuit.Compiled(), entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1 }));
        OwnResistances.Of(State(Coil(580))).ShouldBe([("KM1:A1 KM1:A2", new Ohms(580))]);
        OwnResistances.Of(State(Coil(580), new Repair("KM1", "coil", ["coil"]))).ShouldBeEmpty();
        OwnResistances.Of(State(new WireLifted("5.1", TerminalId.Parse("KM1:A1")), Coil(580))).ShouldBeEmpty();
        OwnResistances.Of(State(Coil(580) with { Held = [Starters.Press] })).ShouldBeEmpty();
        OwnResistances.Of(State(Coil(580) with { From = TerminalId.Parse("F3:2") })).ShouldBeEmpty();
    }

    /// <summary>Old devices fail more often than new ones (common practice: the far end of the bathtub curve).</summary>
    [Fact]
    public void An_old_device_is_suspected_sooner_than_a_new_one()
    {
        History Aged(double years) => History.None with { Years = ImmutableSortedDictionary<string, double>.Empty.Add("S2", years) };
        var shares = new[] { 0.0, 5, 20 }.Select(y => Share(After(Aged(y), Dead), "S2")).ToList();
        shares.ShouldBeInOrder();
        shares[1].ShouldBe(Share(After(History.None, Dead), "S2"), 1e-6);
        (shares[2] / shares[0]).ShouldBeGreaterThan(2);
    }
}
