using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;
using Fehler.Core.Trade;

namespace Fehler.Core.Editing;

/// <summary>Whether a part goes with the motor and the supply.</summary>
public enum Fit
{
    Fits,

    /// <summary>It can be meant so: to be looked at.</summary>
    Mind,
    DoesNotFit,
}

/// <summary>What a plate or a setting says, held against motor and supply.</summary>
/// <param name="Device">Tag of the device.</param>
/// <param name="Fit">Whether it fits.</param>
/// <param name="Says">Why, with the numbers.</param>
/// <param name="Edit">What would put it right in the description; null where that is for a person to find.</param>
public sealed record PlateRow(string Device, Fit Fit, string Says, CircuitEdit? Edit = null);

/// <summary>A change that the description itself suggests, with its reason.</summary>
public sealed record ProposedEdit(string Text, CircuitEdit Edit);

/// <summary>
/// The check of plates and settings on arrival: nameplate, dial, contactor, fuse, coil, monitor, transformer and motor cable against the motor and
/// the supply that simulation finds at each. What does not fit and can be put right is proposed; a person decides.
/// </summary>
public static class PlateCheck
{
    /// <summary>Two figures that differ by less than this are the same on a dial.</summary>
    private const double DialShare = 0.06;

    /// <summary>Slip of a cage motor at its rated load: some per cent, of the smallest some ten (common practice).</summary>
    private const double MostSlip = 0.14,
        UsualSlip = 0.04;

    private static double Slip(MotorPlate plate) => plate.SynchronousRpm > 0 ? 1 - plate.Rpm / plate.SynchronousRpm : 0;

    /// <summary>Control voltages that coils are made for, V (common practice).</summary>
    private static readonly double[] UsualVolts = [12, 24, 48, 110, 120, 180, 208, 230, 240, 277, 347, 400, 480, 600, 690];

    /// <summary>Efficiency of a cage motor around its rated point, rising with its size (common practice).</summary>
    private static double Efficiency(double kilowatts) =>
        kilowatts switch
        {
            < 0.75 => 0.72,
            < 2.2 => 0.8,
            < 7.5 => 0.86,
            < 22 => 0.9,
            _ => 0.93,
        };

    /// <summary>Every row, what does not fit first.</summary>
    public static ImmutableArray<PlateRow> Of(CompiledCircuit compiled)
    {
        var loaded = FullyLoaded(compiled).ToList();
        return
        [
            .. Nameplates(compiled.Circuit)
                .Concat(Settings(compiled, loaded))
                .Concat(Coils(compiled))
                .Concat(Carriers(compiled, loaded))
                .Concat(Monitors(compiled.Circuit))
                .Concat(Transformers(compiled.Circuit))
                .Concat(Cables(compiled.Circuit))
                .OrderByDescending(r => r.Fit),
        ];
    }

    /// <summary>Changes that follow from it.</summary>
    public static ImmutableArray<ProposedEdit> Proposals(CompiledCircuit compiled) =>
        [.. Of(compiled).Where(r => r.Edit is not null).Select(r => new ProposedEdit(r.Says, r.Edit!))];

