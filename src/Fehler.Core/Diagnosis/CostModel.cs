using Fehler.Core.Circuits;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <summary>
/// What a test costs in minutes, risk counted as minutes. Figures are common practice, rough on purpose: what matters is
/// that a look is cheaper than a reading, a reading in the open panel cheaper than one in the field, and live work dearer
/// than dead work that tells as much.
/// </summary>
internal sealed class CostModel(Circuit circuit, TerminalId? lastPoint, Strategy strategy)
{
    private const double ReadingMinutes = 0.5,
        LiveRisk = 0.7,
        ClampRisk = 0.2,
        OtherMeter = 1.5,
        MoveMinutes = 2,
        HoldMinutes = 0.3,
        SecondPersonMinutes = 1.5,
        OpenStationMinutes = 1,
        AcrossMinutes = 0.15;

    /// <summary>Isolating with proving dead, switching on again, a wire off and on again.</summary>
    public const double IsolateMinutes = 5,
        EnergiseMinutes = 3,
        LiftMinutes = 1.5;

    /// <summary>A look at what stands in front of who measures.</summary>
    public const double GlanceMinutes = 0.3;

    public double OfLook(Device device, Look look, SetupChange change)
    {
        var place = circuit.Location(device.Location);
        var move = place.Type == LocationType.Enclosure ? 0 : MoveMinutes;
        return look.Minutes
            + move
            + (
                change == SetupChange.Isolate
                    ? strategy == Strategy.DeadFirst
                        ? 0.5
                        : IsolateMinutes
                    : 0
            );
    }

    public double OfOperation(bool isolated) => (isolated ? EnergiseMinutes : 0) + 1 + (strategy == Strategy.DeadFirst ? 2 : 0);

    /// <summary>What a reading in this state costs wherever its leads go.</summary>
    public double LeastOfReading(Quantity quantity, Setup setup)
    {
        var live = quantity.IsLive();
        var minutes =
            ReadingMinutes
            + (
                quantity.IsAmps() ? ClampRisk
                : live ? LiveRisk
                : 0
            )
            + (quantity == Quantity.Insulation ? OtherMeter : 0)
            + HoldMinutes * setup.Held.Length;
        minutes += setup.Change switch
        {
            SetupChange.Isolate => strategy == Strategy.DeadFirst ? 0.5 : IsolateMinutes,
            SetupChange.Energise => EnergiseMinutes,
            _ => 0,
        };
        if (live && strategy == Strategy.DeadFirst)
        {
            minutes += 2 * IsolateMinutes;
        }

        // Off, marked, and on again.
        return minutes + LiftMinutes * setup.Lifts(circuit).Count();
    }

    public double OfReading(Quantity quantity, TerminalId from, TerminalId to, Setup setup)
    {
        // One lead stays on the reference: a reading across two other points moves both.
        var minutes = LeastOfReading(quantity, setup) + (to == circuit.Reference || to == from ? 0 : AcrossMinutes);
        var here = lastPoint is { } last ? circuit.LocationOf(last) : circuit.Locations.First(l => l.Type == LocationType.Enclosure);
        var places = new[] { from, to }.Where(t => t != circuit.Reference).Select(circuit.LocationOf).Distinct().ToList();
        // Who lifts a wire goes to where it ends, too.
        minutes += places
            .Union(setup.Lifts(circuit).Select(l => circuit.LocationOf(l.End)))
            .Where(p => p != here)
            .Sum(p => Way(here, p) + (p.Type == LocationType.Enclosure ? 0 : OpenStationMinutes));

        // Two points far apart need a long lead; what is held where nobody measures needs somebody who holds it.
        return minutes + (places.Count > 1 ? MoveMinutes : 0) + (SecondPersonAt(circuit, from, to, setup).Any() ? SecondPersonMinutes : 0);
    }

    /// <summary>Where somebody else has to stand: places of what is held while both leads are elsewhere.</summary>
    public static IEnumerable<Location> SecondPersonAt(Circuit circuit, TerminalId from, TerminalId to, Setup setup)
    {
        var leads = new[] { from, to }.Where(t => t != circuit.Reference || from == to).Select(circuit.LocationOf).ToHashSet();
        return setup
            .Held.Where(h => h.Device.Length > 0 && !IsDoneBefore(circuit.Device(h.Device), h))
            .Select(h => circuit.Location(circuit.Device(h.Device).Location))
            .Distinct()
            .Where(place => !leads.Contains(place));
    }

    /// <summary>A reset or a switch that stays where it is put needs no hand during the reading.</summary>
    private static bool IsDoneBefore(Device device, Step step) =>
        device.Kind.Actuations(device).Any(a => a.Position == step.Position && (a.Resets || !a.Returns));

    /// <summary>There and, as often as not, back: a slow walk along the cable, m a minute.</summary>
    private static double Way(Location here, Location there) =>
        MoveMinutes + Math.Abs(there.CableMetres - here.CableMetres) / WalkMetresAMinute;

    private const double WalkMetresAMinute = 40;
}
