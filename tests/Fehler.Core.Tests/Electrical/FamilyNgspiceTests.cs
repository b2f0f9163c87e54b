using System.Globalization;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;

namespace Fehler.Core.Tests.Electrical;

/// <summary>
/// Every family, healthy and faulted, alternating, direct and ohms, against ngspice run on the exported netlist. A run takes every
/// fortieth fault of each; FEHLER_EVERY=1 takes all of them.
/// </summary>
public class FamilyNgspiceTests
{
    private static readonly int Every = int.Parse(Environment.GetEnvironmentVariable("FEHLER_EVERY") ?? "40", CultureInfo.InvariantCulture);

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Volts_of_the_healthy_circuit_agree_at_rest_and_working(string name)
    {
        var circuit = FamilySamples.Of(name);
        var simulator = new Simulator(Network.Of(circuit));
        Compare(simulator.Start(), $"{name} at rest");
        foreach (var start in circuit.Compiled().RunUp.Starts.Take(2))
        {
            Compare(simulator.Do(simulator.Start().State, [.. start.Prepare, start.Act]), $"{name}, {start.Act}");
        }
    }

    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Volts_and_ohms_agree_with_a_fault(string name)
    {
        var circuit = FamilySamples.Of(name);
        var faults = FaultCatalogue.Of(circuit).Where((_, i) => i % Every == 0).ToList();
        faults.ShouldNotBeEmpty();
        var pairs = circuit
            .Devices.SelectMany(d =>
                d.Kind.Elements(d)
                    .Where(e => e.A[0] != '~' && e.B[0] != '~' && e.Role != ElementRole.Source)
                    .Select(e => (From: d.Terminal(e.A), To: d.Terminal(e.B)))
            )
            .ToList();
        Parallel.ForEach(
            faults,
            (fault, _, number) =>
            {
                var simulator = new Simulator(Network.Of(circuit).With(fault.Alterations));
                var start = circuit.Compiled().RunUp.Starts.FirstOrDefault();
                var outcome = start is null ? simulator.Start() : simulator.Do(simulator.Start().State, [.. start.Prepare, start.Act]);
                Compare(outcome, $"{name}: {fault.Id} {fault.Variant}");

                var dead = simulator.Do(outcome.State, circuit.Compiled().Isolation.Off).State;
                foreach (var (from, to) in new[] { pairs[(int)(7 * number % pairs.Count)], pairs[(int)((7 * number + 3) % pairs.Count)] })
                {
                    var nodes = Ngspice.Op(SpiceNetlist.Ohms(simulator.Network, dead, from, to));
                    var spice =
                        nodes.GetValueOrDefault(SpiceNetlist.NodeName(simulator.Network, from))
                        - nodes.GetValueOrDefault(SpiceNetlist.NodeName(simulator.Network, to));
                    var ours = simulator.Network.Ohms(dead, from, to);
                    if (ours.IsOpen)
                    {
                        spice.ShouldBeGreaterThan(39e6, $"{name}: {fault.Id}: {from} to {to}");
                    }
                    else
                    {
                        ours.Value.ShouldBe(spice, 1e-3 * spice + 1e-4, $"{name}: {fault.Id}: {from} to {to}");
                    }
                }
            }
        );
    }

    private static void Compare(Outcome outcome, string what)
    {
        var network = outcome.Solution.Network;
        var terminals = network.Circuit.Conductors.SelectMany(c => new[] { c.From, c.To }).Distinct().ToList();
        var spice = Ngspice.Ac(SpiceNetlist.Ac(network, outcome.State));
        spice.Count.ShouldBeGreaterThan(10, $"{what}: ngspice gave no voltages; is it installed?");
        foreach (var terminal in terminals)
        {
            var reference = spice.GetValueOrDefault(SpiceNetlist.NodeName(network, terminal), Complex.Zero);
            (outcome.Solution.Volts(terminal) - reference).Magnitude.ShouldBeLessThan(
                0.01 + 1e-4 * reference.Magnitude,
                $"{what}: {terminal} AC"
            );
        }

        if (!network.Circuit.Devices.Any(d => d.Kind.DirectOutput is not null))
        {
            return;
        }

        var direct = Ngspice.Op(SpiceNetlist.Dc(network, outcome.State));
        foreach (var terminal in terminals)
        {
            var reference = direct.GetValueOrDefault(SpiceNetlist.NodeName(network, terminal));
            outcome
                .Solution.DcVolts(terminal, network.Circuit.Earth)
                .Value.ShouldBe(reference, 0.01 + 1e-4 * Math.Abs(reference), $"{what}: {terminal} DC");
        }
    }
}
