using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Devices;
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

    /// <summary>Efficiency of a cage motor around its rated point, rising with its size (common practice).</summary>
    private static double Efficiency(double kilowatts) => kilowatts switch { < 0.75 => 0.72, < 2.2 => 0.8, < 7.5 => 0.86, < 22 => 0.9, _ => 0.93 };

    public static ImmutableArray<ProposedEdit> Of(Circuit circuit) => [.. Nameplates(circuit), .. Settings(circuit), .. Coils(circuit)];

    /// <summary>Full-load current from power, voltage, efficiency and power factor: I = P / (sqrt 3 U eta cos phi).</summary>
    public static double FullLoadAmps(double kilowatts, double volts, double cosPhi) => kilowatts * 1000 / (Math.Sqrt(3) * volts * Efficiency(kilowatts) * cosPhi);

    private static IEnumerable<ProposedEdit> Nameplates(Circuit circuit)
    {
        foreach (var motor in circuit.Devices.Where(d => d.Kind.Id == "motor"))
        {
            var expected = FullLoadAmps(motor.Number("kilowatts"), motor.Number("volts"), motor.Number("cosPhi"));
            if (Math.Abs(motor.Number("amps") / expected - 1) > 0.3)
            {
                yield return Number(motor, "amps", expected, FormattableString.Invariant(
                    $"A motor of {motor.Number("kilowatts"):0.##} kW at {motor.Number("volts"):0} V takes about {expected:0.0} A; {motor.Tag} says {motor.Number("amps"):0.0} A. Compare with the nameplate."));
            }
        }
    }

    private static IEnumerable<ProposedEdit> Settings(Circuit circuit)
    {
        foreach (var relay in circuit.Devices.Where(d => d.Kind.Parameters.Any(p => p.Name == "settingAmps")))
        {
            if (Carried(circuit, relay) is { } carried && Math.Abs(relay.Number("settingAmps") / carried - 1) > DialShare)
            {
                yield return Number(relay, "settingAmps", carried, FormattableString.Invariant(
                    $"At full load {relay.Tag} carries {carried:0.0} A; its dial is at {relay.Number("settingAmps"):0.0} A. Set it to the nameplate current of its place; never 125 % where the device already includes the factor."));
            }
        }
    }

    /// <summary>Current through a relay's first element with the motors at their rated load; null when nothing runs.</summary>
    private static double? Carried(Circuit circuit, Device relay)
    {
        // Started as it is loaded, then loaded fully: a star-delta motor could not start at full load.
        var loaded = new Simulator(Network.Of(circuit with { Devices = [.. circuit.Devices.Select(d => d.Kind.Parameters.Any(p => p.Name == "load") ? d.With("load", 1.0) : d)] }));
        var runUp = RunUp.Of(circuit);
        var simulator = new Simulator(Network.Of(circuit));
        var element = relay.Kind.Elements(relay)[0].Name;
        var most = 0.0;
        foreach (var steps in runUp.WorksAtRest ? [[]] : runUp.Starts.Select(s => s.Run))
        {
            var outcome = simulator.Do(simulator.Start().State, steps);
            outcome = simulator.Do(outcome.State, Step.Wait(runUp.TimeToSettle(outcome.State)));
            outcome = loaded.Observe(outcome.State);
            most = Math.Max(most, outcome.Solution.Amps(relay.Tag, element).Magnitude);
        }

        return most > 0.05 ? most : null;
    }

    /// <summary>Coils that get a voltage they are not made for.</summary>
    private static IEnumerable<ProposedEdit> Coils(Circuit circuit)
    {
        var runUp = RunUp.Of(circuit);
        var simulator = new Simulator(Network.Of(circuit));
        var rest = simulator.Start();
        var tries = runUp.Starts.Length > 0 ? runUp.Starts.Select(s => s.Run) : Pressed(circuit);
        foreach (var device in circuit.Devices.Where(d => d.Kind is CoilOperated))
        {
            var coil = device.Kind.Elements(device)[0];
            var (a, b) = (device.Terminal(coil.A), device.Terminal(coil.B));
            var solutions = tries.Select(t => simulator.Do(rest.State, t).Solution).Append(rest.Solution).ToList();
            var volts = solutions.Max(s => Math.Max(s.Volts(a, b).Magnitude, Math.Abs(s.DcVolts(a, b))));
            if (volts > 5 && Math.Abs(device.Number("coilVolts") / volts - 1) > 0.25)
            {
                var usual = new double[] { 12, 24, 48, 110, 120, 180, 208, 230, 240, 277, 347, 400, 480, 600, 690 }.MinBy(v => Math.Abs(v - volts));
                yield return Number(device, "coilVolts", usual, FormattableString.Invariant($"The coil of {device.Tag} sees {volts:0} V; it is rated {device.Number("coilVolts"):0} V."));
            }
        }
    }

    private static IEnumerable<ImmutableArray<Step>> Pressed(Circuit circuit) => circuit.Devices
        .Where(d => d.Kind.Elements(d).FirstOrDefault()?.Role == ElementRole.NormallyOpen)
        .SelectMany(d => d.Kind.Actuations(d).Where(a => a is { DeadOnly: false, Resets: false }).Take(1).Select(a => (ImmutableArray<Step>)[new Step(d.Tag, a.Position)]));

    private static ProposedEdit Number(Device device, string parameter, double value, string text) =>
        new(text, new SetParameter(device.Tag, parameter, Math.Round(value, value < 10 ? 2 : 1).ToString(System.Globalization.CultureInfo.InvariantCulture)));
}
