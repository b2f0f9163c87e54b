using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Procedures;

public class IsolationTests
{
    [Theory]
    [InlineData("LN")]
    [InlineData("LL")]
    public void Opening_the_points_leaves_everything_below_dead_and_everything_above_live(string name)
    {
        var circuit = Starters.Of(name);
        var isolation = circuit.Compiled().Isolation;
        isolation.Points.ShouldBe(["Q1"]);
        isolation.LiveTerminals.ShouldBe(
            [.. new[] { "INC:L1", "INC:L2", "INC:L3", "Q1:1", "Q1:3", "Q1:5" }.Select(TerminalId.Parse)],
            ignoreOrder: true
        );
        var simulator = Starters.Healthy(circuit);
        var off = simulator.Do(simulator.Running().State, isolation.Off);
        off.Appearances["KM1"].ShouldBe("out");
        off.Appearances["M1"].ShouldBe("stopped");
        off.Volts("KM1:1", "INC:PE").ShouldBeLessThan(25);
    }

    [Fact]
    public void Switching_on_again_does_not_start_a_three_wire_circuit()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        var isolation = Starters.LineToNeutral.Compiled().Isolation;
        var on = simulator.Do(simulator.Running().State, isolation.Off.Concat(isolation.On));
        on.Appearances["M1"].ShouldBe("stopped");
        on.Volts("F3:2", "INC:N").ShouldBe(231, 1);
    }

    /// <summary>A closed Start contact restarts the motor as the supply comes back: why everyone stands clear.</summary>
    [Fact]
    public void A_stuck_start_runs_the_motor_as_it_is_switched_on()
    {
        var simulator = Starters.With(Starters.LineToNeutral, "S2/13-14-made");
        var isolation = Starters.LineToNeutral.Compiled().Isolation;
        simulator.Do(simulator.Start().State, isolation.Off.Concat(isolation.On)).Appearances["M1"].ShouldBe("runs");
    }

    [Fact]
    public void Pressing_an_armature_of_a_dead_circuit_closes_its_contacts_and_starts_nothing()
    {
        var simulator = Starters.Healthy(Starters.LineToNeutral);
        var dead = simulator.Do(simulator.Start().State, Starters.LineToNeutral.Compiled().Isolation.Off).State;
        var pressed = simulator.Arrange(dead, [new Step("KM1", "in")]);
        simulator.Network.Ohms(pressed, TerminalId.Parse("KM1:1"), TerminalId.Parse("KM1:2")).Value.ShouldBeLessThan(0.1);
        simulator.Observe(pressed).Appearances["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void The_list_to_restore_covers_wires_earth_tools_covers_and_locks() =>
        RestoreList
            .Of(JobState.Of(Starters.LineToNeutral.Compiled(), []))
            .Select(i => i.Id)
            .ShouldBe(["wires", "earth", "tools", "covers", "locks"]);
}
