using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>How wires run between the panel and the places in the field.</summary>
public enum FieldWiring
{
    /// <summary>From the panel's strip to each place; between two places directly.</summary>
    Usual,

    /// <summary>From station to station.</summary>
    Chained,

    /// <summary>Every end comes back to the panel's strip.</summary>
    HomeRun,
}

/// <summary>
/// Turns nets into conductors. Within one place terminals are chained in reading order; between places the wire
/// goes over a terminal strip where there is one. A route given by the description replaces this for its net.
/// </summary>
internal static class Routing
{
    public static ImmutableArray<Conductor> Derive(
        ImmutableArray<Net> nets,
        ImmutableArray<Location> locations,
        ImmutableArray<Device> devices,
        double powerSquareMillimetres,
        FieldWiring wiring
    )
    {
        var conductors = ImmutableArray.CreateBuilder<Conductor>();
        foreach (var net in nets)
        {
            var wire = net.Wire;
            var section = net.IsPower ? powerSquareMillimetres : Conductor.DefaultSquareMillimetres;
            var number = 1;
            foreach (var (from, to, metres) in Route(net, locations, devices, wiring))
            {
                conductors.Add(new Conductor($"{wire}.{number++}", wire, from, to, metres, section));
            }
        }

        return conductors.ToImmutable();
    }

    private static IEnumerable<(TerminalId From, TerminalId To, double Metres)> Route(
        Net net,
        ImmutableArray<Location> locations,
        ImmutableArray<Device> devices,
        FieldWiring wiring
    )
    {
        string PlaceOf(TerminalId t) => devices.First(d => d.Tag == t.Device).Location;
        Location At(string id) => locations.First(l => l.Id == id);
        // From station to station the cable goes to the nearest first, whatever the order of reading.
        var byPlace = net.Terminals.GroupBy(PlaceOf).ToList();
        if (wiring == FieldWiring.Chained)
        {
            byPlace = [.. byPlace.OrderBy(p => At(p.Key).Type == LocationType.FieldStation ? At(p.Key).CableMetres : 0)];
        }

        foreach (var place in byPlace)
        {
            var within = Location.MetresBetween(At(place.Key), At(place.Key));
            foreach (var (a, b) in place.Zip(place.Skip(1)))
            {
                yield return (a, b, within);
            }
        }

        if (byPlace.Count < 2)
        {
            yield break;
        }

        Location Of(IGrouping<string, TerminalId> place) => At(place.Key);
        var home = byPlace.FirstOrDefault(p => Of(p).Type == LocationType.Enclosure);
        var panel = home?.Key ?? locations.FirstOrDefault(l => l.Type == LocationType.Enclosure)?.Id;
        var strip = devices.FirstOrDefault(d => d.Kind.IsStrip && d.Location == panel);
        if (home is null && (wiring != FieldWiring.HomeRun || strip is null))
        {
            home = byPlace[0];
            strip = null;
        }

        if (home is null)
        {
            // A home run: both ends of a wire from station to station come to the strip.
            foreach (var place in byPlace)
            {
                yield return (strip!.Terminal(net.Wire), place.First(), Of(place).MetresFromPanel);
            }

            yield break;
        }

        var hub = home.Last();
        if (strip is not null)
        {
            var clamp = strip.Terminal(net.Wire);
            yield return (hub, clamp, Location.MetresBetween(Of(home), Of(home)));
            hub = clamp;
        }

        var (end, from) = (hub, Of(home));
        foreach (var place in byPlace.Where(p => p != home))
        {
            if (wiring != FieldWiring.Chained || Of(place).Type != LocationType.FieldStation)
            {
                yield return (hub, place.First(), Of(place).MetresFromPanel);
                continue;
            }

            yield return (end, place.First(), Location.MetresBetween(from, Of(place)));
            (end, from) = (place.Last(), Of(place));
        }
    }
}
