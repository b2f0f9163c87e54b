using Fehler.Core.Circuits;
using Fehler.Core.Devices;
using Fehler.Core.Options;
using static Fehler.Core.Families.Wiring;

namespace Fehler.Core.Families;

/// <summary>How the stations are cabled.</summary>
public enum StationCabling
{
    [Word("three wires, station to station")]
    Chained,

    [Word("home run to the terminal strip")]
    HomeRun,
}

/// <summary>A motor that is started and stopped from several places: all Stops in series, all Starts in parallel.</summary>
[Family("multi-station", "Several stations", "All Stops in series, all Starts in parallel; three wires to the field (common practice).")]
public sealed record MultiStation : Starter
{
    [Option("Starting", "Stations", Minimum = 1, Maximum = 12)]
    public int Stations { get; init; } = 3;

    [Option("Starting", "Stops stand")]
    public StopPlace StopPlace { get; init; }

    [Option(
        "Starting",
        "Link in the panel that takes the last station out",
        Help = "Bridges its Stop while the station is taken away. Its Stop does nothing then: label it."
    )]
    public bool RemoteLink { get; init; }

    [Option("Starting", "Cabling", Help = "Station to station needs fewer cores; a home run makes fault finding easier.")]
    public StationCabling Cabling { get; init; }

    [Option("Places", "Cable from one station to the next", Unit = "m", Minimum = 1, Maximum = 1000)]
    public double BetweenMetres { get; init; } = 15;

    private protected override FieldWiring FieldWiring => Cabling == StationCabling.Chained ? FieldWiring.Chained : FieldWiring.HomeRun;

    private protected override void CheckOptions()
    {
        base.CheckOptions();
        if (Stations is < 1 or > 12)
        {
            throw new CircuitException("options", "Give one to twelve stations.");
        }

        if (RemoteLink && Stations < 2)
        {
            throw new CircuitException(
                "options",
                "A link that takes a station out needs a second station: its Stop would be the only one."
            );
        }
    }

    private protected override IEnumerable<Location> Locations()
    {
        yield return base.Locations().First();
        for (var n = 1; n <= Stations; n++)
        {
            yield return new Location(
                n == 1 ? "station" : $"station{n}",
                $"{StationName} {n}",
                LocationType.FieldStation,
                StationMetres + (n - 1) * BetweenMetres
            );
        }

        yield return base.Locations().Last();
    }

    private protected override IEnumerable<Device?> OwnDevices()
    {
        yield return Contactor("KM1", "Motor contactor", "13-14", RunLamp ? "53-54" : null, StopLamp ? "61-62" : null);
        yield return HasOverloadRelay ? Overload() : null;
        for (var n = 1; n <= Stations; n++)
        {
            var place = n == 1 ? "station" : $"station{n}";
            yield return Device($"S{n}1", "push-button", place, $"Stop {n}", ("contacts", Contacts("21-22")));
            yield return Device($"S{n}2", "push-button", place, $"Start {n}");
        }

        yield return RemoteLink ? Device("XL1", "link", "panel", "Takes the last station out") : null;
        yield return RunLamp ? Lamp("H1", "Running", "green") : null;
        yield return StopLamp ? Lamp("H4", "Stopped", "red") : null;
        yield return LocalIsolator ? Device("Q3", "isolator", "motor", "Isolator at the motor") : null;
        yield return Motor();
    }

    private protected override IEnumerable<CircuitPath> PowerPaths()
    {
        yield return Power(
            "Motor",
            Incoming,
            [],
            Series(PowerHead, ThreePoles("KM1"), If(HasOverloadRelay, ThreePoles("F2")), If(LocalIsolator, ThreePoles("Q3")), "M1:U,V,W")
        );
        yield return EarthPath();
    }

    private protected override IEnumerable<CircuitPath> ControlPaths()
    {
        var stations = Enumerable.Range(1, Stations).ToList();
        var command = Series(
            SafetyContacts,
            Started(
                StopPlace,
                Series(stations.Select(n => n == Stations && RemoteLink ? Parallel($"S{n}1:21-22", "XL1:1-2") : Series($"S{n}1:21-22"))),
                Parallel(stations.Select(n => $"S{n}2:13-14"), "KM1:13-14")
            ),
            OverloadAt(OverloadContactPlace.BeforeCoil),
            "KM1:A1-A2",
            OverloadAt(OverloadContactPlace.AfterCoil)
        );
        yield return Wiring.Control(
            "Control",
            ControlFrom,
            [Return],
            Series(
                ControlHead,
                Parallel(command, If(RunLamp, Series("KM1:53-54", "H1:X1-X2")), If(StopLamp, Series("KM1:61-62", "H4:X1-X2")), CommonRungs)
            )
        );
    }
}
