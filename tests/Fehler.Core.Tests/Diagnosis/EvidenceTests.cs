using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>Kinds of evidence and of suspects beyond one fault, volts and ohms.</summary>
public class EvidenceTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    private static readonly ImmutableSortedDictionary<string, string> Hums = Journal.Seen("KM1 in").Add("M1", "hums, does not start");

    /// <summary>
    /// A contactor that drops out as Start is let go has lost its holding branch; one that never moved has not (common practice). Both are
    /// "out" at the end.
    /// </summary>
    [Fact]
    public void Nothing_happened_is_more_than_out_at_the_end()
    {
        var still = Journal.Seen("KM1 out, M1 stopped");
        double Holding(bool allAlong)
        {
            var entry = new OperationSeen([Starters.Press, Starters.Release], still) { AllAlong = allAlong };
            var suspects = new Journal(Circuit).Add(entry).Diagnose().Units.SelectMany(u => u.Suspects);
            return suspects.Where(s => s.Fault?.Id == "KM1/13-14-open").Sum(s => s.Probability);
        }

        Holding(false).ShouldBeGreaterThan(0.02);
        Holding(true).ShouldBeLessThan(0.1 * Holding(false));
    }

    /// <summary>
    /// Whoever says "it runs" of a motor that has stayed in star has not said that delta is in: the contactors say that (common practice).
    /// </summary>
    [Fact]
    public void It_runs_is_said_of_a_motor_in_star_too()
    {
        var circuit = FamilySamples.Of("star-delta");
        var start = circuit.Compiled().RunUp.Starts[0].Run;
        var result = new Journal(circuit)
            .Add(new OperationSeen([.. start, Step.Wait(20)], Journal.Seen("KM1 in, KM2 out, KM3 in, M1 runs")))
            .Diagnose();
        result.Units.Where(u => u.Unit is "KT1" or "KM2" or "KM3").Sum(u => u.Probability).ShouldBeGreaterThan(0.5, $"{result.Summary}");
    }

    /// <summary>Whoever sees the lamp of a timer says that it is on, whether it has timed out or not (common practice).</summary>
    [Fact]
    public void A_timer_whose_lamp_is_lit_is_said_to_be_on()
    {
        var circuit = FamilySamples.Of("star-delta");
        var start = circuit.Compiled().RunUp.Starts[0].Run;
        var result = new Journal(circuit)
            .Add(new OperationSeen([.. start, Step.Wait(20)], Journal.Seen("KM1 in, KM2 out, KM3 in, KT1 on, M1 runs in star")))
            .Diagnose();
        result.Units.Single(u => u.Unit == "KT1").Suspects.ShouldContain(s => s.Title.ToString().Contains("never times out"));
        result.Units.Single(u => u.Unit == "KT1").Probability.ShouldBeGreaterThan(0.2, $"{result.Summary}");
    }

    /// <summary>
    /// The way of the trade with a starter that does nothing: across the open Start stands the whole voltage if what follows is whole; with
    /// Start held somebody sees the contactor before a meter is moved; then the coil is measured while Start is held (common practice).
    /// What rests on a ghost alone comes after these.
    /// </summary>
    [Fact]
    public void A_starter_that_does_nothing_is_searched_as_the_trade_does_it()
    {
        var dead = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Add(new OperationSeen([Starters.Press, Starters.Release], Journal.Seen("KM1 out, M1 stopped")) { AllAlong = true });
        var first = dead.Diagnose().Proposals.First(p => p.Kind == ProposalKind.Reading);
        (first.GoodValue > 200).ShouldBeTrue($"a voltage that a source holds, not {first.Good} at {first.Title}");

        var held = dead.Volts("F2:96", Circuit.Reference.ToString(), 229, Starters.Press).Diagnose().Proposals;
        (held[0].Kind, held[0].Steps.Length, held[0].Setup.Change).ShouldBe((ProposalKind.Operation, 0, SetupChange.None), held[0].Title);
        held[0].Outcomes.Length.ShouldBeGreaterThan(1);
        held[0].Watched.ShouldContain("KM1");
        held[0].Watched.ShouldNotContain("H2", "a trip lamp tells nothing here");
        held[0].Good.ShouldContain("KM1 in");
        $"{held[0].Good} {string.Join(' ', held[0].Outcomes.Select(o => o.Shows))}".ShouldNotContain("H2");
        held[0].Outcomes.Select(o => o.Shows).ShouldBeUnique("an answer that reads like another is the same one");

        var seen = dead.Add(new OperationSeen([], Journal.Seen("KM1 out, M1 stopped"))).Diagnose().Proposals;
        seen.ShouldNotContain(p => p.Kind == ProposalKind.Operation && p.Steps.IsEmpty, "it has been said");
        var coil = seen.First(p => p.Kind == ProposalKind.Reading);
        new[] { coil.From.ToString(), coil.To.ToString() }.Order().ShouldBe(["KM1:A1", "KM1:A2"]);
        coil.Setup.Held.ShouldBe([Starters.Press]);
    }

    /// <summary>
    /// Across an open contact of a contactor that everybody can see is out stands the whole voltage, sound or not (common practice): that
    /// proves nothing, and "good" is not what a contactor shows that would be in.
    /// </summary>
    [Fact]
    public void Good_means_sound_with_every_device_as_it_was_seen_to_stand()
    {
        var drops = new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 in, M1 runs").Did(Starters.Release, "KM1 out, M1 stopped");
        foreach (
            var across in drops.Diagnose().Proposals.Where(p => IsAcross(p, "KM1:13", "KM1:14") && p.Setup.Held.IsEmpty && !p.Setup.Dead)
        )
        {
            across.GoodValue!.Value.ShouldBeGreaterThan(200, across.Title.ToString());
            across.IsProof.ShouldBeFalse();
        }

        var read = drops.Volts("KM1:13", "KM1:14", 230).Diagnose();
        read.Status.ShouldNotBe(DiagnosisStatus.Found);
        var dead = drops.Dead().Ohms("KM1:13", "KM1:14", null, new Step("KM1", "in")).Diagnose();
        dead.Units[0].Unit.ShouldBe("KM1");
        dead.Status.ShouldBe(DiagnosisStatus.Found, dead.Summary.ToString());

        static bool IsAcross(Proposal p, string a, string b) =>
            p.Kind == ProposalKind.Reading && new[] { p.From.ToString(), p.To.ToString() }.Order().SequenceEqual(new[] { a, b }.Order());
    }

    /// <summary>
    /// With the cover on the operator misses its block, with the block pressed by a finger the contact makes: it is the operator, not the
    /// contact (common practice).
    /// </summary>
    [Fact]
    public void A_block_that_makes_when_pressed_itself_speaks_for_its_operator()
    {
        var result = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Volts("S2:13", "S2:14", 230, Starters.Press)
            .Dead()
            .Ohms("S2:13", "S2:14", null, Starters.Press)
            .Ohms("S2:13", "S2:14", 0.2, new Step("S2", "block pressed"))
            .Diagnose();
        result.Units[0].Unit.ShouldBe("S2");
        result.Units[0].Suspects[0].Fault!.Kind.ShouldBe("operator-misses", result.Summary.ToString());
    }

    /// <summary>Before anything was seen a circuit stands at rest: the wire behind an overload's open contact is not live.</summary>
    [Fact]
    public void Before_anything_was_seen_the_drawing_shows_the_circuit_at_rest()
    {
        var circuit = Starters.LineToNeutral;
        var behind = circuit.WireAt(TerminalId.Parse("F2:98"));
        var live = new Journal(circuit).Diagnose().LiveWires;
        live.ShouldNotContain(behind);
        live.ShouldContain(circuit.WireAt(TerminalId.Parse("F2:97")));
    }

    /// <summary>The wires of a motor whose contactor was seen to drop out are not shown live.</summary>
    [Fact]
    public void The_drawing_shows_live_what_is_live_as_things_were_seen()
    {
        var drops = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Diagnose();
        var motor = Starters.LineToNeutral.WireAt(TerminalId.Parse("M1:U"));
        drops.LiveWires.ShouldNotContain(motor);
        drops.LiveWires.ShouldContain(Starters.LineToNeutral.WireAt(TerminalId.Parse("KM1:1")));
    }

    /// <summary>
    /// The change-over is past by the time the meter is there: control voltage on the delta coil is what a good starter has then, none is what
    /// a broken one has.
    /// </summary>
    [Theory]
    [InlineData(231.0, false)]
    [InlineData(0.3, true)]
    public void What_is_measured_after_a_start_is_measured_in_delta(double volts, bool points)
    {
        var result = new Journal(Families.FamilySamples.Of("star-delta"))
            .Did(new Step("S2", "pressed"), "KM1 in, KM3 in, KM2 out, M1 runs in star")
            .Did(new Step("S2", "released"), "KM1 in, KM3 in, KM2 out, M1 runs in star")
            .Volts("KM2:A1", "KM2:A2", volts)
            .Diagnose();
        (result.Units.Where(u => u.Unit.Length > 0).Sum(u => u.Probability) > 0.8).ShouldBe(points, result.Summary.ToString());
    }

    [Fact]
    public void A_clamp_shows_the_same_current_in_all_three_lines()
    {
        var running = Starters.Healthy(Circuit).Running().Solution;
        var amps = new[] { "F2:2", "F2:4", "F2:6" }.Select(t => running.Amps(TerminalId.Parse(t))).ToList();
        var plate = Circuit.Device("M1").Given("amps").Number!.Value;
        amps.ShouldAllBe(a => a.Value > plate / 3 && a.Value < plate);
        (amps.Max() / amps.Min()).ShouldBe(1, 0.02);
    }

    /// <summary>
    /// One line lost: nothing in that line, the same in the other two (Kirchhoff), and more than before (common practice: about 1.7 times).
    /// </summary>
    [Fact]
    public void A_clamp_tells_which_line_is_lost()
    {
        var journal = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Add(new OperationSeen([Starters.Press], Hums))
            .Add(new OperationSeen([Starters.Release], Hums));
        double InLine(DiagnosisResult result, params string[] marks) =>
            result
                .Units.SelectMany(u => u.Suspects)
                .Where(s => s.Fault is { } f && marks.Any(m => f.Id.Contains(m, StringComparison.Ordinal)))
                .Sum(s => s.Probability);
        string[] others = ["1-2", "3-4", "L1", "L2", "winding-U-open", "winding-V-open"];
        InLine(journal.Diagnose(), others).ShouldBeGreaterThan(0.3);
        journal.Add(Amps("F2:6", 0)).Add(Amps("F2:2", 31)).Add(Amps("F2:4", 31));
        var result = journal.Diagnose();
        var left = result.Units.Where(u => u.Probability > 0.01).ToList();
        InLine(result, others).ShouldBeLessThan(0.03);
        InLine(result, "5-6", "L3", "winding-W-open").ShouldBeGreaterThan(0.8);
        left.ShouldAllBe(u => !u.Unit.EndsWith("L1.1", StringComparison.Ordinal) && !u.Unit.EndsWith("L2.1", StringComparison.Ordinal));
        // What is named is in the third line, whichever part of it.
        var faults = left.Take(2).Select(u => u.Suspects[0].Fault!.Id).ToList();
        faults.ShouldAllBe(
            f =>
                f.Contains("5-6", StringComparison.Ordinal)
                || f.Contains("L3", StringComparison.Ordinal)
                || f.Contains('W', StringComparison.Ordinal),
            string.Join(", ", faults)
        );
    }

    [Fact]
    public void A_clamp_reading_is_refused_across_two_points_and_on_an_unacknowledged_circuit()
    {
        var state = JobState.Of(Circuit.Compiled(), []);
        state.Refuse(Amps("F2:2", 5))!.ShouldContain("Acknowledge");
        var across = new Reading(Quantity.Amps, TerminalId.Parse("F2:2"), TerminalId.Parse("F2:4"), [], ReadingValue.Of(5));
        state.Refuse(across)!.ShouldContain("one lead");
    }

    [Fact]
    public void A_reading_that_nobody_is_sure_of_changes_nothing_and_is_not_asked_for_again()
    {
        var journal = new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped");
        var before = journal.Diagnose();
        var asked = before.Proposals.First(p => p.Kind == ProposalKind.Reading);
        journal.Add(new Reading(asked.Quantity, asked.From, asked.To, asked.Setup.Held, new ReadingValue(ReadingKind.NotSure)));
        var after = journal.Diagnose();
        after
            .Units.ToDictionary(u => u.Unit, u => Math.Round(u.Probability, 6))
            .ShouldBe(before.Units.ToDictionary(u => u.Unit, u => Math.Round(u.Probability, 6)), ignoreOrder: true);
        after.Proposals.ShouldNotContain(p =>
            p.From == asked.From && p.To == asked.To && p.Quantity == asked.Quantity && p.Setup.Equals(asked.Setup)
        );
    }

    /// <summary>Two faults at once: each is found and repaired in turn, and the second is not taken for a failed repair.</summary>
    [Theory]
    [InlineData("F3/1-2-blown", "KM1/13-14-open")]
    [InlineData("S1/21-22-open", "S2/13-14-open")]
    [InlineData("KM1/A1-A2-open", "F2/95-96-open")]
    public void Two_faults_at_once_are_both_found(string first, string second)
    {
        var faults = new[] { first, second }.Select(id => Starters.Fault(Circuit, id)).ToList();
        var run = GuidedRun.On(Circuit.Compiled(), faults, new GuidedRunOptions());
        run.Left.ShouldBeEmpty($"{run.Result.Summary}; {string.Join(", ", run.Result.Units.Select(u => $"{u.Unit} {u.Probability:P0}"))}");
        run.WorksAgain.ShouldBeTrue();
    }

    [Fact]
    public void When_no_single_fault_fits_the_pair_is_named_with_both_its_parts()
    {
        // Nothing happens at all, control voltage is there behind the Stop, and both the Start and the coil are open.
        var journal = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Did(Starters.Release, "KM1 out, M1 stopped")
            .Dead()
            .Ohms("S2:13", "S2:14", null, new Step("S2", "pressed"))
            .Ohms("KM1:A1", "KM1:A2", null)
            .Beep("S2:13", "S2:14", false, new Step("S2", "pressed"))
            .Ohms("KM1:A2", "KM1:A1", null)
            .Ohms("S1:21", "S1:22", 0.1)
            .Ohms("F3:1", "F3:2", 0.1);
        var result = journal.Diagnose();
        result.Units.Take(2).Select(u => u.Unit).ShouldBe(["KM1", "S2"], ignoreOrder: true);
        result.Units.Take(2).ShouldAllBe(u => u.Probability > 0.9);
        result.Units[0].Suspects[0].Title.ShouldContain("; and ");
    }

    /// <summary>
    /// Lifting the motor's leads tells the winding from its cable, or the drop along a core between its two ends does (common practice).
    /// </summary>
    [Theory]
    [InlineData("4L1.2/earth", "0.3 ohm")]
    [InlineData("4L2.2/short-4L3.2", "3 ohm")]
    [InlineData("M1/winding-U-earth", "")]
    public void The_cable_and_the_winding_it_feeds_are_told_apart(string id, string variant)
    {
        var fault = FaultCatalogue.Of(Circuit).First(f => f.Id == id && (variant.Length == 0 || f.Variant == variant));
        var run = GuidedRun.On(Circuit.Compiled(), fault);
        run.HasSymptom.ShouldBeTrue();
        bool IsAlongTheCable(Reading r) =>
            r.Quantity == Quantity.Volts && Circuit.WireAt(r.From) == Circuit.WireAt(r.To) && (r.From.Device, r.To.Device) == ("X1", "M1");
        run.Entries.Any(e => e is WireLifted || (e is Reading r && IsAlongTheCable(r))).ShouldBeTrue($"{run.Result.Summary}");
        run.Entries.OfType<WireLanded>().Count().ShouldBe(run.Entries.OfType<WireLifted>().Count());
        run.Result.Units.First(u => u.Unit.Length > 0).Unit.ShouldBe(fault.Unit, $"{run.Result.Summary}");
    }

    [Theory]
    [InlineData(Without.Live)]
    [InlineData(Without.Isolating)]
    [InlineData(Without.Operating)]
    [InlineData(Without.Field)]
    [InlineData(Without.Clamp | Without.Lifting)]
    public void What_cannot_be_done_now_is_not_proposed(Without without)
    {
        var journal = new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped");
        var proposals = journal.Diagnose(without: without).Proposals;
        proposals.ShouldNotBeEmpty();
        var readings = proposals.Where(p => p.Kind == ProposalKind.Reading).ToList();
        switch (without)
        {
            case Without.Live:
                readings.ShouldAllBe(p => !p.Quantity.IsLive());
                break;
            case Without.Isolating:
                proposals.ShouldAllBe(p => p.Setup.Change != SetupChange.Isolate);
                break;
            case Without.Operating:
                proposals.ShouldAllBe(p => p.Kind != ProposalKind.Operation && (p.Setup.Dead || p.Setup.Held.IsEmpty));
                break;
            case Without.Field:
                readings.ShouldAllBe(p => new[] { p.From, p.To }.All(t => Circuit.LocationOf(t).Type == LocationType.Enclosure));
                break;
            default:
                readings.ShouldAllBe(p => p.Quantity != Quantity.Amps && p.Setup.LiftedAt.Length == 0);
                break;
        }
    }

    /// <summary>
    /// A share of all faults with one reading in ten wrong; `./fehler evaluate` tries more and docs/diagnosis-quality.md keeps the figures.
    /// </summary>
    [Fact]
    public void One_wrong_reading_in_ten_does_not_lead_astray()
    {
        var faults = FaultCatalogue.Of(Circuit).Where((_, i) => i % 41 == 7).ToList();
        var runs = faults
            .Select(f => (Fault: f, Run: GuidedRun.On(Circuit.Compiled(), [f], new GuidedRunOptions { Seed = 3, WrongShare = 0.1 })))
            .Where(r => r.Run.HasSymptom)
            .ToList();
        runs.Count.ShouldBeGreaterThan(4);
        foreach (var (fault, run) in runs)
        {
            var top = run.Result.Units.First(u => u.Unit.Length > 0);
            (top.Alike.Append(top.Unit).Contains(fault.Unit) || top.Probability < 0.95).ShouldBeTrue(
                $"{fault.Id} {fault.Variant}: sure and wrong: {run.Result.Summary}"
            );
        }

        runs.Count(r => r.Run.Result.Units.First(u => u.Unit.Length > 0) is var top && top.Alike.Append(top.Unit).Contains(r.Fault.Unit))
            .ShouldBeGreaterThanOrEqualTo(runs.Count - 1);
    }

    /// <summary>What tripped because of the fault is named apart from it.</summary>
    [Fact]
    public void A_blown_fuse_is_named_as_the_consequence_of_a_shorted_winding()
    {
        var run = GuidedRun.On(Circuit.Compiled(), Starters.Fault(Circuit, "M1/winding-U-V-short"));
        run.Result.Units.First(u => u.Unit.Length > 0).Unit.ShouldBe("M1", $"{run.Result.Summary}");
        run.Result.Consequences.ShouldContain(c => c.StartsWith("F1", StringComparison.Ordinal), $"{run.Result.Summary}");
    }

    /// <summary>A dead meter shows nothing everywhere: that is said before the circuit is blamed.</summary>
    [Fact]
    public void A_meter_that_shows_nothing_anywhere_is_suspected()
    {
        var journal = new Journal(Circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 in, M1 runs");
        foreach (
            var (from, to) in new[] { ("F3:1", "INC:N"), ("INC:L1", "INC:L2"), ("INC:L2", "INC:L3"), ("KM1:A1", "INC:N"), ("F1:2", "F1:4") }
        )
        {
            journal.Volts(from, to, 0);
        }

        var result = journal.Diagnose();
        result.Status.ShouldBe(DiagnosisStatus.Contradiction, $"{result.Summary}");
        result.WaysOut.ShouldContain(w => w.Contains("check the meter on a known source", StringComparison.Ordinal));
    }

    private static Reading Amps(string at, double amps) =>
        new(Quantity.Amps, TerminalId.Parse(at), TerminalId.Parse(at), [], ReadingValue.Of(amps));
}
