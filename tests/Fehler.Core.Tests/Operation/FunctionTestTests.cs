using Fehler.Core.Circuits;
using Fehler.Core.Operation;

namespace Fehler.Core.Tests.Operation;

/// <summary>The function test, derived from what stands in the circuit.</summary>
public class FunctionTestTests
{
    private static Circuit With(string testTrip) =>
        Starters.LineToNeutral with
        {
            Devices = [.. Starters.LineToNeutral.Devices.Select(d => d.Tag == "F2" ? d.With("testTrip", testTrip) : d)],
        };

    /// <summary>A relay that has a test for each of its elements is tried at each: one that does not trip protects no longer.</summary>
    [Fact]
    public void An_overload_is_tried_at_every_element_that_has_a_test()
    {
        static string[] Trips(string testTrip) =>
            [.. With(testTrip).Compile().FunctionTest.Steps.Where(s => s.TripOf == "F2").Select(s => s.Id)];
        Trips("one").ShouldBe(["F2-tripped"]);
        Trips("per element").ShouldBe(["F2-tripped-element-1-2", "F2-tripped-element-3-4", "F2-tripped-element-5-6"]);
    }

    /// <summary>Between them it is reset and started again, or the second test would try a relay that has tripped.</summary>
    [Fact]
    public void Each_element_is_tried_while_the_motor_runs()
    {
        var circuit = With("per element");
        var simulator = Starters.Healthy(circuit);
        var state = simulator.Start().State;
        foreach (var step in circuit.Compile().FunctionTest.Steps)
        {
            var before = simulator.Do(state, step.Before);
            if (step.TripOf == "F2")
            {
                before.Appearances["M1"].ShouldBe("runs", step.Id);
                step.Expected["M1"].ShouldNotBe("runs", step.Id);
            }

            var after = simulator.Do(before.State, step.Steps);
            after.Appearances.ShouldBe(step.Expected, step.Id);
            state = after.State;
        }
    }
}
