using System.Text.RegularExpressions;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;
using Shouldly;
using Xunit;

namespace Fehler.Core.Tests.Procedures;

/// <summary>What a found fault is repaired by. What is asked of it is common practice of the trade unless a source is named.</summary>
public partial class RepairGuideTests
{
    /// <summary>Nobody is left with a fault and nothing to do about it, in any family.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_fault_of_every_family_has_steps_causes_a_proof_and_an_after_check(string sample)
    {
        var circuit = FamilySamples.Of(sample);
        foreach (var fault in OneOfEachKind(circuit))
        {
            var guide = circuit.Compiled().RepairGuides.Of(fault);
            guide.Steps.Length.ShouldBeGreaterThan(1, fault.Id);
            guide.Causes.ShouldNotBeEmpty(fault.Id);
            guide.Causes.ShouldAllBe(c => !c.What.IsEmpty && !c.Check.IsEmpty);
            guide.ProvedBy.IsEmpty.ShouldBeFalse(fault.Id);
            guide.AfterCheck.ShouldContain(s => s.Contains("Function test"), fault.Id);
            guide.Record.ShouldContain(s => s.Contains("cause"), fault.Id);
        }
    }

    /// <summary>Never bridge an emergency stop, limit, guard or overload; never a larger fuse (safety rule of the trade).</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Nothing_is_ever_bridged_and_no_fuse_grows(string sample)
    {
        var circuit = FamilySamples.Of(sample);
        foreach (
            var text in OneOfEachKind(circuit)
                .Select(f => circuit.Compiled().RepairGuides.Of(f))
                .SelectMany(g => g.Steps.Concat(g.Cautions).Concat(g.Parts).Concat(g.AfterCheck))
                .Select(w => $"{w}")
                .Distinct()
        )
        {
            if (Forbidden().IsMatch(text))
            {
                Negated().IsMatch(text).ShouldBeTrue(text);
            }
        }
    }

    /// <summary>Hands in the panel: isolated, locked and proved dead comes first, the last wire and the cover come last.</summary>
    [Fact]
    public void Work_in_the_panel_begins_with_proving_dead_and_ends_with_the_cover()
    {
        var steps = Guide("KM1/A1-A2-open").Steps;
        steps[0].ShouldContain("Q1");
        steps[0].ShouldContain("prove dead");
        steps[^1].ShouldContain("lifted wire");
        Guide("F2/tripped").Steps[0].ShouldContain("before anything is reset");
    }

    /// <summary>
    /// A coil is proved by its ohms as a value: open reads OL, and the good value is the one that the description gives.
    /// </summary>
    [Fact]
    public void An_open_coil_is_proved_by_ohms_with_the_value_of_a_good_one()
    {
        var guide = Guide("KM1/A1-A2-open");
        var ohms = Circuit.Device("KM1").Given("coilOhms").Number!.Value;
        guide.ProvedBy.ShouldContain("KM1:A1 to KM1:A2");
        guide.ProvedBy.ShouldContain("OL, where a good one has about");
        var good = double.Parse(GoodOhms().Match($"{guide.ProvedBy}").Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture);
        good.ShouldBeInRange(0.9 * ohms, 1.1 * ohms);
        guide.Parts[0].ShouldContain("230 V AC");
        // 0.85 to 1.1 of rated control voltage: IEC 60947-4-1, limits of operation of contactors, from memory.
        guide.Causes[0].Check.ShouldContain("196 to 253 V");
    }

    /// <summary>A contact that closes only when something is operated is proved with that operated.</summary>
    [Fact]
    public void A_retaining_contact_is_proved_with_the_armature_pressed()
    {
        var proof = Guide("KM1/13-14-open").ProvedBy;
        proof.ShouldContain("armature of KM1 pressed in by hand");
        proof.ShouldContain("OL, where a good one has next to nothing");
    }

    [Fact]
    public void A_trip_is_a_consequence_and_asks_for_the_current_of_each_phase()
    {
        var guide = Guide("F2/tripped");
        guide.Causes.ShouldContain(c => c.What.Contains("phase is missing") && c.Check.Contains("1.7"));
        guide.AfterCheck.ShouldContain(s => s.Contains("Current in each phase"));
        guide.Cautions.ShouldContain(s => s.Contains("start the motor"));
    }

    [Fact]
    public void A_wire_on_the_wrong_terminal_has_every_interlock_proved()
    {
        var wrong = FaultCatalogue.Of(Circuit).First(f => f.IsWiring);
        Circuit.Compiled().RepairGuides.Of(wrong).Cautions.ShouldContain(c => c.Contains("interlock"));
        Circuit.Compiled().RepairGuides.Of(wrong).Steps.ShouldContain(s => s.Contains("drawing"));
    }

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void In_american_words_no_earth_is_left(string sample)
    {
        var circuit = FamilySamples.Of(sample);
        foreach (var guide in OneOfEachKind(circuit).Select(f => circuit.Compiled().RepairGuides.Of(f)))
        {
            foreach (
                var text in guide
                    .Steps.Concat(guide.Cautions)
                    .Concat(guide.Parts)
                    .Concat(guide.Causes.SelectMany(c => new[] { c.What, c.Check }))
                    .Append(guide.ProvedBy)
            )
            {
                EarthWord().IsMatch(text.In(Dialect.American)).ShouldBeFalse(text.ToString());
            }
        }
    }

    /// <summary>Guides are written by kind of device and of fault: poles, windings and wires of one kind have the same.</summary>
    private static IEnumerable<FaultMode> OneOfEachKind(Circuit circuit) =>
        FaultCatalogue
            .Of(circuit)
            .DistinctBy(f => (circuit.FindDevice(f.Unit)?.Kind.Id, string.Concat(f.Kind.Where(c => !char.IsDigit(c) && !char.IsUpper(c)))));

    private static Circuit Circuit => Starters.LineToNeutral;

    private static RepairGuide Guide(string fault) => Circuit.Compiled().RepairGuides.Of(Starters.Fault(Circuit, fault));

    [GeneratedRegex("bridg|larger (one|fuse)|jumper across", RegexOptions.IgnoreCase)]
    private static partial Regex Forbidden();

    [GeneratedRegex("never|do not|may have bridged", RegexOptions.IgnoreCase)]
    private static partial Regex Negated();

    [GeneratedRegex(@"about (\d+(?:\.\d+)?) Ω")]
    private static partial Regex GoodOhms();

    [GeneratedRegex(@"(?<![/\w-])(earth|earthed|isolator|star)(?![\w/])", RegexOptions.IgnoreCase)]
    private static partial Regex EarthWord();
}
