using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Families;
using Shouldly;
using Xunit;

namespace Fehler.Core.Tests.Electrical;

/// <summary>Cables against what is common practice of the trade and capacitive dividers by hand.</summary>
public class CableTests
{
    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(7)]
    public void Stations_one_after_the_other_need_three_cores_between_neighbours(int stations)
    {
        // Common practice: three wires to any number of start-stop stations.
        var circuit = new MultiStation
        {
            Tag = "S",
            Title = "Stations",
            Stations = stations,
            EmergencyStop = false,
        }.Build();
        var cables = Cable.Of(circuit).Where(c => c.Far.Type == LocationType.FieldStation).ToList();
        cables.Count.ShouldBe(stations);
        foreach (var (cable, n) in cables.OrderBy(c => c.Far.CableMetres).Select((c, i) => (c, i + 1)))
        {
            cable.Cores.Length.ShouldBe(3, $"to station {n}");
            cable.Far.Name.ShouldEndWith($" {n}");
            (
                n == 1 ? cable.Near.Type == LocationType.Enclosure : cable.Near.Name.EndsWith($" {n - 1}", StringComparison.Ordinal)
            ).ShouldBeTrue();
            cable.Cores.ShouldAllBe(c => c.Metres == (n == 1 ? 20 : 15));
        }
    }

    [Fact]
    public void A_wire_inside_a_panel_is_short()
    {
        // Common practice: 0.3 to 1 m; ten of them in a row do not drop a volt.
        foreach (
            var conductor in Starters.LineToNeutral.Conductors.Where(c =>
                Starters.LineToNeutral.LocationOf(c.From) == Starters.LineToNeutral.LocationOf(c.To)
            )
        )
        {
            conductor.Metres.ShouldBeInRange(0.3, 1, conductor.ToString());
        }
    }

    [Theory]
    [InlineData(0.5)]
    [InlineData(1)]
    public void An_open_core_beside_a_live_one_shows_a_ghost_that_a_low_impedance_meter_settles(double kilometres)
    {
        // A station with Stop and Start on three cores: the feed, the middle and the return to the coil. With the middle one off at the panel
        // and Stop pressed it hangs between a live core and one that the coil holds at the neutral.
        var circuit = new DirectOnLine
        {
            Tag = "G",
            Title = "Ghost",
            EmergencyStop = false,
            StationMetres = kilometres * 1000,
        }.Build();
        var cable = Cable.Of(circuit).Single(c => c.Far.Type == LocationType.FieldStation);
        cable.Cores.Length.ShouldBe(3);
        var middle = cable.Cores.Single(c => new[] { "S1:22", "S2:13" }.Contains(cable.FarEnd(circuit, c).ToString()));
        var open = Network.Of(circuit).With([new ConductorOpen(middle.Id)]);
        var pressed = Simulating(open);
        var far = cable.FarEnd(circuit, middle);
        double Reads(double ohms) =>
            open.With(open.Alterations.Add(new Bridge(far, circuit.Earth, ohms))) is var metered
                ? metered.Solve(pressed).Volts(far).Magnitude
                : 0;

        // By hand: half of the core's capacitance hangs at its far end, of that half to earth and a quarter to each neighbour.
        var farads = 0.2e-6 * kilometres / 2;
        var omega = 2 * Math.PI * 50;
        var meter = 10e6;
        var toLive = new System.Numerics.Complex(0, omega * farads / 4);
        var toRest = new System.Numerics.Complex(1 / meter, omega * farads * 3 / 4);
        var byHand = 230.94 * (toLive / (toLive + toRest)).Magnitude;
        Reads(meter).ShouldBe(byHand, 0.05 * byHand);
        // Common practice: a low-impedance meter of some 3 kohm tells a ghost from a voltage.
        Reads(3000).ShouldBeLessThan(12);

        static CircuitState Simulating(Network network)
        {
            var simulator = new Fehler.Core.Operation.Simulator(network);
            return simulator.Do(simulator.Start().State, Starters.Stop).State;
        }
    }
}
