using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Electrical;

public class SpiceNetlistTests
{
    [Fact]
    public void The_netlist_names_its_nodes_its_state_and_its_fault()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "5.1/open");
        var text = SpiceNetlist.Ac(simulator.Network, simulator.Start().State);
        text.ShouldStartWith("* T-1 Infeed chain: volts at supply frequency\n");
        text.ShouldContain("* fault: ConductorOpen { Conductor = 5.1 }");
        foreach (var terminal in new[] { "KM1:A1", "S1:21", "X1:3", "M1:U" })
        {
            text.ShouldContain($"* {SpiceNetlist.NodeName(simulator.Network, TerminalId.Parse(terminal))} = {terminal}\n");
        }

        text.ShouldContain(".ac lin 1 50 50");
        text.ShouldEndWith(".end\n");
    }

    [Fact]
    public void Earth_is_node_zero_and_an_open_contact_is_not_in_the_netlist()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        SpiceNetlist.NodeName(simulator.Network, TerminalId.Parse("INC:PE")).ShouldBe("0");
        var a = SpiceNetlist.NodeName(simulator.Network, TerminalId.Parse("S2:13"));
        var b = SpiceNetlist.NodeName(simulator.Network, TerminalId.Parse("S2:14"));
        SpiceNetlist.Ac(simulator.Network, simulator.Start().State).ShouldNotContain($" {a} {b} ");
        SpiceNetlist.Ac(simulator.Network, simulator.Do(simulator.Start().State, Starters.Press).State).ShouldContain($" {a} {b} 0.02");
    }

    [Fact]
    public void The_ohmmeters_netlist_drives_one_ampere_and_has_no_supply()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        var state = simulator.Do(simulator.Start().State, Starters.LineToNeutral.Compiled().Isolation.Off).State;
        var text = SpiceNetlist.Ohms(simulator.Network, state, TerminalId.Parse("KM1:A1"), TerminalId.Parse("KM1:A2"));
        text.Split('\n').Count(l => l.StartsWith("Imeter", StringComparison.Ordinal)).ShouldBe(1);
        text.Split('\n').ShouldNotContain(l => l.StartsWith('V'));
    }

    [Fact]
    public void The_same_state_gives_the_same_netlist()
    {
        var simulator = Starters.Healthy(Starters.LineToLine);
        var state = simulator.Running().State;
        SpiceNetlist.Ac(simulator.Network, state).ShouldBe(SpiceNetlist.Ac(simulator.Network, state));
    }
}
