using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;

namespace Fehler.Core.Families;

/// <summary>Where the overload's break contact stands in the control path; electrically one series path.</summary>
public enum OverloadContactPlace { First, BeforeCoil, AfterCoil }

/// <summary>Where the control circuit returns: to the neutral or to a second phase.</summary>
public enum ControlSupply { LineToNeutral, LineToLine }

/// <summary>
/// The direct-on-line starter with three-wire control: Stop in series, Start with the retaining contact in parallel,
/// overload contact in one of its three places.
/// </summary>
public sealed record DirectOnLine
{
    public required string Tag { get; init; }
    public required string Title { get; init; }
    public string Area { get; init; } = "";
    public string Enclosure { get; init; } = "";
    public string Drawing { get; init; } = "";
    public string StationName { get; init; } = "Field station";
    public double StationMetres { get; init; } = 20;
    public double MotorMetres { get; init; } = 25;
    public double LineVolts { get; init; } = 400;
    public double Frequency { get; init; } = 50;
    public ControlSupply Control { get; init; } = ControlSupply.LineToNeutral;
    public OverloadContactPlace OverloadContact { get; init; } = OverloadContactPlace.BeforeCoil;
    public bool ControlFuse { get; init; } = true;
    public bool BreakerInsteadOfFuses { get; init; }
    public bool EmergencyStop { get; init; } = true;
    public bool RunLamp { get; init; } = true;
    public bool TripLamp { get; init; } = true;
    public string LampType { get; init; } = "led";
    public double MotorKilowatts { get; init; } = 4;
    public double MotorAmps { get; init; } = 8.1;
    public double MotorCosPhi { get; init; } = 0.82;
    public double MotorRpm { get; init; } = 1440;
    public string MotorConnection { get; init; } = "star";
    public double Load { get; init; } = 0.7;

    private double CoilVolts => Control == ControlSupply.LineToNeutral ? Math.Round(LineVolts / Math.Sqrt(3) / 10) * 10 : LineVolts;

    public Circuit Build() => new CircuitBuilder
    {
        Tag = Tag,
        Title = Title,
        Area = Area,
        Enclosure = Enclosure,
        Drawing = Drawing,
        PowerSquareMillimetres = MotorAmps <= 16 ? 2.5 : MotorAmps <= 32 ? 6 : 16,
        Locations =
        [
            new Location("panel", Enclosure.Length > 0 ? Enclosure : "Panel", LocationType.Enclosure, 0),
            new Location("station", StationName, LocationType.FieldStation, StationMetres),
            new Location("motor", "Motor", LocationType.Motor, MotorMetres),
        ],
        Devices = [.. Devices()],
        Paths = [PowerPath(), EarthPath(), ControlPath()],
        Reference = Control == ControlSupply.LineToNeutral ? new TerminalId("INC", "N") : new TerminalId(Protection, "4"),
    }.Build();

    private const string Protection = "F1";

    private IEnumerable<Device> Devices()
    {
        yield return Make("INC", "supply", "panel", "Incoming supply", ("lineVolts", LineVolts), ("frequency", Frequency));
        yield return Make("Q1", "isolator", "panel", "Panel isolator", ("ratedAmps", Math.Max(25, Math.Ceiling(MotorAmps * 2))));
        yield return BreakerInsteadOfFuses
            ? Make(Protection, "circuit-breaker", "panel", "Motor circuit protection", ("ratedAmps", FuseRating))
            : Make(Protection, "fuse", "panel", "Motor fuses", ("poles", 3), ("ratedAmps", FuseRating));
        if (ControlFuse)
        {
            yield return Make("F3", "fuse", "panel", "Control fuse", ("poles", 1), ("ratedAmps", 2));
        }

        yield return Make("KM1", "contactor", "panel", "Motor contactor", ("coilVolts", CoilVolts), ("ratedAmps", Math.Max(9, Math.Ceiling(MotorAmps * 1.2))),
            ("contacts", ParameterValue.FromWords(RunLamp ? ["13-14", "53-54"] : ["13-14"])));
        yield return Make("F2", "overload-relay", "panel", "Motor overload", ("settingAmps", MotorAmps));
        if (EmergencyStop)
        {
            yield return Make("S0", "emergency-stop", "station", "Emergency stop");
        }

        yield return Make("S1", "push-button", "station", "Stop", ("contacts", ParameterValue.FromWords(["21-22"])));
        yield return Make("S2", "push-button", "station", "Start");
        if (RunLamp)
        {
            yield return Make("H1", "pilot-lamp", "panel", "Running", ("volts", CoilVolts), ("lamp", LampType), ("colour", "green"));
        }

        if (TripLamp)
        {
            yield return Make("H2", "pilot-lamp", "panel", "Overload tripped", ("volts", CoilVolts), ("lamp", LampType), ("colour", "yellow"));
        }

        yield return Make("X1", "terminal-strip", "panel", "Panel terminals");
        yield return Make("M1", "motor", "motor", Title, ("kilowatts", MotorKilowatts), ("volts", LineVolts), ("amps", MotorAmps), ("cosPhi", MotorCosPhi),
            ("rpm", MotorRpm), ("synchronousRpm", SynchronousRpm), ("connection", MotorConnection), ("load", Load));
    }

