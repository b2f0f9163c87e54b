using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// What turns alternating into direct voltage: an input that loads the supply and an output that gives a voltage while
/// the input has one. A short at the output folds it back.
/// </summary>
public abstract class DirectSource : DeviceKind
{
    private protected const int Off = 0, On = 1, FoldedBack = 2;

    private const int Input = 0, Output = 1;

    /// <summary>Input voltage from which it works, as a share of rated (a wide-range supply does with less; common practice).</summary>
    private const double StartsAt = 0.6;

    /// <summary>What a folded-back output still gives, as a share of its voltage.</summary>
    private const double FoldedShare = 0.08;

    private protected abstract (string A, string B) InputTerminals { get; }
    private protected abstract double OutputVolts(Device device);
    private protected abstract double InputVolts(Device device);
    private protected abstract double OutputOhms(Device device);
    private protected abstract double LimitAmps(Device device);
    private protected abstract double InputVa(Device device);

    public override (string Plus, string Minus)? DirectOutput => ("L+", "M");
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "folded back"];

    public override ImmutableArray<Element> Elements(Device device) =>
        [new(InputTerminals.A, InputTerminals.B, ElementRole.Load), new("M", "L+", ElementRole.Source)];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        domain == Domain.Ac ? InputVa(device) / Math.Pow(InputVolts(device), 2) : 0;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        if (domain == Domain.Dc && state.Position != Off)
        {
            stamp.Source(Output, OutputVolts(device) * (state.Position == On ? 1 : FoldedShare), OutputOhms(device));
        }
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        // The current through the input, not the voltage over it: a dead input stage has its voltage.
        var input = Magnitude(meter.Amps(Input)) * InputVolts(device) / InputVa(device);
        if (input < StartsAt)
        {
            return new Transition(state with { Position = Off });
        }

        var full = state.Position == On ? meter : meter.With(state with { Position = On });
        return new Transition(state with { Position = Math.Abs(full.DcAmps(Output)) > LimitAmps(device) ? FoldedBack : On });
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var (plus, minus) = (device.Terminal("L+"), device.Terminal("M"));
        yield return new FaultMode($"{device.Tag}/dead", device.Tag, $"The {Term} {device.Tag} gives nothing although it is fed",
            [new PositionLocked(device.Tag, Off)], 1.2, $"Take the load off {device.Tag} and measure again: a shorted load folds a good one back. If it still gives nothing, replace it.")
        {
            ProofPoints = (plus, minus),
        };
        yield return Common.Open(device, Elements(device)[Output], $"Output of the {Term} {device.Tag} is open", 0.4, $"Replace {device.Tag}.") with { ProofPoints = (plus, minus) };
        yield return Common.Open(device, Elements(device)[Input], $"Input of the {Term} {device.Tag} is open", 0.4, $"Check its own fuse; replace {device.Tag}.");
        foreach (var mode in Common.Bridged($"{device.Tag}/shorted", device.Tag, $"Output of the {Term} {device.Tag} is shorted inside", plus, minus, minus, 0.2, $"Replace {device.Tag}."))
        {
            yield return mode;
        }
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => new()
    {
        Steps = ["Lift its load: many supplies switch themselves off on a short circuit and come back without it.", "Then: input present, output none, load lifted: replace it. Output back: find the load that is shorted, a suppressor put in the wrong way round first.", fault.Remedy],
        Parts = [$"{Term} {device.Tag}: same input, output volts and amps"],
        Causes = [new RootCause("A shorted load or a suppressor the wrong way round", "Ohms of each load both ways"), RepairNotes.Heat, new RootCause("Age: capacitors dry out", "Volts DC steady, and AC volts on its output small")],
        Cautions = ["It keeps its charge for a while after switching off."],
    };
}
