using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Diagnosis;

/// <summary>
/// Readings that are one, but of something else, ghosts that are taken for evidence, and what is seen though nothing foretells it: what a
/// panel fools a diagnosis with (common practice).
/// </summary>
public class MistakenReadingTests
{
    private static readonly Circuit Starter = new DirectOnLine { Tag = "T-3", Title = "Infeed chain" }.Build();

    private static Journal DoesNothing => new Journal(Starter).Add(new LiveWorkAcknowledged()).Did(Starters.Press, "KM1 out, M1 stopped");

    /// <summary>How well the last thing recorded fits a fault that was there from the start; null is a circuit with none.</summary>
    private static double LastFit(Journal journal, string? fault)
    {
        var session = journal.Followed();
        return session.Observations[^1].FitOf(session.Hypotheses.First(h => h.Fault?.Id == fault))!.Value;
    }

    /// <summary>
    /// With the wire to A1 broken and Start held the coil has nothing, but one terminal further on there is the full voltage: that is a
    /// slipped lead, and far likelier than a voltage that stands nowhere.
    /// </summary>
    [Fact]
    public void The_voltage_of_the_terminal_beside_is_forgiven_more_than_one_that_is_nowhere()
    {
        var broken = Starter.Conductors.Single(c => c.From.ToString() == "KM1:A1" || c.To.ToString() == "KM1:A1").Id + "/open";
        double Read(double volts) => LastFit(DoesNothing.Volts("KM1:A1", "KM1:A2", volts, Starters.Press), broken);
        Read(230).ShouldBeGreaterThan(1.5 * Read(310));
        Read(230).ShouldBeLessThan(Slips.Share + 0.01, "still a mistake");
    }

    /// <summary>400 V to neutral are impossible, but they are what one terminal further on would show.</summary>
    [Fact]
    public void The_question_about_a_reading_names_the_points_that_would_show_it() =>
        DoesNothing.Doubt("F3:2", "INC:N", 400)!.ShouldContain("F3:2 to INC:L2 would show that");

    /// <summary>
    /// Behind a blown fuse 228 V may be a ghost, and then they are one wherever that piece is touched. But the same piece does not show
    /// 228 V here and nothing there.
    /// </summary>
    [Fact]
    public void A_ghost_repeats_itself_and_does_not_change_from_terminal_to_terminal()
    {
        var wire = Starter.WireAt(TerminalId.Parse("F3:2"));
        var beside = Starter
            .Conductors.Where(c => c.Wire == wire)
            .SelectMany(c => new[] { c.From, c.To })
            .Select(t => t.ToString())
            .First(t => t != "F3:2");
        var ghost = DoesNothing.Volts("F3:2", "INC:N", 228);
        LastFit(ghost.Volts(beside, "INC:N", 226), "F3/1-2-blown").ShouldBeGreaterThan(0.6);
        LastFit(DoesNothing.Volts("F3:2", "INC:N", 228).Volts(beside, "INC:N", 0.1), "F3/1-2-blown").ShouldBeLessThan(0.15);
    }

    /// <summary>
    /// A relay trips for once although nothing foretells it. From then on it has tripped: that it stands so at the next look and does not
    /// start is no evidence for anything any more.
    /// </summary>
    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public void What_has_tripped_stands_tripped_whether_it_was_foretold_or_not(bool byLamp)
    {
        var tripped = byLamp
            ? new Journal(Starter).Did(Starters.Press, "KM1 in, M1 runs").Did(Step.Wait(120), "KM1 out, M1 stopped, H1 off, H2 on")
            : new Journal(Starter).Looked("F2", "flag", "tripped");
        LastFit(tripped, null).ShouldBeLessThan(0.01, "nothing foretells it");
        LastFit(tripped.Did(Starters.Press, "KM1 out, M1 stopped"), null).ShouldBeGreaterThan(0.9);
        LastFit(tripped.Looked("F2", "flag", "tripped"), null).ShouldBeGreaterThan(0.9);
    }

    /// <summary>A reading that what came after speaks against is read once more; two that agree are not.</summary>
    [Fact]
    public void A_disputed_reading_is_proposed_once_more_and_says_so()
    {
        var nothing = Journal.Seen("KM1 out, KM2 out, M1 stopped");
        var circuit = FamilySamples.Of("reversing");
        var disputed = new Journal(circuit)
            .Add(new LiveWorkAcknowledged())
            .Add(new OperationSeen([Starters.Press], nothing))
            .Add(new OperationSeen([new Step("S3", "pressed")], nothing))
            .Volts("F3:2", "INC:N", 227)
            .Volts("X1:3", "INC:N", 0)
            .Volts("X1:1", "INC:N", 0)
            .Volts("KM2:63", "INC:N", 226)
            .Volts("F2:97", "INC:N", 0)
            .Volts("F2:97", "KM2:21", 228)
            .Volts("KM1:63", "INC:N", 227);
        var again = disputed.Diagnose().Proposals.Where(p => p.Before.Length > 0).ToList();
        again.ShouldContain(p => p.Before == "0 V" && p.From.ToString() == "F2:97");
        again.ShouldAllBe(p => p.Why.StartsWith("Once more"));
        disputed
            .Volts("F2:97", "INC:N", 0)
            .Diagnose()
            .Proposals.ShouldNotContain(p => p.Before == "0 V" && p.From.ToString() == "F2:97", "twice the same is settled");
    }
}
