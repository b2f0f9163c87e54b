using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Fehler.Core.Circuits;
using Fehler.Core.Options;
using Fehler.Core.Trade;

namespace Fehler.Core.Editing;

/// <summary>A sum as a circuit asks it: what its plates and settings know is given already.</summary>
/// <param name="Sum">Which sum.</param>
/// <param name="Device">Tag of the device that it is asked of.</param>
/// <param name="Title">The device with what it does.</param>
/// <param name="Given">What is known, by the sum's own names; the rest has its default.</param>
public sealed record AskedSum(string Sum, string Device, string Title, JsonElement Given);

/// <summary>The trade's sums asked of the devices of a circuit, and what of their results belongs in its description.</summary>
public static class SumsOnCircuit
{
    /// <summary>Every sum that the circuit knows something of.</summary>
    public static ImmutableArray<AskedSum> Of(CompiledCircuit compiled)
    {
        var circuit = compiled.Circuit;
        return
        [
            .. from asked in Relays(compiled)
                .Concat(Motors(circuit))
                .Concat(Coils(circuit))
                .Concat(Monitors(circuit))
                .Concat(Transformers(circuit))
            let device = asked.Device
            select new AskedSum(
                SumCatalogue.IdOf(asked.Sum),
                device.Tag,
                device.Function.Length > 0 ? $"{device.Tag} {device.Function}" : $"{device.Tag} {device.Kind.Name}",
                OptionReader.Write(asked.Sum)
            ),
        ];
    }

    /// <summary>Where a result belongs in the circuit's description; null where it says something and sets nothing.</summary>
    /// <exception cref="RefusedException">The circuit has no such device.</exception>
    public static ProposedEdit? Put(Circuit circuit, string tag, Sum sum, SumResult result)
    {
        var device = circuit.FindDevice(tag) ?? throw new RefusedException($"{circuit.Tag} has no {tag}.");
        var parameter = sum switch
        {
            OverloadDial => device.Kind.DialOf(device)?.Parameter,
            FullLoadCurrent { IsSinglePhase: false } => device.Kind.PlateOf(device)?.AmpsParameter,
            _ => null,
        };
        if (device.Kind.Parameters.FirstOrDefault(p => p.Name == parameter) is not { } spec)
        {
            return null;
        }

        var written = Sum.N(result.Value);
        return new ProposedEdit($"{spec.Description} of {tag}: {written} {spec.Unit}", new SetParameter(tag, spec.Name, written));
    }

    private static IEnumerable<(Sum Sum, Device Device)> Relays(CompiledCircuit compiled)
    {
        var loaded = MotorPlace.FullyLoaded(compiled);
        foreach (var (device, dial) in With(compiled.Circuit, d => d.Kind.DialOf(d)))
        {
            if (MotorPlace.Of(compiled.Circuit, loaded, device.Tag, dial.Element.Name) is { } place)
            {
                yield return (
                    new OverloadDial { Amps = place.Plate.Value, Place = place.IsInDelta ? OverloadPlace.DeltaPhase : OverloadPlace.Line },
                    device
                );
            }

            yield return (
                new TripTime
                {
                    DialAmps = dial.Amps.Value,
                    TripClass = dial.TripClass,
                    Amps = TwicePast * dial.Amps.Value,
                },
                device
            );
        }
    }

    private static IEnumerable<(Sum Sum, Device Device)> Motors(Circuit circuit)
    {
        var volts = circuit.Supply.Kind.SourceOf(circuit.Supply)!.LineVolts.Value;
        foreach (var (device, plate) in With(circuit, d => d.Kind.PlateOf(d)))
        {
            yield return (
                new FullLoadCurrent
                {
                    Kilowatts = plate.Kilowatts,
                    Volts = plate.Volts.Value,
                    Efficiency = FullLoadCurrent.UsualEfficiency(plate.Kilowatts),
                    CosPhi = plate.CosPhi,
                },
                device
            );
            var starting = plate.StartingMultiple > 0 ? plate.StartingMultiple : new OneLineOpen().StartingMultiple;
            yield return (new OneLineOpen { Amps = plate.Amps.Value, StartingMultiple = starting }, device);
            if (plate.SynchronousRpm > plate.Rpm && plate.Rpm > 0)
            {
                yield return (
                    new MotorLoad
                    {
                        SynchronousRpm = plate.SynchronousRpm,
                        RatedRpm = plate.Rpm,
                        Rpm = plate.Rpm,
                        RatedVolts = plate.Volts.Value,
                        Volts = volts,
                    },
                    device
                );
            }

            var leads = circuit
                .Conductors.Where(c => (c.From.Device == device.Tag || c.To.Device == device.Tag) && c.Wire != "PE")
                .ToList();
            if (leads.Count > 0)
            {
                yield return (
                    new VoltDrop
                    {
                        Amps = plate.LeadShare * plate.Amps.Value,
                        CosPhi = plate.CosPhi,
                        Metres = Math.Round(leads.Max(c => c.Metres), 1),
                        SquareMillimetres = leads.Min(c => c.SquareMillimetres),
                        Volts = volts,
                        StartingMultiple = starting,
                    },
                    device
                );
            }
        }
    }

    private static IEnumerable<(Sum Sum, Device Device)> Coils(Circuit circuit)
    {
        foreach (var (device, coil) in With(circuit, d => d.Kind.CoilOf(d)))
        {
            yield return (
                new CoilOhms
                {
                    Volts = coil.Volts.Value,
                    Burden = coil.PullInVa,
                    IsDirect = coil.IsDirect,
                },
                device
            );
            if (!coil.IsDirect)
            {
                yield return (new CoilPullIn { Volts = coil.Volts.Value, PullInVa = coil.PullInVa }, device);
                yield return (new CableHoldsCoil { Volts = coil.Volts.Value, SealedVa = coil.SealedVa }, device);
            }
        }
    }

    private static IEnumerable<(Sum Sum, Device Device)> Monitors(Circuit circuit) =>
        With(circuit, d => d.Kind.SetPointOf(d))
            .Select(x =>
                (
                    (Sum)
                        new MonitorThresholds
                        {
                            Volts = x.Of.Volts.Value,
                            Below = 100 - x.Of.UnderPercent,
                            Above = x.Of.OverPercent - 100,
                        },
                    x.Device
                )
            );

    private static IEnumerable<(Sum Sum, Device Device)> Transformers(Circuit circuit)
    {
        var coils = With(circuit, d => d.Kind.CoilOf(d)).Select(x => x.Of).Where(c => !c.IsDirect).ToList();
        return coils.Count == 0
            ? []
            : circuit
                .Devices.Where(d => d.Kind.TransformerVaOf(d) is not null)
                .Select(d =>
                    (
                        (Sum)
                            new TransformerSize
                            {
                                Coils = coils.Count,
                                SealedVa = Math.Round(coils.Average(c => c.SealedVa), 1),
                                PullInVa = coils.Max(c => c.PullInVa),
                                Lamps = circuit.Devices.Count(l => l.Kind.Id == "pilot-lamp"),
                            },
                        d
                    )
                );
    }

    /// <summary>A current at which a relay's time is asked: twice its dial (a usual point of its curve).</summary>
    private const double TwicePast = 2;

    private static IEnumerable<(Device Device, T Of)> With<T>(Circuit circuit, Func<Device, T?> of)
        where T : class => from device in circuit.Devices let known = of(device) where known is not null select (device, known);
}
