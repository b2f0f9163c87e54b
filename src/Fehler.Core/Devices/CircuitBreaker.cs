using System.Collections.Immutable;
using Fehler.Core.Circuits;
using Fehler.Core.Faults;

namespace Fehler.Core.Devices;

/// <summary>A miniature or moulded-case circuit-breaker; one pole's short circuit opens all poles.</summary>
internal sealed class CircuitBreaker : SwitchingDevice
{
    /// <summary>Magnetic release of a type C breaker: at most 10 times rated current (IEC 60898-1, from memory).</summary>
    private const double MagneticMultiple = 10;

    public override string Id => "circuit-breaker";
    public override string Term => "circuit-breaker";
    public override ImmutableArray<string> Positions(Device device) => ["off", "on", "tripped"];

    public override (string Off, string On, int Rank)? IsolatingPositions => ("off", "on", 1);

    public override ImmutableArray<Actuation> Actuations(Device device) => [new("off", "Switch off", false), new("on", "Switch on", false)];

    public override ImmutableArray<Look> Looks(Device device) => [new("toggle", $"Toggle of {device.Tag}", "on", "off", "tripped")];

    public override string Seen(Device device, Look look, DeviceState state, Device drawn) => Positions(device)[state.Position];

    public override Transition Settle(Device device, DeviceState state, IDeviceMeter meter)
    {
        if (state.Position != 1)
        {
            return new Transition(state);
        }

        var worst = Enumerable.Range(0, Elements(device).Length).Max(k => Magnitude(meter.Amps(k))) / device.Number("ratedAmps");
        return worst > MagneticMultiple ? new Transition(state with { Position = 2 }, worst / MagneticMultiple) : new Transition(state);
    }

    public override IEnumerable<FaultMode> FaultModes(Device device) =>
        base.FaultModes(device).Append(new FaultMode($"{device.Tag}/tripped", device.Tag, $"Circuit-breaker {device.Tag} has tripped",
            [new FoundInPosition(device.Tag, 2)], 1.5, "Find the cause before switching on again.")
        {
            ProofLook = (device.Tag, "toggle"),
            AskWhy = "A breaker trips because of a short circuit, an earth fault or an overload: find it before switching on.",
        });
}
