using System.Collections.Immutable;
using System.Globalization;
using Fehler.Core.Circuits;
using Fehler.Core.Electrical;
using Fehler.Core.Operation;

namespace Fehler.Core.Editing;

/// <summary>A change that the description itself suggests, with its reason.</summary>
public sealed record ProposedEdit(string Text, CircuitEdit Edit);

/// <summary>
/// What follows from the motor's nameplate and from the voltages that simulation finds: full-load current, overload setting, coil
/// voltage. Only proposed; a person decides.
/// </summary>
public static class Proposals
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

    public static ImmutableArray<ProposedEdit> Of(CompiledCircuit compiled) =>
        [.. Nameplates(compiled.Circuit), .. Settings(compiled), .. Coils(compiled)];

    /// <summary>Full-load current from power, voltage, efficiency and power factor: I = P / (sqrt 3 U eta cos phi).</summary>
    public static Amps FullLoadAmps(double kilowatts, Volts volts, double cosPhi) =>
        new(kilowatts * 1000 / (Math.Sqrt(3) * volts.Value * Efficiency(kilowatts) * cosPhi));

    private static IEnumerable<ProposedEdit> Nameplates(Circuit circuit)
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

            var expected = FullLoadAmps(plate!.Kilowatts, plate.Volts, plate.CosPhi);
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
        }
    }

    private static IEnumerable<ProposedEdit> Settings(CompiledCircuit compiled)
    {
        foreach (var (relay, dial) in compiled.Circuit.Devices.Select(d => (d, d.Kind.DialOf(d))).Where(x => x.Item2 is not null))
        {
            if (Placed(compiled, relay, dial!) is { } right && Math.Abs(dial!.Amps / right.Amps - 1) > DialShare)
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
    private static Place? Placed(CompiledCircuit compiled, Device relay, Dial dial)
    {
        Place? best = null;
        var nearest = 0.12;
        foreach (var solution in FullyLoaded(compiled))
        {
            var through = solution.Amps(relay.Tag, dial.Element.Name).Magnitude;
            var motors = compiled
                .Circuit.Devices.Select(d => (Device: d, Plate: d.Kind.PlateOf(d)))
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
    private static IEnumerable<ProposedEdit> Coils(CompiledCircuit compiled)
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
        }
    }

    private static IEnumerable<ImmutableArray<Step>> Pressed(Circuit circuit) =>
        circuit
            .Devices.Where(d => d.Kind.Elements(d).FirstOrDefault()?.Role == ElementRole.NormallyOpen)
            .SelectMany(d =>
                d.Kind.Actuations(d)
                    .Where(a => a is { DeadOnly: false, Resets: false })
                    .Take(1)
                    .Select(a => (ImmutableArray<Step>)[new Step(d.Tag, a.Position)])
            );

    private static ProposedEdit Number(Device device, string parameter, double value, string text) =>
        new(
            text,
            new SetParameter(
                device.Tag,
                parameter,
                Math.Round(value, value < 10 ? 2 : 1).ToString(System.Globalization.CultureInfo.InvariantCulture)
            )
        );
}
