using Fehler.Core.Devices;

namespace Fehler.Core.Tests.Devices;

/// <summary>Trip times against IEC 60947-4-1 (from memory).</summary>
public class OverloadRelayTests
{
    [Theory]
    [InlineData(10, 4, 10)]
    [InlineData(20, 6, 20)]
    [InlineData(30, 9, 30)]
    public void Trips_within_its_class_at_7_2_times_the_setting_cold(double tripClass, double least, double most) =>
        ThermalTrip.TimeToTrip(7.2, 7.2, tripClass, true).Value.ShouldBeInRange(least, most);

    [Fact]
    public void Does_not_trip_at_1_05_and_trips_within_two_hours_at_1_2()
    {
        ThermalTrip.TimeToTrip(1.05, 1.05, 10, true).Value.ShouldBe(double.PositiveInfinity);
        ThermalTrip.TimeToTrip(1.2, 1.2, 10, true).Value.ShouldBeLessThan(7200);
    }

    [Fact]
    public void With_a_phase_lost_a_sensitive_relay_trips_at_1_15_and_an_insensitive_one_at_1_32()
    {
        ThermalTrip.TimeToTrip(1.15, 0, 10, true).Value.ShouldBeLessThan(7200);
        ThermalTrip.TimeToTrip(1.15, 0, 10, false).Value.ShouldBe(double.PositiveInfinity);
        ThermalTrip.TimeToTrip(1.32, 0, 10, false).Value.ShouldBeLessThan(7200);
    }

    [Fact]
    public void Trips_within_four_minutes_at_1_5_times_in_class_10() =>
        ThermalTrip.TimeToTrip(1.5, 1.5, 10, true).Value.ShouldBeLessThan(240);
}
