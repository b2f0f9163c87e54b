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
public sealed record PlateRow(string Device, Fit Fit, string Says)
{
    /// <summary>What would put it right; several where practitioners differ, none where that is for a person to find.</summary>
    public ImmutableArray<ProposedEdit> Changes { get; init; } = [];
}

/// <summary>A change that the description itself suggests.</summary>
/// <param name="Text">What it does, with its reason.</param>
/// <param name="Edit">The change.</param>
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

    /// <summary>Every row, what does not fit first.</summary>
    public static ImmutableArray<PlateRow> Of(CompiledCircuit compiled)
    {
        var loaded = MotorPlace.FullyLoaded(compiled);
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
        [.. Of(compiled).SelectMany(r => r.Changes.Select(c => c with { Text = $"{r.Says} {c.Text}." }))];

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

            var expected = FullLoadCurrent.ThreePhase(
                plate!.Kilowatts * 1000,
                plate.Volts,
                FullLoadCurrent.UsualEfficiency(plate.Kilowatts),
                plate.CosPhi
            );
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

    private static IEnumerable<PlateRow> Settings(CompiledCircuit compiled, IReadOnlyList<Solution> loaded)
    {
        foreach (var (relay, dial) in compiled.Circuit.Devices.Select(d => (d, d.Kind.DialOf(d))).Where(x => x.Item2 is not null))
        {
            if (MotorPlace.Of(compiled.Circuit, loaded, relay.Tag, dial!.Element.Name) is not { } right)
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
    private static IEnumerable<PlateRow> Carriers(CompiledCircuit compiled, IReadOnlyList<Solution> loaded)
    {
        foreach (var device in compiled.Circuit.Devices)
        {
            if (
                device.Kind.RatingOf(device) is not { } rating
                || MotorPlace.Of(compiled.Circuit, loaded, device.Tag, rating.Element.Name) is not { } place
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
        var plates = circuit.Devices.Select(d => d.Kind.PlateOf(d)?.Volts.Value).OfType<double>().Distinct().ToList();
        foreach (var (device, set) in circuit.Devices.Select(d => (d, d.Kind.SetPointOf(d))).Where(x => x.Item2 is not null))
        {
            var volts = set!.Volts.Value;
            var says = FormattableString.Invariant($"The set point is {volts:0} V, the supply {supply:0} V.");
            if (Math.Abs(volts / supply - 1) <= MonitorShare)
            {
                yield return Fits(device, says);
                continue;
            }

            ProposedEdit To(double to, string why) =>
                new(
                    FormattableString.Invariant($"Set it to {to:0} V, {why}"),
                    new SetParameter(device.Tag, set.Parameter, to.ToString("0", CultureInfo.InvariantCulture))
                );
            var others = plates.Where(p => Math.Abs(p / supply - 1) > MonitorShare).ToList();
            yield return others.Count == 0
                ? new PlateRow(device.Tag, Fit.Mind, says + " The motor's plate agrees with the supply.")
                {
                    Changes = [To(supply, "as supply and plate have it")],
                }
                : new PlateRow(device.Tag, Fit.Mind, says + " Both of these are done: choose one and write it down.")
                {
                    Changes =
                    [
                        To(supply, "the supply's volts: it tells a change of the supply"),
                        .. others.Select(p => To(p, "the motor's plate: it tells what the motor does not stand")),
                    ],
                };
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

    private static PlateRow Number(Device device, string parameter, double value, string text)
    {
        var written = Math.Round(value, value < 10 ? 2 : 1).ToString(CultureInfo.InvariantCulture);
        var spec = device.Kind.Parameters.First(p => p.Name == parameter);
        return new PlateRow(device.Tag, Fit.DoesNotFit, text)
        {
            Changes =
            [
                new ProposedEdit(
                    $"{spec.Description} of {device.Tag}: {written} {spec.Unit}",
                    new SetParameter(device.Tag, parameter, written)
                ),
            ],
        };
    }
}
