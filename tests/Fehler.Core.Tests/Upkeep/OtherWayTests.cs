using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Tests.Upkeep;

/// <summary>Three currents beside those of the other direction: motor and cable are the same (common practice).</summary>
public class OtherWayTests
{
    private static readonly CompiledCircuit Circuit = new Reversing { Tag = "R-1", Title = "Kiln fan" }
        .Build()
        .Compile();
    private static readonly DateTimeOffset At = new(2026, 3, 2, 8, 0, 0, TimeSpan.Zero);

    private static OperationSeen Seen(string appearance) => new([], ImmutableSortedDictionary<string, string>.Empty.Add("M1", appearance));

    private static Reading Amps(string terminal, double amps) =>
        new(Quantity.Amps, TerminalId.Parse(terminal), TerminalId.Parse(terminal), [], ReadingValue.Of(amps));

    private static JobState Job(params JournalEntry[] entries) =>
        JobState.Of(Circuit, entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1, At = At.AddMinutes(i) }));

    private static readonly JournalEntry[] Forward = [Seen("runs"), Amps("F2:2", 6), Amps("F2:4", 6.1), Amps("F2:6", 5.9)];

    [Fact]
    public void More_in_one_direction_points_at_that_directions_load_and_contactor()
    {
        var says = OtherWay.Says(Job([.. Forward, Seen("runs reverse")]), "F2", [8.2, 8.1, 8.3])!;
        says.ShouldContain("While M1 runs it drew 6 A");
        says.ShouldContain("37 % more");
        OtherWay.Says(Job([.. Forward, Seen("runs reverse")]), "F2", [4, 4, 4.1])!.ShouldContain("less");
    }

    [Fact]
    public void Alike_in_both_directions_clears_motor_and_cable() =>
        OtherWay.Says(Job([.. Forward, Seen("runs reverse")]), "F2", [6.2, 6.1, 6.0])!.ShouldStartWith("As while M1 runs");

    [Fact]
    public void The_same_direction_twice_or_nothing_seen_says_nothing()
    {
        OtherWay.Says(Job([.. Forward, Seen("runs")]), "F2", [8, 8, 8]).ShouldBeNull();
        OtherWay.Says(Job([.. Forward, Seen("stopped")]), "F2", [8, 8, 8]).ShouldBeNull();
        OtherWay.Says(Job(Seen("runs")), "F2", [8, 8, 8]).ShouldBeNull();
    }

    /// <summary>Six times the plate's current in all three lines is what a rotor draws that does not turn (common practice).</summary>
    [Fact]
    public void Three_currents_of_a_standing_rotor_say_that_it_stands()
    {
        var rated = Circuit.Circuit.Device("M1").Kind.PlateOf(Circuit.Circuit.Device("M1"))!.Amps.Value;
        Circuit.ThreeLines.Verdict(Quantity.Amps, [5.8 * rated, 6 * rated, 5.9 * rated]).ShouldContain(s => s.Contains("does not turn"));
        Circuit
            .ThreeLines.Verdict(Quantity.Amps, [1.5 * rated, 1.5 * rated, 1.5 * rated])
            .ShouldNotContain(s => s.Contains("does not turn"));
        // One line open: that is said, and not that it stands.
        Circuit.ThreeLines.Verdict(Quantity.Amps, [5.2 * rated, 5.2 * rated, 0]).ShouldContain(s => s.Contains("Line 3 draws nothing"));
    }

    /// <summary>Starts on a counter head for the life of a contactor's contacts: common practice, one to two million.</summary>
    [Fact]
    public void Starts_are_counted_towards_the_life_of_the_contacts()
    {
        var key = new SeriesKey(Followed.Starts, "KM1");
        SeriesValue[] counted = [.. Enumerable.Range(0, 6).Select(i => new SeriesValue(key, At.AddMonths(4 * i), 100_000.0 * i))];
        var series = Series.Of(Circuit.Circuit, counted, new Dictionary<string, DateTimeOffset>()).Single();
        series.Reaches.ShouldNotBeNull();
        // 300,000 a year: half a million to go.
        (series.Reaches.About - At.AddMonths(20)).TotalDays.ShouldBe(365 * 5 / 3.0, 40);
        Condition.Of(Circuit.Upkeep, [], [series]).Single().Rule.ShouldBe("contacts");
        // A new contactor begins anew.
        var replaced = new Dictionary<string, DateTimeOffset> { ["KM1"] = At.AddMonths(18) };
        Series.Of(Circuit.Circuit, counted, replaced).Single().Reaches.ShouldBeNull();
    }
}
