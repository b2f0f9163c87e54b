using Fehler.Core.Bench;
using Fehler.Core.Circuits;
using Fehler.Core.Diagnosis;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Operation;
using Fehler.Core.Tests.Families;
using Shouldly;
using Xunit;

namespace Fehler.Core.Tests.Operation;

/// <summary>
/// A fault that the healthy circuit's course does not notice is not simulated. It has to come to exactly what simulating it comes to:
/// checked for every fault of every family, along start, hold, let go, wait and stop.
/// </summary>
public class CourseTests
{
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void A_fault_that_nothing_notices_does_what_the_healthy_circuit_does(string sample)
    {
        var circuit = FamilySamples.Of(sample);
        var healthy = Network.Of(circuit);
        var courses = Courses(circuit, healthy).ToList();
        var alike = 0;
        foreach (var fault in FaultCatalogue.Of(circuit))
        {
            var faulty = healthy.With(fault.Alterations);
            var simulator = new Simulator(faulty);
            foreach (var (from, step, course) in courses.Where(c => c.Course.IsThatOf(faulty)))
            {
                var simulated = simulator.Do(from, step);
                simulated.Appearances.ShouldBe(course.Outcome.Appearances, $"{fault.Id} {fault.Variant}, {step}");
                Positions(simulated.State).ShouldBe(Positions(course.Outcome.State), $"{fault.Id} {fault.Variant}, {step}");
                alike++;
            }
        }

        alike.ShouldBeGreaterThan(15);
    }

    [Fact]
    public void What_a_course_carries_current_through_or_holds_volts_across_is_noticed()
    {
        var circuit = Starters.LineToNeutral;
        var healthy = Network.Of(circuit);
        var start = new Course(healthy, new Simulator(healthy).Start().State, Starters.Press);
        bool Notices(string id) => !start.IsThatOf(healthy.With(Starters.Fault(circuit, id).Alterations));
        Notices("KM1/A1-A2-open").ShouldBeTrue();
        Notices("S2/13-14-open").ShouldBeTrue();
        Notices("INC/L1-missing").ShouldBeTrue();
        Notices("KM1/jammed").ShouldBeTrue();
        Notices("F2/97-98-open").ShouldBeFalse();
    }

    private static IEnumerable<int> Positions(CircuitState state) => state.Devices.Select(d => d.Position);

    private static IEnumerable<(CircuitState From, Step Step, Course Course)> Courses(Circuit circuit, Network healthy)
    {
        var state = new Simulator(healthy).Start().State;
        foreach (var step in Core.Bench.GuidedRun.Trials(circuit.Compiled()).SelectMany(s => s).Take(14))
        {
            var course = new Course(healthy, state, step);
            yield return (state, step, course);
            state = course.Outcome.State;
        }
    }
}
