using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Families;

/// <summary>A circuit from what stands in a panel; which starter has which devices is common practice.</summary>
public class PanelSearchTests
{
    private static PanelFound Find(double coil, params (string Sort, int Count)[] counts) =>
        PanelSearch.Find(
            new PanelCount(counts.ToImmutableSortedDictionary(c => c.Sort, c => c.Count), coil),
            "NEW-1",
            "New starter",
            TestContext.Current.CancellationToken
        );

    [Fact]
    public void Three_contactors_and_a_timer_start_a_motor_in_star_and_delta()
    {
        var found = Find(0, ("contactors", 3), ("timers", 1), ("motors", 1));
        found.Matches[0].Family.Id.ShouldBe("star-delta");
        found.Matches[0].Differs.ShouldBeEmpty();
    }

    [Fact]
    public void Two_contactors_and_two_buttons_that_start_turn_a_motor_both_ways()
    {
        var found = Find(0, ("contactors", 2), ("starts", 2), ("stops", 1), ("timers", 0), ("switches", 0));
        found.Matches.Select(m => m.Family.Id).ShouldContain("reversing");
        found.Matches[0].Differs.ShouldBeEmpty();
    }

    [Fact]
    public void Four_places_with_buttons_are_four_stations()
    {
        var found = Find(0, ("contactors", 1), ("stations", 4), ("starts", 4), ("stops", 4));
        found.Matches[0].Family.Id.ShouldBe("multi-station");
        found.Matches[0].Options["stations"]!.GetValue<int>().ShouldBe(4);
    }

    /// <summary>A coil of 24 V behind a DC supply, one of 400 V line to line, one of 230 V line to neutral or behind a transformer.</summary>
    [Theory]
    [InlineData(24, "dcSupplies", 1, "dcSupply")]
    [InlineData(400, "transformers", 0, "lineToLine")]
    [InlineData(110, "transformers", 1, "transformer")]
    public void The_coils_label_and_what_feeds_it_tell_the_control_supply(double volts, string sort, int count, string control)
    {
        var best = Find(volts, ("contactors", 1), (sort, count)).Matches[0];
        best.Differs.ShouldBeEmpty();
        best.Options["control"]!.GetValue<string>().ShouldBe(control);
    }

    [Fact]
    public void The_coils_label_alone_tells_that_something_makes_its_voltage()
    {
        var best = Find(110, ("contactors", 3), ("timers", 1)).Matches[0];
        (best.Family.Id, best.Options["control"]!.GetValue<string>()).ShouldBe(("star-delta", "transformer"));
        best.Differs.ShouldBeEmpty();
    }

    [Fact]
    public void An_impulse_relay_a_drum_a_controller_and_a_capacitor_are_known_by_themselves()
    {
        Find(0, ("impulseRelays", 1)).Matches[0].Family.Id.ShouldBe("impulse");
        Find(0, ("drums", 1)).Matches[0].Family.Id.ShouldBe("manual");
        Find(0, ("controllers", 1)).Matches[0].Family.Id.ShouldBe("plc");
        Find(0, ("capacitors", 1)).Matches[0].Family.Id.ShouldBe("single-phase");
    }

    /// <summary>What is counted in a circuit that a family made finds a circuit in which the same is counted.</summary>
    [Theory]
    [MemberData(nameof(FamilySamples.Names), MemberType = typeof(FamilySamples))]
    public void What_is_counted_in_a_known_circuit_is_found_again(string sample)
    {
        var circuit = FamilySamples.Of(sample);
        var found = PanelSearch.Find(
            new PanelCount(PanelSort.All.ToImmutableSortedDictionary(s => s.Id, s => Math.Min(s.Most, s.In(circuit))), 0),
            "NEW-1",
            "New starter",
            TestContext.Current.CancellationToken
        );
        found.TellsApart.ShouldBeNull();
        found.Matches[0].Differs.ShouldBeEmpty();
    }

    [Fact]
    public void What_was_not_counted_and_differs_most_is_counted_next()
    {
        var found = Find(0, ("contactors", 2));
        found.Matches.Length.ShouldBeGreaterThan(1);
        found.TellsApart.ShouldNotBeNull();
        found.Matches.Select(m => found.TellsApart.In(m.Circuit)).Distinct().Count().ShouldBeGreaterThan(1);
    }

    [Fact]
    public void Nonsense_is_refused_in_a_sentence()
    {
        Should.Throw<RefusedException>(() => Find(0, ("contactors", 99))).Message.ShouldContain("Count 0 to 9 contactors");
        Should.Throw<RefusedException>(() => Find(0, ("teapots", 1))).Message.ShouldContain("nothing that is counted");
        Should.Throw<RefusedException>(() => Find(7)).Message.ShouldContain("12 to 690 V");
    }
}
