using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>What a careful electrician does and leaves, whatever a test would tell. All of it common practice.</summary>
public class GoodPracticeTests
{
    private static readonly Step Reset = new("F2", "reset");

    private static IEnumerable<Step> Operated(Proposal p) => p.Steps.Concat(p.Setup.Held);

    /// <summary>Start is at the desk and the coil in the panel: somebody else holds the button, and that costs.</summary>
    [Fact]
    public void A_button_held_elsewhere_needs_a_second_person_and_its_price()
    {
        var circuit = Starters.LineToNeutral;
        var coil = (From: TerminalId.Parse("KM1:A1"), To: TerminalId.Parse("KM1:A2"));
        var button = (From: TerminalId.Parse("S2:13"), To: TerminalId.Parse("S2:14"));
        circuit.LocationOf(coil.From).ShouldNotBe(circuit.LocationOf(button.From));
        var held = new Setup(SetupChange.None, [Starters.Press], false);
        CostModel.SecondPersonAt(circuit, coil.From, coil.To, held).ShouldHaveSingleItem().ShouldBe(circuit.LocationOf(button.From));
        CostModel.SecondPersonAt(circuit, button.From, button.To, held).ShouldBeEmpty();

        var cost = new CostModel(circuit, coil.From, Strategy.MostTelling);
        var alone = cost.OfReading(Quantity.Volts, coil.From, coil.To, held with { Held = [] });
        cost.OfReading(Quantity.Volts, coil.From, coil.To, held).ShouldBeGreaterThan(alone + 1);

        // What is left when the panel tells no more from where one stands alone.
        var asked = new Journal(circuit)
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Volts("F2:95", "INC:N", 0)
            .Volts("KM1:13", "INC:N", 230)
            .Looked("F2", "flag", "not tripped")
            .Diagnose(without: Without.Isolating)
            .Proposals.Where(p => p.Kind == ProposalKind.Reading)
            .ToList();
        asked.ShouldContain(p => p.Setup.Held.Length > 0);
        foreach (var p in asked)
        {
            p.Cautions.Any(c => c.Contains("second person", StringComparison.Ordinal))
                .ShouldBe(CostModel.SecondPersonAt(circuit, p.From, p.To, p.Setup).Any(), p.Title);
        }
    }

    /// <summary>A motor thirty metres further away is a longer walk.</summary>
    [Fact]
    public void A_longer_way_costs_more()
    {
        var circuit = Starters.LineToNeutral;
        var far = circuit with
        {
            Locations = [.. circuit.Locations.Select(l => l.Type == LocationType.Motor ? l with { CableMetres = l.CableMetres + 120 } : l)],
        };
        var (from, to) = (TerminalId.Parse("M1:U"), TerminalId.Parse("M1:V"));
        double Minutes(Circuit c) => new CostModel(c, null, Strategy.MostTelling).OfReading(Quantity.Ohms, from, to, Setup.AsItIs);
        (Minutes(far) - Minutes(circuit)).ShouldBe(3, 0.01, "40 m a minute");
    }

    [Fact]
    public void Nothing_is_reset_a_third_time_before_something_is_repaired()
    {
        Journal Tripping(int resets)
        {
            var journal = new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 out, M1 stopped").Looked("F2", "flag", "tripped");
            for (var i = 0; i < resets; i++)
            {
                journal.Did(Reset, "M1 stopped").Did(Starters.Press, "KM1 in, M1 runs").Did(Step.Wait(60), "KM1 out, M1 stopped");
            }

            return journal;
        }

        bool Resets(Journal j) => j.Diagnose().Proposals.Any(p => Operated(p).Contains(Reset));
        Resets(Tripping(0)).ShouldBeTrue();
        Resets(Tripping(2)).ShouldBeFalse();
        Resets(Tripping(2).Add(new Repair("M1", "Bearing replaced", []))).ShouldBe(Resets(Tripping(0).Add(new Repair("M1", "x", []))));
    }

