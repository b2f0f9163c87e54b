using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Trade;

namespace Fehler.Core.Upkeep;

/// <summary>
/// Draws from a job, a bench check or a round what is worth following over the years. What a fault made the meter show is no part of it:
/// currents, volts and trip times count from the last repair on, and a coil or a winding only where it was not repaired afterwards.
/// </summary>
public sealed class SeriesValues
{
    /// <summary>What a cold winding has where nobody wrote its temperature down (common practice).</summary>
    public const double UsualCelsius = 20;

    /// <summary>Values of one set are taken one after the other.</summary>
    private static readonly TimeSpan OneSet = TimeSpan.FromMinutes(30);

    /// <summary>A good supply shows at least this share of its volts between two points that are lines of it.</summary>
    private const double IsLineShare = 0.97;

    private readonly CompiledCircuit _compiled;
    private readonly Circuit _circuit;
    private readonly ImmutableArray<ThreeLinesPlace> _fedPlaces;

    internal SeriesValues(CompiledCircuit compiled)
    {
        (_compiled, _circuit) = (compiled, compiled.Circuit);
        var atRest = new Simulator(compiled.Network).Start().Solution;
        var full = _circuit.Supply.Kind.SourceOf(_circuit.Supply)!.LineVolts;
        _fedPlaces =
        [
            .. compiled.ThreeLines.Places.Where(p =>
                p.Leads(Quantity.Volts).All(l => atRest.Volts(l.From, l.To).Magnitude >= IsLineShare * full.Value)
            ),
        ];
    }

    /// <summary>What a job's journal gives.</summary>
    public IEnumerable<SeriesValue> Of(JobState job)
    {
        var lastRepair = job.Valid.LastOrDefault(e => e is Repair)?.Sequence ?? 0;
        var isFaulty = lastRepair == 0 && job.LastFinding is not null;
        var (working, lifted, set) = ("", 0, new List<Reading>());
        foreach (var entry in job.Valid)
        {
            working = Working(entry) ?? working;
            lifted += entry switch
            {
                WireLifted => 1,
                WireLanded => -1,
                _ => 0,
            };
            var isSound = entry.Sequence >= lastRepair && !isFaulty;
            IEnumerable<SeriesValue> values = entry switch
            {
                _ when job.Void.ContainsKey(entry.Id) => [],
                Reading { Quantity: Quantity.Ohms or Quantity.Insulation } reading when lifted == 0 || reading.Alone => job
                    .Valid.OfType<Repair>()
                    .Any(r => r.Sequence > reading.Sequence && r.Unit == reading.From.Device)
                    ? []
                    : OfDead(reading),
                Reading reading when isSound && lifted == 0 && reading.Held.IsEmpty => OfLive(reading, working, set),
                TripTimed trip when isSound => OfTrip(trip),
                CounterRead counter => OfCounter(counter),
                _ => [],
            };
            foreach (var value in values)
            {
                yield return value;
            }
        }
    }

    /// <summary>What the readings of a round give, taken while <paramref name="working"/> was seen.</summary>
    public IEnumerable<SeriesValue> Of(IEnumerable<JournalEntry> readings, string working)
    {
        var set = new List<Reading>();
        return readings.SelectMany(e =>
            e switch
            {
                Reading { Quantity: Quantity.Ohms or Quantity.Insulation } reading => OfDead(reading),
                Reading reading => OfLive(reading, working, set),
                TripTimed trip => OfTrip(trip),
                CounterRead counter => OfCounter(counter),
                _ => [],
            }
        );
    }

    /// <summary>What runs at the end of a journal, by what was seen; empty for nothing.</summary>
    internal string WorkingAtTheEnd(JobState job) => job.Valid.Select(Working).LastOrDefault(w => w is not null) ?? "";

    /// <summary>Which devices do their work by what an entry says was seen; null where it says nothing of them.</summary>
    private string? Working(JournalEntry entry)
    {
        var seen = entry switch
        {
            OperationSeen operation => operation.Seen,
            FunctionTested { Passed: true } test => _compiled.FunctionTest.Find(test.Step)?.Expected,
            Isolated => ImmutableSortedDictionary<string, string>.Empty,
            _ => null,
        };
        return seen is null ? null : Working(_circuit, seen);
    }

    /// <summary>What stands for a running circuit in a series: "M1 runs".</summary>
    public static string Working(Circuit circuit, IEnumerable<KeyValuePair<string, string>> seen) =>
        string.Join(", ", seen.Where(s => circuit.FindDevice(s.Key)?.Kind.IsWorking(s.Value) == true).Select(s => $"{s.Key} {s.Value}"));

