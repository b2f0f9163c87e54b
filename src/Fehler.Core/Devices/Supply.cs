using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// The incoming three-phase supply, star point earthed: L1, L2, L3, N and PE. The source's own windings stay
/// connected when the panel is isolated; that is why what is above the isolator stays live.
/// </summary>
internal sealed class Supply : DeviceKind
{
    private static readonly Complex SourceOhms = new(0.05, 0.02);
    private const double EarthingOhms = 0.1;

    public override string Id => "supply";
    public override string Term => "incoming supply";
    public override string ReplaceableUnit => "incoming supply";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("lineVolts", "Voltage phase to phase", "V", 400, 100, 1000),
        ParameterSpec.Number("frequency", "Frequency", "Hz", 50, 16, 400),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("N", "L1", ElementRole.Source), new("N", "L2", ElementRole.Source), new("N", "L3", ElementRole.Source),
        new("N", "PE", ElementRole.Link),
    ];

    public override ImmutableArray<string> Terminals(Device device) => ["L1", "L2", "L3", "N", "PE"];
    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["on", "lost"];

    /// <summary>Switched off elsewhere.</summary>
    public override (string Off, string On, int Rank)? IsolatingPositions => ("lost", "on", 2);

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("lost", "Supply is lost", false), new("on", "Supply comes back", false)];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => 1 / EarthingOhms;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var phase = state.Position == 0 && domain == Domain.Ac ? device.Number("lineVolts") / Math.Sqrt(3) : 0;
        for (var k = 0; k < 3; k++)
        {
            // L1, L2, L3 follow each other by 120 degrees: a clockwise field.
            stamp.Source(k, Complex.FromPolarCoordinates(phase, -2 * Math.PI / 3 * k), SourceOhms);
        }
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        for (var k = 0; k < 3; k++)
        {
            yield return new FaultMode($"{device.Tag}/L{k + 1}-missing", device.Tag, $"Phase L{k + 1} is missing from the supply",
                [new ElementOpen(device.Tag, elements[k].Name)], 0.8, "Find where the phase is lost upstream: supply fuse, breaker pole, joint.")
            {
                ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal("N")),
            };
        }

        foreach (var share in new[] { 0.55, 0.72 })
        {
            yield return new FaultMode($"{device.Tag}/low-voltage", device.Tag, "Supply voltage is low",
                [new ParameterIs(device.Tag, "lineVolts", device.Number("lineVolts") * share)], 0.1, "Measure the supply under load at the source; find the overload or bad joint upstream.")
            {
                Variant = $"{share * 100:0} %",
                SizeFactor = 1.1,
                ProofPoints = (device.Terminal("L1"), device.Terminal("L2")),
            };
        }
    }
}
