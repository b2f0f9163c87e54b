using Fehler.Core.Circuits;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;

namespace Fehler.Core.Diagnosis;

/// <content>What hands do to the circuit while it is searched, and what they find doing it: wires, screws, repairs.</content>
internal sealed partial class Hypothesis
{
    public void Lift(ConductorEnd end) => Move(State.Lift(end));

    public void Land(string conductor) => Move(_trajectories.Simulator.Observe(State.Land(conductor)).State);

    /// <summary>
    /// A terminal was tried. A conductor that is off or loose at one of its ends is so at this one half of the time; once tight it is as
    /// new. Now and then a screw that does no harm gives way too (common practice).
    /// </summary>
    public double Tighten(Tightened tightened)
    {
        const double found = 0.45,
            harmless = 0.05;
        var ends = _healthy
            .Circuit.Conductors.Where(c => c.From == tightened.Terminal || c.To == tightened.Terminal)
            .Select(c => c.Id)
            .ToHashSet();
        var isLoose =
            Fault is not null
            && !IsRepaired
            && Fault.Parts.IsEmpty
            && Fault.Alterations.Any(a =>
                (a is ConductorOpen open && ends.Contains(open.Conductor))
                || (a is ConductorSeriesOhms loose && ends.Contains(loose.Conductor))
            );
        if (isLoose && tightened.WasLoose)
        {
            Repair(Fault!.Unit);
        }

        var gives = isLoose ? found : harmless;
        return tightened.WasLoose ? gives / found : (1 - gives) / (1 - harmless);
    }

    /// <summary>
    /// Conductors were counted under a screw, those lifted off it for a test too. One that broke or came off hangs visibly beside one of its two
    /// screws half of the time; one that is landed elsewhere is missing here and one too many there.
    /// </summary>
    /// <returns>How well the count fits, and what would be counted most likely.</returns>
    public (double Fit, int Likeliest) Count(ConductorsCounted counted)
    {
        const double visiblyOff = 0.25,
            miscounted = 0.03;
        var here = _healthy.Circuit.ConductorsAt(counted.Terminal).Select(c => c.Id).ToHashSet();
        var faults = IsRepaired || Fault is null ? [] : Fault.Alterations;
        var moved = faults.OfType<Bridge>().Select(b => (Bridge: b, Conductor: MovedBy(b))).Where(m => m.Conductor is not null).ToList();
        var likeliest =
            here.Count
            + moved.Count(m => m.Bridge.To == counted.Terminal)
            - moved.Count(m => here.Contains(m.Conductor!) && m.Bridge.From != counted.Terminal);
        var mayHang = faults.OfType<ConductorOpen>().Any(o => here.Contains(o.Conductor) && moved.All(m => m.Conductor != o.Conductor));
        var fit =
            counted.Found == likeliest ? (mayHang ? 1 - visiblyOff : 1)
            : mayHang && counted.Found == likeliest - 1 ? visiblyOff
            : 0;
        return (Math.Max(miscounted, fit), likeliest);
    }

    /// <summary>The conductor that a bridge stands for when it is landed elsewhere: open where it should be, made from its other end.</summary>
    private string? MovedBy(Bridge bridge) =>
        Fault!
            .Alterations.OfType<ConductorOpen>()
            .Select(o => o.Conductor)
            .FirstOrDefault(id =>
                _healthy.Circuit.Conductors.First(c => c.Id == id) is var c && (c.From == bridge.From || c.To == bridge.From)
            );

    /// <summary>A unit has been repaired: what it was in is as new, and so is its fault if it had one.</summary>
    public void Repair(string unit)
    {
        if (Fault is not null && Fault.IsIn(unit))
        {
            var left = Fault.Parts.FirstOrDefault(p => p.Unit != unit);
            IsRepaired = left is null;
            Fault = left ?? Fault;
            _trajectories = new Trajectories(new Simulator(left is null ? _healthy : _healthy.With(left.Alterations)), _beginning.Courses);
            (_larger, _smaller) = (null, null);
        }

        var index = _healthy.Circuit.Devices.ToList().FindIndex(d => d.Tag == unit);
        if (index >= 0)
        {
            var device = _healthy.Circuit.Devices[index];
            var fresh = _beginning.Compiled.Isolation.Points.Contains(device.Tag)
                ? State.Devices[index].Position
                : device.Kind.InitialPosition(device);
            State = State.With(index, State.Devices[index] with { Position = fresh });
        }

        Move(_trajectories.Simulator.Observe(State).State);
    }
}
