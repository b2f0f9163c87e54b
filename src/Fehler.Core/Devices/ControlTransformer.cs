using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A control transformer: two windings on a core, with their resistance and leakage and a magnetising branch, so that it gives
/// some 5 % above its rated voltage unloaded and sags under a pull-in.
/// </summary>
internal sealed class ControlTransformer : DeviceKind
{
    /// <summary>Per-unit values of a small transformer on its rated VA (common practice): half of the drop on each side.</summary>
    private const double ResistanceShare = 0.04, LeakageShare = 0.02, MagnetisingShare = 0.15, UnloadedRise = 0.05;

    private const double LeadOhms = 0.001;

    public override string Id => "control-transformer";
    public override string Term => "control transformer";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("primaryVolts", "Rated primary voltage", "V", 400, 20, 1000),
        ParameterSpec.Number("secondaryVolts", "Rated secondary voltage at full load", "V", 230, 5, 690),
        ParameterSpec.Number("va", "Rated power", "VA", 160, 10, 10000),
        ParameterSpec.Word("tap", "Whether the secondary has a centre tap (terminal 0)", "none", "none", "centre"),
    ];

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("1", "~p", ElementRole.Link), new("3", "~s", ElementRole.Link),
        .. HasTap(device) ? [new Element("0", "~t", ElementRole.Link)] : Array.Empty<Element>(),
    ];

    public override ImmutableArray<string> Terminals(Device device) => HasTap(device) ? ["1", "2", "3", "4", "0"] : ["1", "2", "3", "4"];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / LeadOhms;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var (windings, turns) = HasTap(device)
            ? (new[] { ("~p", "2"), ("~s", "~t"), ("~t", "4") }, new[] { 1.0, Ratio(device) / 2, Ratio(device) / 2 })
            : (new[] { ("~p", "2"), ("~s", "4") }, new[] { 1.0, Ratio(device) });
        var n = windings.Length;
        var y = new Complex[n, n];
        var own = turns.Select((t, i) => OwnOhms(device) * t * t * (i == 0 ? 1 : Ratio(device) / t)).ToArray();
        if (domain != Domain.Ac)
        {
            for (var i = 0; i < n; i++)
            {
                y[i, i] = 1 / own[i].Real;
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
                    y[i, j] = (i == j ? 1 / own[i] : 0) - turns[i] * turns[j] / (own[i] * own[j] * sum);
                }
            }
        }

        stamp.Windings(windings, y);
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        const string replace = "Find out why it burnt out (a shorted coil, a wrong tap), then replace the transformer: same voltages, same VA.";
        var (primary, secondary) = ((device.Terminal("1"), device.Terminal("2")), (device.Terminal("3"), device.Terminal("4")));
        yield return Common.Open(device, Elements(device)[0], $"Primary winding of {device.Tag} is open", 0.8, replace) with { ProofPoints = primary };
        yield return Common.Open(device, Elements(device)[1], $"Secondary winding of {device.Tag} is open", 0.8, replace) with { ProofPoints = secondary };
        foreach (var (name, side, points) in new[] { ("primary", "Primary", primary), ("secondary", "Secondary", secondary) })
        {
            foreach (var mode in Common.Bridged($"{device.Tag}/{name}-shorted", device.Tag, $"{side} winding of {device.Tag} is shorted", points.Item1, points.Item2, points.Item2, 0.3, replace))
            {
                yield return mode;
            }
        }

        yield return new FaultMode($"{device.Tag}/wrong-tap", device.Tag, $"{device.Tag} is connected to the tap of another primary voltage",
            [new ParameterIs(device.Tag, "primaryVolts", device.Number("primaryVolts") * Math.Sqrt(3))], 0.15, "Connect the primary to the tap of the supply that is there.")
        {
            ProofPoints = secondary,
        };
    }

    private static bool HasTap(Device device) => device.Word("tap") == "centre";

    private static double BaseOhms(Device device) => Math.Pow(device.Number("primaryVolts"), 2) / device.Number("va");

    /// <summary>Resistance and leakage of one side, referred to the primary, ohm.</summary>
    private static Complex OwnOhms(Device device) => BaseOhms(device) * new Complex(ResistanceShare / 2, LeakageShare / 2);

    private static double Ratio(Device device) => device.Number("secondaryVolts") * (1 + UnloadedRise) / device.Number("primaryVolts");

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Kind == "wrong-tap"
        ? new RepairNotes { Steps = [fault.Remedy, "Measure the secondary with and without load afterwards."], Causes = [new RootCause("Fitted as it came, for another supply", "Taps against the measured supply")] }
        : new RepairNotes
        {
            Steps = ["Lift the secondary: a short circuit behind it looks like a dead transformer.", "Ohms of primary and secondary by themselves, each to earth and to each other.", fault.Remedy, "Land the secondary's earth link again where the drawing has one."],
            Parts = [FormattableString.Invariant($"Control transformer {device.Tag}: same voltages, same VA or more")],
            Causes = [new RootCause("Short circuit in the control circuit with a fuse that is too large", "Fuse rating against VA; coils, lamps, suppressors behind it"), new RootCause("Too many coils pulling in together", "VA of all pull-ins against its rating"), RepairNotes.Heat],
        };
}
