using System.Globalization;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Trade;

namespace Fehler.Core.Tests.Trade;

/// <summary>The sums against rows of published tables; each from memory, none of them written by this project.</summary>
public class HandbookTests
{
    private static SumResult Work(string sum, string given) => SumCatalogue.Read(sum, JsonDocument.Parse(given).RootElement).Work();

    private static string N(double value) => value.ToString(CultureInfo.InvariantCulture);

    /// <summary>IEC 60228 table 1, solid copper at 20 °C, greatest resistance in ohm per km; common practice reckons a little below it.</summary>
    [Theory]
    [InlineData(0.75, 24.5)]
    [InlineData(1, 18.1)]
    [InlineData(1.5, 12.1)]
    [InlineData(2.5, 7.41)]
    [InlineData(4, 4.61)]
    [InlineData(6, 3.08)]
    [InlineData(10, 1.83)]
    [InlineData(16, 1.15)]
    [InlineData(25, 0.727)]
    [InlineData(35, 0.524)]
    [InlineData(50, 0.387)]
    public void Copper_has_the_resistance_of_its_section(double squareMillimetres, double ohmsPerKilometre) =>
        Conductor.OhmsPerKilometre(squareMillimetres).ShouldBe(ohmsPerKilometre, 0.06 * ohmsPerKilometre);

    /// <summary>
    /// NEC table 430.250, 460 V: horsepower and full-load current. The table is on the safe side of a usual motor (efficiency and power
    /// factor as NEMA premium motors of that size have them).
    /// </summary>
    [Theory]
    [InlineData(2, 3.4, 0.83, 0.77)]
    [InlineData(3, 4.8, 0.85, 0.79)]
    [InlineData(5, 7.6, 0.875, 0.82)]
    [InlineData(7.5, 11, 0.885, 0.83)]
    [InlineData(10, 14, 0.895, 0.84)]
    [InlineData(15, 21, 0.91, 0.84)]
    [InlineData(20, 27, 0.91, 0.85)]
    [InlineData(25, 34, 0.924, 0.85)]
    [InlineData(30, 40, 0.924, 0.86)]
    [InlineData(40, 52, 0.93, 0.86)]
    [InlineData(50, 65, 0.93, 0.87)]
    [InlineData(75, 96, 0.941, 0.87)]
    [InlineData(100, 124, 0.945, 0.88)]
    public void Full_load_current_comes_near_the_table(double horsepower, double tableAmps, double efficiency, double cosPhi) =>
        Work(
            "full-load-current",
            $$"""{"horsepower":{{N(horsepower)}},"volts":460,"efficiency":{{N(efficiency)}},"cosPhi":{{N(cosPhi)}}}"""
        )
            .Value.ShouldBe(tableAmps, 0.15 * tableAmps);

    /// <summary>NEMA MG 1 figure 14-1: what is left of a motor's power at unlike volts.</summary>
    [Theory]
    [InlineData(0, 1)]
    [InlineData(1, 1)]
    [InlineData(2, 0.95)]
    [InlineData(3, 0.88)]
    [InlineData(4, 0.82)]
    [InlineData(5, 0.75)]
    public void Derating_follows_the_curve(double percent, double left)
    {
        // One line off by twice the share, the others by it: the mean stays.
        var (low, high) = (400 * (1 - percent / 100), 400 * (1 + percent / 200));
        Unbalance.Of(low, high, high).Derating!.Value.ShouldBe(left, 0.006);
    }

    /// <summary>IEC 60898-1: B opens at once at 5, C at 10, D at 20 times its rated current; 230 V to earth.</summary>
    [Theory]
    [InlineData("b", 16, 80, 2.875)]
    [InlineData("c", 16, 160, 1.4375)]
    [InlineData("d", 16, 320, 0.71875)]
    [InlineData("b", 10, 50, 4.6)]
    [InlineData("c", 32, 320, 0.71875)]
    public void The_greatest_loop_is_what_opens_the_breaker_at_once(string curve, double rated, double needed, double greatestOhms)
    {
        SumResult With(double ohms) =>
            Work("earth-loop", $$"""{"loopOhms":{{N(ohms)}},"breakerAmps":{{N(rated)}},"curve":"{{curve}}","voltsToEarth":230}""");
        With(0.99 * greatestOhms).Lines.Single(l => l.Name == "Needed to open at once").Value.ShouldBe(needed);
        With(0.99 * greatestOhms).Says.ShouldContain(s => s.StartsWith("Enough"));
        With(1.01 * greatestOhms).Says.ShouldContain(s => s.StartsWith("Not enough"));
    }

    /// <summary>IEC 60947-4-1: at 1.5 times its setting, warm, class 10 trips within 4 min, class 20 within 8, class 30 within 12.</summary>
    [Theory]
    [InlineData(10, 240)]
    [InlineData(20, 480)]
    [InlineData(30, 720)]
    public void A_warm_relay_trips_within_the_gate_at_one_and_a_half_times(double tripClass, double within) =>
        TripCurve.Time(1.5, tripClass, heat: 1).Value.ShouldBeLessThan(within);

