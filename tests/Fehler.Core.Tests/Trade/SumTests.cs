using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Trade;

namespace Fehler.Core.Tests.Trade;

/// <summary>The trade's sums against worked examples and tables; where a value is published its source stands beside it.</summary>
public class SumTests
{
    private static SumResult Work(string sum, string given = "{}") => SumCatalogue.Read(sum, JsonDocument.Parse(given).RootElement).Work();

    private static double Of(SumResult result, string name) => result.Lines.Single(l => l.Name == name).Value;

    /// <summary>Common practice, unless named.</summary>
    [Theory]
    [InlineData("full-load-current", """{"kilowatts":7.5,"volts":400,"efficiency":0.88,"cosPhi":0.85}""", 14.5, 0.05)]
    [InlineData("full-load-current", """{"kilowatts":1.5,"volts":230,"efficiency":0.78,"cosPhi":0.85,"isSinglePhase":true}""", 9.84, 0.02)]
    [InlineData("overload-dial", """{"amps":8.1}""", 8.1, 0.001)]
    [InlineData("overload-dial", """{"amps":8.1,"place":"deltaPhase"}""", 4.7, 0.05)]
    [InlineData("one-line-open", """{"startingMultiple":6}""", 5.2, 0.01)]
    [InlineData("motor-load", """{"synchronousRpm":1500,"ratedRpm":1440,"rpm":1455}""", 75, 0.01)]
    [InlineData("field-speed", """{"poles":4,"hertz":50}""", 1500, 0.001)]
    [InlineData("field-speed", """{"poles":6,"hertz":60}""", 1200, 0.001)]
    [InlineData("winding-ohms", """{"first":5.6,"second":5.6,"third":5.6}""", 0, 0.001)]
    [InlineData("copper-warm", """{"coldOhms":1,"coldCelsius":20,"warmCelsius":100}""", 1.314, 0.0005)]
    [InlineData("insulation", """{"megohms":20,"celsius":20}""", 5, 0.001)]
    [InlineData("monitor", """{"volts":235,"below":16,"above":16}""", 197.4, 0.001)]
    [InlineData("earth-loop", """{"metres":25,"squareMillimetres":2.5}""", 0.19, 0.006)]
    [InlineData("volt-drop", """{"amps":14.5,"metres":60,"squareMillimetres":2.5,"cosPhi":0.85}""", 9.6, 0.06)]
    [InlineData("coil-pull-in", """{"volts":24,"pullInVa":70,"cosPhi":0.75,"metres":100,"squareMillimetres":1.5}""", 19.4, 0.1)]
    [InlineData("cable-holds-coil", """{"volts":230,"sealedVa":8}""", 252, 1)]
    [InlineData("coil-ohms", """{"volts":208,"burden":70}""", 618, 0.5)]
    [InlineData("transformer-size", "{}", 92, 0.001)]
    [InlineData("run-capacitor", """{"amps":4.5,"volts":230,"hertz":50}""", 62, 0.5)]
    [InlineData("unbalance", """{"first":460,"second":467,"third":450}""", 1.96, 0.005)]
    [InlineData("unbalance", """{"first":243,"second":234,"third":236}""", 2.24, 0.005)]
    [InlineData("trip-time", """{"dialAmps":10,"amps":16,"tripClass":10}""", 210, 35)]
    [InlineData(
        "whose-unbalance",
        """{"first":10,"second":11.5,"third":10,"rolledFirst":10,"rolledSecond":11.5,"rolledThird":10}""",
        9.5,
        0.1
    )]
    [InlineData("whose-unbalance", "{}", 0, 0.001)]
    [InlineData("station-cores", """{"stations":9}""", 3, 0)]
    public void Each_sum_comes_to_its_worked_example(string sum, string given, double expected, double within) =>
        Work(sum, given).Value.ShouldBe(expected, within);

    /// <summary>NEC table 430.250, from memory: 10 hp at 460 V take 14 A; the table is on the safe side of a good motor.</summary>
    [Fact]
    public void Horsepower_comes_near_the_North_American_table() =>
        Work("full-load-current", """{"horsepower":10,"volts":460,"efficiency":0.85,"cosPhi":0.79}""").Value.ShouldBe(14, 0.3);

    /// <summary>IEC 60947-4-1, from memory: at 7.2 times its setting class 10 trips in 4 to 10 s from cold, class 20 in 6 to 20 s.</summary>
    [Theory]
    [InlineData(10, 4, 10)]
    [InlineData(20, 6, 20)]
    [InlineData(30, 9, 30)]
    public void A_trip_lies_within_the_gates_of_its_class(int tripClass, double soonest, double latest)
    {
        var result = Work("trip-time", $$"""{"dialAmps":10,"amps":72,"tripClass":{{tripClass}}}""");
        Of(result, "From cold").ShouldBeInRange(soonest, latest);
        Of(result, "Warm from hours at its dial").ShouldBeLessThan(Of(result, "From cold"));
    }