    private IEnumerable<SeriesValue> OfDead(Reading reading)
    {
        if (
            reading.Value is not { Kind: ReadingKind.Number, Number: > 0 and var ohms }
            || !reading.Held.IsEmpty
            || reading.FreeEnd.Length > 0
        )
        {
            yield break;
        }

        var state = reading.Alone ? "by itself" : "";
        if (reading.Quantity == Quantity.Insulation)
        {
            var live = new[] { reading.From, reading.To }.Where(t => _circuit.WireAt(t) != _circuit.WireAt(_circuit.Earth)).ToList();
            if (live.Count == 1 && live[0].Name != "PE" && _circuit.FindDevice(live[0].Device) is not null)
            {
                var atForty = InsulationAtForty.AtForty(ohms, reading.Celsius ?? UsualCelsius);
                yield return Value(reading, Followed.Insulation, live[0].Device, $"{live[0].Name}-PE", state, atForty);
            }

            yield break;
        }

        var device = _circuit.FindDevice(reading.From.Device);
        if (device is null || reading.From.Device != reading.To.Device)
        {
            yield break;
        }

        string[] points = [reading.From.Name, reading.To.Name];
        Array.Sort(points, StringComparer.Ordinal);
        if (device.Kind.CoilOf(device)?.Element is { } coil && points.Order().SequenceEqual(new[] { coil.A, coil.B }.Order()))
        {
            yield return Value(reading, Followed.CoilOhms, device.Tag, string.Join('-', points), state, ohms);
        }
        else if (HasWindings(device) && !points.Contains("PE"))
        {
            yield return Value(reading, Followed.WindingOhms, device.Tag, string.Join('-', points), state, ohms);
        }
    }

    private static bool HasWindings(Device device) => device.Kind.Elements(device).Any(e => e.B[0] == '~');

    private IEnumerable<SeriesValue> OfLive(Reading reading, string working, List<Reading> set)
    {
        if (reading.Value is not { Kind: ReadingKind.Number, Number: >= 0 and var value })
        {
            yield break;
        }

        set.RemoveAll(r => reading.At - r.At > OneSet || r.Quantity != reading.Quantity || (r.From == reading.From && r.To == reading.To));
        set.Add(reading);
        if (reading.Quantity is Quantity.Amps or Quantity.StartingAmps)
        {
            if (PlaceOf(reading, _compiled.ThreeLines.Places) is not { } place)
            {
                yield break;
            }

            // A start is over before anything is seen to run; running currents say nothing without what runs.
            if (reading.Quantity == Quantity.StartingAmps)
            {
                yield return Value(reading, Followed.StartingAmps, place.Id, reading.From.Name, working, value);
            }
            else if (working.Length > 0)
            {
                yield return Value(reading, Followed.RunningAmps, place.Id, reading.From.Name, working, value);
                if (UnbalanceOf(place, set) is { } unlike)
                {
                    yield return Value(reading, Followed.AmpsUnbalance, place.Id, "", working, unlike);
                }
            }
        }
        else if (reading.Quantity == Quantity.Volts && PlaceOf(reading, _fedPlaces) is { } fed)
        {
            var supply = _circuit.Supply.Tag;
            var lines = fed.Leads(Quantity.Volts).IndexOf(LeadsOf(reading, fed)) switch
            {
                0 => "L1-L2",
                1 => "L2-L3",
                _ => "L3-L1",
            };
            yield return Value(reading, Followed.LineVolts, supply, lines, "", value);
            if (UnbalanceOf(fed, set) is { } unlike)
            {
                yield return Value(reading, Followed.VoltsUnbalance, supply, "", "", unlike);
            }
        }
    }

    /// <summary>The place whose set of three this reading is one of.</summary>
    private static ThreeLinesPlace? PlaceOf(Reading reading, IEnumerable<ThreeLinesPlace> places) =>
        places.FirstOrDefault(p => p.Leads(reading.Quantity).Contains(LeadsOf(reading, p)));

    private static (TerminalId, TerminalId) LeadsOf(Reading reading, ThreeLinesPlace place) =>
        place.Leads(reading.Quantity).Contains((reading.To, reading.From)) ? (reading.To, reading.From) : (reading.From, reading.To);

    /// <summary>How unlike the three values of a place are once all three are there; a line without any current is a fault, no trend.</summary>
    private static double? UnbalanceOf(ThreeLinesPlace place, List<Reading> set)
    {
        var values = set.Where(r => place.Leads(r.Quantity).Contains(LeadsOf(r, place))).Select(r => r.Value.Number).ToList();
        return values.Count == 3 && values.Min() > 0.3 * values.Max() ? Unbalance.Of(values[0], values[1], values[2]).Share : null;
    }

    private IEnumerable<SeriesValue> OfTrip(TripTimed trip)
    {
        if (TripTimed.Expected(_circuit, trip.Device, trip.Amps) is { IsFinite: true, Value: > 0 and var expected })
        {
            yield return Value(trip, Followed.TripTime, trip.Device, "", "", trip.Seconds / expected);
        }
    }

    private static IEnumerable<SeriesValue> OfCounter(CounterRead counter) =>
        [Value(counter, counter.Counter == Counter.Hours ? Followed.Hours : Followed.Starts, counter.Device, "", "", counter.Value)];

    private static SeriesValue Value(JournalEntry entry, Followed what, string device, string points, string state, double value) =>
        new(new SeriesKey(what, device, points, state), entry.At, value);
}
