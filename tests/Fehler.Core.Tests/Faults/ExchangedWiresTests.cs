using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Faults;
using Fehler.Core.Tests.Diagnosis;

namespace Fehler.Core.Tests.Faults;

/// <summary>Wires exchanged between places that nobody lists: made when one of them is suspected.</summary>
public class ExchangedWiresTests
{
    private static readonly Circuit Starter = Starters.LineToNeutral;

    [Fact]
    public void Each_has_an_id_of_its_own_and_is_found_by_it()
    {
        var catalogue = FaultCatalogue.Of(Starter);
        var wire = Starter.Conductors.First(c => c.To.ToString() == "KM1:A1" || c.From.ToString() == "KM1:A1").Id;
        var exchanged = catalogue.ExchangedWithAny(wire).ToList();
        exchanged.Count.ShouldBeInRange(10, 200);
        exchanged.Select(f => f.Id).ShouldBeUnique();
        exchanged.ShouldAllBe(f => f.IsWiring && f.Unit == wire);
        catalogue.Find(exchanged[^1].Id)!.Title.ToString().ShouldBe(exchanged[^1].Title.ToString());
        catalogue.Find(exchanged[^1].Id + "?").ShouldBeNull();
    }

    /// <summary>Where the motor's currents flow nothing is exchanged by them, and a wire that is none has none.</summary>
    [Fact]
    public void Only_control_wires_are_exchanged()
    {
        var catalogue = FaultCatalogue.Of(Starter);
        var power = Starter.Conductors.First(c => c.To.ToString() == "M1:U").Id;
        catalogue.ExchangedWithAny(power).ShouldBeEmpty();
        catalogue.ExchangedWithAny("no wire").ShouldBeEmpty();
    }

    /// <summary>Nobody lists these pairs; what is measured leads to one of both wires, and to what was done to it.</summary>
    [Theory]
    [InlineData("4.3/exchanged-on-X1:4-with-N.2-on-H1:X2", "4.3", "N.2")]
    [InlineData("7.1/exchanged-on-H2:X1-with-3.2-on-X1:3", "7.1", "3.2")]
    public void Wires_of_two_places_that_are_exchanged_are_found(string id, string wire, string other)
    {
        var fault = FaultCatalogue.Of(Starter).Find(id)!;
        FaultCatalogue.Of(Starter).Differences.ShouldNotContain(f => f.Alterations.SequenceEqual(fault.Alterations));
        var run = GuidedRun.On(Starter.Compiled(), fault);
        run.HasSymptom.ShouldBeTrue();
        new[] { wire, other }.ShouldContain(run.Result.Units[0].Unit, $"{run.Result.Summary}");
        // Landed on the neutral by mistake it reads as one that touches earth does; which it is shows at the wire's ends, and both are said.
        run.Result.Units[0].Suspects.Where(s => s.Fault!.IsWiring).Sum(s => s.Probability).ShouldBeGreaterThan(0.1);
    }
}
