using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Families;
using Fehler.Core.Faults;
using Fehler.Core.Tests.Diagnosis;
using Fehler.Core.Tests.Families;

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

    /// <summary>A exchanged with B is B exchanged with A: were both thought of, each would hold half, and nothing would be found.</summary>
    [Fact]
    public void Every_two_ends_are_thought_of_once()
    {
        var exchanged = FaultCatalogue.Of(Starter).ExchangedWires.ToList();
        exchanged.Count.ShouldBeGreaterThan(100);
        exchanged.Select(WiringFaults.Exchange).ShouldBeUnique();
        exchanged.Select(f => f.Id).ShouldBeUnique();
        foreach (var conductor in Starter.Conductors)
        {
            FaultCatalogue
                .Of(Starter)
                .ExchangedWithAny(conductor.Id)
                .Select(WiringFaults.Exchange)
                .Except(exchanged.Select(WiringFaults.Exchange))
                .ShouldBeEmpty(conductor.Id);
        }
    }

    /// <summary>On a panel that differs from its description, with the coil fed the wrong way round: nothing of it is in the catalogue.</summary>
    [Theory]
    [InlineData("two-wire", "3.1", "N.3")]
    [InlineData("star-delta", "5.1", "N.6")]
    public void An_exchange_that_the_drawing_does_not_suggest_is_found_and_proved(string family, string wire, string other)
    {
        var circuit =
            family == "two-wire"
                ? new DirectOnLine
                {
                    Tag = "P",
                    Title = "Pump",
                    Mode = StartMode.TwoWire,
                }.Build()
                : FamilySamples.Of(family);
        Conductor Of(string id) => circuit.Conductors.First(c => c.Id == id);
        var fault = new FaultMode("exchanged", wire, "Exchanged", Miswiring.Exchanged(Of(wire), Of(other)), 1, "Land them as drawn.");
        var run = GuidedRun.On(circuit.Compiled(), [fault], new GuidedRunOptions { Seed = 3, Differs = true });
        run.HasSymptom.ShouldBeTrue();
        new[] { wire, other }.ShouldContain(run.Result.Units[0].Unit, $"{run.Result.Summary}");
        run.Result.Status.ShouldBe(DiagnosisStatus.Found);
        run.Result.Units[0].Suspects[0].Fault!.IsWiring.ShouldBeTrue();
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
