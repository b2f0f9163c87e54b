using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;

namespace Fehler.Core.Devices;

/// <content>What it does in a circuit.</content>
internal sealed partial class ControlTransformer
{
    /// <summary>Per-unit values of a small transformer on its rated VA (common practice): half of the drop on each side.</summary>
    private const double LeakageShare = 0.02,
        MagnetisingShare = 0.15,
        UnloadedRise = 0.05;

    private const double LeadOhms = 0.001;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / LeadOhms;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var (windings, turns) = HasTap(device)
            ? (new[] { ("~p", "2"), ("~s", "~t"), ("~t", "4") }, new[] { 1.0, Ratio(device) / 2, Ratio(device) / 2 })
            : (new[] { ("~p", "2"), ("~s", "4") }, new[] { 1.0, Ratio(device) });
        var n = windings.Length;
        var y = new Complex[n * n];
        var copper = domain == Domain.Ac ? 1 : device[Plate.OhmsFactor];
        var own = turns.Select((t, i) => OwnOhms(device) * t * t * (i == 0 ? 1 : Ratio(device) / t)).ToArray();
        if (domain != Domain.Ac)
        {
            for (var i = 0; i < n; i++)
            {
                var read = i == 0 ? device[Plate.PrimaryOhms] : device[Plate.SecondaryOhms] / (n - 1);
                y[i * n + i] = 1 / (copper * (read > 0 ? read : own[i].Real));
            }
        }
        else
        {
            // Windings share the flux: v_i = z_i i_i + t_i e and the sum of t_i i_i is e / z_m. Eliminating e gives the admittances.
            var magnetising = 1 / new Complex(0, BaseOhms(device) / MagnetisingShare);
            var sum = magnetising + Enumerable.Range(0, n).Aggregate(Complex.Zero, (s, i) => s + turns[i] * turns[i] / own[i]);
            for (var i = 0; i < n; i++)
            {
                for (var j = 0; j < n; j++)
                {
                    y[i * n + j] = (i == j ? 1 / own[i] : 0) - turns[i] * turns[j] / (own[i] * own[j] * sum);
                }
            }
        }

        stamp.Windings(windings, y);
    }

    private static double BaseOhms(Device device) => Math.Pow(device[Plate.PrimaryVolts], 2) / device[Plate.Va];

    /// <summary>Resistance and leakage of one side, referred to the primary, ohm.</summary>
    private static Complex OwnOhms(Device device) => BaseOhms(device) * new Complex(ResistanceShare(device) / 2, LeakageShare / 2);

    /// <summary>
    /// Resistance of both sides on the rated VA: some 9 % of one for 150 VA, whose 400 V primary reads 30 to 80 ohm, less of larger ones
    /// (common practice).
    /// </summary>
    private static double ResistanceShare(Device device) => Math.Clamp(0.09 * Math.Pow(150 / device[Plate.Va], 0.4), 0.015, 0.14);

    private static double Ratio(Device device) => device[Plate.SecondaryVolts] * (1 + UnloadedRise) / device[Plate.PrimaryVolts];
}
