using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// A contactor with an alternating-current coil. Its impedance rises about tenfold in VA when the armature closes,
/// so that a series resistance may keep it from pulling in and still hold it.
/// </summary>
internal sealed class Contactor : DeviceKind
{
    private const int Out = 0, In = 1;

    /// <summary>
    /// Pull-in and drop-out as shares of rated coil voltage. IEC 60947-4-1 (from memory) asks for pull-in from 85 %
    /// and drop-out between 20 and 75 %; a usual contactor does it at about 75 % and 50 %.
    /// </summary>
    private const double PullsIn = 0.75, DropsOut = 0.50, Buzzes = 0.45;

    public override string Id => "contactor";
    public override string Term => "contactor";

    public override ImmutableArray<ParameterSpec> Parameters { get; } =
    [
        ParameterSpec.Number("poles", "Main poles", "", 3, 0, 4),
        ParameterSpec.Words("contacts", "Auxiliary contacts by terminal numbers; last digits 3-4 close, 1-2 open", "13-14"),
        ParameterSpec.Number("coilVolts", "Rated coil voltage", "V", 230, 12, 690),
        ParameterSpec.Number("coilPullInVa", "Coil, armature open", "VA", 70, 1, 5000),
        ParameterSpec.Number("coilPullInCos", "Power factor, armature open", "", 0.75, 0.1, 1),
        ParameterSpec.Number("coilSealedVa", "Coil, armature closed", "VA", 8, 0.5, 1000),
        ParameterSpec.Number("coilSealedCos", "Power factor, armature closed", "", 0.3, 0.05, 1),
        ParameterSpec.Number("coilOhms", "Coil resistance at direct current, 20 °C; 0: estimated from the pull-in data", "ohm", 0, 0, 100000),
        ParameterSpec.Number("ratedAmps", "Rated current AC-3", "A", 12, 1, 1600),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
    [
        new("A1", "A2", ElementRole.Load),
        .. Enumerable.Range(0, (int)device.Number("poles")).Select(k => new Element($"{2 * k + 1}", $"{2 * k + 2}", ElementRole.Pole)),
        .. device.Words("contacts").Select(Auxiliary),
    ];

    public override ImmutableArray<string> Positions(Device device) => ["out", "in"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("in", "Press the armature in by hand", true, DeadOnly: true)];

    public override ImmutableArray<string> Appearances => ["out", "in", "buzzes", "hums", "chatters"];

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        if (domain == Domain.Ohms)
        {
            return 1 / device.Number("coilOhms");
        }

        var sealedIn = state.Position == In;
        var va = device.Number(sealedIn ? "coilSealedVa" : "coilPullInVa");
        var cos = device.Number(sealedIn ? "coilSealedCos" : "coilPullInCos");
        var volts = device.Number("coilVolts");
        return Complex.FromPolarCoordinates(va / (volts * volts), -Math.Acos(cos));
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Held)
        {
            return new Transition(state with { Position = In });
        }