    [Fact]
    public void From_the_supply_what_the_live_circuit_does_not_tell_is_asked_of_the_dead_one()
    {
        var proposals = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Diagnose(Strategy.FromSupply, Without.Live)
            .Proposals;
        proposals.ShouldContain(p => p.Setup.Change == SetupChange.Isolate);
        var both = new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 out, M1 stopped").Diagnose(Strategy.FromSupply).Proposals;
        both[0].Setup.Change.ShouldBe(SetupChange.None);
    }

    /// <summary>
    /// A motor on two phases stands, hums and burns within a minute: it is switched off before anything is measured, by its own Stop, or where it
    /// is only held in by letting go.
    /// </summary>
    [Fact]
    public void A_motor_that_hums_is_switched_off_first()
    {
        var stop = Starters.LineToNeutral.Compiled().RunUp.Ends.First();
        stop.Select(s => s.Device).Distinct().ShouldHaveSingleItem().ShouldBe("S1");
        var humming = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 in, M1 hums, does not start")
            .Did(Starters.Release, "KM1 in, M1 hums, does not start");
        var proposals = humming.Diagnose().Proposals;
        proposals[0].Steps.ShouldBe(stop);
        proposals[0].Why.ShouldStartWith("M1 stands and hums");
        proposals.Skip(1).ShouldAllBe(p => p.Setup.Change == SetupChange.Isolate);
        proposals.ShouldAllBe(p => p.Cautions.Any(c => c.Contains("switch it off at once", StringComparison.Ordinal)));

        var stopped = humming.Did(stop[0], "KM1 out, M1 stopped").Did(stop[1], "KM1 out, M1 stopped").Diagnose().Proposals;
        stopped.ShouldNotContain(p => p.Cautions.Any(c => c.Contains("switch it off at once", StringComparison.Ordinal)));
        stopped.ShouldContain(p => p.Setup.Change == SetupChange.None, "live tests are on offer again");
    }

    [Fact]
    public void Where_the_Stop_does_not_drop_it_out_it_is_isolated()
    {
        var proposals = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 in, M1 hums, does not start")
            .Did(Starters.Release, "KM1 in, M1 hums, does not start")
            .Did(new Step("S1", "pressed"), "KM1 in, M1 hums, does not start")
            .Did(new Step("S1", "released"), "KM1 in, M1 hums, does not start")
            .Diagnose()
            .Proposals;
        proposals.ShouldNotBeEmpty();
        proposals.ShouldAllBe(p => p.Setup.Change == SetupChange.Isolate);
    }

    /// <summary>A Start that was held for a reading is let go, and the contactor holds itself in: the motor hums on, and is switched off.</summary>
    [Fact]
    public void A_motor_that_hums_on_after_a_reading_is_switched_off()
    {
        var read = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 in, M1 hums, does not start")
            .Did(Starters.Release, "KM1 in, M1 hums, does not start")
            .Did(Starters.Stop, "KM1 out, M1 stopped")
            .Did(Starters.StopReleased, "KM1 out, M1 stopped")
            .Amps("F2:2", 0, Starters.Press)
            .Diagnose();
        read.Seen["M1"].ShouldBe("hums, does not start");
        read.Proposals[0].Steps.ShouldBe([Starters.Stop, Starters.StopReleased]);
    }

    /// <summary>A hoist is driven while its button is held: letting go switches it off.</summary>
    [Fact]
    public void What_is_only_held_in_is_let_go()
    {
        var down = new OperationSeen(
            [new Step("S2", "pressed"), new Step("S2", "released"), new Step("S14", "pressed")],
            Journal.Seen("KM2 in, M1 hums, does not start")
        );
        new Journal(FamilySamples.Of("hoist")).Add(down).Diagnose().Proposals[0].Steps.ShouldBe([new Step("S14", "released")]);
    }

