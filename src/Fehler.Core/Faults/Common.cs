using Fehler.Core.Circuits;

namespace Fehler.Core.Faults;

/// <summary>Fault modes that several kinds share, so that each kind names only what is its own.</summary>
internal static class Common
{
    /// <summary>Resistances a bad joint or burnt contact in a control path is tried with, ohm; about half a decade apart.</summary>
    private static readonly double[] ControlJointOhms = [150, 800, 4_000, 20_000, 200_000];

    /// <summary>The same in a power path, where less is enough to matter.</summary>
    private static readonly double[] PowerJointOhms = [1, 8, 80, 2_000, 50_000];

    private static readonly double[] BridgeOhms = [0.3, 3, 30];

    public static FaultMode Open(Device device, Element element, Wording title, double weight, Wording remedy) =>
        new($"{device.Tag}/{element.Name}-open", device.Tag, title, [new ElementOpen(device.Tag, element.Name)], weight, remedy)
        {
            ProofPoints = Points(device, element),
        };

    public static FaultMode Made(Device device, Element element, Wording title, double weight, Wording remedy) =>
        new($"{device.Tag}/{element.Name}-made", device.Tag, title, [new ElementMade(device.Tag, element.Name)], weight, remedy)
        {
            ProofPoints = Points(device, element),
        };

    public static IEnumerable<FaultMode> HighResistance(
        Device device,
        Element element,
        Wording title,
        double weight,
        Wording remedy,
        bool power
    ) =>
        Sizes(power)
            .Select(ohms => new FaultMode(
                $"{device.Tag}/{element.Name}-high-resistance",
                device.Tag,
                title,
                [new ElementSeriesOhms(device.Tag, element.Name, ohms)],
                weight / Sizes(power).Length,
                remedy
            )
            {
                Variant = Size(ohms),
                SizeFactor = 2,
                ProofPoints = Points(device, element),
            });

    public static IEnumerable<FaultMode> HighResistance(Conductor conductor, Wording title, double weight, Wording remedy, bool power) =>
        Sizes(power)
            .Select(ohms => new FaultMode(
                $"{conductor.Id}/high-resistance",
                conductor.Id,
                title,
                [new ConductorSeriesOhms(conductor.Id, ohms)],
                weight / Sizes(power).Length,
                remedy
            )
            {
                Variant = Size(ohms),
                SizeFactor = 2,
                ProofPoints = (conductor.From, conductor.To),
            });

    /// <summary>
    /// A fault to earth or between two points: dead, or a few ohm, or some tens over a damp surface; of conductors where they are named.
    /// </summary>
    public static IEnumerable<FaultMode> Bridged(
        string id,
        string unit,
        Wording title,
        TerminalId from,
        TerminalId? to,
        TerminalId proofTo,
        double weight,
        Wording remedy,
        string fromIn = "",
        string toIn = ""
    ) =>
        BridgeOhms.Select(ohms => new FaultMode(
            id,
            unit,
            title,
            [new Bridge(from, to, ohms) { FromIn = fromIn, ToIn = toIn }],
            weight / BridgeOhms.Length,
            remedy
        )
        {
            Variant = Size(ohms),
            SizeFactor = 2.5,
            ProofPoints = (from, proofTo),
        });

    public static (TerminalId, TerminalId)? Points(Device device, Element element) =>
        element.A[0] == '~' || element.B[0] == '~' ? null : (device.Terminal(element.A), device.Terminal(element.B));

    private static double[] Sizes(bool power) => power ? PowerJointOhms : ControlJointOhms;

    private static string Size(double ohms) => FormattableString.Invariant($"{ohms} ohm");
}
