using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal abstract partial class DirectSource
{
    /// <summary>Input voltage from which it works, as a share of rated (a wide-range supply does with less; common practice).</summary>
    private const double StartsAt = 0.6;

    /// <summary>What a folded-back output still gives, as a share of its voltage.</summary>
    private const double FoldedShare = 0.08;

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
}
