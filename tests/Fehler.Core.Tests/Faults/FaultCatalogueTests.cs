using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Faults;

public class FaultCatalogueTests
{
    public static TheoryData<string> Circuits => ["LN", "LL"];

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Every_fault_names_a_unit_of_the_circuit_says_what_and_what_to_do(string name)
    {
        var circuit = Starters.Of(name);
        var units = circuit.Devices.Select(d => d.Tag).Concat(circuit.Conductors.Select(c => c.Id)).ToHashSet();
        foreach (var fault in FaultCatalogue.Of(circuit))
        {
            units.ShouldContain(fault.Unit);
            fault.Id.ShouldStartWith(fault.Unit + "/");
            fault.Title.ShouldNotBeNullOrWhiteSpace();
            fault.Remedy.ShouldNotBeNullOrWhiteSpace();
            fault.Weight.ShouldBeGreaterThan(0);
            fault.Alterations.ShouldNotBeEmpty();
        }
    }

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Ids_with_their_variants_are_unique_and_proof_points_exist(string name)
    {
        var circuit = Starters.Of(name);
        var network = Network.Of(circuit);
        var faults = FaultCatalogue.Of(circuit);
        faults.Select(f => (f.Id, f.Variant)).ShouldBeUnique();
        faults
            .Where(f => f.ProofPoints is not null)
            .ShouldAllBe(f => network.Has(f.ProofPoints!.Value.From) && network.Has(f.ProofPoints.Value.To));
    }

    [Theory]
    [MemberData(nameof(Circuits))]
    public void Every_conductor_can_be_open_and_every_coil_contact_pole_and_lamp_can_fail(string name)
    {
        var circuit = Starters.Of(name);
        var ids = FaultCatalogue.Of(circuit).Select(f => f.Id).ToHashSet();
        circuit.Conductors.ShouldAllBe(c => ids.Contains($"{c.Id}/open"));
        foreach (
            var id in new[]
            {
                "KM1/A1-A2-open",
                "KM1/1-2-open",
                "KM1/3-4-made",
                "KM1/13-14-open",
                "F2/95-96-open",
                "F2/tripped",
                "S1/21-22-open",
                "S2/13-14-open",
                "S0/left-operated",
                "H1/X1-X2-open",
                "M1/winding-U-open",
                "INC/L2-missing",
                "F1/3-4-blown",
                "Q1/5-6-open",
            }
        )
        {
            ids.ShouldContain(id);
        }
    }

    /// <summary>No fault is a fault in name only: each changes some reading, something seen, or a look in some state.</summary>
    [Theory]
    [MemberData(nameof(Circuits))]
    public void Every_fault_makes_a_difference_somewhere(string name)
    {
        var circuit = Starters.Of(name);
        var healthy = Signature(Starters.Healthy(circuit), circuit);
        foreach (var fault in FaultCatalogue.Of(circuit))
        {
            Signature(Starters.With(circuit, [.. fault.Alterations]), circuit).ShouldNotBe(healthy, $"{fault.Id} {fault.Variant}");
        }
    }

    [Theory]
    [InlineData("S1", "exchanged", "closes when operated")]
    [InlineData("S2", "exchanged", "opens when operated")]
    public void An_exchanged_contact_says_what_it_now_does(string tag, string kind, string says) =>
        FaultCatalogue
            .Of(Starters.LineToNeutral)
            .First(f => f.Unit == tag && f.Id.EndsWith(kind, StringComparison.Ordinal))
            .Title.ShouldContain(says);

    [Fact]
    public void A_stop_with_a_closing_contact_lets_the_motor_run_only_while_stop_and_start_are_pressed()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "S1/21-22-exchanged");
        var start = simulator.Do(simulator.Start().State, Starters.Press);
        start.Appearances["KM1"].ShouldBe("out");
        simulator.Do(start.State, Starters.Stop).Appearances["KM1"].ShouldBe("in");
    }

    [Fact]
    public void A_fault_of_another_size_keeps_its_place()
    {
        new ConductorSeriesOhms("3.1", 100).Scaled(2).ShouldBe(new ConductorSeriesOhms("3.1", 200));
        new ElementOpen("KM1", "1-2").Scaled(2).ShouldBe(new ElementOpen("KM1", "1-2"));
        new ParameterIs("INC", "lineVolts", 300).Scaled(2).ShouldBe(new ParameterIs("INC", "lineVolts", 600));
    }

    private static string Signature(Simulator simulator, Circuit circuit)
    {
        var points = circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Distinct().ToList();
        var parts = new List<string>();
        var outcome = simulator.Start();
        foreach (
            var step in new[]
            {
                Step.Wait(1),
                Starters.Press,
                Starters.Release,
                new Step("F2", "tripped"),
                new Step("F2", "reset"),
                Starters.Press,
                Starters.Release,
                new Step("S0", "operated"),
                new Step("S0", "released"),
                Starters.Press,
                Starters.Release,
                Step.Wait(3600),
                Starters.Stop,
                Starters.StopReleased,
            }
        )
        {
            outcome = simulator.Do(outcome.State, step);
            parts.Add(string.Join(' ', outcome.Appearances.Values));
            parts.Add(string.Join(' ', points.Select(p => Math.Round(outcome.Solution.Volts(p).Magnitude, 2))));
        }

        parts.AddRange(
            circuit.Devices.SelectMany(d =>
                d.Kind.Looks(d).Select(l => simulator.Look(simulator.Start().State, d.Tag, l.Id, d, () => simulator.Start().Solution))
            )
        );
        var isolated = simulator.Do(simulator.Start().State, circuit.Compiled().Isolation.Off).State;
        foreach (
            var held in circuit
                .Devices.SelectMany(d => d.Kind.Actuations(d).Where(a => a.Returns).Select(a => new Step(d.Tag, a.Position)))
                .Prepend(Step.Wait(1))
        )
        {
            var meter = simulator.Network.OhmMeter(held.Device.Length == 0 ? isolated : simulator.Arrange(isolated, [held]));
            parts.Add(
                string.Join(
                    ' ',
                    circuit
                        .Conductors.Select(c => meter(c.From, c.To))
                        .Concat(points.Zip(points.Skip(1), (a, b) => meter(a, b)))
                        .Select(o => o.IsOpen ? "OL" : Math.Round(o.Value, 3).ToString(System.Globalization.CultureInfo.InvariantCulture))
                )
            );
        }

        return string.Join('|', parts);
    }
}