    [Fact]
    public void Below_what_it_carries_for_ever_it_does_not_trip() =>
        Work("trip-time", """{"dialAmps":10,"amps":10.5}""").Says.ShouldContain(s => s.Contains("does not trip"));

    [Fact]
    public void Unlikeness_that_moves_with_the_leads_is_the_motors_and_what_stays_the_supplys()
    {
        Work("whose-unbalance").Says.ShouldContain(s => s.Contains("moves with the leads"));
        Work("whose-unbalance", """{"first":10,"second":11.5,"third":10,"rolledFirst":10,"rolledSecond":11.5,"rolledThird":10}""")
            .Says.ShouldContain(s => s.Contains("stays with the lines"));
    }

    /// <summary>The point that was worked out lies on the first curve.</summary>
    [Theory]
    [InlineData("trip-time")]
    [InlineData("motor-load")]
    [InlineData("insulation")]
    public void The_mark_lies_on_the_curve(string sum)
    {
        var plot = Work(sum).Plot!;
        var mark = plot.Mark!;
        var (before, after) = plot.Curves[0]
            .Points.Zip(plot.Curves[0].Points.Skip(1))
            .First(p => p.First.Across <= mark.Across && p.Second.Across >= mark.Across);
        mark.Up.ShouldBeInRange(Math.Min(before.Up, after.Up) - 1e-6, Math.Max(before.Up, after.Up) + 1e-6);
    }

    [Fact]
    public void Fault_current_is_held_against_what_each_curve_needs()
    {
        var c = Work("earth-loop", """{"loopOhms":0.8,"breakerAmps":16,"curve":"c"}""");
        Of(c, "Fault current").ShouldBe(287.5, 0.1);
        Of(c, "Needed to open at once").ShouldBe(160);
        c.Says.ShouldContain(s => s.StartsWith("Enough for C16"));
        var d = Work("earth-loop", """{"loopOhms":0.8,"breakerAmps":16,"curve":"d"}""");
        Of(d, "Needed to open at once").ShouldBe(320);
        d.Says.ShouldContain(s => s.StartsWith("Not enough for D16"));
    }

    [Fact]
    public void The_upper_threshold_and_what_low_volts_leave_of_the_torque()
    {
        Of(Work("monitor"), "Drops out above").ShouldBe(272.6, 0.001);
        Of(Work("motor-load", """{"volts":320}"""), "Torque that is left at these volts").ShouldBe(64, 0.001);
    }

    [Fact]
    public void Unlike_windings_are_told_and_what_is_not_guaranteed_is_said()
    {
        Work("winding-ohms", """{"first":0.6,"second":1.75,"third":1.7}""").Says.ShouldContain(s => s.StartsWith("Not alike"));
        Work("winding-ohms").Says.ShouldContain(s => s.StartsWith("Alike"));
        Work("coil-pull-in").Says.ShouldContain(s => s.Contains("not guaranteed"));
        Work("transformer-size").Says.ShouldContain(s => s.Contains("100 VA"));
        Work("insulation", """{"megohms":2,"celsius":40}""").Says.ShouldContain(s => s.StartsWith("Below 5"));
    }

    /// <summary>The capacitance of a cable that holds a coil, by the rule at 60 Hz: 417 instead of 500 (handbook rule, from memory).</summary>
    [Fact]
    public void At_sixty_hertz_a_shorter_cable_holds_the_coil() =>
        (Work("cable-holds-coil", """{"hertz":60}""").Value / Work("cable-holds-coil").Value).ShouldBe(417.0 / 500, 0.001);

    /// <summary>Defaults make sense, the formula has its numbers in it, and every sum says where its rule comes from.</summary>
    [Fact]
    public void Every_sum_works_with_its_defaults_and_shows_its_formula()
    {
        SumCatalogue.All.Length.ShouldBeGreaterThan(15);
        foreach (var sum in SumCatalogue.All)
        {
            sum.Source.ShouldNotBeEmpty();
            sum.Given.ShouldAllBe(g => g.Label.Length > 0);
            var result = Work(sum.Id);
            result.Lines.ShouldAllBe(l => double.IsFinite(l.Value) && l.Formula.Length > 0, sum.Id);
        }
    }

    [Theory]
    [InlineData("full-load-current", """{"volts":0}""", "more than 0")]
    [InlineData("full-load-current", """{"cosPhi":1.4}""", "goes from 0.1 to 1")]
    [InlineData("motor-load", """{"rpm":1600}""", "driven by its load")]
    [InlineData("motor-load", """{"ratedRpm":1500}""", "less than the speed of its field")]
    [InlineData("field-speed", """{"poles":5}""", "in pairs")]
    [InlineData("copper-warm", """{"coldOhms":"warm"}""", "not understood")]
    [InlineData("run-capacitor", """{"colour":3}""", "not understood")]
    [InlineData("earth-loop", """{"curve":"z"}""", "not understood")]
    [InlineData("teapot", "{}", "no such sum")]
    public void Nonsense_is_refused_in_a_sentence(string sum, string given, string says) =>
        Should.Throw<RefusedException>(() => Work(sum, given)).Message.ShouldContain(says);
}
