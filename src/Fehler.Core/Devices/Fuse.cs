using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>One fuse or a set of fuses in their holder. Position is a bit mask of the blown ones.</summary>
internal sealed class Fuse : DeviceKind
{
    /// <summary>
    /// From here on a fuse is taken to clear at once: six times its rating melts a gG fuse within some tenths of a second
    /// (common practice). A motor's start is six times the motor's current and three times that of its fuses.
    /// </summary>
    private const double ClearsAtOnceMultiple = 6;

    private const double LinkOhms = 0.01;

    public override string Id => "fuse";
    public override string Term => "fuse";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("poles", "Number of fuses in the set", "", 1, 1, 4),
        ParameterSpec.Number("ratedAmps", "Rated current", "A", 6, 0.05, 1250),
        ParameterSpec.Word("indicator", "Whether a blown fuse shows itself", "no", "yes", "no"),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
        [.. Enumerable.Range(0, (int)device.Number("poles")).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Link))];

    public override ImmutableArray<string> Positions(Device device) => ["sound"];

    /// <summary>A blown fuse is an open link.</summary>
    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain) =>
        (state.Position & (1 << PoleIndex(element))) != 0 ? 0 : 1 / LinkOhms;

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (worst, pole) = Enumerable.Range(0, (int)device.Number("poles"))
            .Select(k => (Magnitude(meter.Amps(k)) / device.Number("ratedAmps"), k)).Max();
        return worst > ClearsAtOnceMultiple
            ? new Transition(state with { Position = state.Position | (1 << pole) }, worst / ClearsAtOnceMultiple)
            : new Transition(state);
    }

    public override ImmutableArray<Look> Looks(Device device) =>
        device.Word("indicator") == "yes" ? [new("indicator", $"Fuse indicators of {device.Tag}", "all sound", "blown")] : [];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => state.Position == 0 ? "all sound" : "blown";

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        for (var k = 0; k < elements.Length; k++)
        {
            var which = elements.Length == 1 ? $"Fuse {device.Tag}" : $"Fuse {device.Tag}, pole {elements[k].Name},";
            yield return new FaultMode($"{device.Tag}/{elements[k].Name}-blown", device.Tag, $"{which} has blown",
                [new FoundInPosition(device.Tag, 1 << k)], 2,
                elements.Length == 1 ? "Find the cause, then fit a fuse of the same type and rating." : "Find the cause, then replace the whole set, same type and rating.")
            {
                ProofPoints = Common.Points(device, elements[k]),
                ProofLook = device.Word("indicator") == "yes" ? (device.Tag, "indicator") : null,
                AskWhy = "A fuse blows because of something: check coil ohms, conductors to earth and the motor before fitting a new one.",
            };
            foreach (var mode in Common.HighResistance(device, elements[k], $"{which} makes bad contact in its holder", 0.15, "Clean or replace the fuse holder.", power: elements.Length > 1))
            {
                yield return mode;
            }
        }
    }

    private static int PoleIndex(Element element) => (int.Parse(element.A, System.Globalization.CultureInfo.InvariantCulture) - 1) / 2;

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] is FoundInPosition
        ? new RepairNotes
        {
            Steps = ["Find what blew it before a new one goes in: measure behind it to earth and phase to phase, loads lifted in turn.", "Replace the fuses of a set together: the others were hurt too.", "Look at the holder: springs tight, no burnt contact."],
            Parts = [FormattableString.Invariant($"Fuses for {device.Tag}: {device.Number("poles"):0} × {device.Number("ratedAmps"):0.##} A, same characteristic and size")],
            Causes =
            [
                new RootCause("Short circuit or earth fault behind it", "Ohms behind it, isolated, loads lifted"),
                new RootCause("A load that stays at its starting current: stalled motor, coil that does not close, shorted coil or suppressor", "Clamp current at the first moments; coil ohms as a value"),
                new RootCause("A worn-out or wrong fuse: age, rating, characteristic", "Rating on the cap against the drawing"),
                new RootCause("A loose holder that heats it", "Discoloured cap or spring"),
            ],
            Cautions = ["A blown fuse is a consequence. Never put in a larger one, never bridge it."],
        }
        : base.Repair(device, fault);
}
