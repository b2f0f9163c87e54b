using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// The incoming supply and how it is earthed: star with its star point earthed, delta unearthed, delta with one corner earthed,
/// high-leg delta (the middle of one side earthed, 240 V systems of North America), or one phase. The source's own
/// windings stay connected when the panel is isolated; that is why what is above the isolator stays live.
/// </summary>
internal sealed class Supply : DeviceKind
{
    private static readonly Complex SourceOhms = new(0.05, 0.02);
    private const double EarthingOhms = 0.1;

    /// <summary>What an unearthed system's cables leak to earth, F per phase: some hundred metres of power cable (common practice).</summary>
    private const double SystemFarads = 0.1e-6;

    private const int Lost = 1;

    public override string Id => "supply";
    public override string Term => "incoming supply";
    public override string ReplaceableUnit => "incoming supply";
    public override bool IsSupply => true;

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("lineVolts", "Voltage phase to phase; of a single phase, to neutral", "V", 400, 100, 1000),
        ParameterSpec.Number("frequency", "Frequency", "Hz", 50, 16, 400),
        ParameterSpec.Word("sequence", "Order of the phases", "L1-L2-L3", "L1-L2-L3", "L1-L3-L2"),
        ParameterSpec.Word("system", "How the supply is earthed", "star", "star", "delta", "corner-earthed", "high-leg", "single-phase"),
    ];

    /// <summary>Star point, or the point the phases are measured from; it has a terminal only where it is brought out.</summary>
    private static string Middle(Device device) => device.Word("system") is "delta" or "corner-earthed" ? "~n" : "N";

    private static int Phases(Device device) => device.Word("system") == "single-phase" ? 1 : 3;

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        .. Enumerable.Range(1, Phases(device)).Select(k => new Element(Middle(device), $"L{k}", ElementRole.Source)),
        .. device.Word("system") switch
        {
            "delta" => [new("L1", "PE", ElementRole.Load), new("L2", "PE", ElementRole.Load), new("L3", "PE", ElementRole.Load)],
            "corner-earthed" => [new("L2", "PE", ElementRole.Link)],
            _ => new Element[] { new("N", "PE", ElementRole.Link) },
        },
    ];

    public override ImmutableArray<string> Terminals(Device device) => device.Word("system") switch
    {
        "single-phase" => ["L1", "N", "PE"],
        "delta" or "corner-earthed" => ["L1", "L2", "L3", "PE"],
        _ => ["L1", "L2", "L3", "N", "PE"],
    };

    public override ImmutableArray<(string Line, string Load)> Poles(Device device) => [];
    public override ImmutableArray<string> Positions(Device device) => ["on", "lost"];

    /// <summary>Switched off elsewhere.</summary>
    public override (string Off, string On, int Rank)? IsolatingPositions => ("lost", "on", 2);

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("lost", "Supply is lost", false), new("on", "Supply comes back", false)];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) => element.Role == ElementRole.Link
        ? 1 / EarthingOhms
        : domain == Domain.Ac ? new Complex(1e-7, 2 * Math.PI * device.Number("frequency") * SystemFarads) : 1e-7;

    public override void Stamp(Device device, DeviceState state, Domain domain, ICoupledStamp stamp)
    {
        var on = state.Position != Lost && domain == Domain.Ac;
        var phasors = Phasors(device);
        for (var k = 0; k < phasors.Length; k++)
        {
            stamp.Source(k, on ? phasors[k] : 0, SourceOhms);
        }
    }

    /// <summary>L1, L2, L3 follow each other by 120 degrees between lines: a clockwise field.</summary>
    private static Complex[] Phasors(Device device)
    {
        var phasors = InSequence(device);
        return phasors.Length == 3 && device.Word("sequence") == "L1-L3-L2" ? [phasors[0], phasors[2], phasors[1]] : phasors;
    }

    private static Complex[] InSequence(Device device)
    {
        var volts = device.Number("lineVolts");
        static Complex At(double magnitude, double degrees) => Complex.FromPolarCoordinates(magnitude, degrees * Math.PI / 180);
        return device.Word("system") switch
        {
            "single-phase" => [At(volts, 0)],
            // The middle of side L1-L3 is the neutral; L2 is the high leg, 0.866 of the line voltage above it.
            "high-leg" => [At(volts / 2, 0), At(volts * Math.Sqrt(3) / 2, -90), At(volts / 2, 180)],
            _ => [At(volts / Math.Sqrt(3), 0), At(volts / Math.Sqrt(3), -120), At(volts / Math.Sqrt(3), 120)],
        };
    }

    /// <summary>A rotation indicator, put on at the three lines.</summary>
    public override ImmutableArray<Look> Looks(Device device) => Phases(device) == 1 ? []
        : [new("rotation", $"Rotation indicator on {device.Tag}:L1, L2 and L3", "L1-L2-L3", "L1-L3-L2", "a phase is missing") { Measured = true, Minutes = 2 }];

    /// <summary>Which way the three phases follow each other: the sign of the area that their phasors span.</summary>
    public override string Measured(Device device, IDeviceMeter meter)
    {
        var (a, b, c) = (meter.Volts("L1", "L2"), meter.Volts("L2", "L3"), meter.Volts("L3", "L1"));
        var least = 0.6 * device.Number("lineVolts");
        return a.Magnitude < least || b.Magnitude < least || c.Magnitude < least ? "a phase is missing"
            : (a * Complex.Conjugate(b)).Imaginary > 0 ? "L1-L2-L3" : "L1-L3-L2";
    }

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        if (Phases(device) == 3)
        {
            yield return new FaultMode($"{device.Tag}/sequence", device.Tag, "Two phases of the supply are exchanged",
                [new ParameterIs(device.Tag, "sequence", device.Word("sequence") == "L1-L3-L2" ? "L1-L2-L3" : "L1-L3-L2")], 0.1, "Find who worked on the feeder; exchange two phases where they were exchanged, not at the motor.")
            {
                ProofLook = (device.Tag, "rotation"),
            };
        }

        var elements = Elements(device);
        for (var k = 0; k < Phases(device); k++)
        {
            yield return new FaultMode($"{device.Tag}/L{k + 1}-missing", device.Tag, $"Phase L{k + 1} is missing from the supply",
                [new ElementOpen(device.Tag, elements[k].Name)], 0.8, "Find where the phase is lost upstream: supply fuse, breaker pole, joint.")
            {
                ProofPoints = (device.Terminal($"L{k + 1}"), device.Terminal(Phases(device) == 1 ? "N" : $"L{(k + 1) % 3 + 1}")),
            };
        }

        foreach (var share in new[] { 0.55, 0.72 })
        {
            yield return new FaultMode($"{device.Tag}/low-voltage", device.Tag, "Supply voltage is low",
                [new ParameterIs(device.Tag, "lineVolts", device.Number("lineVolts") * share)], 0.1, "Measure the supply under load at the source; find the overload or bad joint upstream.")
            {
                Variant = $"{share * 100:0} %",
                SizeFactor = 1.1,
                ProofPoints = (device.Terminal("L1"), device.Terminal(Phases(device) == 1 ? "N" : "L2")),
            };
        }
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => new()
    {
        Steps = ["Measure at the next place upstream, phase to phase and to neutral, until it is right again: the fault lies between.", fault.Remedy],
        Parts = ["Fuses of the feeder, by what is found"],
        Causes = [new RootCause("Fuse or breaker pole of the feeder", "Volts across each, under load"), new RootCause("A joint that burns", "Volts that collapse under load; heat; smell"), new RootCause("The utility's supply", "Are other machines affected?")],
        Cautions = ["Upstream the fault level is higher and other people's locks count: only who is allowed to opens it."],
    };
}
