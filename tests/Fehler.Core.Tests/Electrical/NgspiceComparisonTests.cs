using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Electrical;

/// <summary>Node voltages and resistances against ngspice, run on the exported netlist.</summary>
public class NgspiceComparisonTests
{
    /// <summary>Every seventh fault: more than thirty of each circuit.</summary>
    private const int Every = 7;

    [Theory]
    [InlineData("LN")]
    [InlineData("LL")]
    public void Volts_of_the_healthy_starter_agree_at_rest_and_running(string name)
    {
        var simulator = Starters.Healthy(Starters.Of(name));
        Compare(simulator.Start(), "at rest");
        Compare(simulator.Running(), "running");
    }

    [Theory]
    [InlineData("LN")]
    [InlineData("LL")]
    public void Volts_with_a_fault_agree_at_every_node(string name)
    {
        var circuit = Starters.Of(name);
        var faults = FaultCatalogue.Of(circuit).Where((_, i) => i % Every == 0).ToList();
        faults.Count.ShouldBeGreaterThan(30);
        Parallel.ForEach(
            faults,
            fault =>
            {
                var simulator = Starters.With(circuit, [.. fault.Alterations]);
                Compare(simulator.Do(simulator.Start().State, Starters.Press), $"{fault.Id} {fault.Variant}");
            }
        );
    }

    [Theory]
    [InlineData("LN")]
    [InlineData("LL")]
    public void Resistances_with_a_fault_agree_for_ten_pairs_of_points(string name)
    {
        var circuit = Starters.Of(name);
        var pairs = new[]
        {
            ("KM1:A1", "KM1:A2"),
            ("S1:21", "S1:22"),
            ("S2:13", "S2:14"),
            ("M1:U", "M1:V"),
            ("M1:V", "M1:W"),
            ("M1:U", "M1:PE"),
            ("F2:95", "F2:96"),
            ("F1:1", "F1:2"),
            ("F3:1", "KM1:A2"),
            ("F3:2", "KM1:A1"),
        }
            .Select(p => (From: TerminalId.Parse(p.Item1), To: TerminalId.Parse(p.Item2)))
            .ToList();
        var faults = FaultCatalogue.Of(circuit).Where((_, i) => i % (2 * Every) == 3).ToList();
        Parallel.ForEach(
            faults,
            fault =>
            {
                var simulator = Starters.With(circuit, [.. fault.Alterations]);
                var state = simulator.Do(simulator.Start().State, circuit.Compiled().Isolation.Off).State;
                foreach (var (from, to) in pairs)
                {
                    var nodes = Ngspice.Op(SpiceNetlist.Ohms(simulator.Network, state, from, to));
                    double At(TerminalId t) => nodes.GetValueOrDefault(SpiceNetlist.NodeName(simulator.Network, t));
                    var spice = At(from) - At(to);
                    var ours = simulator.Network.Ohms(state, from, to);
                    if (ours.IsOpen)
                    {
                        spice.ShouldBeGreaterThan(40e6, $"{fault.Id}: {from} to {to}");
                    }
                    else
                    {
                        ours.Value.ShouldBe(spice, 1e-3 * spice + 1e-4, $"{fault.Id}: {from} to {to}");
                    }
                }
            }
        );
    }

    private static void Compare(Outcome outcome, string what)
    {
        var network = outcome.Solution.Network;
        var spice = Ngspice.Ac(SpiceNetlist.Ac(network, outcome.State));
        spice.Count.ShouldBeGreaterThan(50, "ngspice gave no voltages; is it installed?");
        foreach (var terminal in network.Circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Distinct())
        {
            var reference = spice.TryGetValue(SpiceNetlist.NodeName(network, terminal), out var v) ? v : Complex.Zero;
            (outcome.Solution.Volts(terminal) - reference).Magnitude.ShouldBeLessThan(
                0.01 + 1e-4 * reference.Magnitude,
                $"{what}: {terminal}"
            );
        }
    }
}
