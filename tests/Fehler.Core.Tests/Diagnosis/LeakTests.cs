using System.Collections.Immutable;
using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// What leaks to earth or to a neighbour is somewhere along what is connected. It is found by taking that apart, and where a wire is lifted the
/// fault goes with the wire that it is in (common practice).
/// </summary>
public class LeakTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    /// <summary>A core that touches earth in the cable: off its terminal, that terminal is good and the core is not.</summary>
    [Theory]
    [InlineData("", true, true)]
    [InlineData("X1:3", false, true)]
    [InlineData("S1:22", true, false)]
    [InlineData("X1:3 S1:22", false, false)]
    public void An_earth_fault_goes_with_the_core_that_it_is_in(string lifted, bool isAtStrip, bool isAtStation)
    {
        var panel = Dead("3.3/earth", "3.3", lifted);
        Leaks(panel, "X1:3", "INC:PE").ShouldBe(isAtStrip);
        Leaks(panel, "S1:22", "INC:PE").ShouldBe(isAtStation);
    }

    /// <summary>Two cores that touch each other: whichever is lifted, at whichever end.</summary>
    [Theory]
    [InlineData("3.3@X1:3", "X1:3", "X1:4", false)]
    [InlineData("3.3@X1:3", "S1:22", "X1:4", true)]
    [InlineData("3.3@S1:22", "X1:3", "X1:4", true)]
    [InlineData("4.3@X1:4", "X1:3", "X1:4", false)]
    [InlineData("4.3@X1:4", "X1:3", "S2:14", true)]
    [InlineData("3.3@X1:3 4.3@X1:4", "S1:22", "S2:14", true)]
    [InlineData("3.3@X1:3 4.3@S2:14", "S1:22", "X1:4", true)]
    [InlineData("3.3@X1:3 4.3@S2:14", "X1:3", "S2:14", false)]
    public void A_short_goes_with_the_cores_that_it_is_between(string lifted, string from, string to, bool shows)
    {
        var panel = new SimulatedPanel(
            Circuit.Compiled(),
            [new Bridge(TerminalId.Parse("X1:3"), TerminalId.Parse("X1:4"), 0.3) { FromIn = "3.3", ToIn = "4.3" }]
        );
        panel.Isolate();
        foreach (var end in lifted.Split(' ').Select(l => l.Split('@')))
        {
            panel.Lift(new ConductorEnd(end[0], TerminalId.Parse(end[1])));
        }

        Leaks(panel, from, to).ShouldBe(shows);
    }

    [Fact]
    public void A_conductor_landed_again_is_as_it_was()
    {
        var panel = Dead("3.3/earth", "3.3", "X1:3");
        panel.Land("3.3");
        Leaks(panel, "X1:3", "INC:PE").ShouldBeTrue();
    }

    /// <summary>Any of the conductors of a number in the panel may be the one that touches; they are one place to look, and one repair.</summary>
    [Fact]
    public void Each_conductor_of_a_wire_in_the_panel_may_touch()
    {
        var faults = FaultCatalogue.Of(Circuit).Where(f => f.Unit == "4.1" && f.Id.Contains("/earth", StringComparison.Ordinal)).ToList();
        faults
            .SelectMany(f => f.Alterations.OfType<Bridge>())
            .Select(b => b.FromIn)
            .Distinct()
            .ShouldBe(
                Circuit
                    .Conductors.Where(c => c.Wire == "4" && Circuit.LocationOf(c.From) == Circuit.LocationOf(c.To))
                    .Where(c => Circuit.LocationOf(c.From).Type == LocationType.Enclosure)
                    .Select(c => c.Id),
                ignoreOrder: true
            );
        faults.Select(f => f.Title.ToString()).Distinct().Count().ShouldBeGreaterThan(1);
    }

    /// <summary>
    /// Followed on panels that scatter: the fuse has blown, the ohmmeter says to earth, and single wires come off until it is between two ends.
    /// A dozen readings are enough (what is needed: nobody takes a panel apart all day), and each ends proved.
    /// </summary>
    [Theory]
    [InlineData("4.3/earth")]
    [InlineData("5.1/earth")]
    [InlineData("4L1.2/earth")]
    [InlineData("M1/winding-U-earth")]
    public void An_earth_fault_is_proved_by_lifting_few_wires(string fault)
    {
        var compiled = Circuit.Compiled();
        var run = GuidedRun.On(compiled, [Starters.Fault(Circuit, fault)], new GuidedRunOptions { Seed = 7, Differs = true });
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
        run.Result.Units[0].Unit.ShouldBe(Starters.Fault(Circuit, fault).Unit);
        run.Readings.ShouldBeLessThanOrEqualTo(14);
        run.Entries.OfType<WireLifted>().Count().ShouldBeLessThanOrEqualTo(14);
    }

    /// <summary>
    /// The cable or the wire in the panel: with nothing lifted both show the same whatever is held meanwhile, so that no such reading is called a
    /// proof.
    /// </summary>
    [Fact]
    public void What_would_show_the_same_of_another_is_no_proof()
    {
        var panel = new SimulatedPanel(Circuit.Compiled(), Starters.Fault(Circuit, "4.3/earth").Alterations);
        panel.Isolate();
        double Ohms(string at) => panel.Measure(Quantity.Ohms, TerminalId.Parse(at), TerminalId.Parse("INC:PE"), []).Number;
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped, H1 off, H2 off")
            .Did(Starters.Release, "KM1 out, M1 stopped, H1 off, H2 off")
            .Volts("F3:1", "F3:2", 230)
            .Dead()
            .Ohms("X1:3", "INC:PE", null)
            .Ohms("X1:4", "INC:PE", Ohms("X1:4"))
            .Ohms("F2:95", "INC:PE", Ohms("F2:95"))
            .Diagnose();
        var suspects = result.Units.Where(u => u.Probability > 0.05).Select(u => u.Unit).ToList();
        suspects.ShouldContain("4.3");
        suspects.Count.ShouldBeGreaterThan(1);
        foreach (var proof in result.Proposals.Where(p => p.IsProof))
        {
            proof.Setup.HasLifts.ShouldBeTrue(proof.Title.ToString());
        }

        result.Proposals[0].Setup.LiftedEnd.ShouldNotBeNull(result.Proposals[0].Title.ToString());
        var (_, end) = result.Proposals[0].Setup.Lifts(Circuit).Single();
        Circuit.LocationOf(end).Type.ShouldBe(LocationType.Enclosure, "nobody walks to the station to lift what ends in the panel as well");
    }

    /// <summary>The same wire off at its other end is another state: what was read before says nothing of it.</summary>
    [Fact]
    public void A_wire_lifted_at_its_other_end_is_measured_anew()
    {
        var wire = Circuit.Conductors.First(c => c.Id == "4.3");
        var journal = new Journal(Circuit)
            .Dead()
            .Add(new WireLifted(wire.Id, wire.From))
            .Ohms("X1:4", "INC:PE", 0.3)
            .Add(new WireLanded(wire.Id));
        var made = new ReadingsMade(Circuit, journal.State);
        int Times(TerminalId end) =>
            made.Of(
                new Candidate(ProposalKind.Reading, new Setup(SetupChange.None, [], true) { LiftedEnd = wire.EndAt(end) }, 0, 1)
                {
                    Quantity = Quantity.Ohms,
                    From = TerminalId.Parse("X1:4"),
                    To = TerminalId.Parse("INC:PE"),
                }
            ).Count;
        Times(wire.From).ShouldBe(1);
        Times(wire.To).ShouldBe(0);
    }

    /// <summary>
    /// A joint of 30 ohm was measured as 30 ohm, three times. That it were 0.03 ohm with the unit mistaken cannot be: no usual meter shows that
    /// (common practice: last digit 0.1 ohm).
    /// </summary>
    [Fact]
    public void Ohms_that_no_meter_could_have_shown_are_no_mistaken_unit()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Step.Wait(1), "KM1 in, M1 runs")
            .Did(Starters.Stop, "KM1 out, M1 stopped")
            .Did(Starters.StopReleased, "KM1 in, M1 runs")
            .Dead()
            .Ohms("KM1:13", "KM1:14", 30.5)
            .Ohms("X1:3", "X1:4", 29.8)
            .Ohms("KM1:13", "KM1:14", 30.1)
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Contradiction);
        result.Units[0].Unit.ShouldBe("3.3");
    }

    /// <summary>One good contact among bad joints clears the meter: it would have been wrong there too.</summary>
    [Fact]
    public void A_reading_that_is_right_clears_a_meter_that_would_be_wrong_for_all()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped, H1 off, H2 off")
            .Did(Starters.Release, "KM1 out, M1 stopped, H1 off, H2 off")
            .Dead()
            .Ohms("F3:1", "F3:2", 0.1)
            .Ohms("F2:95", "F2:96", 150)
            .Ohms("F2:95", "F2:96", 152)
            .Ohms("S1:21", "S1:22", 0.2)
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Contradiction);
        result.Units[0].Unit.ShouldBe("F2");
    }

    /// <summary>Windings of a motor are of one make: three that measure alike are sound, however far all three are from the book.</summary>
    [Theory]
    [InlineData(0.65)]
    [InlineData(1)]
    [InlineData(1.5)]
    public void Three_windings_that_measure_alike_are_sound(double factor)
    {
        var good = new SimulatedPanel(Circuit.Compiled(), []);
        good.Isolate();
        double Ohms(string from, string to) =>
            factor * good.Measure(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), []).Number;
        double Shorted(Journal journal)
        {
            var session = journal.Followed();
            return session
                .Hypotheses.Zip(session.Posterior())
                .Where(x => x.First.Fault is { Unit: "M1" } f && (f.Id.Contains("-short", StringComparison.Ordinal) || f.ShowsInCurrents))
                .Sum(x => x.Second);
        }

        Journal Humming() =>
            new Journal(Circuit)
                .Add(new LiveWorkAcknowledged())
                .Add(new OperationSeen([Starters.Press, Starters.Release], Seen(("KM1", "in"), ("M1", "hums, does not start"))))
                .Did(Starters.Stop, "KM1 out, M1 stopped")
                .Dead();
        var measured = Humming()
            .Ohms("M1:U", "M1:V", Ohms("M1:U", "M1:V"))
            .Ohms("M1:V", "M1:W", Ohms("M1:V", "M1:W"))
            .Ohms("M1:W", "M1:U", Ohms("M1:W", "M1:U"));
        Shorted(measured).ShouldBeLessThan(Shorted(Humming()));
    }

    private static ImmutableSortedDictionary<string, string> Seen(params (string Device, string What)[] seen) =>
        seen.ToImmutableSortedDictionary(s => s.Device, s => s.What);

    private static SimulatedPanel Dead(string fault, string conductor, string lifted)
    {
        var panel = new SimulatedPanel(Circuit.Compiled(), Starters.Fault(Circuit, fault).Alterations);
        panel.Isolate();
        foreach (var end in lifted.Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            panel.Lift(new ConductorEnd(conductor, TerminalId.Parse(end)));
        }

        return panel;
    }

    private static bool Leaks(SimulatedPanel panel, string from, string to) =>
        panel.Measure(Quantity.Ohms, TerminalId.Parse(from), TerminalId.Parse(to), []) is { Kind: ReadingKind.Number, Number: < 2 };
}