        var share = Pull(device, state, meter);
        return new Transition(state with { Position = share >= (state.Position == In ? DropsOut : PullsIn) ? In : Out });
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position == In)
        {
            return "in";
        }

        return Pull(device, state, meter) >= Buzzes ? "buzzes" : "out";
    }

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("coil-label", $"Voltage printed on the coil of {device.Tag}: {device.Number("coilVolts"):0} V?", "as drawn", "another voltage")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        device.Number("coilVolts") == drawn.Number("coilVolts") ? "as drawn" : "another voltage";

    public override IEnumerable<FaultMode> FaultModes(Device device)
    {
        var elements = Elements(device);
        var coil = elements[0];
        var (a1, a2) = (device.Terminal("A1"), device.Terminal("A2"));
        yield return Common.Open(device, coil, $"Coil of {device.Tag} is open", 3, $"Replace the coil of {device.Tag}: same type, {device.Number("coilVolts"):0} V.");
        yield return new FaultMode($"{device.Tag}/coil-shorted", device.Tag, $"Coil of {device.Tag} has shorted turns",
            [new ElementImpedance(device.Tag, coil.Name, 0.02)], 0.6, $"Replace the coil of {device.Tag}: same type, {device.Number("coilVolts"):0} V.")
        {
            ProofPoints = (a1, a2),
            SizeFactor = 2.5,
        };
        var wrong = device.Number("coilVolts") < 300 ? 400.0 : 690.0;
        yield return new FaultMode($"{device.Tag}/coil-wrong", device.Tag, $"Coil of {device.Tag} is for another voltage ({wrong:0} V)",
            [
                new ParameterIs(device.Tag, "coilVolts", wrong),
                new ParameterIs(device.Tag, "coilOhms", device.Number("coilOhms") * Math.Pow(wrong / device.Number("coilVolts"), 2)),
            ], 0.2, $"Fit a coil for {device.Number("coilVolts"):0} V.")
        {
            ProofPoints = (a1, a2),
            ProofLook = (device.Tag, "coil-label"),
        };
        yield return new FaultMode($"{device.Tag}/jammed", device.Tag, $"Armature of {device.Tag} is jammed: it does not pull in",
            [new PositionLocked(device.Tag, Out)], 0.7, $"Free or replace the contactor {device.Tag}.");
        yield return new FaultMode($"{device.Tag}/sticks", device.Tag, $"Armature of {device.Tag} stays in with the coil dead",
            [new DoesNotReturn(device.Tag)], 0.6, $"Replace the contactor {device.Tag}; sticky faces or residual magnetism come back.");
        yield return new FaultMode($"{device.Tag}/shading-ring", device.Tag, $"Shading ring of {device.Tag} is broken: it hums loudly when in",
            [new AppearsAs(device.Tag, "in", "hums")], 0.3, $"Replace the contactor {device.Tag} or its magnet.");

        foreach (var pole in elements.Where(e => e.Role == ElementRole.Pole))
        {
            yield return Common.Open(device, pole, $"Pole {pole.Name} of {device.Tag} stays open", 0.8, $"Replace the main contacts or the contactor {device.Tag}.");
            yield return Common.Made(device, pole, $"Pole {pole.Name} of {device.Tag} is welded", 0.5, $"Replace the contactor {device.Tag}; find out what overloaded it.");
            foreach (var mode in Common.HighResistance(device, pole, $"Pole {pole.Name} of {device.Tag} is burnt (high resistance)", 0.3, $"Replace the main contacts or the contactor {device.Tag}.", power: true))
            {
                yield return mode;
            }
        }

        var poles = elements.Where(e => e.Role == ElementRole.Pole).ToList();
        if (poles.Count > 1)
        {
            yield return new FaultMode($"{device.Tag}/all-welded", device.Tag, $"All poles of {device.Tag} are welded",
                [.. poles.Select(p => new ElementMade(device.Tag, p.Name))], 0.3, $"Replace the contactor {device.Tag}; find out what overloaded it.")
            {
                ProofPoints = Common.Points(device, poles[0]),
            };
        }

        foreach (var contact in elements.Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed))
        {
            foreach (var mode in ContactFaults.Of(device, contact, $"Auxiliary contact {contact.Name} of {device.Tag}", $"Replace the auxiliary contact block of {device.Tag}.", 1))
            {
                yield return mode;
            }
        }
    }

    public override IEnumerable<string> Cautions(Device device) =>
        ["Pressing the armature in by hand closes the main poles: the motor starts unless the circuit is isolated."];

    /// <summary>
    /// Direct-current resistance of the coil. Without a measured value it is taken as the resistive part at pull-in,
    /// which is nearly all copper (common practice: tens to hundreds of ohm, far below volts over amps).
    /// </summary>
    public override Device Complete(Device device) => device.Number("coilOhms") > 0
        ? device
        : device.With("coilOhms", Math.Round(Math.Pow(device.Number("coilVolts"), 2) / device.Number("coilPullInVa") * device.Number("coilPullInCos"), 1));

    /// <summary>
    /// How strongly the magnet pulls, 1 at rated voltage. An open coil has its voltage and no current; shorted turns draw a
    /// multiple of the current, which bucks the flux. Both leave less than the voltage promises.
    /// </summary>
    private double Pull(Device device, DeviceState state, IDeviceMeter meter)
    {
        var volts = Magnitude(meter.Volts(0)) / device.Number("coilVolts");
        var amps = Magnitude(meter.Amps(0)) / (Admittance(device, Elements(device)[0], state, Domain.Ac).Magnitude * device.Number("coilVolts"));
        return volts < 1e-6 || amps < 1e-6 ? 0 : volts * Math.Min(amps / volts, volts / amps);
    }

    private static Element Auxiliary(string name)
    {
        var ends = name.Split('-');
        // EN 50005: second digit 1-2 opens, 3-4 closes.
        return new Element(ends[0], ends[1], name.EndsWith('2') ? ElementRole.NormallyClosed : ElementRole.NormallyOpen);
    }
}