    /// <summary>
    /// A motor on two lines hums in star at each Start and heats all the while: one reading or two while it is held, switched off after each, and
    /// then it is isolated and measured dead.
    /// </summary>
    [Theory]
    [InlineData("4L2.2/open")]
    [InlineData("KM1/3-4-open")]
    [InlineData("F2/1-2-open")]
    public void A_motor_on_two_lines_is_thrown_onto_them_twice_at_most_and_measured_dead(string fault)
    {
        var compiled = FamilySamples.Of("star-delta").Compiled();
        var run = GuidedRun.On(compiled, [compiled.Faults.First(f => f.Id == fault)], new GuidedRunOptions { Seed = 7 });
        run.Entries.OfType<OperationSeen>().ShouldContain(o => o.Seen["M1"] == "runs rough");
        run.Entries.OfType<Reading>().Count(r => r.Quantity.IsLive()).ShouldBeInRange(1, 2);
        run.Entries.SkipWhile(e => e is not Reading).ElementAt(1).ShouldBeOfType<OperationSeen>().Seen["M1"].ShouldBe("stopped");
        run.Result.Units[0].Unit.ShouldBe(fault[..fault.IndexOf('/')]);
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
    }

    /// <summary>
    /// A motor would not have started on two lines, but runs on: found running rough it has lost one since, and the clamp tells which. To look
    /// again and again at what stands unchanged tells nothing new.
    /// </summary>
    [Fact]
    public void A_machine_found_running_rough_has_lost_a_line_since_somebody_started_it()
    {
        var found = new OperationSeen([], Journal.Seen("KM1 in, M1 runs rough"));
        var journal = new Journal(Starters.LineToNeutral).Add(found);
        var first = journal.Diagnose();
        first.Proposals[0].Quantity.IsAmps().ShouldBeTrue(first.Proposals[0].Title);
        first.Units[0].Suspects[0].Fault!.Id.ShouldBeOneOf("KM1/1-2-open", "KM1/3-4-open", "KM1/5-6-open");
        first.Proposals.ShouldAllBe(p => !Operated(p).Contains(Starters.Press), "it is running, and strained");
        var again = journal.Add(found).Add(found).Add(found).Diagnose();
        foreach (var unit in first.Units.Take(4))
        {
            var share = again.Units.First(u => u.Unit == unit.Unit).Probability;
            (share / unit.Probability).ShouldBeInRange(0.7, 1.4, unit.Unit);
        }
    }