    private static IEnumerable<PlateRow> Nameplates(Circuit circuit)
    {
        foreach (var (motor, plate) in circuit.Devices.Select(d => (d, d.Kind.PlateOf(d))).Where(x => x.Item2 is not null))
        {
            if (Slip(plate!) > MostSlip)
            {
                yield return Number(
                    motor,
                    plate!.RpmParameter,
                    Math.Round(plate.SynchronousRpm * (1 - UsualSlip)),
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{motor.Tag} is said to run at {plate.Rpm:0} where its field turns at {plate.SynchronousRpm:0} 1/min: no motor slips "
                            + $"so much. A nameplate for another frequency? Compare speed, frequency and current with it."
                    )
                );
                continue;
            }

            var expected = FullLoadCurrent.ThreePhase(plate!.Kilowatts * 1000, plate.Volts, Efficiency(plate.Kilowatts), plate.CosPhi);
            if (Math.Abs(plate.Amps / expected - 1) > 0.3)
            {
                yield return Number(
                    motor,
                    plate.AmpsParameter,
                    expected.Value,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"A motor of {plate.Kilowatts:0.##} kW at {plate.Volts.Value:0} V takes about {expected:0.0} A; "
                            + $"{motor.Tag} says {plate.Amps.Value:0.0} A. Compare with the nameplate."
                    )
                );
            }
            else
            {
                yield return Fits(
                    motor,
                    FormattableString.Invariant(
                        $"{plate.Amps.Value:0.0} A goes with {plate.Kilowatts:0.##} kW at {plate.Volts.Value:0} V (about {expected.Value:0.0} A)."
                    )
                );
            }
        }
    }

    private static IEnumerable<PlateRow> Settings(CompiledCircuit compiled, List<Solution> loaded)
    {
        foreach (var (relay, dial) in compiled.Circuit.Devices.Select(d => (d, d.Kind.DialOf(d))).Where(x => x.Item2 is not null))
        {
            if (Placed(compiled.Circuit, loaded, relay.Tag, dial!.Element.Name) is not { } right)
            {
                continue;
            }

            if (Math.Abs(dial.Amps / right.Amps - 1) <= DialShare)
            {
                yield return Fits(
                    relay,
                    FormattableString.Invariant(
                        $"The dial is at {dial.Amps.Value:0.0} A, the nameplate current of {right.Motors} in its place."
                    )
                );
            }
            else
            {
                yield return Number(
                    relay,
                    dial.Parameter,
                    right.Amps.Value,
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{right.Motors} takes {right.Plate.Value:0.0} A by its nameplate, of which {relay.Tag} carries "
                            + $"{right.Share:P0}; its dial is at {dial.Amps.Value:0.0} A. Set it to the nameplate current of its place; "
                            + $"never 125 % where the device already includes the factor."
                    )
                );
            }
        }
    }

    /// <summary>What a dial belongs at: the nameplate current of what it protects, times the share that flows in its place.</summary>
    /// <param name="Motors">Tags of the motors behind it.</param>
    /// <param name="Plate">Their nameplate current.</param>
    /// <param name="Share">Current in its place over theirs: 1 in the line, 0.58 in the phase leads of a delta.</param>
    private readonly record struct Place(string Motors, Amps Plate, double Share)
    {
        public Amps Amps => Share * Plate;
    }

    /// <summary>Shares that a place can have: the line, or the phase leads of a delta (circuit theory: 1 over the root of 3).</summary>
    private static readonly double[] Shares = [1, 1 / Math.Sqrt(3)];

    /// <summary>
    /// The plate decides how much, the simulation only where: a current that is worked out from a wrong plate, speed or frequency would
    /// put the dial above what the motor stands.
    /// </summary>
    private static Place? Placed(Circuit circuit, List<Solution> loaded, string tag, string element)
    {
        Place? best = null;
        var nearest = 0.12;
        foreach (var solution in loaded)
        {
            var through = solution.Amps(tag, element).Magnitude;
            var motors = circuit
                .Devices.Select(d => (Device: d, Plate: d.Kind.PlateOf(d)))
                .Where(x => x.Plate is not null)
                .Select(x =>
                    (
                        x.Device.Tag,
                        x.Plate!.Amps,
                        Taken: solution.Amps(x.Device.Tag, x.Device.Kind.Elements(x.Device)[0].Name).Magnitude / x.Plate.LeadShare
                    )
                )
                .Where(x => x.Taken > 0.05)
                .ToList();
            foreach (var behind in motors.Select(m => new[] { m }).Append([.. motors]).Where(b => b.Length > 0))
            {
                var ratio = through / behind.Sum(m => m.Taken);
                var share = Shares.MinBy(s => Math.Abs(s - ratio));
                if (through > 0.05 && Math.Abs(ratio - share) < nearest)
                {
                    nearest = Math.Abs(ratio - share);
                    best = new Place(string.Join(" and ", behind.Select(m => m.Tag)), new(behind.Sum(m => m.Amps.Value)), share);
                }
            }
        }

        return best;
    }

    /// <summary>The circuit with its motors at their rated load, after each way to start them.</summary>
    private static IEnumerable<Solution> FullyLoaded(CompiledCircuit compiled)
    {
        // Started as it is loaded, then loaded fully: a star-delta motor could not start at full load.
        var circuit = compiled.Circuit;
        var loaded = new Simulator(Network.Of(circuit with { Devices = [.. circuit.Devices.Select(d => d.Kind.FullyLoaded(d))] }));
        var (runUp, simulator) = (compiled.RunUp, new Simulator(compiled.Network));
        foreach (
            var steps in runUp.WorksAtRest
                ?
                [
                    [],
                ]
                : runUp.Starts.Select(s => s.Run)
        )
        {
            var outcome = simulator.Do(simulator.Start().State, steps);
            outcome = simulator.Do(outcome.State, Step.Wait(runUp.TimeToSettle(outcome.State).Value));
            yield return loaded.Observe(outcome.State).Solution;
        }
    }

    /// <summary>Coils that get a voltage they are not made for.</summary>
    private static IEnumerable<PlateRow> Coils(CompiledCircuit compiled)
    {
        var (runUp, simulator) = (compiled.RunUp, new Simulator(compiled.Network));
        var rest = simulator.Start();
        var tries = runUp.Starts.Length > 0 ? runUp.Starts.Select(s => s.Run) : Pressed(compiled.Circuit);
        foreach (var (device, coil) in compiled.Circuit.Devices.Select(d => (d, d.Kind.CoilOf(d))).Where(x => x.Item2 is not null))
        {
            var (a, b) = (device.Terminal(coil!.Element.A), device.Terminal(coil.Element.B));
            var solutions = tries.Select(t => simulator.Do(rest.State, t).Solution).Append(rest.Solution).ToList();
            var volts = solutions.Max(s => Math.Max(s.Volts(a, b).Magnitude, s.DcVolts(a, b).Magnitude.Value));
            if (volts > 5 && Math.Abs(coil.Volts.Value / volts - 1) > 0.25)
            {
                var usual = UsualVolts.MinBy(v => Math.Abs(v - volts));
                yield return Number(
                    device,
                    coil.VoltsParameter,
                    usual,
                    FormattableString.Invariant($"The coil of {device.Tag} sees {volts:0} V; it is rated {coil.Volts.Value:0} V.")
                );
            }
            else if (volts > 5)
            {
                var share = volts / coil.Volts.Value;
                var says = FormattableString.Invariant($"The coil sees {volts:0} V and is rated {coil.Volts.Value:0} V ({share:P0}).");
                yield return share is >= CoilPullIn.Guaranteed and <= MostCoil
                    ? Fits(device, says)
                    : new PlateRow(device.Tag, Fit.Mind, says + " It is sure to pull in from 85 to 110 %.");
            }
        }
    }

    /// <summary>What switches or protects the motor, by the current in its place.</summary>
    private static IEnumerable<PlateRow> Carriers(CompiledCircuit compiled, List<Solution> loaded)
    {
        foreach (var device in compiled.Circuit.Devices)
        {
            if (
                device.Kind.RatingOf(device) is not { } rating
                || Placed(compiled.Circuit, loaded, device.Tag, rating.Element.Name) is not { } place
            )
            {
                continue;
            }

            var (rated, taken) = (rating.Amps.Value, place.Amps.Value);
            var says = FormattableString.Invariant($"It is rated {rated:0.#} A; {place.Motors} takes {taken:0.0} A in its place");
            yield return rating.Duty switch
            {
                Duty.SwitchesMotor when rated < taken => new PlateRow(
                    device.Tag,
                    Fit.DoesNotFit,
                    says + ". AC-3 has to be the motor's current at least: its contacts weld or burn."
                ),
                Duty.Carries when rated < taken => new PlateRow(device.Tag, Fit.DoesNotFit, says + ": it is overloaded."),
                Duty.Fuses when rated < LeastFuse * taken => new PlateRow(
                    device.Tag,
                    Fit.Mind,
                    says
                        + FormattableString.Invariant(
                            $": below {LeastFuse:0.#} times it blows at starts sooner or later (common practice)."
                        )
                ),
                Duty.Fuses when rated > MostFuse * taken => new PlateRow(
                    device.Tag,
                    Fit.Mind,
                    says
                        + FormattableString.Invariant($": above {MostFuse:0} times contactor and overload may not be protected; ")
                        + "look at what their makers allow (common practice)."
                ),
                _ => Fits(device, says + "."),
            };
        }
    }

    /// <summary>A monitor's set point against the supply: to the plate or to what is measured, both are done (common practice).</summary>
    private static IEnumerable<PlateRow> Monitors(Circuit circuit)
    {
        var supply = circuit.Supply.Kind.SourceOf(circuit.Supply)!.LineVolts.Value;
        foreach (var (device, set) in circuit.Devices.Select(d => (d, d.Kind.SetPointOf(d))).Where(x => x.Item2 is not null))
        {
            var volts = set!.Value.Value;
            var says = FormattableString.Invariant($"The set point is {volts:0} V, the supply {supply:0} V.");
            yield return Math.Abs(volts / supply - 1) <= MonitorShare
                ? Fits(device, says)
                : new PlateRow(
                    device.Tag,
                    Fit.Mind,
                    says
                        + " Set to the measured volts it tells a change of the supply; set to the motor's plate it tells what the "
                        + "motor does not stand. Choose one and write it down."
                );
        }
    }

    /// <summary>A control transformer against all that can be in at once and the largest pull-in.</summary>
    private static IEnumerable<PlateRow> Transformers(Circuit circuit)
    {
        var coils = circuit.Devices.Select(d => d.Kind.CoilOf(d)).Where(c => c is { IsDirect: false }).ToList();
        foreach (var device in circuit.Devices)
        {
            if (device.Kind.TransformerVaOf(device) is not { } va || coils.Count == 0)
            {
                continue;
            }

            var largest = coils.MaxBy(c => c!.PullInVa)!;
            var burden = coils.Sum(c => c!.SealedVa) - largest.SealedVa + largest.PullInVa;
            var says = FormattableString.Invariant($"It gives {va:0} VA; all coils held and the largest pulling in take {burden:0} VA.");
            yield return va >= burden
                ? Fits(device, says)
                : new PlateRow(
                    device.Tag,
                    Fit.Mind,
                    says + " Not all are in at once in every circuit; where they are, the coil buzzes and drops."
                );
        }
    }

    /// <summary>Motor cables by what their section carries.</summary>
    private static IEnumerable<PlateRow> Cables(Circuit circuit)
    {
        foreach (var (motor, plate) in circuit.Devices.Select(d => (d, d.Kind.PlateOf(d))).Where(x => x.Item2 is not null))
        {
            var lead = plate!.LeadShare * plate.Amps.Value;
            var thinnest = circuit
                .Conductors.Where(c => (c.From.Device == motor.Tag || c.To.Device == motor.Tag) && c.Wire != "PE")
                .Select(c => c.SquareMillimetres)
                .DefaultIfEmpty(0)
                .Min();
            if (thinnest <= 0)
            {
                continue;
            }

            var carries = MotorCable.Carries(thinnest);
            var says = FormattableString.Invariant(
                $"Its cable of {thinnest:0.##} mm² carries about {carries:0} A; a lead takes {lead:0.0} A."
            );
            yield return carries >= lead
                ? Fits(motor, says)
                : new PlateRow(motor.Tag, Fit.DoesNotFit, says + " Laying, length and local code decide; look at the cable first.");
        }
    }

    /// <summary>The highest share of its volts that a coil is made for (IEC 60947-4-1, from memory).</summary>
    private const double MostCoil = 1.1;

    /// <summary>A fuse over the motor's current: less blows at starts, more protects little (common practice).</summary>
    private const double LeastFuse = 1.4,
        MostFuse = 4;

    private const double MonitorShare = 0.05;

    private static PlateRow Fits(Device device, string says) => new(device.Tag, Fit.Fits, says);

    private static IEnumerable<ImmutableArray<Step>> Pressed(Circuit circuit) =>
        circuit
            .Devices.Where(d => d.Kind.Elements(d).FirstOrDefault()?.Role == ElementRole.NormallyOpen)
            .SelectMany(d =>
                d.Kind.Actuations(d)
                    .Where(a => a is { DeadOnly: false, Resets: false })
                    .Take(1)
                    .Select(a => (ImmutableArray<Step>)[new Step(d.Tag, a.Position)])
            );

    private static PlateRow Number(Device device, string parameter, double value, string text) =>
        new(
            device.Tag,
            Fit.DoesNotFit,
            text,
            new SetParameter(
                device.Tag,
                parameter,
                Math.Round(value, value < 10 ? 2 : 1).ToString(System.Globalization.CultureInfo.InvariantCulture)
            )
        );
}
