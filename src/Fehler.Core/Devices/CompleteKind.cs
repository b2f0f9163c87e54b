using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;
using Fehler.Core.Jobs;
using Fehler.Core.Operation;
using Fehler.Core.Procedures;
using Fehler.Core.Upkeep;

namespace Fehler.Core.Devices;

/// <summary>
/// A kind with all its sides: what it is, how it conducts, what it does, how it fails, how it is repaired and what it needs from time to
/// time, each with what most devices
/// do.
/// A kind is one folder; its sides are one file each.
/// </summary>
internal abstract class CompleteKind : DeviceKind, IElectrical, IOperated, IFailing, IRepaired, IMaintained
{
    public virtual Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / IElectrical.ContactOhms;

    public virtual double MadeOhms(Device device, Element element) => IElectrical.ContactOhms;

    public virtual Device WithMoreCopper(Device device) => device;

    public virtual Device AsInstalled(Device device, Scatter scatter) => device;

    public virtual void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp) { }

    public virtual Transition Settle(Device device, DeviceState state, IDeviceMeter meter) => new(state);

    public virtual TimedTransition? Timed(Device device, DeviceState state, IDeviceMeter meter) => null;

    public virtual double Heated(Device device, DeviceState state, IDeviceMeter meter, Seconds time) => state.Heat;

    public virtual Seconds RunUpTime(Device device) => new(0);

    public virtual Wording? Refuses(Device device, DeviceState state, string position) => null;

    public virtual string? Appearance(Device device, DeviceState state, IDeviceMeter meter) => null;

    public virtual string Seen(Device device, Look look, DeviceState state, Device drawn) => look.Answers[0];

    public virtual string Measured(Device device, Look look, DeviceState state, IDeviceMeter meter) => look.Answers[0];

    public virtual IEnumerable<FaultMode> FaultModes(Device device) => [];

    public virtual RepairNotes Repair(Device device, FaultMode fault) => RepairNotes.Of(device, fault);

    public virtual IEnumerable<UpkeepRule> Upkeep(Device device) => [];

    private protected static double Magnitude(Complex phasor) => phasor.Magnitude;
}