    /// <summary>Fuses of about two to two and a half times the motor's current carry its start (common practice).</summary>
    private double FuseRating => new double[] { 6, 10, 16, 20, 25, 32, 40, 50, 63, 80, 100, 125, 160 }.First(r => r >= MotorAmps * 1.9);

    private double SynchronousRpm => new double[] { 3000, 1500, 1000, 750 }.Select(r => r * Frequency / 50).Last(r => r > MotorRpm);

    private static CircuitPath Path(string name, PathType type, string[] from, string[] to, PathExpression path) =>
        new(name, type, [.. from.Select(TerminalId.Parse)], [.. to.Select(TerminalId.Parse)], path);

    private static CircuitPath PowerPath() => Path("Motor", PathType.Power, ["INC:L1", "INC:L2", "INC:L3"], [],
        new InSeries([Part.Parse("Q1:1-2,3-4,5-6"), Part.Parse("F1:1-2,3-4,5-6"), Part.Parse("KM1:1-2,3-4,5-6"), Part.Parse("F2:1-2,3-4,5-6"), Part.Parse("M1:U,V,W")]));

    private static CircuitPath EarthPath() => Path("Protective conductor", PathType.Power, ["INC:PE"], [], Part.Parse("M1:PE"));

    private CircuitPath ControlPath()
    {
        var overload = Part.Parse("F2:95-96");
        var coil = new List<PathExpression>();
        if (OverloadContact == OverloadContactPlace.First)
        {
            coil.Add(overload);
        }

        if (EmergencyStop)
        {
            coil.Add(Part.Parse("S0:11-12"));
        }

        coil.Add(Part.Parse("S1:21-22"));
        coil.Add(new InParallel([Part.Parse("S2:13-14"), Part.Parse("KM1:13-14")]));
        if (OverloadContact == OverloadContactPlace.BeforeCoil)
        {
            coil.Add(overload);
        }

        coil.Add(Part.Parse("KM1:A1-A2"));
        if (OverloadContact == OverloadContactPlace.AfterCoil)
        {
            coil.Add(overload);
        }

        var branches = new List<PathExpression> { new InSeries([.. coil]) };
        if (RunLamp)
        {
            branches.Add(new InSeries([Part.Parse("KM1:53-54"), Part.Parse("H1:X1-X2")]));
        }

        if (TripLamp)
        {
            branches.Add(new InSeries([Part.Parse("F2:97-98"), Part.Parse("H2:X1-X2")]));
        }

        PathExpression body = branches.Count > 1 ? new InParallel([.. branches]) : branches[0];
        if (ControlFuse)
        {
            body = new InSeries([Part.Parse("F3:1-2"), body]);
        }

        return Path("Control", PathType.Control, ["F1:2"], [Control == ControlSupply.LineToNeutral ? "INC:N" : "F1:4"], body);
    }

    private static Device Make(string tag, string kind, string location, string function, params (string Name, ParameterValue Value)[] parameters) =>
        new(tag, DeviceKinds.Get(kind), location, parameters.ToImmutableSortedDictionary(p => p.Name, p => p.Value), function);
}