    /// <summary>
    /// IEC 60947-4-1: 1.05 times for two hours without a trip, then 1.2 times with one within two hours; NEMA ICS 2: 6 times within the
    /// class.
    /// </summary>
    [Theory]
    [InlineData(10)]
    [InlineData(20)]
    [InlineData(30)]
    public void A_relay_carries_a_little_more_than_its_setting_and_no_more(double tripClass)
    {
        TripCurve.Time(1.05, tripClass).IsFinite.ShouldBeFalse();
        TripCurve.Time(1.2, tripClass, heat: 1.05 * 1.05).Value.ShouldBeInRange(1, 7200);
        TripCurve.Time(6, tripClass).Value.ShouldBeLessThanOrEqualTo(tripClass);
    }

    [Theory]
    [InlineData(1.3, 2)]
    [InlineData(2, 3)]
    [InlineData(3, 7.2)]
    public void More_current_trips_sooner_and_a_slower_class_later(double less, double more)
    {
        TripCurve.Time(more, 10).ShouldBeLessThan(TripCurve.Time(less, 10));
        TripCurve.Time(less, 20).Value.ShouldBe(2 * TripCurve.Time(less, 10).Value, 1e-6);
        TripCurve.Time(less, 10, heat: 0.5).ShouldBeLessThan(TripCurve.Time(less, 10));
    }

    /// <summary>IEC 60364-5-52 table B.52.4, method B2, three loaded cores, PVC, 30 °C.</summary>
    [Theory]
    [InlineData(1.5, 15)]
    [InlineData(2.5, 20)]
    [InlineData(4, 27)]
    [InlineData(6, 34)]
    [InlineData(10, 46)]
    [InlineData(16, 62)]
    [InlineData(25, 80)]
    public void A_cable_carries_what_the_table_says(double squareMillimetres, double amps) =>
        MotorCable.Carries(squareMillimetres).ShouldBe(amps);

    [Fact]
    public void The_section_for_a_motor_carries_it_and_the_next_thinner_would_not_or_is_the_thinnest()
    {
        for (var amps = 1.0; amps < 300; amps *= 1.15)
        {
            var section = MotorCable.SectionFor(amps);
            MotorCable.Carries(section).ShouldBeGreaterThanOrEqualTo(amps);
            (section == 2.5 || MotorCable.Carries(0.7 * section) < 1.1 * amps).ShouldBeTrue($"{amps} A: {section} mm²");
        }
    }

    /// <summary>IEEE 43: insulation halves for every 10 K warmer.</summary>
    [Theory]
    [InlineData(0, 16)]
    [InlineData(10, 8)]
    [InlineData(20, 4)]
    [InlineData(30, 2)]
    [InlineData(40, 1)]
    [InlineData(50, 0.5)]
    public void Insulation_halves_for_ten_kelvin(double celsius, double overForty) =>
        InsulationAtForty.AtForty(overForty, celsius).ShouldBe(1, 1e-9);

    /// <summary>120 f / p, any motor's plate.</summary>
    [Theory]
    [InlineData(2, 50, 3000)]
    [InlineData(4, 50, 1500)]
    [InlineData(6, 50, 1000)]
    [InlineData(8, 50, 750)]
    [InlineData(2, 60, 3600)]
    [InlineData(4, 60, 1800)]
    [InlineData(8, 60, 900)]
    public void Field_speed_is_a_plates(int poles, int hertz, double rpm) =>
        Work("field-speed", $$"""{"poles":{{poles}},"hertz":{{hertz}}}""").Value.ShouldBe(rpm);

    /// <summary>Every sum says where its rule comes from, and refuses what makes no sense in a sentence instead of giving a number.</summary>
    [Fact]
    public void No_sum_gives_a_number_for_nonsense()
    {
        foreach (var sum in SumCatalogue.All)
        {
            sum.Source.Length.ShouldBeGreaterThan(5, sum.Id);
            foreach (var given in sum.Given.Where(g => g.Type is "number" or "whole"))
            {
                foreach (var nonsense in new[] { "-1000000", "1e300" })
                {
                    try
                    {
                        var result = Work(sum.Id, $$"""{"{{given.Name}}":{{nonsense}}}""");
                        result.Lines.ShouldAllBe(l => double.IsFinite(l.Value), $"{sum.Id} with {given.Name} {nonsense}");
                    }
                    catch (RefusedException e)
                    {
                        e.Message.Length.ShouldBeGreaterThan(10, $"{sum.Id} with {given.Name} {nonsense}");
                    }
                }
            }
        }
    }

    /// <summary>What is drawn is finite, grows across, and is never below nothing.</summary>
    [Fact]
    public void Every_curve_can_be_drawn()
    {
        var drawn = SumCatalogue.All.Select(s => Work(s.Id, "{}").Plot).OfType<SumPlot>().ToList();
        drawn.Count.ShouldBeGreaterThanOrEqualTo(3);
        foreach (var curve in drawn.SelectMany(p => p.Curves))
        {
            curve.Points.ShouldAllBe(p => double.IsFinite(p.Across) && double.IsFinite(p.Up) && p.Up >= 0, curve.Name);
            curve.Points.Select(p => p.Across).ShouldBeInOrder(SortDirection.Ascending, curve.Name);
        }
    }
}
