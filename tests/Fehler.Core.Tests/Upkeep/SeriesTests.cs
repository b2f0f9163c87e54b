using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Families;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Tests.Upkeep;

/// <summary>What a journal gives to the trends, and what it must not.</summary>
public class SeriesTests
{
    private static readonly CompiledCircuit Circuit = Starters.LineToNeutral.Compile();
    private static readonly DateTimeOffset At = new(2026, 3, 2, 8, 0, 0, TimeSpan.Zero);

    private static JobState Job(params JournalEntry[] entries) =>
        JobState.Of(Circuit, entries.Select((e, i) => e with { Id = Guid.NewGuid(), Sequence = i + 1, At = At.AddMinutes(i) }));

    private static Reading Read(Quantity quantity, string from, string to, double value) =>
        new(quantity, TerminalId.Parse(from), TerminalId.Parse(to), [], ReadingValue.Of(value));

    private static List<SeriesValue> Of(params JournalEntry[] entries) => [.. Circuit.SeriesValues.Of(Job(entries))];

    private static readonly OperationSeen Runs = new([], ImmutableSortedDictionary<string, string>.Empty.Add("M1", "runs"));

    [Fact]
    public void Three_currents_of_a_running_motor_and_how_unlike_they_are()
    {
        var values = Of(
            Runs,
            Read(Quantity.Amps, "F2:2", "F2:2", 6.0),
            Read(Quantity.Amps, "F2:4", "F2:4", 6.3),
            Read(Quantity.Amps, "F2:6", "F2:6", 6.0)
        );
        values.Count(v => v.Key.What == Followed.RunningAmps).ShouldBe(3);
        values.ShouldAllBe(v => v.Key.State == "M1 runs");
        // Mean 6.1; 0.2 from it.
        values.Single(v => v.Key.What == Followed.AmpsUnbalance).Value.ShouldBe(0.2 / 6.1, 1e-9);
    }

    [Fact]
    public void Currents_of_a_motor_that_nobody_saw_run_are_no_trend() => Of(Read(Quantity.Amps, "F2:2", "F2:2", 6.0)).ShouldBeEmpty();

    [Fact]
    public void What_a_fault_made_the_meter_show_is_left_out()
    {
        var finding = new Finding("F1");
        var repair = new Repair("F1", "fuses replaced", []);
        var low = Read(Quantity.Volts, "F1:2", "F1:4", 310);
        var good = Read(Quantity.Volts, "F1:2", "F1:4", 401);
        var values = Of(low, finding, repair, good);
        values.Single().ShouldBe(new SeriesValue(new SeriesKey(Followed.LineVolts, "INC", "L1-L2"), At.AddMinutes(3), 401));
        Of(low, finding).ShouldBeEmpty();
    }

    [Fact]
    public void A_coil_that_was_replaced_after_it_was_measured_is_left_out()
    {
        var coil = Read(Quantity.Ohms, "KM1:A1", "KM1:A2", 96) with { Alone = true };
        Of(coil).Single().Key.ShouldBe(new SeriesKey(Followed.CoilOhms, "KM1", "A1-A2", "by itself"));
        Of(coil, new Repair("KM1", "coil replaced", ["coil"])).ShouldBeEmpty();
        Of(coil, new Repair("F2", "replaced", [])).Count.ShouldBe(1);
    }

    /// <summary>IEEE 43, from memory: 20 MOhm at 20 °C are 5 MOhm at 40 °C.</summary>
    [Fact]
    public void Insulation_is_brought_to_forty_degrees()
    {
        var read = Read(Quantity.Insulation, "M1:U", "M1:PE", 20e6);
        Of(read with { Celsius = 20 }).Single().Value.ShouldBe(5e6, 1);
        Of(read).Single().Value.ShouldBe(5e6, 1);
        Of(read with { Celsius = 40 }).Single().Value.ShouldBe(20e6, 1);
    }

    [Fact]
    public void A_trip_is_held_against_its_class()
    {
        var dial = Circuit.Circuit.Device("F2").Kind.DialOf(Circuit.Circuit.Device("F2"))!;
        var expected = TripTimed.Expected(Circuit.Circuit, "F2", 1.6 * dial.Amps.Value)!.Value.Value;
        // Common practice: dial 10 A, 16 A drawn, class 10: about 3 to 4 min.
        expected.ShouldBeInRange(170, 240);
        Of(new TripTimed("F2", 1.6 * dial.Amps.Value, 1.1 * expected)).Single().Value.ShouldBe(1.1, 1e-9);
        TripTimed.Verdict(Circuit.Circuit, "F2", 1.6 * dial.Amps.Value, expected).ShouldStartWith("as its class has it");
        TripTimed.Verdict(Circuit.Circuit, "F2", 1.6 * dial.Amps.Value, 3 * expected).ShouldStartWith("later");
        TripTimed.Verdict(Circuit.Circuit, "F2", dial.Amps.Value, 60).ShouldContain("for ever");
        Job().Refuse(new TripTimed("KM1", 10, 5))!.ShouldContain("no dial");
        Job().Refuse(new TripTimed("F2", 0, 5))!.ShouldContain("current");
    }

    [Fact]
    public void A_replaced_device_begins_anew_and_the_limit_is_its_own_first_value()
    {
        var key = new SeriesKey(Followed.CoilOhms, "KM1", "A1-A2");
        SeriesValue Value(int month, double ohms) => new(key, At.AddMonths(month), ohms);
        var series = Series
            .Of(
                Circuit.Circuit,
                [Value(0, 100), Value(2, 60), Value(6, 200), Value(12, 206)],
                new Dictionary<string, DateTimeOffset> { ["KM1"] = At.AddMonths(3) }
            )
            .Single();
        series.First.Value.ShouldBe(200);
        series.Limit!.Least!.Value.ShouldBe(170, 1e-9);
        series.IsBeyond.ShouldBeFalse();
    }
}
