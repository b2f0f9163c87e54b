using System.Collections.Immutable;

namespace Fehler.Core.Circuits;

/// <summary>
/// Turns nets into conductors. Within one place terminals are chained in reading order; between places the wire
/// goes over a terminal strip where there is one. A route given by the description replaces this for its net.
/// </summary>
internal static class Routing
{
    public static ImmutableArray<Conductor> Derive(
        ImmutableArray<Net> nets, ImmutableArray<Location> locations, ImmutableArray<Device> devices, double powerSquareMillimetres)
    {
        var conductors = ImmutableArray.CreateBuilder<Conductor>();
        foreach (var net in nets)
        {
            var wire = net.Wire;
            var section = net.IsPower ? powerSquareMillimetres : Conductor.DefaultSquareMillimetres;
            var number = 1;
            foreach (var (from, to, metres) in Route(net, locations, devices))
            {
                conductors.Add(new Conductor($"{wire}.{number++}", wire, from, to, metres, section));
            }
        }

        return conductors.ToImmutable();
    }

    private static IEnumerable<(TerminalId From, TerminalId To, double Metres)> Route(
        Net net, ImmutableArray<Location> locations, ImmutableArray<Device> devices)
    {
        string PlaceOf(TerminalId t) => devices.First(d => d.Tag == t.Device).Location;
        var byPlace = net.Terminals.GroupBy(PlaceOf).ToList();
        foreach (var place in byPlace)
        {
            foreach (var (a, b) in place.Zip(place.Skip(1)))
            {
                yield return (a, b, Conductor.DefaultMetres);
            }
        }

        if (byPlace.Count < 2)
        {
            yield break;
        }

        var home = byPlace.FirstOrDefault(p => locations.First(l => l.Id == p.Key).Type == LocationType.Enclosure) ?? byPlace[0];
        var strip = devices.FirstOrDefault(d => d.Kind.IsStrip && d.Location == home.Key);
        var hub = home.Last();
        if (strip is not null)
        {
            var clamp = strip.Terminal(net.Wire);
            yield return (hub, clamp, Conductor.DefaultMetres);
            hub = clamp;
        }

        foreach (var place in byPlace.Where(p => p != home))
        {
            var metres = Math.Max(Conductor.DefaultMetres, locations.First(l => l.Id == place.Key).CableMetres);
            yield return (hub, place.First(), metres);
        }
    }
}
