using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>A trip or a blown fuse is a consequence (common practice): the search goes on to what it is a consequence of.</summary>
public class ConsequenceTests
{
    private static readonly Circuit Circuit = Starters.LineToNeutral;

    [Fact]
    public void A_tripped_overload_is_named_a_consequence_and_the_next_test_is_about_its_cause()
    {
        var result = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 out, M1 stopped")
            .Looked("F2", "flag", "tripped")
            .Diagnose();
        result.Status.ShouldNotBe(DiagnosisStatus.Found);
        result.Summary.ShouldContain("consequence");
        result.Causes.Select(c => c.Unit).ShouldContain("M1");
        result.Causes.ShouldNotContain(c => c.Unit == "F2");
        (result.Causes.Sum(c => c.Probability) > 0.1).ShouldBeTrue();
        result.Proposals.ShouldNotBeEmpty();
        result.Proposals[0].Bits.ShouldBeGreaterThan(0.05);
    }

    /// <summary>Causes of an overload trip that the trade names: jammed or heavy load, a lost phase, a wrong setting.</summary>
    [Theory]
    [InlineData("M1/stalled", "M1")]
    [InlineData("KM1/5-6-open", "KM1")]
    [InlineData("M1/winding-W-open", "M1")]
    public void Followed_to_its_end_the_search_names_the_cause_and_not_the_trip(string fault, string unit)
    {
        var run = GuidedRun.On(Circuit.Compiled(), Starters.Fault(Circuit, fault));
        run.Result.Status.ShouldBe(DiagnosisStatus.Found, $"{run.Result.Summary}");
        run.Result.Units[0].Unit.ShouldBe(unit);
        run.Result.Units[0].Suspects[0].Fault!.Id.ShouldNotBe("F2/tripped");
    }

    /// <summary>It runs, and trips after some minutes: overloaded or set too low; the dial tells which, and is looked at early.</summary>
    [Theory]
    [InlineData("as it should be", "M1")]
    [InlineData("lower", "F2")]
    public void A_late_trip_is_the_load_or_the_dial(string dial, string unit)
    {
        var journal = new Journal(Circuit)
            .Add(new LiveWorkAcknowledged())
            .Did(Starters.Press, "KM1 in, M1 runs")
            .Did(Starters.Release, "KM1 in, M1 runs")
            .Did(Step.Wait(900), "KM1 out, M1 stopped")
            .Looked("F2", "flag", "tripped");
        journal
            .Diagnose()
            .Causes.Concat(journal.Diagnose().Units.Select(u => new TripCause(u.Unit, u.Suspects[0].Title, u.Probability)))
            .ShouldContain(c => c.Unit == "M1");
        var looked = journal.Looked("F2", "dial", dial).Diagnose();
        looked.Units[0].Unit.ShouldBe(unit, $"{looked.Summary}");
        looked.Units[0].Suspects[0].Fault!.Id.ShouldNotBe("F2/tripped");
    }

    /// <summary>Nothing behind it is found: then it tripped, and that is said, with what to watch.</summary>
    [Fact]
    public void A_trip_that_nothing_explains_ends_as_a_trip()
    {
        var run = GuidedRun.On(Circuit.Compiled(), Starters.Fault(Circuit, "F2/tripped"));
        run.Result.Units[0].Unit.ShouldBe("F2");
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
        run.Result.Causes.Sum(c => c.Probability).ShouldBeLessThan(0.5);
        run.Result.AskWhy.ShouldContain("consequence");
    }

    /// <summary>An earth fault in the pendant's cable blows the control fuse: the cable is found, the fuse is its consequence.</summary>
    [Fact]
    public void A_blown_control_fuse_leads_to_the_wire_that_blew_it()
    {
        var hoist = new UpDown { Tag = "T-9", Title = "Stacking hoist" }.Build();
        var fault = FaultCatalogue.Of(hoist).First(f => f.Id == "4.3/earth");
        var run = GuidedRun.On(hoist.Compiled(), fault);
        var top = run.Result.Units.First(u => u.Unit.Length > 0);
        (top.Unit == fault.Unit || top.Alike.Contains(fault.Unit)).ShouldBeTrue($"{run.Result.Summary}");
        run.Result.Consequences.ShouldContain(c => c.EndsWith("blown", StringComparison.Ordinal));
    }

    /// <summary>
    /// Behind a blown fuse everything shows 0 V, a lead that slipped too: that nothing behind it is shorted is said by a reading on the dead
    /// circuit, before the new fuse (common practice).
    /// </summary>
    [Fact]
    public void A_fuse_has_not_blown_by_itself_while_only_0_volts_say_so()
    {
        var story = new Journal(Circuit)
            .Did(Starters.Press, "KM1 out, M1 stopped, H1 off")
            .Volts("KM1:1", "INC:N", 0)
            .Volts("F1:1", "INC:N", 231)
            .Volts("F3:1", "INC:N", 0)
            .Volts("F1:6", "F1:2", 0)
            .Dead()
            .Ohms("F1:1", "F1:2", null)
            .Ohms("F2:2", "INC:PE", null);
        var result = story.Diagnose();
        result.Units[0].Unit.ShouldBe("F1");
        result.Status.ShouldNotBe(DiagnosisStatus.Found);
        result.Causes.ShouldContain(c => c.Unit.StartsWith("2L1", StringComparison.Ordinal));
        result.Proposals.First(p => p.Kind == ProposalKind.Reading).Quantity.IsLive().ShouldBeFalse();
        story.Ohms("F1:2", "INC:PE", 0.3).Ohms("F3:1", "INC:PE", 0.3).Diagnose().Units[0].Unit.ShouldStartWith("2L1");
    }

    /// <summary>
    /// What somebody switched off is no consequence of the circuit: there the search ends, with the question who and why.
    /// </summary>
    [Fact]
    public void A_device_left_off_by_somebody_is_found()
    {
        var result = new Journal(Circuit).Did(Starters.Press, "KM1 out, M1 stopped").Looked("S0", "operator", "operated").Diagnose();
        result.Causes.ShouldBeEmpty();
        result.Units[0].Unit.ShouldBe("S0");
        result.AskWhy.ShouldContain("why");
    }
}
