using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>
/// What has a coil and an armature, whatever hangs on it: contactors, relays, timers, brakes. An alternating-current coil
/// draws about tenfold VA until the armature has closed, so that a series resistance may keep it from pulling in and
/// still hold it; a direct-current coil is its resistance.
/// </summary>
public abstract class CoilOperated : DeviceKind
{
    private protected const int Out = 0, In = 1;

    /// <summary>
    /// Pull-in and drop-out as shares of rated coil voltage. IEC 60947-4-1 (from memory) asks for pull-in from 85 %
    /// and drop-out between 20 and 75 % (direct current: 10 and 75 %); a usual contactor does it at about 75 % and 50 %,
    /// with direct current at 70 % and 25 %.
    /// </summary>
    private const double PullsInAc = 0.75, DropsOutAc = 0.50, PullsInDc = 0.70, DropsOutDc = 0.25, Buzzes = 0.45;

    private const int CoilElement = 0;

    private protected abstract ImmutableArray<ParameterSpec> OwnParameters { get; }

    private protected virtual (double Volts, double PullInVa, double SealedVa) UsualCoil => (230, 70, 8);

    /// <summary>Coil terminals as they are marked.</summary>
    private protected virtual (string A, string B) CoilTerminals => ("A1", "A2");

    public override ImmutableArray<ParameterSpec> Parameters =>
    [
        .. OwnParameters,
        ParameterSpec.Word("coil", "Coil for alternating or direct current", "ac", "ac", "dc"),
        ParameterSpec.Number("coilVolts", "Rated coil voltage", "V", UsualCoil.Volts, 5, 690),
        ParameterSpec.Number("coilPullInVa", "Coil, armature open; a direct-current coil's power in W", "VA", UsualCoil.PullInVa, 0.1, 5000),
        ParameterSpec.Number("coilPullInCos", "Power factor, armature open", "", 0.75, 0.1, 1),
        ParameterSpec.Number("coilSealedVa", "Coil, armature closed (alternating current)", "VA", UsualCoil.SealedVa, 0.1, 1000),
        ParameterSpec.Number("coilSealedCos", "Power factor, armature closed", "", 0.3, 0.05, 1),
        ParameterSpec.Number("coilOhms", "Coil resistance at direct current, 20 °C; 0: estimated from the pull-in data", "ohm", 0, 0, 1000000),
    ];

    public override ImmutableArray<Element> Elements(Device device) =>
        [new(CoilTerminals.A, CoilTerminals.B, ElementRole.Load), .. Contacts(device)];

    /// <summary>Everything but the coil.</summary>
    private protected abstract ImmutableArray<Element> Contacts(Device device);

    public override ImmutableArray<string> Positions(Device device) => ["out", "in"];

    public override ImmutableArray<Actuation> Actuations(Device device) =>
        [new("in", "Press the armature in by hand", true, DeadOnly: true)];

    public override ImmutableArray<string> Appearances => ["out", "in", "buzzes", "hums", "chatters"];

    /// <summary>Whether the armature is closed in this position.</summary>
    private protected virtual bool IsClosed(DeviceState state) => state.Position == In && !state.Moving;