    [Fact]
    public void Who_measures_beside_a_motor_that_runs_rough_is_told_to_be_quick()
    {
        var proposals = new Journal(Starters.LineToNeutral)
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Step.Wait(600), "KM1 in, M1 runs rough")
            .Diagnose()
            .Proposals;
        proposals[0].Quantity.IsAmps().ShouldBeTrue(string.Join(" | ", proposals.Select(p => $"{p.Title} {p.Bits:0.00}/{p.Minutes:0.00}")));
        foreach (var p in proposals.Where(p => p.Setup.Change != SetupChange.Isolate))
        {
            p.Cautions.ShouldContain(c => c.Contains("on two lines it overheats", StringComparison.Ordinal), p.Title);
        }
    }

    /// <summary>
    /// Each lead that power leaves the panel by, also where the windings have both ends brought out or only one phase is there.
    /// </summary>
    [Theory]
    [InlineData("star-delta", "F2:2 F2:4 F2:6 KM2:2 KM2:4 KM2:6")]
    [InlineData("single-phase", "F2:2")]
    [InlineData("dol-heater", "F2:2 F2:4 F2:6")]
    public void A_clamp_goes_around_every_lead_to_the_motor(string family, string leads) =>
        FamilySamples.Of(family).Compiled().TestPoints.Amps.Select(p => p.From.ToString()).Order().ShouldBe(leads.Split(' ').Order());

    [Fact]
    public void There_is_no_circuit_that_a_clamp_has_no_place_in() =>
        FamilySamples.Names.Where(n => FamilySamples.Of(n).Compiled().TestPoints.Amps.IsEmpty).ShouldBeEmpty();

    /// <summary>Who has slipped once puts the leads on again before anything is replaced.</summary>
    [Fact]
    public void Where_a_reading_turned_out_to_be_a_mistake_one_reading_proves_nothing()
    {
        Journal Story(bool slipped)
        {
            var journal = new Journal(Starters.LineToNeutral).Did(Starters.Press, "KM1 out, M1 stopped").Did(Starters.Release, "KM1 out");
            if (slipped)
            {
                journal.Volts("F3:2", "INC:N", 0).Volts("F3:2", "INC:N", 229);
            }

            return journal.Volts("S1:21", "INC:N", 230).Volts("S1:22", "INC:N", 1.4).Dead().Ohms("S1:21", "S1:22", null);
        }

        Story(false).Diagnose().Status.ShouldBe(DiagnosisStatus.Found);
        var once = Story(true).Diagnose();
        once.Units[0].Unit.ShouldBe("S1");
        once.Status.ShouldBe(DiagnosisStatus.AlmostFound);
        var again = once.Proposals[0];
        (again.From.Device, again.To.Device, again.IsProof).ShouldBe(("S1", "S1", true));
        again.Why.ToString().ShouldContain("Once more before anything is replaced");
        Story(true).Ohms("S1:21", "S1:22", null).Diagnose().Status.ShouldBe(DiagnosisStatus.Found);
    }

    /// <summary>Pressed in by hand an armature says what no meter does, and who holds one in for a reading has felt it move.</summary>
    [Fact]
    public void A_jammed_armature_is_felt()
    {
        string Felt(string fault, params Step[] done)
        {
            var simulator = Starters.With(Starters.LineToNeutral, fault);
            var stands = simulator.Do(simulator.Start().State, done);
            return simulator.Look(stands.State, "KM1", "armature", Starters.LineToNeutral.Device("KM1"), () => stands.Solution);
        }

        Felt("KM1/A1-A2-open").ShouldBe("moves and springs back");
        Felt("KM1/jammed").ShouldBe("does not move");
        Felt("KM1/sticks", Starters.Press, Starters.Release, Starters.Stop, Starters.StopReleased).ShouldBe("is in and stays in");

        Journal Story() =>
            new Journal(Starters.LineToNeutral)
                .Did(Starters.Press, "KM1 buzzes, M1 stopped")
                .Volts("KM1:A1", "KM1:A2", 230, Starters.Press);
        double Jammed(Journal journal) =>
            journal.Diagnose().Units.SelectMany(u => u.Suspects).Where(s => s.Fault?.Id == "KM1/jammed").Sum(s => s.Probability);
        var before = Jammed(Story().Dead());
        before.ShouldBeGreaterThan(0.1);
        Jammed(Story().Dead().Looked("KM1", "armature", "moves and springs back")).ShouldBeLessThan(0.1 * before);
        // A pole that reads open with the armature held in: the pole, not the armature that was felt to move.
        Jammed(Story().Dead().Ohms("KM1:13", "KM1:14", 0.2, new Step("KM1", "in"))).ShouldBeLessThan(0.1 * before);
        var proved = Story().Dead().Looked("KM1", "armature", "does not move").Diagnose();
        proved.Units[0].Suspects[0].Fault!.Id.ShouldBe("KM1/jammed");
        proved.Status.ShouldBe(DiagnosisStatus.Found);
    }

    /// <summary>Nobody lifts the brake of a hoist to see whether it can be lifted: the load comes down.</summary>
    [Fact]
    public void A_brake_is_not_lifted_by_hand_to_try_it()
    {
        var hoist = FamilySamples.Of("hoist");
        hoist.Devices.Where(d => d.Kind.Looks(d).Any(l => l.PressedTo.Length > 0)).Select(d => d.Tag).ShouldBe(["KA1", "KM1", "KM2"], true);
    }

    /// <summary>What a reading needs is done before it: the control is switched on again before the travel button is held.</summary>
    [Fact]
    public void What_shows_only_under_load_is_proved_under_load()
    {
        var compiled = FamilySamples.Of("hoist").Compiled();
        var fault = compiled.Faults.First(f => f.Id == "V1/1-2-open");
        var run = GuidedRun.On(compiled, [fault], new GuidedRunOptions { Seed = 5 });
        run.Result.Units[0].Unit.ShouldBe("V1");
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
        var proof = run.Entries.OfType<Reading>().Last();
        (proof.Quantity, proof.From.Device, proof.To.Device).ShouldBe((Quantity.DcVolts, "V1", "V1"));
        proof.Held.Select(s => s.Device).ShouldBe(["S2", "S2", "S13"], "the control is switched on first");
    }

    /// <summary>
    /// Where nothing holds a wire (behind it the overload's contact is open) a multimeter of 10 Mohm shows what leaks in from its neighbours;
    /// the load of a two-pole tester settles that. So 1 V on a multimeter speaks against an open contact, 1 V on a tester does not.
    /// </summary>
    [Fact]
    public void A_two_pole_tester_settles_a_ghost()
    {
        var circuit = Starters.LineToNeutral;
        var fault = FaultCatalogue.Of(circuit).First(f => f.Alterations is [ConductorOpen open] && open.Conductor == Core(circuit));
        var (at, to) = (TerminalId.Parse("S2:14"), circuit.Reference);
        var panel = new SimulatedPanel(circuit.Compiled(), fault.Alterations);
        panel.Measure(Quantity.Volts, at, to, []).Number.ShouldBeGreaterThan(20, "a ghost");
        panel.MeasureLoaded(Quantity.Volts, at, to, []).Number.ShouldBeLessThan(20, "settled");

        Reading Reading(double volts, bool low) => new(Quantity.Volts, at, to, [], ReadingValue.Of(volts)) { LowImpedance = low };
        double Overload(Reading r) =>
            new Journal(circuit)
                .Did(Starters.Press, "KM1 out, M1 stopped")
                .Add(r)
                .Diagnose()
                .Units.Where(u => u.Unit == "F2")
                .Sum(u => u.Probability);
        var multimeter = Overload(Reading(1, false));
        Overload(Reading(1, true)).ShouldBeGreaterThan(2 * multimeter, "settled: it says nothing against an open contact further on");
        Overload(Reading(90, false)).ShouldBeGreaterThan(2 * multimeter, "a ghost: nothing holds that wire");
        EntryWords.Of(Reading(1, true)).ShouldContain("low impedance");
    }

    /// <summary>A hoist runs while its button is held: who goes on to measure has let go, and nothing runs that would have to be stopped.</summary>
    [Fact]
    public void What_ran_only_while_held_is_not_stopped_again_before_isolating()
    {
        var hoist = FamilySamples.Of("hoist");
        var down = new Journal(hoist)
            .Add(new LiveWorkAcknowledged())
            .Add(
                new OperationSeen(
                    [new Step("S2", "pressed"), new Step("S2", "released"), new Step("S14", "pressed")],
                    Journal.Seen("KM2 in, M1 runs reverse")
                )
            );
        bool AsksForStop(Journal journal) =>
            journal
                .Diagnose(Strategy.DeadFirst)
                .Proposals.Where(p => p.Setup.Change == SetupChange.Isolate)
                .Any(p => p.Cautions.Any(c => c.Contains("was seen running", StringComparison.Ordinal)));
        AsksForStop(down).ShouldBeTrue("it runs at this moment");
        AsksForStop(down.Volts("F3:2", hoist.Reference.ToString(), 49)).ShouldBeFalse("let go");
    }

    /// <summary>What some suspect explains is taken; what none does is asked about first: leads, setting, state.</summary>
    [Fact]
    public void A_reading_that_nothing_explains_is_asked_about_before_it_counts()
    {
        var circuit = Starters.LineToNeutral;
        var journal = new Journal(circuit).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped");
        journal.Doubt("F3:2", "INC:N", 231).ShouldBeNull();
        journal.Doubt("F3:2", "INC:N", 0).ShouldBeNull("the fuse may be blown");
        journal.Doubt("F3:2", "INC:N", 480)!.ShouldContain("Are both leads where they are drawn");
    }

    /// <summary>The core from the Start button at the desk to the panel.</summary>
    private static string Core(Circuit circuit) =>
        circuit
            .Conductors.First(c =>
                circuit.LocationOf(c.From) != circuit.LocationOf(c.To)
                && new[] { c.From, c.To }.Any(t => circuit.WireAt(t) == circuit.WireAt(TerminalId.Parse("S2:14")))
            )
            .Id;
}
