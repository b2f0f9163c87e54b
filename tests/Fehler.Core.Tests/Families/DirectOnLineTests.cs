using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Families;

namespace Fehler.Core.Tests.Families;

public class DirectOnLineTests
{
    [Theory]
    [InlineData(400, ControlSupply.LineToNeutral, 230)]
    [InlineData(400, ControlSupply.LineToLine, 400)]
    [InlineData(208, ControlSupply.LineToNeutral, 120)]
    [InlineData(480, ControlSupply.LineToLine, 480)]
    public void The_coil_is_for_the_voltage_the_control_gets(double line, ControlSupply control, double coil) =>
        new DirectOnLine
        {
            Tag = "C",
            Title = "Coil",
            LineVolts = line,
            Control = control,
        }
            .Build()
            .Device("KM1")
            .Given("coilVolts")
            .Number!.Value.ShouldBe(coil, 1);

    /// <summary>IEC: the dial is set to the nameplate current (common practice).</summary>
    [Fact]
    public void The_overload_is_set_to_the_nameplate_current() =>
        new DirectOnLine
        {
            Tag = "O",
            Title = "Overload",
            MotorAmps = 11.2,
        }
            .Build()
            .Device("F2")
            .Given("settingAmps")
            .Number!.Value.ShouldBe(11.2);

    [Theory]
    [InlineData(OverloadContactPlace.First, "F2:95", "S0:11")]
    [InlineData(OverloadContactPlace.BeforeCoil, "S0:11", "F2:95")]
    public void The_overload_contact_stands_where_it_was_asked_for(OverloadContactPlace place, string first, string second)
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Place",
            OverloadContact = place,
        }.Build();
        var order = circuit
            .Paths.First(p => p.Type == PathType.Control)
            .Expression.Parts()
            .SelectMany(p => p.In.Select(t => $"{p.Device}:{t}"))
            .ToList();
        order.IndexOf(first).ShouldBeLessThan(order.IndexOf(second));
    }

    [Fact]
    public void In_the_return_it_stands_between_coil_and_neutral()
    {
        var circuit = new DirectOnLine
        {
            Tag = "P",
            Title = "Place",
            OverloadContact = OverloadContactPlace.AfterCoil,
        }.Build();
        circuit.WireAt(TerminalId.Parse("KM1:A2")).ShouldBe(circuit.WireAt(TerminalId.Parse("F2:95")));
        circuit.WireAt(TerminalId.Parse("F2:96")).ShouldBe("N");
    }

    /// <summary>Electrically one series path: wherever the contact stands, a trip stops the motor.</summary>
    [Theory]
    [InlineData(OverloadContactPlace.First)]
    [InlineData(OverloadContactPlace.BeforeCoil)]
    [InlineData(OverloadContactPlace.AfterCoil)]
    public void A_trip_stops_the_motor_wherever_the_contact_stands(OverloadContactPlace place)
    {
        var simulator = Starters.Healthy(
            new DirectOnLine
            {
                Tag = "P",
                Title = "Place",
                OverloadContact = place,
            }.Build()
        );
        simulator.Do(simulator.Running().State, new Step("F2", "tripped")).Appearances["M1"].ShouldBe("stopped");
    }

    [Fact]
    public void Options_left_out_leave_their_devices_out()
    {
        var tags = new DirectOnLine
        {
            Tag = "N",
            Title = "Plain",
            ControlProtection = ControlProtection.None,
            EmergencyStop = false,
            RunLamp = false,
            TripLamp = false,
        }
            .Build()
            .Devices.Select(d => d.Tag);
        tags.ShouldBe(["INC", "Q1", "F1", "KM1", "F2", "S1", "S2", "M1", "X1"]);
    }

    [Theory]
    [InlineData(1440, 50, 1500)]
    [InlineData(2890, 50, 3000)]
    [InlineData(960, 50, 1000)]
    [InlineData(1745, 60, 1800)]
    public void Synchronous_speed_is_the_next_above_the_nameplate_speed(double rpm, double hertz, double synchronous) =>
        new DirectOnLine
        {
            Tag = "S",
            Title = "Speed",
            MotorRpm = rpm,
            Frequency = hertz,
        }
            .Build()
            .Device("M1")
            .Given("synchronousRpm")
            .Number!.Value.ShouldBe(synchronous);

    [Fact]
    public void Every_parameter_is_stated_so_that_another_program_needs_no_defaults()
    {
        foreach (var device in Starters.LineToNeutral.Devices)
        {
            device.Parameters.Keys.ShouldBe(device.Kind.Parameters.Select(p => p.Name), ignoreOrder: true, device.Tag);
        }

        Starters.LineToNeutral.Device("KM1").Given("coilOhms").Number!.Value.ShouldBeGreaterThan(0);
        Starters.LineToNeutral.Device("M1").Given("statorOhms").Number!.Value.ShouldBeGreaterThan(0);
        DeviceKinds.All.SelectMany(k => k.Parameters).ShouldAllBe(p => p.Description.Length > 5);
    }
}
