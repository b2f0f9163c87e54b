using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Procedures;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Procedures;

/// <summary>No fault stays hidden for good: each is brought to light by some step that a person can take.</summary>
public class WhereFaultsShowTests
{
    [Theory]
    [InlineData("dol-transformer-earthed")]
    [InlineData("plc-supervised")]
    public void Every_fault_shows_somewhere(string name)
    {
        var compiled = FamilySamples.Of(name).Compiled();
        FaultCatalogue
            .Of(compiled.Circuit)
            .Where(f => compiled.WhereFaultsShow.Of(f) is null)
            .Select(f => $"{f.Id} {f.Variant}")
            .ShouldBeEmpty();
    }

    /// <summary>Common practice: these show nothing when the starter is tried; a test of the one part or a look finds them.</summary>
    [Theory]
    [InlineData("dol-transformer-earthed", "KM1/3-4-made", ShownIn.BenchCheck)]
    [InlineData("dol-transformer-earthed", "F2/set-high", ShownIn.Look)]
    [InlineData("reversing-lock-out", "KM1/21-22-made", ShownIn.BenchCheck)]
    [InlineData("dol-transformer-earthed", "KM1/A1-A2-open", ShownIn.FunctionTest)]
    [InlineData("dol-transformer-earthed", "INC/L2-low", ShownIn.Reading)]
    public void What_shows_a_fault_is_what_practice_uses(string sample, string fault, ShownIn shown)
    {
        var compiled = FamilySamples.Of(sample).Compiled();
        var mode = FaultCatalogue.Of(compiled.Circuit).Find(fault).ShouldNotBeNull();
        compiled.WhereFaultsShow.Of(mode)!.In.ShouldBe(shown, compiled.WhereFaultsShow.Of(mode)!.Text.ToString());
    }

    [Fact]
    public void A_guide_without_a_reading_names_the_step_that_shows_the_fault()
    {
        var compiled = FamilySamples.Of("plc-supervised").Compiled();
        var mode = FaultCatalogue.Of(compiled.Circuit).First(f => f is { ProofPoints: null, ProofLook: null, Parts.IsEmpty: true });
        compiled.RepairGuides.Of(mode).ProvedBy.ToString().ShouldStartWith(compiled.WhereFaultsShow.Of(mode)!.Text.ToString());
    }
}
