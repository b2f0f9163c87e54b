using Fehler.Core.Devices;
using Fehler.Core.Options;

namespace Fehler.Core.Families;

/// <summary>What can be chosen of every starter, whatever its family.</summary>
public abstract record StarterOptions
{
    public required string Tag { get; init; }
    public required string Title { get; init; }
    public string Area { get; init; } = "";
    public string Enclosure { get; init; } = "";
    public string Drawing { get; init; } = "";

    [Option("Supply", "Earthing of the supply")]
    public SupplySystem System { get; init; }

    [Option("Supply", "Voltage phase to phase", Unit = "V", Minimum = 100, Maximum = 1000)]
    public double LineVolts { get; init; } = 400;

    [Option("Supply", "Frequency", Unit = "Hz", Minimum = 16, Maximum = 400)]
    public double Frequency { get; init; } = 50;

    [Option("Protection", "Motor circuit")]
    public MotorProtection Protection { get; init; }

    [Option("Control", "Control supply")]
    public ControlSupply Control { get; init; }

    [Option("Control", "Taken from", Help = "Line to neutral: the first phase named and the neutral.")]
    public ControlPhases ControlPhases { get; init; }

    [Option("Control", "Control voltage of a transformer or DC supply", Unit = "V", Minimum = 12, Maximum = 240)]
    public double ControlVolts { get; init; }

    [Option(
        "Control",
        "Earthing of a transformer or DC supply",
        Help = "Unearthed: the first earth fault is silent, the second may defeat every Stop."
    )]
    public ControlEarthing Earthing { get; init; }

    [Option("Control", "Protection of the control circuit")]
    public ControlProtection ControlProtection { get; init; } = ControlProtection.Fuse;

    [Option(
        "Control",
        "Overload contact",
        Help = "Electrically one series path. In the return an earth fault between coil and contact bypasses it."
    )]
    public OverloadContactPlace OverloadContact { get; init; } = OverloadContactPlace.BeforeCoil;

    [Option("Control", "Emergency stop")]
    public bool EmergencyStop { get; init; } = true;

    [Option("Add-ons", "Permissive contacts")]
    public Permissive Permissive { get; init; }

    [Option("Add-ons", "Voltage-monitoring relay")]
    public bool VoltageMonitor { get; init; }

    [Option("Add-ons", "The monitoring relay watches the neutral too")]
    public bool MonitorNeutral { get; init; }

    [Option("Add-ons", "The monitoring relay has an indicator for each cause")]
    public bool MonitorPerCause { get; init; }

    [Option("Add-ons", "Emergency stop also trips the breaker by a shunt release")]
    public bool ShuntTrip { get; init; }

    [Option("Add-ons", "Local isolator at the motor")]
    public bool LocalIsolator { get; init; }

    [Option("Lamps", "Lamp: running")]
    public bool RunLamp { get; init; } = true;

    [Option("Lamps", "Lamp: tripped")]
    public bool TripLamp { get; init; } = true;

    [Option("Lamps", "Lamp: control supply on")]
    public bool PowerLamp { get; init; }

    [Option("Lamps", "Lamp: stopped")]
    public bool StopLamp { get; init; }

    [Option("Lamps", "Filament instead of LED lamps")]
    public bool FilamentLamps { get; init; }

    [Option("Motor", "Rated power", Unit = "kW", Minimum = 0.05, Maximum = 500)]
    public double MotorKilowatts { get; init; } = 4;

    [Option("Motor", "Nameplate current; 0: about what a motor of this power takes", Unit = "A", Maximum = 1000)]
    public double MotorAmps { get; init; } = 8.1;

    [Option("Motor", "Power factor", Minimum = 0.4, Maximum = 0.99)]
    public double MotorCosPhi { get; init; } = 0.82;

    [Option("Motor", "Speed", Unit = "1/min", Minimum = 100, Maximum = 3600)]
    public double MotorRpm { get; init; } = 1440;

    [Option("Motor", "Windings in delta")]
    public bool MotorDelta { get; init; }

    [Option("Motor", "Load over rated torque", Maximum = 3)]
    public double Load { get; init; } = 0.7;

    [Option("Motor", "Takes to start", Unit = "s", Maximum = 120, Help = "Some 1 s for a pump or conveyor, 5 to 20 s for a fan or saw.")]
    public double StartSeconds { get; init; } = 1;

    [Option("Motor", "Runs down in", Unit = "s", Maximum = 600)]
    public double CoastSeconds { get; init; }

    [Option("Places", "Name of the field station")]
    public string StationName { get; init; } = "Field station";

    [Option("Places", "Cable to the field station", Unit = "m", Minimum = 1, Maximum = 3000)]
    public double StationMetres { get; init; } = 20;

    [Option("Places", "Cable to the motor", Unit = "m", Minimum = 1, Maximum = 3000)]
    public double MotorMetres { get; init; } = 25;
}
