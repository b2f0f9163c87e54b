using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Editing;
using Fehler.Core.Families;
using Fehler.Core.Tests.Families;
using Fehler.Core.Trade;

namespace Fehler.Core.Tests.Editing;

/// <summary>The trade's sums asked of a circuit: filled in from its plates, and put back where a result belongs.</summary>
public class SumsOnCircuitTests
{
    private static Sum Asked(Circuit circuit, string sum, string device) =>
        SumCatalogue.Read(sum, SumsOnCircuit.Of(circuit.Compiled()).Single(a => a.Sum == sum && a.Device == device).Given);

    /// <summary>A relay in the phase leads of a delta is set to the plate current by the root of 3 (common practice).</summary>
    [Fact]
    public void The_dial_of_a_star_delta_starter_comes_from_the_plate_and_goes_where_it_belongs()
    {
        var circuit = new StarDelta { Tag = "T-9", Title = "Fan" }.Build();
        var relay = circuit.Devices.First(d => d.Kind.DialOf(d) is not null);
        var plate = circuit.Devices.Select(d => d.Kind.PlateOf(d)).First(p => p is not null)!;
        var dial = Asked(circuit, "overload-dial", relay.Tag).ShouldBeOfType<OverloadDial>();
        (dial.Amps, dial.Place).ShouldBe((plate.Amps.Value, OverloadPlace.DeltaPhase));

        var put = SumsOnCircuit.Put(circuit, relay.Tag, dial, dial.Work())!;
        var changed = CircuitEditor.Apply(circuit, put.Edit);
        var set = changed.Devices.Single(d => d.Tag == relay.Tag);
        set.Kind.DialOf(set)!.Amps.Value.ShouldBe(plate.Amps.Value / Math.Sqrt(3), 0.006 * plate.Amps.Value);
        PlateCheck.Of(changed.Compiled()).Where(r => r.Device == relay.Tag).ShouldAllBe(r => r.Fit == Fit.Fits);
    }

    [Fact]
    public void What_a_sum_only_says_is_put_nowhere()
    {
        var circuit = Starters.LineToNeutral;
        var trip = Asked(circuit, "trip-time", "F2");
        SumsOnCircuit.Put(circuit, "F2", trip, trip.Work()).ShouldBeNull();
        Should.Throw<RefusedException>(() => SumsOnCircuit.Put(circuit, "F9", trip, trip.Work())).Message.ShouldContain("no F9");
    }

    /// <summary>Whatever a circuit fills in, the sum takes.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void Every_family_knows_something_and_every_sum_can_be_worked(string name)
    {
        var asked = SumsOnCircuit.Of(FamilySamples.Of(name).Compiled());
        asked.ShouldNotBeEmpty();
        foreach (var sum in asked)
        {
            var result = SumCatalogue.Read(sum.Sum, sum.Given).Work();
            result.Lines.ShouldAllBe(l => double.IsFinite(l.Value), $"{sum.Sum} of {sum.Device}: {JsonSerializer.Serialize(sum.Given)}");
        }
    }
}
