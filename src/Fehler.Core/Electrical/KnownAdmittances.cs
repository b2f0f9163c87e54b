using System.Collections.Immutable;
using System.Numerics;
using Fehler.Core.Circuits;

namespace Fehler.Core.Electrical;

/// <summary>
/// Admittances of one device's elements by domain and position: they change with nothing else. Looked up because asking the kind again for
/// every solution is what costs most.
/// </summary>
/// <remarks>Safe for use by several threads at once: two may both work one out, and find the same.</remarks>
internal sealed class KnownAdmittances(Device device, ImmutableArray<Element> elements)
{
    /// <summary>No device has more positions than this (a fuse set of four: sixteen combinations of blown ones).</summary>
    private const int MostPositions = 64;

    private readonly Complex[]?[]?[] _byDomain = new Complex[]?[]?[3];

    public Complex[] Of(DeviceState state, Domain domain)
    {
        var byPosition = _byDomain[(int)domain] ??= new Complex[]?[2 * MostPositions];
        return byPosition[2 * state.Position + (state.Moving ? 1 : 0)] ??= [.. elements.Select(e => Admittance(e, state, domain))];
    }

    private Complex Admittance(Element element, DeviceState state, Domain domain) =>
        element.Role == ElementRole.Source ? 0
        : !element.IsContact ? device.Kind.Admittance(device, element, state, domain)
        : IsMade(element, state) ? 1 / device.Kind.MadeOhms(device, element)
        : 0;

    /// <summary>A contact on its way is made only if it is made wherever the device may stand: break before make.</summary>
    private bool IsMade(Element element, DeviceState state) =>
        state.Moving
            ? Enumerable.Range(0, device.Kind.Positions(device).Length).All(p => device.Kind.IsMade(device, element, new DeviceState(p)))
            : device.Kind.IsMade(device, element, state);
}