    public override Complex Admittance(Device device, Element element, DeviceState state, Domain domain)
    {
        var volts = device.Number("coilVolts");
        if (domain != Domain.Ac || IsDirect(device))
        {
            return 1 / device.Number("coilOhms");
        }

        var closed = IsClosed(state);
        return Complex.FromPolarCoordinates(
            device.Number(closed ? "coilSealedVa" : "coilPullInVa") / (volts * volts),
            -Math.Acos(device.Number(closed ? "coilSealedCos" : "coilPullInCos")));
    }

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter) => state.Held
        ? new Transition(state with { Position = In })
        : new Transition(state with { Position = IsPulled(device, state, meter) ? In : Out });

    /// <summary>Whether the magnet closes or holds the armature.</summary>
    private protected bool IsPulled(Device device, DeviceState state, IDeviceMeter meter)
    {
        var (pullsIn, dropsOut) = IsDirect(device) ? (PullsInDc, DropsOutDc) : (PullsInAc, DropsOutAc);
        return Pull(device, state, meter) >= (IsClosed(state) ? dropsOut : pullsIn);
    }

    public override string? Appearance(Device device, DeviceState state, IDeviceMeter meter) =>
        state.Position != Out ? "in" : Pull(device, state, meter) >= Buzzes && !IsDirect(device) ? "buzzes" : "out";

    public override ImmutableArray<Look> Looks(Device device) =>
        [new("coil-label", FormattableString.Invariant($"Voltage printed on the coil of {device.Tag}: {device.Number("coilVolts"):0} V?"), "as drawn", "another voltage")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) =>
        device.Number("coilVolts") == drawn.Number("coilVolts") ? "as drawn" : "another voltage";

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
    [
        .. CoilFaults(device),
        .. ArmatureFaults(device),
        .. Contacts(device).Where(e => e.Role is ElementRole.NormallyOpen or ElementRole.NormallyClosed)
            .SelectMany(c => ContactFaults.Of(device, c, $"Auxiliary contact {c.Name} of {device.Tag}", $"Replace the auxiliary contact block of {device.Tag}.", 1)),
    ];

    private protected IEnumerable<FaultMode> CoilFaults(Device device)
    {
        var coil = Elements(device)[CoilElement];
        var volts = device.Number("coilVolts");
        var sort = FormattableString.Invariant($"{volts:0} V {(IsDirect(device) ? "DC" : "AC")}");
        yield return Common.Open(device, coil, $"Coil of {device.Tag} is open", 3, $"Replace the coil of {device.Tag}: same type, {sort}.");
        yield return new FaultMode($"{device.Tag}/coil-shorted", device.Tag, $"Coil of {device.Tag} has shorted turns",
            [new ElementImpedance(device.Tag, coil.Name, 0.02)], 0.6, $"Replace the coil of {device.Tag}: same type, {sort}.")
        {
            ProofPoints = Common.Points(device, coil),
            SizeFactor = 2.5,
        };
        var wrong = volts < 60 ? 230.0 : volts < 300 ? 400.0 : 690.0;
        yield return new FaultMode($"{device.Tag}/coil-wrong", device.Tag, $"Coil of {device.Tag} is for another voltage ({wrong:0} V)",
            [
                new ParameterIs(device.Tag, "coilVolts", wrong),
                new ParameterIs(device.Tag, "coilOhms", device.Number("coilOhms") * Math.Pow(wrong / volts, 2)),
            ], 0.2, $"Fit a coil for {sort}.")
        {
            ProofPoints = Common.Points(device, coil),
            ProofLook = (device.Tag, "coil-label"),
        };
    }

    private protected virtual IEnumerable<FaultMode> ArmatureFaults(Device device)
    {
        yield return new FaultMode($"{device.Tag}/jammed", device.Tag, $"Armature of {device.Tag} is jammed: it does not pull in",
            [new PositionLocked(device.Tag, Out)], 0.7, $"Free or replace the {Term} {device.Tag}.");
        yield return new FaultMode($"{device.Tag}/sticks", device.Tag, $"Armature of {device.Tag} stays in with the coil dead",
            [new DoesNotReturn(device.Tag)], 0.6, $"Replace the {Term} {device.Tag}; sticky faces or residual magnetism come back.");
        if (!IsDirect(device))
        {
            yield return new FaultMode($"{device.Tag}/shading-ring", device.Tag, $"Shading ring of {device.Tag} is broken: it hums loudly when in",
                [new AppearsAs(device.Tag, "in", "hums")], 0.3, $"Replace the {Term} {device.Tag} or its magnet.");
        }
    }

    /// <summary>
    /// Direct-current resistance of the coil. Without a measured value an alternating-current coil is taken as the resistive
    /// part at pull-in, which is nearly all copper (common practice: tens to hundreds of ohm, far below volts over amps).
    /// </summary>
    public override Device Complete(Device device) => device.Number("coilOhms") > 0
        ? device
        : device.With("coilOhms", Math.Round(Math.Pow(device.Number("coilVolts"), 2) / device.Number("coilPullInVa") * (IsDirect(device) ? 1 : device.Number("coilPullInCos")), 1));

    private protected static bool IsDirect(Device device) => device.Word("coil") == "dc";

    /// <summary>
    /// How strongly the magnet pulls, 1 at rated voltage. An open coil has its voltage and no current; shorted turns draw a
    /// multiple of the current, which bucks the flux. Both leave less than the voltage promises.
    /// </summary>
    private double Pull(Device device, DeviceState state, IDeviceMeter meter)
    {
        var direct = IsDirect(device);
        var rated = Admittance(device, Elements(device)[CoilElement], state, direct ? Domain.Dc : Domain.Ac).Magnitude * device.Number("coilVolts");
        var volts = (direct ? Math.Abs(meter.DcVolts(CoilElement)) : Magnitude(meter.Volts(CoilElement))) / device.Number("coilVolts");
        var amps = (direct ? Math.Abs(meter.DcAmps(CoilElement)) : Magnitude(meter.Amps(CoilElement))) / rated;
        return volts < 1e-6 || amps < 1e-6 ? 0 : volts * Math.Min(amps / volts, volts / amps);
    }

    /// <summary>Auxiliary contact by its numbers. EN 50005: second digit 1-2 opens, 3-4 closes; 5-6 and 7-8 the same, delayed.</summary>
    private protected static Element Auxiliary(string name)
    {
        var ends = name.Split('-');
        return new Element(ends[0], ends[1], name[^1] is '2' or '6' ? ElementRole.NormallyClosed : ElementRole.NormallyOpen);
    }

    public override RepairNotes Repair(Device device, FaultMode fault) => fault.Alterations[0] switch
    {
        ElementOpen or ElementImpedance when fault.Kind == "coil-shorted" || fault.Kind.StartsWith(Elements(device)[CoilElement].Name, StringComparison.Ordinal) => Coil(device, fault),
        ParameterIs when fault.Kind == "coil-wrong" => Coil(device, fault) with
        {
            Causes = [new RootCause("The wrong spare was fitted", "Read the log; look through the store for more of them")],
        },
        DoesNotReturn => base.Repair(device, fault) with
        {
            Causes =
            [
                new RootCause("Grease or resin on the magnet's faces, or the rust protection of a new one not wiped off", "Open it: the faces are dry and bright"),
                new RootCause("Residual magnetism: the air gap is worn away", "It falls off when the contactor is knocked; replace it"),
            ],
            Cautions = [$"{device.Tag} stays in with its coil dead: the machine does not stop. Keep it isolated until it is replaced."],
        },
        AppearsAs => base.Repair(device, fault) with { Causes = [new RootCause("Dirt between the magnet's faces, or a broken shading ring", "Open it: faces clean, copper ring whole")] },
        _ => base.Repair(device, fault),
    };

    private static RepairNotes Coil(Device device, FaultMode fault) => new()
    {
        Steps = [$"Measure A1 to A2 with one lead lifted: what is in parallel (lamp, suppressor) is not in the reading.", $"{fault.Remedy} The whole device, if its housing is brown."],
        Parts = [FormattableString.Invariant($"Coil for {device.Tag}: {device.Number("coilVolts"):0} V {(IsDirect(device) ? "DC" : "AC")}, same type")],
        Causes =
        [
            new RootCause("Control voltage too high, or too low to pull the magnet shut", FormattableString.Invariant($"Volts at the coil while it is in: {0.85 * device.Number("coilVolts"):0} to {1.1 * device.Number("coilVolts"):0} V (0.85 to 1.1 of rated)")),
            new RootCause("The magnet does not close: an AC coil then keeps its pull-in current and burns", "Press the armature by hand, dead: it moves its whole way, faces clean"),
            new RootCause("It chatters: a contact ahead of it bounces", "Listen and watch while it is operated; try Start, limits and relays ahead"),
            RepairNotes.Heat,
        ],
    };
}
